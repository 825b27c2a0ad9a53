/** Faces of a solid found again in a newer revision of it. */
import { Triangles } from '../../geometry/space/triangles';
import { Vec3, cross, dot, lengthOf, minus } from '../../geometry/space/vec3';
import { Solid } from '../plate/feature';
import type { FacesAgain } from '../plate/revised';
import { surfaceOf } from './surface-of';

/** Faces of two revisions that lie so near each other are one, mm, and look the same way so far. */
const AGAIN = 2e-3;
const SAME_WAY = 0.99;

/**
 * Finds the faces of a feature in a newer revision of its solid.
 * @returns for a feature its faces there; undefined where one of them is not where it was
 */
export function facesAgain(before: Solid, next: Solid): FacesAgain {
  const [was, is] = [surfaceOf(before), surfaceOf(next)];
  return ({ faces = [] }) => {
    if (!was?.face || !is?.face) return undefined;
    const found = faces.map((face) => {
      const at = largestOf(was, face);
      return at && faceAt(is, at);
    });
    return found.every((f) => f !== undefined) ? [...new Set(found)] : undefined;
  };
}

interface Placed {
  middle: Vec3;
  normal: Vec3;
}

const corner = ({ points, corners }: Triangles, k: number): Vec3 => {
  const p = 3 * corners[k];
  return { x: points[p], y: points[p + 1], z: points[p + 2] };
};

function placedTriangle(mesh: Triangles, t: number): Placed & { area: number; corners: [Vec3, Vec3, Vec3] } {
  const [a, b, c] = [corner(mesh, 3 * t), corner(mesh, 3 * t + 1), corner(mesh, 3 * t + 2)];
  const across = cross(minus(b, a), minus(c, a));
  const area = lengthOf(across) || 1e-300;
  const normal = { x: across.x / area, y: across.y / area, z: across.z / area };
  const middle = { x: (a.x + b.x + c.x) / 3, y: (a.y + b.y + c.y) / 3, z: (a.z + b.z + c.z) / 3 };
  return { middle, normal, area, corners: [a, b, c] };
}

/** The middle of the largest triangle of a face. */
function largestOf(mesh: Triangles, face: number): Placed | undefined {
  let best: ReturnType<typeof placedTriangle> | undefined;
  mesh.face!.forEach((f, t) => {
    if (f !== face) return;
    const one = placedTriangle(mesh, t);
    if (!best || one.area > best.area) best = one;
  });
  return best;
}

/** The face at a place that looks the same way. */
function faceAt(mesh: Triangles, { middle, normal }: Placed): number | undefined {
  for (let t = 0; t < mesh.face!.length; t++) {
    const one = placedTriangle(mesh, t);
    if (Math.abs(dot(minus(middle, one.middle), one.normal)) > AGAIN || dot(one.normal, normal) < SAME_WAY) continue;
    const isWithin = one.corners.every((p, k) => {
      const edge = minus(one.corners[(k + 1) % 3], p);
      return dot(cross(edge, minus(middle, p)), one.normal) >= -AGAIN * lengthOf(edge);
    });
    if (isWithin) return mesh.face![t];
  }
  return undefined;
}
