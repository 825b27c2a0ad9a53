/** Every job as it once was: nothing that was saved is ever simply written over. */
import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, JobVersion } from '@tidypath/core';
import type { Db } from '../db/open';
import { nameFiles } from '../db/files';
import type { Author } from '../guard/author';

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
/** The saves of one device within this are one version. */
const TOGETHER = 10 * MINUTE;
/** So many are kept whatever their age; of older ones one a day for so many days. */
const NEWEST = 50;
const DAYS = 90;

interface Stored {
  id: string;
  version: number;
  who: string;
  saved_at: string;
  refused: number;
  released_at: string | null;
}

const versionOf = (r: Stored): JobVersion => ({
  id: r.id,
  version: r.version,
  at: r.saved_at,
  who: r.who,
  kind: r.refused ? 'refused' : r.released_at ? 'released' : 'saved',
});

/** What is kept of a state: its document, and the files it names. */
interface Kept {
  document: string;
  files: string[];
}

export class History {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date,
  ) {}

  /** Notes a save that was taken; within the save of its job. */
  note(jobId: string, version: number, { document, files }: Kept, { device, who }: Author): void {
    const now = this.now();
    const last = this.db
      .prepare<[string], { id: string; device: string; who: string; began_at: string; released_at: string | null }>(
        'SELECT id, device, who, began_at, released_at FROM versions WHERE job_id = ? AND refused = 0 ORDER BY version DESC LIMIT 1',
      )
      .get(jobId);
    const isSame =
      last &&
      !last.released_at &&
      last.device === device &&
      last.who === who &&
      now.getTime() - Date.parse(last.began_at) < TOGETHER;
    if (isSame) {
      this.db
        .prepare('UPDATE versions SET version = ?, saved_at = ?, document = ?, format = ? WHERE id = ?')
        .run(version, now.toISOString(), document, FORMAT_VERSION, last.id);
      nameFiles(this.db, last.id, files);
    } else {
      this.add(jobId, version, { document, files }, { device, who }, false);
      this.thin(jobId);
    }
  }

  /** Keeps a save that came too late; its id. */
  refuse(jobId: string, base: number, kept: Kept, author: Author): string {
    return this.add(jobId, base, kept, author, true);
  }

  private add(jobId: string, version: number, kept: Kept, { device, who }: Author, refused: boolean): string {
    const id = randomUUID();
    const at = this.now().toISOString();
    this.db
      .prepare(
        `INSERT INTO versions (id, job_id, version, device, who, began_at, saved_at, refused, format, document)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(id, jobId, version, device, who, at, at, Number(refused), FORMAT_VERSION, kept.document);
    nameFiles(this.db, id, kept.files);
    return id;
  }

  /** Marks the current state of a job as released; false where it is no longer the current one. */
  release(jobId: string, version: number): boolean {
    return (
      this.db
        .prepare('UPDATE versions SET released_at = ? WHERE job_id = ? AND version = ? AND refused = 0')
        .run(this.now().toISOString(), jobId, version).changes > 0
    );
  }

  /** Lets go what is neither new, nor the last of its day within the days that are kept, nor released. */
  thin(jobId: string): void {
    this.db
      .prepare(
        `DELETE FROM versions WHERE job_id = @jobId AND released_at IS NULL
         AND id NOT IN (SELECT id FROM versions WHERE job_id = @jobId ORDER BY saved_at DESC LIMIT ${NEWEST})
         AND (saved_at < @since OR refused = 0 AND id NOT IN (
           SELECT id FROM (
             SELECT id, row_number() OVER (PARTITION BY substr(saved_at, 1, 10) ORDER BY saved_at DESC) AS n
             FROM versions WHERE job_id = @jobId AND refused = 0
           ) WHERE n = 1))`,
      )
      .run({ jobId, since: new Date(this.now().getTime() - DAYS * DAY).toISOString() });
  }

  /** All there are, newest first. */
  list(jobId: string): JobVersion[] {
    return this.db
      .prepare<[string], Stored>(
        'SELECT id, version, who, saved_at, refused, released_at FROM versions WHERE job_id = ? ORDER BY saved_at DESC, version DESC',
      )
      .all(jobId)
      .map(versionOf);
  }

  /** One of them as it is stored, letter by letter. */
  document(jobId: string, id: string): string | undefined {
    return this.db
      .prepare<[string, string], string>('SELECT document FROM versions WHERE job_id = ? AND id = ?')
      .pluck()
      .get(jobId, id);
  }
}
