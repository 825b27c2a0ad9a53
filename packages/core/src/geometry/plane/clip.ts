/** The one place that touches the clipping library: booleans, offsets and nesting of polygon regions. */
import {
  ClipType,
  Clipper,
  Clipper64,
  EndType,
  FillRule,
  JoinType,
  Paths64,
  PolyPath64,
  PolyTree64,
} from 'clipper2-ts';
import { Point } from './point';
import { maths } from '../../quantity/maths';

/** A closed polygon; the last point joins the first. */
export type Ring = Point[];

/** Rings that together bound an area: outer ones counterclockwise, holes clockwise. */
export type Region = Ring[];

/** Integer units per mm: a tenth of a micrometre. */
const SCALE = 10_000;

/** Chords of a round offset stay this close to the true arc, mm, where nothing coarser is asked for. */
const PRECISION = 0.001;

const toPaths = (region: Region): Paths64 =>
  region.map((ring) => ring.map((p) => ({ x: Math.round(p.x * SCALE), y: Math.round(p.y * SCALE) }))) as Paths64;

const toRegion = (paths: Paths64): Region =>
  paths.map((path) => Array.from(path, (p) => ({ x: Number(p.x) / SCALE, y: Number(p.y) / SCALE })));

export const union = (a: Region, b: Region = []): Region =>
  toRegion(Clipper.union(toPaths(a), toPaths(b), FillRule.NonZero));

export const difference = (a: Region, b: Region): Region =>
  toRegion(Clipper.difference(toPaths(a), toPaths(b), FillRule.NonZero));

export const intersection = (a: Region, b: Region): Region =>
  toRegion(Clipper.intersect(toPaths(a), toPaths(b), FillRule.NonZero));

/**
 * The region moved outwards by `delta` mm (inwards when negative), corners rounded within `precision` mm.
 * The result is thinned to that precision, so that offsets of offsets stay small.
 */
export function offset(region: Region, delta: number, precision = PRECISION): Region {
  if (region.length === 0) return [];
  if (delta === 0) return union(region);
  const moved = Clipper.inflatePaths(
    toPaths(region),
    delta * SCALE,
    JoinType.Round,
    EndType.Polygon,
    2,
    precision * SCALE,
  );
  return toRegion(Clipper.simplifyPaths(moved, (precision * SCALE) / 2, true));
}

/** Sharp corners reach at most this many times the offset. */
const MITER = 6;

/** The region moved outwards by `delta` mm with corners drawn on to a point, within reason. */
export const offsetSharp = (region: Region, delta: number): Region =>
  toRegion(
    Clipper.inflatePaths(toPaths(region), delta * SCALE, JoinType.Miter, EndType.Polygon, MITER, PRECISION * SCALE),
  );

/**
 * A line beside an open run of points, `by` mm to one side of it, corners rounded; in the direction of the run.
 * @returns empty where nothing is left of it
 */
export function offsetOpen(points: Point[], by: number, side: 'left' | 'right'): Point[] {
  if (by <= 0) return points;
  const band = toRegion(
    Clipper.inflatePaths(toPaths([points]), by * SCALE, JoinType.Round, EndType.Butt, 2, PRECISION * SCALE),
  );
  const outer = band.reduce<Ring>((a, b) => (Math.abs(ringArea(b)) > Math.abs(ringArea(a)) ? b : a), []);
  if (outer.length < 3) return [];
  const ring = ringArea(outer) > 0 ? outer : [...outer].reverse();
  const beside = (p: Point, q: Point, sign: number): Point => {
    const length = maths.hypot(q.x - p.x, q.y - p.y) || 1;
    return { x: p.x - ((q.y - p.y) / length) * by * sign, y: p.y + ((q.x - p.x) / length) * by * sign };
  };
  const sign = side === 'left' ? 1 : -1;
  const n = points.length;
  const start = beside(points[0], points[1], sign);
  const behind = beside(points[n - 1], points[n - 2], -sign);
  const nearest = (p: Point) => ring.reduce((best, q, i) => (squared(q, p) < squared(ring[best], p) ? i : best), 0);
  const [from, to] = [nearest(start), nearest(behind)];
  const step = side === 'left' ? -1 : 1;
  const run: Point[] = [];
  for (let i = from; ; i = (i + step + ring.length) % ring.length) {
    run.push(ring[i]);
    if (i === to) return run;
  }
}

/** What lies within `by` mm of an open run of points. */
export const bandAlong = (points: Point[], by: number): Region =>
  toRegion(Clipper.inflatePaths(toPaths([points]), by * SCALE, JoinType.Round, EndType.Round, 2, PRECISION * SCALE));

const squared = (a: Point, b: Point) => maths.pow(a.x - b.x, 2) + maths.pow(a.y - b.y, 2);

/** The region with points left out that move its boundary by less than `precision` mm. */
export const thinned = (region: Region, precision: number): Region =>
  toRegion(Clipper.simplifyPaths(toPaths(region), precision * SCALE, true));

/** Area in mm², holes taken off. */
export function area(region: Region): number {
  return region.reduce((sum, ring) => sum + ringArea(ring), 0);
}

/** Signed area of one ring, positive counterclockwise, mm². */
export function ringArea(ring: Ring): number {
  let sum = 0;
  for (let i = 0; i < ring.length; i++) {
    const a = ring[i];
    const b = ring[(i + 1) % ring.length];
    sum += a.x * b.y - b.x * a.y;
  }
  return sum / 2;
}

/** The separate pieces of a region, each as its outer ring followed by its holes. */
export function islands(region: Region): Region[] {
  const tree = new PolyTree64();
  const clipper = new Clipper64();
  clipper.addSubject(toPaths(region));
  clipper.execute(ClipType.Union, FillRule.NonZero, tree);
  const found: Region[] = [];
  const visit = (outer: PolyPath64) => {
    const holes: PolyPath64[] = [];
    for (let i = 0; i < outer.count; i++) holes.push(outer.child(i) as PolyPath64);
    found.push(toRegion([outer, ...holes].map((node) => node.polygon!) as Paths64));
    for (const hole of holes) for (let i = 0; i < hole.count; i++) visit(hole.child(i) as PolyPath64);
  };
  for (let i = 0; i < tree.count; i++) visit(tree.child(i) as PolyPath64);
  return found;
}

/** Where a straight along X or Y enters and leaves a region, rising. `at` is where it lies across. */
export function chordsOf(region: Region, along: 'x' | 'y', at: number): number[] {
  const across = along === 'x' ? 'y' : 'x';
  const ends: number[] = [];
  for (const ring of region)
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      if (a[across] <= at !== b[across] <= at)
        ends.push(a[along] + ((at - a[across]) / (b[across] - a[across])) * (b[along] - a[along]));
    });
  return ends.sort((p, q) => p - q);
}

/** Whether a point lies inside a region (on the edge counts as inside or outside, either). */
export function contains(region: Region, p: Point): boolean {
  let winding = 0;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const a = ring[j];
      const b = ring[i];
      const side = (b.x - a.x) * (p.y - a.y) - (p.x - a.x) * (b.y - a.y);
      if (a.y <= p.y && b.y > p.y && side > 0) winding++;
      else if (a.y > p.y && b.y <= p.y && side < 0) winding--;
    }
  }
  return winding !== 0;
}

/** Least distance from a point to the boundary of a region, mm. */
export function distanceToBoundary(region: Region, p: Point): number {
  let best = Infinity;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const a = ring[j];
      const b = ring[i];
      const dx = b.x - a.x;
      const dy = b.y - a.y;
      const l2 = dx * dx + dy * dy;
      const t = l2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / l2));
      const d = maths.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
      if (d < best) best = d;
    }
  }
  return best;
}
