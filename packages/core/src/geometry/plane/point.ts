import { maths } from '../../quantity/maths';
export interface Point {
  x: number;
  y: number;
}

/** Axis-aligned box, mm. */
export interface Bounds {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** Distance of two points, mm; several times as fast as Math.hypot, which guards against overflow nobody meets here. */
export const distance = (a: Point, b: Point) => Math.sqrt((b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y));

export const EMPTY_BOUNDS: Bounds = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };

export function boundsOf(points: Iterable<Point>): Bounds {
  const box = { ...EMPTY_BOUNDS };
  for (const p of points) {
    if (p.x < box.minX) box.minX = p.x;
    if (p.y < box.minY) box.minY = p.y;
    if (p.x > box.maxX) box.maxX = p.x;
    if (p.y > box.maxY) box.maxY = p.y;
  }
  return box;
}

export function joinBounds(a: Bounds, b: Bounds): Bounds {
  return {
    minX: Math.min(a.minX, b.minX),
    minY: Math.min(a.minY, b.minY),
    maxX: Math.max(a.maxX, b.maxX),
    maxY: Math.max(a.maxY, b.maxY),
  };
}

export const growBounds = (b: Bounds, by: number): Bounds => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
});

export const isEmpty = (b: Bounds) => !(b.maxX >= b.minX && b.maxY >= b.minY);

/** Least distance from a point to the segment a-b, and where along it (0..1) that is. */
export function distanceToSegment(p: Point, a: Point, b: Point): { distance: number; at: number } {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const length2 = dx * dx + dy * dy;
  const at = length2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / length2));
  return { distance: maths.hypot(p.x - a.x - at * dx, p.y - a.y - at * dy), at };
}
