import {
  Lesson,
  LogRow,
  Machine,
  Teaching,
  Tool,
  placeOf,
  teachingId,
  timeTeaching,
  toolTeachings,
} from '@tidypath/core';
import type { Db } from '../db/open';
import type { ShopStore } from '../shop/store';
import type { LogStore } from './store';

/** Something that was taken over, or back. */
interface Learnt {
  n: number;
  before: string;
  evidence: string;
  at: string;
  who: string;
}

type Item = Machine | Tool;
type Of = Pick<Teaching, 'what' | 'item' | 'of'>;
const NOTHING = 'null';
const kept = (value: unknown) => JSON.stringify(value ?? null);
const valueOf = (text: string): unknown => (text === NOTHING ? undefined : JSON.parse(text));

/** What the log teaches, and what was learnt of it: taking over and taking back are rows, which are only added. */
export class School {
  constructor(
    private readonly db: Db,
    private readonly shop: ShopStore,
    private readonly log: LogStore,
    private readonly now: () => Date = () => new Date(),
  ) {}

  private found({ what, item }: Of): { version: number; item: Item } | undefined {
    return this.shop.list(placeOf(what).shelf).find((k) => k.item.id === item);
  }

  /** What was taken over and not taken back, the oldest first. */
  private learnt({ what, item, of }: Of): Learnt[] {
    return this.db
      .prepare<[string, string, string], Learnt>(
        `SELECT n, before, evidence, at, who FROM learnt AS l WHERE what = ? AND item = ? AND of = ? AND undoes IS NULL
         AND NOT EXISTS (SELECT 1 FROM learnt WHERE undoes = l.n) ORDER BY n`,
      )
      .all(what, item, of);
  }
  private last = (of: Of): Learnt | undefined => this.learnt(of).at(-1);

  /** Seconds of a tool change as they were said before anything was learnt. */
  private said(machine: Machine): number {
    const [first] = this.learnt({ what: 'time', item: machine.id, of: '' });
    const before = first && (valueOf(first.before) as { toolChangeSeconds: number });
    return (before ?? machine).toolChangeSeconds;
  }

  private timesOf(rows: readonly LogRow[], machines: Machine[]): Teaching[] {
    return machines.map((machine) => timeTeaching(rows, machine, this.said(machine)));
  }

  private teachings(): Teaching[] {
    const rows = this.log.all();
    const ran = new Set(rows.map((r) => r.machineId));
    const machines = this.shop.list('machines').flatMap(({ item }) => (ran.has(item.id) ? [item] : []));
    return this.withForgotten([...this.timesOf(rows, machines), ...toolTeachings(rows)]);
  }

  /** With what was taken over and is taught no more, as its entries were put right since: it can still be taken back. */
  private withForgotten(taught: Teaching[]): Teaching[] {
    const known = new Set(taught.map(teachingId));
    const taken = this.db
      .prepare<[], Of>(
        `SELECT DISTINCT what, item, of FROM learnt AS l
         WHERE undoes IS NULL AND NOT EXISTS (SELECT 1 FROM learnt WHERE undoes = l.n)`,
      )
      .all()
      .filter((of) => !known.has(teachingId(of)));
    const evidence = 'Nothing of it is in the log any more';
    return [...taught, ...taken.map((of) => ({ ...of, about: this.found(of)?.item.name ?? of.item, evidence }))];
  }

  /** Of one thing of the shop; a machine always has one. */
  private ofItem(item: string): Teaching[] {
    const machine = this.shop.list('machines').find((k) => k.item.id === item)?.item;
    if (machine) return this.timesOf(this.log.ofMachine(item), [machine]);
    return this.teachings().filter((t) => t.item === item);
  }

  private lesson(teaching: Teaching): Lesson | undefined {
    const { what, of, value, about, item, evidence, lasted } = teaching;
    const found = this.found(teaching);
    if (!found) return undefined;
    const place = placeOf(what);
    const now = place.read(found.item, of);
    const last = this.last(teaching);
    const isSo = value !== undefined && now !== undefined && place.isSame(value, now);
    return {
      ...{ id: teachingId(teaching), what, item, about, evidence, now: place.text(now), isSo },
      ...(lasted && { lasted }),
      ...(value !== undefined && !isSo && { proposed: place.text(value) }),
      ...(last && {
        taken: { at: last.at, who: last.who, evidence: last.evidence, before: place.text(valueOf(last.before)) },
      }),
    };
  }

  /** All that is taught. @param item of that alone */
  lessons(item?: string): Lesson[] {
    return (item === undefined ? this.teachings() : this.ofItem(item)).flatMap((t) => this.lesson(t) ?? []);
  }

  /** What an id is about. */
  private teaching = (id: string): Teaching | undefined => this.teachings().find((t) => teachingId(t) === id);

  /** Writes a value into the shop, and the row that says so. */
  private write(of: Of, after: unknown, evidence: string, who: string, undoes?: number): boolean {
    return this.db.transaction(() => {
      const found = this.found(of);
      const place = placeOf(of.what);
      if (!found) return false;
      const item = place.write(found.item, of.of, after);
      if (!this.shop.save(place.shelf, found.version, item).saved) return false;
      this.db
        .prepare(
          `INSERT INTO learnt (what, item, of, before, after, runs, evidence, undoes, at, who)
           VALUES (@what, @item, @of, @before, @after, 0, @evidence, @undoes, @at, @who)`,
        )
        .run({
          ...{ what: of.what, item: of.item, of: of.of, after: kept(after) },
          before: kept(place.read(found.item, of.of)),
          ...{ evidence, undoes: undoes ?? null, at: this.now().toISOString(), who },
        });
      return true;
    })();
  }

  /** Takes over what the log proposes; false where it proposes nothing. */
  take(id: string, who: string): boolean {
    const teaching = this.teaching(id);
    const lesson = teaching && this.lesson(teaching);
    return !!lesson?.proposed && this.write(teaching!, teaching!.value, teaching!.evidence, who);
  }

  /** Takes back what was taken over last; false where nothing was. */
  undo(id: string, who: string): boolean {
    const teaching = this.teaching(id);
    const last = teaching && this.last(teaching);
    return !!last && this.write(teaching!, valueOf(last.before), last.evidence, who, last.n);
  }
}
