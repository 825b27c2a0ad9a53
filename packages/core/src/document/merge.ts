/** Two people changed one job: what each did where the other did nothing is taken together. */
import { hashOf } from '../quantity/hash';
import { freshId } from '../quantity/ids';
import type { Job } from './job';

type Plain = Record<string, unknown>;
type Item = Plain & { id: string };

/** Whose is taken where both touched the same. */
export type Side = 'mine' | 'theirs';

/** Lists whose members are each one thing, told apart by their ids. Whatever else a job or a setup holds is one thing by its name. */
const LISTS = ['tools', 'features', 'setups', 'operations', 'fixtures', 'comparisons', 'candidates'];

const same = (a: unknown, b: unknown) => hashOf(a ?? null) === hashOf(b ?? null);
const idsOf = (items: Item[]) => items.map((i) => i.id);

class Merge {
  constructor(private readonly prefer: Side) {}

  private one<T>(mine: T, theirs: T): T {
    return this.prefer === 'mine' ? mine : theirs;
  }

  private value(key: string, base: unknown, mine: unknown, theirs: unknown): unknown {
    if (same(mine, theirs) || same(base, theirs)) return mine;
    if (same(base, mine)) return theirs;
    const all = [base, mine, theirs];
    if (LISTS.includes(key) && all.every(Array.isArray)) return this.list(key, ...(all as [Item[], Item[], Item[]]));
    if (key === 'part') return this.fields(...(all as [Plain, Plain, Plain]));
    return this.one(mine, theirs);
  }

  fields(base: Plain, mine: Plain, theirs: Plain): Plain {
    const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])];
    const values = keys.map((key) => [key, this.value(key, base[key], mine[key], theirs[key])] as const);
    return Object.fromEntries(values.filter(([, value]) => value !== undefined));
  }

  private list(key: string, base: Item[], mine: Item[], theirs: Item[]): Item[] {
    const [b, m, t] = [base, mine, theirs].map((items) => new Map(items.map((i) => [i.id, i])));
    return this.order(idsOf(base), idsOf(mine), idsOf(theirs)).flatMap(
      (id) => this.member(key, b.get(id), m.get(id), t.get(id)) ?? [],
    );
  }

  /** In the order of whoever moved them; what only the other has stands behind what it stood behind there. */
  private order(base: string[], mine: string[], theirs: string[]): string[] {
    const stayed = (ids: string[]) => ids.filter((id) => [base, mine, theirs].every((all) => all.includes(id))).join();
    const [mineMoved, theirsMoved] = [mine, theirs].map((ids) => stayed(ids) !== stayed(base));
    const mineLeads = mineMoved && (!theirsMoved || this.prefer === 'mine');
    const [leads, follows] = mineLeads ? [mine, theirs] : [theirs, mine];
    const all = [...leads];
    follows.forEach((id, i) => {
      if (!all.includes(id)) all.splice(i === 0 ? 0 : all.indexOf(follows[i - 1]) + 1, 0, id);
    });
    return all;
  }

  private member(key: string, base?: Item, mine?: Item, theirs?: Item): Item | undefined {
    if (mine && theirs) {
      const isSetup = key === 'setups' && base;
      return (isSetup ? this.fields(base, mine, theirs) : this.value('', base, mine, theirs)) as Item;
    }
    const left = mine ?? theirs;
    if (!base) return left;
    // One took it out: it stays only where the other changed it, and is asked for.
    return left && same(base, left) ? undefined : this.one(mine, theirs);
  }
}

/** Operations of mine that are new get other ids than the new ones of theirs. */
function apart(base: Job, mine: Job, theirs: Job): Job {
  const ids = (job: Job) => job.setups.flatMap((s) => idsOf(s.operations as never));
  const [known, taken] = [ids(base), ids(theirs)];
  const all = [...known, ...taken, ...ids(mine)];
  const setups = mine.setups.map((setup) => ({
    ...setup,
    operations: setup.operations.map((o) => {
      if (known.includes(o.id) || !taken.includes(o.id)) return o;
      const id = freshId('o', all);
      all.push(id);
      return { ...o, id };
    }),
  }));
  return { ...mine, setups };
}

/**
 * What two people made of one job. Where both touched the same thing (an operation, a tool, a feature, a fixture, a setting) one side is
 * taken whole: whoever asks for both sides and finds them equal has nothing to ask anybody.
 * @param base what both started from
 * @param prefer whose is taken where both touched the same
 */
export function mergeJobs(base: Job, mine: Job, theirs: Job, prefer: Side): Job {
  const own = apart(base, mine, theirs);
  return new Merge(prefer).fields(base as never, own as never, theirs as never) as unknown as Job;
}
