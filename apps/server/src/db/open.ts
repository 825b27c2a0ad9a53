import { existsSync, mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { FORMAT_VERSION } from '@tidypath/core';
import { SERVER } from '../places';
import { carryForward, isBehind } from './carry';

export type Db = Database.Database;

export const DATABASE = 'tidypath.db';
const MIGRATIONS = join(SERVER, 'src/db/migrations');
const FILES = readdirSync(MIGRATIONS)
  .filter((f) => f.endsWith('.sql'))
  .sort();

/** Why a data folder cannot be used, in one sentence. */
export class CannotOpen extends Error {}

const REASONS: Record<string, string> = {
  SQLITE_FULL: 'the disk is full: make room and start again',
  ENOSPC: 'the disk is full: make room and start again',
  SQLITE_NOTADB: 'tidypath.db is damaged: put it aside and bring a backup back (npm run restore)',
  SQLITE_CORRUPT: 'tidypath.db is damaged: put it aside and bring a backup back (npm run restore)',
};

/**
 * What to say of an error with a data folder.
 * @param file what was to be written from it, where it is about that
 */
export function whyNot(folder: string, error: unknown, file?: string): CannotOpen {
  if (error instanceof CannotOpen) return error;
  const { code = '', message } = error as { code?: string; message: string };
  const known = Object.entries(REASONS).find(([start]) => code.startsWith(start))?.[1];
  const closed = /^(EACCES|EPERM|EROFS|ENOENT|ENOTDIR|EEXIST|SQLITE_READONLY|SQLITE_CANTOPEN)/.test(code);
  const why = known ?? (closed ? `it cannot be written (${code}): choose another with TIDYPATH_DATA` : message);
  return new CannotOpen(file ? `${file} cannot be written; ${why}` : `The data in ${folder} cannot be used; ${why}`);
}

/** Keeps every other server off a data folder until this process ends, however it ends. */
export function occupy(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    OCCUPIED.push(locked(folder));
  } catch (error) {
    throw whyNot(folder, error);
  }
}
/** Held: what nobody holds would be let go. */
const OCCUPIED: Db[] = [];

function locked(folder: string): Db {
  const held = new Database(join(folder, 'in-use.db'), { timeout: 0 });
  held.pragma('locking_mode = EXCLUSIVE');
  try {
    held.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    held.close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new CannotOpen(`The data in ${folder} cannot be used; another server is running on it: stop that one first`);
  }
  return held;
}

/** A database of a later version, or one that is damaged inside, is left as it is. */
export function refuseOther(db: Db, folder: string): void {
  const [found] = db.pragma('quick_check(1)', { simple: false }) as { quick_check: string }[];
  if (found.quick_check !== 'ok') throw Object.assign(new Error(found.quick_check), { code: 'SQLITE_CORRUPT' });
  const isOurs = db.prepare("SELECT 1 FROM sqlite_master WHERE name = 'migrations'").get();
  const later =
    isOurs &&
    db
      .prepare<[], string>('SELECT name FROM migrations')
      .pluck()
      .all()
      .find((n) => !FILES.includes(n));
  if (later)
    throw new CannotOpen(
      `The data in ${folder} cannot be used; it was written by a later version (${later}): start that one`,
    );
}

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
  try {
    mkdirSync(folder, { recursive: true });
    return opened(folder);
  } catch (error) {
    throw whyNot(folder, error);
  }
}

function opened(folder: string): Db {
  const file = join(folder, DATABASE);
  const isNew = !existsSync(file);
  const db = new Database(file);
  if (!isNew) refuseOther(db, folder);
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  const names = unseen(db);
  if (!isNew && (names.length > 0 || isBehind(db))) copyAside(db, folder);
  migrate(db, names);
  carryForward(db);
  return db;
}
