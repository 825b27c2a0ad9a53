/** A solid of a million triangles turned under the pointer: what the page itself takes for each picture. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bowl, stlOf } from '@tidypath/core/testing/solids';
import { Harness, WIDE, byTest, choose, fill, tapText, textOf, until } from '../tests/e2e/harness';
import type { Row } from './kernel';
import { percentile } from './percentile';
import { Trace, ownTimes } from './trace';

/** Rings and spokes of a bowl of a million triangles. */
const FINE = 500;
/** Moves of the pointer, px each. */
const MOVES = 60;
const STEP = 4;

export async function orbitRows(harness: Harness): Promise<Row[]> {
  const page = await harness.page(WIDE);
  const file = join(harness.data, 'million.stl');
  const { points, corners } = bowl(FINE);
  writeFileSync(file, stlOf(Array.from(corners).flatMap((c) => Array.from(points.subarray(3 * c, 3 * c + 3)))));
  await harness.open(page, '/');
  await tapText(page, 'New job');
  await fill(page, byTest('new-job-name'), 'Million');
  await tapText(page, 'Create');
  await choose(page, () => tapText(page, 'Open a file'), file);
  await until('its faces', async () => /face/.test(await textOf(page, byTest('model-summary'))), 600_000);
  await tapText(page, 'Take it in');
  const shown = () => page.$(`${byTest('solid')}[aria-busy="false"] canvas`);
  const canvas = await until('the picture', shown, 600_000);
  const box = (await canvas.boundingBox())!;
  const [x, y] = [box.x + box.width / 4, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.tracing.start({ categories: ['toplevel'] });
  for (let i = 1; i <= MOVES; i++) {
    await page.mouse.move(x + STEP * i, y + (i % 20));
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(done)));
  }
  const own = ownTimes(JSON.parse(new TextDecoder().decode(await page.tracing.stop())) as Trace);
  await page.mouse.up();
  await page.close();
  const frame = own.reduce((sum, ms) => sum + ms, 0) / MOVES;
  const longest = percentile(own, 1);
  return [
    {
      what: `${(corners.length / 3e6).toFixed(2)} M triangles turned: the page's own time for a picture`,
      figure: `${frame.toFixed(1)} ms`,
      bar: 'under 16 ms',
      met: frame < 16,
    },
    { what: 'its longest task meanwhile', figure: `${longest.toFixed(0)} ms`, bar: 'under 50 ms', met: longest < 50 },
  ];
}
