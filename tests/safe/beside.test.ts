/** Large bodies are validated off the event loop. */
import { join } from 'node:path';
import { rmSync } from 'node:fs';
import { pino } from 'pino';
import request from 'supertest';
import { HOLDERS, newJob, newTool } from '@tidypath/core';
import { createApp, storesOf } from '../../apps/server/src/app';
import { openDb } from '../../apps/server/src/db/open';
import { endReading } from '../../apps/server/src/reading/beside';
import * as reading from '../../apps/server/src/reading/read';
import { folder, root } from './server';

jest.setTimeout(120_000);

describe('large bodies', () => {
  const data = folder();
  const db = openDb(data);
  const app = createApp(storesOf(db, data), join(root, 'nowhere'), pino({ level: 'silent' }));
  const here = jest.spyOn(reading.READ, 'job');
  afterAll(async () => {
    await endReading();
    db.close();
    rmSync(data, { recursive: true, force: true });
  });
  beforeEach(() => here.mockClear());
  const job = newJob('Plate', 'mm');
  const operation = { id: 'o', kind: 'face', name: 'Face', on: true, toolId: 't', targets: [], params: {} };

  test('are validated off the event loop, small ones at once; both with the same findings', async () => {
    const full = (setups: number) => ({
      ...job,
      setups: Array.from({ length: setups }, (_, s) => ({
        ...job.setups[0],
        id: `s${s}`,
        operations: Array.from({ length: 500 }, (_, i) => ({ ...operation, id: `o${s}-${i}` })),
      })),
    });
    const large = await request(app)
      .post('/api/jobs')
      .send({ job: full(20) });
    expect(here).not.toHaveBeenCalled();
    const small = await request(app)
      .post('/api/jobs')
      .send({ job: full(1) });
    expect(here).toHaveBeenCalledTimes(1);
    expect([large.status, small.status]).toEqual([422, 422]);
    expect(large.body.findings.slice(0, 20)).toEqual(small.body.findings.slice(0, 20));
  });

  test('a large job that is sound is stored, and so is a large list', async () => {
    const made = await request(app)
      .post('/api/jobs')
      .send({ job: { ...job, part: { ...job.part, features: chains() } } });
    expect(made.status).toBe(201);
    expect((await request(app).get(`/api/jobs/${made.body.id}`)).body.job.part.features).toHaveLength(4);
    const tool = newTool('flat', 6, [], HOLDERS);
    const entries = Array.from({ length: 300 }, (_, i) => ({
      version: 0,
      item: { ...tool, id: `x${i}`, number: i + 1 },
    }));
    expect((await request(app).post('/api/shop/tools').send({ entries })).body).toEqual({ saved: true, late: [] });
    expect(here).not.toHaveBeenCalled();
  });

  test('a long document is looked at beside the event loop when it is first handed out after a start', async () => {
    const made = await request(app).post('/api/jobs').send({ job });
    const put = (name: string, features: object[]) => {
      const document = JSON.stringify({ ...job, name, part: { ...job.part, features } });
      db.prepare('UPDATE jobs SET document = ? WHERE id = ?').run(document, made.body.id);
      return request(app).get(`/api/jobs/${made.body.id}`);
    };
    here.mockClear();
    expect((await put('Never seen', chains())).body.job.name).toBe('Never seen');
    expect(here).not.toHaveBeenCalled();
    expect((await put('Damaged', [...chains(), ...chains()])).body.findings[0].code).toBe('id-twice');
    expect((await put('Short', [])).body.job.name).toBe('Short');
    expect(here).toHaveBeenCalledTimes(2);
  });

  test('what lies too deep is refused before it is handed over', async () => {
    const deep = `${'{"a":'.repeat(5000)}"${'x'.repeat(200_000)}"${'}'.repeat(5000)}`;
    const answer = await request(app).post('/api/jobs').set('content-type', 'application/json').send(`{"job":${deep}}`);
    expect([answer.status, answer.body.findings[0].code]).toEqual([422, 'too-deep']);
  });

  /** Four drawn chains of many corners. */
  const chains = () =>
    Array.from({ length: 4 }, (_, k) => ({
      id: `f${k}`,
      name: `Line ${k}`,
      meaning: 'line',
      shape: {
        type: 'chain',
        closed: false,
        vertices: Array.from({ length: 2000 }, (_, i) => ({ x: i / 10, y: k * 10, bulge: 0 })),
      },
      x: 0,
      y: 0,
      turn: 0,
      pattern: { type: 'single', count: 1, rows: 1, dx: 0, dy: 0, centreX: 0, centreY: 0 },
      depth: 1,
      through: false,
      layer: '',
    }));
});
