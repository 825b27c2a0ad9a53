import { existsSync, mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { FORMAT_VERSION } from '@tidypath/core';
import { carryForward, isBehind } from './carry';

export type Db = Database.Database;

const MIGRATIONS = join(__dirname, 'migrations');
const FILES = readdirSync(MIGRATIONS)
  .filter((f) => f.endsWith('.sql'))
  .sort();

/** Numbered SQL files that this database has not seen. */
function unseen(db: Db): string[] {
  db.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL)');
  const seen = db.prepare<[], string>('SELECT name FROM migrations').pluck().all();
  return FILES.filter((f) => !seen.includes(f));
}

/** Runs SQL files, each in a transaction of its own. */
function migrate(db: Db, names: string[]): void {
  for (const name of names)
    db.transaction(() => {
      db.exec(readFileSync(join(MIGRATIONS, name), 'utf8'));
      db.prepare('INSERT INTO migrations (name, run_at) VALUES (?, ?)').run(name, new Date().toISOString());
    })();
}

/** Copies the database aside as it is, once for each state of tables and documents. */
function copyAside(db: Db, folder: string): void {
  const copy = join(folder, `before-tables-${FILES.length}-format-${FORMAT_VERSION}.db`);
  if (!existsSync(copy)) db.prepare('VACUUM INTO ?').run(copy);
}

/**
 * Opens the database in a folder, creating both where needed; tables and documents of older versions are carried forward, with a copy
 * put aside before. A save is on disk before it is acknowledged.
 */
export function openDb(folder: string): Db {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'tidypath.db');
  const isNew = !existsSync(file);
  const db = new Database(file);
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  const names = unseen(db);
  if (!isNew && (names.length > 0 || isBehind(db))) copyAside(db, folder);
  migrate(db, names);
  carryForward(db);
  return db;
}
