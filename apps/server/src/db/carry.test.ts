import { readFileSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { pino } from 'pino';
import request from 'supertest';
import { FORMAT_VERSION, Job, TOOLS, planSetup } from '@tidypath/core';
import { folder, root } from '../../testing/folder';
import { createApp, storesOf } from '../app';
import { JobStore } from '../jobs/store';
import { ShopStore } from '../shop/store';
import { openDb } from './open';

const FORMATS = join(root, 'packages/core/testing/formats');
const files = readdirSync(FORMATS);
const text = (file: string) => readFileSync(join(FORMATS, file), 'utf8');
const old = JSON.parse(text('1-first.json')) as { tools: { id: string }[]; machine: { id: string } };

/** A database as the version before left it: tables without formats, documents of every age, and two that nobody can read. */
function asItWas(data: string): void {
  const db = new Database(join(data, 'tidypath.db'));
  db.exec('CREATE TABLE migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL)');
  for (const name of ['001-jobs.sql', '002-shop.sql']) {
    db.exec(readFileSync(join(__dirname, 'migrations', name), 'utf8'));
    db.prepare('INSERT INTO migrations VALUES (?, ?)').run(name, '2026-11-20');
  }
  const job = db.prepare("INSERT INTO jobs VALUES (?, ?, ?, '{}', 3, '2026-11-20', '2026-11-20', NULL)");
  files.forEach((file, i) => job.run(idOf(i), file, text(file)));
  job.run(idOf(90), 'broken', '{"formatVersion": 2, "name": 5}');
  db.prepare("INSERT INTO refused_saves VALUES ('r', ?, 2, ?, '2026-11-20')").run(idOf(0), text(files[0]));
  const item = db.prepare("INSERT INTO shop_items VALUES (?, ?, ?, 1, '2026-11-20', NULL)");
  for (const tool of old.tools) item.run('tools', tool.id, JSON.stringify(tool));
  item.run('tools', 'broken', '{"id": "broken", "diameter": "wide"}');
  item.run('tools', TOOLS[20].id, JSON.stringify(TOOLS[20]));
  item.run('machines', old.machine.id, JSON.stringify(old.machine));
  db.close();
}

const idOf = (i: number) => `00000000-0000-0000-0000-${String(i).padStart(12, '0')}`;

describe('a database of the version before', () => {
  const data = folder();
  asItWas(data);
  const db = openDb(data);
  const [jobs, shop] = [new JobStore(db), new ShopStore(db)];
  const app = createApp({ ...storesOf(db, data), jobs, shop }, join(root, 'no-such-folder'), pino({ level: 'silent' }));
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });

  test.each(files.map((file, i) => [file, i] as const))('%s is handed out carried forward, and plans', async (_, i) => {
    const { body, status } = await request(app).get(`/api/jobs/${idOf(i)}`);
    expect([status, body.version, body.job.formatVersion]).toEqual([200, 3, FORMAT_VERSION]);
    const job = body.job as Job;
    const { planned } = planSetup(job, job.setups[0]);
    expect(planned.map((p) => [p.operation.name, p.plan.path.count > 0])).toEqual(
      planned.map((p) => [p.operation.name, true]),
    );
  });

  test('a save that came too late is carried forward too', () => {
    const [late] = jobs.versions(idOf(0)).filter((v) => v.kind === 'refused');
    expect(jobs.version(idOf(0), late.id)).toMatchObject({ job: { formatVersion: FORMAT_VERSION } });
  });

  test('what nobody can read stays as it is, opens as findings, and can be taken away as stored', async () => {
    const { body, status } = await request(app).get(`/api/jobs/${idOf(90)}`);
    expect([status, body.findings[0].level]).toEqual([422, 'stop']);
    expect((await request(app).post(`/api/jobs/${idOf(90)}/duplicate`)).status).toBe(422);
    const stored = await request(app).get(`/api/jobs/${idOf(90)}/document`);
    expect(stored.text).toBe('{"formatVersion": 2, "name": 5}');
    expect(jobs.list().jobs.map((j) => j.name)).toContain('broken');
  });

  test('tools and machines are carried forward by their shape; one that cannot be read is named, with why', async () => {
    const tools = shop.list('tools');
    expect(tools.map((t) => t.item.id)).toEqual([...old.tools.map((t) => t.id), TOOLS[20].id]);
    expect(tools.every((t) => t.item.holder.segments.length > 0)).toBe(true);
    expect(shop.list('machines')[0].item.spindle.length).toBeGreaterThan(0);
    const { body } = await request(app).get('/api/shop/tools/unread');
    expect(body).toHaveLength(1);
    expect(body[0].message).toMatch(
      /^The tool “broken” was stored by another version and cannot be read \(.+, and \d+ more\)$/,
    );
  });

  test('the database stands aside as it was, once', () => {
    const aside = () => readdirSync(data).filter((f) => f.startsWith('before-'));
    expect(aside()).toHaveLength(1);
    const before = new Database(join(data, aside()[0]), { readonly: true });
    const kept = before.prepare<[string], string>('SELECT document FROM jobs WHERE name = ?').pluck();
    for (const file of files) expect(kept.get(file)).toBe(text(file));
    before.close();
    openDb(data).close();
    expect(aside()).toHaveLength(1);
  });

  test('what was changed behind its back is looked at again', () => {
    for (const document of ['{"not": "a job"}', '{"cut sho']) {
      db.prepare('UPDATE jobs SET document = ? WHERE id = ?').run(document, idOf(1));
      expect(jobs.get(idOf(1))).toMatchObject({ findings: [{ level: 'stop' }] });
    }
  });
});

test('a new database is not put aside', () => {
  const data = folder();
  openDb(data).close();
  expect(readdirSync(data).filter((f) => f.startsWith('before-'))).toEqual([]);
  rmSync(data, { recursive: true, force: true });
});

test('what was released before setups were told apart stays released', () => {
  const data = folder();
  const before = openDb(data);
  before.exec("DELETE FROM migrations WHERE name = '008-released.sql'; ALTER TABLE jobs DROP COLUMN released");
  const insert = before.prepare(
    `INSERT INTO jobs (id, name, version, created_at, updated_at, format, thumbnail, words, content, setups, released_content, document)
     VALUES (?, ?, 1, '', '', ?, '{"box": {}}', '', 'c', 2, ?, ?)`,
  );
  insert.run(idOf(1), 'released', FORMAT_VERSION, 'c', '{"setups": [{"id": "s1"}, {"id": "s2"}]}');
  insert.run(idOf(2), 'not', FORMAT_VERSION, null, '{"setups": [{"id": "s1"}]}');
  insert.run(idOf(3), 'damaged', FORMAT_VERSION, 'c', '{"cut sho');
  before.close();
  const db = openDb(data);
  const states = new JobStore(db).list({ order: 'name' }).jobs.map((j) => [j.name, j.state]);
  expect(states).toEqual([
    ['damaged', 'not proved'],
    ['not', 'not proved'],
    ['released', 'released'],
  ]);
  db.close();
  rmSync(data, { recursive: true, force: true });
});
