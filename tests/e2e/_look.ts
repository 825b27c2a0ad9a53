import 'reflect-metadata';
import { newJob, newFeature, addHolding, addOperation, TOOLS, type Job } from '../../packages/core/src/index';
import { Harness, PHONE, WIDE, byTest, until, textOf, tap } from './harness';
const rest = (ms: number) => new Promise((r) => setTimeout(r, ms));
const RIGHT = { to: 'right' as const, degrees: 30 };
function leaning(): Job {
  const outline = newFeature([], 'outline', 'Block', { type: 'rectangle', width: 80, height: 50, radius: 0 }, { x: 40, y: 25 });
  const seat = { ...newFeature([outline], 'pocket', 'Seat', { type: 'rectangle', width: 20, height: 16, radius: 5 }, { x: 60, y: 25, depth: 5 }), lean: RIGHT };
  const hole = { ...newFeature([outline, seat], 'hole', 'Oil hole', { type: 'round', diameter: 6 }, { x: 60, y: 25, depth: 16, through: false }), lean: RIGHT };
  const base = newJob('Leaning block', 'mm');
  const [setup] = base.setups;
  let job: Job = { ...base, part: { kind: 'plate', thickness: 20, features: [outline, seat, hole] }, setups: [{ ...setup, lean: RIGHT, riser: 60, stock: { ...setup.stock, left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 }, zero: { on: 'part', point: 'front right', height: 'top' } }] };
  job = addHolding(job, job.setups[0], 'sine plate');
  job = addOperation(job, 's1', 'pocket', ['f2'], TOOLS.find((t) => t.number === 7)!);
  return addOperation(job, 's1', 'drill', ['f3'], TOOLS.find((t) => t.number === 16)!);
}
async function main() {
  const harness = new Harness();
  await harness.start();
  try {
    const job = leaning();
    const made = await (await fetch(`${harness.base}/api/jobs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ job }) })).json();
    for (const [size, view] of [['phone', PHONE], ['wide', WIDE]] as const) {
      const page = await harness.page(view);
      await harness.open(page, `/job/${made.id}/hold`);
      await until('the proof', async () => /✓|▲/.test(await textOf(page, byTest('stage-prove'))), 120_000);
      await rest(2500);
      await page.screenshot({ path: `/tmp/look/lean-hold-${size}.png` });
      await page.evaluate(() => document.querySelector('[data-testid=grip-verdict]')?.scrollIntoView({ block: 'start' }));
      await rest(400);
      await page.screenshot({ path: `/tmp/look/lean-holding-${size}.png` });
      if (size === 'wide') {
        await tap(page, byTest('stage-prove'));
        await rest(3500);
        await page.screenshot({ path: `/tmp/look/lean-prove-${size}.png` });
      }
      await harness.open(page, `/job/${made.id}/part`);
      await rest(1500);
      await tap(page, byTest('feature-f2'));
      await rest(800);
      await page.screenshot({ path: `/tmp/look/lean-part-${size}.png` });
      await page.close();
    }
    console.log(harness.problems);
  } finally { await harness.stop(); }
}
void main();
