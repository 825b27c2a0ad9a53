import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { BARS, HOLDERS, TOOLS, Tool, addOperation, newJob } from '@tidypath/core';
import { createApp, storesOf } from '../app';
import { openDb } from '../db/open';
import { JobStore } from '../jobs/store';
import { ShopStore } from './store';
import { folder, root } from '../../testing/folder';

describe('the shop over HTTP', () => {
  const data = folder();
  const db = openDb(data);
  const jobs = new JobStore(db);
  const shop = new ShopStore(db);
  shop.seed();
  const app = createApp({ ...storesOf(db, data), jobs, shop }, join(root, 'no-such-folder'), pino({ level: 'silent' }));
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });
  const put = (item: Tool, version: number) => request(app).put(`/api/shop/tools/${item.id}`).send({ version, item });
  const [t1, t2] = TOOLS;

  test('starts with the starting shop, once', async () => {
    shop.seed();
    const tools = (await request(app).get('/api/shop/tools')).body as { version: number; item: { id: string } }[];
    expect(tools.map((t) => t.item.id)).toEqual(TOOLS.map((t) => t.id));
    expect(tools[0].version).toBe(1);
    expect((await request(app).get('/api/shop/holders')).body).toHaveLength(HOLDERS.length);
    expect((await request(app).get('/api/shop/recipes')).body).toEqual([]);
  });

  test('changed, put aside, brought back; a late save is told what stands there', async () => {
    expect((await put({ ...t1, flutes: 6 }, 1)).body).toEqual({ saved: true, version: 2 });
    const late = await put({ ...t1, flutes: 7 }, 1);
    expect([late.status, late.body.current.item.flutes]).toEqual([409, 6]);
    expect((await request(app).delete('/api/shop/tools/t1')).status).toBe(204);
    expect((await request(app).delete('/api/shop/tools/t1')).status).toBe(204);
    expect((await request(app).delete('/api/shop/tools/t99')).status).toBe(404);
    expect((await request(app).post('/api/shop/tools/t1/restore')).status).toBe(204);
    expect((await put({ ...t1, flutes: 5 }, 2)).body.version).toBe(3);
    expect((await put({ ...t1, id: 'mine', number: 90 }, 0)).body).toEqual({ saved: true, version: 1 });
    // The answer did not arrive: the same again.
    expect((await put({ ...t1, id: 'mine', number: 90 }, 0)).body).toEqual({ saved: true, version: 1 });
    expect((await put({ ...t1, id: 'mine', number: 91 }, 0)).status).toBe(409);
  });

  test('many at once: all or none', async () => {
    const all = (entries: unknown) => request(app).post('/api/shop/tools').send({ entries });
    const fresh = { ...t2, id: 'bulk', number: 91 };
    const one = await all([
      { version: 0, item: fresh },
      { version: 9, item: t2 },
    ]);
    expect([one.status, one.body]).toEqual([409, { saved: false, late: ['t2'] }]);
    expect(shop.list('tools').some((t) => t.item.id === 'bulk')).toBe(false);
    expect((await all([{ version: 0, item: fresh }])).body.saved).toBe(true);
    const bad = await all([{ version: 1, item: { ...t2, fluteLength: 500 } }]);
    expect([bad.status, bad.body.findings[0].place]).toEqual([422, { field: 'fluteLength', line: 1 }]);
    expect((await all('x')).status).toBe(400);
  });

  test('says which jobs use a tool, its holder, a machine, a material', async () => {
    const job = addOperation(newJob('Uses T2', 'mm'), 's1', 'face', [], t2);
    const [setup] = job.setups;
    jobs.create({ ...job, setups: [{ ...setup, stock: { ...setup.stock, bar: BARS[0] } }] });
    const used = async (path: string) =>
      ((await request(app).get(`/api/shop/${path}/jobs`)).body as { name: string }[]).map((j) => j.name);
    expect(await used('tools/t2')).toEqual(['Uses T2']);
    expect(await used('tools/t5')).toEqual([]);
    expect(await used(`holders/${t2.holder.id}`)).toEqual(['Uses T2']);
    expect(await used(`machines/${job.machine.id}`)).toEqual(['Uses T2']);
    expect(await used(`materials/${job.material.id}`)).toEqual(['Uses T2']);
    expect(await used(`bars/${BARS[0].id}`)).toEqual(['Uses T2']);
    expect(await used(`bars/${BARS[1].id}`)).toEqual([]);
    expect(await used('recipes/x')).toEqual([]);
  });

  test.each([
    ['a shelf that is not there', () => request(app).get('/api/shop/shoes'), 404],
    ['a tool without a version', () => request(app).put('/api/shop/tools/t3').send({ item: TOOLS[2] }), 400],
    [
      'another id than the address',
      () => request(app).put('/api/shop/tools/t4').send({ version: 1, item: TOOLS[2] }),
      400,
    ],
    ['impossible geometry', () => put({ ...t2, cornerRadius: 40 }, 1), 422],
    ['nothing', () => request(app).put('/api/shop/tools/x').send({ version: 1 }), 422],
  ])('%s is refused plainly', async (_, ask, status) => expect((await ask()).status).toBe(status));
});
