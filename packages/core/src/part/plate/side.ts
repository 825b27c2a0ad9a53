import { chainBounds } from '../../geometry/plane/chain';
import { EMPTY_BOUNDS, Point, isEmpty, joinBounds } from '../../geometry/plane/point';
import { Feature, Part } from './feature';
import { aimedPart } from './limits';
import { trimmedPart } from './notch';
import { mirrored, turnedLeft } from './repeat';
import { instancesOf } from './shapes';

/**
 * Which way the part lies: as drawn or turned over, about a line from front to back (sideways) or from left to right
 * (forwards); and turned round, by a quarter to the left or right, or by half.
 */
export const UPS = [
  'top',
  'underside, turned sideways',
  'underside, turned forwards',
  'top, turned half round',
  'top, turned left',
  'top, turned right',
  'underside, turned sideways and left',
  'underside, turned sideways and right',
] as const;
export type Up = (typeof UPS)[number];

/** What changes from one way of lying to another: X becomes Y first, then left and right, front and back, above and below. */
export interface Turn {
  swap: boolean;
  x: boolean;
  y: boolean;
  z: boolean;
}

const turn = (swap: boolean, x: boolean, y: boolean): Turn => ({ swap, x, y, z: (swap !== x) !== y });

/** How each way of lying differs from the drawing. */
const TURNED: Record<Up, Turn> = {
  top: turn(false, false, false),
  'underside, turned sideways': turn(false, true, false),
  'underside, turned forwards': turn(false, false, true),
  'top, turned half round': turn(false, true, true),
  'top, turned left': turn(true, true, false),
  'top, turned right': turn(true, false, true),
  'underside, turned sideways and left': turn(true, true, true),
  'underside, turned sideways and right': turn(true, false, false),
};

/** Whether the underside is up. */
export const isTurnedOver = (up: Up): boolean => TURNED[up].z;

/** The same turn the other way. */
export const back = ({ swap, x, y }: Turn): Turn => (swap ? turn(swap, y, x) : turn(swap, x, y));

/** The turn that brings a part from one way of lying to another. */
export function turnBetween(from: Up, to: Up): Turn {
  const [first, then] = [back(TURNED[from]), TURNED[to]];
  const [x, y] = then.swap ? [first.y, first.x] : [first.x, first.y];
  return turn(first.swap !== then.swap, x !== then.x, y !== then.y);
}

/** Where a point comes to lie when what it belongs to is turned about a middle. */
export function turnPoint({ swap, x, y }: Turn, p: Point, about: Point): Point {
  const [u, v] = swap ? [p.y - about.y, p.x - about.x] : [p.x - about.x, p.y - about.y];
  return { x: about.x + (x ? -u : u), y: about.y + (y ? -v : v) };
}

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
  if (feature.meaning !== 'outline' && feature.meaning !== 'notch' && !feature.through) return undefined;
  // Mouths and broken edges are on its own side.
  return { ...feature, counterbore: undefined, edge: undefined };
}

/**
 * The part as it lies in a setup: what is cut from the other side and does not go through is not seen. Features keep their
 * names, depths count from the side that is up, sizes with limits are what is aimed at.
 */
export function seenFrom(drawn: Part, up: Up): Part {
  const { part } = trimmedPart(aimedPart(drawn));
  const seen = known.get(part) ?? new Map<Up, Part>();
  known.set(part, seen);
  // Notches do not move what the part is turned about.
  if (!seen.has(up)) seen.set(up, lookFrom(part, up, middleOf(drawn)));
  return seen.get(up)!;
}

/** Parts as they were seen before: many ask, few change. */
const known = new WeakMap<Part, Map<Up, Part>>();

function lookFrom(part: Part, up: Up, about: Point): Part {
  const isBelow = isTurnedOver(up);
  const features = part.features.flatMap((f) => fromBehind(f, isBelow) ?? []);
  const isWhole = features.length === part.features.length && features.every((f, i) => f === part.features[i]);
  if (up === 'top') return isWhole ? part : { ...part, features };
  return { ...part, features: features.map((f) => turned(f, about, TURNED[up])) };
}

/** A feature as it lies when the part is turned. */
function turned(feature: Feature, about: Point, { swap, x, y }: Turn): Feature {
  // To swap X and Y is to turn left and then to mirror left and right.
  const round = swap ? turnedLeft(feature, about) : feature;
  const sideways = x !== swap ? mirrored(round, 'left and right', about.x) : round;
  return y ? mirrored(sideways, 'front and back', about.y) : sideways;
}

/** What was placed on the part as it lies, as it is drawn. */
export function drawnFrom(feature: Feature, part: Part, up: Up): Feature {
  const drawn = turned(feature, middleOf(part), back(TURNED[up]));
  return isTurnedOver(up) ? { ...drawn, side: 'underside' } : drawn;
}
