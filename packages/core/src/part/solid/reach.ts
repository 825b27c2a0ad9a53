/** Which faces of a solid a tool from above comes to. */
import { areaVectors } from '../../geometry/space/triangles';
import { Faces } from './faces/faces';
import { Tops } from './tops';

/** Triangles of a face that are looked at. */
const LOOKED_AT = 24;
/** A face counts as reached when so large a share of what was looked at is. */
const ENOUGH = 0.6;
/** Normals that rise less than this are walls. */
const WALL = 0.02;
/** Just beside a wall, mm. */
const BESIDE = 0.05;
/** What stands so little above a place does not cover it, mm. */
const COVER = 2e-3;

/** For each face, how much of it nothing stands over: 0 to 1. */
export function reachedFromAbove({ mesh, faces }: Faces, tops: Tops): number[] {
  const areas = areaVectors(mesh);
  const { points, corners } = mesh;
  return faces.map(({ triangles }) => {
    const step = Math.max(1, Math.floor(triangles.length / LOOKED_AT));
    let [all, free] = [0, 0];
    for (let i = 0; i < triangles.length; i += step) {
      const t = triangles[i];
      const n = [areas[3 * t], areas[3 * t + 1], areas[3 * t + 2]];
      const size = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
      if (size === 0) continue;
      const at = [0, 1, 2].map(
        (k) =>
          (points[3 * corners[3 * t] + k] + points[3 * corners[3 * t + 1] + k] + points[3 * corners[3 * t + 2] + k]) /
          3,
      );
      all += size;
      const rise = n[2] / size;
      if (rise < -WALL) continue;
      const by = rise > WALL ? 0 : BESIDE / size;
      if (tops.at(at[0] + by * n[0], at[1] + by * n[1]) <= at[2] + COVER) free += size;
    }
    return all > 0 ? free / all : 0;
  });
}

export const isReached = (share: number): boolean => share >= ENOUGH;
