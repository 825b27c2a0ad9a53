import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import type { Piscina } from 'piscina';
import { Job, TaskStep, newJob, parseJob, planSetup, planView, resultKey, unpackMade } from '@tidypath/core';
import { folder, root } from '../../testing/folder';
import { Computing, Limits } from './computing';
import { FairQueue } from './fair';
import { Results } from './results';

describe('turns', () => {
  const task = (by: string, name: string) => ({ by, name });
  const names = (queue: FairQueue<ReturnType<typeof task>>) => {
    const all: string[] = [];
    for (let t = queue.shift(); t; t = queue.shift()) all.push(t.name);
    return all;
  };

  test('who asks for much holds nobody else up; each keeps its own order', () => {
    const queue = new FairQueue<ReturnType<typeof task>>();
    for (const [by, name] of [
      ['desk', 'd1'],
      ['desk', 'd2'],
      ['desk', 'd3'],
      ['phone', 'p1'],
      ['bench', 'b1'],
      ['phone', 'p2'],
    ])
      queue.push(task(by, name));
    expect(queue.size).toBe(6);
    expect(names(queue)).toEqual(['d1', 'p1', 'b1', 'd2', 'p2', 'd3']);
    expect([queue.size, queue.shift()]).toEqual([0, undefined]);
  });

  test('who goes away leaves the queue', () => {
    const queue = new FairQueue<ReturnType<typeof task>>();
    const [gone, stays, other] = [task('desk', 'gone'), task('desk', 'stays'), task('phone', 'other')];
    [gone, stays, other].forEach((t) => queue.push(t));
    expect([gone, other, other].map((t) => queue.remove(t))).toEqual([true, true, false]);
    expect(names(queue)).toEqual(['stays']);
  });
});

describe('results', () => {
  const data = folder();
  afterAll(() => rmSync(data, { recursive: true, force: true }));
  const made = (n: number) => new Uint8Array(1000).fill(n);
  const result = (n: number, maker: 'server' | 'page' = 'server') => ({ maker, seconds: 1, made: made(n) });

  test('what this server made is not replaced by what a page did; the other way round it is', () => {
    const results = new Results(join(data, '.'));
    results.keep('a', result(1, 'page'));
    results.keep('a', result(2));
    results.keep('a', result(3, 'page'));
    expect(results.get('a')).toMatchObject({ maker: 'server' });
    expect(results.get('a')!.made[0]).toBe(2);
    expect(results.get('b')).toBeUndefined();
    results.close();
  });

  test('no more is kept than may be; the least used goes first, over a restart too', () => {
    const place = folder();
    let results = new Results(place, 3500);
    for (const key of ['a', 'b', 'c']) results.keep(key, result(1));
    results.close();
    results = new Results(place, 3500);
    results.get('a');
    results.keep('d', result(2));
    expect(['a', 'b', 'c', 'd'].map((key) => !!results.get(key))).toEqual([true, false, true, true]);
    results.close();
    rmSync(place, { recursive: true });
  });

  test('a database that cannot be read is begun anew', () => {
    const place = join(data, 'damaged');
    mkdirSync(place);
    writeFileSync(join(place, 'results.db'), 'no database at all');
    const results = new Results(place);
    results.keep('a', result(1));
    expect(results.get('a')!.made).toHaveLength(1000);
    results.close();
  });
});

describe('the threads', () => {
  const data = folder();
  const bundle = join(data, 'compute.cjs');
  const results = new Results(data);
  let open: Computing[] = [];
  const demo = (name: string) => parseJob(readFileSync(join(root, 'demo/jobs', name), 'utf8')).job!;
  const question = (job: Job, source = 'this') => ({
    key: resultKey(source, job, job.setups[0].id),
    job,
    setupId: job.setups[0].id,
    files: [],
  });
  const computing = (limits: Limits) => {
    const made = new Computing(bundle, results, { threads: 1, ...limits });
    open.push(made);
    return made;
  };
  const never = () => new AbortController().signal;

  beforeAll(() => {
    buildSync({
      entryPoints: [join(__dirname, 'worker.ts')],
      outfile: bundle,
      bundle: true,
      platform: 'node',
      define: { SOURCE: '"this"' },
      logLevel: 'error',
    });
  });
  afterEach(async () => {
    await Promise.all(open.map((c) => c.close()));
    open = [];
  });
  afterAll(() => {
    results.close();
    rmSync(data, { recursive: true, force: true });
  });

  test('make what a page would, telling how far they are, once for all who ask', async () => {
    const job = demo('float-pulley-bracket.json');
    const asked = question(job);
    const server = computing({});
    const heard: TaskStep[][] = [[], []];
    const keep = jest.spyOn(results, 'keep');
    const answers = await Promise.all(heard.map((h) => server.make(asked, 'desk', (step) => h.push(step), never())));
    expect(answers).toEqual([undefined, undefined]);
    expect(keep).toHaveBeenCalledTimes(1);
    const kept = results.get(asked.key)!;
    expect(kept.maker).toBe('server');
    const made = unpackMade(kept.made)!;
    const own = planView(planSetup(job, job.setups[0]));
    expect(made.plan.programs.map((p) => p.text)).toEqual(own.programs.map((p) => p.text));
    expect(JSON.parse(JSON.stringify(made.plan.findings))).toEqual(JSON.parse(JSON.stringify(own.findings)));
    expect(made.proof!.clock.total).toBeGreaterThan(5);
    expect(heard[0].some((s) => 'planning' in s) && heard[0].some((s) => 'proving' in s)).toBe(true);
    expect(heard[1].filter((s) => !('waiting' in s)).length).toBeGreaterThan(0);
  });

  test('a job without an operation has a plan and no proof', async () => {
    const asked = question(newJob('Empty', 'mm'));
    expect(await computing({}).make(asked, 'desk', () => undefined, never())).toBeUndefined();
    expect(unpackMade(results.get(asked.key)!.made)).toMatchObject({ plan: { programs: [] } });
  });

  test('a page of another version is told so, and nothing is kept', async () => {
    const asked = question(demo('vane-hub-plate.json'), 'another');
    const answer = await computing({}).make(asked, 'desk', () => undefined, never());
    expect(answer!.error).toMatch(/another version/);
    expect(results.get(asked.key)).toBeUndefined();
  });

  test('when nobody waits any more the work stops, and the next is done', async () => {
    // Told to stop, a thread takes its time on a busy machine.
    const server = computing({ grace: 600 });
    const asked = question(demo('vane-hub-plate.json'));
    const [first, second] = [new AbortController(), new AbortController()];
    const steps: TaskStep[] = [];
    const under = new Promise<void>((done) => {
      const hear = (step: TaskStep) => (steps.push(step), 'planning' in step && done());
      void server.make(asked, 'desk', hear, first.signal);
    });
    const other = server.make(asked, 'phone', () => undefined, second.signal);
    await under;
    const thread = () => (server as unknown as { pool: Piscina }).pool.threads[0];
    const same = thread();
    first.abort();
    second.abort();
    expect(await other).toBeUndefined();
    expect(results.get(asked.key)).toBeUndefined();
    // It was told to, not ended: what it knows goes on.
    expect(thread()).toBe(same);
    const next = question(newJob('Next', 'mm'));
    expect(await server.make(next, 'desk', () => undefined, never())).toBeUndefined();
    expect(results.get(next.key)).toBeDefined();
  });

  test('who asks last and for one only does not wait for all that another asked; a full queue is told', async () => {
    const server = computing({ waiting: 5 });
    const order: string[] = [];
    const ask = (by: string, n: number) =>
      server
        .make(question(newJob(`${by} ${n}`, 'mm')), by, () => undefined, never())
        .then((failure) => order.push(failure ? failure.error : `${by} ${n}`));
    await Promise.all([...[1, 2, 3, 4].map((n) => ask('desk', n)), ask('phone', 1), ask('phone', 2)]);
    expect(order).toEqual(['Too many wait for the server', 'desk 1', 'phone 1', 'desk 2', 'desk 3', 'desk 4']);
  });

  test('what takes longer than it may is given up and said', async () => {
    const answer = await computing({ longest: 0.001 }).make(
      question(demo('vane-hub-plate.json')),
      'desk',
      () => undefined,
      never(),
    );
    expect(answer!.error).toMatch(/took more than 0.001 s/);
  });

  test.each([
    ['at its work', 16],
    ['before it is at it', 2],
  ])('what needs more memory than it may, %s, is given up and said', async (_, memory) => {
    const server = computing({ memory });
    const answer = await server.make(question(demo('vane-hub-plate.json')), 'desk', () => undefined, never());
    expect(answer!.error).toBe(`The server gave it up: it needed more than ${memory} MB`);
  });
});
