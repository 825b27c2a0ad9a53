/** A server of its own for a test, as a shop would start it. */
import { ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

export const root = resolve(__dirname, '../..');
const MAIN = join(root, 'apps/server/dist/main.cjs');

export const folder = () => mkdtempSync(join(tmpdir(), 'tidypath-safe-'));

export const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

export interface Answer {
  status: number;
  body: string;
  headers: Record<string, string | string[] | undefined>;
}

/** Asks with whatever headers, the host's own included, which `fetch` would not let one change. */
export const ask = (
  port: number,
  path: string,
  {
    method = 'GET',
    headers = {},
    body = '',
  }: { method?: string; headers?: Record<string, string>; body?: string } = {},
) =>
  new Promise<Answer>((done, fail) => {
    const sent = request({ host: '127.0.0.1', port, path, method, headers }, (res) => {
      let text = '';
      res.on('data', (d: Buffer) => (text += d.toString()));
      res.on('end', () => done({ status: res.statusCode ?? 0, body: text, headers: res.headers }));
    });
    sent.on('error', fail);
    sent.end(body);
  });

export class Server {
  port = 0;
  private child?: ChildProcess;

  constructor(
    readonly data: string,
    private readonly env: Record<string, string> = {},
    private readonly cwd = root,
  ) {}

  async start(): Promise<this> {
    this.port = await freePort();
    this.child = spawn(process.execPath, [MAIN], {
      cwd: this.cwd,
      env: { ...process.env, PORT: String(this.port), TIDYPATH_DATA: this.data, ...this.env },
      stdio: 'ignore',
      detached: true,
    });
    for (let i = 0; i < 300; i++) {
      if (
        await ask(this.port, '/api/health')
          .then((a) => a.status > 0)
          .catch(() => false)
      )
        return this;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not start');
  }

  stop(): void {
    if (this.child?.pid) process.kill(-this.child.pid, 'SIGKILL');
    this.child = undefined;
  }

  clear(): void {
    this.stop();
    rmSync(this.data, { recursive: true, force: true });
  }
}

/** What a server says that does not start. */
export function started(env: Record<string, string>): { status: number | null; said: string } {
  const { status, stderr } = spawnSync(process.execPath, [MAIN], {
    cwd: root,
    env: { ...process.env, PORT: '0', ...env },
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { status, said: stderr.trim() };
}
