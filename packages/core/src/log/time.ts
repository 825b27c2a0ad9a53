/** How long a machine really takes: from logged runs against what was computed, by a fit that somebody's lunch does not bend. */

import { maths } from '../quantity/maths';

/** A run's time, s, with what was computed of it. */
export interface TimedRun {
  /** From start to end, without what was held or waited. */
  seconds: number;
  dwell: number;
  moves: number;
  /** How often tools changed. */
  changes: number;
}

export interface TimeFit {
  /** Share by which moves take longer than computed. */
  extraTime: number;
  /** s */
  toolChangeSeconds: number;
  /** Runs that hardly counted, as they fit nothing: their places in the list. */
  outliers: number[];
  runs: number;
}

/** Beyond so many deviations a run counts less (Huber), and below this weight hardly. */
const HUBER = 1.345;
const HARDLY = 0.2;
/** What is known before anybody logged: deviations of the share, and of the change as a share of what is said of it. */
const BEFORE = { extraTime: 0.15, change: 0.5 };
/** A median distance as a deviation. */
const AS_DEVIATION = 1.4826;
const ROUNDS = 100;
/** From so many runs on something is proposed. */
export const ENOUGH_RUNS = 5;

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}

/**
 * The time of a machine: seconds − dwell = (1 + x)·moves + changes·c, by Huber's weights, from what was known before.
 * @param changeSeconds what is said of its tool change, s
 */
export function fitTime(runs: readonly TimedRun[], changeSeconds: number): TimeFit {
  const rows = runs.map(({ seconds, dwell, moves, changes }) => ({ y: seconds - dwell - moves, m: moves, c: changes }));
  let [x, c] = [0, changeSeconds];
  let weights = rows.map(() => 1);
  const [priorX, priorC] = [
    1 / maths.pow(BEFORE.extraTime, 2),
    1 / maths.pow(Math.max(0.1, BEFORE.change * changeSeconds), 2),
  ];
  for (let round = 0; round < ROUNDS; round++) {
    const misses = rows.map((r) => r.y - x * r.m - c * r.c);
    const spread = Math.max(0.05, AS_DEVIATION * median(misses.map(Math.abs)));
    weights = misses.map((miss) => Math.min(1, (HUBER * spread) / Math.max(1e-9, Math.abs(miss))));
    const sum = (of: (r: (typeof rows)[number]) => number) =>
      rows.reduce((all, r, i) => all + (weights[i] * of(r)) / (spread * spread), 0);
    const [a, b, d] = [sum((r) => r.m * r.m) + priorX, sum((r) => r.m * r.c), sum((r) => r.c * r.c) + priorC];
    const [p, q] = [sum((r) => r.m * r.y), sum((r) => r.c * r.y) + priorC * changeSeconds];
    const whole = a * d - b * b;
    [x, c] = [(p * d - q * b) / whole, (a * q - b * p) / whole];
  }
  const outliers = weights.flatMap((w, i) => (w < HARDLY ? [i] : []));
  return { extraTime: x, toolChangeSeconds: Math.max(0, c), outliers, runs: runs.length };
}
