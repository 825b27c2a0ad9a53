/** A solid of a million triangles in hand: how soon each picture of it is there, beside one of a plain block. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Harness, WIDE, byTest, choose, fill, tapText, textOf, until } from '../tests/e2e/harness';
import type { Row } from './kernel';
import { percentile } from './percentile';

type Corner = [number, number, number];

/** A block with waves on it as a binary STL, n × n quads on its top and on its underside, mm. */
function waves(n: number): Buffer {
  const at = (i: number, j: number, top: boolean): Corner => {
    const z = 20 + 6 * Math.sin((7 * i) / n) * Math.cos((9 * j) / n);
    return [(120 * i) / n, (80 * j) / n, top ? z : 0];
  };
  const triangles: Corner[][] = [];
  const quad = (a: Corner, b: Corner, c: Corner, d: Corner) => triangles.push([a, b, c], [a, c, d]);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      quad(at(i, j, true), at(i + 1, j, true), at(i + 1, j + 1, true), at(i, j + 1, true));
      quad(at(i, j, false), at(i, j + 1, false), at(i + 1, j + 1, false), at(i + 1, j, false));
    }
  for (let i = 0; i < n; i++) {
    quad(at(i, 0, false), at(i + 1, 0, false), at(i + 1, 0, true), at(i, 0, true));
    quad(at(i + 1, n, false), at(i, n, false), at(i, n, true), at(i + 1, n, true));
    quad(at(0, i + 1, false), at(0, i, false), at(0, i, true), at(0, i + 1, true));
    quad(at(n, i, false), at(n, i + 1, false), at(n, i + 1, true), at(n, i, true));
  }
  const file = Buffer.alloc(84 + 50 * triangles.length);
  file.writeUInt32LE(triangles.length, 80);
  triangles.flat(2).forEach((v, k) => file.writeFloatLE(v, 84 + 50 * Math.floor(k / 9) + 12 + 4 * (k % 9)));
  return file;
}

/** Milliseconds until each picture of a solid is there while a hand turns it: the median; and until it was taken in and drawn. */
async function turned(harness: Harness, n: number): Promise<{ picture: number; opened: number }> {
  const file = join(harness.data, `waves-${n}.stl`);
  writeFileSync(file, waves(n));
  const page = await harness.page(WIDE);
  await harness.open(page, '/');
  await tapText(page, 'New job');
  await fill(page, byTest('new-job-name'), 'Waves');
  await tapText(page, 'Create');
  const started = Date.now();
  await choose(page, () => tapText(page, 'Open a file'), file);
  await until('its faces', async () => /face/.test(await textOf(page, byTest('model-summary'))));
  await tapText(page, 'Take it in');
  const isDrawn = `document.querySelector('[data-testid=solid]')?.getAttribute('aria-busy') === 'false'`;
  await until('the picture', () => page.evaluate(isDrawn) as Promise<boolean>);
  const opened = Date.now() - started;
  // What stands in its place is made ready after the first picture.
  await new Promise((r) => setTimeout(r, 5000));
  const { x, y, width, height } = (await (await page.$(byTest('solid')))!.boundingBox())!;
  const [left, top] = [x + width / 2, y + height / 2];
  await page.mouse.move(left, top);
  await page.mouse.down();
  const times: number[] = [];
  for (let k = 1; k <= 30; k++) {
    const from = Date.now();
    await page.mouse.move(left + 3 * k, top + k);
    await page.waitForFunction(isDrawn, { polling: 5 });
    times.push(Date.now() - from);
  }
  await page.mouse.up();
  await page.close();
  return { picture: percentile(times, 0.5), opened };
}

export async function orbitRows(harness: Harness): Promise<Row[]> {
  const block = await turned(harness, 4);
  const million = await turned(harness, 499);
  return [
    {
      what: 'a million triangles in hand: each picture, drawn without a graphics card',
      figure: `${million.picture} ms, a plain block ${block.picture} ms`,
      bar: 'at most 3 × the block',
      met: million.picture <= 3 * block.picture,
    },
    {
      what: 'a million triangles: opened, understood, taken in and drawn',
      figure: `${(million.opened / 1000).toFixed(1)} s`,
      bar: 'for information',
      met: undefined,
    },
  ];
}
