/** What a solid has to be cut, seen from above: pockets with their floors, islands and open sides, steps, holes, bosses, the outside. */
import { withBroken } from './broken';
import { Faces } from './faces/faces';
import { Found } from './found';
import { holesOf, leaningHoles } from './holes';
import { Looked } from './looked';
import { levelsOf } from './pockets';
import { Tops } from './tops';

/**
 * Everything found from one side, as the solid lies: the outside first.
 * @param isTop whether it lies as it was drawn: its outside is cut from there
 */
export function recognised(solid: Faces, tops = new Tops(solid.mesh, solid.against), isTop = true): Found[] {
  const looked = new Looked(solid, tops);
  const holes = holesOf(looked);
  const outside = isTop ? looked.outside() : [];
  // A part leans on a sine plate as it was drawn: from its top.
  const leaning = isTop ? leaningHoles(looked) : [];
  return withBroken(looked, [...outside, ...levelsOf(looked, holes), ...holes, ...leaning]);
}
