import { Material } from '../shop/material';
import { Tool, plunges } from '../shop/tool';
import { BOLDNESS } from './boldness';
import { chipLoadForMarks } from './milling';

/** How a cutter should go into solid metal; angle in degrees, diameter in mm. */
export interface Entry {
  kind: 'helix' | 'ramp';
  angle: number;
  /** Diameter of the helix's path. */
  diameter: number;
  reason: string;
}

/** How deep a cutter goes at full width where nothing else is said, as a share of its diameter. General workshop figure. */
export const FULL_WIDTH_LAYER = 0.25;

/** Hardness by cutting force: soft metals take steeper entries. */
const SOFT = 800;
const HARD = 1900;

/**
 * Slope and width of an entry: 2 to 3 degrees from settled to pushing, half a degree more in soft metals and a degree less in hard ones;
 * never steeper than an open centre allows. The helix is 0.9 D wide, wide enough to clear its own core, and for an open centre as wide
 * as leaves no post. General workshop figures.
 */
export function suggestEntry(tool: Tool, material: Material, boldness: number = BOLDNESS.settled): Entry {
  const metal = material.kc11 < SOFT ? 0.5 : material.kc11 > HARD ? -1 : 0;
  const wanted =
    2 + Math.max(0, boldness - BOLDNESS.settled) * 2 + (boldness < BOLDNESS.settled ? boldness - 0.5 : 0) * 2 + metal;
  const angle = Math.max(0.5, Math.round((plunges(tool) ? wanted : Math.min(wanted, 1.5)) * 10) / 10);
  const diameter = Math.round(tool.diameter * (plunges(tool) ? 0.9 : 0.7) * 100) / 100;
  return {
    kind: 'helix',
    angle,
    diameter,
    reason: plunges(tool)
      ? `in ${material.group}, for an end that cuts to the centre`
      : 'its end does not cut to the centre: shallow, and narrow enough to leave no post',
  };
}

/** Values of a finishing pass: metal to leave for it, mm, and the chip load whose marks stay below a height. */
export interface Finishing {
  allowance: number;
  /** mm a tooth. */
  chipLoad: number;
  marks: number;
}

/**
 * A finishing pass: 2 % of the diameter left for it, held within 0.1 to 0.4 mm (general workshop range), fed so that its marks stay
 * below `marks` mm (fz = √(4·D·h)).
 */
export function suggestFinish(tool: Tool, marks = 0.001): Finishing {
  const allowance = Math.round(Math.min(0.4, Math.max(0.1, tool.diameter * 0.02)) * 100) / 100;
  return { allowance, chipLoad: chipLoadForMarks(marks, tool.diameter), marks };
}
