/** A solid as lines: where its faces meet in an edge. */
import { Triangles, areaVectors, edgesAgainst } from '../../geometry/space/triangles';
import { maths } from '../../quantity/maths';
import { radians } from '../../quantity/units';

/** Faces that meet at less than this run on into each other. */
const EDGE = maths.cos(radians(8));
/** Within a free face an edge is drawn only where it is as sharp as this. */
const SHARP = maths.cos(radians(30));

/**
 * The edges of a solid, six numbers each.
 * @param looksAt leaves out those that belong to no triangle this way looks at
 */
export function solidEdges(mesh: Triangles, looksAt?: { x: number; y: number; z: number }): Float32Array {
  const against = edgesAgainst(mesh);
  const areas = areaVectors(mesh);
  const { points, corners, face } = mesh;
  const lines: number[] = [];
  const towards = (t: number) =>
    !looksAt || areas[3 * t] * looksAt.x + areas[3 * t + 1] * looksAt.y + areas[3 * t + 2] * looksAt.z > 0;
  for (let e = 0; e < against.length; e++) {
    const other = against[e];
    if (other >= 0 && other < e) continue;
    const t = Math.floor(e / 3);
    if (other >= 0) {
      const s = Math.floor(other / 3);
      const along = (u: number) => maths.hypot(areas[3 * u], areas[3 * u + 1], areas[3 * u + 2]);
      const dot =
        areas[3 * t] * areas[3 * s] + areas[3 * t + 1] * areas[3 * s + 1] + areas[3 * t + 2] * areas[3 * s + 2];
      const cos = dot / (along(t) * along(s) || 1);
      if (cos > (face && face[t] === face[s] ? SHARP : EDGE) || (!towards(t) && !towards(s))) continue;
    } else if (!towards(t)) continue;
    const [a, b] = [3 * corners[e], 3 * corners[3 * t + ((e + 1) % 3)]];
    lines.push(points[a], points[a + 1], points[a + 2], points[b], points[b + 1], points[b + 2]);
  }
  return Float32Array.from(lines);
}
