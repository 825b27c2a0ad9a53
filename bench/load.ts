/** A shop of 10 000 jobs, 50 people who save at once, and a body that takes long to check. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { JOBS_PER_PAGE, Job, newJob, parseJob, resultKey } from '@tidypath/core';
import { openDb } from '../apps/server/src/db/open';
import { JobStore } from '../apps/server/src/jobs/store';
import { Harness, root } from '../tests/e2e/harness';
import type { Row } from './kernel';
import { percentile } from './percentile';

const JOBS = 10_000;
const WRITERS = 50;
const SAVES = 10;
const EVENTS = 100;
const TASKS = 20;
const CARD = '[data-testid^="job-"]';

const timed = async <T>(work: () => Promise<T>): Promise<{ ms: number; value: T }> => {
  const started = performance.now();
  const value = await work();
  return { ms: performance.now() - started, value };
};

/** The demo jobs over and over, each under a name of its own. */
function fill(data: string): Job[] {
  const demo = join(root, 'demo/jobs');
  const jobs = readdirSync(demo)
    .filter((f) => f.endsWith('.json'))
    .map((f) => parseJob(readFileSync(join(demo, f), 'utf8')).job!);
  const db = openDb(data);
  const store = new JobStore(db);
  db.transaction(() => {
    for (let i = 0; i < JOBS; i++)
      store.create({ ...jobs[i % jobs.length], name: `Job ${i}`, tags: [`tag ${i % 40}`], customerNumber: `C-${i}` });
  })();
  db.close();
  return jobs;
}

async function listRows(harness: Harness): Promise<Row[]> {
  const ask = (question: string) =>
    timed(async () => (await fetch(`${harness.base}/api/jobs?${question}`)).json() as Promise<unknown[]>);
  const questions = ['', 'words=job+77', 'tag=tag+7&order=name', 'order=time&page=300', 'state=not+proved&words=c-9'];
  const times: number[] = [];
  for (let i = 0; i < 40; i++) times.push((await ask(questions[i % questions.length])).ms);
  const pages: number[] = [];
  let nodes = 0;
  for (let i = 0; i < 5; i++) {
    const page = await harness.page();
    const { ms } = await timed(async () => {
      await page.goto(harness.base, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector(CARD);
    });
    if (i > 0) pages.push(ms);
    await page.waitForFunction((card, all) => document.querySelectorAll(card).length >= all, {}, CARD, JOBS_PER_PAGE);
    nodes = await page.evaluate(() => document.querySelectorAll('*').length);
    await page.close();
  }
  const shown = percentile(pages, 0.5);
  const asked = percentile(times, 0.95);
  return [
    { what: `a question to ${JOBS} jobs, p95`, figure: `${asked.toFixed(0)} ms`, bar: 'under 1 s', met: asked < 1000 },
    { what: `their list on the screen`, figure: `${shown.toFixed(0)} ms`, bar: 'under 1 s', met: shown < 1000 },
    { what: 'nodes of that page', figure: String(nodes), bar: 'under 2 000', met: nodes < 2000 },
  ];
}

const send = (harness: Harness, method: string, path: string, body: unknown) =>
  fetch(`${harness.base}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

/** Everybody saves a job of their own, again and again. */
async function writerRow(harness: Harness, job: Job): Promise<Row> {
  const times: number[] = [];
  let refused = 0;
  const writer = async (n: number) => {
    const { id } = (await (await send(harness, 'POST', '/jobs', { job: { ...job, name: `Writer ${n}` } })).json()) as {
      id: string;
    };
    for (let version = 1; version <= SAVES; version++) {
      const { ms, value } = await timed(() =>
        send(harness, 'PUT', `/jobs/${id}`, { version, job: { ...job, note: `${n} ${version}` } }),
      );
      times.push(ms);
      if (!value.ok) refused++;
    }
  };
  await Promise.all(Array.from({ length: WRITERS }, (_, n) => writer(n)));
  return {
    what: `${WRITERS} writers at once, p95 of ${times.length} saves`,
    figure: `${percentile(times, 0.95).toFixed(0)} ms, ${refused} refused`,
    bar: 'none refused',
    met: refused === 0,
  };
}

/** How long somebody else waits while a body is checked that takes long. */
async function besideRow(harness: Harness): Promise<Row> {
  const [setup] = newJob('x', 'mm').setups;
  const operations = (s: number) =>
    Array.from({ length: 500 }, (_, i) => ({
      id: `o${s}-${i}`,
      kind: 'face',
      name: 'F',
      on: true,
      toolId: 't',
      targets: [],
    }));
  const setups = Array.from({ length: 20 }, (_, s) => ({ ...setup, id: `s${s}`, operations: operations(s) }));
  let isChecked = false;
  const checking = send(harness, 'POST', '/jobs', { job: { ...newJob('x', 'mm'), setups } }).then(
    () => (isChecked = true),
  );
  let longest = 0;
  while (!isChecked) longest = Math.max(longest, (await timed(() => fetch(`${harness.base}/api/health`))).ms);
  await checking;
  return {
    what: 'longest wait beside 10 000 broken operations',
    figure: `${longest.toFixed(0)} ms`,
    bar: 'under 1 s',
    met: longest < 1000,
  };
}

/** From the answer to a save until a page that listens has heard of it. */
async function eventRow(harness: Harness, job: Job): Promise<Row> {
  const { id } = (await (await send(harness, 'POST', '/jobs', { job })).json()) as { id: string };
  const line = await fetch(`${harness.base}/api/events`);
  const reader = line.body!.getReader();
  let heard = '';
  let tell = () => {};
  const listening = (async () => {
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      heard += Buffer.from(part.value).toString();
      tell();
    }
  })().catch(() => undefined);
  const hears = (version: number) =>
    new Promise<number>((done) => {
      tell = () => heard.includes(`"version":${version}}`) && done(performance.now());
      tell();
    });
  const times: number[] = [];
  for (let version = 1; version <= EVENTS; version++) {
    await send(harness, 'PUT', `/jobs/${id}`, { version, job: { ...job, note: String(version) } });
    const answered = performance.now();
    times.push((await hears(version + 1)) - answered);
  }
  await reader.cancel();
  await listening;
  return {
    what: `an event, heard after the answer to its save, p95 of ${EVENTS}`,
    figure: `${Math.max(0, percentile(times, 0.95)).toFixed(0)} ms`,
    bar: 'under 100 ms',
    met: percentile(times, 0.95) < 100,
  };
}

/** One device asks for nineteen results and another for one: how long all take, whose turn it is, and how long somebody else waits meanwhile. */
async function queueRows(harness: Harness, job: Job): Promise<Row[]> {
  const page = readFileSync(join(root, 'apps/web/dist/index.html'), 'utf8');
  const source = /name="source" content="(\w+)"/.exec(page)![1];
  const done: number[] = [];
  const task = async (n: number, device: string) => {
    const own = { ...job, name: `Task ${n}` };
    const setupId = own.setups[0].id;
    const answer = await fetch(`${harness.base}/api/results/${resultKey(source, own, setupId)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-device': device.repeat(32) },
      body: JSON.stringify({ job: own, setupId }),
    });
    if (/"made":true/.test(await answer.text())) done.push(n);
  };
  const waits: number[] = [];
  const { ms } = await timed(async () => {
    let isDone = false;
    const all = Array.from({ length: TASKS }, (_, n) => task(n, n === TASKS - 1 ? 'b' : 'a'));
    const working = Promise.all(all).then(() => (isDone = true));
    while (!isDone) waits.push((await timed(() => fetch(`${harness.base}/api/jobs`))).ms);
    await working;
  });
  const turn = done.indexOf(TASKS - 1) + 1;
  const waited = percentile(waits, 0.95);
  return [
    {
      what: `${TASKS} results asked of the server at once`,
      figure: `${(ms / 1000).toFixed(1)} s, ${TASKS - done.length} not made`,
      bar: 'all made',
      met: done.length === TASKS,
    },
    {
      what: 'the one of another device, asked last',
      figure: `the ${turn}. of them`,
      bar: 'among the first 4',
      met: turn > 0 && turn <= 4,
    },
    { what: 'a question meanwhile, p95', figure: `${waited.toFixed(0)} ms`, bar: 'under 1 s', met: waited < 1000 },
  ];
}

export async function loadRows(): Promise<Row[]> {
  const harness = new Harness();
  const jobs = fill(join(harness.data, 'db'));
  await harness.start();
  try {
    return [
      ...(await listRows(harness)),
      await writerRow(harness, jobs[0]),
      await besideRow(harness),
      await eventRow(harness, jobs[0]),
      ...(await queueRows(
        harness,
        jobs.find(({ name }) => name === 'Float-pulley bracket')!,
      )),
    ];
  } finally {
    await harness.stop();
  }
}
