import { MOVE, Motions } from '../path/motions';
import { Measure, Samples } from '../simulate/samples';
import { maths } from '../quantity/maths';

/** Why a load is high. */
export type Cause = 'entry' | 'slot' | 'corner' | 'first lap' | 'deep' | 'as everywhere';

/** One of the heaviest moments of a program. */
export interface Peak {
  sample: number;
  motion: number;
  /** s. */
  time: number;
  value: number;
  cause: Cause;
}

/** Peaks are told apart when they lie at least this share of the program's time from each other. */
const APART = 1 / 40;
/** A move that goes down by more than this share of its length is an entry. */
const STEEP = 0.02;
/** From this engaged angle on it is a slot, degrees. */
const SLOT = 150;
/** So much more than round about is a corner, or deep. */
const MORE = 1.25;
/** Samples before and after that are round about. */
const ROUND = 60;

function median(values: number[]): number {
  const sorted = values.filter((v) => v > 0).sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}

/** Whether a motion goes down. */
function isEntry(m: Motions, i: number): boolean {
  const down = m.z[i - 1] - m.z[i];
  const flat =
    m.type[i] === MOVE.line ? maths.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]) : Math.abs(m.x[i] - m.cx[i]);
  return down > STEEP * flat;
}

/** Whether nothing but this pass has been cut since the way down into this layer. */
function isFirstLap(s: Samples, m: Motions, sample: number): boolean {
  for (let k = sample; k > 0; k--) {
    if (s.rate[k] <= 0) return false;
    if (isEntry(m, s.motion[k])) return true;
  }
  return false;
}

function causeOf(s: Samples, m: Motions, i: number): Cause {
  if (isEntry(m, s.motion[i])) return 'entry';
  if (s.engagement[i] >= SLOT) return 'slot';
  const tool = m.tool[s.motion[i]];
  const about = Array.from({ length: 2 * ROUND + 1 }, (_, k) => i - ROUND + k).filter(
    (k) => k >= 0 && k < s.count && m.tool[s.motion[k]] === tool,
  );
  if (s.engagement[i] > MORE * median(about.map((k) => s.engagement[k]))) return 'corner';
  if (s.depth[i] > MORE * median(about.map((k) => s.depth[k]))) return 'deep';
  return isFirstLap(s, m, i) ? 'first lap' : 'as everywhere';
}

/**
 * The heaviest moments of a program by one measure, the worst first, each with its cause.
 * @param most how many at most
 */
export function peaksOf(samples: Samples, motions: Motions, measure: Measure, most = 5): Peak[] {
  const values = samples[measure];
  const apart = (samples.count ? samples.time[samples.count - 1] : 0) * APART;
  const order = Array.from(values.keys())
    .filter((i) => values[i] > 0)
    .sort((a, b) => values[b] - values[a]);
  const found: Peak[] = [];
  for (const i of order) {
    if (found.length === most) break;
    if (found.some((p) => Math.abs(p.time - samples.time[i]) < apart)) continue;
    const motion = samples.motion[i];
    found.push({ sample: i, motion, time: samples.time[i], value: values[i], cause: causeOf(samples, motions, i) });
  }
  return found;
}
