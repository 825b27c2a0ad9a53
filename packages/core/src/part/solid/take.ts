/** A body of a file becomes the part. */
import { Triangles } from '../../geometry/space/triangles';
import { sha256Of } from '../../quantity/files';
import { Solid, Taken } from '../plate/feature';
import { FACE_UPS } from '../plate/turn';
import { Faces } from './faces/faces';
import { bodyIn, boxOf, lyingAs, onPlace } from './lying';
import { surfaceFile } from './read/surface';
import { Understood, understood } from './sides';

/** A solid taken as the part: its faces in their place, what was found, and its surface as the file it is kept as. */
export interface TakenSolid {
  part: Solid;
  surface: Uint8Array;
  faces: Faces;
  found: Understood;
}

/** The solid in its place with one of its sides as the top of the part. */
export function laidSolid(faces: Faces, up: Taken['up']): Faces {
  const placed = onPlace(faces);
  return up === 'top' ? placed : onPlace(lyingAs(placed, bodyIn(boxOf(placed)), FACE_UPS[up]));
}

/**
 * Makes a part of a solid.
 * @param faces of the body, as its file has it
 * @param source the file it came in
 * @param told called with the share of what is understood
 */
export function takenSolid(
  faces: Faces,
  taken: Taken,
  source: { name: string; sha256: string } | undefined,
  told?: (share: number) => void,
): TakenSolid {
  const laid = laidSolid(faces, taken.up);
  const found = understood(laid, told);
  const mesh: Triangles = { ...laid.mesh, face: laid.of };
  const surface = surfaceFile(mesh);
  const name = `${(source?.name ?? 'solid').replace(/\.[^.]*$/, '').slice(0, 110)}.ply`;
  const part: Solid = {
    kind: 'solid',
    thickness: found.thickness,
    features: found.features,
    surface: { name, sha256: sha256Of(surface) },
    ...(source && { source }),
    taken,
    ...(found.left.length > 0 && { left: found.left.map((l) => ({ ...l, area: Number(l.area.toFixed(3)) })) }),
  };
  return { part, surface, faces: laid, found };
}
