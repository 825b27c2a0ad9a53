/** Nothing is computed twice: what was planned and proved once is shown from then, and cut again only where more is asked of it. */
import type { Page } from 'puppeteer-core';
import { Harness, byLabel, byTest, fill, proved, stage, tap, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

/** Notes what the workers of a page answer, each kind as often as it came. */
const NOTE = `{
  const Plain = Worker;
  window.answers = {};
  window.Worker = class extends Plain {
    constructor(...all) {
      super(...all);
      this.addEventListener('message', ({ data }) => {
        window.answers[data.type] = (window.answers[data.type] ?? 0) + 1;
      });
    }
  };
}`;

const answers = (page: Page) => page.evaluate('window.answers') as Promise<Record<string, number | undefined>>;
const forget = (page: Page) => page.evaluate('window.answers = {}');

async function opened(): Promise<Page> {
  const page = await harness.page();
  await page.evaluateOnNewDocument(NOTE);
  await harness.open(page, `/job/${await harness.jobId('Lens cell ring')}/cut`);
  await proved(page);
  return page;
}

/** Asks the database of the results, within the page. */
const results = (page: Page, script: string): Promise<unknown> =>
  page.evaluate(`new Promise((done, fail) => {
    const asked = indexedDB.open('tidypath-results');
    asked.onerror = fail;
    asked.onsuccess = () => {
      const held = asked.result.transaction('results', 'readwrite').objectStore('results');
      ${script}
    };
  })`);
const keys = async (page: Page) =>
  (await results(page, 'held.getAllKeys().onsuccess = (e) => done(e.target.result)')) as string[];
const isKept = (page: Page) =>
  until('it is kept', async () => (await keys(page)).filter((k) => /^(plan|proof|uses)/.test(k)).length === 3);

test('an unchanged job opened again is shown as it was proved; it is cut again when it is played, and says so', async () => {
  const first = await opened();
  expect((await answers(first)).progress).toBeGreaterThan(0);
  await isKept(first);
  await first.close();

  const page = await opened();
  const shown = await answers(page);
  expect([shown.planned, shown.proved, shown.progress, shown.again]).toEqual([1, 1, undefined, undefined]);
  await stage(page, 'prove');
  await page.evaluate(`new MutationObserver(() => {
    window.said ||= /Proved before; cut again/.test(document.body.innerText);
  }).observe(document.body, { subtree: true, childList: true, characterData: true })`);
  await tap(page, byLabel('Play'));
  await until('it is played', async () => !!(await answers(page)).moment);
  expect((await answers(page)).again).toBeGreaterThan(1);
  expect((await answers(page)).proved).toBe(1);
  expect(await page.evaluate('window.said')).toBe(true);
  await page.close();
});

test('a change is computed, and taken back it is not computed again', async () => {
  const page = await opened();
  await stage(page, 'part');
  const value = await page.$eval(byLabel('Thickness'), (e) => (e as HTMLInputElement).value);
  await forget(page);
  await fill(page, byLabel('Thickness'), '11.5');
  await page.keyboard.press('Tab');
  await until('it is proved anew', async () => !!(await answers(page)).proved);
  expect((await answers(page)).progress).toBeGreaterThan(0);
  await forget(page);
  await fill(page, byLabel('Thickness'), value);
  await page.keyboard.press('Tab');
  await until('it is proved as it was', async () => !!(await answers(page)).proved);
  expect((await answers(page)).progress).toBeUndefined();
  await until('it is saved', async () =>
    /saved/.test(await page.$eval(byTest('save-state'), (e) => e.textContent ?? '')),
  );
  await page.close();
});

test('a kept result that is damaged is not shown: it is computed again', async () => {
  const before = await opened();
  expect((await answers(before)).progress).toBeUndefined();
  await results(
    before,
    `held.openCursor().onsuccess = ({ target: { result: cursor } }) => {
      if (!cursor) return done();
      if (cursor.key.startsWith('proof')) cursor.update({ ...cursor.value, made: { findings: [] } });
      cursor.continue();
    };`,
  );
  await before.close();
  const page = await opened();
  expect((await answers(page)).progress).toBeGreaterThan(0);
  await page.close();
  expect(harness.problems).toEqual([]);
});
