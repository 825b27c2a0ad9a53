import { join } from 'node:path';
import {
  Harness,
  drawn,
  nextFrame,
  bodyHas,
  WIDE,
  byLabel,
  byTest,
  downloaded,
  downloadsTo,
  fill,
  tap,
  tapText,
  textOf,
  until,
  proved,
  stage,
} from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

test('a part from shapes in inches, held by a clamp that is in the way, then cured', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, '/');
  await tapText(page, 'New job');
  await fill(page, byTest('new-job-name'), 'Rain gauge foot');
  await tapText(page, 'inch');
  await tapText(page, 'Create');
  await until('the empty page', () => bodyHas(page, /Nothing drawn yet/));

  await tapText(page, 'Add a shape');
  await tap(page, byLabel('Add outside of the part, rectangle'));
  await fill(page, byLabel('Width (X)'), '4');
  await fill(page, byLabel('Height (Y)'), '2-1/2');
  await tapText(page, 'Done');
  expect(await textOf(page, byTest('feature-f1'))).toMatch(/4 in × 2.5 in/);

  await tapText(page, 'Add a shape');
  await tap(page, byLabel('Add hole, round'));
  await fill(page, byLabel('Diameter'), '#7');
  await fill(page, byLabel('Centre X'), '0.5');
  await fill(page, byLabel('Centre Y'), '0.75');
  await tapText(page, 'in a grid');
  await fill(page, byLabel('Step X'), '3');
  await fill(page, byLabel('Columns'), '2');
  await tapText(page, 'Done');
  expect(await textOf(page, byTest('feature-f2'))).toMatch(/⌀ 0.201 in, through, 2 in a grid/);

  // A bad length says why; the last good one stays.
  await fill(page, byLabel('Thickness'), 'half');
  await until('the reason', () => bodyHas(page, /“?"?half"? is not a length/));
  await page.keyboard.press('Tab');
  await until(
    'the good value',
    async () => (await page.$eval(byLabel('Thickness'), (e) => (e as HTMLInputElement).value)) === '0.5',
  );

  await stage(page, 'hold');
  await tapText(page, 'Add a box in the way');
  await stage(page, 'cut');
  await tapText(page, 'Add an operation');
  await tap(page, byTest('add-face'));
  await until('the stop', async () => /▲/.test(await textOf(page, byTest('stage-prove'))), 120_000);
  await stage(page, 'prove');
  expect(await textOf(page, byTest('finding-fixture-hit'))).toMatch(/hits “Clamp”/);
  await stage(page, 'release');
  expect(await textOf(page, byTest('release-state'))).toMatch(/Not released: \d to cure/);

  await stage(page, 'hold');
  await tapText(page, 'Take it off');
  await tapText(page, 'Hold it in a vise');
  await proved(page);
  await stage(page, 'release');
  await until('release', async () => /✓ Proved as posted/.test(await textOf(page, byTest('release-state'))));
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a control without tool changer: one program a tool, downloaded as one archive with the tool list', async () => {
  const page = await harness.page(WIDE);
  const downloads = join(harness.data, 'archives');
  await downloadsTo(page, downloads);
  const id = await harness.jobId('Lens cell ring');
  await harness.open(page, `/job/${id}/hold`);
  await tapText(page, 'Hobby controller');
  await stage(page, 'release');
  await until('release', async () => /✓ Proved as posted/.test(await textOf(page, byTest('release-state'))), 120_000);
  expect(await textOf(page, byTest('download'))).toMatch(/Download 9 programs/);
  await tap(page, byTest('download'));
  const bytes = (await downloaded(join(downloads, 'programs.zip'))).toString('latin1');
  expect(bytes).toContain('lens-cell-ring-1-t1.nc');
  expect(bytes).toContain('tools.json');
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a proof can be cancelled and taken up again', async () => {
  const page = await harness.page();
  const path = `/job/${await harness.jobId('Float-pulley bracket')}/prove`;
  // On a busy machine a proof may be over before a hand is there: then it is opened anew.
  await until('a proof that is cancelled', async () => {
    await harness.open(page, path);
    while (!(await bodyHas(page, /The proof was cancelled|Nothing stops/)))
      await page.$(byTest('cancel-proof')).then((button) => button?.click().catch(() => undefined));
    return bodyHas(page, /The proof was cancelled/);
  });
  await tapText(page, 'Prove again');
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('playing: the stock of a moment, its line, and a stop', async () => {
  const page = await harness.page();
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/prove`);
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  expect(await textOf(page, byTest('line-now'))).toBe('at the end');
  // Slowly, so that it does not come to its end meanwhile.
  await tap(page, byLabel('Speed 32 times'));
  await tap(page, byLabel('Speed 128 times'));
  await tap(page, byLabel('Play'));
  await until('a line', async () => /line \d+/.test(await textOf(page, byTest('line-now'))));
  await tap(page, byLabel('Pause'));
  await page.waitForSelector(byLabel('Play'));
  await drawn(page);
  const stopped = await textOf(page, byTest('line-now'));
  await nextFrame(page);
  await drawn(page);
  expect(await textOf(page, byTest('line-now'))).toBe(stopped);
  await page.focus(byTest('load-ribbon'));
  // As often as it takes: a line may be longer than some steps.
  await until('another line', async () => {
    await page.keyboard.press('ArrowRight');
    return (await textOf(page, byTest('line-now'))) !== stopped;
  });
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a browser too old for the picture says so, and proves all the same', async () => {
  const page = await harness.page();
  await page.evaluateOnNewDocument(
    () => delete (HTMLCanvasElement.prototype as Partial<HTMLCanvasElement>).transferControlToOffscreen,
  );
  await harness.open(page, `/job/${await harness.jobId('Lens cell ring')}/prove`);
  expect(await textOf(page, byTest('no-picture'))).toMatch(/cannot be drawn: this browser is too old/);
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('what is gone is said: an unknown job, an unknown page', async () => {
  const page = await harness.page();
  await harness.open(page, '/job/00000000-0000-0000-0000-000000000000/cut');
  await until('the word', () => bodyHas(page, /This job is gone/));
  await tapText(page, 'To the jobs');
  await until('the jobs', async () => !!(await page.$(byTest('job-Vane hub plate'))));
  await page.close();
});
