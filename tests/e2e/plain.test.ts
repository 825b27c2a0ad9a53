/** The other world: a name in the shop's network over plain http, where a browser keeps no app and lends no hashes or shared memory. */
import {
  Harness,
  PHONE,
  PLAIN_NAME,
  bodyHas,
  byLabel,
  byTest,
  fill,
  proved,
  stage,
  tap,
  textOf,
  until,
} from './harness';

const harness = new Harness({ TIDYPATH_NAMES: PLAIN_NAME });
beforeAll(async () => {
  await harness.start();
  await harness.shortened('Lens cell ring');
});
afterAll(() => harness.stop());

test('over plain http everything but the start without a server works, and Shop says so', async () => {
  harness.base = harness.base.replace('127.0.0.1', PLAIN_NAME);
  const page = await harness.page(PHONE, true);
  await harness.open(page, '/shop');
  const lacking = await page.evaluate(() => [
    isSecureContext,
    'serviceWorker' in navigator,
    'subtle' in crypto,
    'SharedArrayBuffer' in window,
  ]);
  expect(lacking).toEqual([false, false, false, false]);
  expect(await textOf(page, byTest('world'))).toMatch(/came over plain http.*TIDYPATH_CERT/);

  const id = await page.evaluate(async () => {
    const jobs = (await (await fetch('/api/jobs')).json()) as { id: string; name: string }[];
    return jobs.find((j) => j.name === 'Lens cell ring')!.id;
  });
  await harness.open(page, `/job/${id}/cut`);
  await proved(page);
  await stage(page, 'part');
  harness.killServer();
  await fill(page, byLabel('Thickness'), '11.5');
  await page.keyboard.press('Tab');
  await until('it is kept', async () => /kept here, not sent/.test(await textOf(page, byTest('save-state'))));
  expect(await bodyHas(page, /The server does not answer/)).toBe(true);
  await tap(page, byLabel('Undo'));
  await proved(page);
  await stage(page, 'prove');
  await tap(page, byLabel('Play'));
  await until('it plays', async () => /0:0[1-9]/.test(await page.evaluate(() => document.body.innerText)));
  await stage(page, 'part');
  await fill(page, byLabel('Thickness'), '11.75');
  await page.keyboard.press('Tab');
  await harness.startServer();
  await until('it is sent', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  const row = (await (await fetch(`${harness.base.replace(PLAIN_NAME, '127.0.0.1')}/api/jobs/${id}`)).json()) as {
    job: { part: { thickness: number } };
  };
  expect(row.job.part.thickness).toBe(11.75);
  await page.close();
  expect(harness.problems.filter((p) => !/Failed to load resource|Cross-Origin-Opener-Policy/.test(p))).toEqual([]);
});
