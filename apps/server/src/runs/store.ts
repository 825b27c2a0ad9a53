import { randomUUID } from 'node:crypto';
import { MachineView, Memory, StreamRow, streamCsv } from '@tidypath/controller';
import type { RunEvent, RunRow } from '@tidypath/core';
import type { Db } from '../db/open';
import type { By } from '../releases/store';
import type { Shown } from './operator';

interface Stored {
  id: string;
  release_id: string;
  job_id: string;
  setup_id: string;
  root: string;
  machine: string;
  kind: RunRow['kind'];
  seed: number;
  at: string;
  who: string;
  state: string | null;
}

const ROW = `SELECT id, release_id, job_id, setup_id, root, machine, kind, seed, runs.at, who, json_extract(view, '$.state') AS state
  FROM runs LEFT JOIN run_memories ON run_id = id`;

const rowOf = (r: Stored): RunRow => ({
  ...{ id: r.id, releaseId: r.release_id, jobId: r.job_id, setupId: r.setup_id, root: r.root },
  ...{ machine: r.machine, kind: r.kind, seed: r.seed, at: r.at, who: r.who, state: r.state ?? 'ready' },
});

/** What a run is begun with. */
export type NewRun = Pick<RunRow, 'releaseId' | 'jobId' | 'setupId' | 'root' | 'machine' | 'kind' | 'seed'>;

/** Rows of a stream that are kept together. */
const TOGETHER = 300;

/** Keeps runs: rows that stay, what happened in them, and what their control remembers. */
export class RunStore {
  /** Measured, not kept yet: it is written with the next thing that happens. */
  private readonly unkept = new Map<string, StreamRow[]>();

  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {}

  begin(run: NewRun, { device, who, person }: By): string {
    const id = randomUUID();
    this.db
      .prepare(
        `INSERT INTO runs (id, release_id, job_id, setup_id, root, machine, kind, seed, at, device, person, who)
         VALUES (@id, @releaseId, @jobId, @setupId, @root, @machine, @kind, @seed, @at, @device, @person, @who)`,
      )
      .run({ id, ...run, at: this.now().toISOString(), device, who, person: person?.id ?? null });
    return id;
  }

  row(id: string): RunRow | undefined {
    const row = this.db.prepare<[string], Stored>(`${ROW} WHERE id = ?`).get(id);
    return row && rowOf(row);
  }

  /** Of a setup, the newest first. */
  ofSetup(jobId: string, setupId: string): RunRow[] {
    const rows = this.db.prepare<[string, string], Stored>(
      `${ROW} WHERE job_id = ? AND setup_id = ? ORDER BY runs.at DESC, runs.rowid DESC LIMIT 200`,
    );
    return rows.all(jobId, setupId).map(rowOf);
  }

  /** What its control remembers and showed last; undefined where it was never switched on. */
  memory(id: string): { memory: Memory; view: MachineView } | undefined {
    const row = this.db
      .prepare<[string], { memory: string; view: string }>('SELECT memory, view FROM run_memories WHERE run_id = ?')
      .get(id);
    return row && { memory: JSON.parse(row.memory) as Memory, view: JSON.parse(row.view) as MachineView };
  }

  /** Keeps what a machine shows, before anybody is told: what was shown is never lost. */
  show(id: string, { memory, view, events, rows }: Shown): void {
    const measured = [...(this.unkept.get(id) ?? []), ...rows];
    const isFull = measured.length >= TOGETHER || events.length > 0;
    this.unkept.set(id, isFull ? [] : measured);
    const at = this.now().toISOString();
    this.db.transaction(() => {
      this.db
        .prepare(
          `INSERT INTO run_memories (run_id, memory, view, at) VALUES (?, ?, ?, ?)
           ON CONFLICT (run_id) DO UPDATE SET memory = excluded.memory, view = excluded.view, at = excluded.at`,
        )
        .run(id, JSON.stringify(memory), JSON.stringify(view), at);
      for (const e of events) this.note(id, { seconds: e.at, line: e.line, what: e.what, words: e.text });
      if (isFull && measured.length > 0)
        this.db.prepare('INSERT INTO run_streams (run_id, rows) VALUES (?, ?)').run(id, JSON.stringify(measured));
    })();
  }

  /** Adds something that happened. */
  note(id: string, { seconds, line, what, words }: Omit<RunEvent, 'at'>): void {
    this.db
      .prepare('INSERT INTO run_events (run_id, seconds, line, what, words, at) VALUES (?, ?, ?, ?, ?, ?)')
      .run(id, seconds, line, what, words, this.now().toISOString());
  }

  events(id: string): RunEvent[] {
    return this.db
      .prepare<[string], RunEvent>('SELECT seconds, line, what, words, at FROM run_events WHERE run_id = ? ORDER BY n')
      .all(id);
  }

  /** Everything that was measured, as CSV. */
  stream(id: string): string {
    const kept = this.db.prepare<[string], string>('SELECT rows FROM run_streams WHERE run_id = ? ORDER BY n').pluck();
    const all = kept.all(id).flatMap((rows) => JSON.parse(rows) as StreamRow[]);
    return streamCsv([...all, ...(this.unkept.get(id) ?? [])]);
  }
}
