import { suggestFinish } from './entries';
import { Machine } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool, onlyFaces } from '../shop/tool';
import { BOLDNESS, boldnessWord, inRange } from './boldness';
import { Working, n0, n2, n3 } from './working';
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

/** Share of the usual width at a boldness: seven tenths for a first cut, a tenth more when pushing. */
const widthAt = (b: number) => (b < 0.5 ? 0.7 + 0.6 * b : 1 + (b - 0.5) / 5);

/** Widths as a share of the diameter: wide tools take most of theirs; others by how stiff the machine is. */
const WIDE = { most: 0.7, least: 0.2, rigid: 0.25 } as const;
/** Of steady-load clearing: light, so that the whole flute can work. */
const STEADY = { least: 0.08, rigid: 0.06 } as const;
/** Share of the flutes that is used at most. */
const FLUTES = { wide: 0.9, steady: 0.95 } as const;

/** How an operation bites: as wide as tool and machine carry, or lightly at a steady load. */
export type Biting = 'wide' | 'steady';

/** What a suggested bite is made of: each depth is one it must not pass, mm. */
interface Bite {
  ae: number;
  ap: number;
  width: string;
  depths: { name: string; most: number }[];
}

function biteOf(how: Biting, tool: Tool, material: Material, machine: Machine, boldness: number): Bite {
  const facing = onlyFaces(tool);
  const most = facing || tool.kind === 'high-feed';
  const { least, rigid } = how === 'wide' ? WIDE : STEADY;
  const share = how === 'wide' && most ? WIDE.most : (least + rigid * machine.rigidity) * widthAt(boldness);
  const ae = Math.round(tool.diameter * share * 100) / 100;
  const widest = how === 'steady' || facing ? ae : tool.diameter;
  const depths = [
    { name: `${n0(100 * FLUTES[how])} % of the flutes`, most: tool.fluteLength * FLUTES[how] },
    {
      name: 'bending, spindle and grip at the widest bite',
      most: deepestLayer(tool, material, machine, widest) * (how === 'steady' ? Math.min(1, depthAt(boldness)) : 1),
    },
  ];
  if (how === 'wide')
    depths.push({
      name: 'what the material and a machine so stiff take',
      most: tool.diameter * material.depthShare * machine.rigidity * depthAt(boldness),
    });
  if (how === 'wide' && facing) depths.push({ name: 'a level face', most: 1 });
  const ap = Math.min(...depths.map((d) => d.most));
  const rigidity = `${n2(least)} + ${n2(rigid)} · ${n2(machine.rigidity)}`;
  const width = how === 'wide' && most ? `${n2(WIDE.most)}` : `(${rigidity}) · ${n2(widthAt(boldness))}`;
  return { ae, ap: Math.max(0.05, Math.floor(ap * 20) / 20), width, depths };
}

/**
 * A first sideways bite and layer depth, mm, for a tool in a material on a machine. Rigidity and boldness scale both (general workshop
 * factors); the depth also stays within flutes, spindle, bending and grip.
 */
export function suggestBite(
  tool: Tool,
  material: Material,
  machine: Machine,
  boldness: number = BOLDNESS.settled,
): { ae: number; ap: number } {
  const { ae, ap } = biteOf('wide', tool, material, machine, boldness);
  return { ae, ap };
}

/**
 * Bite and layer for steady-load clearing, mm: 8 to 14 % of the diameter by how stiff the machine is and how long the chip has to be (general
 * workshop range), at the depth the machine, the tool and its grip carry with that bite.
 */
export function suggestSteadyBite(
  tool: Tool,
  material: Material,
  machine: Machine,
  boldness: number = BOLDNESS.settled,
): { ae: number; ap: number } {
  const { ae, ap } = biteOf('steady', tool, material, machine, boldness);
  return { ae, ap };
}

/** From so many diameters of stick-out on a tool counts as slender; what it would do at so many is what that costs. */
const SLENDER = { from: 4.5, to: 3 } as const;
/** Layers so many times thinner have collapsed. */
const COLLAPSED = 3;

/** What its stick-out costs a slender tool: the layer it is suggested, and what it would be at three diameters; undefined where that is little. */
export function slenderness(how: Biting, tool: Tool, material: Material, machine: Machine, boldness: number) {
  const { diameter } = tool;
  if (tool.stickOut < SLENDER.from * diameter) return undefined;
  const stickOut = SLENDER.to * diameter;
  const short = { ...tool, stickOut, fluteLength: Math.min(tool.fluteLength, stickOut) };
  const { ap } = biteOf(how, tool, material, machine, boldness);
  const { ap: would } = biteOf(how, short, material, machine, boldness);
  return would >= COLLAPSED * ap ? { layer: ap, stickOut, would } : undefined;
}

/** How a suggested bite and layer come about, with the limits of the layer, tightest first. */
export function biteWorking(
  how: Biting,
  tool: Tool,
  material: Material,
  machine: Machine,
  boldness: number,
): Working[] {
  const { ae, ap, width, depths } = biteOf(how, tool, material, machine, boldness);
  const source = 'General workshop factors';
  const words = boldnessWord(boldness);
  const on = [
    { name: 'D', text: `${n3(tool.diameter)} mm`, at: 'tool' as const },
    { name: 'machine', text: machine.name, at: 'machine' as const },
  ];
  const limits = [...depths].sort((a, b) => a.most - b.most).map((d) => `${n2(d.most)} mm by ${d.name}`);
  return [
    {
      of: 'bite',
      what: 'Sideways bite',
      formula: `${n3(tool.diameter)} · ${width}, ${words}`,
      result: `${n2(ae)} mm`,
      source,
      inputs: on,
    },
    {
      of: 'layer',
      what: 'Layer',
      formula: `the least of ${limits.join('; ')}; ${words}`,
      result: `${n2(ap)} mm`,
      source,
      inputs: [...on, { name: 'material', text: material.name, at: 'material' }],
    },
  ];
}
