import { radians } from '../quantity/units';
import { boldestChip, chipRoomShare } from '../cutting/cut';
import { deepestInOne } from '../cutting/holes';
import { Motions } from '../path/motions';
import { Section, sectionAt } from '../program/write/step';
import { Code, DataOf, Finding, finding } from '../quantity/finding';
import { Material } from '../shop/material';
import { Tool, formOf, isAxial, isBeam } from '../shop/tool';
import type { Closer } from '../simulate/closer';
import { Samples } from '../simulate/samples';
import { maths } from '../quantity/maths';

/** What a load is judged against; shares of 1, lengths mm, stress N/mm². Workshop figures where no other source is said. */
export const LOAD_LIMITS = {
  /** Mean over so many seconds, of the power at that speed. */
  power: { seconds: 0.5, care: 0.85, stop: 1 },
  /** Mean over so many seconds, of what the spindle gives for longer. */
  sustained: { seconds: 3 },
  /** Mean over so many seconds and turns at least, of the torque at that speed: the spindle stops (estimate). */
  stall: { seconds: 0.1, turns: 3, stop: 1.5 },
  /** Mean over so many seconds, of what the holder grips. */
  grip: { seconds: 0.3, care: 0.8, stop: 1 },
  /** How far it bends where nothing is known of what is left; stops at so many times the limit. */
  bend: { unknown: 0.1, stop: 2 },
  /** Of the stress at which the tool's material breaks (estimates). */
  stress: { carbide: 2000, hss: 1200, care: 0.5, stop: 1 },
  /** Of what the room between flutes holds without crowding. */
  room: { care: 1 },
  /** How many diameters deeper than is usual a drill may go before its flutes are said to pack. */
  packing: 1,
  /** Thickest chip, as a share of the boldest of the material's range; stops at so many times that. */
  chip: { care: 2, stop: 1.5 },
  /** A chip thinner than this share of the edge's rounding rubs; told over so much of the time in cut, sooner where that hardens the work. Edge roundings, mm. */
  rub: { share: 0.3, sharp: 0.005, coated: 0.01, time: 0.2, hardening: 0.05 },
} as const;

/** From which share of a bound a place is looked at closer, by whether so many cells lie across its bite; and how many places. */
const LOOK = { cells: 8, wide: 0.9, light: 0.5, tries: 5 };

/** Shortest length a load that works at once is averaged over: cells of the grid, and shares of the diameter. */
const [CELLS, SHARE] = [8, 0.1];

/** Holes nearer to each other than this are one, mm. */
const SAME_HOLE = 0.01;

/** Whether between two samples the tip came up to the mouth of the hole; the first is the last of its motion. */
function wasOut(motions: Motions, s: Samples, [first, next]: [number, number], mouth: number): boolean {
  const offset = s.z[first] - motions.z[s.motion[first]];
  for (let m = s.motion[first] + 1; m < s.motion[next]; m++) if (motions.z[m] + offset >= mouth) return true;
  return false;
}

/** What of a program is judged together. */
interface Step {
  operation?: string;
  tool: Tool;
  from: number;
  to: number;
  /** How far its tool may bend, mm. */
  bend: number;
}

export interface LoadInput {
  samples: Samples;
  motions: Motions;
  tools: Map<number, Tool>;
  material: Material;
  sections: Section[];
  /** Share of its power the spindle gives for longer. */
  continuous: number;
  /** How far the tool of an operation may bend, mm; undefined where nothing is known of it. */
  bendOf: (operation: string) => number | undefined;
  /** Of the grid it was measured on, mm. */
  cell: number;
  /** Measures a place once more on a finer grid; undefined where that tells nothing new. */
  closer?: (sample: number, reach: number) => Closer | undefined;
}

/** Where a mean is greatest, and for how long it is over a bound. */
interface Worst {
  value: number;
  sample: number;
  secondsOver: number;
  /** What a closer look made of the value, as a share of what the grid showed; 1 without one. */
  share?: number;
}

/** Samples of each operation, in program order; of each tool where nothing is known of operations. */
function stepsIn({ samples: s, motions, tools, sections, bendOf }: LoadInput): Step[] {
  const starts = [...sections].sort((a, b) => a.line - b.line);
  const steps: Step[] = [];
  for (let i = 0; i < s.count; i++) {
    const motion = s.motion[i];
    const tool = tools.get(motions.tool[motion]);
    if (!tool || isBeam(tool)) continue;
    const operation = starts[sectionAt(starts, motions.line[motion])]?.operationId;
    const last = steps[steps.length - 1];
    if (last && last.tool === tool && last.operation === operation) last.to = i + 1;
    else {
      const bend = (operation !== undefined && bendOf(operation)) || LOAD_LIMITS.bend.unknown;
      steps.push({ operation, tool, from: i, to: i + 1, bend });
    }
  }
  return steps;
}

/** Where each sample of a step lies along its time, s, or along the metal it cuts, mm: what is cut apart lies far apart. */
function along(s: Samples, { from, to }: Pick<Step, 'from' | 'to'>, by: 'seconds' | 'length', apart: number) {
  const count = to - from;
  const [starts, ends] = [new Float64Array(count), new Float64Array(count)];
  for (let i = 0, at = 0; i < count; i++) {
    const k = from + i;
    if (by === 'seconds') [starts[i], ends[i]] = [s.time[k] - s.seconds[k], s.time[k]];
    else {
      if (s.rate[k] <= 0) at += apart;
      [starts[i], ends[i]] = [at, (at += s.rate[k] > 0 ? s.length[k] : 0)];
    }
  }
  return { starts, ends };
}

/** Stretches of samples, and over which of their measures a mean is taken. */
interface Span {
  samples: Samples;
  step: Pick<Step, 'from' | 'to'>;
  measure: Float32Array;
  over: ['seconds' | 'length', number];
}

/** The mean of a measure over a span so wide that ends at each sample. */
function meansOf({ samples: s, step, measure, over: [by, width] }: Span): Float64Array {
  const { starts, ends } = along(s, step, by, width);
  const means = new Float64Array(ends.length);
  // Before: all of what ends before the span begins.
  let [all, before, first] = [0, 0, 0];
  for (let i = 0; i < ends.length; i++) {
    all += measure[step.from + i] * (ends[i] - starts[i]);
    const begin = ends[i] - width;
    for (; first < i && ends[first] <= begin; first++)
      before += measure[step.from + first] * (ends[first] - starts[first]);
    const part = measure[step.from + first] * Math.max(0, begin - starts[first]);
    means[i] = (all - before - part) / width;
  }
  return means;
}

/** The greatest of the means, and for how long they are over a bound. */
function worstOf({ samples: s, step }: Span, means: Float64Array, bound: number): Worst {
  const worst = { value: 0, sample: -1, secondsOver: 0 };
  for (let i = 0; i < means.length; i++) {
    if (means[i] > bound) worst.secondsOver += s.seconds[step.from + i];
    if (means[i] > worst.value) [worst.value, worst.sample] = [means[i], step.from + i];
  }
  return worst;
}

const worstMean = (samples: Samples, step: Span['step'], measure: Float32Array, over: Span['over'], bound: number) => {
  const span = { samples, step, measure, over };
  return worstOf(span, meansOf(span), bound);
};

/** The samples at which the means are greatest, of each motion one, greatest first. */
function worstPlaces({ samples: s, step }: Span, means: Float64Array): { sample: number; value: number }[] {
  const byMotion = new Map<number, { sample: number; value: number }>();
  for (let i = 0; i < means.length; i++) {
    const sample = step.from + i;
    if (means[i] > (byMotion.get(s.motion[sample])?.value ?? 0))
      byMotion.set(s.motion[sample], { sample, value: means[i] });
  }
  return [...byMotion.values()].sort((x, y) => y.value - x.value);
}

/** Share of the time in cut with a chip thinner than the edge is round, and where it is first. */
function rubbing(s: Samples, { tool, from, to }: Step): Worst {
  const { share, sharp, coated } = LOAD_LIMITS.rub;
  const thinnest = share * (tool.edgeRadius || (tool.coating === 'none' ? sharp : coated));
  const found = { value: 0, sample: -1, secondsOver: 0 };
  let inCut = 0;
  for (let i = from; i < to; i++) {
    if (s.rate[i] <= 0 || s.chip[i] <= 0) continue;
    inCut += s.seconds[i];
    if (s.chip[i] >= thinnest) continue;
    found.secondsOver += s.seconds[i];
    if (found.sample < 0) found.sample = i;
  }
  found.value = inCut > 0 ? found.secondsOver / inCut : 0;
  return found;
}

/** Judges the load of a proved program: for each operation and cause one finding, at its worst line, with the feed that cures it. */
export function loadFindings(input: LoadInput): Finding[] {
  return stepsIn(input)
    .flatMap((step) => new StepLoad(input, step).findings())
    .sort((a, b) => (a.place.line ?? 0) - (b.place.line ?? 0));
}

/** The load of one operation, or of one tool of a program from elsewhere. */
class StepLoad {
  constructor(
    private readonly input: LoadInput,
    private readonly step: Step,
  ) {}

  findings(): Finding[] {
    const { tool } = this.step;
    const form = formOf(tool);
    // What a tap, a reamer or a boring head takes off is set by the hole it is given, not by its chip.
    const hasChip = form !== 'tap' && form !== 'bore' && form !== 'thread' && tool.kind !== 'reamer';
    return [
      ...this.speed(),
      ...this.power(),
      ...this.grip(),
      ...this.breakage(),
      ...(hasChip ? [...this.bending(), ...this.chip(), ...this.room(), ...this.rubs()] : []),
      ...(form === 'drill' ? this.packing() : []),
    ];
  }

  private place(sample: number) {
    const { motions, samples: s } = this.input;
    const motion = s.motion[sample];
    const at = { x: s.x[sample], y: s.y[sample], z: s.z[sample] };
    return { line: motions.line[motion], motion, operation: this.step.operation, tool: this.step.tool.id, at };
  }

  /** The feed that brings a value to a bound, mm/min: power and force grow with the chip to the power 1 − mc. */
  private feedFor(sample: number, value: number, bound: number, power = 1 - this.input.material.mc): number {
    const s = this.input.samples;
    const reached = s.seconds[sample] > 0 ? (60 * s.length[sample]) / s.seconds[sample] : 0;
    const feed = reached * maths.pow(bound / value, 1 / power);
    const step = feed >= 100 ? 10 : 1;
    return Math.max(1, Math.floor(feed / step) * step);
  }

  /**
   * The greatest mean of what works at once. A grid shows a bite of few cells up to half too large or too small: where that matters, the
   * worst places are measured once more on finer grids, and the others believed no further than those were.
   */
  private worst(measure: 'bend' | 'stress' | 'chip', bound: number): Worst {
    const { samples, closer, cell } = this.input;
    const span: Span = { samples, step: this.step, measure: samples[measure], over: ['length', this.stretchOn(cell)] };
    const means = meansOf(span);
    const coarse = worstOf(span, means, bound);
    const bite = this.biteAt(coarse.sample);
    const { cells, wide, light, tries } = LOOK;
    if (!closer || coarse.value < bound * (bite < cells * cell ? light : wide)) return coarse;
    const places = worstPlaces(span, means);
    const looked = places.slice(0, tries).map(({ sample, value }) => {
      const found = closer(sample, span.over[1]);
      if (!found) return { sample, value, share: 1, secondsOver: coarse.secondsOver };
      const all = { from: 0, to: found.samples.count };
      const over: Span['over'] = ['length', this.stretchOn(found.cell)];
      const fine = worstMean(found.samples, all, found.samples[measure], over, bound);
      // By half a cell its bite may have been read too large.
      const sure = fine.value * (1 - found.cell / (2 * Math.max(found.cell, this.biteAt(fine.sample, found.samples))));
      return { sample, value: sure, share: sure / value, secondsOver: fine.secondsOver };
    });
    const share = Math.min(1, Math.max(...looked.map((l) => l.share)));
    const others = places
      .slice(tries, tries + 1)
      .map(({ sample, value }) => ({ sample, value: value * share, share, secondsOver: 0 }));
    const worst = [...looked, ...others].reduce((a, b) => (b.value > a.value ? b : a));
    return { ...worst, secondsOver: Math.max(worst.secondsOver, coarse.secondsOver) };
  }

  private biteAt(sample: number, { engagement } = this.input.samples): number {
    const angle = radians(Math.min(180, engagement[sample] ?? 0));
    return (this.step.tool.diameter / 2) * (1 - maths.cos(angle));
  }

  /** Length a load that works at once is averaged over, mm: cells of its grid, a share of the diameter, a turn. */
  private stretchOn(cell: number): number {
    const { motions, samples } = this.input;
    const motion = samples.motion[this.step.from];
    const turn = motions.rpm[motion] > 0 ? motions.feed[motion] / motions.rpm[motion] : 0;
    return Math.max(CELLS * cell, SHARE * this.step.tool.diameter, turn);
  }

  private speed(): Finding[] {
    const { motions, samples } = this.input;
    const { tool, from, to } = this.step;
    for (let i = from; i < to; i++) {
      const rpm = motions.rpm[samples.motion[i]];
      if (rpm > tool.holder.balancedRpm * 1.001)
        return [finding('above-balance', { tool: tool.name, rpm, most: tool.holder.balancedRpm }, this.place(i))];
    }
    return [];
  }

  /** Power over half a second, and the torque of a moment in which the spindle would stop. */
  private power(): Finding[] {
    const { samples: s, motions } = this.input;
    const { tool } = this.step;
    const { power, stall } = LOAD_LIMITS;
    const moment = worstMean(s, this.step, s.load, ['seconds', this.moment(motions)], stall.stop);
    if (moment.value > stall.stop)
      return this.told('stalls', moment, power.care, { percent: 100 * moment.value, tool: tool.name });
    const { continuous } = this.input;
    const long = worstMean(s, this.step, s.load, ['seconds', LOAD_LIMITS.sustained.seconds], continuous);
    if (long.value > continuous && continuous < 1)
      return this.told('power-sustained', long, power.care * continuous, {
        percent: (100 * long.value) / continuous,
        tool: tool.name,
      });
    const found = worstMean(s, this.step, s.load, ['seconds', power.seconds], power.care);
    if (found.value <= power.care) return [];
    const code = found.value > power.stop ? 'power-over' : 'power-high';
    return this.told(code, found, power.care, { percent: 100 * found.value, tool: tool.name });
  }

  private moment({ rpm }: Motions): number {
    const { seconds, turns } = LOAD_LIMITS.stall;
    const speed = rpm[this.input.samples.motion[this.step.from]];
    return Math.max(seconds, speed > 0 ? (60 * turns) / speed : 0);
  }

  private grip(): Finding[] {
    const { samples: s } = this.input;
    const { care, stop, seconds } = LOAD_LIMITS.grip;
    const found = worstMean(s, this.step, s.grip, ['seconds', seconds], care);
    if (found.value <= care) return [];
    const told = { percent: 100 * found.value, tool: this.step.tool.name };
    return this.told(found.value > stop ? 'grip-over' : 'grip-high', found, care, told);
  }

  private bending(): Finding[] {
    const { tool, bend } = this.step;
    const found = this.worst('bend', bend);
    if (found.value <= bend) return [];
    const code = found.value > LOAD_LIMITS.bend.stop * bend ? 'bends-too-much' : 'bends-much';
    return this.told(code, found, bend, { by: found.value, most: bend, tool: tool.name });
  }

  private breakage(): Finding[] {
    const { samples: s } = this.input;
    const { tool } = this.step;
    const { care, stop } = LOAD_LIMITS.stress;
    const breaks = LOAD_LIMITS.stress[tool.material];
    const found = this.worst('stress', care * breaks);
    if (found.value <= care * breaks) return [];
    const code = found.value > stop * breaks ? 'breaks' : 'may-break';
    if (isAxial(tool)) {
      const twisted = { percent: (100 * found.value) / breaks, tool: tool.name };
      return this.told(code === 'breaks' ? 'twists-off' : 'may-twist-off', found, care * breaks, twisted);
    }
    const told = {
      percent: (100 * found.value) / breaks,
      force: s.force[found.sample] * (found.share ?? 1),
      tool: tool.name,
    };
    return this.told(code, found, care * breaks, told);
  }

  private chip(): Finding[] {
    const { material } = this.input;
    const { tool } = this.step;
    const own = tool.ownData.find((d) => d.materialId === material.id)?.chip ?? 0;
    const most = tool.mostChip || LOAD_LIMITS.chip.care * Math.max(boldestChip(tool, material), own);
    const found = this.worst('chip', most);
    if (found.value <= most) return [];
    const code = found.value > LOAD_LIMITS.chip.stop * most ? 'chip-too-thick' : 'chip-thick';
    return this.told(code, found, most, { chip: found.value, most, tool: tool.name }, 1);
  }

  /** Chips that find no room between the flutes. */
  private room(): Finding[] {
    const { samples: s, motions, material } = this.input;
    const { tool, from, to } = this.step;
    const shares = new Float32Array(to);
    for (let i = from; i < to; i++) {
      const rpm = motions.rpm[s.motion[i]];
      const ae = (tool.diameter / 2) * (1 - maths.cos(radians(s.engagement[i])));
      const chipLoad = s.seconds[i] > 0 && rpm > 0 ? (60 * s.length[i]) / s.seconds[i] / (rpm * tool.flutes) : 0;
      shares[i] = chipRoomShare(tool, material, chipLoad, ae);
    }
    const { care } = LOAD_LIMITS.room;
    const found = worstMean(s, this.step, shares, ['length', this.stretchOn(this.input.cell)], care);
    if (found.value <= care) return [];
    const told = { percent: 100 * found.value, flutes: tool.flutes, tool: tool.name };
    return this.told('chips-crowd', found, care, told, 1);
  }

  private rubs(): Finding[] {
    const found = rubbing(this.input.samples, this.step);
    const { time, hardening } = LOAD_LIMITS.rub;
    if (found.value <= (this.input.material.workHardens ? hardening : time)) return [];
    return [finding('rubs', { tool: this.step.tool.name, percent: 100 * found.value }, this.place(found.sample))];
  }

  /** How far a drill cuts without its flutes coming out of the hole. */
  private packing(): Finding[] {
    const { motions, samples: s, material } = this.input;
    const { tool, from, to } = this.step;
    const most = deepestInOne(material.longChips, tool.throughCoolant);
    const worst = { deep: 0, sample: -1 };
    // Where it began to cut since its flutes were last out, and the mouth of the hole.
    let [began, mouth, last] = [NaN, NaN, -1];
    for (let i = from; i < to; i++) {
      if (s.rate[i] <= 0) continue;
      if (last < 0 || maths.hypot(s.x[i] - s.x[last], s.y[i] - s.y[last]) > SAME_HOLE) began = mouth = s.z[i];
      else if (wasOut(motions, s, [last, i], mouth)) began = s.z[i];
      last = i;
      const deep = (began - s.z[i]) / tool.diameter;
      if (deep > worst.deep) Object.assign(worst, { deep, sample: i });
    }
    if (worst.deep <= most + LOAD_LIMITS.packing) return [];
    return [finding('chips-pack', { tool: tool.name, times: worst.deep, most }, this.place(worst.sample))];
  }

  /** A finding with the seconds over its bound and the feed that keeps it. */
  private told<C extends LoadCode>(code: C, found: Worst, bound: number, data: LoadData<C>, power?: number): Finding[] {
    const feed = this.feedFor(found.sample, found.value, bound, power);
    const told = { ...data, seconds: found.secondsOver, feed } as never;
    return [finding(code, told, this.place(found.sample))];
  }
}

type LoadCode = Extract<
  Code,
  | 'stalls'
  | 'power-high'
  | 'power-over'
  | 'power-sustained'
  | 'grip-high'
  | 'grip-over'
  | 'bends-much'
  | 'bends-too-much'
  | 'may-break'
  | 'breaks'
  | 'may-twist-off'
  | 'twists-off'
  | 'chip-thick'
  | 'chips-crowd'
  | 'chip-too-thick'
>;
type LoadData<C extends LoadCode> = Omit<DataOf<C>, 'seconds' | 'feed'>;
