/** How hot a chip gets where it leaves the edge, and what colour that gives it. */
import { ChipColour, Material, Tool, boldestChip, chipDiameter, maths, isAxial, specificForce } from '@tidypath/core';

/** How a group of materials takes heat: its heat in a volume, J/(mm³·K), how fast it spreads, mm²/s, and the colours of its chips. */
interface HeatGroup {
  capacity: number;
  spread: number;
  /** Colours up to a heat index, the coolest first; the last has no end. */
  colours: { upTo: number; colour: ChipColour }[];
}

const rows = (last: ChipColour, ...colours: [number, ChipColour][]): HeatGroup['colours'] => [
  ...colours.map(([upTo, colour]) => ({ upTo, colour })),
  { upTo: Infinity, colour: last },
];
const SOFT = rows('welds', [0.9, 'cool'], [1.02, 'warm'], [1.15, 'hot'], [1.3, 'smears']);
const STEEL: HeatGroup = {
  capacity: 3.6e-3,
  spread: 12,
  colours: rows('grey', [0.8, 'bright'], [0.87, 'straw'], [0.93, 'brown'], [1, 'blue'], [1.08, 'dark blue']),
};

/** Textbook figures of the metals; the bounds of the colours are workshop estimates. */
const GROUPS: [RegExp, HeatGroup][] = [
  [
    /stainless/,
    {
      capacity: 4e-3,
      spread: 4,
      colours: rows('dark blue', [0.78, 'bright'], [0.88, 'pale straw'], [0.95, 'straw'], [1.02, 'blue']),
    },
  ],
  [
    /titanium/,
    {
      capacity: 2.4e-3,
      spread: 2.9,
      colours: rows('white sparks', [0.8, 'bright'], [0.95, 'pale straw'], [1.05, 'blue'], [1.12, 'dark blue']),
    },
  ],
  [/alumin/, { capacity: 2.4e-3, spread: 65, colours: SOFT }],
  [/brass|copper|bronze/, { capacity: 3.2e-3, spread: 35, colours: SOFT }],
  [/steel|iron/, STEEL],
];

/** How a material takes heat; undefined where its chips say nothing of it, as those of wood and plastics. */
export const heatGroupOf = ({ group }: Pick<Material, 'group'>): HeatGroup | undefined =>
  GROUPS.find(([name]) => name.test(group.toLowerCase()))?.[1];

/** Colours the chips of a material have, the coolest first; none where they say nothing. */
export const coloursOf = (material: Pick<Material, 'group'>): ChipColour[] =>
  heatGroupOf(material)?.colours.map((c) => c.colour) ?? [];

/** Whether it is cut without heat that shows: what spreads it fast, and what is no metal. */
export const isSoft = (material: Pick<Material, 'group'>): boolean =>
  (heatGroupOf(material)?.spread ?? Infinity) > SPREADS;
const SPREADS = 30;

/** Share of the work that heats the face of the edge; handbook figure. */
const TO_FACE = 0.4;

/**
 * How much hotter a chip gets, K: 0.4·u/ρc·(v·h/a)^⅓, u = kc/1000 J/mm³.
 * @param kc specific force, N/mm²
 * @param speed m/min
 * @param chip mm
 */
export const contactRise = (
  { capacity, spread }: Pick<HeatGroup, 'capacity' | 'spread'>,
  kc: number,
  speed: number,
  chip: number,
): number => ((TO_FACE * kc) / 1000 / capacity) * maths.pow(((speed * 1000) / 60) * (chip / spread), 1 / 3);

/** Speed counts by the share of a turn in contact, against half the diameter. */
const CONTACT = { degrees: 90, power: 0.375, least: 5 };

/** A cut as far as its heat asks for it. */
export interface Heating {
  /** m/min. */
  speed: number;
  /** Thickest chip, mm. */
  chip: number;
  /** Degrees. */
  engagement: number;
  /** Specific force of that chip against what the material's figures say. */
  force: number;
}

/**
 * How hot a cut is against the bold end of its material's range with this tool at half its width: 1 is as hot. It forgives what the crude
 * figures of the rise have wrong. Undefined where chips say nothing.
 */
export function heatIndex(
  tool: Tool,
  material: Material,
  { speed, chip, engagement, force }: Heating,
): number | undefined {
  const group = heatGroupOf(material);
  if (!group || !(chip > 0) || !(speed > 0)) return undefined;
  const range = material[isAxial(tool) ? 'drillingSpeed' : 'millingSpeed'][tool.material];
  const bold = isAxial(tool) ? boldestChip(tool, material) : (material.chipShare.to / 100) * chipDiameter(tool);
  const kc = (h: number) => specificForce(material.kc11, material.mc, h);
  const contact = isAxial(tool) ? 1 : maths.pow(Math.max(CONTACT.least, engagement) / CONTACT.degrees, CONTACT.power);
  return (force * contactRise(group, kc(chip), speed * contact, chip)) / contactRise(group, kc(bold), range.to, bold);
}

/** The colour of a chip at a heat index; undefined where its material shows none. */
export const colourAt = (material: Pick<Material, 'group'>, index: number): ChipColour | undefined =>
  heatGroupOf(material)?.colours.find(({ upTo }) => index < upTo)?.colour;
