import { Page } from 'puppeteer-core';
import { Harness, byLabel, byTest, fill, textOf, until } from '../e2e/harness';

const harness = new Harness();
beforeAll(async () => {
  await harness.start();
  await harness.shortened('Lens cell ring');
});
afterAll(() => harness.stop());

const state = (page: Page) => textOf(page, byTest('save-state'));
const thickness = (page: Page) => page.$eval(byLabel('Thickness'), (e) => (e as HTMLInputElement).value);

/** What the server says to every save from now on; undefined lets saves through again. */
async function savesAnswer(
  page: Page,
  answer: () => { status: number; error: string } | 'nothing' | undefined,
): Promise<void> {
  await page.setRequestInterception(true);
  page.on('request', (request) => {
    const said = request.method() === 'PUT' ? answer() : undefined;
    if (said === 'nothing') void request.abort();
    else if (said)
      void request.respond({
        status: said.status,
        contentType: 'application/json',
        body: JSON.stringify({ error: said.error }),
      });
    else void request.continue();
  });
}

/** The browser itself writes to the console where a request fails. */
const told = () => harness.problems.filter((p) => !/Failed to load resource|status of 5\d\d|ERR_FAILED/.test(p));

test('a full disk, or any 500, is told by its true reason, kept, retried, and closing asks while anything is unsent', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Float-pulley bracket');
  let answer: { status: number; error: string } | undefined = {
    status: 507,
    error: 'the disk of the server is full; nothing was saved',
  };
  await savesAnswer(page, () => answer);
  await harness.open(page, `/job/${id}/part`);
  await fill(page, byLabel('Thickness'), '0.61');
  await until('its true reason', async () => /not sent: the disk of the server is full/.test(await state(page)));
  const asks = await page.evaluate(() => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event.defaultPrevented;
  });
  expect(asks).toBe(true);
  answer = undefined;
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  await until('the retry', async () => (await state(page)) === 'saved');
  expect(told()).toEqual([]);
  await page.close();
});

test('type, leave the field, kill the tab, reopen: kept', async () => {
  const id = await harness.jobId('Lens cell ring');
  const rounds = Number(process.env.KILL_ROUNDS ?? 3);
  for (let round = 0; round < rounds; round++) {
    const page = await harness.page();
    await savesAnswer(page, () => 'nothing');
    await harness.open(page, `/job/${id}/part`);
    const typed = String(11 + round / 10);
    await fill(page, byLabel('Thickness'), typed);
    await page.keyboard.press('Tab');
    await page.waitForFunction(
      (key, value) => localStorage.getItem(key)?.includes(`"thickness":${value}`),
      {},
      `tidypath-draft-${id}`,
      typed,
    );
    const session = await page.createCDPSession();
    const gone = new Promise((done) => page.once('error', done));
    session.send('Page.crash').catch(() => undefined);
    await gone;
    const again = await harness.page();
    if (round < rounds - 1) await savesAnswer(again, () => 'nothing');
    await harness.open(again, `/job/${id}/part`);
    await again.waitForSelector(byLabel('Thickness'));
    expect(await thickness(again)).toBe(typed);
    if (round === rounds - 1) await until('it is sent after all', async () => (await state(again)) === 'saved');
    await again.close();
  }
});

test('where storage is full or forbidden the page works and says that it cannot remember', async () => {
  const page = await harness.page();
  await page.evaluateOnNewDocument(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    Object.defineProperty(window, 'indexedDB', { value: undefined });
  });
  await savesAnswer(page, () => 'nothing');
  const id = await harness.jobId('Vane hub plate');
  await harness.open(page, `/job/${id}/part`);
  await fill(page, byLabel('Thickness'), '13');
  page.on('dialog', (dialog) => void dialog.accept());
  await until('it says so', async () => /this device cannot keep it/.test(await state(page)));
  await harness.open(page, '/recipes/calculator');
  await until('the calculator says so', () =>
    page.evaluate(() => /cannot remember what you typed/.test(document.body.innerText)),
  );
  expect(told()).toEqual([]);
  await page.close();
});
