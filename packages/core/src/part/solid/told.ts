/** A feature somebody tells from a face of a solid: that it is the floor of a pocket, the top of a boss, the wall of a hole. */
import { Ring, contains, islands, ringArea } from '../../geometry/plane/clip';
import { dot } from '../../geometry/space/vec3';
import { freshId } from '../../quantity/ids';
import { Feature, Solid } from '../plate/feature';
import { FACES, FACE_UPS, Face } from '../plate/turn';
import { freshName } from './corrected';
import { Faces, facesOfSolid } from './faces/faces';
import { Found, SAME_HEIGHT } from './found';
import { bodyIn, boxOf, lyingAs } from './lying';
import { LEAST_AREA, Looked, UPRIGHT, onAxis } from './looked';
import { besideOf } from './pockets';
import { tidy } from './rings';
import { nameOf, onSideOf } from './sides';
import { LOOKS, surfaceOf } from './surface-of';
import { Tops } from './tops';

/** What a face may be told to make. */
export const TOLD = ['pocket', 'boss', 'hole'] as const;
export type Told = (typeof TOLD)[number];

/** Sections are taken so far from a flat, mm. */
const ASIDE = 4e-4;
/** A hole goes round by so much of a turn, crossing holes left out. */
const ROUND = 0.6;
/** Ends that lie so near the underside go through, mm. */
const THROUGH = 2e-3;

const MAKE: Record<Told, (looked: Looked, face: number) => Found | undefined> = {
  /** A floor with its walls; a wall with the opening it stands round. */
  pocket(looked, face) {
    const flat = looked.flats.find((f) => f.face === face && looked.isSeen(f));
    if (!flat && !looked.isWall(face)) return undefined;
    const z = flat ? flat.z : looked.span(face)[0];
    const at = flat ? flat.at : besideOf(looked.solid, looked.solid.faces[face].triangles[0]);
    if (z > -SAME_HEIGHT) return undefined;
    const foot = flat ? looked.footOf(face) : 0;
    const region = looked.open(z + foot + ASIDE).find((r) => contains(r, at));
    if (!region) return undefined;
    const through = z < -looked.thickness + THROUGH;
    // Level with it and in the same opening is its floor.
    const floors = looked.flats.filter((f) => Math.abs(f.z - z) < SAME_HEIGHT && contains(region, f.at));
    const walls = floors.length > 0 ? floors.flatMap((f) => looked.wallsOf(f.face)) : looked.wallsAlong(region[0]);
    return {
      ...looked.standing(region[0]),
      ...{
        meaning: 'pocket',
        depth: through ? looked.thickness : tidy(-z),
        through,
        faces: [...new Set([face, ...floors.map((f) => f.face), ...walls])],
      },
      ...(foot > 0 && { foot }),
    };
  },

  /** A top with what stands below it. */
  boss(looked, face) {
    const flat = looked.flats.find((f) => f.face === face && looked.isSeen(f));
    const region = flat && islands(looked.tops.above(flat.z - ASIDE)).find((r) => contains(r, flat.at));
    // What is as wide as the solid itself does not stand on it.
    const isAll = (ring: Ring) => looked.filled.some((all) => Math.abs(ringArea(all) - ringArea(ring)) < LEAST_AREA);
    if (!region || isAll(region[0])) return undefined;
    return { ...looked.standing(region[0]), meaning: 'boss', depth: tidy(-flat.z), through: false, faces: [face] };
  },

  /** A hollow cylinder that stands upright and is open above. */
  hole(looked, face) {
    const { fit, isHollow, area } = looked.solid.faces[face];
    if (fit.kind !== 'cylinder' || !isHollow || Math.abs(fit.axis.z) < UPRIGHT) return undefined;
    const { x, y } = onAxis(fit);
    const [low, high] = looked.span(face);
    // A corner of a pocket goes round by a quarter only.
    if (area < ROUND * 2 * Math.PI * fit.radius * (high - low)) return undefined;
    if (looked.tops.at(x, y) > low + SAME_HEIGHT && high < -SAME_HEIGHT) return undefined;
    const through = looked.tops.at(x, y) === -Infinity;
    return {
      ...{ shape: { type: 'round', diameter: tidy(2 * fit.radius) }, x: tidy(x), y: tidy(y), turn: 0 },
      ...{ meaning: 'hole', depth: through ? looked.thickness : tidy(-low), through, faces: [face] },
    };
  },
};

/** The sides a face may be cut from, those it looks to first. */
function sidesOf({ faces }: Faces, face: number): Face[] {
  const { fit } = faces[face];
  const looks = (side: Face) => (fit.kind === 'plane' ? dot(fit.normal, LOOKS[side]) : 0);
  return [...FACES].sort((a, b) => looks(b) - looks(a) || FACES.indexOf(a) - FACES.indexOf(b));
}

/**
 * A feature from a face of a solid.
 * @param face number of a face of its surface
 * @returns undefined where the face makes no such thing from any side, or the surface is not at hand
 */
export function toldFeature(part: Solid, face: number, told: Told): Feature | undefined {
  const surface = surfaceOf(part);
  if (!surface) return undefined;
  const solid = facesOfSolid(surface);
  if (!solid.faces[face]) return undefined;
  const body = bodyIn(boxOf(solid));
  for (const side of sidesOf(solid, face)) {
    const lying = lyingAs(solid, body, FACE_UPS[side]);
    const found = MAKE[told](new Looked(lying, new Tops(lying.mesh, lying.against)), face);
    if (!found) continue;
    const name = freshName(nameOf(found), part.features);
    const id = freshId(
      'f',
      part.features.map((f) => f.id),
    );
    return { ...onSideOf(found, side, part, name), id, told: true };
  }
  return undefined;
}
