/** Ways to do the same held against each other, and one taken over. */
import { Harness, bodyHas, byLabel, byTest, fill, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());
afterEach(() => expect(harness.problems).toEqual([]));

test('from an operation to ways that differ, a verdict, and the better one in the route', async () => {
  const page = await harness.page();
  const id = await harness.jobId('Vane hub plate');
  await harness.open(page, `/job/${id}/cut`);
  await tap(page, byLabel('More for Clear float pocket'));
  await tapText(page, 'Compare with other ways');
  await until('the verdict', async () => (await page.$(byTest('verdict'))) !== null, 300_000);
  expect(await textOf(page, byTest('verdict'))).toMatch(
    /^“Plain passes, 10 mm end mill, 3 flutes” costs least: [\d.]+ a part, \d+ % less/,
  );
  expect(await textOf(page, byTest('way-c1'))).toMatch(/^As it is/);
  // A tool of a typed size, made on the spot, and drilled down for first.
  await tapText(page, 'Another way');
  await fill(page, byTest('size-finder'), '7');
  await tap(page, '[aria-label^="Make 7 mm end mill"]');
  await tapText(page, 'Drilled first, then plain passes');
  await until('the way to be one', () => page.$eval(byTest('add-way'), (e) => e.ariaDisabled !== 'true'));
  await tap(page, byTest('add-way'));
  await until('its figures', async () => /Time [\d:]+/.test(await textOf(page, byTest('way-c4'))), 300_000);
  expect(await textOf(page, byTest('way-c4'))).toMatch(/^Drilled first, then plain passes, 7 mm end mill/);
  await tap(page, byTest('take-c2'));
  await until('the route', () => bodyHas(page, /Clear float pocket|Pocket float pocket/));
  await until('its operation to be plain passes', async () => {
    const { job } = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as {
      job: { setups: { operations: { kind: string; targets: string[] }[] }[]; comparisons?: unknown[] };
    };
    const of = job.setups[0].operations.find((o) => o.targets.includes('f2'));
    return of?.kind === 'pocket' && job.comparisons?.length === 0;
  });
}, 600_000);
