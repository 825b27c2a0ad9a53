/** Two devices on one job: each sees what the other does, and nobody loses anything. */
import type { Page } from 'puppeteer-core';
import type { Tool } from '@tidypath/core';
import { Harness, PHONE, WIDE, bodyHas, byLabel, byTest, fill, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
let [phone, desk]: Page[] = [];
let id = '';
beforeAll(async () => {
  await harness.start();
  id = await harness.shortened('Lens cell ring');
  phone = await harness.device();
  desk = await harness.device(WIDE);
  for (const page of [phone, desk]) await harness.open(page, `/job/${id}/part`);
});
afterAll(() => harness.stop());

const thickness = (page: Page) => page.$eval(byLabel('Thickness'), (e) => (e as HTMLInputElement).value);
const shows = (page: Page, value: string) => until(`thickness ${value}`, async () => (await thickness(page)) === value);
const state = (page: Page) => textOf(page, byTest('save-state'));
const isSaved = (page: Page) => until('it is saved', async () => (await state(page)) === 'saved');
async function type(page: Page, value: string): Promise<void> {
  await fill(page, byLabel('Thickness'), value);
  await page.keyboard.press('Tab');
}
/** Where the field stands on the page. */
const placeOf = (page: Page) => page.$eval(byLabel('Thickness'), (e) => e.getBoundingClientRect().top);
/** The job as it is kept at the server. */
async function stored(): Promise<{ part: { thickness: number }; tolerance?: number; customerNumber?: string }> {
  return ((await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as { job: never }).job;
}
/** Waits until the server has it: the page may not have begun to save when it is asked. */
const isStored = (what: { thickness?: number; customerNumber?: string }) =>
  until('it is stored', async () => {
    const { part, customerNumber } = await stored();
    return Object.entries(what).every(([k, v]) => (k === 'thickness' ? part.thickness : customerNumber) === v);
  });
async function number(page: Page, value: string): Promise<void> {
  await tap(page, byLabel('About Lens cell ring'));
  await fill(page, byLabel('Customer’s number'), value);
  await tapText(page, 'Done');
}

test('a change appears on the other without a reload', async () => {
  await type(phone, '11.5');
  await shows(desk, '11.5');
  await type(desk, '11.25');
  await shows(phone, '11.25');
  for (const page of [phone, desk]) await isSaved(page);
});

test('what each changed meanwhile is taken together where they touched different settings', async () => {
  await phone.setOfflineMode(true);
  await type(phone, '11.75');
  await until('it is told', async () => /not sent/.test(await state(phone)));
  await number(desk, 'C-77');
  await isStored({ customerNumber: 'C-77' });
  await phone.setOfflineMode(false);
  await shows(desk, '11.75');
  for (const page of [phone, desk]) await isSaved(page);
  expect(await stored()).toMatchObject({ part: { thickness: 11.75 }, customerNumber: 'C-77' });
});

test('where both touched the same the later one is asked, and typed text is never taken away', async () => {
  await phone.setOfflineMode(true);
  await type(phone, '12.25');
  await until('it is told', async () => /not sent/.test(await state(phone)));
  await type(desk, '12.75');
  await isStored({ thickness: 12.75 });
  await phone.setOfflineMode(false);
  await until('it is asked', () => bodyHas(phone, /Somebody changed the same as you/));
  expect(await bodyHas(phone, /thickness 12\.25 mm instead of 12\.75 mm/)).toBe(true);
  expect(await thickness(phone)).toBe('12.25');
  await tapText(phone, 'Take theirs');
  await shows(phone, '12.75');
  await isSaved(phone);
  expect(await stored()).toMatchObject({ part: { thickness: 12.75 } });
});

test('the server killed meanwhile: an edit made then appears on the other once it is back', async () => {
  const seen = await placeOf(phone);
  expect(await phone.$(byTest('others'))).not.toBeNull();
  harness.killServer();
  await until('the other is gone', async () => !(await phone.$(byTest('others'))));
  await type(phone, '13.5');
  await until('it is told', async () => /not sent/.test(await state(phone)));
  // What comes and goes by itself moves nothing from under a finger.
  expect(await placeOf(phone)).toBe(seen);
  await harness.startServer();
  await shows(desk, '13.5');
  await isSaved(phone);
});

test('what was typed on a page that was closed before it could be sent is taken together too, once it is opened again', async () => {
  const context = phone.browserContext();
  await phone.setOfflineMode(true);
  await type(phone, '12.5');
  await until('it is told', async () => /not sent/.test(await state(phone)));
  await phone.close();
  await number(desk, 'C-88');
  await isStored({ customerNumber: 'C-88' });
  phone = await context.newPage();
  await phone.setViewport(PHONE);
  await harness.open(phone, `/job/${id}/part`);
  await shows(phone, '12.5');
  await shows(desk, '12.5');
  for (const page of [phone, desk]) await isSaved(page);
  expect(await stored()).toMatchObject({ part: { thickness: 12.5 }, customerNumber: 'C-88' });
});

test('each sees where the other is, and one follows the other through stages, operations and seconds', async () => {
  for (const page of [phone, desk])
    await until('the other', async () => /Part/.test(await textOf(page, byTest('others'))));
  await tap(desk, byTest('stage-prove'));
  await until('where the desk is', async () => /at Prove/.test(await textOf(phone, byTest('others'))));
  await tapText(phone, 'Follow');
  await until('the same stage', async () => /\/prove$/.test(phone.url()));
  await until('a verdict', async () => /[✓▲]/.test(await textOf(desk, byTest('stage-prove'))));
  const second = async (page: Page) => /at Prove ([\d:]+)/.exec(await textOf(page, byTest('others')))?.[1];
  const end = await until('the end', () => second(phone));
  await tap(desk, byTest('stride'));
  await tap(desk, byTest('stride-back'));
  // What the phone sees of the desk, and the desk of the phone that follows it.
  await until('the same second', async () => {
    const [there, here] = [await second(phone), await second(desk)];
    return there !== end && there === here;
  });
  await tap(desk, byTest('stage-cut'));
  await until('the same stage again', async () => /\/cut$/.test(phone.url()));
  const first = '[data-testid^=operation-] [aria-expanded][aria-label^="1 "]';
  await tap(desk, first);
  await until('the same operation', () => phone.$(first.replace('expanded', 'expanded=true')));
  await tapText(phone, 'Leave');
  await tap(desk, byTest('stage-part'));
  await until('where the desk went', async () => /at Part/.test(await textOf(phone, byTest('others'))));
  expect(phone.url()).toMatch(/\/cut$/);
  await tap(phone, byTest('stage-part'));
});

test('a tool changed by one is changed at the other, who is asked where both touch it', async () => {
  for (const page of [phone, desk]) await harness.open(page, '/tools/t4');
  const length = (page: Page) => page.$eval(byLabel('Flute length'), (e) => (e as HTMLInputElement).value);
  const change = async (page: Page, value: string) => {
    await fill(page, byLabel('Flute length'), value);
    await page.keyboard.press('Tab');
  };
  const isAsked = () => bodyHas(phone, /Somebody else changed this tool meanwhile/);
  await change(desk, '23');
  await until('it is there', async () => (await length(phone)) === '23');
  await phone.setOfflineMode(true);
  await change(phone, '24');
  await until('it is kept', async () => /not sent/.test(await textOf(phone, byTest('item-state'))));
  await change(desk, '25');
  await until('it is stored', async () => {
    const tools = (await (await fetch(`${harness.base}/api/shop/tools`)).json()) as { item: Tool }[];
    return tools.find((k) => k.item.id === 't4')?.item.fluteLength === 25;
  });
  await phone.setOfflineMode(false);
  await until('it is asked', isAsked);
  expect(await length(phone)).toBe('24');
  await tapText(phone, 'Keep mine');
  await until('it is at the desk', async () => (await length(desk)) === '24');
  expect(await isAsked()).toBe(false);
  for (const page of [phone, desk]) await harness.open(page, `/job/${id}/part`);
});

test('all pages of a browser hear it over one line', async () => {
  const lines: string[] = [];
  const beside = await phone.browserContext().newPage();
  for (const page of [phone, beside])
    page.on('request', (r) => void (r.resourceType() === 'eventsource' && lines.push(r.url())));
  await harness.open(beside, `/job/${id}/part`);
  await type(desk, '14');
  await shows(beside, '14');
  await shows(phone, '14');
  expect(lines.length).toBeLessThanOrEqual(1);
  await phone.close();
  await type(desk, '14.5');
  await shows(beside, '14.5');
  expect(harness.problems.filter((p) => !/Failed to load resource|ERR_/.test(p))).toEqual([]);
});
