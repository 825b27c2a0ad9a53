/** The history and the bin as people meet them. */
import { Harness, byLabel, byTest, fill, tap, tapText, textOf, until } from '../e2e/harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const value = (page: Awaited<ReturnType<Harness['page']>>, label: string) =>
  page.$eval(byLabel(label), (e) => (e as HTMLInputElement).value);

test('history is seen with who and when, compared in words, and brought back', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Lens cell ring');
  const saved = () => until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  await harness.open(page, '/shop');
  await tapText(page, 'Somebody new');
  await fill(page, byTest('person-name'), 'Mara');
  await tapText(page, 'Add');
  await tap(page, byLabel('This is me, Mara'));
  await until('Mara at this device', async () => /Mara, at this device/.test(await textOf(page, '[role=main]')));

  await harness.open(page, `/job/${id}/part`);
  await page.waitForSelector(byLabel('Thickness'));
  const before = await value(page, 'Thickness');
  await fill(page, byLabel('Thickness'), '11.5');
  await page.keyboard.press('Tab');
  await harness.hasThickness(id, 11.5);
  await saved();
  await tap(page, byTest('history'));
  await until('both states', async () => (await page.$$(byTest('history-entry'))).length === 2);
  const [now, then] = await page.$$eval(byTest('history-entry'), (all) => all.map((e) => (e as HTMLElement).innerText));
  expect(now).toMatch(/Mara, less than a minute ago/);
  expect(then).toMatch(/on this machine/);
  await (await page.$$(`${byTest('history-entry')} [role=button]`))[1].click();
  await until('what differs', async () =>
    (await textOf(page, byLabel('What is different now'))).includes(`part: thickness 11.5 mm instead of ${before} mm`),
  );
  await tapText(page, 'Bring it back');
  await until('the old value', async () => (await value(page, 'Thickness')) === before);
  await saved();
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a job opened again shows what was saved, not what it was when it was first opened', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Float-pulley bracket');
  await harness.open(page, `/job/${id}/part`);
  await fill(page, byLabel('Thickness'), '0.7');
  await page.keyboard.press('Tab');
  await harness.hasThickness(id, 0.7 * 25.4);
  await until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  await tap(page, byLabel('Back to jobs'));
  await tap(page, `${byTest('job-Float-pulley bracket')} [role=link]`);
  await tap(page, byTest('stage-part'));
  await page.waitForSelector(byLabel('Thickness'));
  expect(await value(page, 'Thickness')).toBe('0.7');
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a job deleted elsewhere says so and comes back from the bin with what was typed here', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Vane hub plate');
  await harness.open(page, `/job/${id}/part`);
  await page.waitForSelector(byLabel('Thickness'));
  await fetch(`${harness.base}/api/jobs/${id}`, { method: 'DELETE' });
  await fill(page, byLabel('Thickness'), '12.5');
  await page.keyboard.press('Tab');
  await until('the news', async () => /deleted elsewhere; kept here/.test(await textOf(page, byTest('save-state'))));
  await tapText(page, 'Bring it back');
  await until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  const { job } = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as {
    job: { part: { thickness: number } };
  };
  expect(job.part.thickness).toBe(12.5);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a deleted job is found in the bin and brought back', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Vane hub plate');
  await fetch(`${harness.base}/api/jobs/${id}`, { method: 'DELETE' });
  await harness.open(page, `/job/${id}/cut`);
  await until('why it is not shown', async () => /This job was deleted/.test(await textOf(page, '[role=main]')));
  await harness.open(page, '/');
  await tapText(page, 'Filter and sort');
  await tapText(page, 'Bin');
  await tapText(page, 'Show them');
  await tap(page, byLabel('Bring back Vane hub plate'));
  await until('it', async () => !!(await harness.jobId('Vane hub plate').catch(() => undefined)));
  expect(harness.problems).toEqual([]);
  await page.close();
});
