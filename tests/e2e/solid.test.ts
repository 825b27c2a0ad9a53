/** A solid from its file to a program that is released, and what its picture says under a finger. */
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import {
  Harness,
  bodyHas,
  byTest,
  choose,
  downloaded,
  downloadsTo,
  fill,
  root,
  stage,
  tap,
  tapText,
  textOf,
  until,
} from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());
afterEach(() => expect(harness.problems).toEqual([]));

const solid = (name: string) => join(root, 'demo/solids', name);

/** A new job with a file opened in it. */
async function begun(page: Page, name: string, file: string): Promise<void> {
  await harness.open(page, '/');
  await tapText(page, 'New job');
  await fill(page, byTest('new-job-name'), name);
  await tapText(page, 'Create');
  await choose(page, () => tapText(page, 'Open a file'), file);
}

const hasFaces = (page: Page, told: RegExp) =>
  until('its faces', async () => told.test(await textOf(page, byTest('model-summary'))));

test('from a STEP file to a released program with three taps', async () => {
  const page = await harness.page();
  const downloads = join(harness.data, 'downloads');
  await downloadsTo(page, downloads);
  await begun(page, 'Cover plate', solid('cover-plate.step'));
  await hasFaces(page, /62 faces/);
  expect(await textOf(page, byTest('model-summary'))).toMatch(
    /^STEP, in mm\. 120 × 80 × 15 mm, 110\.5 cm³, 62 faces\.$/,
  );

  await tap(page, byTest('take-and-plan'));
  // Minutes of a processor, and there may be others at work.
  await until('the plan', async () => (await page.$(byTest('plan-said'))) !== null, 480_000);
  // What the rack has no tool for is said, and nothing else stands against it.
  await stage(page, 'release');
  const download = `${byTest('download')}:not([aria-disabled="true"])`;
  await until('the proof', async () => (await page.$(download)) !== null, 180_000);
  await tap(page, byTest('download'));
  const file = await downloaded(join(downloads, 'cover-plate-top-up.nc'));
  expect(file.toString()).toMatch(/O1001 \(COVER PLATE TOP UP\)/);
}, 900_000);

test('a face under a finger says what it is, and lights the feature it belongs to; a second one how far it is away', async () => {
  const page = await harness.page();
  await begun(page, 'Tray', solid('thin-tray.stl'));
  await hasFaces(page, /29 faces/);
  // A mesh names no unit.
  expect(await textOf(page, byTest('model-summary'))).toMatch(/^STL, no unit named\. 90 × 60 × 30 mm/);
  await tapText(page, 'Take it in');
  const canvas = await page.waitForSelector(`${byTest('solid')} canvas`);
  await until('the picture', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
  await tapText(page, 'top');
  await until('the picture from above', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
  const box = (await canvas!.boundingBox())!;
  const press = (right: number) => page.mouse.click(box.x + box.width / 2 + right, box.y + box.height / 2);
  await press(40);
  await until('what it is', async () => /^Flat, [\d\s]+ mm²/.test(await textOf(page, byTest('face-words'))));
  await tapText(page, 'measure');
  await press(40);
  await until('the first pick', async () => /tap a second face/.test(await textOf(page, byTest('face-words'))));
  await press(0);
  await until('the way between', async () => /The two places are/.test(await textOf(page, byTest('face-words'))));
});

test('what a plane cuts of it is saved as a drawing, which opens again', async () => {
  const page = await harness.page();
  const downloads = join(harness.data, 'drawings');
  await downloadsTo(page, downloads);
  await begun(page, 'Flange', solid('hub-flange.stl'));
  await hasFaces(page, /faces/);
  await tapText(page, 'Take it in');
  await tap(page, byTest('save-as'));
  await tapText(page, 'what a plane cuts of it');
  await tapText(page, 'SVG');
  await tap(page, byTest('save-part'));
  const drawing = join(downloads, 'Flange section.svg');
  expect((await downloaded(drawing)).toString()).toMatch(/<svg [^>]*width="50mm"/);

  // At half its height the boss is cut, and the bore in it.
  await begun(page, 'Flange again', drawing);
  await until('the drawing', async () =>
    /^2 closed outlines, 0 open/.test(await textOf(page, byTest('import-summary'))),
  );
  expect(await textOf(page, byTest('import-summary'))).toMatch(/The drawing is in mm\.$/);
});

test('a plate is looked at as the solid it becomes, its features tapped there, and saved as STL', async () => {
  const page = await harness.page();
  const downloads = join(harness.data, 'sculpted');
  await downloadsTo(page, downloads);
  await harness.open(page, `/job/${await harness.jobId('Lens cell ring')}/part`);
  await tapText(page, 'solid');
  const canvas = await page.waitForSelector(`${byTest('solid')} canvas`);
  await until('the picture', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
  await tapText(page, 'front');
  await until(
    'the picture from the front',
    async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null,
  );
  const box = (await canvas!.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await until('what it is', async () =>
    /^Ring: outside of the part, ⌀ 64 mm/.test(await textOf(page, byTest('face-words'))),
  );
  await tap(page, byTest('save-as'));
  await tapText(page, 'the solid, as STL');
  await tap(page, byTest('save-part'));
  const file = await downloaded(join(downloads, 'Lens cell ring.stl'));
  expect(file.length).toBe(84 + 50 * file.readUInt32LE(80));
  // As wide as it is drawn, less what chords leave.
  let wide = 0;
  for (let at = 96; at < file.length; at += 50)
    for (let k = 0; k < 3; k++) wide = Math.max(wide, file.readFloatLE(at + 12 * k));
  expect(wide).toBeCloseTo(32, 2);
});

test('what was read wrong is put right: a tapped face made what it is told, a row taken apart and joined', async () => {
  const page = await harness.page();
  await begun(page, 'Put right', solid('thin-tray.stl'));
  await hasFaces(page, /29 faces/);
  await tapText(page, 'Take it in');
  const canvas = await page.waitForSelector(`${byTest('solid')} canvas`);
  await until('the picture', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
  await tapText(page, 'top');
  await until('the picture from above', async () => (await page.$(`${byTest('solid')}[aria-busy="false"]`)) !== null);
  const box = (await canvas!.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2 + 40, box.y + box.height / 2);
  await until('whose it is', () => bodyHas(page, /The face belongs to Pocket/));
  await tap(page, byTest('told-boss'));
  await until('that it makes none', () => bodyHas(page, /From no side does this face make a boss/));
  const count = () => page.$$eval('[data-testid^="feature-f"]', (rows) => rows.length);
  const before = await count();
  await tap(page, byTest('told-pocket'));
  await until('its sheet', async () => (await page.$(byTest('sheet'))) !== null);
  await tapText(page, 'Done');
  // It takes the place of what it was found to be.
  expect(await count()).toBe(before);

  await choose(page, () => tapText(page, 'Open a file'), solid('hub-flange.stl'));
  await hasFaces(page, /faces/);
  await tapText(page, 'Take it in');
  await until('its holes', () => bodyHas(page, /Hole 9/));
  const whole = await count();
  const open = async (name: string) => {
    const rows = await page.$$eval('[data-testid^="feature-f"]', (all) =>
      all.map((e) => [e.getAttribute('data-testid')!, (e as HTMLElement).innerText]),
    );
    await tap(page, byTest(rows.find(([, text]) => text.startsWith(`${name}\n`))![0]));
  };
  await open('Hole 9');
  await tap(page, byTest('split-feature'));
  await tapText(page, 'Done');
  await until('each by itself', async () => (await count()) > whole);
  await open('Hole 9, 2');
  await tapText(page, 'one with Hole 9');
  await tapText(page, 'Done');
  await until('two as one', () => bodyHas(page, /⌀ 9 mm, through, mouth 18 mm down, 2 in a line/));
});
