/** Backups: the whole shop as one file while it runs, brought back with the old one kept aside. */
import { spawnSync } from 'node:child_process';
import { readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { newJob } from '@tidypath/core';
import { backUpDaily } from '../../apps/server/src/backup/backup';
import { openDb } from '../../apps/server/src/db/open';
import { foldWhenIdle } from '../../apps/server/src/housekeeping';
import { JobStore } from '../../apps/server/src/jobs/store';
import { Server, ask, folder, root } from './server';

jest.setTimeout(120_000);

const command = (what: 'backup' | 'restore', data: string, file: string) => {
  const { status, stdout, stderr } = spawnSync('npm', ['run', '-s', what, '--', file], {
    cwd: root,
    env: { ...process.env, TIDYPATH_DATA: data },
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { status, said: `${stdout}${stderr}`.trim() };
};

describe('a shop that runs', () => {
  const server = new Server(folder());
  const out = folder();
  const headers = { 'content-type': 'application/json' };
  const names = async () =>
    (JSON.parse((await ask(server.port, '/api/jobs')).body) as { name: string }[]).map((j) => j.name).sort();
  const add = (name: string) =>
    ask(server.port, '/api/jobs', { method: 'POST', headers, body: JSON.stringify({ job: newJob(name, 'mm') }) });
  beforeAll(() => server.start());
  afterAll(() => {
    server.clear();
    rmSync(out, { recursive: true, force: true });
  });
  const file = join(out, 'shop.db');

  test('npm run backup makes one consistent file while it runs, and never writes over an older one', async () => {
    await add('Kept by the backup');
    expect(command('backup', server.data, file)).toMatchObject({ status: 0 });
    expect(readdirSync(out)).toEqual(['shop.db']);
    const db = new Database(file, { readonly: true });
    expect(db.prepare('SELECT name FROM jobs WHERE name LIKE ?').pluck().get('Kept%')).toBe('Kept by the backup');
    db.close();
    const again = command('backup', server.data, file);
    expect([again.status, again.said]).toEqual([1, `${file} is there already; give the backup another name`]);
  });

  test('the button hands out the same', async () => {
    const answer = await fetch(`http://127.0.0.1:${server.port}/api/backup/file`);
    expect(answer.headers.get('content-disposition')).toMatch(/attachment; filename="?tidypath-[\d-]+\.db/);
    const taken = join(out, 'taken.db');
    writeFileSync(taken, Buffer.from(await answer.arrayBuffer()));
    const db = new Database(taken, { readonly: true });
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(db.prepare('SELECT count(*) FROM jobs').pluck().get()).toBe(8);
    db.close();
  });

  test('npm run restore refuses while a server runs, and what is no backup; nothing is touched', async () => {
    expect(command('restore', server.data, file)).toMatchObject({
      status: 1,
      said: expect.stringMatching(/another server is running on it: stop that one first/),
    });
    server.stop();
    const junk = join(out, 'junk.db');
    writeFileSync(junk, 'no shop at all, though it is long enough to be looked at '.repeat(100));
    const before = readdirSync(server.data).sort();
    for (const [bad, why] of [
      [junk, /is damaged, or no backup of a shop/],
      [join(out, 'nowhere.db'), /There is no file/],
    ] as const)
      expect(command('restore', server.data, bad)).toMatchObject({ status: 1, said: expect.stringMatching(why) });
    expect(readdirSync(server.data).sort()).toEqual(before);
  });

  test('npm run restore brings the backup back and keeps the old one aside', async () => {
    await server.start();
    await add('Made after the backup');
    server.stop();
    const { status, said } = command('restore', server.data, file);
    expect([status, said]).toEqual([0, expect.stringMatching(/what was there is kept in /)]);
    await server.start();
    expect(await names()).toEqual(expect.arrayContaining(['Kept by the backup', 'Vane hub plate']));
    expect(await names()).not.toContain('Made after the backup');
    const aside = openDb(said.split('kept in ')[1]);
    expect(new JobStore(aside).list({ words: 'after' }).total).toBe(1);
    aside.close();
  });

  test('a daily backup is made by itself', () => {
    const [daily] = readdirSync(join(server.data, 'backups'));
    expect(daily).toMatch(/^tidypath-\d{4}-\d\d-\d\d\.db$/);
  });
});

test('seven daily backups are kept', async () => {
  const data = folder();
  const db = openDb(data);
  for (let day = 1; day <= 10; day++) await backUpDaily(db, data, new Date(Date.UTC(2026, 2, day)));
  await backUpDaily(db, data, new Date(Date.UTC(2026, 2, 10, 23)));
  expect(readdirSync(join(data, 'backups')).sort()).toEqual(
    [4, 5, 6, 7, 8, 9, 10].map((d) => `tidypath-2026-03-${String(d).padStart(2, '0')}.db`),
  );
  db.close();
  rmSync(data, { recursive: true, force: true });
});

test('the log is folded into the file once nobody writes', () => {
  jest.useFakeTimers();
  const data = folder();
  const db = openDb(data);
  new JobStore(db).create(newJob('Plate', 'mm'));
  const log = join(data, 'tidypath.db-wal');
  expect(statSync(log).size).toBeGreaterThan(0);
  const finished: (() => void)[] = [];
  foldWhenIdle(db)(
    { method: 'PUT' } as never,
    { on: (_: string, f: () => void) => finished.push(f) } as never,
    () => undefined,
  );
  finished.forEach((f) => f());
  jest.advanceTimersByTime(4_000);
  expect(statSync(log).size).toBeGreaterThan(0);
  jest.advanceTimersByTime(2_000);
  expect(statSync(log).size).toBe(0);
  jest.useRealTimers();
  expect(readFileSync(join(data, 'tidypath.db')).includes('Plate')).toBe(true);
  db.close();
  rmSync(data, { recursive: true, force: true });
});
