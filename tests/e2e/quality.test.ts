import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Page } from 'puppeteer-core';
import { Harness, PHONE, WIDE, byLabel, byTest, root, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
const SCREENS = [
  '/',
  '/tools',
  '/tools/t4',
  '/recipes',
  '/recipes/calculator',
  '/recipes/threads',
  '/log',
  '/shop',
  '/shop/machines/whimbrel',
  '/shop/materials/alu-6082',
  '/shop/holders/hydraulic',
  '/shop/controllers/hobby',
  '/job/ID/part',
  '/job/ID/hold',
  '/job/ID/cut',
  '/job/ID/prove',
  '/job/ID/release',
  '/job/ID/run',
  '/releases',
  '/release/RELEASE',
];

type Violation = { id: string; impact: string; nodes: { html: string }[] };

/** Ground of the page by light and by dark. */
const GROUND = { light: 'rgb(245, 241, 232)', dark: 'rgb(21, 24, 30)' };

/** Shows the page by light or by dark, and waits until it does. */
async function showBy(page: Page, scheme: keyof typeof GROUND): Promise<void> {
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
  await until(scheme, () =>
    page.evaluate(
      (ground) => [...document.querySelectorAll('div')].some((e) => getComputedStyle(e).backgroundColor === ground),
      GROUND[scheme],
    ),
  );
}

/** By dark nothing but colours is another than by light. */
const RULES = {
  light: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] },
  dark: { type: 'rule', values: ['color-contrast'] },
};

async function violationsOf(page: Page, scheme: keyof typeof GROUND): Promise<string[]> {
  const violations = await page.evaluate(async (runOnly) => {
    const { axe } = window as unknown as { axe: { run(o: object): Promise<{ violations: Violation[] }> } };
    return (await axe.run({ runOnly, resultTypes: ['violations'] })).violations;
  }, RULES[scheme]);
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)}`);
}

/** Waits until a page shows what it has to show: its text has not changed for some looks. */
async function stillness(page: Page): Promise<void> {
  let [before, still] = ['', 0];
  await until('the page at rest', async () => {
    const now = await page.evaluate(() => document.body.innerText);
    [before, still] = [now, now === before ? still + 1 : 0];
    return still >= 2;
  });
}

/** A machine with a release on it, the same each time. */
async function switchedOn(job: string, releaseId: string): Promise<void> {
  const known = (await (await fetch(`${harness.base}/api/runs?job=${job}&setup=s1`)).json()) as { runs: unknown[] };
  if (known.runs.length > 0) return;
  const headers = { 'content-type': 'application/json' };
  await fetch(`${harness.base}/api/runs`, { method: 'POST', headers, body: JSON.stringify({ releaseId, seed: 3 }) });
}

/** Opens each main screen in turn, as its user would see it at rest. */
async function eachScreen(page: Page, look: (screen: string) => Promise<void>): Promise<void> {
  const id = await harness.jobId('Vane hub plate');
  const [{ id: release }] = (await (await fetch(`${harness.base}/api/releases`)).json()) as { id: string }[];
  for (const screen of SCREENS) {
    if (screen.endsWith('/run')) await switchedOn(id, release);
    await harness.open(page, screen.replace('ID', id).replace('RELEASE', release));
    if (screen.endsWith('/run')) await page.waitForSelector(byTest('control'));
    if (screen.includes('/cut')) await tap(page, '[aria-label^="2 "]');
    if (screen.startsWith('/release'))
      await until('releases', async () => !!(await page.$('[data-testid^="work-"], [data-testid="checklist"]')));
    if (screen.startsWith('/release/')) await tapText(page, 'What was seen, heard, changed');
    if (screen === '/log') await page.waitForSelector(byTest('lessons'));
    if (screen.endsWith('/release'))
      await until('the listing', async () => !!(await page.$(`${byTest('listing')} button`)));
    if (screen.includes('/prove')) await page.waitForSelector(byTest('verdict'));
    await look(screen);
  }
}

/** How many looks a page has to fit itself to a new width: charts measure their room first. */
const LOOKS = 100;

/** Whether something on a page can be scrolled sideways, the page itself included, once it has fitted itself to its width. */
async function scrollsSideways(page: Page): Promise<boolean> {
  for (let look = 0; look < LOOKS; look++) {
    if ((await sideways(page)) === 0) return false;
    await stillness(page);
  }
  return true;
}

const sideways = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      [...document.querySelectorAll('*')].filter(
        (e) =>
          e.scrollWidth > e.clientWidth + 1 &&
          ['auto', 'scroll'].includes(getComputedStyle(e).overflowX) &&
          e.clientWidth > 200,
      ).length + (document.documentElement.scrollWidth > window.innerWidth + 1 ? 1 : 0),
  );

const NARROW = { width: 360, height: 740 };

test('no serious finding of accessibility on any main screen, on a phone or wide, by light or by dark', async () => {
  const page = await harness.page(PHONE);
  const found: string[] = [];
  await eachScreen(page, async (screen) => {
    await page.evaluate(AXE);
    for (const [on, viewport] of Object.entries({ phone: PHONE, wide: WIDE })) {
      await page.setViewport(viewport);
      await stillness(page);
      for (const scheme of ['light', 'dark'] as const) {
        await showBy(page, scheme);
        found.push(...(await violationsOf(page, scheme)).map((v) => `${screen}, ${on}, ${scheme}: ${v}`));
      }
    }
    await page.setViewport(NARROW);
    await stillness(page);
    if (await scrollsSideways(page)) found.push(`${screen} scrolls sideways at ${NARROW.width} px`);
    await page.setViewport(PHONE);
  });
  expect(found).toEqual([]);
  await page.close();
});

test('JavaScript before the 3D view stays under 1.5 MB gzip', () => {
  const folder = join(root, 'apps/web/dist/_expo/static/js/web');
  const first = readdirSync(folder).filter((f) => f.startsWith('entry'));
  const size = first.reduce((sum, f) => sum + gzipSync(readFileSync(join(folder, f))).length, 0);
  expect(size).toBeLessThan(1.5 * 1024 * 1024);
});

test('the gauges of a value follow its keystrokes while paths and proof are computed anew', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Vane hub plate')}/cut`);
  // While it plans, a line above the route comes and goes, and moves what is to be tapped.
  await until('the first proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
  await tap(page, '[aria-label^="2 "]');
  await tap(page, byTest('value-speed.feed'));
  await page.waitForSelector(byTest('value-field'));
  const chip = () => textOf(page, `${byTest('sheet')} ${byTest('gauge-chip')}`);
  for (const text of ['5', '56', '567', '56', '580']) {
    const before = await chip();
    await page.$eval(
      byTest('value-field'),
      (input, next) => {
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
        set.call(input, next);
        input.dispatchEvent(new Event('input', { bubbles: true }));
      },
      text,
    );
    await until(`the gauge at ${text}`, async () => (await chip()) !== before);
  }
  await until('the proof again', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
  await tap(page, byLabel('Close'));
  expect(harness.problems).toEqual([]);
  await page.close();
});
