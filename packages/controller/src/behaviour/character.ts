/** What nobody knows of a machine, its tools and the bar in it until it has run: drawn from a seed. */
import { Machine, Tool, bendingOf, hashOf, holderLength, maths, normalFrom, randomFrom } from '@tidypath/core';
import type { Mode } from './chatter';

/** How a tool behaves in its holder. */
export interface ToolCharacter extends Mode {
  /** How far it gives under a steady force at its tip, mm/N. */
  gives: number;
  /** From the gauge line to its tip as it is really set, mm. */
  length: number;
  /** How much more force its edge takes than a sharp one. */
  dull: number;
  /** It breaks once what is asked of it adds up to this: −ln u. */
  breaksAt: number;
}

export interface Character {
  /** How it swings at the spindle, and how far it gives under a steady force, mm/N. */
  machine: Mode & { gives: number };
  tools: ReadonlyMap<number, ToolCharacter>;
  /** Force of this bar against what its material's figures say. */
  force: number;
  /** Share of its curve that the spindle really gives. */
  spindle: number;
  /** What an axis can push with, N. */
  push: number;
  /** Of motors that step without anybody looking: the speed at which they push no more, m/min. */
  skips?: number;
  /** Share by which its moves take longer than computed, and what its tool change takes of what is said. */
  time: { extra: number; change: number };
  /** Where the true zero lies as the machine counts, mm. */
  zero: { x: number; y: number; z: number };
}

type Range = readonly [from: number, to: number];

/** Machines by what they carry; estimates of their class. */
interface Class {
  stiffness: Range;
  frequency: Range;
  spindle: Range;
  push: Range;
  skips?: Range;
}
const CLASSES: { upTo: number; of: Class }[] = [
  {
    upTo: 0.4,
    of: { stiffness: [1800, 5000], frequency: [90, 220], spindle: [0.85, 1], push: [90, 220], skips: [2.6, 5.2] },
  },
  { upTo: 0.65, of: { stiffness: [6000, 16_000], frequency: [140, 400], spindle: [0.85, 1], push: [900, 2000] } },
  {
    upTo: Infinity,
    of: { stiffness: [18_000, 45_000], frequency: [250, 700], spindle: [0.9, 1], push: [4000, 8000] },
  },
];
const DAMPING: Range = [0.03, 0.06];
/** A mode that swings is stiffer than all that gives together. */
const STIFFER: Range = [3, 5];
/** Of the stiffness of the tool as a beam: what it holds, and what swings; of a clamped rod's frequency; its joints damp (estimates). */
const TOOL = {
  holds: [0.5, 0.9],
  swings: [1.1, 2],
  frequency: [0.35, 0.6],
  damping: [0.03, 0.07],
  dull: [1, 1.1],
} as const;
/** What is planned within 80 % of the spindle never stalls it by these alone: 0.8 · 1.15 · 1.1 / 0.85 = 1.19. */
const FORCE: Range = [0.9, 1.15];
/** What real moves take more than computed ones, and real changes of what is said. */
const TIME = { extra: [0.02, 0.15], change: [0.9, 1.4] } as const;
/** How far a tool may stand from what its sheet says, mm, as a deviation. */
const SET = 0.03;
/** The same where it was set by a rule. */
const BY_RULE = 0.3;
/** N/mm² and kg/mm³ of what tools are made of. */
const ROD = { carbide: { modulus: 600_000, density: 14.5e-6 }, hss: { modulus: 210_000, density: 7.9e-6 } } as const;
/** First root of a clamped rod, squared. */
const CLAMPED = 3.516;

/** Frequency of a rod clamped at its holder, Hz: 3.516/(2π·L²)·√(E·d²/(16·ρ)). Beam theory. */
export function rodFrequency({
  diameter,
  stickOut,
  material,
}: Pick<Tool, 'diameter' | 'stickOut' | 'material'>): number {
  const { modulus, density } = ROD[material];
  const wave = Math.sqrt((modulus * 1000 * maths.pow(diameter, 2)) / (16 * density));
  return (CLAMPED * wave) / (2 * Math.PI * maths.pow(stickOut, 2));
}

/** A figure for each name, whatever else is drawn: what is added later changes nothing of what is known. */
const drawsFrom = (seed: number) => (name: string) => {
  const random = randomFrom(parseInt(hashOf([seed, name]).slice(0, 6), 36));
  return {
    even: ([from, to]: Range) => from + (to - from) * random(),
    /** Evenly over the powers: as many between 1 and 2 as between 2 and 4. */
    spread: ([from, to]: Range) => from * maths.pow(to / from, random()),
    normal: () => normalFrom(random)(),
    share: () => random(),
  };
};

/** The hidden character of a machine with these tools and the bar in it; the same for the same seed. */
export function characterOf(machine: Machine, tools: readonly Tool[], seed: number): Character {
  const draw = drawsFrom(seed);
  const { of } = CLASSES.find(({ upTo }) => machine.rigidity <= upTo)!;
  const stiffness = draw('stiffness').spread(of.stiffness);
  return {
    machine: {
      gives: 1 / stiffness,
      stiffness: stiffness * draw('mode').even(STIFFER),
      frequency: draw('frequency').spread(of.frequency),
      damping: draw('damping').even(DAMPING),
    },
    tools: new Map(
      tools.map((tool) => {
        const named = (what: string) => draw(`T${tool.number} ${what}`);
        const give = bendingOf(tool, 1, 0).deflection;
        return [
          tool.number,
          {
            gives: give / named('holds').even(TOOL.holds),
            stiffness: named('mode').even(TOOL.swings) / give,
            frequency: named('frequency').even(TOOL.frequency) * rodFrequency(tool),
            damping: named('damping').even(TOOL.damping),
            dull: named('edge').even(TOOL.dull),
            length: tool.stickOut + holderLength(tool.holder) + SET * named('length').normal(),
            breaksAt: -maths.log(1 - named('breaks').share()),
          },
        ];
      }),
    ),
    force: draw('bar').even(FORCE),
    spindle: draw('spindle').even(of.spindle),
    push: draw('push').spread(of.push),
    ...(of.skips && { skips: draw('skips').even(of.skips) }),
    time: { extra: draw('moves').even(TIME.extra), change: draw('change').even(TIME.change) },
    zero: { x: -draw('x').even([180, 320]), y: -draw('y').even([120, 220]), z: -draw('z').even([260, 340]) },
  };
}

/** How far a new tool in the place of another stands out otherwise, mm: it is set by a rule until it is touched off. */
export const renewedBy = (seed: number, tool: number, times: number): number =>
  times === 0 ? 0 : BY_RULE * drawsFrom(seed)(`T${tool} length ${times}`).normal();
