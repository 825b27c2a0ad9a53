/** What is told of one face of a solid. */
import { Triangles, areaVectors } from '../../geometry/space/triangles';
import { dot, lengthOf } from '../../geometry/space/vec3';
import { maths } from '../../quantity/maths';
import { Fit, fitTo } from './faces/fit';
import { sampledFrom } from './faces/faces';

export interface FaceFacts {
  face: number;
  fit: Fit;
  /** mm². */
  area: number;
}

/** What surface a face lies on, and how large it is. */
export function factsOf(mesh: Triangles, face: number): FaceFacts {
  const triangles = Array.from(mesh.face ?? []).flatMap((f, t) => (f === face ? [t] : []));
  const sampled = sampledFrom(mesh, areaVectors(mesh), triangles);
  return { face, fit: fitTo(sampled), area: sampled.facets.reduce((s, f) => s + lengthOf(f.area) / 2, 0) };
}

/** How two faces stand to each other: level planes and parallel axes have a distance, others an angle. */
export function between(a: Fit, b: Fit): { distance?: number; degrees?: number } {
  const line = (fit: Fit) => (fit.kind === 'plane' ? fit.normal : 'axis' in fit ? fit.axis : undefined);
  const [u, v] = [line(a), line(b)];
  if (!u || !v || a.kind === 'free' || b.kind === 'free') return {};
  const isPlane = (fit: Fit) => fit.kind === 'plane';
  const cos = Math.min(1, Math.abs(dot(u, v)));
  const angle = (maths.acos(cos) * 180) / Math.PI;
  const from = { x: b.at.x - a.at.x, y: b.at.y - a.at.y, z: b.at.z - a.at.z };
  if (isPlane(a) && isPlane(b)) return angle < 1e-3 ? { distance: Math.abs(dot(from, u)) } : { degrees: angle };
  if (isPlane(a) !== isPlane(b)) {
    // A plane beside an axis that runs along it.
    const normal = isPlane(a) ? u : v;
    return angle > 90 - 1e-3 ? { distance: Math.abs(dot(from, normal)) } : { degrees: 90 - angle };
  }
  if (angle > 1e-3) return { degrees: angle };
  const along = dot(from, u);
  const out = { x: from.x - along * u.x, y: from.y - along * u.y, z: from.z - along * u.z };
  return { distance: lengthOf(out) };
}
