import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import { Harness, WIDE, byLabel, byTest, downloaded, downloadsTo, fill, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const isProved = async (page: Page) => /✓/.test(await textOf(page, byTest('stage-prove')));

test('the underside starts from what the top left, is proved and released; a setup is added, taken out and undone', async () => {
  const page = await harness.page(WIDE);
  const downloads = join(harness.data, 'setups');
  await downloadsTo(page, downloads);
  await harness.open(page, `/job/${await harness.jobId('Vane hub plate')}/hold`);
  await tapText(page, 'Underside');
  await until('what is left', async () =>
    /6 mm above the part/.test(await page.evaluate(() => document.body.innerText)),
  );
  await until('the proof', () => isProved(page), 120_000);
  await tap(page, byTest('stage-prove'));
  await until('the steps', async () => /Face the underside/.test(await textOf(page, byTest('steps'))));
  const removed = Number(/([\d.]+) cm³ removed/.exec(await textOf(page, byTest('removed')))![1]);
  expect(removed).toBeGreaterThan(60);
  expect(removed).toBeLessThan((124 * 84 * 6) / 1000);

  await tap(page, byTest('save-stl'));
  const surface = await downloaded(join(downloads, 'Underside.stl'));
  expect(surface.length).toBe(84 + 50 * surface.readUInt32LE(80));

  await tap(page, byTest('stage-release'));
  await fill(page, byLabel('Program number'), '77');
  await fill(page, byLabel('Program title'), 'Flip side');
  await until('release', async () => /Proved as posted/.test(await textOf(page, byTest('release-state'))));
  await until('the title', async () => /O0077 \(FLIP SIDE\)/.test(await textOf(page, byTest('listing'))));
  await tap(page, byTest('download'));
  const program = await downloaded(join(downloads, 'flip-side.nc'));
  expect(program.toString()).toMatch(/O0077 \(FLIP SIDE\)/);

  await tap(page, byTest('stage-hold'));
  await tap(page, byTest('add-setup'));
  await until('a third', async () => /Setup 3/.test(await textOf(page, byTest('setups'))));
  await tapText(page, 'Take this one out');
  await until('two again', async () => !/Setup 3/.test(await textOf(page, byTest('setups'))));
  await tap(page, '[aria-label^="Undo"]');
  await until('three again', async () => /Setup 3/.test(await textOf(page, byTest('setups'))));
  expect(harness.problems).toEqual([]);
  await page.close();
});
