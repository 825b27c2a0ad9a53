import { difference, islands } from '../../geometry/plane/clip';
import { pointLength } from '../../cutting/holes';
import { Feature } from '../../part/plate/feature';
import { Hole, PartModel, regionOf, solidAt } from '../../part/plate/model';
import { Tool, formOf } from '../../shop/tool';
import { widest } from '../milling/room';

/** Room around a drill that opens a pocket, mm. */
const ROOM = 0.2;
/** Metal kept between its point and the floor, mm. */
const ABOVE_FLOOR = 0.3;

/**
 * The holes a drill opens a pocket by, one in each of its copies, where it is widest: as wide as has room, and as deep as leaves the
 * floor whole under the point. The depth is 0 or less where the pocket is too shallow for it.
 */
export function openingsOf(feature: Feature, model: PartModel, tool: Tool): Hole[] {
  const { through } = feature;
  const floor = through ? model.thickness : feature.depth;
  const point = formOf(tool) === 'drill' ? pointLength(tool.diameter, tool.pointAngle) : 0;
  return islands(difference(regionOf(feature), solidAt(model, -floor))).map((island) => {
    const { diameter, at } = widest(island);
    const depth = through ? floor : floor - point - ABOVE_FLOOR;
    return { feature: feature.id, centre: at, diameter: Math.max(0, diameter - 2 * ROOM), depth, through };
  });
}
