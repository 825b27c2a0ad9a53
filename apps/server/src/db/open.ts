import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';

export type Db = Database.Database;

const MIGRATIONS = join(__dirname, 'migrations');

/** Runs the numbered SQL files that this database has not seen, each in a transaction of its own. */
function migrate(db: Db): void {
  db.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL)');
  const seen = new Set(
    db
      .prepare<[], { name: string }>('SELECT name FROM migrations')
      .all()
      .map((row) => row.name),
  );
  for (const name of readdirSync(MIGRATIONS)
    .filter((f) => f.endsWith('.sql'))
    .sort()) {
    if (seen.has(name)) continue;
    db.transaction(() => {
      db.exec(readFileSync(join(MIGRATIONS, name), 'utf8'));
      db.prepare('INSERT INTO migrations (name, run_at) VALUES (?, ?)').run(name, new Date().toISOString());
    })();
  }
}

/** Opens the database in a folder, creating both where needed. A save is on disk before it is acknowledged. */
export function openDb(folder: string): Db {
  mkdirSync(folder, { recursive: true });
  const db = new Database(join(folder, 'tidypath.db'));
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  migrate(db);
  return db;
}
