import { randomUUID } from 'node:crypto';
import {
  FORMAT_VERSION,
  Finding,
  Job,
  JobRow,
  JobSummary,
  SaveResult,
  Thumbnail,
  readJob,
  thumbnailOf,
} from '@tidypath/core';
import { handedOut } from '../db/carry';
import type { Db } from '../db/open';

interface Stored {
  id: string;
  name: string;
  document: string;
  thumbnail: string;
  version: number;
  updated_at: string;
  format: number | null;
}

/** A stored job that cannot be read, and why. */
export interface UnreadJob {
  findings: Finding[];
}

/** Keeps jobs: every write in a transaction, every save with the version it started from. */
export class JobStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {}

  list(): JobSummary[] {
    const rows = this.db
      .prepare<[], Stored>(
        'SELECT id, name, thumbnail, version, updated_at FROM jobs WHERE deleted_at IS NULL ORDER BY updated_at DESC, name',
      )
      .all();
    return rows.map((r) => ({
      id: r.id,
      name: r.name,
      version: r.version,
      updatedAt: r.updated_at,
      thumbnail: JSON.parse(r.thumbnail) as Thumbnail,
    }));
  }

  private row(id: string): Stored | undefined {
    return this.db
      .prepare<[string], Stored>(
        'SELECT id, document, version, updated_at, format FROM jobs WHERE id = ? AND deleted_at IS NULL',
      )
      .get(id);
  }

  /** A job; or why it cannot be read; undefined where there is none. */
  get(id: string): JobRow | UnreadJob | undefined {
    const row = this.row(id);
    if (!row) return undefined;
    const read = handedOut<Job>(row, readJob);
    if ('findings' in read) return read;
    return { id: row.id, version: row.version, updatedAt: row.updated_at, job: read.value };
  }

  /** What is stored, letter by letter. */
  document(id: string): string | undefined {
    return this.row(id)?.document;
  }

  create(job: Job): JobRow {
    const id = randomUUID();
    const at = this.now();
    this.db
      .prepare(
        'INSERT INTO jobs (id, name, document, thumbnail, version, created_at, updated_at, format) VALUES (?, ?, ?, ?, 1, ?, ?, ?)',
      )
      .run(id, job.name, JSON.stringify(job), JSON.stringify(thumbnailOf(job.part)), at, at, FORMAT_VERSION);
    return { id, version: 1, updatedAt: at, job };
  }

  /** Saves over `baseVersion`; a save that started from an older one is kept aside and refused. */
  save(id: string, baseVersion: number, job: Job): SaveResult | UnreadJob | undefined {
    return this.db.transaction((): SaveResult | UnreadJob | undefined => {
      const current = this.get(id);
      if (!current || 'findings' in current) return current;
      const at = this.now();
      if (current.version !== baseVersion) {
        const keptId = randomUUID();
        this.db
          .prepare(
            'INSERT INTO refused_saves (id, job_id, base_version, document, refused_at, format) VALUES (?, ?, ?, ?, ?, ?)',
          )
          .run(keptId, id, baseVersion, JSON.stringify(job), at, FORMAT_VERSION);
        return { saved: false, current, keptId };
      }
      this.db
        .prepare(
          'UPDATE jobs SET name = ?, document = ?, thumbnail = ?, version = version + 1, updated_at = ? WHERE id = ?',
        )
        .run(job.name, JSON.stringify(job), JSON.stringify(thumbnailOf(job.part)), at, id);
      return { saved: true, version: baseVersion + 1 };
    })();
  }

  /** A copy under a name of its own. */
  duplicate(id: string): JobRow | UnreadJob | undefined {
    const row = this.get(id);
    if (!row || 'findings' in row) return row;
    return this.create({ ...row.job, name: `${row.job.name} copy`.slice(0, 120) });
  }

  /** Puts a job aside; `restore` brings it back. */
  remove(id: string): boolean {
    return (
      this.db.prepare('UPDATE jobs SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL').run(this.now(), id)
        .changes > 0
    );
  }

  restore(id: string): boolean {
    return this.db.prepare('UPDATE jobs SET deleted_at = NULL WHERE id = ?').run(id).changes > 0;
  }

  /** Saves that came too late for this job, newest first; one that cannot be read says why. */
  refused(id: string): ({ id: string; baseVersion: number; at: string } & ({ job: Job } | UnreadJob))[] {
    return this.db
      .prepare<
        [string],
        { id: string; base_version: number; refused_at: string; document: string; format: number | null }
      >(
        'SELECT id, base_version, refused_at, document, format FROM refused_saves WHERE job_id = ? ORDER BY refused_at DESC',
      )
      .all(id)
      .map((r) => {
        const read = handedOut<Job>(r, readJob);
        const known = { id: r.id, baseVersion: r.base_version, at: r.refused_at };
        return 'findings' in read ? { ...known, ...read } : { ...known, job: read.value };
      });
  }

  get isEmpty(): boolean {
    return this.db.prepare<[], { n: number }>('SELECT count(*) AS n FROM jobs').get()!.n === 0;
  }
}
