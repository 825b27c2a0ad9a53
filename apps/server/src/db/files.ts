/** Files that jobs name, by the hash of their content. They come and go in pieces, so that a large one holds nobody up. */
import { createHash } from 'node:crypto';
import { LARGEST_FILE, sha256Of } from '@tidypath/core';
import type { Db } from './open';

/** A file nobody names stays so many days. */
export const FILE_DAYS = 30;
const DAY = 24 * 3600_000;
const PIECE = 1_000_000;

const TOO_LARGE = `The file is larger than ${LARGEST_FILE / 1e6} MB`;
const OTHER = 'What arrived is not the file that was announced: send it again';

type Id = number | bigint;

/** Why a file is not kept. */
export class FileRefused extends Error {
  constructor(
    readonly status: 413 | 422,
    message: string,
  ) {
    super(message);
  }
}

/** Notes which files a version of a job names. */
export function nameFiles(db: Db, versionId: string, files: string[]): void {
  db.prepare('DELETE FROM file_uses WHERE version_id = ?').run(versionId);
  const name = db.prepare('INSERT INTO file_uses (version_id, sha256) VALUES (?, ?)');
  for (const sha256 of files) name.run(versionId, sha256);
}

export class FileStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /** Its size in bytes; undefined where it is not kept. */
  size(sha256: string): number | undefined {
    return this.db.prepare<[string], number>('SELECT size FROM files WHERE sha256 = ?').pluck().get(sha256);
  }

  /** Keeps what comes under the hash it was announced by; refuses what is larger than may be, or something else. */
  async keep(sha256: string, arriving: AsyncIterable<Uint8Array>): Promise<void> {
    const id = this.begin();
    try {
      const hash = createHash('sha256');
      let [size, n, waiting] = [0, 0, [] as Uint8Array[]];
      for await (const bytes of arriving) {
        hash.update(bytes);
        size += bytes.length;
        if (size > LARGEST_FILE) throw new FileRefused(413, TOO_LARGE);
        waiting.push(bytes);
        if (size < (n + 1) * PIECE) continue;
        this.add(id, n++, Buffer.concat(waiting));
        waiting = [];
      }
      this.add(id, n, Buffer.concat(waiting));
      if (hash.digest('hex') !== sha256) throw new FileRefused(422, OTHER);
      this.end(id, sha256, size);
    } catch (error) {
      this.drop(id);
      throw error;
    }
  }

  /** Keeps a file that is all there; what it is kept under. */
  put(bytes: Uint8Array): string {
    const sha256 = sha256Of(bytes);
    this.db.transaction(() => {
      const id = this.begin();
      for (let at = 0; at < bytes.length; at += PIECE) this.add(id, at / PIECE, bytes.subarray(at, at + PIECE));
      this.end(id, sha256, bytes.length);
    })();
    return sha256;
  }

  private begin(): Id {
    return this.db.prepare('INSERT INTO files (size, unnamed_since) VALUES (0, ?)').run(this.now().toISOString())
      .lastInsertRowid;
  }

  private add(id: Id, n: number, bytes: Uint8Array): void {
    this.db.prepare('INSERT INTO file_pieces (file_id, n, bytes) VALUES (?, ?, ?)').run(id, n, bytes);
  }

  /** A file that is there already stays, as if it had come just now. */
  private end(id: Id, sha256: string, size: number): void {
    this.db.transaction(() => {
      if (this.touch(sha256)) this.drop(id);
      else this.db.prepare('UPDATE files SET sha256 = ?, size = ? WHERE id = ?').run(sha256, size, id);
    })();
  }

  private drop(id: Id): void {
    this.db.prepare('DELETE FROM files WHERE id = ?').run(id);
  }

  /** Its days begin anew; false where it is not kept. */
  touch(sha256: string): boolean {
    const sql = 'UPDATE files SET unnamed_since = ? WHERE sha256 = ?';
    return this.db.prepare(sql).run(this.now().toISOString(), sha256).changes > 0;
  }

  /** Its content, piece by piece. */
  *pieces(sha256: string): Generator<Uint8Array> {
    const next = this.db
      .prepare<[string, number], Uint8Array>(
        'SELECT bytes FROM file_pieces JOIN files ON files.id = file_id WHERE sha256 = ? AND n = ?',
      )
      .pluck();
    for (let n = 0, bytes; (bytes = next.get(sha256, n)); n++) yield bytes;
  }

  /** Lets go what nothing has named for its days. */
  tidy(): void {
    const now = this.now();
    this.db
      .prepare(
        `UPDATE files SET unnamed_since =
           CASE WHEN sha256 IN (SELECT sha256 FROM file_uses UNION ALL SELECT sha256 FROM release_files
             UNION ALL SELECT sha256 FROM log_photos) THEN NULL ELSE coalesce(unnamed_since, ?) END`,
      )
      .run(now.toISOString());
    this.db
      .prepare('DELETE FROM files WHERE unnamed_since < ?')
      .run(new Date(now.getTime() - FILE_DAYS * DAY).toISOString());
  }

  /** Drops what was still arriving when the server ended; before it serves again. */
  dropUnfinished(): void {
    this.db.exec('DELETE FROM files WHERE sha256 IS NULL');
  }
}
