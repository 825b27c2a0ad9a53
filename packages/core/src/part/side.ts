import { chainBounds } from '../geometry/chain';
import { EMPTY_BOUNDS, Point, isEmpty, joinBounds } from '../geometry/point';
import { Feature, Part } from './feature';
import { mirrored } from './repeat';
import { instancesOf } from './shapes';

/** Which way the part lies: as drawn, turned over about a line from front to back or from left to right, or half round. */
export const UPS = [
  'top',
  'underside, turned sideways',
  'underside, turned forwards',
  'top, turned half round',
] as const;
export type Up = (typeof UPS)[number];

/** What changes from one way of lying to another: left and right, front and back, above and below. */
export interface Turn {
  x: boolean;
  y: boolean;
  z: boolean;
}

/** What is the other way round in each way of lying, against the drawing. */
const TURNED: Record<Up, Turn> = {
  top: { x: false, y: false, z: false },
  'underside, turned sideways': { x: true, y: false, z: true },
  'underside, turned forwards': { x: false, y: true, z: true },
  'top, turned half round': { x: true, y: true, z: false },
};

/** Whether the underside is up. */
export const isTurnedOver = (up: Up): boolean => TURNED[up].z;

/** The turn that brings a part from one way of lying to another. */
export const turnBetween = (from: Up, to: Up): Turn => ({
  x: TURNED[from].x !== TURNED[to].x,
  y: TURNED[from].y !== TURNED[to].y,
  z: TURNED[from].z !== TURNED[to].z,
});

/** Middle of the part's outside; parts are turned about it, so that they stay where they are. */
export function middleOf(part: Part): Point {
  const b = part.features
    .filter((f) => f.meaning === 'outline')
    .flatMap(instancesOf)
    .map(chainBounds)
    .reduce(joinBounds, EMPTY_BOUNDS);
  return isEmpty(b) ? { x: 0, y: 0 } : { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 };
}

/** What a feature is to somebody who looks at the other side of the part; undefined where it is not seen there. */
function fromBehind(feature: Feature, isBelow: boolean): Feature | undefined {
  if ((feature.side === 'underside') === isBelow) return feature;
  if (feature.meaning !== 'outline' && !feature.through) return undefined;
  // Mouths and broken edges are on its own side.
  return { ...feature, counterbore: undefined, edge: undefined };
}

/**
 * The part as it lies in a setup: what is cut from the other side and does not go through is not seen. Features keep their
 * names, depths count from the side that is up.
 */
export function seenFrom(part: Part, up: Up): Part {
  const seen = known.get(part) ?? new Map<Up, Part>();
  known.set(part, seen);
  if (!seen.has(up)) seen.set(up, lookFrom(part, up));
  return seen.get(up)!;
}

/** Parts as they were seen before: many ask, few change. */
const known = new WeakMap<Part, Map<Up, Part>>();

function lookFrom(part: Part, up: Up): Part {
  const isBelow = isTurnedOver(up);
  const features = part.features.flatMap((f) => fromBehind(f, isBelow) ?? []);
  const isWhole = features.length === part.features.length && features.every((f, i) => f === part.features[i]);
  if (up === 'top') return isWhole ? part : { ...part, features };
  return { ...part, features: features.map((f) => turned(f, part, up)) };
}

/** A feature as it lies when the part is turned, and back again. */
function turned(feature: Feature, part: Part, up: Up): Feature {
  const { x, y } = middleOf(part);
  const sideways = TURNED[up].x ? mirrored(feature, 'left and right', x) : feature;
  return TURNED[up].y ? mirrored(sideways, 'front and back', y) : sideways;
}

/** What was placed on the part as it lies, as it is drawn. */
export function drawnFrom(feature: Feature, part: Part, up: Up): Feature {
  const drawn = turned(feature, part, up);
  return isTurnedOver(up) ? { ...drawn, side: 'underside' } : drawn;
}
