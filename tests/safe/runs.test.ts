/** Runs on simulated machines: seen by all, kept before they are told, where they stood when the power went. */
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { MachineView, readStream } from '@tidypath/controller';
import { RunEvent, RunRow } from '@tidypath/core';
import { createApp } from '../../apps/server/src/app';
import { Hall } from '../../apps/server/src/runs/hall';
import { Operator } from '../../apps/server/src/runs/operator';
import { here, releaseOn } from './released';
import { folder, root } from './server';

const data = folder();
const { db, stores, jobId, run: first } = releaseOn(data);
stores.shop.seed();
const hall = new Hall(here);
const app = createApp(stores, join(root, 'nowhere'), pino({ level: 'silent' }), undefined, undefined, hall);
const page = request.agent(app);
afterAll(async () => {
  await hall.close();
  db.close();
  rmSync(data, { recursive: true, force: true });
});

interface Answer {
  row: RunRow;
  events: RunEvent[];
  shown: { view: MachineView; isOn: boolean };
}
const look = async (id: string) => (await page.get(`/api/runs/${id}`)).body as Answer;
const press = async (id: string, one: object) => (await page.post(`/api/runs/${id}/press`).send(one)).body;
async function begin(seed = 1): Promise<string> {
  const answer = await page.post('/api/runs').send({ releaseId: first.releaseId, seed });
  expect(answer.status).toBe(201);
  return (answer.body as { id: string }).id;
}
async function touchOff(id: string): Promise<void> {
  for (const axis of ['x', 'y']) await press(id, { press: 'touch zero', axis });
  await press(id, { press: 'touch zero', axis: 'z', n: 4 });
}

test('a released program runs to its end; what was not ticked off is written down', async () => {
  const id = await begin();
  expect((await look(id)).shown).toMatchObject({ isOn: true, view: { state: 'ready', registers: [{ tool: 4 }] } });
  expect((await press(id, { press: 'start' })).refused).toMatch(/zero is not set/);
  await touchOff(id);
  expect(await press(id, { press: 'start' })).toEqual({});
  expect((await look(id)).shown.view.state).toBe('running');
  await page.post(`/api/runs/${id}/onward`).expect(200);
  const { shown, events, row } = await look(id);
  expect(shown.view.state).toBe('done');
  expect(row.state).toBe('done');
  expect(events.map((e) => e.what)).toEqual(expect.arrayContaining(['unchecked', 'entered', 'start', 'tool', 'done']));
  expect(events.filter((e) => e.what === 'unchecked')).toHaveLength(1);
  expect(events.find((e) => e.what === 'unchecked')!.words).toMatch(/of \d+ points of the checklist were open/);
  const csv = await page.get(`/api/runs/${id}/stream.csv`);
  expect(csv.text.split('\n')[0]).toBe('t_s,x_mm,y_mm,z_mm,load_pct,vib_um');
  const rows = readStream(csv.text);
  expect(rows).toHaveLength(Math.ceil(shown.view.ran * 10) - Math.round(rows[0].t * 10));
  const piece = (await page.get(`/api/runs/${id}/piece`)).body as {
    findings: { code: string }[];
    surface: { nx: number; ny: number; height: number[] };
  };
  expect(piece.surface.height).toHaveLength(piece.surface.nx * piece.surface.ny);
  expect(piece.findings.filter((f) => f.code === 'gouge')).toEqual([]);
});

test('a wrong length crashes, at its line', async () => {
  const id = await begin();
  await touchOff(id);
  const { entered } = (await look(id)).shown.view.registers[0];
  await press(id, { press: 'enter length', n: 4, mm: entered! - 15 });
  await press(id, { press: 'start' });
  await page.post(`/api/runs/${id}/onward`);
  const { view } = (await look(id)).shown;
  expect(view.state).toBe('alarm');
  expect([11, 16, 21, 22]).toContain(view.alarm!.number);
});

test('with block skip on, blocks that begin with a stroke are left out; it is said before the piece is begun', () => {
  const { job } = stores.releases.body(first.releaseId)!;
  const [program] = stores.releases.programs(first.releaseId);
  // A stop after the head, which may be skipped.
  const text = program.bytes.toString('utf8').replace(/^(.*G21.*)$/m, '$1\n/M0');
  let view: MachineView | undefined;
  const operator = new Operator(
    { job, setupId: first.setupId, text, seed: 1, files: [], cell: 0.5 },
    (shown) => (view = shown.view),
  );
  const skip = (on: boolean) => operator.press({ press: 'switch', which: 'blockSkip', on });
  for (const axis of ['x', 'y'] as const) operator.press({ press: 'touch zero', axis });
  operator.press({ press: 'touch zero', axis: 'z', n: 4 });
  expect(skip(true)).toBeUndefined();
  expect(operator.press({ press: 'start' })).toBeUndefined();
  expect(skip(false)).toMatch(/put on a new piece first/);
  operator.onward();
  expect(view!.state).toBe('done');
  expect(skip(false)).toMatch(/put on a new piece first/);
  operator.press({ press: 'new piece' });
  expect(skip(false)).toBeUndefined();
  operator.press({ press: 'start' });
  operator.onward();
  expect(view!.state).toBe('waits');
  operator.close();
});

test('what cannot be pressed is refused; what is not there is said', async () => {
  const id = await begin();
  await page.post(`/api/runs/${id}/press`).send({ press: 'explode' }).expect(422);
  await page.post(`/api/runs/${id}/pace`).send({ pace: 7 }).expect(422);
  await page.get('/api/runs/00000000-0000-0000-0000-000000000000').expect(404);
  await page.post('/api/runs').send({ releaseId: 'nobody' }).expect(404);
  expect((await page.get('/api/runs').query({ job: jobId, setup: first.setupId })).body).toMatchObject({
    canRun: true,
  });
});

test('what nobody may take runs nowhere', async () => {
  stores.releases.shopNeedsApproval = true;
  const answer = await page.post('/api/runs').send({ releaseId: first.releaseId });
  stores.releases.shopNeedsApproval = false;
  expect(answer.status).toBe(403);
  expect(answer.body.error).toMatch(/nobody has approved it yet/);
});

test('there is room for so many machines; one whose program is under way is never switched off for another', async () => {
  let now = 0;
  const small = new Hall(here, () => now);
  const kept = releaseOn(data);
  const on = (id: string) =>
    small.machine(
      id,
      () => ({ ...beginOf(kept), memory: undefined }),
      () => undefined,
    );
  const all = ['a', 'b', 'c', 'd'].map((name) => (now++, on(name)!));
  for (const stand of all) {
    for (const axis of ['x', 'y'] as const) await stand.press({ press: 'touch zero', axis });
    await stand.press({ press: 'touch zero', axis: 'z', n: 4 });
    await stand.press({ press: 'start' });
    await stand.press({ press: 'hold' });
  }
  expect(on('e')).toBeUndefined();
  for (const stand of [all[2], all[1]]) await stand.press({ press: 'reset' });
  expect(on('e')).toBeDefined();
  // The one that nobody used for longest made room.
  expect(['a', 'b', 'c', 'd'].map((name) => !!small.shown(name))).toEqual([true, false, true, true]);
  await small.close();
  kept.db.close();
});

const beginOf = ({ run, stores: { releases } }: ReturnType<typeof releaseOn>) => {
  const { job } = releases.view(run.releaseId)!.body;
  const text = releases.programs(run.releaseId)[0].bytes.toString('utf8');
  return { job, setupId: run.setupId, text, seed: 1, files: [] };
};

test('killed while it runs it stands in the alarm for lost power, at the last block that was shown or after it', async () => {
  const place = folder();
  releaseOn(place).db.close();
  const child = spawn(join(root, 'node_modules/.bin/tsx'), ['tests/safe/running.ts', place], {
    cwd: root,
    detached: true,
  });
  const lines: number[] = [];
  let said = '';
  const ended = new Promise((done) => child.on('exit', done));
  child.stdout.on('data', (d: Buffer) => {
    said += d.toString();
    const told = [...said.matchAll(/running (\d+)\n/g)].map(([, line]) => Number(line));
    lines.splice(0, lines.length, ...told);
    if (new Set(lines).size > 4) process.kill(-child.pid!, 'SIGKILL');
  });
  await ended;
  expect(lines.length).toBeGreaterThan(4);
  const kept = releaseOn(place);
  const { memory } = kept.stores.runs.memory(kept.run.id)!;
  expect(memory.state).toBe('running');
  let view: MachineView | undefined;
  const stand = kept.open(kept.run, (shown) => (view = shown.view));
  expect(view).toMatchObject({ state: 'alarm', alarm: { number: 41 } });
  expect(view!.line).toBeGreaterThanOrEqual(lines[lines.length - 1]);
  expect(kept.stores.runs.events(kept.run.id).map((e) => e.what)).toEqual(expect.arrayContaining(['start', 'alarm']));
  await stand.press({ press: 'reset' });
  expect(view!.state).toBe('ready');
  await stand.close();
  kept.db.close();
  rmSync(place, { recursive: true, force: true });
});
