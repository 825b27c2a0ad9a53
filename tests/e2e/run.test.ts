/** A released program on the simulated machine, from a phone; a desk sees the same. */
import { randomUUID } from 'node:crypto';
import type { Page } from 'puppeteer-core';
import { Harness, WIDE, bodyHas, byLabel, byTest, fill, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
let phone: Page;
let desk: Page;
let id = '';
beforeAll(async () => {
  await harness.start();
  id = await harness.jobId('Vane hub plate');
  phone = await harness.device();
  desk = await harness.device(WIDE);
});
afterAll(() => harness.stop());

const state = (page: Page) => textOf(page, byTest('machine-state'));
const comesTo = (page: Page, what: RegExp) => until(`it is ${what}`, async () => what.test(await state(page)));
const closed = (page: Page) => until('the sheet is closed', async () => !(await page.$(byTest('sheet'))));
const happened = (what: RegExp) =>
  until(`${what} is written down`, async () => what.test(await textOf(phone, byTest('events'))));

async function touchOff(axis: string): Promise<void> {
  await tapText(phone, `Touch off ${axis}`);
  await tap(phone, byTest('take-touch'));
  await closed(phone);
}
/** Types a length register. */
async function enter(tool: number, mm: string): Promise<void> {
  await tap(phone, byLabel(`Touch off T${tool}`));
  await fill(phone, byLabel(`Or type H${tool}`), mm);
  await phone.keyboard.press('Tab');
  await tap(phone, byTest('take-typed'));
  await closed(phone);
}
const register = (tool: number) => textOf(phone, byTest(`register-${tool}`));

test('a machine that was never touched off does not start; touched off it runs, held and turned down from the phone', async () => {
  await harness.open(phone, `/job/${id}/run`);
  await phone.waitForSelector(`${byTest('begin-run')}:not([aria-disabled=true])`);
  await fill(phone, byLabel('Machine number'), '3');
  await phone.keyboard.press('Tab');
  await tap(phone, byTest('begin-run'));
  await comesTo(phone, /Ready/);
  await tap(phone, byTest('hold-or-start'));
  await until('it says why', async () => /zero is not set along X, Y, Z/.test(await textOf(phone, byTest('refused'))));
  for (const axis of ['X', 'Y', 'Z']) await touchOff(axis);
  await tap(phone, byTest('hold-or-start'));
  await comesTo(phone, /Running/);
  await tap(phone, byLabel('Feed hold'));
  await comesTo(phone, /Feed hold/);
  await tap(phone, byLabel('Feed less'));
  await until('the feed is turned down', async () => /90 %/.test(await textOf(phone, byTest('override-feed'))));
  await happened(/points of the checklist were open/);
});

test('the desk sees the same machine, and goes on with it', async () => {
  await harness.open(desk, `/job/${id}/run`);
  await comesTo(desk, /Feed hold/);
  expect(await textOf(desk, byTest('override-feed'))).toMatch(/90 %/);
  await tap(desk, byLabel('Cycle start'));
  await comesTo(phone, /Running/);
  expect(await textOf(desk, byTest('position'))).toMatch(/to go/);
});

test('single block stops after each line; without it the program changes its tools and comes to its end', async () => {
  await tapText(phone, 'Single block');
  await comesTo(phone, /After a block/);
  await tapText(phone, 'Single block');
  await tap(phone, byLabel('Cycle start'));
  await comesTo(phone, /Running/);
  await tap(phone, byTest('onward'));
  await comesTo(phone, /At its end/);
  await comesTo(desk, /At its end/);
  await happened(/at its end/);
  await until('the stage says so', async () => /✓/.test(await textOf(phone, byTest('stage-run'))));
  await tap(phone, byLabel('Keep “Clear float pocket” with the recipes'));
  await phone.waitForSelector(byTest('kept-recipe'));
  const recipes = async () =>
    (await (await fetch(`${harness.base}/api/shop/recipes`)).json()) as { item: { note: string } }[];
  const noted = async () =>
    (await recipes()).some(({ item }) => /release [0-9A-F]{8}: \d+ % of the spindle/.test(item.note));
  expect(await noted()).toBe(true);
  await tap(phone, byTest('recipe-undo'));
  await until('it is taken back', async () => !(await noted()));
  await tapText(phone, 'Lay this run over');
  await until('it lies there', async () =>
    /This run: \d+:\d+ measured along the path, \d+:\d+ of it computed\.$/.test(
      await textOf(phone, byTest('over-text')),
    ),
  );
  await tapText(phone, 'Measure it');
  await until('it is measured', () => bodyHas(phone, /Nothing is cut that should stand/));
});

/** Logs a part that took so long, without a page. */
const logged = (releaseId: string, seconds: number) =>
  fetch(`${harness.base}/api/log/of/${releaseId}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), kind: 'production', parts: 1, scrapped: 0, remark: '', seconds }),
  });

test('from five logged runs on the time of the machine is proposed, taken over with a tap and taken back with one', async () => {
  const [{ id: release }] = (await (await fetch(`${harness.base}/api/releases`)).json()) as { id: string }[];
  for (let part = 0; part < 5; part++) await logged(release, 900 + part);
  await harness.open(desk, '/shop/machines/whimbrel');
  const card = () => textOf(desk, byTest('lessons'));
  await until('it is proposed', async () => /From \d+ runs of the machine/.test(await card()));
  const before = /Counted now: ([^.]+ [^.]+)/.exec(await card())![1];
  await tap(desk, byTest('time-take'));
  await until('it is taken over', async () => /Taken over on/.test(await card()));
  expect(/Counted now: ([^.]+ [^.]+)/.exec(await card())![1]).not.toBe(before);
  await tap(desk, byTest('time-undo'));
  await until('it is taken back', async () => !/Taken over on/.test(await card()));
  expect(/Counted now: ([^.]+ [^.]+)/.exec(await card())![1]).toBe(before);
  await harness.open(desk, `/release/${release}`);
  await tap(desk, byTest('log-it'));
  await until('it is logged', async () => /production: 1 part/.test(await textOf(desk, byTest('log'))));
});

test('a wrong length is seen against the sheet; one that nobody looks at strikes the work', async () => {
  await tapText(phone, 'Put on a new one');
  await comesTo(phone, /Ready/);
  expect(await register(4)).toMatch(/✓ as the sheet/);
  await enter(4, '52');
  await until('it is seen', async () => /20 mm shorter than the sheet/.test(await register(4)));
  await tap(phone, byLabel('Touch off T4'));
  await tap(phone, byTest('take-touch'));
  await closed(phone);
  await until('it is right again', async () => /✓ as the sheet/.test(await register(4)));
  await enter(4, '52');
  await tap(phone, byLabel('Cycle start'));
  await phone.waitForSelector(byLabel('Feed hold'));
  await tap(phone, byTest('onward'));
  await comesTo(phone, /Alarm/);
  expect(await textOf(phone, byTest('alarm'))).toMatch(/11 A rapid ran into metal, line \d+/);
  await tap(phone, byLabel('Reset'));
  await comesTo(phone, /Ready/);
});

test('the server killed while it runs: it stands in an alarm where it was', async () => {
  await tap(phone, byLabel('Touch off T4'));
  await tap(phone, byTest('take-touch'));
  await closed(phone);
  await tap(phone, byLabel('Cycle start'));
  await comesTo(phone, /Running/);
  harness.killServer();
  await harness.startServer();
  await harness.open(phone, `/job/${id}/run`);
  await comesTo(phone, /Alarm/);
  expect(await textOf(phone, byTest('alarm'))).toMatch(/41 Power was lost/);
  expect(harness.faults).toEqual([]);
});
