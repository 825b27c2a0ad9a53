import { ChildProcess, spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { Job, newJob } from '@tidypath/core';
import { folder, root } from '../testing/folder';

describe('killed while saving', () => {
  const data = folder();
  let child: ChildProcess | undefined;
  let port = 0;
  afterAll(() => {
    child?.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  });

  const freePort = () =>
    new Promise<number>((done) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port: found } = probe.address() as { port: number };
        probe.close(() => done(found));
      });
    });

  async function start(): Promise<void> {
    port = await freePort();
    child = spawn(join(root, 'node_modules/.bin/tsx'), ['apps/server/src/main.ts'], {
      cwd: root,
      env: { ...process.env, PORT: String(port), TIDYPATH_DATA: data },
      stdio: 'ignore',
      detached: true,
    });
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`http://127.0.0.1:${port}/api/health`)
          .then((r) => r.ok)
          .catch(() => false)
      )
        return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not start');
  }

  /** Kills the whole process group, as a power cut would. */
  const kill = () => process.kill(-child!.pid!, 'SIGKILL');

  test('no acknowledged save is lost, and it starts again by itself', async () => {
    await start();
    const send = (method: string, path: string, body: unknown) =>
      fetch(`http://127.0.0.1:${port}/api${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const job: Job = { ...newJob('Kill me', 'mm'), note: 'x'.repeat(3000) };
    const made = (await (await send('POST', '/jobs', { job })).json()) as { id: string };
    let acknowledged = 1;
    const rounds = Number(process.env.KILL_ROUNDS ?? 4);
    for (let round = 0; round < rounds; round++) {
      let stopped = false;
      const saving = (async () => {
        while (!stopped) {
          const answer = await send('PUT', `/jobs/${made.id}`, {
            version: acknowledged,
            job: { ...job, name: `v${acknowledged + 1}` },
          }).catch(() => undefined);
          const body = answer?.ok
            ? ((await answer.json().catch(() => undefined)) as { version: number } | undefined)
            : undefined;
          if (!body) return;
          acknowledged = body.version;
        }
      })();
      await new Promise((r) => setTimeout(r, 60 + round * 37));
      kill();
      stopped = true;
      await saving;
      await start();
      const row = (await (await fetch(`http://127.0.0.1:${port}/api/jobs/${made.id}`)).json()) as {
        version: number;
        job: Job;
      };
      expect(row.version).toBeGreaterThanOrEqual(acknowledged);
      expect(row.job.name).toBe(`v${row.version}`);
      acknowledged = row.version;
    }
    expect(acknowledged).toBeGreaterThan(rounds);
    kill();
  }, 120_000);
});
