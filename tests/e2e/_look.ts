import { Harness, PHONE, WIDE, byTest, tap, until, textOf } from './harness';
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
      if (size === 'phone') await tap(page, byTest('add-stations'));
      await rest(1500);
      await page.evaluate(() => document.querySelector('[data-testid=stations]')!.scrollIntoView({ block: 'start' }));
      await rest(500);
      await page.screenshot({ path: `/tmp/look/stations-${size}.png` });
      await tap(page, byTest('stage-prove'));
      await until('the proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);
      await rest(2500);
      await page.screenshot({ path: `/tmp/look/proved-${size}.png` });
      await page.close();
    }
    console.log(harness.problems);
  } finally { await harness.stop(); }
}
void main();
