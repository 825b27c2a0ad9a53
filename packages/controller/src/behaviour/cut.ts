/** What a cut does to spindle, tool and work under the overrides in force. */
import {
  ChipColour,
  LOAD_LIMITS,
  Material,
  Samples,
  Tool,
  cuttingDiameter,
  edgeLife,
  formOf,
  isAxial,
  lifeReference,
  kcOf,
  maths,
  specificForce,
} from '@tidypath/core';
import type { Character } from './character';
import { Cutting, Mode, RUBBING, depthLimit } from './chatter';
import { Chip, chipOf } from './chip';
import { colourAt, heatIndex, isSoft } from './heat';

/** Feed and speed against what is programmed. */
export interface Ratios {
  feed: number;
  speed: number;
}

/** What is felt, heard and seen of a cut. */
export interface Felt {
  /** Share of the power the spindle really gives. */
  load: number;
  /** Largest side force, N. */
  force: number;
  /** Thickest chip, mm. */
  thickest: number;
  /** mm. */
  vibration: number;
  /** Hz, where it chatters. */
  chatter?: number;
  /** Share of the stress at which the tool breaks. */
  stress: number;
  /** What it asks of the tool in a second: the chance to break adds up of it. */
  hazard: number;
  /** Share of an edge it wears in a second. */
  wear: number;
  /** What pushes against an axis, N. */
  push: number;
  heat?: number;
  colour?: ChipColour;
  chip?: Chip;
}

/** A sample of a cut as the proof sees it. */
export interface SampledCut {
  tool: Tool;
  rpm: number;
  /** mm/min, as programmed. */
  feed: number;
  load: number;
  force: number;
  /** mm. */
  chip: number;
  depth: number;
  /** Degrees. */
  engagement: number;
  /** Share. */
  stress: number;
}

/** A sample of a proof as a cut. */
export const sampledCut = (s: Samples, i: number, tool: Tool, rpm: number, feed: number): SampledCut => ({
  ...{ tool, rpm, feed },
  load: s.load[i],
  force: s.force[i],
  chip: s.chip[i],
  depth: s.depth[i],
  engagement: s.engagement[i],
  stress: s.stress[i] / LOAD_LIMITS.stress[tool.material],
});

/** Over the limit of chatter, how far it swings, as shares of the chip. */
const SWING = { most: 1.5, by: 2, quiet: 0.02 };
/** And how much it adds to the stress. */
const SHAKE = { most: 1.2, by: 1.6 };
/** What breaks a tool: 0.9 of its stress once a second, ten times as steep. */
const BREAK = { at: 0.9, power: 10 };
/** Of the side force, what pushes against an axis, and the least of it that lasts between teeth. */
const PUSH = { share: 0.6, least: 0.3 };

const NOTHING: Felt = { load: 0, force: 0, thickest: 0, vibration: 0, stress: 0, hazard: 0, wear: 0, push: 0 };

/** Mean chip, mm, of a cut with that largest chip and engaged angle (radians). */
function meanOf(chip: number, engagement: number): number {
  if (engagement <= 0) return chip;
  const perTooth = engagement < Math.PI / 2 ? chip / maths.sin(engagement) : chip;
  return Math.min(chip, (perTooth * (1 - maths.cos(engagement))) / engagement);
}

/** Chatter of the machine and of the tool: whichever begins first. */
function chatterOf(cut: SampledCut, material: Material, character: Character, chip: number, rpm: number) {
  const { tool, depth } = cut;
  const own = character.tools.get(tool.number);
  const engagement = (cut.engagement * Math.PI) / 180;
  if (isAxial(tool) || !(engagement > 0) || !(depth > 0) || !own) return { over: 0 };
  const force = character.force * specificForce(kcOf(tool, material), material.mc, meanOf(chip, engagement));
  // Angles and forces that differ by less than is known of them share what was worked out.
  const rounded = {
    rpm,
    teeth: tool.flutes,
    engagement: Math.max(1, Math.round(cut.engagement / 3)) * ((3 * Math.PI) / 180),
    force: Number(force.toPrecision(2)),
  };
  const speed = (Math.PI * cuttingDiameter(tool, depth) * rpm) / 1000;
  const rubbing = isSoft(material) ? RUBBING.soft : RUBBING.hard;
  const limits = [character.machine, own].map((mode) => limitOf(mode, rounded, speed, rubbing));
  const first = limits[0].depth <= limits[1].depth ? limits[0] : limits[1];
  return { over: depth / first.depth - 1, frequency: first.frequency };
}

const known = new Map<string, ReturnType<typeof depthLimit>>();
const MOST_KNOWN = 20_000;

/** Worked out once for alike cuts. */
function limitOf(mode: Mode, cut: Cutting, speed: number, rubbing: number) {
  const key = [
    mode.stiffness,
    mode.frequency,
    mode.damping,
    ...Object.values(cut),
    speed.toPrecision(3),
    rubbing,
  ].join();
  const found = known.get(key);
  if (found) return found;
  if (known.size >= MOST_KNOWN) known.clear();
  const limit = depthLimit(mode, cut, Number(speed.toPrecision(3)), rubbing);
  known.set(key, limit);
  return limit;
}

/**
 * What a cut does under overrides: with q the feed's ratio by the speed's, its chip grows by q, its force by q^(1 − mc), its power by the
 * feed's ratio · q^(−mc). A spindle at another speed gives another power.
 * @param power kW that the spindle's curve gives at a speed
 */
export function feel(
  cut: SampledCut,
  { feed: r, speed: s }: Ratios,
  material: Material,
  character: Character,
  power: (rpm: number) => number,
): Felt {
  const { tool } = cut;
  const rpm = cut.rpm * s;
  if (!(cut.load > 0) || !(r > 0) || !(rpm > 0)) return NOTHING;
  const own = character.tools.get(tool.number);
  const harder = character.force * (own?.dull ?? 1);
  const q = r / s;
  const chip = cut.chip * q;
  const force = cut.force * maths.pow(q, 1 - material.mc) * harder;
  const kW = cut.load * power(cut.rpm) * r * maths.pow(q, -material.mc) * harder;
  const { over, frequency } = chatterOf(cut, material, character, chip, rpm);
  const stress =
    cut.stress * maths.pow(q, 1 - material.mc) * harder * (1 + Math.min(SHAKE.most, SHAKE.by * Math.max(0, over)));
  const speed = (Math.PI * cuttingDiameter(tool, cut.depth) * rpm) / 1000;
  const teethIn = (tool.flutes * cut.engagement) / 360;
  const milling = isAxial(tool) ? {} : { chip, angle: cut.engagement };
  const heat = heatIndex(tool, material, { speed, chip, engagement: cut.engagement, force: harder });
  return {
    load: kW / (power(rpm) * character.spindle),
    force,
    thickest: chip,
    vibration: chip * (over > 0 ? Math.min(SWING.most, SWING.by * over) : SWING.quiet),
    ...(over > 0 && { chatter: frequency }),
    stress,
    hazard: maths.pow(stress / BREAK.at, BREAK.power),
    wear: chip > 0 ? 1 / (60 * edgeLife(lifeReference(tool, material), { speed, ...milling })) : 0,
    push: PUSH.share * force * Math.min(1, Math.max(PUSH.least, teethIn)),
    ...(heat !== undefined && { heat, colour: colourAt(material, heat) }),
    ...(formOf(tool) !== 'tap' && {
      chip: chipOf(tool, material, {
        chip,
        depth: cut.depth,
        engagement: cut.engagement,
        perTooth: (cut.feed * r) / (rpm * tool.flutes),
      }),
    }),
  };
}
