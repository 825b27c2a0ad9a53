import { circle, flatten } from '../plane/chain';
import { Region, contains } from '../plane/clip';
import { Bounds, Point, boundsOf, distanceToSegment } from '../plane/point';

/** Something that stands upright and holds the work: the box round it, and its outline seen from above where that is another; part coordinates, mm. */
export interface FixtureBox extends Bounds {
  name: string;
  minZ: number;
  maxZ: number;
  /** It does not cross itself. */
  outline?: Point[];
}

/** Something upright on an outline. */
export const standing = (name: string, outline: Point[], minZ: number, maxZ: number): FixtureBox => ({
  name,
  ...boundsOf(outline),
  minZ,
  maxZ,
  outline,
});

/** Something upright and round. */
export const roundPost = (name: string, { x, y }: Point, diameter: number, minZ: number, maxZ: number): FixtureBox =>
  standing(name, flatten(circle(x, y, diameter / 2), 0.05), minZ, maxZ);

/** Its outline seen from above. */
export const outlineOf = ({ outline, minX, minY, maxX, maxY }: Bounds & { outline?: Point[] }): Point[] =>
  outline ?? [
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY },
    { x: minX, y: maxY },
  ];

/** Whether a segment comes within `radius` of something upright seen from above. */
export function segmentMeetsBox(a: Point, b: Point, box: Bounds & { outline?: Point[] }, radius: number): boolean {
  if (Math.min(a.x, b.x) > box.maxX + radius || Math.max(a.x, b.x) < box.minX - radius) return false;
  if (Math.min(a.y, b.y) > box.maxY + radius || Math.max(a.y, b.y) < box.minY - radius) return false;
  const corners = outlineOf(box);
  const region: Region = [corners];
  if (contains(region, a) || contains(region, b)) return true;
  if (corners.some((c) => distanceToSegment(c, a, b).distance < radius)) return true;
  return corners.some((c, k) => {
    const d = corners[(k + 1) % corners.length];
    return (
      distanceToSegment(a, c, d).distance < radius || distanceToSegment(b, c, d).distance < radius || cross(a, b, c, d)
    );
  });
}

function cross(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) => Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  return side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b);
}
