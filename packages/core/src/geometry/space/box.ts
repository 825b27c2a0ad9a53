import { Point, distanceToSegment } from '../plane/point';

/** A box of a fixture, part coordinates, mm. */
export interface FixtureBox {
  name: string;
  minX: number;
  minY: number;
  minZ: number;
  maxX: number;
  maxY: number;
  maxZ: number;
}

/** Whether a segment comes within `radius` of a box seen from above. */
export function segmentMeetsBox(
  a: Point,
  b: Point,
  box: Pick<FixtureBox, 'minX' | 'minY' | 'maxX' | 'maxY'>,
  radius: number,
): boolean {
  const inside = (p: Point) => p.x >= box.minX && p.x <= box.maxX && p.y >= box.minY && p.y <= box.maxY;
  if (inside(a) || inside(b)) return true;
  if (Math.min(a.x, b.x) > box.maxX + radius || Math.max(a.x, b.x) < box.minX - radius) return false;
  if (Math.min(a.y, b.y) > box.maxY + radius || Math.max(a.y, b.y) < box.minY - radius) return false;
  const corners = [
    { x: box.minX, y: box.minY },
    { x: box.maxX, y: box.minY },
    { x: box.maxX, y: box.maxY },
    { x: box.minX, y: box.maxY },
  ];
  if (corners.some((c) => distanceToSegment(c, a, b).distance < radius)) return true;
  return corners.some((c, k) => {
    const d = corners[(k + 1) % 4];
    return (
      distanceToSegment(a, c, d).distance < radius || distanceToSegment(b, c, d).distance < radius || cross(a, b, c, d)
    );
  });
}

function cross(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) => Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  return side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b);
}
