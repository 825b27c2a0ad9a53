import { chainBounds } from '../../geometry/plane/chain';
import { EMPTY_BOUNDS, Point, isEmpty, joinBounds } from '../../geometry/plane/point';
import { Finding } from '../../quantity/finding';
import { Feature, Part, SINGLE, endsAt, isBeside, sideOf } from './feature';
import { aimedPart } from './limits';
import { partModel } from './model';
import { trimmedPart } from './notch';
import { mirrored, moved, turnedLeft } from './placed';
import { instancesOf } from './shapes';
import {
  BESIDE_FACES,
  Body,
  Face,
  FACE_UPS,
  Turn,
  Up,
  back,
  faceOf,
  isOnSide,
  turnBetween,
  turnedBody,
  turnsOver,
} from './turn';

/** The box of the part as it is drawn: that of its outside. Parts are turned about its middle, so that they stay where they are. */
export function bodyOf(part: Part): Body {
  const b = part.features
    .filter((f) => f.meaning === 'outline' && !isBeside(f) && !f.lean)
    .flatMap(instancesOf)
    .map(chainBounds)
    .reduce(joinBounds, EMPTY_BOUNDS);
  if (isEmpty(b)) return { x: 0, y: 0, size: [0, 0, part.thickness] };
  return {
    x: (b.minX + b.maxX) / 2,
    y: (b.minY + b.maxY) / 2,
    size: [b.maxX - b.minX, b.maxY - b.minY, part.thickness],
  };
}

/** Middle of a face, as places on it are told. */
export function middleOn(part: Part, face: Face): Point {
  const { x, y } = bodyOf(part);
  const { size } = bodyAs(part, FACE_UPS[face]);
  return face === 'top' || face === 'underside' ? { x, y } : { x: size[0] / 2, y: size[1] / 2 };
}

/** The box of the part as it lies. */
export const bodyAs = (part: Part, up: Up): Body => turnedBody(turnBetween('top', up), bodyOf(part));

/** What goes through seen from its other end; mouths and broken edges are on its own side. */
function otherEnd(feature: Feature, thickness: number): Feature {
  const plain = { ...feature, counterbore: undefined, edge: undefined };
  if (feature.meaning !== 'hole') return plain;
  const { from = 0 } = feature;
  const deep = endsAt(feature, thickness);
  return {
    ...plain,
    from: deep < thickness ? thickness - deep : undefined,
    ends: from > 0 ? thickness - from : undefined,
  };
}

/** What a feature is to somebody who looks at the other side of the part; undefined where it is not seen there. */
function fromBehind(feature: Feature, face: Face, thickness: number): Feature | undefined {
  if (feature.lean) return undefined;
  if (sideOf(feature) === face) return feature;
  if (isBeside(feature)) return undefined;
  if (feature.meaning !== 'outline' && feature.meaning !== 'notch' && !feature.through) return undefined;
  return otherEnd(feature, thickness);
}

/**
 * The part as it lies in a setup: what is cut from another side and does not go through is not seen. Features keep their
 * names, depths count from the side that is up, sizes with limits are what is aimed at. With a face beside it up it is a plate as thick as
 * the box round it is deep there.
 */
export function seenFrom(drawn: Part, up: Up): Part {
  const { part } = trimmedPart(aimedPart(drawn));
  const seen = known.get(part) ?? new Map<Up, Part>();
  known.set(part, seen);
  // Notches do not move what the part is turned about.
  if (!seen.has(up)) seen.set(up, lookFrom(part, up, bodyOf(drawn)));
  return seen.get(up)!;
}

/** Parts as they were seen before: many ask, few change. */
const known = new WeakMap<Part, Map<Up, Part>>();

function lookFrom(part: Part, up: Up, body: Body): Part {
  if (isOnSide(up)) return lookAtFace(part, up, body);
  const features = part.features.flatMap((f) => fromBehind(f, faceOf(up), part.thickness) ?? []);
  const isWhole = features.length === part.features.length && features.every((f, i) => f === part.features[i]);
  if (up === 'top') return isWhole ? part : { ...part, features };
  return { ...part, features: features.map((f) => turned(f, body, turnBetween('top', up))) };
}

/** Opposite faces beside the part. */
const OPPOSITE = { front: 'back', back: 'front', left: 'right', right: 'left' } as const;

/**
 * The part with a face beside it up. Places on such a face are told from its lower left corner, as somebody sees it who stands before it.
 */
function lookAtFace(part: Part, up: Up, body: Body): Part {
  const face = faceOf(up) as keyof typeof OPPOSITE;
  const box = turnedBody(turnBetween('top', FACE_UPS[face]), body);
  const corner = { x: box.x - box.size[0] / 2, y: box.y - box.size[1] / 2 };
  const on = (of: Face) =>
    part.features
      .filter((f) => f.side === of && !f.lean)
      .map((f): Feature => ({ ...moved(f, corner), side: undefined }));
  const through = on(OPPOSITE[face]).filter((f) => f.meaning === 'outline' || f.meaning === 'notch' || f.through);
  const seen = [...on(face), ...through.map((f) => mirrored(otherEnd(f, box.size[2]), 'left and right', box.x))];
  const outside = part.features.find((f) => f.meaning === 'outline' && !isBeside(f));
  if (outside && !seen.some((f) => f.meaning === 'outline')) seen.unshift(boxFrom(outside, box));
  const plate = trimmedPart({ ...part, thickness: box.size[2] || part.thickness, features: seen }).part;
  const round = turnBetween(FACE_UPS[face], up);
  return { ...plate, features: plate.features.map((f) => turned(f, body, round)) };
}

/** The outside of a part as it is seen from beside: the box round it. */
function boxFrom(outside: Feature, { x, y, size: [width, height] }: Body): Feature {
  const { id, name, meaning, layer } = outside;
  const shape = { type: 'rectangle' as const, width, height, radius: 0 };
  return { id, name, meaning, layer, shape, x, y, turn: 0, pattern: SINGLE, depth: 0, through: true };
}

/** A feature as it lies when the part is turned flat. */
function turned(feature: Feature, about: Point, { takes, flips: [x, y] }: Turn): Feature {
  // To swap X and Y is to turn left and then to mirror left and right.
  const swap = takes[0] === 1;
  const round = swap ? turnedLeft(feature, about) : feature;
  const sideways = x !== swap ? mirrored(round, 'left and right', about.x) : round;
  return y ? mirrored(sideways, 'front and back', about.y) : sideways;
}

/** What was placed on the part as it lies, as it is drawn. */
export function drawnFrom(feature: Feature, part: Part, up: Up): Feature {
  const body = bodyOf(part);
  const face = faceOf(up);
  if (!isOnSide(up)) {
    const drawn = turned(feature, body, back(turnBetween('top', up)));
    return turnsOver(turnBetween('top', up)) ? { ...drawn, side: 'underside' } : drawn;
  }
  const { size } = turnedBody(turnBetween('top', FACE_UPS[face]), body);
  const onFace = turned(feature, body, back(turnBetween(FACE_UPS[face], up)));
  const drawn = moved(onFace, { x: size[0] / 2 - body.x, y: size[1] / 2 - body.y });
  return { ...drawn, side: face === 'top' ? undefined : face };
}

/** Which faces of a part have anything of their own beside it. */
export const facesOf = (part: Part) => BESIDE_FACES.filter((face) => part.features.some((f) => f.side === face));

/** What speaks against the features of a part, those beside it included. */
export function partFindings(part: Part): Finding[] {
  const beside = facesOf(part).flatMap((face) => {
    const own = new Set(part.features.filter((f) => f.side === face).map((f) => f.id));
    const { findings } = partModel(seenFrom(part, FACE_UPS[face]));
    return findings.filter((f) => own.has(f.place.feature ?? ''));
  });
  return [...partModel(part).findings, ...beside];
}
