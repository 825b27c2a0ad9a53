import { chmodSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PassThrough } from 'node:stream';
import { openDb, whyNot } from '../../apps/server/src/db/open';
import { askPhrase } from '../../apps/server/src/guard/ask-phrase';
import { Server, ask, folder, started } from './server';

jest.setTimeout(120_000);

test.each([
  ['short\nlong enough\nmore\n', 'long enough'],
  ['short\n', undefined],
])('the pass phrase is set at first start: asked for until it is long enough', async (typed, chosen) => {
  const [input, output] = [new PassThrough(), new PassThrough()];
  input.end(typed);
  expect(await askPhrase(input, output, '0.0.0.0')).toBe(chosen);
  expect(String(output.read())).toMatch(/Others on the network will reach it on 0.0.0.0/);
});

describe('who may in', () => {
  const server = new Server(folder(), { TIDYPATH_NAMES: 'shop.example' });
  beforeAll(() => server.start());
  afterAll(() => server.clear());
  const local = () => `127.0.0.1:${server.port}`;

  test('foreign Host and Origin are refused for reads and writes, on every method', async () => {
    for (const method of ['GET', 'POST', 'PUT', 'DELETE', 'HEAD', 'OPTIONS'])
      for (const headers of [
        { host: 'evil.example' },
        { host: `evil.example:${server.port}` },
        { host: local(), origin: 'http://evil.example' },
        { host: local(), origin: 'null' },
        { host: local(), origin: 'nonsense' },
      ] as Record<string, string>[])
        for (const path of ['/api/jobs', '/'])
          expect([method, headers, (await ask(server.port, path, { method, headers })).status]).toEqual([
            method,
            headers,
            403,
          ]);
  });

  test('only the addresses it serves are allowed, a shop’s name by setting', async () => {
    for (const host of [local(), `localhost:${server.port}`, `shop.example:${server.port}`])
      expect((await ask(server.port, '/api/jobs', { headers: { host } })).status).toBe(200);
    const headers = { host: local(), origin: `http://${local()}` };
    expect((await ask(server.port, '/api/jobs', { headers })).status).toBe(200);
  });

  test('strict CSP without inline script, Permissions-Policy, no-store on the API', async () => {
    const { headers } = await ask(server.port, '/api/jobs');
    const policy = String(headers['content-security-policy']);
    expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval';/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(headers['permissions-policy']).toContain('camera=()');
    expect(headers['cache-control']).toBe('no-store');
  });
});

describe('beyond this machine', () => {
  test('without a pass phrase it refuses to listen beyond the loopback and says why', () => {
    const data = folder();
    const { status, said } = started({ HOST: '0.0.0.0', TIDYPATH_DATA: data });
    expect([status, said]).toEqual([
      1,
      expect.stringMatching(/^It does not listen on 0\.0\.0\.0.* without a pass phrase.*TIDYPATH_PHRASE/),
    ]);
    expect(said).not.toContain('\n');
    expect(started({ HOST: '0.0.0.0', TIDYPATH_DATA: data, TIDYPATH_PHRASE: 'short' }).said).toMatch(
      /at least 10 letters/,
    );
    rmSync(data, { recursive: true });
  });

  describe('with one', () => {
    const env = { HOST: '0.0.0.0', TIDYPATH_PHRASE: 'warm stones by the tide' };
    const server = new Server(folder(), env);
    beforeAll(() => server.start());
    afterAll(() => server.clear());
    const json = { 'content-type': 'application/json' };
    const knock = (phrase: string, name = 'bench phone') =>
      ask(server.port, '/api/door', { method: 'POST', headers: json, body: JSON.stringify({ phrase, name }) });
    const jobs = async (cookie?: string) =>
      (await ask(server.port, '/api/jobs', { headers: cookie ? { cookie } : {} })).status;

    test('devices have names and a signed cookie each, and can be shown out again', async () => {
      expect(await jobs()).toBe(401);
      const let_in = await knock('warm stones by the tide');
      expect(let_in.status).toBe(204);
      const set = String(let_in.headers['set-cookie']);
      expect(set).toMatch(/HttpOnly/);
      expect(set).toMatch(/SameSite=Strict/);
      const cookie = set.split(';')[0];
      expect(await jobs(cookie)).toBe(200);
      expect(await jobs(cookie.slice(0, -2) + 'xx')).toBe(401);
      expect(await jobs('tidypath=anybody')).toBe(401);
      const { devices, here } = JSON.parse((await ask(server.port, '/api/door', { headers: { cookie } })).body) as {
        devices: { id: string; name: string }[];
        here: string;
      };
      expect(devices).toMatchObject([{ id: here, name: 'bench phone' }]);
      expect((await ask(server.port, `/api/door/${here}`, { method: 'DELETE', headers: { cookie } })).status).toBe(204);
      expect(await jobs(cookie)).toBe(401);
      expect((await knock('warm stones by the tide', '')).status).toBe(400);
    });

    test('wrong phrases are rate-limited', async () => {
      const answers = [];
      for (let i = 0; i < 7; i++) answers.push((await knock('open sesame')).status);
      expect(answers.filter((s) => s === 401).length).toBeLessThanOrEqual(5);
      expect(answers.at(-1)).toBe(429);
    });

    test('the phrase is kept: the next start needs it no more', async () => {
      server.stop();
      const next = await new Server(server.data, { HOST: '0.0.0.0' }).start();
      expect((await ask(next.port, '/api/jobs')).status).toBe(401);
      next.stop();
    });
  });
});

test('it starts anywhere: below a folder whose name begins with a dot, paths with spaces and other letters included', async () => {
  const web = join(folder(), '.hidden', 'Maße und Späne');
  mkdirSync(web, { recursive: true });
  writeFileSync(join(web, 'index.html'), '<p>here</p>');
  mkdirSync(join(web, '_expo'));
  writeFileSync(join(web, '_expo', 'a.js'), 'here');
  const server = await new Server(join(web, 'data ä'), { TIDYPATH_WEB: web }).start();
  for (const path of ['/', '/job/x/cut', '/_expo/a.js']) expect((await ask(server.port, path)).body).toContain('here');
  server.stop();
  rmSync(join(web, '..', '..'), { recursive: true });
});

describe('one sentence each, exit code 1, nothing touched', () => {
  const data = folder();
  afterAll(() => rmSync(data, { recursive: true, force: true }));
  const file = join(data, 'tidypath.db');
  const one = (env: Record<string, string>, sentence: RegExp) => {
    const { status, said } = started(env);
    expect([status, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(said).not.toContain('\n');
  };

  test('two servers on one data directory', async () => {
    const first = await new Server(data).start();
    one({ TIDYPATH_DATA: data }, /another server is running on it/);
    first.stop();
    const second = await new Server(data).start();
    second.stop();
  });

  test('a newer database', () => {
    const db = openDb(data);
    db.prepare("INSERT INTO migrations (name, run_at) VALUES ('999-later.sql', '')").run();
    db.close();
    const before = readFileSync(file);
    one({ TIDYPATH_DATA: data }, /written by a later version \(999-later\.sql\)/);
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  test('a damaged file', () => {
    const damaged = folder();
    writeFileSync(join(damaged, 'tidypath.db'), 'this is no database, and long enough to look at. '.repeat(40));
    const before = readFileSync(join(damaged, 'tidypath.db'));
    one({ TIDYPATH_DATA: damaged }, /tidypath\.db is damaged/);
    expect(readFileSync(join(damaged, 'tidypath.db')).equals(before)).toBe(true);
    rmSync(damaged, { recursive: true });
  });

  test('a read-only directory', () => {
    const plain = join(data, 'plain');
    writeFileSync(plain, '');
    one({ TIDYPATH_DATA: join(plain, 'below a file') }, /it cannot be written \(E(NOTDIR|EXIST)\)/);
    for (const code of ['EACCES', 'EROFS', 'SQLITE_READONLY_DIRECTORY', 'SQLITE_CANTOPEN'])
      expect(whyNot('/data', Object.assign(new Error('x'), { code })).message).toMatch(/it cannot be written/);
    if (process.getuid?.() === 0) return;
    const closed = folder();
    chmodSync(closed, 0o555);
    one({ TIDYPATH_DATA: closed }, /it cannot be written/);
    chmodSync(closed, 0o755);
    rmSync(closed, { recursive: true });
  });

  test('a full disk at start', () => {
    for (const code of ['SQLITE_FULL', 'ENOSPC'])
      expect(whyNot('/data', Object.assign(new Error('x'), { code })).message).toMatch(/the disk is full/);
  });
});
