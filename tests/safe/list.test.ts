/** A list of many jobs: the server searches, sorts and pages it. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { JOBS_PER_PAGE, Job, JobSummary, MACHINES, MATERIALS, newJob, parseJob } from '@tidypath/core';
import { readFileSync } from 'node:fs';
import { createApp, storesOf } from '../../apps/server/src/app';
import { openDb } from '../../apps/server/src/db/open';
import { JobStore } from '../../apps/server/src/jobs/store';
import { folder, root } from './server';

describe('the list', () => {
  const data = folder();
  const db = openDb(data);
  let at = Date.parse('2026-03-02T08:00:00Z');
  const jobs = new JobStore(db, () => new Date((at += 1000)));
  const stores = { ...storesOf(db, data), jobs };
  const app = createApp(stores, join(root, 'nowhere'), pino({ level: 'silent' }));
  const plate = parseJob(readFileSync(join(root, 'demo/jobs/vane-hub-plate.json'), 'utf8')).job!;
  const bracket = parseJob(readFileSync(join(root, 'demo/jobs/float-pulley-bracket.json'), 'utf8')).job!;
  const made: Record<string, string> = {};
  const make = (name: string, from: Job, more: Partial<Job> = {}) =>
    (made[name] = jobs.create({ ...from, name, ...more }).id);
  beforeAll(() => {
    for (let i = 0; i < 60; i++) make(`Filler ${String(i).padStart(2, '0')}`, newJob('x', 'mm'));
    make('Öffner ring', plate, { tags: ['Ünique', 'ring'], customerNumber: 'GR-4711' });
    make('Bracket', bracket, { tags: ['ring'] });
  });
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });

  const ask = async (question: Record<string, string | number> = {}) => {
    const answer = await request(app).get('/api/jobs').query(question);
    const found = answer.body as JobSummary[];
    return { names: found.map((j) => j.name), total: Number(answer.headers['x-total-count']), found };
  };
  const stateOf = async (name: string) => (await ask({ words: name })).found[0];

  test('is paged', async () => {
    const first = await ask();
    expect([first.names.length, first.total]).toEqual([JOBS_PER_PAGE, 62]);
    const last = await ask({ page: 2 });
    expect(last.names).toHaveLength(62 - 2 * JOBS_PER_PAGE);
    expect(await ask({ page: 99 })).toMatchObject({ names: [], total: 62 });
  });

  test('is sorted', async () => {
    expect((await ask()).names[0]).toBe('Bracket');
    expect((await ask({ order: 'name' })).names.slice(0, 2)).toEqual(['Bracket', 'Filler 00']);
  });

  test.each<[string, Record<string, string>, string[]]>([
    ['words in any order and case, other letters too', { words: 'RING öff' }, ['Öffner ring']],
    ['a tag among the words', { words: 'ünique' }, ['Öffner ring']],
    ['the customer’s number', { words: 'gr-4711' }, ['Öffner ring']],
    ['signs that mean something to a database', { words: '%' }, []],
    ['a tag', { tag: 'ring' }, ['Bracket', 'Öffner ring']],
    ['a material', { material: plate.material.name, words: 'ring' }, ['Öffner ring']],
    ['a machine', { machine: bracket.machine.name, tag: 'ring' }, ['Bracket']],
    ['a state', { state: 'not proved' }, ['Bracket', 'Öffner ring']],
    ['a state nobody knows is not asked', { state: 'wrong', tag: 'ring' }, ['Bracket', 'Öffner ring']],
  ])('is searched by %s', async (_, question, names) => expect((await ask(question)).names).toEqual(names));

  test('says what jobs can be told apart by', async () => {
    const { body } = await request(app).get('/api/jobs/choices');
    expect(body.tags).toEqual(['ring', 'Ünique']);
    expect(body.materials).toEqual(expect.arrayContaining([MATERIALS[0].name, plate.material.name]));
    expect(body.machines).toEqual(expect.arrayContaining([MACHINES[0].name]));
  });

  test('a job is archived out of the list and brought back into it, unchanged', async () => {
    const path = `/api/jobs/${made.Bracket}/archive`;
    expect((await request(app).put(path)).status).toBe(204);
    expect((await ask({ words: 'bracket' })).total).toBe(0);
    expect((await ask({ place: 'archive' })).names).toEqual(['Bracket']);
    expect((await request(app).delete(path)).status).toBe(204);
    expect((await ask({ words: 'bracket' })).found[0]).toMatchObject({ archived: false, version: 1 });
  });

  test('a card knows how far a job is: proved and released when all its setups are, out of date when it goes on', async () => {
    const id = made['Öffner ring'];
    const { job, version } = jobs.get(id) as { job: Job; version: number };
    const stand = (setup: number, stops: number, at = version) =>
      request(app)
        .put(`/api/jobs/${id}/standing`)
        .send({ version: at, setupId: job.setups[setup].id, stops, seconds: 100 });
    expect((await stateOf('Öffner')).state).toBe('not proved');
    await stand(0, 2);
    expect(await stateOf('Öffner')).toMatchObject({ state: 'to cure', stops: 2, seconds: 0 });
    await stand(0, 0);
    expect((await stateOf('Öffner')).state).toBe('not proved');
    await stand(1, 0);
    expect(await stateOf('Öffner')).toMatchObject({ state: 'proved', seconds: 200 });
    const release = (i: number) => jobs.release(id, job.setups[i].id);
    release(0);
    release(0);
    expect((await stateOf('Öffner')).state).toBe('proved');
    release(1);
    expect((await stateOf('Öffner')).state).toBe('released');
    // A remark changes nothing a program depends on; a value does, and taking it back makes it what it was.
    jobs.save(id, version, { ...job, note: 'mind the burr' });
    expect((await stateOf('Öffner')).state).toBe('released');
    jobs.save(id, version + 1, { ...job, boldness: 0.9 });
    expect((await stateOf('Öffner')).state).toBe('out of date');
    jobs.save(id, version + 2, job);
    expect((await stateOf('Öffner')).state).toBe('released');
    expect((await stand(0, 0, version)).status).toBe(404);
    expect((await stand(0, -1)).status).toBe(422);
  });
});
