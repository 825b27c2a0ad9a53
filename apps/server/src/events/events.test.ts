import { Server, get, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { rmSync } from 'node:fs';
import { pino } from 'pino';
import { TOOLS, newJob } from '@tidypath/core';
import { createApp, storesOf } from '../app';
import { openDb } from '../db/open';
import { folder } from '../../testing/folder';
import { Events } from './events';

describe('what was told', () => {
  const job = (version: number) => ({ kind: 'job', id: 'x', version }) as const;

  test('who comes back hears what was missed, in order, and nothing twice', () => {
    const events = new Events();
    const before = events.latest;
    for (let v = 1; v <= 3; v++) events.tell(job(v));
    expect(events.after(before)!.map((t) => t.event)).toEqual([job(1), job(2), job(3)]);
    const [, second] = events.after(before)!;
    expect(events.after(second.id)!.map((t) => t.event)).toEqual([job(3)]);
    expect(events.after(events.latest)).toEqual([]);
  });

  test('what is gone, of another start, or was never told cannot be known', () => {
    const events = new Events();
    const before = events.latest;
    const other = new Events().latest;
    for (let v = 1; v <= 500; v++) events.tell(job(v));
    expect(events.after(before)).toHaveLength(500);
    events.tell(job(501));
    const ahead = events.latest.replace(/\d+$/, '999');
    for (const id of [before, other, ahead, '', 'junk', 'a-b']) expect(events.after(id)).toBeUndefined();
  });
});

describe('over HTTP', () => {
  const data = folder();
  const db = openDb(data);
  let server: Server;
  let port: number;
  beforeAll(async () => {
    const app = createApp(storesOf(db, data), data, pino({ level: 'silent' }));
    server = app.listen(0, '127.0.0.1');
    await new Promise((done) => server.once('listening', done));
    ({ port } = server.address() as AddressInfo);
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
    db.close();
    rmSync(data, { recursive: true, force: true });
  });

  /** A page that listens, with what it has heard so far. */
  function listener(last?: string) {
    const heard = { text: '', type: '' };
    const asked = get({
      port,
      path: '/api/events',
      headers: { 'accept-encoding': 'gzip', ...(last === undefined ? {} : { 'last-event-id': last }) },
    });
    asked.on('response', (res) => {
      heard.type = `${res.headers['content-type']} ${res.headers['content-encoding'] ?? 'plain'}`;
      res.on('data', (d: Buffer) => (heard.text += d.toString()));
      res.on('error', () => undefined);
    });
    asked.on('error', () => undefined);
    const events = () => [...heard.text.matchAll(/data: (.*)\n/g)].map(([, data]) => JSON.parse(data) as unknown);
    const latest = () => [...heard.text.matchAll(/id: (.*)\n/g)].at(-1)?.[1] ?? '';
    return { heard, events, latest, close: () => asked.destroy() };
  }

  const until = async (check: () => boolean) => {
    while (!check()) await new Promise((done) => setTimeout(done, 5));
  };

  const send = (method: string, path: string, body?: unknown) =>
    new Promise<{ id: string; version: number }>((done) => {
      const asked = request({ port, method, path, headers: { 'content-type': 'application/json' } }, (res) => {
        let text = '';
        res.on('data', (d: Buffer) => (text += d.toString()));
        res.on('end', () => done(text ? JSON.parse(text) : {}));
      });
      asked.end(body ? JSON.stringify(body) : '');
    });

  test('every listener hears every save at once, and only what was taken', async () => {
    const { id } = await send('POST', '/api/jobs', { job: newJob('Heard', 'mm') });
    const listeners = Array.from({ length: 40 }, () => listener());
    await until(() => listeners.every((l) => l.latest() !== ''));
    for (let version = 1; version <= 50; version++)
      await send('PUT', `/api/jobs/${id}`, { version, job: newJob(`Heard ${version}`, 'mm') });
    await send('PUT', `/api/jobs/${id}`, { version: 1, job: newJob('Too late', 'mm') });
    await send('PUT', `/api/jobs/${id}`, { version: 51, job: 'no job' });
    await send('DELETE', `/api/jobs/${id}`);
    await until(() => listeners.every((l) => l.events().length >= 51));
    const versions = [...Array.from({ length: 50 }, (_, i) => i + 2), 51];
    for (const l of listeners) {
      expect(l.events()).toEqual(versions.map((version) => ({ kind: 'job', id, version })));
      expect(l.heard.type).toBe('text/event-stream; charset=utf-8 plain');
      l.close();
    }
  });

  test('where a page is passes to those who listen, and is not kept for those who come later', async () => {
    const now = listener();
    await until(() => now.latest() !== '');
    const last = now.latest();
    const page = 'ab'.repeat(16);
    const place = { job: 'c0ffee00'.repeat(4), stage: 'prove', second: 12 };
    await send('PUT', `/api/here/${page}`, place);
    await send('PUT', `/api/here/${page}`, { ...place, stage: 'nowhere' });
    await send('DELETE', `/api/here/${page}`);
    await until(() => now.events().length >= 2);
    expect(now.events()).toEqual([
      { kind: 'here', page, who: '', place },
      { kind: 'here', page, who: '' },
    ]);
    expect(now.latest()).toBe(last);
    now.close();
    const later = listener(last);
    await until(() => later.latest() !== '');
    expect(later.events()).toEqual([]);
    later.close();
  });

  test('a change of a shelf is told, what was asked or refused is not', async () => {
    const now = listener();
    await until(() => now.latest() !== '');
    await send('PUT', '/api/shop/materials/brass', { version: 7, item: 'no material' });
    await send('GET', '/api/shop/holders');
    const { id } = TOOLS[0];
    await send('PUT', `/api/shop/tools/${id}`, { version: 0, item: TOOLS[0] });
    await send('DELETE', `/api/shop/tools/${id}`);
    await until(() => now.events().length >= 2);
    expect(now.events()).toEqual([
      { kind: 'shelf', shelf: 'tools' },
      { kind: 'shelf', shelf: 'tools' },
    ]);
    now.close();
  });

  test('who comes back hears what was missed; where that is not known it is said', async () => {
    const first = listener();
    await until(() => first.latest() !== '');
    const last = first.latest();
    first.close();
    const { id } = await send('POST', '/api/jobs', { job: newJob('Missed', 'mm') });
    await send('POST', `/api/jobs/${id}/duplicate`);
    const back = listener(last);
    await until(() => back.events().length >= 2);
    expect(back.events()).toEqual([
      { kind: 'job', id: '', version: 0 },
      { kind: 'job', id: '', version: 0 },
    ]);
    expect(back.latest()).not.toBe(last);
    const lost = listener('ffffffff-3');
    await until(() => lost.events().length > 0);
    expect(lost.events()).toEqual([{ kind: 'missed' }]);
    [back, lost].forEach((l) => l.close());
  });

  test('nothing is lost between an answer and the line: the answer says from where on events are missed', async () => {
    const { id } = await send('POST', '/api/jobs', { job: newJob('Between', 'mm') });
    const asked = await fetch(`http://127.0.0.1:${port}/api/jobs/${id}`);
    await send('PUT', `/api/jobs/${id}`, { version: 1, job: newJob('Between 2', 'mm') });
    const late = listener(asked.headers.get('x-event')!);
    await until(() => late.events().length > 0);
    expect(late.events()).toContainEqual({ kind: 'job', id, version: 2 });
    late.close();
  });
});
