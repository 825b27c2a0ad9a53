import { rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { Server } from 'node:http';
import { pino } from 'pino';
import { newJob, packMade, type Made } from '@tidypath/core';
import { createApp, storesOf } from '../app';
import { openDb } from '../db/open';
import { folder } from '../../testing/folder';
import type { Computing } from './computing';

const data = folder();
const db = openDb(data);
const stores = storesOf(db, data);
/** Stands in for the threads: says how far it is, then keeps a result or gives up. */
const made = packMade({ plan: { planned: [], programs: [], findings: [] } as unknown as Made['plan'] });
const computing = {
  make: async ({ key }: { key: string }, by: string, hear: (step: unknown) => void) => {
    hear({ waiting: 1 });
    if (by === 'f'.repeat(32)) return { error: 'Too many wait for the server' };
    stores.results.keep(key, { maker: 'server', seconds: 2, made });
  },
} as unknown as Computing;
let open: Server[] = [];
const served = async (threads?: Computing): Promise<string> => {
  const app = createApp(stores, data, pino({ level: 'silent' }), undefined, threads);
  const server = app.listen(0, '127.0.0.1');
  open.push(server);
  await new Promise((done) => server.once('listening', done));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/results`;
};
afterEach(() => {
  open.forEach((server) => (server.closeAllConnections(), server.close()));
  open = [];
});
afterAll(() => {
  stores.results.close();
  db.close();
  rmSync(data, { recursive: true, force: true });
});

const key = (n: number) => String(n).repeat(64);
const bring = (at: string, body: Uint8Array, type = 'application/octet-stream') =>
  fetch(at, { method: 'PUT', body: body as BodyInit, headers: { 'content-type': type } });
const make = (at: string, body: unknown, device = '') =>
  fetch(at, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json', 'x-device': device },
  });

test('what a page brought is handed out as its own, byte for byte; nothing is no error', async () => {
  const results = await served();
  expect((await fetch(`${results}/${key(1)}`)).status).toBe(204);
  expect((await bring(`${results}/${key(1)}`, made)).status).toBe(204);
  const got = await fetch(`${results}/${key(1)}`);
  expect([got.status, got.headers.get('x-maker')]).toEqual([200, 'page']);
  expect([...new Uint8Array(await got.arrayBuffer())]).toEqual([...made]);
});

test('what is no result, has no proper name, or comes in another dress is refused', async () => {
  const results = await served();
  expect((await bring(`${results}/${key(2)}`, made.slice(0, -1))).status).toBe(422);
  expect((await bring(`${results}/${key(2)}`, Buffer.from('{}'), 'application/json')).status).toBe(415);
  expect((await bring(`${results}/short`, made)).status).toBe(404);
  expect((await fetch(`${results}/${key(2)}`)).status).toBe(204);
});

test('it is made with words on the way, once; why it is not is said', async () => {
  const results = await served(computing);
  const job = newJob('Asked for', 'mm');
  const lines = async (answer: Response) =>
    (await answer.text())
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l));
  const ask = { job, setupId: 's1' };
  expect(await lines(await make(`${results}/${key(3)}`, ask))).toEqual([{ waiting: 1 }, { made: true }]);
  expect(await lines(await make(`${results}/${key(3)}`, ask))).toEqual([{ made: true }]);
  const got = await fetch(`${results}/${key(3)}`);
  expect([got.headers.get('x-maker'), got.headers.get('x-seconds')]).toEqual(['server', '2']);
  const refused = await make(`${results}/${key(4)}`, ask, 'f'.repeat(32));
  expect((await lines(refused)).at(-1)).toEqual({ error: 'Too many wait for the server' });
  expect((await make(`${results}/${key(4)}`, { job: { kind: 'none' }, setupId: 's1' })).status).toBe(422);
});

test('a server without threads says so', async () => {
  const results = await served();
  expect(await (await fetch(results)).json()).toEqual({ computes: false });
  expect((await make(`${results}/${key(5)}`, {})).status).toBe(501);
  expect(await (await fetch(await served(computing))).json()).toEqual({ computes: true });
});
