/** A million lines beside the page: how soon a cancel is heard, what holds the page up meanwhile, and its memory. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  Harness,
  WIDE,
  bodyHas,
  byTest,
  shortCuts,
  openProgram,
  proved,
  tap,
  tapText,
  textOf,
  until,
} from '../tests/e2e/harness';
import type { Row } from './kernel';
import { Trace, ownTimes } from './trace';

/** Milliseconds until a cancel is heard. */
async function cancelled(page: Page): Promise<number> {
  await until('progress', () => bodyHas(page, /Proving, [1-9]\d* %/), 120_000);
  const asked = Date.now();
  await page.evaluate(() => [...document.querySelectorAll('button')].find((b) => b.textContent === 'Cancel')!.click());
  await page.waitForFunction(() => document.body.innerText.includes('Prove again'), { polling: 10 });
  return Date.now() - asked;
}

export async function millionRows(harness: Harness): Promise<Row[]> {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Lens cell ring')}/prove`);
  await proved(page);
  const file = join(harness.data, 'million.nc');
  writeFileSync(file, shortCuts(1_000_000));
  await page.tracing.start({ categories: ['toplevel'] });
  await openProgram(page, file);
  await tap(page, byTest('take-T77'));
  const heard = await cancelled(page);
  await tapText(page, 'Prove again');
  await until('the verdict', async () => !/out of date/.test(await textOf(page, byTest('stage-prove'))), 300_000);
  const trace = JSON.parse(new TextDecoder().decode(await page.tracing.stop())) as Trace;
  const own = Math.max(0, ...ownTimes(trace));
  const megabytes = (await page.metrics()).JSHeapUsedSize! / 1e6;
  await page.close();
  return [
    { what: 'a million lines: cancel heard', figure: `${heard} ms`, bar: 'within 500 ms', met: heard < 500 },
    {
      what: 'the longest task of the page meanwhile, its own time',
      figure: `${own.toFixed(0)} ms`,
      bar: 'under 100 ms',
      met: own < 100,
    },
    {
      what: 'memory of the page after it',
      figure: `${megabytes.toFixed(0)} MB`,
      bar: 'under 1500 MB',
      met: megabytes < 1500,
    },
  ];
}
