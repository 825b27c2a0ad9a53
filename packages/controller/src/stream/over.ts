/** What was measured while a program ran, laid over what its proof says, place by place: time may run otherwise, the path does not. */
import { Samples, maths } from '@tidypath/core';
import type { StreamRow } from '../control/events';
import type { Place } from '../control/place';

/** Of a proof: where it cuts, in program order, and the load there. */
export type Predicted = Pick<Samples, 'count' | 'motion' | 'time' | 'seconds' | 'length' | 'x' | 'y' | 'z' | 'load'>;

/** A stretch in which both differ. */
export interface Difference {
  /** Sample where it is most. */
  sample: number;
  /** s of the program. */
  from: number;
  to: number;
  /** Most of the spindle's power, share. */
  predicted: number;
  measured: number;
}

export interface Overlay {
  /** s of the program, up to its last cut. */
  total: number;
  /** Mean load of both in even steps of program time, share; measured NaN where nothing was. */
  predicted: number[];
  measured: number[];
  /** The largest first. */
  differences: Difference[];
  /** s measured along the path, and s of them in the proof. */
  seconds: number;
  computed: number;
  /** s under load where the program does not cut. */
  elsewhere: number;
}

/** A place farther from the path is beside it, mm; one that gets farther again by this was passed. */
const NEAR = 0.5;
const PASSED = 0.05;
/** Time of the program that passes at most in a second of what was measured, and room for its rounding, s. */
const FASTEST = 1.6;
const ROOM = 0.5;
/** A load of so much is more than idling. */
const LOADED = 0.05;
/** They differ by more than this, and by more than this share of what was said. */
const LEAST = 0.15;
const SHARE = 0.3;
const SHOWN = 12;

type At = Pick<Place, 'x' | 'y' | 'z'>;

/** Where the stretch of a sample begins: where the one before ends, and after a rapid back along its own way. */
function beginOf(s: Predicted, j: number): At {
  const i = j - 1;
  if (i >= 0 && s.motion[j] - s.motion[i] <= 1) return { x: s.x[i], y: s.y[i], z: s.z[i] };
  const next = Math.min(s.count - 1, j + 1);
  const [dx, dy, dz] = [s.x[next] - s.x[j], s.y[next] - s.y[j], s.z[next] - s.z[j]];
  const back = s.length[j] / (maths.hypot(dx, dy, dz) || 1);
  return { x: s.x[j] - back * dx, y: s.y[j] - back * dy, z: s.z[j] - back * dz };
}

/** How far a place is off the stretch that ends in a sample, mm. */
function offStretch(s: Predicted, j: number, p: At): number {
  const from = beginOf(s, j);
  const [dx, dy, dz] = [s.x[j] - from.x, s.y[j] - from.y, s.z[j] - from.z];
  const length = dx * dx + dy * dy + dz * dz;
  const along = (p.x - from.x) * dx + (p.y - from.y) * dy + (p.z - from.z) * dz;
  const t = length > 0 ? Math.min(1, Math.max(0, along / length)) : 0;
  return maths.hypot(p.x - from.x - t * dx, p.y - from.y - t * dy, p.z - from.z - t * dz);
}

/** The first stretch from one on, up to a time of the program, that a place lies at; undefined where it is beside them all. */
function sampleAt(s: Predicted, from: number, until: number, p: At): number | undefined {
  let [best, off] = [-1, NEAR];
  for (let j = from; j < s.count && (j === from || s.time[j] <= until); j++) {
    const here = offStretch(s, j, p);
    if (here < off) [best, off] = [j, here];
    if (best >= 0 && here > off + PASSED) break;
  }
  return best < 0 ? undefined : best;
}

/** Mean of what falls into each of even steps, by how much it weighs; NaN where nothing does. */
class Means {
  private readonly sum: number[];
  private readonly weight: number[];
  constructor(steps: number) {
    this.sum = new Array<number>(steps).fill(0);
    this.weight = new Array<number>(steps).fill(0);
  }
  add(step: number, value: number, weight: number): void {
    this.sum[step] += value * weight;
    this.weight[step] += weight;
  }
  all = (): number[] => this.sum.map((v, k) => v / this.weight[k]);
}

function differencesOf(predicted: number[], measured: number[], most: number[], total: number): Difference[] {
  const differs = (i: number) =>
    Math.abs(measured[i] - predicted[i]) > Math.max(LEAST, SHARE * Math.max(predicted[i], 0));
  const found: Difference[] = [];
  const wide = total / predicted.length;
  for (let i = 0; i < predicted.length; i++) {
    if (!differs(i)) continue;
    const last = found[found.length - 1];
    const one = {
      ...{ sample: most[i], from: i * wide, to: (i + 1) * wide },
      ...{ predicted: predicted[i], measured: measured[i] },
    };
    const isNext = last && last.to >= one.from - wide / 2;
    const by = (d: Difference) => Math.abs(d.measured - d.predicted);
    if (!isNext) found.push(one);
    else if (by(one) > by(last)) Object.assign(last, { ...one, from: last.from });
    else last.to = one.to;
  }
  return found.sort((a, b) => Math.abs(b.measured - b.predicted) - Math.abs(a.measured - a.predicted)).slice(0, SHOWN);
}

/**
 * Lays a stream over a proof.
 * @param rows in work coordinates
 * @param zero of the work in the coordinates of the samples, mm
 * @param steps of the answer
 */
export function layOver(rows: readonly StreamRow[], samples: Predicted, zero: At, steps = 240): Overlay {
  const total = samples.count > 0 ? samples.time[samples.count - 1] : 0;
  const step = (j: number) => Math.min(steps - 1, Math.floor((samples.time[j] / Math.max(total, 1e-9)) * steps));
  const [told, felt] = [new Means(steps), new Means(steps)];
  const most = new Array<number>(steps).fill(-1);
  for (let j = 0; j < samples.count; j++) {
    const k = step(j);
    told.add(k, samples.load[j], samples.seconds[j]);
    if (most[k] < 0 || samples.load[j] > samples.load[most[k]]) most[k] = j;
  }
  let [at, first, last, elsewhere] = [0, -1, -1, 0];
  rows.forEach((row, i) => {
    const { x, y, z } = row;
    const passed = last < 0 ? Infinity : FASTEST * (row.t - rows[last].t) + ROOM;
    const j = sampleAt(samples, at, samples.time[at] + passed, { x: x + zero.x, y: y + zero.y, z: z + zero.z });
    if (j === undefined) {
      if (row.load / 100 > LOADED && i > 0) elsewhere += row.t - rows[i - 1].t;
      return;
    }
    if (first < 0) first = i;
    [at, last] = [j, i];
    felt.add(step(j), row.load / 100, 1);
  });
  const predicted = told.all().map((v) => v || 0);
  const measured = felt.all();
  const seconds = last > first ? rows[last].t - rows[first].t : 0;
  return {
    ...{ total, predicted, measured, elsewhere, seconds, computed: last > first ? samples.time[at] : 0 },
    differences: differencesOf(predicted, measured, most, total),
  };
}
