/** How long a log of 1000 runs takes to be looked through, to teach, and to tell what is worth a look. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isAsked, logCsv, noticesOf } from '@tidypath/core';
import { storesOf } from '../apps/server/src/app';
import { openDb } from '../apps/server/src/db/open';
import { seedDemo } from '../apps/server/src/demo';
import type { Row } from './kernel';

const RUNS = 1000;
const BAR = 250;

/** Of the demo shop, whose one release ran so often. */
export async function logRows(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'tidypath-log-'));
  const stores = storesOf(openDb(folder), folder);
  stores.shop.seed();
  await seedDemo(stores, join(__dirname, '../demo'));
  const { log, releases, school, shop, db } = stores;
  const [{ id }] = releases.workList();
  const body = releases.body(id)!;
  const operations = body.job.setups[0].operations.map((o) => o.id);
  db.transaction(() => {
    for (let i = 0; i < RUNS; i++) {
      const seen = operations.map((operation) => ({ operation, sound: 'quiet' as const, finish: 'clean' as const }));
      const entry = { id: randomUUID(), kind: 'production' as const, parts: 1, scrapped: 0, seconds: 600, remark: '' };
      log.add(id, body, { ...entry, seen }, { device: '', who: 'Lio' });
    }
  })();
  const tools = shop.list('tools').map((k) => k.item);
  const works: [string, () => unknown][] = [
    ['what it teaches', () => school.lessons()],
    ['what is worth a look', () => noticesOf(log.all(), tools, Date.now())],
    ['a search', () => log.all().filter((row) => isAsked(row, { text: 'vane clean' }))],
    ['all of it as CSV', () => logCsv(log.all())],
  ];
  const rows = works.map(([what, work]): Row => {
    work();
    const started = performance.now();
    work();
    const ms = performance.now() - started;
    return {
      what: `a log of ${RUNS} runs: ${what}`,
      figure: `${ms.toFixed(0)} ms`,
      bar: `under ${BAR} ms`,
      met: ms < BAR,
    };
  });
  db.close();
  rmSync(folder, { recursive: true, force: true });
  return rows;
}
