import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import { Job, planSetup, postSetup } from '@tidypath/core';
import { Harness, PHONE, WIDE, bodyHas, byTest, openProgram, shortCuts, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const has = (page: Page, selector: string) => page.$(selector).then((found) => found !== null);

async function proving(name: string, viewport = WIDE): Promise<Page> {
  const page = await harness.page(viewport);
  const id = await harness.jobId(name);
  await harness.open(page, `/job/${id}/prove`);
  await until('the proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
  return page;
}

test('a program from elsewhere: its tool is guessed from its remark, kept, its fault found and shown', async () => {
  const page = await proving('Vane hub plate', PHONE);
  const file = join(harness.data, 'elsewhere.nc');
  writeFileSync(
    file,
    'G21 G90 G17 G54\nT77 M6 (D6 BALL MILL)\nS6000 M3\nG0 X-10 Y40\nZ30\nG0 Z-3\nG1 X30 F400\nG0 Y80\nG0 Z30\nM30\n',
  );
  await openProgram(page, file);
  await until('the question', () => has(page, byTest('take-T77')));
  expect(await textOf(page, byTest('called-tools'))).toMatch(/D6 BALL MILL/);
  await tap(page, byTest('take-T77'));
  await until('the fault', () => has(page, byTest('finding-rapid-through-stock')));
  expect(await textOf(page, byTest('finding-rapid-through-stock'))).toMatch(/line 8/);
  expect(await has(page, byTest('called-tools'))).toBe(false);
  // On a phone the picture is further up than the finding: showing goes there.
  await tap(page, `${byTest('finding-rapid-through-stock')} button`);
  await until('the line', async () => /line 8 /.test(await textOf(page, byTest('line-now'))));
  expect(await textOf(page, byTest('finding-line'))).toMatch(/▲ A rapid runs/);
  const seen = () => page.$eval(byTest('scene'), (e) => e.getBoundingClientRect().top);
  await until('the picture is in sight', async () => (await seen()) >= 0);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('200 000 lines are read and proved; a cancel is heard meanwhile, and they can be proved again', async () => {
  const page = await proving('Lens cell ring');
  const file = join(harness.data, 'long.nc');
  writeFileSync(file, shortCuts(200_000));
  await openProgram(page, file);
  await until('the question', () => has(page, byTest('take-T77')), 120_000);
  await tap(page, byTest('take-T77'));
  await until('progress', () => bodyHas(page, /Proving, [1-9]\d* %/), 120_000);
  await tapText(page, 'Cancel');
  await until('it is cancelled', () => bodyHas(page, /Prove again/), 120_000);
  await tapText(page, 'Prove again');
  await until('the verdict', async () => !/out of date/.test(await textOf(page, byTest('stage-prove'))), 300_000);
  expect(await textOf(page, byTest('stage-prove'))).toMatch(/✓|▲|●/);
  expect(harness.problems).toEqual([]);
  await page.close();
}, 600_000);

test('the job’s own program comes back edited: what was changed is said and taken over', async () => {
  const page = await proving('Vane hub plate', PHONE);
  const id = await harness.jobId('Vane hub plate');
  const jobNow = async () => ((await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as { job: Job }).job;
  const job = await jobNow();
  const [program] = postSetup(job, job.setups[0], planSetup(job, job.setups[0])).programs;
  const file = join(harness.data, 'edited.nc');
  writeFileSync(file, program.text.replace(/ S\d+ M3/, ' S4444 M3').replace(/M30/, '(SHIFT B)\nM30'));
  await openProgram(page, file);
  await until('what was changed', async () => /4444 rpm instead of/.test(await textOf(page, byTest('edited'))));
  expect(await textOf(page, byTest('edited'))).toMatch(/“\(SHIFT B\)” put in/);
  await tap(page, byTest('take-edits'));
  await until('the job has it', async () => (await jobNow()).setups[0].operations[0].speeds.rpm === 4444);
  await until('it is no change any more', async () => !/4444/.test(await textOf(page, byTest('edited'))));
  expect(harness.problems).toEqual([]);
  await page.close();
});
