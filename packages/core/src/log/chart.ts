/** A chart of single values: limits of the process from its moving range, and what in it is no chance. */

export interface Chart {
  mean: number;
  deviation: number;
  /** Limits of the process, not of the drawing. */
  lower: number;
  upper: number;
  /** What is no chance, by the place of the value that shows it. */
  signals: { at: number; why: string }[];
}

/** Mean moving range of two as a deviation, and as limits. */
const RANGE = { deviation: 1.128, limits: 2.66 };
/** From so many values on limits mean something. */
export const ENOUGH_VALUES = 8;
const ONE_SIDE = 8;
const RISING = 6;

/** Whether the values up to a place show what is no chance. */
function signalAt(
  values: readonly number[],
  i: number,
  mean: number,
  deviation: number,
  limit: number,
): string | undefined {
  const off = (k: number) => values[k] - mean;
  if (Math.abs(off(i)) > limit) return 'beyond the limits of the process';
  const last = (n: number) => (i + 1 >= n ? Array.from({ length: n }, (_, k) => i - n + 1 + k) : []);
  for (const side of [1, -1]) {
    if (last(3).filter((k) => side * off(k) > 2 * deviation).length >= 2 && side * off(i) > 2 * deviation)
      return 'two of three beyond two deviations';
    const row = last(ONE_SIDE);
    if (row.length > 0 && row.every((k) => side * off(k) > 0)) return `${ONE_SIDE} on one side`;
    const run = last(RISING);
    if (run.length > 0 && run.slice(1).every((k) => side * (values[k] - values[k - 1]) > 0))
      return `${RISING} ${side > 0 ? 'rising' : 'falling'}`;
  }
  return undefined;
}

/** The chart of values in their order; undefined where there are fewer than two. */
export function chartOf(values: readonly number[]): Chart | undefined {
  if (values.length < 2) return undefined;
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const range = values.slice(1).reduce((sum, v, i) => sum + Math.abs(v - values[i]), 0) / (values.length - 1);
  const [deviation, limit] = [range / RANGE.deviation, range * RANGE.limits];
  const signals = values.flatMap((_, at) => {
    const why = signalAt(values, at, mean, deviation, limit);
    return why ? [{ at, why }] : [];
  });
  return { mean, deviation, lower: mean - limit, upper: mean + limit, signals };
}
