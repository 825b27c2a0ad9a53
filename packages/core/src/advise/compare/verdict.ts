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
  /** Energy a part, in money; and of that what the cuts themselves take. */
  energy: number;
  cutting: number;
  /** Spikes of load a part. */
  spikes: number;
  /** Spent once, in money. */
  oneOff: number;
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

/** What a part costs with its share of what is spent once; without it for batches beyond counting. */
export const costInBatch = (priced: Priced, rate: number, batch: number): number =>
  costAt(priced, rate) + priced.oneOff / batch;

/** What would make another way the cheaper one. */
export type Flip =
  /** Edges that last so many times as long as is reckoned with. */
  | { what: 'edge life'; at: number; other: string }
  /** So much an hour of the machine. */
  | { what: 'machine rate'; at: number; other: string }
  /** Metal that takes so many times the force that is reckoned with, at the same speeds. */
  | { what: 'cutting force'; at: number; other: string }
  /** So many parts in all. */
  | { what: 'batch'; at: number; other: string };

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

/** Where another way costs as much as the cheapest: in the life of edges, the rate of the machine, the force of the cut, and in how many are made. */
function flipsBetween(best: Priced, other: Priced, rate: number, batch: number): Flip[] {
  const once = (p: Priced) => p.oneOff / batch;
  const fixed = (p: Priced) => (p.minutes * rate) / 60 + p.energy + once(p);
  const edges = (p: Priced) => p.edgePrice + (p.edgeMinutes * rate) / 60;
  const life = (edges(other) - edges(best)) / (fixed(best) - fixed(other));
  const perHour = (p: Priced) => (p.minutes + p.edgeMinutes) / 60;
  const rest = (p: Priced) => p.edgePrice + p.energy + once(p);
  const hour = (rest(other) - rest(best)) / (perHour(best) - perHour(other));
  const force = 1 + (costInBatch(other, rate, batch) - costInBatch(best, rate, batch)) / (best.cutting - other.cutting);
  const many = (other.oneOff - best.oneOff) / (costAt(best, rate) - costAt(other, rate));
  return [
    ...(many >= 1 && Number.isFinite(many) ? [{ what: 'batch' as const, at: many, other: other.id }] : []),
    ...(life > 0 && Number.isFinite(life) ? [{ what: 'edge life' as const, at: life, other: other.id }] : []),
    ...(hour > 0 && Number.isFinite(hour) ? [{ what: 'machine rate' as const, at: hour, other: other.id }] : []),
    ...(force > 0 && Number.isFinite(force) ? [{ what: 'cutting force' as const, at: force, other: other.id }] : []),
  ];
}

const leastBy = (all: Priced[], of: (p: Priced) => number): Priced =>
  all.reduce((best, p) => (of(p) < of(best) ? p : best));

/**
 * Judges by what a part costs, with times and lives drawn as far off as they may be.
 * @param all at least one
 * @param rate of the machine, an hour
 * @param batch parts that share what is spent once
 */
export function verdictOf(all: Priced[], rate: number, batch = 1): Verdict {
  const random = normalFrom(randomFrom(SEED));
  const counts = new Map(all.map((p) => [p.id, 0]));
  for (let k = 0; k < DRAWS; k++) {
    const drawn = all.map((p) => {
      const life = maths.pow(Math.E, LIFE * random());
      return { id: p.id, cost: costAt(p, rate, life, Math.max(0.5, 1 + TIME * random())) + p.oneOff / batch };
    });
    const { id } = drawn.reduce((best, d) => (d.cost < best.cost ? d : best));
    counts.set(id, counts.get(id)! + 1);
  }
  const shares = Object.fromEntries([...counts].map(([id, n]) => [id, n / DRAWS]));
  const cost = (p: Priced) => costInBatch(p, rate, batch);
  const byCost = [...all].sort((a, b) => cost(a) - cost(b));
  const [best, next] = byCost;
  const share = shares[best.id];
  const distance = ({ what, at }: Flip) =>
    Math.abs(maths.log(at / { 'edge life': 1, 'cutting force': 1, 'machine rate': rate, batch }[what]));
  return {
    cheapest: best.id,
    share,
    sure: all.length < 2 || share >= WINS ? 'wins' : share >= LIKELY ? 'likely' : 'a draw',
    ...(next && { next: next.id, dearer: cost(next) / cost(best) - 1 }),
    shares,
    quickest: leastBy(all, (p) => p.minutes).id,
    kindest: leastBy(all, (p) => p.spikes).id,
    flips: byCost
      .slice(1)
      .flatMap((p) => flipsBetween(best, p, rate, batch))
      .sort((a, b) => distance(a) - distance(b)),
  };
}
