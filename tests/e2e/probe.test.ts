import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import { Harness, WIDE, byTest, downloaded, downloadsTo, drawn, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

/** Clicks the picture at shares of its width and height. */
async function clickPicture(page: Page, x: number, y: number): Promise<void> {
  const box = (await (await page.waitForSelector(byTest('scene')))!.boundingBox())!;
  await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
}

const lineNow = async (page: Page) => Number(/line (\d+)/.exec(await textOf(page, byTest('line-now')))?.[1]);

test('the picture is probed and measured, and leads to the line that cut there', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/prove`);
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  await tapText(page, 'top');
  await drawn(page);
  // A click that comes before the picture can be felt is lost, and made again.
  await until('a probe', async () => {
    await clickPicture(page, 0.5, 0.5);
    const found = await page.waitForSelector(byTest('probe-height'), { timeout: 5000 });
    return /Height Z|No metal/.test(await found!.evaluate((e) => e.textContent ?? ''));
  });
  expect(await textOf(page, byTest('probe-height'))).not.toMatch(/left|cut into/);
  await tap(page, byTest('probe-measure'));
  await clickPicture(page, 0.55, 0.52);
  await until('the way', async () => {
    const way = /([\d.]+) in from the first point/.exec(await textOf(page, byTest('probe-way')));
    return Number(way?.[1]) > 0.04;
  });
  await tap(page, byTest('probe-line'));
  await until('its line', async () => (await lineNow(page)) > 0);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('what a program leaves is coloured, listed and reported; programs are held against each other', async () => {
  const page = await harness.page(WIDE);
  const downloads = join(harness.data, 'kept');
  await downloadsTo(page, downloads);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/prove`);
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  expect(await textOf(page, byTest('places'))).toMatch(/Everything the part asks for is cut/);
  await tap(page, byTest('put-aside'));
  await until('the pair', async () => /aside 1/.test(await textOf(page, byTest('compared'))));
  expect(await textOf(page, byTest('compared'))).toMatch(/On cost it is a draw/);

  const file = join(harness.data, 'little.nc');
  writeFileSync(file, 'G21 G90 G17 G54\nT4 M6\nS5000 M3\nG0 X20 Y20\nZ20\nG1 Z-1 F100\nX40 F300\nG0 Z50\nM30\n');
  const chooser = page.waitForFileChooser();
  await tap(page, byTest('open-program'));
  await (await chooser).accept([file]);
  await until('what is left', async () => /in left/.test(await textOf(page, byTest('places'))), 60_000);
  await until('both programs', async () => /aside 1/.test(await textOf(page, byTest('compare'))));
  expect(await textOf(page, byTest('compared'))).toMatch(/They do other work: one takes|not one to run as it is/);
  await tap(page, byTest('place-0'));
  await until('the probe', async () => /in left/.test(await textOf(page, byTest('probe-height'))));

  await tap(page, byTest('save-picture'));
  await until('the picture', async () => readdirSync(downloads).some((f) => f.endsWith('.png')));
  await tap(page, byTest('save-report'));
  const report = (await downloaded(join(downloads, 'little-proof.html'))).toString();
  expect(report).toMatch(/in left/);
  const picture = readFileSync(
    join(
      downloads,
      readdirSync(downloads).find((f) => f.endsWith('.png'))!,
    ),
  );
  expect(picture.subarray(1, 4).toString()).toBe('PNG');
  expect(picture.length).toBeGreaterThan(5000);
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('line by line, by tool and by step, both ways', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/prove`);
  await until('the verdict', async () => /Nothing stops/.test(await textOf(page, byTest('verdict'))), 120_000);
  await tap(page, byTest('stride-back'));
  await until('the last line', async () => (await lineNow(page)) > 100);
  const last = await lineNow(page);
  await tap(page, byTest('stride-back'));
  await until('the one before', async () => (await lineNow(page)) < last);
  await tap(page, byTest('stride'));
  await tap(page, byTest('stride-back'));
  await until('the last tool', async () => (await lineNow(page)) < last - 5);
  await tap(page, '[aria-label="Play backwards"]');
  const tool = await lineNow(page);
  await until('going back', async () => (await lineNow(page)) < tool);
  expect(harness.problems).toEqual([]);
  await page.close();
});
