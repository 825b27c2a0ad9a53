/** How a part lies: which of its six faces is up, and how it is turned round then. */
import { Point } from '../../geometry/plane/point';
import type { Vec3 } from '../../geometry/space/vec3';

export const FACES = ['top', 'underside', 'front', 'back', 'left', 'right'] as const;
/** A face of the box round the part. */
export type Face = (typeof FACES)[number];

/** Faces beside the part: what is cut there has places of its own. */
export const BESIDE_FACES = ['front', 'back', 'left', 'right'] as const satisfies readonly Face[];
export type BesideFace = (typeof BESIDE_FACES)[number];

/**
 * Which way the part lies: as drawn or turned over, about a line from front to back (sideways) or from left to right
 * (forwards); or with a face beside it up, its top then to the back; and turned round, by a quarter to the left or right, or by half.
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
  'front',
  'front, turned left',
  'front, turned right',
  'front, turned half round',
  'back',
  'back, turned left',
  'back, turned right',
  'back, turned half round',
  'left',
  'left, turned left',
  'left, turned right',
  'left, turned half round',
  'right',
  'right, turned left',
  'right, turned right',
  'right, turned half round',
] as const;
export type Up = (typeof UPS)[number];

type Axis = 0 | 1 | 2;

/** What changes from one way of lying to another: along each axis lies what lay along another before, perhaps the other way. */
export interface Turn {
  takes: [Axis, Axis, Axis];
  flips: [boolean, boolean, boolean];
}

const turn = (takes: Turn['takes'], ...flips: Turn['flips']): Turn => ({ takes, flips });

/** One turn after another. */
const after = (first: Turn, then: Turn): Turn => ({
  takes: then.takes.map((k) => first.takes[k]) as Turn['takes'],
  flips: then.flips.map((flip, k) => flip !== first.flips[then.takes[k]]) as Turn['flips'],
});

/** The same turn the other way. */
export function back({ takes, flips }: Turn): Turn {
  const undone = turn([0, 1, 2], false, false, false);
  takes.forEach((from, to) => {
    undone.takes[from] = to as Axis;
    undone.flips[from] = flips[to];
  });
  return undone;
}

const NONE = turn([0, 1, 2], false, false, false);
const ROUND = {
  none: NONE,
  left: turn([1, 0, 2], true, false, false),
  right: turn([1, 0, 2], false, true, false),
  half: turn([0, 1, 2], true, true, false),
};

/** Each face up, from how the part is drawn: the underside turned over sideways, the others with the top to the back. */
const FACE_UP: Record<Face, Turn> = {
  top: NONE,
  underside: turn([0, 1, 2], true, false, true),
  front: turn([0, 2, 1], false, false, true),
  back: turn([0, 2, 1], true, false, false),
  left: turn([1, 2, 0], true, false, true),
  right: turn([1, 2, 0], false, false, false),
};

/** The face that is up. */
export const faceOf = (up: Up): Face => FACES.find((face) => up.startsWith(face))!;

/** How a part is turned round once a face is up. */
function roundOf(up: Up): keyof typeof ROUND {
  if (up.endsWith('half round') || up.endsWith('forwards')) return 'half';
  return up.endsWith(' left') ? 'left' : up.endsWith(' right') ? 'right' : 'none';
}

/** How each way of lying differs from the drawing. */
const TURNED = Object.fromEntries(UPS.map((up) => [up, after(FACE_UP[faceOf(up)], ROUND[roundOf(up)])])) as Record<
  Up,
  Turn
>;

/** Each face’s first way of being up. */
export const FACE_UPS: Record<Face, Up> = {
  top: 'top',
  underside: 'underside, turned sideways',
  front: 'front',
  back: 'back',
  left: 'left',
  right: 'right',
};

/** Whether the part lies on one of its sides. */
export const isOnSide = (up: Up): boolean => (BESIDE_FACES as readonly Face[]).includes(faceOf(up));

/** The turn that brings a part from one way of lying to another. */
export const turnBetween = (from: Up, to: Up): Turn => after(back(TURNED[from]), TURNED[to]);

/** Whether what is up stays up, or comes to lie below. */
export const isFlat = ({ takes }: Turn): boolean => takes[2] === 2;

/** Whether it turns the piece over. */
export const turnsOver = (turn: Turn): boolean => isFlat(turn) && turn.flips[2];

/** Where a point comes to lie when what it belongs to is turned about a middle, by a turn that is flat. */
export function turnPoint({ takes, flips }: Turn, p: Point, about: Point): Point {
  const from = [p.x - about.x, p.y - about.y];
  const along = (k: 0 | 1) => (flips[k] ? -from[takes[k]] : from[takes[k]]);
  return { x: about.x + along(0), y: about.y + along(1) };
}

/** The box a part fills as it lies: its middle seen from above, and its sizes, mm; its top is at Z 0. */
export interface Body {
  x: number;
  y: number;
  size: [number, number, number];
}

/** The box as it lies when it is turned; its middle stays where it is, its top at Z 0. */
export const turnedBody = ({ takes }: Turn, { x, y, size }: Body): Body => ({
  x,
  y,
  size: takes.map((k) => size[k]) as Body['size'],
});

/** Where a place of a part comes to lie. `body` is its box before. */
export function turnPlace({ takes, flips }: Turn, p: Vec3, { x, y, size }: Body): Vec3 {
  const from = [p.x - x, p.y - y, p.z + size[2] / 2];
  const [u, v, w] = takes.map((k, to) => (flips[to] ? -from[k] : from[k]));
  return { x: x + u, y: y + v, z: w - size[takes[2]] / 2 };
}
