/** What a solid has to be cut, seen from above: pockets with their floors, islands and open sides, steps, holes, bosses, the outside. */
import { withBroken } from './broken';
import { FACE_UPS, Face, isOnSide } from '../plate/turn';
import { Faces } from './faces/faces';
import { Found } from './found';
import { holesOf, leaningHoles } from './holes';
import { Looked } from './looked';
import { levelsOf } from './pockets';
import { Tops } from './tops';

/**
 * Everything found from one side, as the solid lies: the outside first.
 * @param side which of its sides is up: its outside is cut from the top
 * @param made faces that sides before it make
 */
export function recognised(solid: Faces, tops: Tops, side: Face, made: ReadonlySet<number>): Found[] {
  const isTop = side === 'top';
  const looked = new Looked(solid, tops, made);
  const holes = holesOf(looked);
  const outside = isTop ? looked.outside() : [];
  // A part leans on a sine plate as it was drawn: from its top.
  const leaning = isTop ? leaningHoles(looked) : [];
  return withBroken(looked, [...outside, ...levelsOf(looked, holes, isOnSide(FACE_UPS[side])), ...holes, ...leaning]);
}
