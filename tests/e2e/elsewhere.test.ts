/** What one device planned and proved is done on the others; the server does it for those who ask. */
import { Page } from 'puppeteer-core';
import { JobRow, planSetup, postSetup, unpackMade } from '@tidypath/core';
import { Harness, WIDE, byLabel, byTest, fill, proved, stage, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

/** What a page asked of the server about results, as method and answer. */
function asked(page: Page): { method: string; status: number; key: string }[] {
  const all: { method: string; status: number; key: string }[] = [];
  page.on('response', (r) => {
    const [, key] = /\/api\/results\/(\w+)$/.exec(r.url()) ?? [];
    if (key) all.push({ method: r.request().method(), status: r.status(), key });
  });
  return all;
}

const release = byTest('release-state');
/** Waits until the job is proved as it stands, well or not. */
const judged = (page: Page) => until('a verdict', async () => /✓|▲/.test(await textOf(page, byTest('stage-prove'))));

/** Texts of the programs a page has brought. */
async function broughtPrograms(key: string): Promise<string[]> {
  const bytes = await (await fetch(`${harness.base}/api/results/${key}`)).arrayBuffer();
  return unpackMade(new Uint8Array(bytes))!.plan.programs.map((p) => p.text);
}

/** The same, as the engine of this test makes them: another than the browser’s. */
async function ownPrograms(id: string): Promise<string[]> {
  const { job } = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as JobRow;
  const [setup] = job.setups;
  return postSetup(job, setup, planSetup(job, setup), job.controllerId).programs.map((p) => p.text);
}

test('what is planned at the desk opens done on the phone, and is made anew there before it is released', async () => {
  const id = await harness.jobId('Vane hub plate');
  const job = `/job/${id}/prove`;
  const desk = await harness.page(WIDE);
  const atDesk = asked(desk);
  await harness.open(desk, job);
  await proved(desk);
  await until('it to be brought', async () => atDesk.some((a) => a.method === 'PUT' && a.status === 204));

  const { key } = atDesk.find((a) => a.method === 'PUT')!;
  expect(await broughtPrograms(key)).toEqual(await ownPrograms(id));

  // What was brought is kept by the server, though it is killed.
  harness.killServer();
  await harness.startServer();
  const phone = await harness.device();
  const onPhone = asked(phone);
  await harness.open(phone, job);
  await proved(phone);
  expect(await textOf(phone, byTest('made-by'))).toMatch(/on another device/);
  expect(onPhone).toContainEqual({ method: 'GET', status: 200, key });

  await stage(phone, 'release');
  await until('it to be released', async () => /Proved as posted/.test(await textOf(phone, release)));
  await stage(phone, 'prove');
  await until('the own one', async () => (await phone.$(byTest('made-by'))) === null);
  expect(harness.faults).toEqual([]);
  await phone.close();
  await desk.close();
});

test('the server makes it where that was chosen, and the device where the server is gone', async () => {
  const page = await harness.device();
  const all = asked(page);
  await harness.open(page, '/shop');
  await tapText(page, 'the server');
  const job = await harness.jobId('Float-pulley bracket');
  await harness.open(page, `/job/${job}/prove`);
  await proved(page);
  expect(await textOf(page, byTest('made-by'))).toMatch(/by the server/);
  expect(all.filter((a) => a.method === 'POST')).toHaveLength(1);
  expect(all.filter((a) => a.method === 'PUT')).toHaveLength(0);

  await stage(page, 'part');
  await fill(page, byLabel('Thickness'), '0.7');
  await page.keyboard.press('Tab');
  await until('another plan', async () => all.filter((a) => a.method === 'POST').length === 2);
  await judged(page);
  await stage(page, 'prove');
  expect(await textOf(page, byTest('made-by'))).toMatch(/by the server/);

  harness.killServer();
  await stage(page, 'part');
  await fill(page, byLabel('Thickness'), '0.8');
  await page.keyboard.press('Tab');
  await until('it to be out of date', async () => /↻/.test(await textOf(page, byTest('stage-prove'))));
  await judged(page);
  await stage(page, 'prove');
  expect(await page.$(byTest('made-by'))).toBeNull();
  await harness.startServer();
  await until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  expect(harness.faults).toEqual([]);
  await page.close();
});
