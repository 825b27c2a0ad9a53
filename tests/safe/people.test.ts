/** People of the shop: names, roles, PINs, and who is at a device. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { Person, newJob } from '@tidypath/core';
import { createApp, storesOf } from '../../apps/server/src/app';
import { openDb } from '../../apps/server/src/db/open';
import { People } from '../../apps/server/src/guard/people';
import { JobStore } from '../../apps/server/src/jobs/store';
import { folder, root } from './server';

describe('people', () => {
  const data = folder();
  const db = openDb(data);
  let at = Date.parse('2026-03-02T08:00:00Z');
  const people = new People(db, () => new Date(at));
  const jobs = new JobStore(db);
  const app = createApp({ ...storesOf(db, data), jobs, people }, join(root, 'nowhere'), pino({ level: 'silent' }));
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });
  const desk = request.agent(app);
  const bench = request.agent(app);
  const add = async (agent: typeof desk, name: string, roles: string[], pin?: string) =>
    agent.post('/api/people').send({ name, roles, pin });
  const here = async (agent: typeof desk) => {
    const { people: all, here: id } = (await agent.get('/api/people')).body as {
      people: Person[];
      here: string | null;
    };
    return all.find((p) => p.id === id)?.name;
  };
  const known: Record<string, string> = {};

  test('have a name, roles and an optional PIN, which is kept as a hash', async () => {
    known.learner = (await add(desk, 'Lio', ['learner'])).body.id;
    known.programmer = (await add(desk, 'Mara', ['programmer'], '2468')).body.id;
    expect((await add(desk, 'Nobody', [])).status).toBe(422);
    expect((await add(desk, 'Nobody', ['boss'])).status).toBe(422);
    expect((await add(desk, 'Nobody', ['learner'], '12')).status).toBe(422);
    expect((await desk.get('/api/people')).body.people).toEqual([
      { id: known.learner, name: 'Lio', roles: ['learner'], hasPin: false },
      { id: known.programmer, name: 'Mara', roles: ['programmer'], hasPin: true },
    ]);
    const stored = db.prepare('SELECT pin FROM people WHERE id = ?').pluck().get(known.programmer) as string;
    expect(stored).not.toContain('2468');
  });

  test('are chosen on a device, with their PIN, and sign what they save', async () => {
    expect((await desk.post(`/api/people/${known.programmer}/here`).send({ pin: '1111' })).status).toBe(403);
    const chosen = await desk.post(`/api/people/${known.programmer}/here`).send({ pin: '2468' });
    expect(chosen.headers['set-cookie'][0]).toMatch(/HttpOnly; SameSite=Strict/);
    await bench.post(`/api/people/${known.learner}/here`).send({});
    expect([await here(desk), await here(bench)]).toEqual(['Mara', 'Lio']);
    const { id } = (await desk.post('/api/jobs').send({ job: newJob('Plate', 'mm') })).body as { id: string };
    await bench.put(`/api/jobs/${id}`).send({ version: 1, job: newJob('Plate B', 'mm') });
    expect(jobs.versions(id).map((v) => v.who)).toEqual(['Lio', 'Mara']);
    await bench.delete('/api/people/here');
    expect(await here(bench)).toBeUndefined();
  });

  test('a forged name is nobody, and another PIN ends what was chosen with the old one', async () => {
    const forged = await request(app).get('/api/people').set('cookie', `tidypath-person=${known.programmer}.forged`);
    expect(forged.body.here).toBeNull();
    await desk.put(`/api/people/${known.programmer}`).send({ name: 'Mara', roles: ['programmer'], pin: '8642' });
    expect(await here(desk)).toBeUndefined();
  });

  test('five wrong PINs, then each makes the next try wait 1, 2, 4 minutes; the right one does not pass meanwhile', async () => {
    const attempt = async (pin: string) =>
      (await desk.post(`/api/people/${known.programmer}/here`).send({ pin })).status;
    for (let i = 0; i < 5; i++) expect(await attempt('0000')).toBe(403);
    expect(await attempt('8642')).toBe(429);
    at += 61_000;
    expect(await attempt('0000')).toBe(403);
    at += 61_000;
    expect(await attempt('8642')).toBe(429);
    at += 61_000;
    expect(await attempt('8642')).toBe(204);
    expect(await here(desk)).toBe('Mara');
  });

  test('forgotten PINs are taken away by whoever owns the server, and nobody is at a device by an old one', async () => {
    people.forgetPins();
    expect(await here(desk)).toBeUndefined();
    expect((await desk.post(`/api/people/${known.programmer}/here`).send({})).status).toBe(204);
  });

  test('once there is an approver, approvers alone say who is who; everybody keeps their own name and PIN', async () => {
    known.approver = (await add(desk, 'Ode', ['approver', 'programmer'], '1357')).body.id;
    expect((await add(desk, 'Pim', ['approver'])).status).toBe(403);
    const change = (body: object) => desk.put(`/api/people/${known.programmer}`).send(body);
    expect((await change({ name: 'Mara', roles: ['approver'] })).status).toBe(403);
    expect((await change({ name: 'Mara K', roles: ['programmer'] })).status).toBe(204);
    expect((await desk.delete(`/api/people/${known.learner}`)).status).toBe(403);
    await bench.post(`/api/people/${known.approver}/here`).send({ pin: '1357' });
    expect((await bench.delete(`/api/people/${known.learner}`)).status).toBe(204);
    expect((await bench.delete(`/api/people/${known.learner}`)).status).toBe(404);
  });
});
