/** Releases: proved by the server, kept as they are, handed out where they may be, and to nobody else. */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { Bench, Job, Person, ReleaseRow, ReleaseView, acceptedKey, proven, shortRoot, toAccept } from '@tidypath/core';
import { tightPocket } from '@tidypath/core/testing/jobs';
import { pdfText } from '@tidypath/sheets/testing/pdf-text';
import { createApp, storesOf } from '../../apps/server/src/app';
import type { Computing } from '../../apps/server/src/compute/computing';
import { openDb } from '../../apps/server/src/db/open';
import { ReleaseStore } from '../../apps/server/src/releases/store';
import { folder, root } from './server';

const data = folder();
const db = openDb(data);
const stores = storesOf(db, data);
let day = Date.parse('2026-03-02T08:00:00Z');
const releases = new ReleaseStore(db, stores.jobs, () => new Date(day));

const bench = new Bench();
const made = (job: Job) => {
  const work = proven(bench, job, job.setups[0]);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value!;
  }
};
/** What the threads of a server do, done here. */
const computing = { prove: async ({ job }: { job: Job }) => made(job) } as unknown as Computing;
const app = createApp({ ...stores, releases }, join(root, 'nowhere'), pino({ level: 'silent' }), undefined, computing);
afterAll(() => {
  db.close();
  rmSync(data, { recursive: true, force: true });
});

const [learner, teacher, desk] = [request.agent(app), request.agent(app), request.agent(app)];
const job = tightPocket();
const [setup] = job.setups;
const keys = toAccept(made(job).checks).map(acceptedKey);
let id = '';
const ids: Record<string, string> = {};

interface Words {
  release?: string;
  error?: string;
  held?: { stops: unknown[]; open: { message: string }[] };
}
async function release(agent: typeof desk, version: number, accepted = keys): Promise<{ status: number } & Words> {
  const answer = await agent
    .post('/api/releases')
    .send({ jobId: id, setupId: setup.id, version, accepted })
    .buffer(true)
    .parse((res, done) => {
      let text = '';
      res.on('data', (d: Buffer) => (text += d.toString()));
      res.on('end', () => done(null, text));
    });
  const last = String(answer.body).trim().split('\n').pop() || '{}';
  return { status: answer.status, ...(JSON.parse(last) as Words) };
}
const view = async (r: string) => (await desk.get(`/api/releases/${r}`)).body as ReleaseView;
const programs = (agent: typeof desk, r: string) => agent.get(`/api/releases/${r}/programs`).buffer(true);
const approve = async (agent: typeof desk, r: string, more: object = {}) =>
  agent
    .post(`/api/releases/${r}/answers`)
    .send({ answer: 'approve', root: (await view(r)).root, remark: '', checks: ['how it is held'], ...more });
const save = async (version: number, next: Job) =>
  (await desk.put(`/api/jobs/${id}`).send({ version, job: next })).body.version as number;
const setApproval = (agent: typeof desk, needsApproval: boolean, address = '') =>
  agent.put('/api/handing-out').send({ needsApproval, address });

beforeAll(async () => {
  id = (await desk.post('/api/jobs').send({ job })).body.id;
  const add = async (agent: typeof desk, name: string, roles: string[]) =>
    ((await agent.post('/api/people').send({ name, roles })).body as Person).id;
  ids.learner = await add(desk, 'Lio', ['learner']);
  ids.teacher = await add(desk, 'Ines', ['programmer', 'approver']);
  await learner.post(`/api/people/${ids.learner}/here`).send({});
  await teacher.post(`/api/people/${ids.teacher}/here`).send({});
});

describe('a release', () => {
  let first = '';

  test('is held back until what wants care is accepted, and made of no version but the one that was looked at', async () => {
    const held = await release(desk, 1, []);
    expect(held.held?.stops).toEqual([]);
    expect(held.held?.open.map((f) => f.message)).toEqual(toAccept(made(job).checks).map((f) => f.message));
    expect((await release(desk, 2)).status).toBe(409);
    expect((await desk.post('/api/releases').send({ jobId: id, setupId: setup.id, version: 1 })).status).toBe(422);
  });

  test('keeps the very bytes that were proved, and hands them out again and again', async () => {
    first = (await release(desk, 1)).release!;
    const { root: found, body } = await view(first);
    const again = [await programs(desk, first), await programs(desk, first)].map((a) => a.text);
    expect(again[0]).toBe(again[1]);
    expect(again[0]).toContain(shortRoot(found));
    expect(again[0].replace(shortRoot(found), '00000000')).toBe(made(job).programs[0].text);
    expect(body.proof.steps.length).toBe(1);
    expect((await desk.get(`/api/jobs`)).body[0].state).toBe('released');
  });

  test('of the same is the same release', async () => {
    expect((await release(desk, 1)).release).toBe(first);
    expect((await desk.get(`/api/releases?job=${id}`)).body.releases).toHaveLength(1);
  });

  test('cannot be changed or deleted, not even in the database', () => {
    for (const sql of [
      "UPDATE releases SET root = 'x'",
      'DELETE FROM releases',
      "UPDATE release_programs SET file_name = 'x'",
      'DELETE FROM release_programs',
    ])
      expect(() => db.exec(sql)).toThrow(/never changed|is kept/);
  });

  test('has its sheets as pages and on both papers', async () => {
    const page = await desk.get(`/api/releases/${first}/papers/sheet.html`);
    expect(page.headers['content-type']).toMatch(/text\/html/);
    expect(page.text).toContain(shortRoot((await view(first)).root));
    for (const paper of ['A4', 'Letter']) {
      const pdf = await desk.get(`/api/releases/${first}/papers/sheet-${paper}.pdf`).responseType('blob');
      expect((await pdfText(pdf.body as Buffer))[0]).toContain('How it is held');
    }
    expect((await desk.get(`/api/releases/${first}/papers/first-piece.html`)).text).toContain('First piece');
    expect((await desk.get(`/api/releases/${first}/papers/other.html`)).status).toBe(404);
  });

  test('has a code once the shop has an address, which is none of a folder', async () => {
    expect((await setApproval(desk, false, 'http://10.0.0.5:4380/there')).status).toBe(422);
    expect((await setApproval(desk, false, 'http://10.0.0.5:4380')).status).toBe(204);
    const digits = shortRoot((await view(first)).root);
    expect((await desk.get(`/api/releases/${first}/papers/sheet.html`)).text).toContain(
      `http://10.0.0.5:4380/r/${digits}`,
    );
    expect((await desk.get(`/api/releases/by-root/${digits}`)).body).toEqual({ id: first });
    expect((await desk.get('/api/releases/by-root/12')).status).toBe(404);
  });

  test('goes into the folder of its machine, whole', async () => {
    const { folder: place } = (await desk.post(`/api/releases/${first}/send`)).body as { folder: string };
    const [file] = (await view(first)).files;
    expect(readFileSync(join(data, place, file), 'utf8')).toBe((await programs(desk, first)).text);
    expect(existsSync(join(data, place, `${file}.part`))).toBe(false);
  });

  test('stands in the work list of its machine, with the tools to load', async () => {
    const [row] = (await desk.get('/api/releases')).body as ReleaseRow[];
    expect(row).toMatchObject({ id: first, machine: job.machine.name, state: { state: 'released' } });
    expect(row.toLoad).toEqual([expect.stringMatching(/^T4 /)]);
  });

  test('keeps what was ticked and measured, each row for itself', async () => {
    await desk.post(`/api/releases/${first}/ticks`).send({ item: 'guard', isSo: false });
    await learner.post(`/api/releases/${first}/ticks`).send({ item: 'guard', isSo: true });
    await desk.post(`/api/releases/${first}/sizes`).send({ size: 'f2 width', measured: 50.01 });
    expect((await desk.post(`/api/releases/${first}/sizes`).send({ size: 'f2 width', measured: 'wide' })).status).toBe(
      422,
    );
    const { ticks, sizes } = await view(first);
    expect(ticks.map(({ isSo, who }) => [isSo, who])).toEqual([
      [false, ''],
      [true, 'Lio'],
    ]);
    expect(sizes).toEqual([expect.objectContaining({ size: 'f2 width', measured: 50.01 })]);
  });
});

describe('where programs need approval', () => {
  let waits = '';
  let version = 1;
  const faster = (feed: number): Job => ({
    ...job,
    setups: [{ ...setup, operations: setup.operations.map((o) => ({ ...o, speeds: { ...o.speeds, feed } })) }],
  });
  const keysOf = (j: Job) => toAccept(made(j).checks).map(acceptedKey);

  test('only an approver says so', async () => {
    expect((await setApproval(learner, true)).status).toBe(403);
    expect((await setApproval(desk, true)).status).toBe(403);
    expect((await setApproval(teacher, true, 'http://10.0.0.5:4380')).status).toBe(204);
    expect((await desk.get(`/api/releases?job=${id}`)).body.needsApproval).toBe(true);
  });

  test('whoever releases is named', async () => {
    expect((await release(desk, version)).status).toBe(403);
  });

  test('what was released without a name is released again by somebody who has one', async () => {
    const { releases: before } = (await desk.get(`/api/releases?job=${id}`)).body as { releases: ReleaseRow[] };
    const again = (await release(learner, version)).release!;
    expect(before.map((r) => r.id)).not.toContain(again);
    expect((await release(learner, version)).release).toBe(again);
    expect((await approve(teacher, before[0].id)).text).toContain('Nobody is named');
    expect((await approve(teacher, again)).status).toBe(204);
  });

  test('what nobody has approved is not handed out, nor sent to a machine', async () => {
    version = await save(version, faster(600));
    waits = (await release(learner, version, keysOf(faster(600)))).release!;
    for (const answer of [await programs(learner, waits), await learner.post(`/api/releases/${waits}/send`)]) {
      expect(answer.status).toBe(403);
      expect(answer.text).toContain('nobody has approved it yet');
    }
    expect((await view(waits)).state).toEqual({ state: 'waiting' });
    expect((await desk.get('/api/jobs')).body[0].state).not.toBe('released');
  });

  test('learners approve nothing, nobody their own, and no root but the one that is kept', async () => {
    expect((await approve(learner, waits)).status).toBe(403);
    expect((await approve(desk, waits)).status).toBe(403);
    expect((await approve(teacher, waits, { root: 'f'.repeat(64) })).status).toBe(403);
    expect((await approve(teacher, waits, { answer: 'perhaps' })).status).toBe(422);
    expect((await approve(teacher, waits, { checks: [] })).text).toContain('Say what you looked at');
    expect((await approve(teacher, waits, { checks: ['the weather'] })).status).toBe(422);
    const own = (await release(teacher, version, [])).held!;
    expect(own.open.length).toBeGreaterThan(0);
    expect((await programs(learner, waits)).status).toBe(403);
  });

  test('approved it is handed out byte for byte, with who approved it on its sheet', async () => {
    expect((await approve(teacher, waits, { remark: 'Mind the jaw' })).status).toBe(204);
    const { text, status } = await programs(learner, waits);
    expect((await desk.get('/api/jobs')).body[0].state).toBe('released');
    expect([status, text]).toEqual([200, releases.programs(waits)[0].bytes.toString('utf8')]);
    expect((await learner.get(`/api/releases/${waits}/papers/sheet.html`)).text).toContain(
      'who looked at how it is held: Mind the jaw',
    );
  });

  test('one byte changed in what is kept, and it is handed out no more', async () => {
    const [{ bytes }] = releases.programs(waits);
    const put = (b: Buffer) => {
      db.exec('DROP TRIGGER programs_stay');
      db.prepare('UPDATE release_programs SET bytes = ? WHERE release_id = ?').run(b, waits);
      db.exec(
        "CREATE TRIGGER programs_stay BEFORE UPDATE ON release_programs BEGIN SELECT RAISE(ABORT, 'a release is never changed'); END",
      );
    };
    const other = Buffer.from(bytes);
    other[other.length - 4] ^= 1;
    put(other);
    expect((await programs(learner, waits)).status).toBe(403);
    expect((await approve(teacher, waits)).status).toBe(403);
    put(bytes);
    expect((await programs(learner, waits)).status).toBe(200);
  });

  test('a name changes nothing; another feed makes the approval void, and its answer cannot be given again', async () => {
    version = await save(version, { ...faster(600), name: 'Renamed' });
    expect((await programs(learner, waits)).status).toBe(200);
    version = await save(version, faster(700));
    const refused = await programs(learner, waits);
    expect([refused.status, refused.text]).toEqual([403, expect.stringContaining('the work itself changed since')]);
    expect((await approve(teacher, waits)).status).toBe(403);
    expect((await release(learner, version - 1, keysOf(faster(600)))).status).toBe(409);
  });

  test('a tool further out is named as what changed', async () => {
    const out = faster(600).tools.map((t) => (t.number === 4 ? { ...t, stickOut: t.stickOut + 1 } : t));
    version = await save(version, { ...faster(600), tools: out });
    expect((await view(waits)).state).toEqual({ state: 'void', why: 'the tools changed since' });
  });

  test('back as it was it is approved still, for thirty days', async () => {
    version = await save(version, faster(600));
    expect((await programs(learner, waits)).status).toBe(200);
    day += 31 * 24 * 3600_000;
    expect((await programs(learner, waits)).text).toContain('approved more than 30 days ago');
    expect((await approve(teacher, waits)).status).toBe(204);
    expect((await programs(learner, waits)).status).toBe(200);
  });

  test('the next release says what differs from the one that was approved', async () => {
    version = await save(version, faster(500));
    const next = (await release(learner, version, keysOf(faster(500)))).release!;
    const { difference, number } = await view(next);
    expect(difference?.number).toBe(number - 1);
    expect(difference?.lines[0]).toMatch(/feed 500 mm\/min instead of 600 mm\/min/);
  });

  test('refused it says why, and by whom', async () => {
    const [{ id: newest }] = (await desk.get(`/api/releases?job=${id}`)).body.releases as ReleaseRow[];
    await approve(teacher, newest, { answer: 'refuse', remark: 'Clamp it first' });
    expect((await programs(learner, newest)).text).toContain('refused by Ines: Clamp it first');
  });

  test('who is an approver no more approves nothing, and sets nothing', async () => {
    const [{ id: newest }] = (await desk.get(`/api/releases?job=${id}`)).body.releases as ReleaseRow[];
    await teacher.put(`/api/people/${ids.teacher}`).send({ name: 'Ines', roles: ['programmer'] });
    expect((await approve(teacher, newest)).status).toBe(403);
    expect((await setApproval(teacher, false)).status).toBe(403);
    expect((await teacher.put(`/api/handing-out/jobs/${id}`).send({ needsApproval: true })).status).toBe(403);
  });
});

test('a job alone may need approval, and its copies do then', async () => {
  releases.shopNeedsApproval = false;
  const boss = ((await desk.post('/api/people').send({ name: 'Tor', roles: ['approver'] })).body as Person).id;
  await teacher.post(`/api/people/${boss}/here`).send({});
  expect((await teacher.put(`/api/handing-out/jobs/${id}`).send({ needsApproval: true })).status).toBe(204);
  const copy = (await desk.post(`/api/jobs/${id}/duplicate`)).body.id as string;
  expect((await desk.get(`/api/releases?job=${copy}`)).body.needsApproval).toBe(true);
});

test('releases outlive their job', async () => {
  const [{ id: kept }] = (await desk.get(`/api/releases?job=${id}`)).body.releases as ReleaseRow[];
  await desk.delete(`/api/jobs/${id}`);
  db.prepare('DELETE FROM jobs WHERE id = ?').run(id);
  expect((await view(kept)).body.job.name).toBe(job.name);
});

test('a kill at any moment leaves whole releases, and all that were said to be kept', async () => {
  const place = folder();
  const child = spawn(join(root, 'node_modules/.bin/tsx'), ['tests/safe/releasing.ts', place], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'ignore'],
    detached: true,
  });
  let said = '';
  // It is killed in the middle of the work that follows the twelfth.
  await new Promise<void>((done) => {
    child.on('close', () => done());
    child.stdout.on('data', (d: Buffer) => {
      said += d.toString();
      if (said.split('\n').length > 12) process.kill(-child.pid!, 'SIGKILL');
    });
  });
  const known = said.split('\n').slice(0, -1);
  const again = openDb(place);
  const { releases: kept } = storesOf(again, place);
  const all = again.prepare<[], string>('SELECT id FROM releases').pluck().all();
  expect(known.length).toBeGreaterThanOrEqual(12);
  expect(known.filter((one) => !all.includes(one))).toEqual([]);
  expect(all.filter((one) => !kept.isIntact(one) || kept.view(one)!.files.length !== 1)).toEqual([]);
  again.close();
  rmSync(place, { recursive: true, force: true });
});
