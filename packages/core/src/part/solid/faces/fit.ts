/** Which plane, cylinder, cone, ball or ring some corners lie on. Corners of a meshed surface lie on the surface itself; only chords do not. */
import { eigenOf, leastSquares, solved } from '../../../geometry/least';
import { Vec3, cross, dot, lengthOf, minus, plus, squareTo, times, unit, vec } from '../../../geometry/space/vec3';
import { maths } from '../../../quantity/maths';

/** The surface a face lies on, mm and rad. */
export type Fit =
  | { kind: 'plane'; normal: Vec3; at: Vec3 }
  | { kind: 'cylinder'; axis: Vec3; at: Vec3; radius: number }
  /** Grows by tan(slope) along its axis; `radius` at `at`. */
  | { kind: 'cone'; axis: Vec3; at: Vec3; radius: number; slope: number }
  | { kind: 'ball'; at: Vec3; radius: number }
  /** A circle of `radius` carried round an axis at `ring` from it. */
  | { kind: 'ring'; axis: Vec3; at: Vec3; ring: number; radius: number }
  | { kind: 'free' };
export type FitKind = Fit['kind'];

/** Corners and the facets between them. */
export interface Sampled {
  corners: Vec3[];
  /** Middles and area vectors of facets. */
  facets: { at: Vec3; area: Vec3 }[];
}

/** Corners may lie so far off, mm. */
export const ON_SURFACE = 0.002;
/** A start so near needs no search, mm. */
const EXACT = 1e-7;
/** Corners looked at while values are sought. */
const ENOUGH = 120;
/** A face that turns less than this is not told from a plane by its radius, mm. */
const LARGEST_RADIUS = 5_000;

const thinned = <T>(all: T[], most: number): T[] =>
  all.length <= most ? all : Array.from({ length: most }, (_, k) => all[Math.floor((k * all.length) / most)]);

const worst = (corners: Vec3[], off: (p: Vec3) => number): number =>
  corners.reduce((most, p) => Math.max(most, Math.abs(off(p))), 0);

/** How far a place is from a surface, mm: above 0 outside it, seen from its axis or middle. */
export function distanceTo(fit: Fit, p: Vec3): number {
  if (fit.kind === 'free') return 0;
  const from = minus(p, fit.at);
  if (fit.kind === 'plane') return dot(from, fit.normal);
  if (fit.kind === 'ball') return lengthOf(from) - fit.radius;
  const along = dot(from, fit.axis);
  const out = lengthOf(minus(from, times(fit.axis, along)));
  if (fit.kind === 'cylinder') return out - fit.radius;
  if (fit.kind === 'ring') return maths.hypot(out - fit.ring, along) - fit.radius;
  return (out - fit.radius - along * maths.tan(fit.slope)) * maths.cos(fit.slope);
}

/** A facet may leave a rounded surface by so large a share of its radius between its corners. */
const CHORD = 0.1;

/** Whether a facet is a chord of a surface: its corners lie on it, and its middle not far within. A level top in a round rim is none of the rim. */
export function isChordOf(fit: Fit, corners: Vec3[], tolerance: number): boolean {
  if (corners.some((p) => Math.abs(distanceTo(fit, p)) > tolerance)) return false;
  if (fit.kind !== 'ring' && fit.kind !== 'ball' && fit.kind !== 'cylinder') return true;
  const middle = times(corners.reduce(plus), 1 / corners.length);
  return Math.abs(distanceTo(fit, middle)) <= tolerance + CHORD * fit.radius;
}

function planeThrough({ corners, facets }: Sampled, tolerance: number): Fit | undefined {
  const sum = facets.reduce((s, f) => plus(s, f.area), vec(0, 0, 0));
  const total = facets.reduce((s, f) => s + lengthOf(f.area), 0);
  // A whole cylinder has no mean normal.
  if (lengthOf(sum) < 0.9 * total) return undefined;
  const normal = unit(sum);
  const along = corners.map((p) => dot(p, normal));
  const middle = (Math.min(...range(along)) + Math.max(...range(along))) / 2;
  const fit: Fit = { kind: 'plane', normal, at: times(normal, middle) };
  return worst(corners, (p) => distanceTo(fit, p)) <= tolerance ? fit : undefined;
}

/** Least and largest of many. */
function range(values: number[]): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return [low, high];
}

/**
 * The axis round which a surface turns: all its normals meet it, so each line along one has no moment about it. Least squares over the
 * lines’ six coordinates (Pottmann and Randrup 1998).
 */
function axisRound({ facets }: Sampled): { axis: Vec3; at: Vec3 } | undefined {
  const used = thinned(facets, ENOUGH).filter((f) => lengthOf(f.area) > 0);
  const middle = times(
    used.reduce((s, f) => plus(s, f.at), vec(0, 0, 0)),
    1 / (used.length || 1),
  );
  const size = used.reduce((s, f) => Math.max(s, lengthOf(minus(f.at, middle))), 1e-6);
  const m = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  for (const { at, area } of used) {
    const n = unit(area);
    const c = cross(times(minus(at, middle), 1 / size), n);
    const line = [n.x, n.y, n.z, c.x, c.y, c.z];
    const weight = lengthOf(area);
    for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) m[i][j] += weight * line[i] * line[j];
  }
  // Least vector whose direction part is not nought.
  for (const { vector } of eigenOf(m).slice(0, 2)) {
    const axis = vec(vector[3], vector[4], vector[5]);
    const moment = vec(vector[0], vector[1], vector[2]);
    const length = lengthOf(axis);
    if (length < 0.05) continue;
    const direction = times(axis, 1 / length);
    const at = times(cross(direction, moment), size / length);
    return { axis: direction, at: plus(middle, at) };
  }
  return undefined;
}

/** Axis of a cylinder or cone: its normals all lean alike from it. */
function axisOfNormals({ facets }: Sampled): Vec3 {
  const total = facets.reduce((s, f) => s + lengthOf(f.area), 0) || 1;
  const mean = times(
    facets.reduce((s, f) => plus(s, f.area), vec(0, 0, 0)),
    1 / total,
  );
  const m = [0, 1, 2].map(() => [0, 0, 0]);
  for (const { area } of facets) {
    const weight = lengthOf(area);
    if (weight === 0) continue;
    const n = minus(times(area, 1 / weight), mean);
    const d = [n.x, n.y, n.z];
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) m[i][j] += (weight / total) * d[i] * d[j];
  }
  const [x, y, z] = eigenOf(m)[0].vector;
  return vec(x, y, z);
}

/** How far normals of what is drawn along an axis may lean along it, as a sine. */
const DRAWN = 1e-4;

/** Whether a surface is a line drawn along an axis, as the wall of a cam is: no cone, ball or ring is. */
function isDrawn(sampled: Sampled): boolean {
  const axis = axisOfNormals(sampled);
  return sampled.facets.every(({ area }) => Math.abs(dot(area, axis)) <= DRAWN * lengthOf(area));
}

/** Where an axis stands: the lines along normals, seen along it, meet there. */
function middleSeenAlong(axis: Vec3, { facets }: Sampled): Vec3 | undefined {
  const [u, v] = squareTo(axis);
  const m = [
    [0, 0],
    [0, 0],
  ];
  const r = [0, 0];
  for (const { at, area } of thinned(facets, ENOUGH)) {
    const across = [-dot(area, v), dot(area, u)];
    const off = across[0] * dot(at, u) + across[1] * dot(at, v);
    for (let i = 0; i < 2; i++) {
      for (let j = 0; j < 2; j++) m[i][j] += across[i] * across[j];
      r[i] += across[i] * off;
    }
  }
  const found = solved(m, r);
  return found && plus(times(u, found[0]), times(v, found[1]));
}

/** Surfaces of revolution near a start, by their five values of the axis and those of their own. */
function revolved(
  { corners }: Sampled,
  axis: Vec3,
  at: Vec3,
  own: number[],
  fitOf: (axis: Vec3, at: Vec3, own: number[]) => Fit,
): Fit {
  const [u, v] = squareTo(axis);
  const some = thinned(corners, ENOUGH);
  const made = (x: number[]) =>
    fitOf(
      unit(plus(axis, plus(times(u, x[0]), times(v, x[1])))),
      plus(at, plus(times(u, x[2]), times(v, x[3]))),
      x.slice(4),
    );
  const start = fitOf(axis, at, own);
  // Normals of facets often tell it exactly.
  if (worst(some, (p) => distanceTo(start, p)) < EXACT) return start;
  const values = leastSquares(
    (x) => {
      const fit = made(x);
      return some.map((p) => distanceTo(fit, p));
    },
    [0, 0, 0, 0, ...own],
  );
  return made(values);
}

/** Distances of corners from an axis, and how far along it they are. */
function seenFromAxis(corners: Vec3[], axis: Vec3, at: Vec3): { out: number[]; along: number[] } {
  const along = corners.map((p) => dot(minus(p, at), axis));
  const out = corners.map((p, i) => lengthOf(minus(minus(p, at), times(axis, along[i]))));
  return { out, along };
}

const mean = (values: number[]) => values.reduce((s, v) => s + v, 0) / (values.length || 1);

function cylinderThrough(sampled: Sampled, tolerance: number): Fit | undefined {
  const axis = axisOfNormals(sampled);
  const at = middleSeenAlong(axis, sampled);
  if (!at) return undefined;
  const radius = mean(seenFromAxis(sampled.corners, axis, at).out);
  if (!(radius > 0) || radius > LARGEST_RADIUS) return undefined;
  const fit = revolved(sampled, axis, at, [radius], (a, p, [r]) => ({ kind: 'cylinder', axis: a, at: p, radius: r }));
  return worst(sampled.corners, (p) => distanceTo(fit, p)) <= tolerance ? fit : undefined;
}

function coneThrough(sampled: Sampled, tolerance: number): Fit | undefined {
  const axis = axisOfNormals(sampled);
  const at = middleSeenAlong(axis, sampled);
  if (!at) return undefined;
  const { out, along } = seenFromAxis(sampled.corners, axis, at);
  const [a, o] = [mean(along), mean(out)];
  const square = along.reduce((s, v) => s + (v - a) * (v - a), 0);
  const slope = square > 0 ? along.reduce((s, v, i) => s + (v - a) * (out[i] - o), 0) / square : 0;
  if (Math.abs(slope) < 1e-4) return undefined;
  const start = plus(at, times(axis, a));
  const fit = revolved(sampled, axis, start, [o, maths.atan(slope)], (d, p, [r, s]) => ({
    kind: 'cone',
    axis: d,
    at: p,
    radius: r,
    slope: s,
  }));
  return worst(sampled.corners, (p) => distanceTo(fit, p)) <= tolerance ? fit : undefined;
}

function ballThrough({ corners }: Sampled, tolerance: number): Fit | undefined {
  // |p|² = 2 p·c + (r² − |c|²), linear in c and the rest.
  const some = thinned(corners, ENOUGH);
  const middle = times(
    some.reduce((s, p) => plus(s, p), vec(0, 0, 0)),
    1 / (some.length || 1),
  );
  const m = [0, 1, 2, 3].map(() => [0, 0, 0, 0]);
  const right = [0, 0, 0, 0];
  for (const p of some) {
    const d = minus(p, middle);
    const row = [2 * d.x, 2 * d.y, 2 * d.z, 1];
    const by = dot(d, d);
    for (let i = 0; i < 4; i++) {
      for (let j = 0; j < 4; j++) m[i][j] += row[i] * row[j];
      right[i] += row[i] * by;
    }
  }
  const found = solved(m, right);
  if (!found) return undefined;
  const off = vec(found[0], found[1], found[2]);
  const radius = Math.sqrt(Math.max(0, found[3] + dot(off, off)));
  const fit: Fit = { kind: 'ball', at: plus(middle, off), radius };
  if (!(radius > 0) || radius > LARGEST_RADIUS) return undefined;
  return worst(corners, (p) => distanceTo(fit, p)) <= tolerance ? fit : undefined;
}

function ringThrough(sampled: Sampled, tolerance: number): Fit | undefined {
  const found = axisRound(sampled);
  const axes = [...(found ? [found.axis] : []), vec(0, 0, 1), vec(1, 0, 0), vec(0, 1, 0)];
  for (const axis of axes) {
    const at = middleSeenAlong(axis, sampled);
    if (!at) continue;
    const { out, along } = seenFromAxis(sampled.corners, axis, at);
    // The circle that is carried round, through the corners seen from the axis.
    const m = [0, 1, 2].map(() => [0, 0, 0]);
    const right = [0, 0, 0];
    const [o, a] = [mean(out), mean(along)];
    out.forEach((v, i) => {
      const row = [2 * (v - o), 2 * (along[i] - a), 1];
      const by = (v - o) * (v - o) + (along[i] - a) * (along[i] - a);
      for (let p = 0; p < 3; p++) {
        for (let q = 0; q < 3; q++) m[p][q] += row[p] * row[q];
        right[p] += row[p] * by;
      }
    });
    const round = solved(m, right);
    if (!round) continue;
    const radius = Math.sqrt(Math.max(0, round[2] + round[0] * round[0] + round[1] * round[1]));
    if (!(radius > 0) || radius > LARGEST_RADIUS) continue;
    const fit = revolved(
      sampled,
      axis,
      plus(at, times(axis, round[1] + a)),
      [round[0] + o, radius, 0],
      (d, p, [R, r, up]) => ({
        kind: 'ring',
        axis: d,
        at: plus(p, times(d, up)),
        ring: R,
        radius: r,
      }),
    );
    if (worst(sampled.corners, (p) => distanceTo(fit, p)) <= tolerance) return fit;
  }
  return undefined;
}

/**
 * The plainest surface all corners lie on; `free` where it is none of them.
 * @param tolerance how far corners may be off, mm
 */
export function fitTo(sampled: Sampled, tolerance = ON_SURFACE): Fit {
  if (sampled.corners.length < 3) return { kind: 'free' };
  const straight =
    planeThrough(sampled, tolerance) ?? (sampled.corners.length < 5 ? undefined : cylinderThrough(sampled, tolerance));
  if (straight) return straight;
  if (isDrawn(sampled)) return { kind: 'free' };
  return (
    (sampled.corners.length < 6 ? undefined : coneThrough(sampled, tolerance)) ??
    (sampled.corners.length < 5 ? undefined : ballThrough(sampled, tolerance)) ??
    (sampled.corners.length < 8 ? undefined : ringThrough(sampled, tolerance)) ?? { kind: 'free' }
  );
}
