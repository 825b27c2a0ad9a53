/** A solid cut through level. */
import { Region, union } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Triangles, countOf } from '../../geometry/space/triangles';
import { chained } from './tops';

/** What of a closed surface is metal at a height: outsides counterclockwise, hollows clockwise. A height at which corners lie is looked at from just above. */
export function sectionAt({ points, corners }: Triangles, z: number): Region {
  const next = new Map<number, { to: number; from: Point }[]>();
  const count = points.length / 3;
  const isAbove = (p: number) => points[3 * p + 2] > z;
  /** Where an edge goes through the height, under a name both its triangles know. */
  const crossed = (p: number, q: number) => {
    const [low, high] = isAbove(q) ? [p, q] : [q, p];
    const share = (z - points[3 * low + 2]) / (points[3 * high + 2] - points[3 * low + 2]);
    const between = (k: number) => points[3 * low + k] + share * (points[3 * high + k] - points[3 * low + k]);
    return { name: low * count + high, at: { x: between(0), y: between(1) } };
  };
  for (let t = 0; t < countOf({ points, corners }); t++) {
    let enters: ReturnType<typeof crossed> | undefined;
    let leaves: ReturnType<typeof crossed> | undefined;
    for (let k = 0; k < 3; k++) {
      const [p, q] = [corners[3 * t + k], corners[3 * t + ((k + 1) % 3)]];
      if (isAbove(p) === isAbove(q)) continue;
      if (isAbove(q)) enters = crossed(p, q);
      else leaves = crossed(p, q);
    }
    // Triangles look outwards: their metal lies to the left of the way from where they come down to where they go up.
    if (!enters || !leaves) continue;
    const edge = { to: enters.name, from: leaves.at };
    const known = next.get(leaves.name);
    if (known) known.push(edge);
    else next.set(leaves.name, [edge]);
  }
  return union(chained(next));
}
