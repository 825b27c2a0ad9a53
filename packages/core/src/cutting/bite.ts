import { suggestFinish } from './entries';
import { Machine } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool, formOf, onlyFaces } from '../shop/tool';
import { BOLDNESS, inRange } from './boldness';
import { loadShares } from './limits';
import { chipLoadFor, engagement, spindleSpeed } from './milling';
import { chipDiameter, cuttingDiameter, leadSine, thinnestChip } from './cut';

/** Share of the usual depth at a boldness: half for a first cut, all of it settled, a quarter more when pushing. */
const depthAt = (b: number) => (b < 0.5 ? 0.5 + b : 1 + (b - 0.5) / 2);

/** Layers looked at between none and the deepest. */
const LAYERS = 16;

/**
 * Deepest layer, mm, at which a careful chip stays within spindle, bending and grip at the widest bite: bending
 * by what is left for the finish. Never more than the flutes.
 */
export function deepestLayer(
  tool: Tool,
  material: Material,
  machine: Machine,
  ae: number,
  depth = tool.fluteLength,
): number {
  const ap = Math.min(depth, tool.fluteLength);
  const D = cuttingDiameter(tool, ap);
  const careful = Math.max(
    thinnestChip(tool, material),
    (inRange(material.chipShare, BOLDNESS.first) / 100) * chipDiameter(tool),
  );
  const fz = (careful * chipLoadFor(1, engagement(Math.min(ae, D), D))) / leadSine(tool, ap);
  const wanted = spindleSpeed(inRange(material.millingSpeed[tool.material], BOLDNESS.first), D);
  const rpm = Math.max(1, machine.minRpm, Math.min(wanted, machine.maxRpm, tool.holder.balancedRpm));
  const { allowance: leaves } = suggestFinish(tool);
  const isOver = (ap: number) =>
    Object.values(loadShares({ tool, material, machine, ae, ap, leaves, rpm, feed: rpm * tool.flutes * fz })).some(
      (share) => share > 1,
    );
  // Bending falls again in deeper layers, as its force moves up the flutes: the first layer that is too much counts.
  let low = 0;
  for (let k = 1; k <= LAYERS; k++) {
    let high = (ap * k) / LAYERS;
    if (!isOver(high)) {
      low = high;
      continue;
    }
    for (let i = 0; i < 12; i++) {
      const middle = (low + high) / 2;
      if (isOver(middle)) high = middle;
      else low = middle;
    }
    return low;
  }
  return ap;
}

/** Widths as a share of the diameter: wide tools take most of theirs; others by how stiff the machine is. */
function widthShare(tool: Tool, machine: Machine): number {
  if (onlyFaces(tool) || tool.kind === 'high-feed') return 0.7;
  return 0.2 + 0.25 * machine.rigidity;
}

/**
 * A first sideways bite and layer depth, mm, for a tool in a material on a machine. Rigidity scales both (general workshop factors);
 * the depth also stays within flutes, spindle, bending and grip.
 */
export function suggestBite(
  tool: Tool,
  material: Material,
  machine: Machine,
  boldness: number = BOLDNESS.settled,
): { ae: number; ap: number } {
  const facing = onlyFaces(tool);
  const ae = Math.round(tool.diameter * widthShare(tool, machine) * 100) / 100;
  const wanted = tool.diameter * material.depthShare * machine.rigidity * depthAt(boldness);
  const shallow = facing ? 1 : formOf(tool) === 'cone' ? tool.fluteLength * 0.9 : Infinity;
  const ap = Math.min(
    tool.fluteLength * 0.9,
    wanted,
    shallow,
    deepestLayer(tool, material, machine, facing ? ae : tool.diameter),
  );
  return { ae, ap: Math.max(0.05, Math.floor(ap * 20) / 20) };
}

/** Sideways bite of steady-load clearing as a share of the diameter: light, so that the whole flute can work. */
const STEADY_SHARE = 0.08;

/**
 * Bite and layer for steady-load clearing, mm: 8 to 14 % of the diameter by how stiff the machine is and how long the chip has to be (general
 * workshop range), at the depth the machine, the tool and its grip carry with that bite.
 */
export function suggestSteadyBite(tool: Tool, material: Material, machine: Machine): { ae: number; ap: number } {
  const share = STEADY_SHARE + 0.06 * machine.rigidity;
  const ae = Math.round(tool.diameter * share * 100) / 100;
  const ap = Math.min(tool.fluteLength * 0.95, deepestLayer(tool, material, machine, ae));
  return { ae, ap: Math.max(0.05, Math.floor(ap * 20) / 20) };
}
