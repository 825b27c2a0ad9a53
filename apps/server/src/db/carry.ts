/** Documents stored by an older version are carried forward once, at the start; each is checked once before it is handed out. */
import { createHash } from 'node:crypto';
import { FORMAT_VERSION, Finding, ShelfName, readJob, readStored } from '@tidypath/core';
import { FileStore, nameFiles } from './files';
import type { Db } from './open';

interface Row {
  rowid: number;
  id: string;
  document: string;
  format: number | null;
  shelf?: ShelfName;
}

type Read = (value: unknown, row: Row) => { document?: object; findings: Finding[]; files?: Uint8Array[] };

const asJob: Read = (value) => {
  const { job, findings, files } = readJob(value);
  return { document: job, findings, files };
};
const asItem: Read = (value, { shelf, format }) => {
  const { item, findings } = readStored(shelf!, value, format);
  return { document: item, findings };
};

const TABLES: { name: string; columns: string; read: Read }[] = [
  { name: 'jobs', columns: 'rowid, id, document, format', read: asJob },
  { name: 'shop_items', columns: 'rowid, id, document, format, shelf', read: asItem },
];

const OLD = 'format IS NULL OR format < ?';

/** Whether documents of an older format are stored; tables must be the current ones. */
export const isBehind = (db: Db): boolean =>
  TABLES.some(({ name }) => db.prepare(`SELECT 1 FROM ${name} WHERE ${OLD} LIMIT 1`).get(FORMAT_VERSION));

/** Keeps what an older job held of files beside it, named by its current state. */
function putBeside(db: Db, jobId: string, files: Uint8Array[]): void {
  const store = new FileStore(db);
  const version = db
    .prepare<[string], string>('SELECT id FROM versions WHERE job_id = ? AND refused = 0 ORDER BY version DESC LIMIT 1')
    .pluck()
    .get(jobId);
  const keys = files.map((bytes) => store.put(bytes));
  if (version) nameFiles(db, version, [...new Set(keys)]);
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Carries every older document forward in one transaction. One that cannot be read stays as it is. */
export function carryForward(db: Db): void {
  db.transaction(() => {
    for (const { name, columns, read } of TABLES) {
      const write = db.prepare(`UPDATE ${name} SET document = ?, format = ? WHERE rowid = ?`);
      for (const row of db.prepare<[number], Row>(`SELECT ${columns} FROM ${name} WHERE ${OLD}`).all(FORMAT_VERSION)) {
        const { document, files } = read(parsed(row.document), row);
        if (document) write.run(JSON.stringify(document), FORMAT_VERSION, row.rowid);
        if (document && files) putBeside(db, row.id, files);
      }
    }
  })();
}

/** Digests of texts that were read and found good: they are not looked at twice. */
const GOOD = new Set<string>();
const digestOf = (text: string) => createHash('sha256').update(text).digest('base64');

/** Remembers a text that was checked before it was stored. */
export function remember(document: string): void {
  GOOD.add(digestOf(document));
}

export const isGood = (document: string) => GOOD.has(digestOf(document));

/** A stored document, checked once and carried forward where it is an older one; or what speaks against it. */
export function handedOut<T>(
  document: string,
  read: (value: unknown) => { value?: T; findings: Finding[] },
): { value: T } | { findings: Finding[] } {
  if (isGood(document)) return { value: JSON.parse(document) as T };
  const { value, findings } = read(parsed(document));
  if (!value) return { findings };
  // An older one is carried forward each time.
  if (findings.length === 0 && JSON.stringify(value) === document) remember(document);
  return { value };
}
