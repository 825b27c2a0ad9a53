import { Facts, KeptEntry, LogEntry, LogRow, ReleaseBody, factsOfRun, standing } from '@tidypath/core';
import type { Db } from '../db/open';
import { By, setupOf } from '../releases/store';

interface Stored {
  id: string;
  release_id: string;
  kind: KeptEntry['kind'];
  parts: number;
  scrapped: number;
  cause: KeptEntry['cause'] | null;
  seconds: number | null;
  remark: string;
  seen: string;
  photos: string | null;
  replaces: string | null;
  at: string;
  who: string;
}

/** With what it is about. */
interface StoredWhole extends Stored {
  dwell: number;
  moves: number;
  changes: number;
  computed: string;
  job_id: string;
  job_name: string;
  setup_name: string;
  number: number;
  machine_id: string;
  machine: string;
  whole: number;
}

const OWN = `e.id, e.release_id, e.kind, e.parts, e.scrapped, e.cause, e.seconds, e.remark, e.seen, e.replaces, e.at, e.who,
  (SELECT group_concat(sha256) FROM log_photos WHERE entry_id = e.id) AS photos`;
const WHOLE = `SELECT ${OWN}, e.dwell, e.moves, e.changes, e.computed, e.machine_id,
    r.job_id, r.job_name, r.setup_name, r.number, r.machine, r.seconds AS whole
  FROM log_entries AS e JOIN releases AS r ON r.id = e.release_id`;

const entryOf = (r: Stored): KeptEntry => ({
  ...{ id: r.id, releaseId: r.release_id, kind: r.kind, parts: r.parts, scrapped: r.scrapped, remark: r.remark },
  ...{ at: r.at, who: r.who, seen: JSON.parse(r.seen) as KeptEntry['seen'] },
  ...(r.cause !== null && { cause: r.cause }),
  ...(r.seconds !== null && { seconds: r.seconds }),
  ...(r.photos !== null && { photos: r.photos.split(',') }),
  ...(r.replaces !== null && { replaces: r.replaces }),
});

const rowOf = (r: StoredWhole): LogRow => ({
  ...entryOf(r),
  ...{ jobId: r.job_id, jobName: r.job_name, setupName: r.setup_name, number: r.number },
  ...{ machineId: r.machine_id, machine: r.machine, computed: r.whole },
  facts: { ...{ dwell: r.dwell, moves: r.moves, changes: r.changes }, ...(JSON.parse(r.computed) as Facts) },
});

/** Keeps what is logged. */
export class LogStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /** Adds an entry; one that is there already is left as it is. */
  add(
    releaseId: string,
    body: Pick<ReleaseBody, 'job' | 'setupId' | 'proof'>,
    entry: Omit<LogEntry, 'kind'> & Pick<KeptEntry, 'kind'>,
    { device, who, person }: By,
    runId?: string,
  ): void {
    const { job, proof } = body;
    const { dwell, moves, changes, ...computed } = factsOfRun({ job, setup: setupOf(body), ...proof });
    const add = this.db.prepare(
      `INSERT OR IGNORE INTO log_entries
         (id, release_id, run_id, machine_id, kind, parts, scrapped, cause, seconds, dwell, moves, changes, computed, seen, remark, replaces, at, device, person, who)
         VALUES (@id, @releaseId, @runId, @machine, @kind, @parts, @scrapped, @cause, @seconds, @dwell, @moves, @changes, @computed, @seen, @remark, @replaces, @at, @device, @person, @who)`,
    );
    const addPhoto = this.db.prepare('INSERT OR IGNORE INTO log_photos (entry_id, sha256) VALUES (?, ?)');
    this.db.transaction(() => {
      add.run({
        ...entry,
        ...{ dwell, moves, changes, computed: JSON.stringify(computed), seen: JSON.stringify(entry.seen ?? []) },
        ...{ cause: entry.cause ?? null, seconds: entry.seconds ?? null, replaces: entry.replaces ?? null },
        ...{ releaseId, runId: runId ?? null, machine: job.machine.id, at: this.now().toISOString() },
        ...{ device, who, person: person?.id ?? null },
      });
      for (const sha256 of entry.photos ?? []) addPhoto.run(entry.id, sha256);
    })();
  }

  /** Whether an entry of a release is there to be corrected. */
  has = (releaseId: string, id: string): boolean =>
    this.db.prepare('SELECT 1 FROM log_entries WHERE release_id = ? AND id = ?').get(releaseId, id) !== undefined;

  /** Whether a file is a photo of some entry. */
  hasPhoto = (sha256: string): boolean =>
    this.db.prepare('SELECT 1 FROM log_photos WHERE sha256 = ? LIMIT 1').get(sha256) !== undefined;

  /** Of a release, the oldest first. */
  ofRelease = (releaseId: string): KeptEntry[] =>
    this.db
      .prepare<[string], Stored>(`SELECT ${OWN} FROM log_entries AS e WHERE e.release_id = ? ORDER BY e.rowid`)
      .all(releaseId)
      .map(entryOf);

  /** All that stand, the oldest first. */
  all = (): LogRow[] => standing(this.db.prepare<[], StoredWhole>(`${WHOLE} ORDER BY e.rowid`).all().map(rowOf));

  /** Those of a machine. */
  ofMachine = (machineId: string): LogRow[] =>
    standing(
      this.db
        .prepare<[string], StoredWhole>(`${WHOLE} WHERE e.machine_id = ? ORDER BY e.rowid`)
        .all(machineId)
        .map(rowOf),
    );
}
