/** Documents stored by an older version are carried forward once, at the start; afterwards they are handed out as they stand. */
import { FORMAT_VERSION, Finding, ShelfName, readJob, readStored } from '@tidypath/core';
import type { Db } from './open';

interface Row {
  rowid: number;
  document: string;
  format: number | null;
  shelf?: ShelfName;
}

type Read = (value: unknown, row: Row) => { document?: object; findings: Finding[] };

const asJob: Read = (value) => {
  const { job, findings } = readJob(value);
  return { document: job, findings };
};
const asItem: Read = (value, { shelf, format }) => {
  const { item, findings } = readStored(shelf!, value, format);
  return { document: item, findings };
};

const TABLES: { name: string; columns: string; read: Read }[] = [
  { name: 'jobs', columns: 'rowid, document, format', read: asJob },
  { name: 'refused_saves', columns: 'rowid, document, format', read: asJob },
  { name: 'shop_items', columns: 'rowid, document, format, shelf', read: asItem },
];

const OLD = 'format IS NULL OR format < ?';

/** Whether documents of an older format are stored; tables must be the current ones. */
export const isBehind = (db: Db): boolean =>
  TABLES.some(({ name }) => db.prepare(`SELECT 1 FROM ${name} WHERE ${OLD} LIMIT 1`).get(FORMAT_VERSION));

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
        const { document } = read(parsed(row.document), row);
        if (document) write.run(JSON.stringify(document), FORMAT_VERSION, row.rowid);
      }
    }
  })();
}

/** A stored document as it is read now: as it stands where it is current, else with what speaks against it. */
export function handedOut<T>(
  { document, format }: { document: string; format: number | null },
  read: (value: unknown) => { findings: Finding[] },
): { value: T } | { findings: Finding[] } {
  return format === FORMAT_VERSION
    ? { value: JSON.parse(document) as T }
    : { findings: read(parsed(document)).findings };
}
