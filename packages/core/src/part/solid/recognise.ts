/** What a solid has to be cut, seen from above: pockets with their floors, islands and open sides, steps, holes, bosses, the outside. */
import { Faces } from './faces/faces';
import { Found } from './found';
import { holesOf } from './holes';
import { Looked } from './looked';
import { levelsOf } from './pockets';
import { Tops } from './tops';

/** Everything found from one side, as the solid lies: the outside first. */
export function recognised(solid: Faces, tops = new Tops(solid.mesh, solid.against)): Found[] {
  const looked = new Looked(solid, tops);
  const holes = holesOf(looked);
  return [...looked.outside(), ...levelsOf(looked, holes), ...holes];
}
