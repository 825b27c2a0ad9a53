import {
  ENOUGH_RUNS,
  KeptEntry,
  LogEntry,
  Machine,
  MachineTime,
  ReleaseBody,
  TimedRun,
  computedTime,
  fitTime,
  standing,
} from '@tidypath/core';
import type { Db } from '../db/open';
import type { By } from '../releases/store';
import type { ShopStore } from '../shop/store';

interface Stored {
  id: string;
  release_id: string;
  kind: KeptEntry['kind'];
  parts: number;
  scrapped: number;
  seconds: number | null;
  dwell: number;
  moves: number;
  changes: number;
  remark: string;
  replaces: string | null;
  at: string;
  who: string;
}

const ROW =
  'SELECT id, release_id, kind, parts, scrapped, seconds, dwell, moves, changes, remark, replaces, at, who FROM log_entries';

const entryOf = (r: Stored): KeptEntry => ({
  ...{ id: r.id, releaseId: r.release_id, kind: r.kind, parts: r.parts, scrapped: r.scrapped, remark: r.remark },
  ...{ at: r.at, who: r.who },
  ...(r.seconds !== null && { seconds: r.seconds }),
  ...(r.replaces !== null && { replaces: r.replaces }),
});

type Values = MachineTime['now'];
interface Learnt {
  n: number;
  before: string;
  after: string;
  runs: number;
  undoes: number | null;
  at: string;
  who: string;
}

/** Older runs say little of the machine as it is. */
const MOST_RUNS = 200;
/** Figures as they are shown and kept. */
const rounded = ({ extraTime, toolChangeSeconds }: Values): Values => ({
  extraTime: Math.round(extraTime * 1000) / 1000,
  toolChangeSeconds: Math.round(toolChangeSeconds * 10) / 10,
});
const valuesOf = ({ extraTime = 0, toolChangeSeconds }: Machine): Values => ({ extraTime, toolChangeSeconds });

/** Keeps what is logged, and what was learnt from it. */
export class LogStore {
  constructor(
    private readonly db: Db,
    private readonly shop: ShopStore,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /** Adds an entry; one that is there already is left as it is. */
  add(
    releaseId: string,
    { job, proof }: Pick<ReleaseBody, 'job' | 'proof'>,
    entry: Omit<LogEntry, 'kind'> & Pick<KeptEntry, 'kind'>,
    { device, who, person }: By,
    runId?: string,
  ): void {
    this.db
      .prepare(
        `INSERT OR IGNORE INTO log_entries
         (id, release_id, run_id, machine_id, kind, parts, scrapped, seconds, dwell, moves, changes, remark, replaces, at, device, person, who)
         VALUES (@id, @releaseId, @runId, @machine, @kind, @parts, @scrapped, @seconds, @dwell, @moves, @changes, @remark, @replaces, @at, @device, @person, @who)`,
      )
      .run({
        ...entry,
        ...computedTime(job.machine, proof.clock),
        ...{ seconds: entry.seconds ?? null, replaces: entry.replaces ?? null, runId: runId ?? null },
        ...{
          releaseId,
          machine: job.machine.id,
          at: this.now().toISOString(),
          device,
          who,
          person: person?.id ?? null,
        },
      });
  }

  /** Whether an entry of a release is there to be corrected. */
  has = (releaseId: string, id: string): boolean =>
    this.db.prepare('SELECT 1 FROM log_entries WHERE release_id = ? AND id = ?').get(releaseId, id) !== undefined;

  /** Of a release, the oldest first. */
  ofRelease = (releaseId: string): KeptEntry[] =>
    this.db.prepare<[string], Stored>(`${ROW} WHERE release_id = ? ORDER BY rowid`).all(releaseId).map(entryOf);

  /** Timed runs of a machine: of the real one where there are enough, else of the simulated one. */
  private timed(machineId: string): { runs: TimedRun[]; simulated: boolean } {
    const rows = this.db
      .prepare<[string], Stored>(`${ROW} WHERE machine_id = ? ORDER BY rowid DESC LIMIT ${MOST_RUNS}`)
      .all(machineId);
    const all = standing(rows.map((r) => ({ ...r, replaces: r.replaces ?? undefined })));
    const of = (simulated: boolean) =>
      all.flatMap(({ kind, seconds, dwell, moves, changes }) =>
        seconds !== null && (kind === 'simulated') === simulated ? [{ seconds, dwell, moves, changes }] : [],
      );
    const real = of(false);
    return real.length >= ENOUGH_RUNS ? { runs: real, simulated: false } : { runs: of(true), simulated: true };
  }

  private machine(machineId: string): { version: number; item: Machine } | undefined {
    return this.shop.list('machines').find(({ item }) => item.id === machineId);
  }

  /** Whether the shop has such a machine. */
  knows = (machineId: string): boolean => this.machine(machineId) !== undefined;

  private lastLearnt(machineId: string): Learnt | undefined {
    const rows = this.db
      .prepare<[string], Learnt>('SELECT * FROM learnt WHERE machine_id = ? ORDER BY n')
      .all(machineId);
    const undone = new Set(rows.map((r) => r.undoes));
    return rows.filter((r) => r.undoes === null && !undone.has(r.n)).at(-1);
  }

  /** What the log says of a machine's time; undefined where the shop has no such machine. */
  time(machineId: string): MachineTime | undefined {
    const machine = this.machine(machineId);
    if (!machine) return undefined;
    const { runs, simulated } = this.timed(machineId);
    const last = this.lastLearnt(machineId);
    // What is said of the change is what was said before anything was learnt.
    const said = last ? (JSON.parse(last.before) as Values) : valuesOf(machine.item);
    const fit = fitTime(runs, said.toolChangeSeconds);
    return {
      ...(runs.length >= ENOUGH_RUNS && { proposed: rounded(fit) }),
      ...{ runs: runs.length, outliers: fit.outliers.length, simulated, now: valuesOf(machine.item) },
      ...(last && {
        taken: { at: last.at, who: last.who, runs: last.runs, before: JSON.parse(last.before) as Values },
      }),
    };
  }

  /** Writes values into the machine of the shop, and the row that says so. */
  private write(machineId: string, after: Values, runs: number, who: string, undoes?: number): boolean {
    return this.db.transaction(() => {
      const machine = this.machine(machineId);
      if (!machine || !this.shop.save('machines', machine.version, { ...machine.item, ...after }).saved) return false;
      this.db
        .prepare('INSERT INTO learnt (machine_id, before, after, runs, undoes, at, who) VALUES (?, ?, ?, ?, ?, ?, ?)')
        .run(
          machineId,
          JSON.stringify(valuesOf(machine.item)),
          JSON.stringify(after),
          runs,
          undoes ?? null,
          this.now().toISOString(),
          who,
        );
      return true;
    })();
  }

  /** Takes over what the log proposes; false where it proposes nothing. */
  take(machineId: string, who: string): boolean {
    const { proposed, runs = 0 } = this.time(machineId) ?? {};
    return !!proposed && this.write(machineId, proposed, runs, who);
  }

  /** Takes back what was taken over last; false where nothing was. */
  undo(machineId: string, who: string): boolean {
    const last = this.lastLearnt(machineId);
    return !!last && this.write(machineId, JSON.parse(last.before) as Values, last.runs, who, last.n);
  }
}
