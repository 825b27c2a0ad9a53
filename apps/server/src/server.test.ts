import { ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { HOLDERS, Job, TOOLS, Tool, addOperation, newJob } from '@tidypath/core';
import { createApp } from './app';
import { openDb } from './db/open';
import { seedDemo } from './services/demo';
import { JobStore } from './services/jobs';
import { ShopStore } from './services/shop';

const root = resolve(__dirname, '../../..');
const folder = () => mkdtempSync(join(tmpdir(), 'tidypath-server-'));

describe('jobs over HTTP', () => {
  const data = folder();
  const db = openDb(data);
  const store = new JobStore(db);
  const app = createApp(
    { jobs: store, shop: new ShopStore(db) },
    join(root, 'no-such-folder'),
    pino({ level: 'silent' }),
  );
  const job = newJob('Plate', 'mm');
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });
  const create = async (name = 'Plate') =>
    (
      await request(app)
        .post('/api/jobs')
        .send({ job: { ...job, name } })
    ).body as { id: string; version: number };

  test('made, read, saved, copied, deleted and brought back', async () => {
    const { id, version } = await create();
    expect(version).toBe(1);
    expect((await request(app).get(`/api/jobs/${id}`)).body.job).toEqual(job);
    expect(
      (
        await request(app)
          .put(`/api/jobs/${id}`)
          .send({ version: 1, job: { ...job, name: 'Plate B' } })
      ).body,
    ).toEqual({ saved: true, version: 2 });
    const copy = await request(app).post(`/api/jobs/${id}/duplicate`);
    expect(copy.body.job.name).toBe('Plate B copy');
    expect((await request(app).delete(`/api/jobs/${id}`)).status).toBe(204);
    expect((await request(app).get(`/api/jobs/${id}`)).status).toBe(404);
    expect((await request(app).post(`/api/jobs/${id}/restore`)).status).toBe(204);
    const list = (await request(app).get('/api/jobs')).body as { name: string }[];
    expect(list.map((j) => j.name)).toEqual(expect.arrayContaining(['Plate B', 'Plate B copy']));
  });

  test('the later of two saves is told, and neither is lost', async () => {
    const { id } = await create('Shared');
    await request(app)
      .put(`/api/jobs/${id}`)
      .send({ version: 1, job: { ...job, name: 'Mine' } });
    const late = await request(app)
      .put(`/api/jobs/${id}`)
      .send({ version: 1, job: { ...job, name: 'Theirs' } });
    expect(late.status).toBe(409);
    expect(late.body).toMatchObject({ saved: false, current: { version: 2, job: { name: 'Mine' } } });
    expect(store.refused(id).map((r) => r.job.name)).toEqual(['Theirs']);
    expect((await request(app).get(`/api/jobs/${id}/refused`)).body).toHaveLength(1);
  });

  test('a bad job is refused with findings and changes nothing', async () => {
    const { id } = await create('Good');
    const bad = await request(app)
      .put(`/api/jobs/${id}`)
      .send({ version: 1, job: { ...job, part: { thickness: -1, features: [] } } });
    expect(bad.status).toBe(422);
    expect(bad.body.findings[0].place.field).toBe('part.thickness');
    expect((await request(app).get(`/api/jobs/${id}`)).body.version).toBe(1);
  });

  test.each([
    ['an id that is a path', () => request(app).get('/api/jobs/..%2f..%2fetc%2fpasswd'), 404],
    ['a file outside the app', () => request(app).get('/..%2f..%2fpackage.json'), 404],
    ['something that is not there', () => request(app).get('/api/nothing'), 404],
    ['broken JSON', () => request(app).post('/api/jobs').set('content-type', 'application/json').send('{"a":'), 400],
    ['a form instead of JSON', () => request(app).post('/api/jobs').type('form').send({ job: 'x' }), 415],
    [
      'a body that is too large',
      () =>
        request(app)
          .post('/api/jobs')
          .send({ job: 'x'.repeat(17 * 1024 * 1024) }),
      413,
    ],
    ['another site', () => request(app).post('/api/jobs').set('sec-fetch-site', 'cross-site').send({ job }), 403],
    [
      'a version that is none',
      () => request(app).put('/api/jobs/00000000-0000-0000-0000-000000000000').send({ version: 'x', job }),
      400,
    ],
    ['an array for a job', () => request(app).post('/api/jobs').send({ job: [] }), 422],
    ['no job at all', () => request(app).post('/api/jobs').send({}), 422],
  ])('%s is refused plainly', async (_, ask, status) => {
    const answer = await ask();
    expect(answer.status).toBe(status);
    expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|\bat \w+ \(|\/src\//);
  });

  test('a script in a name stays text', async () => {
    const { id } = await create('<script>alert(1)</script>');
    const answer = await request(app).get(`/api/jobs/${id}`);
    expect(answer.type).toBe('application/json');
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
    expect(answer.headers['content-security-policy']).toMatch(/default-src 'self'/);
  });

  test('the demo shop is put in once', () => {
    const other = folder();
    const fresh = openDb(other);
    const demo = new JobStore(fresh);
    expect(seedDemo(demo, join(root, 'demo/jobs'))).toBe(3);
    expect(seedDemo(demo, join(root, 'demo/jobs'))).toBe(0);
    fresh.close();
    rmSync(other, { recursive: true, force: true });
  });
});

describe('the shop over HTTP', () => {
  const data = folder();
  const db = openDb(data);
  const jobs = new JobStore(db);
  const shop = new ShopStore(db);
  shop.seed();
  const app = createApp({ jobs, shop }, join(root, 'no-such-folder'), pino({ level: 'silent' }));
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
    expect((await request(app).delete('/api/shop/tools/t1')).status).toBe(404);
    expect((await request(app).post('/api/shop/tools/t1/restore')).status).toBe(204);
    expect((await put({ ...t1, flutes: 5 }, 2)).body.version).toBe(3);
    expect((await put({ ...t1, id: 'mine', number: 90 }, 0)).body).toEqual({ saved: true, version: 1 });
    expect((await put({ ...t1, id: 'mine', number: 90 }, 0)).status).toBe(409);
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
    jobs.create(job);
    const used = async (path: string) =>
      ((await request(app).get(`/api/shop/${path}/jobs`)).body as { name: string }[]).map((j) => j.name);
    expect(await used('tools/t2')).toEqual(['Uses T2']);
    expect(await used('tools/t5')).toEqual([]);
    expect(await used(`holders/${t2.holder.id}`)).toEqual(['Uses T2']);
    expect(await used(`machines/${job.machine.id}`)).toEqual(['Uses T2']);
    expect(await used(`materials/${job.material.id}`)).toEqual(['Uses T2']);
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

describe('killed while saving', () => {
  const data = folder();
  let child: ChildProcess | undefined;
  let port = 0;
  afterAll(() => {
    child?.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  });

  const freePort = () =>
    new Promise<number>((done) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port: found } = probe.address() as { port: number };
        probe.close(() => done(found));
      });
    });

  async function start(): Promise<void> {
    port = await freePort();
    child = spawn(join(root, 'node_modules/.bin/tsx'), ['apps/server/src/main.ts'], {
      cwd: root,
      env: { ...process.env, PORT: String(port), TIDYPATH_DATA: data },
      stdio: 'ignore',
      detached: true,
    });
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`http://127.0.0.1:${port}/api/health`)
          .then((r) => r.ok)
          .catch(() => false)
      )
        return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not start');
  }

  /** Kills the whole process group, as a power cut would. */
  const kill = () => process.kill(-child!.pid!, 'SIGKILL');

  test('no acknowledged save is lost, and it starts again by itself', async () => {
    await start();
    const send = (method: string, path: string, body: unknown) =>
      fetch(`http://127.0.0.1:${port}/api${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const job: Job = { ...newJob('Kill me', 'mm'), note: 'x'.repeat(3000) };
    const made = (await (await send('POST', '/jobs', { job })).json()) as { id: string };
    let acknowledged = 1;
    const rounds = Number(process.env.KILL_ROUNDS ?? 4);
    for (let round = 0; round < rounds; round++) {
      let stopped = false;
      const saving = (async () => {
        while (!stopped) {
          const answer = await send('PUT', `/jobs/${made.id}`, {
            version: acknowledged,
            job: { ...job, name: `v${acknowledged + 1}` },
          }).catch(() => undefined);
          const body = answer?.ok
            ? ((await answer.json().catch(() => undefined)) as { version: number } | undefined)
            : undefined;
          if (!body) return;
          acknowledged = body.version;
        }
      })();
      await new Promise((r) => setTimeout(r, 60 + round * 37));
      kill();
      stopped = true;
      await saving;
      await start();
      const row = (await (await fetch(`http://127.0.0.1:${port}/api/jobs/${made.id}`)).json()) as {
        version: number;
        job: Job;
      };
      expect(row.version).toBeGreaterThanOrEqual(acknowledged);
      expect(row.job.name).toBe(`v${row.version}`);
      acknowledged = row.version;
    }
    expect(acknowledged).toBeGreaterThan(rounds);
    kill();
  }, 120_000);
});
