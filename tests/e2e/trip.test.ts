import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import * as draw from '../../demo/dxf';
import {
  Harness,
  nextFrame,
  WIDE,
  byLabel,
  byTest,
  choose,
  downloaded,
  downloadsTo,
  fill,
  root,
  tap,
  tapText,
  textOf,
  until,
  proved,
  stage,
  routeNames,
} from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

/** A drawing of its own: a plate with a pocket and two holes. */
const DRAWING = draw.dxf([
  draw.roundedRectangle('OUT', 35, 25, 70, 50, 5),
  draw.roundedRectangle('POCKET', 35, 25, 40, 26, 6),
  draw.circle('HOLES', 8, 8, 2.5),
  draw.circle('HOLES', 62, 42, 2.5),
]);

/** Opens a menu, chooses, and waits until it is gone. The item itself is clicked: a menu that still grows has its cover under the pointer. */
async function chooseFrom(page: Page, menu: string, item: string): Promise<void> {
  await tap(page, byLabel(menu));
  await page.waitForFunction(
    (wanted) => {
      const all = [...document.querySelectorAll<HTMLElement>('[role=menuitem]')];
      const found = all.find((e) => e.textContent?.replace(/\p{Co}/gu, '').trim() === wanted);
      found?.click();
      return !!found;
    },
    {},
    item,
  );
  await page.waitForFunction(() => !document.querySelector('[role=menuitem]'));
}

test('from a drawing to a proven, downloaded program', async () => {
  const page = await harness.page();
  const downloads = join(harness.data, 'downloads');
  await downloadsTo(page, downloads);

  await harness.open(page, '/');
  await tapText(page, 'New job');
  await fill(page, `${byTest('new-job-name')}`, 'Tide plate');
  await tapText(page, 'Create');

  // Part: the drawing names no unit, so it is asked for; meanings are proposed and corrected.
  const file = join(harness.data, 'plate.dxf');
  writeFileSync(file, DRAWING);
  await choose(page, () => tapText(page, 'Open a file'), file);
  expect(await textOf(page, byTest('import-summary'))).toMatch(
    /4 closed outlines, 0 open curves, 0 gaps\. The drawing names no unit/,
  );
  await tapText(page, 'Take it in');
  await tap(page, byTest('feature-f2'));
  await fill(page, byTest('feature-depth'), '1/4+0.15');
  await tapText(page, 'Done');
  await until('the depth to be taken', async () => /6\.5 mm deep/.test(await textOf(page, byTest('feature-f2'))));

  await stage(page, 'hold');
  await tapText(page, 'Hold it in a vise');

  await stage(page, 'cut');
  for (const kind of ['face', 'pocket', 'drill', 'contour']) {
    await tapText(page, 'Add an operation');
    await tap(page, byTest(`add-${kind}`));
    await page.waitForFunction(() => !document.querySelector('[data-testid=sheet]'));
  }
  await proved(page);

  // A value in a sentence: gauge and time follow at once, the path after it.
  await tap(page, byLabel('2 Clear pocket 1'));
  const feed = await textOf(page, byTest('value-speed.feed'));
  const chip = await textOf(page, byTest('gauge-chip'));
  const time = await textOf(page, byTest('time-o2'));
  await tap(page, byTest('value-speed.feed'));
  await fill(page, byTest('value-field'), '300');
  await until('the gauge to follow', async () => (await textOf(page, byTest('gauge-chip'))) !== chip);
  await tap(page, byLabel('Close'));
  expect(await textOf(page, byTest('value-speed.feed'))).not.toBe(feed);
  await until('the time to follow', async () => (await textOf(page, byTest('time-o2'))) !== time);
  await proved(page);
  await until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');

  // Undo and redo.
  await tap(page, byLabel('Undo'));
  await until('undo', async () => (await textOf(page, byTest('value-speed.feed'))) === feed);
  await tap(page, byLabel('Redo'));
  await until('redo', async () => (await textOf(page, byTest('value-speed.feed'))) === '300 mm/min');
  await proved(page);

  await stage(page, 'prove');
  expect(await textOf(page, byTest('verdict'))).toMatch(/Nothing stops this program/);
  await tap(page, byTest('load-ribbon'));
  await until('the line under way', async () => /line \d+/.test(await textOf(page, byTest('line-now'))));
  const removed = Number(/([\d.]+) cm³/.exec(await textOf(page, byTest('removed')))![1]);

  // Release: a rapid through metal, seeded in the text, is found at its line.
  await stage(page, 'release');
  await tapText(page, 'Try an edit');
  const text = await page.$eval(byTest('program-text'), (e) => (e as HTMLTextAreaElement).value);
  const lines = text.split('\n');
  const entry = lines.findIndex((l) => /^N\d+ G3 /.test(l));
  lines.splice(entry, 0, 'G0 Z-4.');
  await page.$eval(
    byTest('program-text'),
    (e, next) => {
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!;
      set.call(e, next);
      e.dispatchEvent(new Event('input', { bubbles: true }));
    },
    lines.join('\n'),
  );
  await tapText(page, 'Prove this text');
  const finding = await textOf(page, byTest('finding-rapid-through-stock'));
  expect(finding).toContain(`line ${entry + 1}`);
  expect(
    await page.$eval(
      byTest('download'),
      (e) => e.getAttribute('aria-disabled') ?? String((e as HTMLButtonElement).disabled),
    ),
  ).toBe('true');
  await tapText(page, 'Back to the posted text');
  await until('release', async () => /✓ Proved as posted/.test(await textOf(page, byTest('release-state'))), 120_000);

  await tap(page, byTest('download'));
  const program = join(downloads, 'tide-plate.nc');
  const posted = (await downloaded(program)).toString();

  // The same figures from the command line, on the downloaded file and the exported job.
  const id = await harness.jobId('Tide plate');
  const { job } = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as { job: unknown };
  const jobFile = join(harness.data, 'job.json');
  writeFileSync(jobFile, JSON.stringify(job));
  const asked = ['prove', program, '--job', jobFile, '--json'];
  const cli = spawnSync(process.execPath, ['packages/cli/dist/main.cjs', ...asked], { cwd: root, encoding: 'utf8' });
  expect(cli.status).toBe(0);
  const figures = JSON.parse(cli.stdout) as { minutes: { total: number }; removedCm3: number };
  expect(figures.removedCm3).toBeCloseTo(removed, 2);
  await stage(page, 'prove');
  const shown = /Time (\d+):(\d+)/.exec(await page.evaluate(() => document.body.innerText))!;
  expect(Math.abs(figures.minutes.total * 60 - (Number(shown[1]) * 60 + Number(shown[2])))).toBeLessThanOrEqual(0.51);
  expect(posted).toMatch(/^%\nO1001 \(TIDE PLATE\)/);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('route: reorder by keyboard, switch off, duplicate, delete; nothing is lost', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Vane hub plate')}/cut`);
  await until('the route', async () => (await routeNames(page)).length === 9);
  await page.focus(byLabel('Move Face the top'));
  const heard = (said: string) => until(said, async () => (await textOf(page, '[id^=DndLiveRegion]')) === said);
  await page.keyboard.press('Space');
  await heard('Face the top moves to place 1 of 9.');
  await page.keyboard.press('ArrowDown');
  await heard('Face the top moves to place 2 of 9.');
  await page.keyboard.press('Space');
  await heard('Face the top is put down at place 2 of 9.');
  await until('the new order', async () => (await routeNames(page))[1] === '2 Face the top');
  await tap(page, byLabel('Undo'));
  await until('the old order', async () => (await routeNames(page))[0] === '1 Face the top');

  await chooseFrom(page, 'More for Face the top', 'Duplicate');
  await until('the copy', async () => (await routeNames(page))[1] === '2 Face the top again');
  await chooseFrom(page, 'More for Face the top again', 'Delete');
  await until('the route as it was', async () => (await routeNames(page)).length === 9);
  await chooseFrom(page, 'More for Face the top', 'Switch off');
  await until('off', async () => /\(off\)/.test(await textOf(page, byTest('operation-o1'))));
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('route: an operation is dragged to another place', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/cut`);
  const handle = (await page.waitForSelector(byLabel('Move Face the top')))!;
  await proved(page);
  const { x, y } = (await handle.boundingBox())!;
  await page.mouse.move(x + 20, y + 20);
  await page.mouse.down();
  for (let step = 1; step <= 20; step++) {
    await page.mouse.move(x + 20, y + 20 + step * 5);
    await nextFrame(page);
  }
  await page.mouse.up();
  const first = () => page.$eval('[data-testid^=operation-] [aria-expanded]', (e) => e.getAttribute('aria-label'));
  await until('the new order', async () => (await first()) === '1 Slot cord slot');
  await tap(page, byLabel('Undo'));
  await until('the old order', async () => (await first()) === '1 Face the top');
  await until('the save', async () => (await textOf(page, byTest('save-state'))) === 'saved');
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('jobs: export, import, delete with undo; a broken file is told', async () => {
  const page = await harness.page();
  await harness.open(page, '/');
  const has = (name: string) => page.$(byTest(`job-${name}`)).then((e) => !!e);
  const path = join(harness.data, 'copy.json');
  const { job } = (await (
    await fetch(`${harness.base}/api/jobs/${await harness.jobId('Float-pulley bracket')}`)
  ).json()) as { job: { name: string } };
  writeFileSync(path, JSON.stringify({ ...job, name: 'Brought in' }));
  await page.waitForSelector(byTest('job-Vane hub plate'));
  await choose(page, () => tapText(page, 'Import'), path);
  await until('the import', () => has('Brought in'));
  await tap(page, byLabel('Delete Brought in'));
  await until('the deletion', async () => !(await has('Brought in')));
  await tapText(page, 'Undo');
  await until('the undo', () => has('Brought in'));
  writeFileSync(path, '{"formatVersion": 77}');
  await choose(page, () => tapText(page, 'Import'), path);
  expect(await textOf(page, byTest('finding-newer-version'))).toMatch(/format version 77/);
  expect(harness.problems).toEqual([]);
  await page.close();
});
