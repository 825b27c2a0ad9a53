import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import * as h from './harness';

const harness = new h.Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

/** Taps from nothing to a released program that a plate with a pocket takes at most. */
const MOST = 23;

/** A finger that counts. */
class Finger {
  taps = 0;
  constructor(private readonly page: Page) {}
  async text(text: string): Promise<void> {
    this.taps++;
    await h.tapText(this.page, text);
  }
  async on(selector: string): Promise<void> {
    this.taps++;
    await h.tap(this.page, selector);
  }
  /** Types over what stands there: a field that is tapped has its value selected. */
  async types(selector: string, text: string): Promise<void> {
    await this.on(selector);
    await this.over(text);
  }
  /** Types over the value of the field that has the focus. */
  over(text: string): Promise<void> {
    return h.typeOver(this.page, text);
  }
  stage(name: string): Promise<void> {
    return this.on(h.byTest(`stage-${name}`));
  }
}

test('a plate with a pocket, from nothing to a released program on a phone, takes few taps', async () => {
  const page = await harness.page();
  const downloads = join(harness.data, 'downloads');
  await h.downloadsTo(page, downloads);
  await harness.open(page, '/');
  const finger = new Finger(page);

  await finger.text('New job');
  await finger.over('Lid');
  await finger.text('Create');
  await finger.text('Add a shape');
  await finger.on(h.byLabel('Add outside of the part, rectangle'));
  await finger.types(h.byTest('size-width'), '90');
  await finger.types(h.byTest('size-height'), '60');
  await finger.text('Done');
  await finger.text('Add a shape');
  await finger.on(h.byLabel('Add pocket, rectangle'));
  await finger.types(h.byTest('size-width'), '50');
  await finger.types(h.byTest('size-height'), '30');
  await finger.types(h.byTest('feature-depth'), '6');
  await finger.text('Done');
  await finger.stage('hold');
  await finger.text('Hold it in a vise');
  await finger.stage('cut');
  await finger.text('Propose a route');
  await finger.on(h.byTest('take-route'));
  await h.proved(page);
  await finger.stage('release');
  await h.until('release', async () => /✓ Proved as posted/.test(await h.textOf(page, h.byTest('release-state'))));
  await finger.on(h.byTest('download'));
  const program = (await h.downloaded(join(downloads, 'lid.nc'))).toString();

  expect(finger.taps).toBeLessThanOrEqual(MOST);
  const { part } = await jobOf('Lid');
  expect(part.features.map((f) => [f.meaning, f.shape])).toEqual([
    ['outline', expect.objectContaining({ width: 90, height: 60 })],
    ['pocket', expect.objectContaining({ width: 50, height: 30 })],
  ]);
  expect(part.features[1].depth).toBe(6);
  expect(program).toContain('Z-6.');
  expect(harness.problems).toEqual([]);
  await page.close();
});

async function jobOf(name: string) {
  const answer = await fetch(`${harness.base}/api/jobs/${await harness.jobId(name)}`);
  return (
    (await answer.json()) as { job: { part: { features: Array<{ meaning: string; shape: object; depth: number }> } } }
  ).job;
}
