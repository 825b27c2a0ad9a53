/** Makes docs/screenshots from the demo data: one picture of each main view, phone and wide. */
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import {
  Harness,
  PHONE,
  WIDE,
  byLabel,
  byTest,
  drawn,
  fill,
  root,
  tap,
  tapText,
  textOf,
  until,
} from '../tests/e2e/harness';

interface Shot {
  name: string;
  /** Only at this size. */
  only?: 'phone' | 'wide';
  job?: string;
  path: string;
  dark?: boolean;
  before?: (page: Page) => Promise<unknown>;
  /** Its picture goes on while it is looked at: there is nothing to wait for. */
  moves?: boolean;
}

const rest = (ms: number) => new Promise((r) => setTimeout(r, ms));
const proved = (page: Page) =>
  until('the proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
const openSecond = async (page: Page) => {
  await proved(page);
  await tap(page, '[aria-label^="2 "]');
};

/** A machine with the release on it, touched off and in its first pocket. */
const running = async (page: Page) => {
  await page.waitForSelector(`${byTest('begin-run')}:not([aria-disabled=true])`);
  await fill(page, byLabel('Machine number'), '3');
  await page.keyboard.press('Tab');
  await tap(page, byTest('begin-run'));
  await page.waitForSelector(byTest('control'));
  for (const axis of ['X', 'Y', 'Z']) {
    await tapText(page, `Touch off ${axis}`);
    await tap(page, byTest('take-touch'));
    await until('it is taken', async () => !(await page.$(byTest('sheet'))));
  }
  await tap(page, byTest('hold-or-start'));
  await tapText(page, '10 ×');
  await until('the pocket', async () => /T4/.test(await textOf(page, byTest('control'))));
  await tapText(page, 'as it is');
  await until('chips', async () => /Chips/.test(await textOf(page, byTest('cut-seen'))));
  await page.$eval(byTest('control'), (e) => e.scrollIntoView());
};

const SHOTS: Shot[] = [
  { name: 'jobs', path: '/' },
  { name: 'part', job: 'Vane hub plate', path: 'part', before: (page) => tap(page, byTest('feature-f2')) },
  {
    name: 'solid',
    job: 'Gauge housing',
    path: 'part',
    only: 'wide',
    before: async (page) => {
      await tap(page, byTest('feature-f3'));
      await until('its picture', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
    },
  },
  { name: 'hold', job: 'Float-pulley bracket', path: 'hold', only: 'phone' },
  { name: 'cut', job: 'Vane hub plate', path: 'cut', before: openSecond },
  {
    name: 'prove',
    job: 'Vane hub plate',
    path: 'prove',
    before: async (page) => {
      await proved(page);
      await tap(page, byTest('load-ribbon'));
      await rest(1500);
    },
  },
  { name: 'release', job: 'Vane hub plate', path: 'release', only: 'phone', before: proved },
  { name: 'run', job: 'Vane hub plate', path: 'run', only: 'phone', before: running, moves: true },
  {
    name: 'released',
    path: '/releases',
    only: 'wide',
    before: async (page) => {
      await tap(page, '[data-testid^="work-"]');
      await until('the release', async () => (await page.$(byTest('checklist'))) !== null);
    },
  },
  {
    name: 'compare',
    job: 'Vane hub plate',
    path: 'cut',
    only: 'wide',
    before: async (page) => {
      await tap(page, byLabel('More for Clear float pocket'));
      await tapText(page, 'Compare with other ways');
      await until('the verdict', async () => (await page.$(byTest('verdict'))) !== null, 300_000);
    },
  },
  { name: 'log', path: '/log', only: 'wide', before: (page) => page.waitForSelector(byTest('lessons')) },
  { name: 'tools', path: '/tools', only: 'wide' },
  { name: 'tool', path: '/tools/t13', only: 'phone' },
  { name: 'calculator', path: '/recipes/calculator', only: 'phone' },
  { name: 'machine', path: '/shop/machines/fulmar', only: 'wide' },
];

async function main(): Promise<void> {
  const harness = new Harness();
  await harness.start();
  try {
    for (const [size, viewport] of [
      ['phone', PHONE],
      ['wide', WIDE],
    ] as const) {
      for (const shot of SHOTS.filter((s) => !s.only || s.only === size)) {
        const page = await harness.page(viewport);
        const path = shot.job ? `/job/${await harness.jobId(shot.job)}/${shot.path}` : shot.path;
        await harness.open(page, path);
        await rest(1200);
        await shot.before?.(page);
        await rest(900);
        if (!shot.moves && (await page.$(byTest('scene')))) await drawn(page);
        await page.screenshot({ path: join(root, 'docs/screenshots', `${shot.name}-${size}.png`) as `${string}.png` });
        await page.close();
        process.stdout.write(`${shot.name}-${size}.png\n`);
      }
    }
  } finally {
    await harness.stop();
  }
}

void main();
