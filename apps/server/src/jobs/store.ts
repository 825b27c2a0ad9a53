import { randomUUID } from 'node:crypto';
import {
  Finding,
  Job,
  JobQuestion,
  JobRow,
  JobSummary,
  JobVersion,
  SaveResult,
  Standing,
  filesOf,
} from '@tidypath/core';
import { handedOut, remember } from '../db/carry';
import type { Db } from '../db/open';
import type { Author } from '../guard/author';
import { FileStore } from '../db/files';
import { READ } from '../reading/read';
import { History } from './history';
import { choicesOf, columnsOf, listJobs } from './summary';

interface Stored {
  id: string;
  document: string;
  version: number;
  updated_at: string;
  deleted_at: string | null;
}

/** A stored job that cannot be read, and why. */
export interface UnreadJob {
  findings: Finding[];
}

/** A job that lies in the bin. */
export interface DeletedJob {
  deletedAt: string;
}

type Missing = DeletedJob | undefined;

const NOBODY: Author = { device: '', who: '' };
/** Days a deleted job stays in the bin. */
export const BIN_DAYS = 30;

const keptOf = (job: Job, document: string) => ({ document, files: filesOf(job).map((f) => f.sha256) });

/** Keeps jobs: every write in a transaction, every save with the version it started from, every state in the history. */
export class JobStore {
  private readonly history: History;
  private readonly files: FileStore;

  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.history = new History(db, now);
    this.files = new FileStore(db, now);
  }

  /** Reads what is stored; what an older format held of files stands beside it from now on. */
  private readonly asJob = (value: unknown) => {
    const { job, findings, files } = READ.job(value);
    files?.forEach((bytes) => this.files.put(bytes));
    return { value: job, findings };
  };

  list = (question: JobQuestion = {}): { jobs: JobSummary[]; total: number } => listJobs(this.db, question);
  choices = () => choicesOf(this.db);

  private row(id: string): Stored | undefined {
    return this.db
      .prepare<[string], Stored>('SELECT id, document, version, updated_at, deleted_at FROM jobs WHERE id = ?')
      .get(id);
  }

  /** A job; or why it cannot be read; or that it was deleted; undefined where there never was one. */
  get(id: string): JobRow | UnreadJob | Missing {
    const row = this.row(id);
    if (!row) return undefined;
    if (row.deleted_at) return { deletedAt: row.deleted_at };
    const read = handedOut<Job>(row.document, this.asJob);
    if ('findings' in read) return read;
    return { id: row.id, version: row.version, updatedAt: row.updated_at, job: read.value };
  }

  /** Its version now; 0 where there is none. */
  versionOf = (id: string): number => this.row(id)?.version ?? 0;

  /** What is stored, letter by letter. */
  document(id: string): string | undefined {
    return this.row(id)?.document;
  }

  private written(job: Job) {
    const columns = columnsOf(job);
    remember(columns.document);
    return columns;
  }

  create(job: Job, author = NOBODY, id: string = randomUUID()): JobRow {
    const at = this.now().toISOString();
    const columns = this.written(job);
    const names = Object.keys(columns);
    this.db.transaction(() => {
      this.db
        .prepare(
          `INSERT INTO jobs (id, version, created_at, updated_at, ${names.join(', ')})
           VALUES (@id, 1, @at, @at, ${names.map((n) => `@${n}`).join(', ')})`,
        )
        .run({ ...columns, id, at });
      this.history.note(id, 1, keptOf(job, columns.document), author);
    })();
    return { id, version: 1, updatedAt: at, job };
  }

  /**
   * Saves over `baseVersion`, 0 for a job that was made where this server did not answer; a save that started from an older one is kept in
   * the history and refused. Whoever sends the same again gets the same answer.
   */
  save(id: string, baseVersion: number, job: Job, author = NOBODY): SaveResult | UnreadJob | Missing {
    return this.db.transaction((): SaveResult | UnreadJob | Missing => {
      if (baseVersion === 0 && !this.row(id)) return { saved: true, version: this.create(job, author, id).version };
      const current = this.get(id);
      if (!current || !('job' in current)) return current;
      const columns = this.written(job);
      // The answer to a save that was taken did not arrive, and it is sent again.
      if (current.version === baseVersion + 1 && this.document(id) === columns.document)
        return { saved: true, version: current.version };
      if (current.version !== baseVersion)
        return {
          saved: false,
          current,
          keptId: this.history.refuse(id, baseVersion, keptOf(job, columns.document), author),
        };
      const version = baseVersion + 1;
      this.db
        .prepare(
          `UPDATE jobs SET version = @version, updated_at = @at, ${Object.keys(columns)
            .map((n) => `${n} = @${n}`)
            .join(', ')} WHERE id = @id`,
        )
        .run({ ...columns, id, version, at: this.now().toISOString() });
      this.history.note(id, version, keptOf(job, columns.document), author);
      return { saved: true, version };
    })();
  }

  /** A copy under a name of its own. */
  duplicate(id: string, author = NOBODY): JobRow | UnreadJob | Missing {
    const row = this.get(id);
    if (!row || !('job' in row)) return row;
    const copy = this.create({ ...row.job, name: `${row.job.name} copy`.slice(0, 120) }, author);
    if (this.needsApproval(id)) this.setNeedsApproval(copy.id, true);
    return copy;
  }

  /** Whether the programs of a job are handed out only once somebody has approved them. */
  needsApproval = (id: string): boolean =>
    this.db.prepare<[string], number>('SELECT needs_approval FROM jobs WHERE id = ?').pluck().get(id) === 1;

  /** False where there is no such job. */
  setNeedsApproval = (id: string, on: boolean): boolean =>
    this.db.prepare('UPDATE jobs SET needs_approval = ? WHERE id = ?').run(Number(on), id).changes > 0;

  /** Done again it is done still; false where there is no such job. */
  private mark(id: string, column: 'deleted_at' | 'archived_at', at: string | null): boolean {
    const sql = `UPDATE jobs SET ${column} = CASE WHEN @at IS NULL THEN NULL ELSE coalesce(${column}, @at) END WHERE id = @id`;
    return this.db.prepare(sql).run({ at, id }).changes > 0;
  }

  /** Puts a job in the bin; `restore` brings it back. */
  remove = (id: string): boolean => this.mark(id, 'deleted_at', this.now().toISOString());
  restore = (id: string): boolean => this.mark(id, 'deleted_at', null);

  /** Out of the list and back into it; nothing else changes. */
  archive = (id: string, away: boolean): boolean =>
    this.mark(id, 'archived_at', away ? this.now().toISOString() : null);

  /** Empties the bin of what has lain there for its days. */
  emptyBin(): number {
    const since = new Date(this.now().getTime() - BIN_DAYS * 24 * 3600_000).toISOString();
    return this.db.prepare('DELETE FROM jobs WHERE deleted_at < ?').run(since).changes;
  }

  /** What is known of one setup as the job stands; false where the job has gone on since. */
  stand(id: string, { version, setupId, stops, seconds }: Standing): boolean {
    return this.db.transaction(() => {
      const row = this.db
        .prepare<[string, number], { content: string; standing_content: string | null; standing: string }>(
          'SELECT content, standing_content, standing FROM jobs WHERE id = ? AND version = ? AND deleted_at IS NULL',
        )
        .get(id, version);
      if (!row) return false;
      const before = row.standing_content === row.content ? (JSON.parse(row.standing) as object) : {};
      const standing: Record<string, { stops: number; seconds: number }> = { ...before, [setupId]: { stops, seconds } };
      const all = Object.values(standing);
      this.db
        .prepare(
          'UPDATE jobs SET standing_content = content, standing = ?, proved = ?, stops = ?, seconds = ? WHERE id = ?',
        )
        .run(
          JSON.stringify(standing),
          all.length,
          all.reduce((sum, s) => sum + s.stops, 0),
          all.reduce((sum, s) => sum + s.seconds, 0),
          id,
        );
      return true;
    })();
  }

  /** A setup was released: this state is kept for good; false where it is no longer the current one. */
  keepForGood(id: string, version: number): boolean {
    const isNow = this.row(id)?.version === version && !this.row(id)?.deleted_at;
    return isNow && this.history.release(id, version);
  }

  /** The program of a setup may be handed out as the job stands now. */
  release(id: string, setupId: string): void {
    this.db.transaction(() => {
      const row = this.db
        .prepare<[string], { content: string; released_content: string | null; released: string }>(
          'SELECT content, released_content, released FROM jobs WHERE id = ?',
        )
        .get(id);
      if (!row) return;
      const before = row.released_content === row.content ? (JSON.parse(row.released) as string[]) : [];
      const released = JSON.stringify([...new Set([...before, setupId])]);
      this.db.prepare('UPDATE jobs SET released_content = content, released = ? WHERE id = ?').run(released, id);
    })();
  }

  versions = (id: string): JobVersion[] => this.history.list(id);

  /** A state of the past; or why it cannot be read. */
  version(id: string, versionId: string): { job: Job } | UnreadJob | undefined {
    const found = this.history.document(id, versionId);
    if (found === undefined) return undefined;
    const read = handedOut<Job>(found, this.asJob);
    return 'findings' in read ? read : { job: read.value };
  }

  versionDocument = (id: string, versionId: string): string | undefined => this.history.document(id, versionId);

  /** Fills the columns of what was stored before they were there. */
  describe(): void {
    const rows = this.db
      .prepare<[], { id: string; document: string }>('SELECT id, document FROM jobs WHERE words IS NULL')
      .all();
    const set = this.db.prepare(
      `UPDATE jobs SET words = @words, material = @material, machine = @machine, customer_number = @customer_number,
         tags = @tags, content = @content, setups = @setups WHERE id = @id`,
    );
    this.db.transaction(() => {
      for (const { id, document } of rows) {
        const read = handedOut<Job>(document, this.asJob);
        if ('value' in read) set.run({ ...columnsOf(read.value), id });
      }
    })();
  }

  get isEmpty(): boolean {
    return this.db.prepare<[], { n: number }>('SELECT count(*) AS n FROM jobs').get()!.n === 0;
  }
}
