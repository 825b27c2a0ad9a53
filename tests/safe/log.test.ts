/** The log of runs: added to and never changed, looked through, learnt from and unlearnt. */
import { createHash, randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { KeptEntry, Lesson, LogRow, Machine, Tool, standing } from '@tidypath/core';
import { createApp } from '../../apps/server/src/app';
import { Hall } from '../../apps/server/src/runs/hall';
import { here, releaseOn } from './released';
import { folder, root } from './server';

const data = folder();
const { db, stores, run: first } = releaseOn(data);
stores.shop.seed();
const hall = new Hall(here);
const app = createApp(stores, join(root, 'nowhere'), pino({ level: 'silent' }), undefined, undefined, hall);
const page = request.agent(app);
afterAll(async () => {
  await hall.close();
  db.close();
  rmSync(data, { recursive: true, force: true });
});

const machineId = 'whimbrel';
const lessons = async (item?: string) => (await page.get('/api/log/lessons').query({ item })).body as Lesson[];
const time = async () => (await lessons(machineId))[0];
const learn = (id: string, what: 'take' | 'undo') =>
  page.post(`/api/log/lessons/${encodeURIComponent(id)}/${what}`).send({});
const entries = async () => (await page.get(`/api/log/of/${first.releaseId}`)).body as KeptEntry[];
const write = (more: object) =>
  page
    .post(`/api/log/of/${first.releaseId}`)
    .send({ id: randomUUID(), kind: 'production', parts: 4, scrapped: 1, remark: '', ...more });

/** Runs the release on the simulated machine to its end. */
async function ran(seed: number, feed = 100): Promise<void> {
  const { id } = (await page.post('/api/runs').send({ releaseId: first.releaseId, seed })).body as { id: string };
  const press = (one: object) => page.post(`/api/runs/${id}/press`).send(one);
  for (const axis of ['x', 'y']) await press({ press: 'touch zero', axis });
  await press({ press: 'touch zero', axis: 'z', n: 4 });
  if (feed !== 100) await press({ press: 'override', which: 'feed', n: feed });
  await press({ press: 'start' });
  await page.post(`/api/runs/${id}/onward`).expect(200);
}

test('a whole run logs itself with what was seen; from five on the time of the machine is taught, learnt and unlearnt', async () => {
  expect((await time()).proposed).toBeUndefined();
  const before = (await time()).now;
  for (let seed = 0; seed < 5; seed++) await ran(seed);
  expect((await entries())[0].seen).toMatchObject([{ load: expect.any(Number), sound: expect.any(String) }]);
  const known = await time();
  expect(known.evidence).toMatch(/^5 runs of the simulated machine/);
  await learn(known.id, 'take').expect(204);
  const machine = () => stores.shop.list('machines').find((m) => m.item.id === machineId)!.item as Machine;
  const taught = await time();
  expect(taught).toMatchObject({ now: known.proposed, isSo: true, taken: { before, evidence: known.evidence } });
  expect(machine().extraTime).toBeGreaterThan(0.01);
  expect(machine().extraTimeNote).toMatch(/^from the log: 5 runs/);
  await learn(known.id, 'undo').expect(204);
  expect(await time()).toMatchObject({ now: before, proposed: known.proposed });
  expect((await time()).taken).toBeUndefined();
  expect(machine().extraTimeNote).toBeUndefined();
  await learn(known.id, 'undo').expect(409);
  await learn('time nobody', 'take').expect(409);
});

test('a run that was turned down says nothing of the time', async () => {
  const { evidence } = await time();
  await ran(1, 50);
  expect((await time()).evidence).toBe(evidence);
});

test('what is logged is corrected by another entry, and sent twice it is there once', async () => {
  const id = randomUUID();
  for (let i = 0; i < 2; i++) await write({ id, remark: 'First of the day' }).expect(204);
  await write({ replaces: id, parts: 5 }).expect(204);
  const own = (await entries()).filter((e) => e.kind === 'production');
  expect(own).toHaveLength(2);
  expect(standing(own).map((e) => e.parts)).toEqual([5]);
  await write({ scrapped: 9 }).expect(422);
  await write({ kind: 'guess' }).expect(422);
  await write({ replaces: randomUUID() }).expect(422);
  for (const table of ['log_entries', 'runs'])
    expect(() => db.prepare(`DELETE FROM ${table}`).run()).toThrow(/is kept/);
  expect(() => db.prepare('UPDATE log_entries SET parts = 1').run()).toThrow(/corrected by another/);
});

test('real runs count before those of the simulated machine, once there are enough', async () => {
  const { moves, changes } = db.prepare('SELECT moves, changes FROM log_entries LIMIT 1').get() as {
    moves: number;
    changes: number;
  };
  for (let i = 0; i < 5; i++) await write({ seconds: 1.3 * moves + 12 * changes, scrapped: 0 }).expect(204);
  const { evidence, proposed } = await time();
  expect(evidence).toBe('5 runs of the machine');
  // The same program each time does not tell moves from changes; together they are what was logged.
  const [more, change] = proposed!.match(/[\d.]+/g)!.map(Number);
  const told = (1 + more / 100) * moves + change * changes;
  expect(Math.abs(told / (1.3 * moves + 12 * changes) - 1)).toBeLessThan(0.01);
});

describe('tools', () => {
  const { operations } = stores.releases.body(first.releaseId)!.job.setups[0];
  const [{ id: operation, toolId }] = operations;
  const tool = () => stores.shop.list('tools').find((t) => t.item.id === toolId)!.item as Tool;
  const told = async (what: string) => (await lessons(toolId)).find((l) => l.what === what);

  test('what edges last and what cut well is taught, learnt with its evidence and unlearnt', async () => {
    const seen = [{ operation, sound: 'quiet', finish: 'clean', edge: 'worn' }];
    for (let i = 0; i < 3; i++) await write({ scrapped: 0, seen }).expect(204);
    const life = (await told('life'))!;
    expect(life.evidence).toMatch(/^3 edges of the life on its card: worn at/);
    await learn(life.id, 'take').expect(204);
    expect(tool().lasts).toMatchObject([{ factor: expect.any(Number), note: expect.stringMatching(/^from the log/) }]);
    expect((await told('life'))!.isSo).toBe(true);
    await learn(life.id, 'undo').expect(204);
    expect(tool().lasts).toEqual([]);
    const own = (await told('own'))!;
    const before = tool().ownData;
    await learn(own.id, 'take').expect(204);
    expect(tool().ownData.at(-1)!.note).toMatch(/^from the log: 12 parts in 3 runs/);
    await learn(own.id, 'undo').expect(204);
    expect(tool().ownData).toEqual(before);
  });

  test('what was learnt from entries that were put right since is still taken back', async () => {
    const { id } = (await told('life'))!;
    await learn(id, 'take').expect(204);
    const worn = (await entries()).filter((e) => e.seen?.some((s) => s.edge));
    for (const { id: replaces } of standing(worn)) await write({ replaces, scrapped: 0 }).expect(204);
    expect(await told('life')).toMatchObject({ evidence: expect.stringMatching(/^Nothing of it/), taken: {} });
    await learn(id, 'undo').expect(204);
    expect(tool().lasts).toEqual([]);
    expect(await told('life')).toBeUndefined();
  });

  test('what nobody keeps in the shop any more teaches nothing', async () => {
    const { version } = stores.shop.list('tools').find((t) => t.item.id === toolId)!;
    stores.shop.remove('tools', toolId);
    expect(await lessons(toolId)).toEqual([]);
    stores.shop.restore('tools', toolId);
    expect(version).toBeGreaterThan(0);
  });
});

test('it is looked through, page by page, and taken elsewhere', async () => {
  await write({ remark: 'A chip in the third hole', cause: 'broken tool' }).expect(204);
  const found = await page.get('/api/log').query({ text: 'third chip' });
  expect((found.body as LogRow[]).map((r) => r.remark)).toEqual(['A chip in the third hole']);
  expect(found.headers['x-total-count']).toBe('1');
  const all = await page.get('/api/log');
  const dates = (all.body as LogRow[]).map((r) => r.at);
  expect(dates).toEqual([...dates].sort().reverse());
  expect((await page.get('/api/log').query({ page: 9 })).body).toEqual([]);
  await page.get('/api/log').query({ kind: 'weather' }).expect(422);
  const csv = await page.get('/api/log/entries.csv').query({ text: 'third' }).expect(200);
  expect(csv.text.split('\n')).toHaveLength(3);
  const json = await page.get('/api/log/entries.json').query({ kind: 'simulated' }).expect(200);
  expect((json.body as { entries: LogRow[] }).entries.every((r) => r.kind === 'simulated')).toBe(true);
});

test('what is worth a look is told', async () => {
  for (let i = 0; i < 2; i++) await write({ scrapped: 1, cause: 'size' }).expect(204);
  const told = (await page.get('/api/log/notices')).body as { code: string }[];
  expect(told.map((f) => f.code)).toContain('log-scrap');
});

describe('photos', () => {
  const JPEG = Buffer.from(
    'ffd8ffe000104a46494600010100000100010000ffc0000b080008000801011100ffda0008010100003f00d2cf20ffd9',
    'hex',
  );
  const EXIF = Buffer.concat([JPEG.subarray(0, 2), Buffer.from('ffe1000845786966ffff', 'hex'), JPEG.subarray(2)]);
  async function sent(bytes: Buffer): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    await page.put(`/api/files/${sha256}`).type('application/octet-stream').send(bytes);
    return sha256;
  }

  test('are kept with their entry, without what a camera tells', async () => {
    const photo = await sent(JPEG);
    await page.get(`/api/log/photos/${photo}`).expect(404);
    await write({ photos: [photo] }).expect(204);
    const got = await page.get(`/api/log/photos/${photo}`).expect(200);
    expect(got.headers['content-type']).toBe('image/jpeg');
    expect((got.body as Buffer).equals(JPEG)).toBe(true);
    expect((await entries()).at(-1)!.photos).toEqual([photo]);
    const refused = await write({ photos: [await sent(EXIF)] }).expect(422);
    expect((refused.body as { error: string }).error).toMatch(/where it was taken/);
    expect((await write({ photos: ['0'.repeat(64)] }).expect(422)).body).toMatchObject({ error: /did not arrive/ });
    expect((await write({ photos: [await sent(Buffer.alloc(500_000))] })).status).toBe(422);
  });

  test('outlive the days of files that nobody names', () => {
    const old = '2020-01-01T00:00:00.000Z';
    db.prepare('UPDATE files SET unnamed_since = ?').run(old);
    stores.files.tidy();
    const kept = db.prepare('SELECT count(*) FROM files').pluck().get();
    expect(kept).toBe(db.prepare('SELECT count(DISTINCT sha256) FROM log_photos').pluck().get());
  });
});

test('sizes are kept part by part, corrected by naming what was mistyped; what was entered at the control is kept too', async () => {
  const at = `/api/releases/${first.releaseId}`;
  const measure = (entry: object) =>
    page.post(`${at}/sizes`).send({ id: randomUUID(), size: 'f2 width', part: 1, ...entry });
  const id = randomUUID();
  for (let i = 0; i < 2; i++) await measure({ id, measured: 30.1 }).expect(204);
  await measure({ measured: 30.01, replaces: id }).expect(204);
  await measure({ measured: 30.02, part: 2 }).expect(204);
  await measure({ measured: 30.02, part: 0 }).expect(422);
  const { sizes } = (await page.get(at)).body as { sizes: { id: string; measured: number; replaces?: string }[] };
  expect(standing(sizes).map((s) => s.measured)).toEqual([30.01, 30.02]);
  const correction = { id: randomUUID(), size: 'f2 width', by: 0.007 };
  for (let i = 0; i < 2; i++) await page.post(`${at}/corrections`).send(correction).expect(204);
  for (const table of ['release_sizes', 'release_corrections'])
    expect(() => db.prepare(`DELETE FROM ${table}`).run()).toThrow(/is kept/);
  expect((await page.get(at)).body).toMatchObject({ corrections: [{ ...correction, at: expect.any(String) }] });
});
