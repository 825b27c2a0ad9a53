/** The whole shop as one consistent file: copied page by page by the database itself, while it is in use. */
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { CannotOpen, DATABASE, Db, occupy, refuseOther, whyNot } from '../db/open';

const DAILY = /^tidypath-\d{4}-\d\d-\d\d\.db$/;
/** Daily backups that are kept. */
const KEPT = 7;

/** Writes a backup beside its place first, so that a file of that name is always a whole one. */
export async function backUp(db: Db, file: string): Promise<void> {
  const unfinished = `${file}.unfinished`;
  try {
    await db.backup(unfinished);
    const copy = new Database(unfinished);
    // One file that needs no other beside it.
    copy.pragma('journal_mode = DELETE');
    copy.close();
    renameSync(unfinished, file);
  } finally {
    rmSync(unfinished, { force: true });
  }
}

/** A backup asked for by name; an older file of that name is not written over. */
export async function backUpFolder(folder: string, file: string): Promise<void> {
  const from = join(folder, DATABASE);
  if (!existsSync(from)) throw new CannotOpen(`There is no shop in ${folder}; say where with TIDYPATH_DATA`);
  if (existsSync(file)) throw new CannotOpen(`${file} is there already; give the backup another name`);
  try {
    const db = new Database(from, { readonly: true });
    await backUp(db, file).finally(() => db.close());
  } catch (error) {
    throw whyNot(folder, error, file);
  }
}

/**
 * Puts a backup in the place of what is there, which is kept aside; nothing is touched where a server runs or the file is no shop.
 * @returns where the old one is kept; undefined where there was none
 */
export function restore(folder: string, file: string, now = new Date()): string | undefined {
  if (!existsSync(file)) throw new CannotOpen(`There is no file ${file}`);
  try {
    const copy = new Database(file, { readonly: true });
    try {
      refuseOther(copy, file);
      if (!copy.prepare("SELECT 1 FROM sqlite_master WHERE name = 'migrations'").get())
        throw new CannotOpen(`${file} is no backup of a shop`);
    } finally {
      copy.close();
    }
  } catch (error) {
    throw error instanceof CannotOpen ? error : new CannotOpen(`${file} is damaged, or no backup of a shop`);
  }
  occupy(folder);
  try {
    return replace(folder, file, now);
  } catch (error) {
    throw whyNot(folder, error);
  }
}

function replace(folder: string, file: string, now: Date): string | undefined {
  const incoming = join(folder, `${DATABASE}.incoming`);
  copyFileSync(file, incoming);
  const old = readdirSync(folder).filter((f) => [DATABASE, `${DATABASE}-wal`, `${DATABASE}-shm`].includes(f));
  const aside = join(folder, `before-restore-${now.toISOString().replace(/[:.]/g, '-')}`);
  if (old.length) mkdirSync(aside);
  for (const name of old) renameSync(join(folder, name), join(aside, name));
  renameSync(incoming, join(folder, DATABASE));
  return old.length ? aside : undefined;
}

/** The backup of the day, if it was not made yet; older ones than the last seven go. */
export async function backUpDaily(db: Db, folder: string, now = new Date()): Promise<void> {
  const backups = join(folder, 'backups');
  mkdirSync(backups, { recursive: true });
  const file = join(backups, `tidypath-${now.toISOString().slice(0, 10)}.db`);
  if (!existsSync(file)) await backUp(db, file);
  for (const old of dailyBackups(folder).slice(KEPT)) rmSync(join(backups, old));
}

/** Of the daily backups, the newest first. */
export const dailyBackups = (folder: string): string[] =>
  existsSync(join(folder, 'backups'))
    ? readdirSync(join(folder, 'backups'))
        .filter((f) => DAILY.test(f))
        .sort()
        .reverse()
    : [];
