/** What a chip looks like: as large as it is, and whether that is a good one. */
import { ChipShape, Material, Tool, chipRoomShare, isAxial, maths } from '@tidypath/core';

/** How much thicker a chip is than what was cut (estimate). */
const UPSET = 2.5;
/** Thinner ones are dust, mm. */
const DUST = 0.005;
/** Drills in what makes long chips give strings below so much of their diameter a turn. */
const STRINGS = 0.01;

/** A chip, mm. */
export interface Chip {
  thick: number;
  long: number;
  wide: number;
  shape: ChipShape;
}

/**
 * The chip of a cut.
 * @param cut thickest chip and depth mm, engaged angle in degrees, feed a tooth mm
 */
export function chipOf(
  tool: Tool,
  material: Material,
  { chip, depth, engagement, perTooth }: { chip: number; depth: number; engagement: number; perTooth: number },
): Chip {
  const angle = (engagement * Math.PI) / 180;
  const helix = (tool.helix * Math.PI) / 180;
  const bite = (tool.diameter * (1 - maths.cos(angle))) / 2;
  return {
    thick: chip * UPSET,
    long: (angle * tool.diameter) / 2 / UPSET,
    wide: depth / maths.cos(helix),
    shape: shapeOf(tool, material, chip, perTooth, bite),
  };
}

function shapeOf(tool: Tool, material: Material, chip: number, perTooth: number, bite: number): ChipShape {
  if (chip < DUST) return 'dust';
  if (isAxial(tool))
    return material.longChips && perTooth * tool.flutes < STRINGS * tool.diameter ? 'strings' : 'chips';
  return chipRoomShare(tool, material, perTooth, bite) > 1 ? 'packed' : 'chips';
}
