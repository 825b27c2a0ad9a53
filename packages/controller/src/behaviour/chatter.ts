/**
 * When a cut begins to chatter: the average tooth over the engaged arc, two equal directions, zero order (textbook stability of milling).
 * Stiffness N/mm, frequencies Hz, depths mm, forces N/mm², angles radians.
 */
import { maths } from '@tidypath/core';

/** Something that swings: the machine at its spindle, or a tool in its holder. */
export interface Mode {
  /** N/mm. */
  stiffness: number;
  /** Hz. */
  frequency: number;
  /** Share of critical damping. */
  damping: number;
}

/** A cut as far as chatter asks for it. */
export interface Cutting {
  rpm: number;
  teeth: number;
  /** Engaged angle, 0 to π; climbing. */
  engagement: number;
  /** Specific force at the mean chip, N/mm². */
  force: number;
}

/** How deep it may go before it chatters, and at what frequency it then does. */
export interface DepthLimit {
  /** mm; Infinity where nothing of the mode is met. */
  depth: number;
  /** Hz. */
  frequency: number;
}

/** Radial force as a share of the tangential one. General handbook figure. */
const RADIAL = 0.3;
/** Frequencies looked at, as shares of the mode's own, and how many. */
const FROM = 0.4;
const TO = 2.6;
const STEPS = 1100;

/** Eigenvalues of the directional matrix over the engaged arc of a climbing cut, as real and imaginary parts. */
export function directionalRoots(engagement: number): { re: number; im: number }[] {
  const [from, to] = [Math.PI - engagement, Math.PI];
  const half = (at: (p: number) => number) => (at(to) - at(from)) / 2;
  const [c, s] = [(p: number) => maths.cos(2 * p), (p: number) => maths.sin(2 * p)];
  const xx = half((p) => c(p) - 2 * RADIAL * p + RADIAL * s(p));
  const xy = half((p) => -s(p) - 2 * p + RADIAL * c(p));
  const yx = half((p) => -s(p) + 2 * p + RADIAL * c(p));
  const yy = half((p) => -c(p) - 2 * RADIAL * p - RADIAL * s(p));
  const [middle, product] = [(xx + yy) / 2, xx * yy - xy * yx];
  const spread = middle * middle - product;
  const root = Math.sqrt(Math.abs(spread));
  return [1, -1].map((sign) => (spread >= 0 ? { re: middle + sign * root, im: 0 } : { re: middle, im: sign * root }));
}

/** A point of the limit of a mode: at a share of its frequency, the depth times z·Kt/k, and what the phase takes of a lobe's number. */
interface LimitPoint {
  ratio: number;
  depth: number;
  phase: number;
}

/** The limit of a mode along its frequencies, a row for each eigenvalue; without points where it never chatters. */
function limitRows(damping: number, engagement: number): LimitPoint[][] {
  return directionalRoots(engagement).map(({ re, im }) => {
    const row: LimitPoint[] = [];
    for (let i = 0; i <= STEPS; i++) {
      const ratio = FROM + ((TO - FROM) * i) / STEPS;
      // Λ = −1/(λ·G), with 1/G = 1 − r² + 2iζr for a stiffness of 1.
      const [a, b] = [1 - ratio * ratio, 2 * damping * ratio];
      const square = re * re + im * im;
      const real = -(a * re + b * im) / square;
      const imaginary = -(b * re - a * im) / square;
      const kappa = imaginary / real;
      const depth = -2 * Math.PI * real * (1 + kappa * kappa);
      row.push({ ratio, depth, phase: (Math.PI - 2 * maths.atan(kappa)) / (2 * Math.PI) });
    }
    return row;
  });
}

const rows = new Map<string, LimitPoint[][]>();
/** Rows that are kept at most. */
const MOST_ROWS = 2000;

function rowsFor(damping: number, engagement: number): LimitPoint[][] {
  const key = `${damping.toPrecision(4)} ${engagement.toPrecision(4)}`;
  const known = rows.get(key);
  if (known) return known;
  if (rows.size >= MOST_ROWS) rows.clear();
  const made = limitRows(Number(damping.toPrecision(4)), Number(engagement.toPrecision(4)));
  rows.set(key, made);
  return made;
}

/** The least depth at a speed, in the units of {@link LimitPoint}, and its share of the frequency. @param turns tooth passes a swing */
function leastAt(all: LimitPoint[][], turns: number): { depth: number; ratio: number } {
  let least = { depth: Infinity, ratio: 1 };
  const take = (p: LimitPoint, q: LimitPoint, t: number) => {
    const depth = p.depth + (q.depth - p.depth) * t;
    if (depth < least.depth) least = { depth, ratio: p.ratio + (q.ratio - p.ratio) * t };
  };
  for (const row of all)
    for (let i = 1; i < row.length; i++) {
      const [p, q] = [row[i - 1], row[i]];
      if (!(p.depth > 0) || !(q.depth > 0)) continue;
      const [from, to] = [p.ratio * turns - p.phase, q.ratio * turns - q.phase];
      const whole = Math.ceil(Math.min(from, to));
      if (whole < 0 || whole > Math.max(from, to)) continue;
      take(p, q, to === from ? 0 : (whole - from) / (to - from));
    }
  return least;
}

/** How deep a cut may go on a mode before it chatters. Nothing of a flank's rubbing; see {@link depthLimit}. */
export function undampedLimit({ stiffness, frequency, damping }: Mode, cut: Cutting): DepthLimit {
  const { rpm, teeth, engagement, force } = cut;
  if (!(rpm > 0) || !(engagement > 0)) return { depth: Infinity, frequency };
  const found = leastAt(rowsFor(damping, engagement), (frequency * 60) / (rpm * teeth));
  return { depth: (found.depth * stiffness) / (force * teeth), frequency: found.ratio * frequency };
}

/** The least depth over all speeds, mm. */
export function worstDepth({ stiffness, damping }: Mode, { teeth, engagement, force }: Omit<Cutting, 'rpm'>): number {
  const depths = rowsFor(damping, engagement).flatMap((row) => row.flatMap((p) => (p.depth > 0 ? [p.depth] : [])));
  return (Math.min(...depths) * stiffness) / (force * teeth);
}

/** How the flank's rubbing damps, N/mm for each mm of depth, in steel and in soft metals; as measured by those who tried it. */
export const RUBBING = { hard: 200, soft: 90 };

/** Steps in which depth and damping are brought together. */
const ROUNDS = 4;

/**
 * How deep a cut may go before it chatters, its flank's rubbing counted: ζ' = ζ + C·b·2π·fn/(2·k·v), brought together with the depth in
 * half steps.
 * @param speed at the edge, m/min
 * @param rubbing N/mm for each mm of depth
 */
export function depthLimit(mode: Mode, cut: Cutting, speed: number, rubbing: number = RUBBING.hard): DepthLimit {
  let limit = undampedLimit(mode, cut);
  const by = (rubbing * 2 * Math.PI * mode.frequency) / (2 * mode.stiffness * ((speed * 1000) / 60));
  for (let i = 0; i < ROUNDS && Number.isFinite(limit.depth); i++) {
    const next = undampedLimit({ ...mode, damping: mode.damping + by * limit.depth }, cut);
    if (!Number.isFinite(next.depth)) return next;
    limit = { depth: (limit.depth + next.depth) / 2, frequency: next.frequency };
  }
  return limit;
}

/** Speeds at which a chatter of that frequency is out of step, the fastest first: n = 60·f/(z·j), rpm. */
export const quietSpeeds = (frequency: number, teeth: number, count = 3): number[] =>
  Array.from({ length: count }, (_, j) => (60 * frequency) / (teeth * (j + 1)));
