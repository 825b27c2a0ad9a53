import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import {
  Harness,
  bodyHas,
  PHONE,
  WIDE,
  byLabel,
  byTest,
  downloaded,
  downloadsTo,
  fill,
  root,
  tap,
  tapText,
  textOf,
  until,
} from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const saved = (page: Page) => until('saved', async () => (await textOf(page, byTest('item-state'))) === 'saved');

test('a tool is added, advised for a feature, its feed overruled, its limit named, and the feed found in the program', async () => {
  const page = await harness.page(WIDE);
  const downloads = join(harness.data, 'programs');
  await downloadsTo(page, downloads);

  await harness.open(page, '/tools');
  await tapText(page, 'New tool');
  await fill(page, byTest('new-tool-diameter'), '9');
  await tapText(page, 'Add it');
  await fill(page, byTest('field-fluteLength'), '95');
  await until('the impossible flutes', () => bodyHas(page, /Flutes of 95 mm are longer than the tool/));
  await fill(page, byTest('field-fluteLength'), '20');
  await page.keyboard.press('Tab');
  await saved(page);
  const id = /\/tools\/(\w+)/.exec(page.url())![1];
  const pocket = /^T(\d+) · 9 mm end mill/.exec(await textOf(page, '[role=heading]'))![1];

  const job = await harness.jobId('Vane hub plate');
  await harness.open(page, `/job/${job}/part`);
  await tap(page, byTest('feature-f2'));
  await until('the advice', async () => /does it: /.test(await textOf(page, byTest('feature-advice'))));
  await tapText(
    page,
    await page.$eval(byTest('feature-advice'), (e) =>
      [...e.querySelectorAll('button')].map((b) => b.textContent!).find((t) => /that cannot/.test(t))!,
    ),
  );
  await tap(page, byTest(`use-${id}`));

  await until('the route', async () => page.url().endsWith('/cut'));
  await tap(page, '[aria-label^="10 "]');
  await until('the sentence', () => bodyHas(page, new RegExp(`With T${pocket} · 9 mm end mill, clear Float pocket`)));
  await tap(page, byTest('value-speed.feed'));
  expect(await textOf(page, byTest('departure'))).toBe('As suggested.');
  await fill(page, byTest('value-field'), '2890');
  await until('what it costs', async () =>
    /over the suggested.*more than the spindle should carry/.test(await textOf(page, byTest('departure'))),
  );
  await until('the gauge', async () => /▲/.test(await textOf(page, byTest('gauge-load'))));
  await tapText(page, 'Why?');
  expect(await textOf(page, byTest('why'))).toMatch(/▸ 80 % of the spindle’s power at this speed/);
  await tap(page, byLabel('Close'));

  await tap(page, byTest('stage-release'));
  await until('the program', () => bodyHas(page, /Vane-hub|VANE HUB PLATE/));
  await until('release', async () => /✓ Proved/.test(await textOf(page, byTest('release-state'))), 60_000);
  await tap(page, byTest('download'));
  const program = await downloaded(join(downloads, 'vane-hub-plate-top.nc'));
  expect(program.toString()).toMatch(/F2890\./);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('the calculator and the command line say the same; the cut is kept as a recipe', async () => {
  const page = await harness.page(PHONE);
  await harness.open(page, '/recipes');
  await tap(page, byTest('to-calculator'));
  await fill(page, byTest('calc-ae'), '1.5');
  await until('the answer', async () => /rpm/.test(await textOf(page, byTest('headline'))));
  const args = ['suggest', '--tool', 't4', '--material', 'alu-6082', '--machine', 'whimbrel', '--ae', '1.5', '--json'];
  const { stdout } = spawnSync(join(root, 'node_modules/.bin/tsx'), ['packages/cli/src/main.ts', ...args], {
    cwd: root,
    encoding: 'utf8',
  });
  const { rpm, feed } = JSON.parse(stdout) as { rpm: number; feed: number };
  const bare = (await textOf(page, byTest('headline'))).replace(/\u202f/g, '');
  expect(bare).toBe(`${rpm} rpm · ${feed} mm/min`);
  await tapText(page, 'Keep as a recipe');
  await until('the recipe', () => bodyHas(page, /10 mm end mill, 3 flutes in Aluminium 6082/));
  await harness.open(page, '/recipes');
  await until('the recipe after a reload', () => bodyHas(page, /bite 1.5 mm/));
  expect(harness.problems).toEqual([]);
  await page.close();
});
