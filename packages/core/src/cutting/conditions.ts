import type { Coolant } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool, isAxial } from '../shop/tool';
import { Working, n0, n2 } from './working';
import { maths } from '../quantity/maths';

/** Powers of the hardness, against that the figures are for, by which force rises and speed falls (workshop estimates). */
const BY_HARDNESS = { force: 0.4, speed: 0.7 } as const;

/** How much harder the bar at hand is than what the figures of its material are for; 1 where either is not known. */
export const harderBy = ({ brinell, atHand }: Material) => (brinell && atHand ? atHand / brinell : 1);

/**
 * Specific force of a tool in the bar at hand for a chip 1 mm thick, N/mm². It rises with the hardness; a roughing mill's waves let every
 * place of the wall be cut by each second tooth only, so that its chips are twice as thick: kc · 2^(−mc).
 */
export const kcOf = (tool: Pick<Tool, 'kind'>, material: Material) =>
  material.kc11 *
  maths.pow(harderBy(material), BY_HARDNESS.force) *
  (tool.kind === 'roughing' ? maths.pow(2, -material.mc) : 1);

/** What changes the speed of a range, by what was chosen. */
export interface SpeedFactor {
  what: string;
  formula: string;
  factor: number;
  input: Working['inputs'][number];
}

/** Speeds by coating against those of the range: carbide's are for nitride where edges run hot, all others for bare edges. */
const COATED: Record<Tool['coating'], { hot: number; cool: number; hotHss: number }> = {
  none: { hot: 0.85, cool: 1, hotHss: 1 },
  nitride: { hot: 1, cool: 1, hotHss: 1.25 },
  'hard carbon': { hot: 0.85, cool: 1.2, hotHss: 1 },
  diamond: { hot: 0.85, cool: 1.3, hotHss: 1 },
};

/** Speeds where a material wants flood and gets less. */
const DRY: Record<Coolant, number> = { off: 0.7, air: 0.8, mist: 0.9, flood: 1, through: 1 };

/**
 * What hardness, coating and coolant make of a material's speed, each by itself (workshop estimates); only what changes it.
 * @param coolant what is switched on; not counted where left out
 * @param own whether the speed was found by trial with this tool: it holds its coating and coolant already
 */
export function speedFactors(
  tool: Tool,
  material: Material,
  coolant: Coolant | undefined,
  own: boolean,
): SpeedFactor[] {
  const factors: SpeedFactor[] = [];
  const harder = harderBy(material);
  if (harder !== 1)
    factors.push({
      what: `At ${n0(material.atHand!)} HB`,
      formula: `vc·(${n0(material.brinell!)}/${n0(material.atHand!)})^${BY_HARDNESS.speed}`,
      factor: maths.pow(harder, -BY_HARDNESS.speed),
      input: { name: 'material', text: material.name, at: 'material' },
    });
  if (own) return factors;
  const { hot, cool, hotHss } = COATED[tool.coating];
  const coated =
    material.heat === undefined ? 1 : material.heat === 'cool' ? cool : tool.material === 'hss' ? hotHss : hot;
  if (coated !== 1)
    factors.push({
      what: tool.coating === 'none' ? 'Without a coating' : `Coated, ${tool.coating}`,
      formula: `vc·${n2(coated)} in what makes edges run ${material.heat}`,
      factor: coated,
      input: { name: 'tool', text: tool.name, at: 'tool' },
    });
  const wet = coolant && material.coolant === 'flood' ? DRY[coolant] : 1;
  if (wet !== 1)
    factors.push({
      what: `With coolant ${coolant}`,
      formula: `vc·${n2(wet)} without flood`,
      factor: wet,
      input: { name: 'coolant', text: coolant!, at: 'coolant' },
    });
  return factors;
}

/** Orders in which coolants are asked for. */
const ASKED = {
  flood: ['flood', 'mist', 'air', 'off'],
  air: ['air', 'mist', 'flood', 'off'],
  dry: ['air', 'off', 'mist', 'flood'],
  insert: ['air', 'off'],
} as const satisfies Record<string, readonly Coolant[]>;

/**
 * The coolant to start with, of those a machine has, and why. Flood cracks hot carbide that cuts in strokes, above all inserts; holes and
 * high-speed steel want it. General workshop rules.
 */
export function adviseCoolant(tool: Tool, material: Material, coolants: Coolant[]): { coolant: Coolant; why: string } {
  const first = (order: readonly Coolant[]) => order.find((c) => coolants.includes(c)) ?? 'off';
  if (tool.throughCoolant && coolants.includes('through')) return { coolant: 'through', why: 'the tool has it inside' };
  if (material.coolant === undefined) return { coolant: first(ASKED.flood), why: 'it carries chips and heat away' };
  if (material.coolant === 'dry')
    return { coolant: first(ASKED.dry), why: `${material.name} is cut dry; air takes the chips` };
  if (isAxial(tool)) return { coolant: first(ASKED.flood), why: 'chips have to come out of the hole' };
  if (material.coolant === 'flood') return { coolant: first(ASKED.flood), why: `${material.name} wants it` };
  if (tool.material === 'hss') return { coolant: first(ASKED.flood), why: 'high-speed steel softens when it is hot' };
  const inserts = tool.kind === 'face' || tool.kind === 'insert';
  return inserts
    ? { coolant: first(ASKED.insert), why: 'coolant would crack hot inserts; the chip takes the heat away' }
    : { coolant: first(ASKED.air), why: 'the chip takes the heat away; air takes the chip' };
}
