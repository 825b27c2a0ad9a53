/** What some operations of a proved program take, bear and leave, in figures. */
import { cuttingDiameter } from '../cutting/cut';
import { Machine, powerAt } from '../machine/machine';
import { MOVE, Motions } from '../path/motions';
import { Section, sectionAt } from '../program/write/step';
import { maths } from '../quantity/maths';
import { Material } from '../shop/material';
import { Tool, cutsWalls } from '../shop/tool';
import { Samples, samplesWhere } from '../simulate/samples';
import { energyOf } from './energy';
import { Wear, wearOf } from './wear';

export interface Measured {
  /** Minutes with the edge in metal, feeding without it, in rapids, at tool changes, at rest, and all together. */
  minutes: { cut: number; back: number; rapid: number; change: number; dwell: number; total: number };
  /** Fed and rapid, mm. */
  length: number;
  /** How often the tool comes into metal, and how often it is lifted in rapid. */
  entries: number;
  retracts: number;
  /** Shares of the spindle's power: the greatest, and the mean in cut. */
  load: { peak: number; mean: number };
  /** Stretches that take more than half as much again of the turn as was asked, and the seconds they last. */
  spikes: { count: number; seconds: number };
  /** Made in cutting, nearly all of it heat, kJ. */
  heat: number;
  /** Greatest: kW, side force N, bending mm, thickest chip mm. */
  power: number;
  force: number;
  bend: number;
  chip: number;
  /** Engaged angle, mean in cut, degrees. */
  angle: number;
  /** Share of the length of the flutes that wears, the mean in cut. */
  fluteUse: number;
  /** How high the marks of single teeth stand on a wall, mm. */
  wallMark: number;
  /** cm³. */
  removed: number;
  wear: Wear[];
  kWh: number;
  /** The greatest share of the spindle's power in each of as many equal stretches of its time. */
  ribbon: number[];
}

export interface MeasureInput {
  samples: Samples;
  motions: Motions;
  /** Seconds of every motion. */
  seconds: Float64Array;
  /** mm³ of every motion. */
  removedBy: Float32Array;
  sections: Section[];
  tools: ReadonlyMap<number, Tool>;
  material: Material;
  machine: Machine;
}

/** Stretches of a ribbon. */
const RIBBON = 160;
/** What is taken over this share of the asked angle is a spike. */
const SPIKE = 1.5;
/** Less time out of metal is none, s. */
const PAUSE = 0.05;
/** Goes down: an entry, mm over a sample. */
const DOWN = 1e-4;

/** Which operation each motion belongs to. */
function operationOf(sections: Section[], motions: Motions): (motion: number) => string | undefined {
  const starts = [...sections].sort((a, b) => a.line - b.line);
  return (i) => starts[sectionAt(starts, motions.line[i])]?.operationId;
}

function timesOf(
  { motions: m, seconds }: MeasureInput,
  own: (motion: number) => boolean,
  inCut: number,
): Measured['minutes'] {
  const sums = { rapid: 0, change: 0, dwell: 0, feed: 0 };
  for (let i = 1; i < m.count; i++) {
    if (!own(i)) continue;
    const type = m.type[i];
    const sort =
      type === MOVE.rapid ? 'rapid' : type === MOVE.toolChange ? 'change' : type >= MOVE.dwell ? 'dwell' : 'feed';
    sums[sort] += seconds[i] / 60;
  }
  const { rapid, change, dwell, feed } = sums;
  const cut = Math.min(feed, inCut);
  return { cut, back: feed - cut, rapid, change, dwell, total: rapid + change + dwell + feed };
}

/** The greatest load in each stretch of the time of some samples, which need not follow each other. */
function ribbonOf(s: Samples): number[] {
  const all = s.seconds.reduce((sum, v) => sum + v, 0);
  const ribbon = new Array<number>(RIBBON).fill(0);
  let time = 0;
  for (let i = 0; i < s.count; i++) {
    time += s.seconds[i];
    const at = Math.min(RIBBON - 1, Math.floor((RIBBON * (time - s.seconds[i] / 2)) / (all || 1)));
    ribbon[at] = Math.max(ribbon[at], s.load[i]);
  }
  return ribbon;
}

/** How often the tool comes into metal, and the stretches of too much of a turn. */
function stretchesOf(s: Samples, askedAt: (i: number) => number): Pick<Measured, 'entries' | 'spikes'> {
  const found = { entries: 0, spikes: { count: 0, seconds: 0 } };
  let out = Infinity;
  let isSpike = false;
  for (let i = 0; i < s.count; i++) {
    const isIn = s.rate[i] > 0;
    if (!isIn) {
      out += s.seconds[i];
      isSpike = false;
      continue;
    }
    if (out > PAUSE) found.entries++;
    out = 0;
    const goesDown = i > 0 && s.z[i] < s.z[i - 1] - DOWN;
    const isOver = !goesDown && s.engagement[i] > SPIKE * askedAt(i);
    if (isOver) found.spikes.seconds += s.seconds[i];
    if (isOver && !isSpike) found.spikes.count++;
    isSpike = isOver;
  }
  return found;
}

/**
 * Measures some operations of a proof.
 * @param asked the angle an operation is asked to engage, degrees
 */
export function measured(
  input: MeasureInput,
  operations: ReadonlySet<string>,
  asked: (operation: string) => number,
): Measured {
  const { motions, tools, material, machine, removedBy } = input;
  const of = operationOf(input.sections, motions);
  const own = (motion: number) => operations.has(of(motion) ?? '');
  const s = samplesWhere(input.samples, (i) => own(input.samples.motion[i]));
  const sum = (column: Float32Array, per: (i: number) => number) => column.reduce((all, v, i) => all + v * per(i), 0);
  const most = (column: Float32Array) => column.reduce((a, b) => Math.max(a, b), 0);
  const inCut = (i: number) => (s.rate[i] > 0 ? s.seconds[i] : 0);
  const cutSeconds = s.rate.reduce((all, _, i) => all + inCut(i), 0);
  const mean = (column: Float32Array) => (cutSeconds > 0 ? sum(column, inCut) / cutSeconds : 0);
  const minutes = timesOf(input, own, cutSeconds / 60);
  const toolAt = (i: number) => tools.get(motions.tool[s.motion[i]]);
  const power = s.load.map((load, i) => load * powerAt(machine, motions.rpm[s.motion[i]]));
  const used = s.depth.map((depth, i) => Math.min(1, depth / (toolAt(i)?.fluteLength ?? Infinity)));
  const mark = s.seconds.map((_, i) => {
    const tool = toolAt(i);
    if (!tool || !cutsWalls(tool) || s.rate[i] <= 0 || s.z[i] < (s.z[i - 1] ?? 0) - DOWN) return 0;
    const turn = motions.feed[s.motion[i]] / Math.max(1, motions.rpm[s.motion[i]]);
    return maths.pow(turn, 2) / (4 * cuttingDiameter(tool, s.depth[i]));
  });
  let [length, retracts, removed] = [0, 0, 0];
  for (let i = 1; i < motions.count; i++) {
    if (!own(i)) continue;
    const rise = motions.z[i] - motions.z[i - 1];
    removed += removedBy[i] / 1000;
    if (motions.type[i] === MOVE.rapid) {
      const gone = maths.hypot(motions.x[i] - motions.x[i - 1], motions.y[i] - motions.y[i - 1], rise);
      // Nobody knows from where the first comes.
      if (gone > 0) length += gone;
      if (rise > 0 && motions.type[i - 1] !== MOVE.rapid) retracts++;
    }
  }
  return {
    ...{
      minutes,
      retracts,
      removed,
      length: length + sum(s.length, (i) => (motions.type[s.motion[i]] === MOVE.rapid ? 0 : 1)),
    },
    ...stretchesOf(s, (i) => asked(of(s.motion[i]) ?? '')),
    ...{
      load: { peak: most(s.load), mean: mean(s.load) },
      heat: sum(power, inCut),
      power: most(power),
      force: most(s.force),
      bend: most(s.bend),
    },
    ...{ chip: most(s.chip), angle: mean(s.engagement), fluteUse: mean(used), wallMark: most(mark) },
    ...{ wear: wearOf(s, motions, tools, material), kWh: energyOf(s, motions, machine, minutes.total) },
    ribbon: ribbonOf(s),
  };
}
