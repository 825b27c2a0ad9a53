/** Which of some ways costs least, how sure that is, and what would change it. */
import { maths } from '../../quantity/maths';
import { normalFrom, randomFrom } from '../../quantity/random';

/** What a part costs one way, in the terms it is doubted by. */
export interface Priced {
  id: string;
  /** Minutes of the machine a part. */
  minutes: number;
  /** Share of edges a part uses, times what an edge costs; and times the minutes it takes to change one. */
  edgePrice: number;
  edgeMinutes: number;
  /** Energy a part, in money. */
  energy: number;
  /** Spikes of load a part. */
  spikes: number;
}

/** How far times and lives of edges are doubted: relative deviation of a time, deviation of the logarithm of a life. Estimates. */
const TIME = 0.05;
const LIFE = 0.3;
const DRAWS = 2000;
const SEED = 19;
/** Shares of the draws from which on it wins, or likely does. */
const WINS = 0.8;
const LIKELY = 0.6;

/**
 * What a part costs.
 * @param rate of the machine, an hour
 * @param life how much longer edges last than is reckoned with
 */
export const costAt = (
  { minutes, edgePrice, edgeMinutes, energy }: Priced,
  rate: number,
  life = 1,
  slower = 1,
): number => (slower * minutes * rate) / 60 + (edgePrice + (edgeMinutes * rate) / 60) / life + energy;

/** What would make another way the cheaper one. */
export type Flip =
  /** Edges that last so many times as long as is reckoned with. */
  | { what: 'edge life'; at: number; other: string }
  /** So much an hour of the machine. */
  | { what: 'machine rate'; at: number; other: string };

export interface Verdict {
  /** Cheapest a part. */
  cheapest: string;
  /** Share of the draws in which it is. */
  share: number;
  sure: 'wins' | 'likely' | 'a draw';
  /** The next in cost, and how much dearer it is, as a share; undefined where there is but one way. */
  next?: string;
  dearer?: number;
  /** In how many of the draws each is the cheapest. */
  shares: Record<string, number>;
  /** Takes least time. */
  quickest: string;
  /** Loads its tool most evenly: the fewest spikes. */
  kindest: string;
  /** Nearest first. */
  flips: Flip[];
}

/** Where another way costs as much as the cheapest: in the life of edges, and in the rate of the machine. */
function flipsBetween(best: Priced, other: Priced, rate: number): Flip[] {
  const fixed = (p: Priced) => (p.minutes * rate) / 60 + p.energy;
  const edges = (p: Priced) => p.edgePrice + (p.edgeMinutes * rate) / 60;
  const life = (edges(other) - edges(best)) / (fixed(best) - fixed(other));
  const perHour = (p: Priced) => (p.minutes + p.edgeMinutes) / 60;
  const rest = (p: Priced) => p.edgePrice + p.energy;
  const hour = (rest(other) - rest(best)) / (perHour(best) - perHour(other));
  return [
    ...(life > 0 && Number.isFinite(life) ? [{ what: 'edge life' as const, at: life, other: other.id }] : []),
    ...(hour > 0 && Number.isFinite(hour) ? [{ what: 'machine rate' as const, at: hour, other: other.id }] : []),
  ];
}

const leastBy = (all: Priced[], of: (p: Priced) => number): Priced =>
  all.reduce((best, p) => (of(p) < of(best) ? p : best));

/**
 * Judges by what a part costs, with times and lives drawn as far off as they may be.
 * @param all at least one
 * @param rate of the machine, an hour
 */
export function verdictOf(all: Priced[], rate: number): Verdict {
  const random = normalFrom(randomFrom(SEED));
  const counts = new Map(all.map((p) => [p.id, 0]));
  for (let k = 0; k < DRAWS; k++) {
    const drawn = all.map((p) => {
      const life = maths.pow(Math.E, LIFE * random());
      return { id: p.id, cost: costAt(p, rate, life, Math.max(0.5, 1 + TIME * random())) };
    });
    const { id } = drawn.reduce((best, d) => (d.cost < best.cost ? d : best));
    counts.set(id, counts.get(id)! + 1);
  }
  const shares = Object.fromEntries([...counts].map(([id, n]) => [id, n / DRAWS]));
  const byCost = [...all].sort((a, b) => costAt(a, rate) - costAt(b, rate));
  const [best, next] = byCost;
  const share = shares[best.id];
  const distance = ({ what, at }: Flip) => Math.abs(maths.log(what === 'edge life' ? at : at / rate));
  return {
    cheapest: best.id,
    share,
    sure: all.length < 2 || share >= WINS ? 'wins' : share >= LIKELY ? 'likely' : 'a draw',
    ...(next && { next: next.id, dearer: costAt(next, rate) / costAt(best, rate) - 1 }),
    shares,
    quickest: leastBy(all, (p) => p.minutes).id,
    kindest: leastBy(all, (p) => p.spikes).id,
    flips: byCost
      .slice(1)
      .flatMap((p) => flipsBetween(best, p, rate))
      .sort((a, b) => distance(a) - distance(b)),
  };
}
