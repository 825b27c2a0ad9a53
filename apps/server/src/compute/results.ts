/** Results under the hash of all they hang on. They are derived: a database of their own, in no backup, begun anew where it cannot be read. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Maker } from '@tidypath/core';
import type { Db } from '../db/open';

/** Most that is kept, bytes; the least used go first. */
const MOST = 500_000_000;
/** Largest result that is taken, bytes. */
export const LARGEST_RESULT = 50_000_000;

const TABLES = `
  CREATE TABLE IF NOT EXISTS results (
    key TEXT PRIMARY KEY,
    maker TEXT NOT NULL CHECK (maker IN ('server', 'page')),
    seconds REAL NOT NULL,
    made BLOB NOT NULL,
    used INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX IF NOT EXISTS results_used ON results (used)`;

/** A result as it is kept: who made it, the seconds it took where it was this server, and its bytes. */
export interface Result {
  maker: Maker;
  seconds: number;
  made: Uint8Array;
}

function opened(file: string): Db {
  const db = new Database(file);
  db.pragma('journal_mode = WAL');
  // What is lost with the power is made again.
  db.pragma('synchronous = OFF');
  db.exec(TABLES);
  db.prepare('SELECT key, maker, seconds, used FROM results LIMIT 1').get();
  return db;
}

function openResults(folder: string): Db {
  const file = join(folder, 'results.db');
  try {
    return opened(file);
  } catch {
    for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true });
    return opened(file);
  }
}

export class Results {
  private readonly db: Db;
  /** Uses are counted, so that no clock decides which was the last. */
  private uses: number;

  constructor(
    folder: string,
    private readonly most = MOST,
  ) {
    this.db = openResults(folder);
    this.uses = this.db.prepare<[], number>('SELECT coalesce(max(used), 0) FROM results').pluck().get()!;
  }

  get(key: string): Result | undefined {
    const found = this.db.prepare<[string], Result>('SELECT maker, seconds, made FROM results WHERE key = ?').get(key);
    if (found) this.db.prepare('UPDATE results SET used = ? WHERE key = ?').run(++this.uses, key);
    return found;
  }

  /** Keeps a result; what this server made is never replaced by what a page did. */
  keep(key: string, { maker, seconds, made }: Result): void {
    this.db.transaction(() => {
      this.db
        .prepare(
          `INSERT INTO results (key, maker, seconds, made, used) VALUES (?, ?, ?, ?, ?)
           ON CONFLICT (key) DO UPDATE SET
             maker = excluded.maker, seconds = excluded.seconds, made = excluded.made, used = excluded.used
           WHERE maker = 'page'`,
        )
        .run(key, maker, seconds, made, ++this.uses);
      this.db
        .prepare(
          `DELETE FROM results WHERE key IN (
             SELECT key FROM (SELECT key, sum(length(made)) OVER (ORDER BY used DESC) AS bytes FROM results)
             WHERE bytes > ?)`,
        )
        .run(this.most);
    })();
  }

  close(): void {
    this.db.close();
  }
}
