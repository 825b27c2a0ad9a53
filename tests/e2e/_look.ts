import { Harness, PHONE, WIDE, byTest, tap, until, textOf, fill } from './harness';
const rest = (ms: number) => new Promise((r) => setTimeout(r, ms));
async function main() {
  const harness = new Harness();
  await harness.start();
  try {
    const id = await harness.jobId('Vane hub plate');
    for (const [size, view] of [['phone', PHONE], ['wide', WIDE]] as const) {
      const page = await harness.page(view);
      await harness.open(page, `/job/${id}/hold`);
      await until('the proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
      await tap(page, byTest('choose-bar'));
      await rest(600);
      await page.screenshot({ path: `/tmp/look/ways-${size}.png` });
      await tap(page, byTest('bar-way-0'));
      await rest(800);
      await fill(page, `${byTest('batch-parts')}`, '200');
      await rest(500);
      const el = await page.$(byTest('blanks'));
      await el!.evaluate((e: Element) => e.scrollIntoView({ block: 'start' }));
      await rest(300);
      await page.screenshot({ path: `/tmp/look/batch-${size}.png` });
      await tap(page, byTest('stage-release'));
      await until('kit', async () => !!(await page.evaluate(() => [...document.querySelectorAll('button,[role=button]')].some((b) => b.textContent === 'What to make ready'))), 120_000);
      await page.evaluate(() => { const b = [...document.querySelectorAll('button,[role=button]')].find((x) => x.textContent === 'What to make ready') as HTMLElement; b.scrollIntoView({ block: 'start' }); b.click(); });
      await rest(800);
      await page.evaluate(() => document.querySelector('[data-testid=kit]')!.scrollIntoView({ block: 'center' }));
      await rest(300);
      await page.screenshot({ path: `/tmp/look/kit-${size}.png` });
      await harness.open(page, `/shop`);
      await until('bars', async () => /Bars and plates/.test(await textOf(page, '[role=main]')), 60_000);
      await page.evaluate(() => [...document.querySelectorAll('div')].find((d) => d.children.length === 0 && d.textContent === 'Bars and plates')?.scrollIntoView());
      await rest(300);
      await page.screenshot({ path: `/tmp/look/shop-${size}.png` });
      await page.close();
    }
    console.log(harness.problems);
  } finally { await harness.stop(); }
}
void main();
