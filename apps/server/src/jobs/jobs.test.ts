import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { newJob } from '@tidypath/core';
import { createApp, storesOf } from '../app';
import { openDb } from '../db/open';
import { seedDemo } from '../demo';
import { JobStore } from './store';
import { folder, root } from '../../testing/folder';

describe('jobs over HTTP', () => {
  const data = folder();
  const db = openDb(data);
  const store = new JobStore(db);
  const app = createApp(
    { ...storesOf(db, data), jobs: store },
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

  test('what is said at its operations is kept in order, once however often it is sent', async () => {
    const { id } = await create();
    const at = `/api/jobs/${id}/comments`;
    const say = (n: number, text: string) =>
      request(app)
        .post(at)
        .send({ id: String(n).repeat(32), operation: 'o1', text });
    expect((await say(1, 'Why 0.3 here?')).status).toBe(204);
    await say(2, 'For the finish pass');
    expect((await say(1, 'Why 0.3 here?')).status).toBe(204);
    expect((await say(3, '')).status).toBe(422);
    const { body } = await request(app).get(at);
    expect(body).toMatchObject([{ text: 'Why 0.3 here?', operation: 'o1', who: '' }, { text: 'For the finish pass' }]);
    expect(
      (
        await request(app)
          .post('/api/jobs/00000000-0000-0000-0000-000000000000/comments')
          .send({ id: '4'.repeat(32), operation: 'o1', text: 'x' })
      ).status,
    ).toBe(404);
  });

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
    expect((await request(app).get(`/api/jobs/${id}`)).status).toBe(410);
    expect((await request(app).post(`/api/jobs/${id}/restore`)).status).toBe(204);
    const list = (await request(app).get('/api/jobs')).body as { name: string }[];
    expect(list.map((j) => j.name)).toEqual(expect.arrayContaining(['Plate B', 'Plate B copy']));
  });

  test('made where nobody answered, a job is saved over nothing; sent twice it is answered alike', async () => {
    const id = 'c0ffee00'.repeat(4);
    const save = (name: string) =>
      request(app)
        .put(`/api/jobs/${id}`)
        .send({ version: 0, job: { ...job, name } });
    const answers = [await save('Made off line'), await save('Made off line')];
    expect(answers.map((a) => [a.status, a.body])).toEqual(Array(2).fill([200, { saved: true, version: 1 }]));
    expect((await request(app).get(`/api/jobs/${id}`)).body).toMatchObject({
      version: 1,
      job: { name: 'Made off line' },
    });
    expect((await save('Another')).status).toBe(409);
    expect((await request(app).get(`/api/jobs/${id}/versions`)).body).toHaveLength(2);
    for (const [method, path] of [
      ['delete', ''],
      ['post', '/restore'],
      ['put', '/archive'],
      ['delete', '/archive'],
    ] as const) {
      const twice = [1, 2].map(() => request(app)[method](`/api/jobs/${id}${path}`));
      expect((await Promise.all(twice)).map((a) => a.status)).toEqual([204, 204]);
      expect((await request(app)[method](`/api/jobs/${'0'.repeat(32)}${path}`)).status).toBe(404);
    }
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
    const kept = (await request(app).get(`/api/jobs/${id}/versions/${late.body.keptId}`)).body;
    expect(kept).toMatchObject({ job: { name: 'Theirs' } });
  });

  test('a bad job is refused with findings and changes nothing', async () => {
    const { id } = await create('Good');
    const bad = await request(app)
      .put(`/api/jobs/${id}`)
      .send({ version: 1, job: { ...job, part: { ...job.part, thickness: -1 } } });
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

  test('the demo shop is put in once, solids with their files', async () => {
    const other = folder();
    const fresh = openDb(other);
    const stores = storesOf(fresh, other);
    const { jobs: demo, files, releases } = stores;
    const seed = () => seedDemo(stores, join(root, 'demo'));
    expect([await seed(), await seed()]).toEqual([7, 0]);
    const solids = demo.list().jobs.flatMap(({ id }) => {
      const row = demo.get(id);
      return row && 'job' in row && row.job.part.kind === 'solid' ? [row.job.part.surface, row.job.part.source!] : [];
    });
    expect(solids).toHaveLength(4);
    const [approved, ...others] = releases.workList();
    expect(others).toEqual([]);
    expect(approved).toMatchObject({ jobName: 'Vane hub plate', who: 'Lio', state: { state: 'approved', by: 'Ines' } });
    expect(releases.isIntact(approved.id)).toBe(true);
    solids.forEach(({ sha256 }) => expect(files.size(sha256)).toBeGreaterThan(50_000));
    fresh.close();
    rmSync(other, { recursive: true, force: true });
  });
});
