/** What was measured while a program ran, laid over what its proof says, place by place: time may run otherwise, the path does not. */
import { Samples, maths } from '@tidypath/core';
import type { StreamRow } from '../control/events';
import type { Place } from '../control/place';

/** Of a proof: where it cuts, in program order, and the load there. */
export type Predicted = Pick<Samples, 'count' | 'time' | 'x' | 'y' | 'z' | 'load'>;

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
  /** Load of both in even steps of program time, share; measured NaN where nothing was. */
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

/** A place this near is on the path at once, mm; one farther than the second is beside it. */
const ON = 0.02;
const NEAR = 0.5;
/** Time of the program that passes at most in a second of what was measured, and room for its rounding, s. */
const FASTEST = 2;
const ROOM = 1;
/** A load of so much is more than idling. */
const LOADED = 0.05;
/** They differ by more than this, and by more than this share of what was said. */
const LEAST = 0.15;
const SHARE = 0.3;
const SHOWN = 12;

type At = Pick<Place, 'x' | 'y' | 'z'>;

/** How far a place is off the stretch that ends in a sample, mm. */
function offStretch(s: Predicted, j: number, p: At): number {
  const i = j === 0 ? 0 : j - 1;
  const [dx, dy, dz] = [s.x[j] - s.x[i], s.y[j] - s.y[i], s.z[j] - s.z[i]];
  const length = dx * dx + dy * dy + dz * dz;
  const along = (p.x - s.x[i]) * dx + (p.y - s.y[i]) * dy + (p.z - s.z[i]) * dz;
  const t = length > 0 ? Math.min(1, Math.max(0, along / length)) : 0;
  return maths.hypot(p.x - s.x[i] - t * dx, p.y - s.y[i] - t * dy, p.z - s.z[i] - t * dz);
}

/** The first stretch from one on, up to a time of the program, whose path goes through a place, else the nearest; undefined where it is beside them all. */
function sampleAt(s: Predicted, from: number, until: number, p: At): number | undefined {
  let [best, off] = [-1, NEAR];
  for (let j = from; j < s.count && (j === from || s.time[j] <= until); j++) {
    const here = offStretch(s, j, p);
    if (here < off) [best, off] = [j, here];
    if (off <= ON && here > off) break;
  }
  return best < 0 ? undefined : best;
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
  const predicted = new Array<number>(steps).fill(0);
  const measured = new Array<number>(steps).fill(NaN);
  const most = new Array<number>(steps).fill(0);
  for (let j = 0; j < samples.count; j++) {
    const k = step(j);
    if (samples.load[j] >= predicted[k]) [predicted[k], most[k]] = [samples.load[j], j];
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
    const k = step(j);
    measured[k] = Math.max(Number.isNaN(measured[k]) ? 0 : measured[k], row.load / 100);
  });
  const seconds = last > first ? rows[last].t - rows[first].t : 0;
  return {
    ...{ total, predicted, measured, elsewhere, seconds, computed: last > first ? samples.time[at] : 0 },
    differences: differencesOf(predicted, measured, most, total),
  };
}
