/** The phone at the machine keeps working where the network does not reach. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { Harness, WIDE, bodyHas, byLabel, byTest, fill, proved, root, tap, tapText, textOf, until } from './harness';

const web = mkdtempSync(join(tmpdir(), 'tidypath-web-'));
cpSync(join(root, 'apps/web/dist'), web, { recursive: true });
const harness = new Harness({ TIDYPATH_WEB: web });
beforeAll(async () => {
  await harness.start();
  await harness.shortened('Lens cell ring');
});
afterAll(async () => {
  await harness.stop();
  rmSync(web, { recursive: true, force: true });
});

const state = (page: Page) => textOf(page, byTest('save-state'));
const thickness = async (page: Page) =>
  (await page.waitForSelector(byLabel('Thickness')))!.evaluate((e) => (e as HTMLInputElement).value);

/** A page whose app the device keeps, which takes a moment the first time. */
async function kept(viewport?: typeof WIDE): Promise<Page> {
  const page = await harness.page(viewport, true);
  await harness.open(page, '/');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await until('the device answers', () => page.evaluate(() => navigator.serviceWorker.controller !== null));
  return page;
}

test('it can be installed: manifest, icons, worker and scope', async () => {
  const page = await kept();
  const session = await page.createCDPSession();
  const { installabilityErrors } = await session.send('Page.getInstallabilityErrors');
  expect(installabilityErrors).toEqual([]);
  const { url, errors, data } = await session.send('Page.getAppManifest');
  expect([url, errors]).toEqual([`${harness.base}/app.webmanifest`, []]);
  const { icons, start_url, scope, display } = JSON.parse(data!) as {
    icons: { src: string; sizes: string }[];
    start_url: string;
    scope: string;
    display: string;
  };
  expect([start_url, scope, display]).toEqual(['/', '/', 'standalone']);
  for (const { src, sizes } of icons) {
    const size = await page.evaluate(async (at) => {
      const image = new Image();
      image.src = at;
      await image.decode();
      return `${image.naturalWidth}x${image.naturalHeight}`;
    }, src);
    if (sizes !== 'any') expect(size).toBe(sizes);
  }
  const worker = await page.evaluate(async () => {
    const { scope, active } = await navigator.serviceWorker.ready;
    return [scope, active?.scriptURL];
  });
  expect(worker).toEqual([`${harness.base}/`, `${harness.base}/sw.js`]);
  expect((await fetch(`${harness.base}/sw.js`)).headers.get('cache-control')).toBe('no-cache');
  await page.close();
});

test('what was seen opens without the server, proved as it was; an edit made meanwhile is found on the wide page afterwards', async () => {
  const id = await harness.jobId('Lens cell ring');
  const proven = await harness.jobId('Float-pulley bracket');
  const before = await kept();
  await harness.open(before, `/job/${proven}/cut`);
  await proved(before);
  await harness.open(before, `/job/${id}/part`);
  await fill(before, byLabel('Thickness'), '11.5');
  await before.keyboard.press('Tab');
  await until('it is saved', async () => (await state(before)) === 'saved');
  await before.close();

  harness.killServer();
  const phone = await harness.page(undefined, true);
  phone.on('dialog', (dialog) => void dialog.accept());
  await harness.open(phone, `/job/${id}/part`);
  await until('it says so', () => bodyHas(phone, /The server does not answer/));
  expect(await thickness(phone)).toBe('11.5');
  await fill(phone, byLabel('Thickness'), '11.75');
  await phone.keyboard.press('Tab');
  await until('it is told', async () => /kept here, not sent/.test(await state(phone)));
  await harness.open(phone, '/');
  await until('the list as it was seen', () => bodyHas(phone, /Vane hub plate/));
  await harness.open(phone, `/job/${proven}/cut`);
  await proved(phone);
  await harness.open(phone, `/job/${id}/part`);
  await until('the edit', async () => (await thickness(phone)) === '11.75');

  await harness.startServer();
  await until('it is sent', async () => (await state(phone)) === 'saved');
  await until('it says nothing more', async () => !(await bodyHas(phone, /The server does not answer/)));
  const desk = await harness.page(WIDE);
  await harness.open(desk, `/job/${id}/part`);
  await until('the edit at the desk', async () => (await thickness(desk)) === '11.75');
  await desk.close();
  await phone.close();
  expect(harness.faults).toEqual([]);
});

test('what is made and changed without the server arrives once it is back, open or not', async () => {
  const id = await harness.jobId('Lens cell ring');
  const before = await kept();
  await harness.open(before, `/job/${id}/part`);
  await before.waitForSelector(byLabel('Thickness'));
  await before.close();

  harness.killServer();
  const phone = await harness.page(undefined, true);
  phone.on('dialog', (dialog) => void dialog.accept());
  await harness.open(phone, `/job/${id}/part`);
  await fill(phone, byLabel('Thickness'), '12.25');
  await phone.keyboard.press('Tab');
  await until('it is told', async () => /kept here, not sent/.test(await state(phone)));
  await tap(phone, byLabel('Back to jobs'));
  await tapText(phone, 'New job');
  await fill(phone, byTest('new-job-name'), 'Made off line');
  await tapText(phone, 'Create');
  await until('it is open', () => bodyHas(phone, /Made off line/));
  await until('it is kept', async () => /kept here, not sent/.test(await state(phone)));
  // Another start of the app, and it is there still.
  await harness.open(phone, '/');
  await until('both are told', async () =>
    /Lens cell ring[^]*Made off line|Made off line[^]*Lens cell ring/.test(await textOf(phone, byTest('not-sent'))),
  );

  await harness.startServer();
  await until('both have arrived', async () => (await phone.$(byTest('not-sent'))) === null);
  const { job } = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as {
    job: { part: { thickness: number } };
  };
  expect(job.part.thickness).toBe(12.25);
  expect(await harness.jobId('Made off line')).toMatch(/^[0-9a-f]{32}$/);
  await phone.close();
  expect(harness.faults).toEqual([]);
});

test('what is deleted, put away and changed in the shop without the server arrives once it is back', async () => {
  const before = await kept();
  for (const page of ['/tools/t4', '/recipes', '/shop', '/']) await harness.open(before, page);
  await before.waitForSelector(byTest('job-Lens cell ring'));
  await before.close();

  harness.killServer();
  const phone = await harness.page(undefined, true);
  await harness.open(phone, '/tools/t4');
  const length = byLabel('Flute length');
  await fill(phone, length, '23');
  await phone.keyboard.press('Tab');
  await until('it is told', async () => /kept here, not sent/.test(await textOf(phone, byTest('item-state'))));
  await tapText(phone, 'Duplicate');
  await until('its copy', () => bodyHas(phone, /T\d+ · .* copy/));
  await harness.open(phone, '/');
  await tap(phone, byLabel('Delete Lens cell ring'));
  await until('it is gone', async () => (await phone.$(byTest('job-Lens cell ring'))) === null);
  await tap(phone, byLabel('Archive Vane hub plate'));
  await until('it is put away', async () => (await phone.$(byTest('job-Vane hub plate'))) === null);
  const notSent = () => textOf(phone, byTest('not-sent'));
  await until('all of it is told', async () =>
    /Changed here[^]*Made here[^]*Lens cell ring[^]*Deleted here[^]*Vane hub plate[^]*Archived here/.test(
      await notSent(),
    ),
  );
  await harness.open(phone, '/tools');
  await until('the copy on its shelf', () => bodyHas(phone, / copy/));
  await harness.open(phone, '/');
  await tap(phone, '[aria-label^="Throw away what is kept of"][aria-label$=" copy"]');
  await until('it is thrown away', async () => !/ copy/.test(await notSent()));

  await harness.startServer();
  await until('all has arrived', async () => (await phone.$(byTest('not-sent'))) === null);
  const get = async <T>(path: string) => (await (await fetch(`${harness.base}/api${path}`)).json()) as T[];
  const tools = await get<{ item: { id: string; fluteLength: number; name: string } }>('/shop/tools');
  expect(tools.find((k) => k.item.id === 't4')?.item.fluteLength).toBe(23);
  expect(tools.filter((k) => / copy$/.test(k.item.name))).toEqual([]);
  const names = async (place: string) => (await get<{ name: string }>(`/jobs?place=${place}`)).map((j) => j.name);
  expect(await names('list')).not.toContain('Lens cell ring');
  expect(await names('bin')).toContain('Lens cell ring');
  expect(await names('archive')).toEqual(['Vane hub plate']);
  await phone.close();
  expect(harness.faults).toEqual([]);
});

test('a newer version waits until it is asked for', async () => {
  const page = await kept();
  const named = () => page.title();
  expect(await named()).toBe('Tidy Path');
  const html = readFileSync(join(web, 'index.html'), 'utf8').replace('<title>Tidy Path<', '<title>Tidy Path, newer<');
  writeFileSync(join(web, 'index.html'), html);
  const hash = await page.evaluate(async (text) => {
    const bytes = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
    return [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');
  }, html);
  const worker = readFileSync(join(web, 'sw.js'), 'utf8')
    .replace(/("\/index.html": ")[0-9a-f]+/, `$1${hash}`)
    .replace(/VERSION = '[0-9a-f]+/, `VERSION = '${hash}`);
  writeFileSync(join(web, 'sw.js'), worker);

  await harness.open(page, '/tools');
  await until('it is told', () => bodyHas(page, /A newer version of Tidy Path is here/));
  expect(await named()).toBe('Tidy Path');
  await harness.open(page, '/');
  expect(await named()).toBe('Tidy Path');
  await until('it is told again', () => bodyHas(page, /A newer version of Tidy Path is here/));
  await tapText(page, 'Reload');
  await until('the newer one', async () => (await named()) === 'Tidy Path, newer');
  const versions = await page.evaluate(() => caches.keys());
  expect(versions.filter((k) => k.startsWith('app-'))).toEqual([`app-${hash}`]);
  await page.close();
});
