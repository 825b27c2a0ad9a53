import { Harness, PHONE, WIDE, root } from './harness';
import { byTest, choose, fill, tap, tapText, textOf, until } from './harness';
import { join } from 'node:path';
(async () => {
  const harness = new Harness();
  await harness.start();
  try {
    const page = await harness.page();
    await page.setViewport(PHONE);
    await harness.open(page, '/');
    await tapText(page, 'New job');
    await fill(page, byTest('new-job-name'), 'Gauge housing');
    await tapText(page, 'Create');
    await choose(page, () => tapText(page, 'Open a file'), join(root, 'demo/solids/gauge-housing.step'));
    await until('looked', async () => /faces/.test(await textOf(page, byTest('model-summary'))));
    await page.screenshot({ path: '/tmp/look1.png' });
    console.log(await textOf(page, byTest('model-summary')));
    await tapText(page, 'Take it in');
    await page.waitForSelector(byTest('solid'), { timeout: 60000 });
    await new Promise((r) => setTimeout(r, 4000));
    await page.screenshot({ path: '/tmp/look2.png' });
    await tap(page, byTest('feature-f3'));
    await new Promise((r) => setTimeout(r, 1500));
    await page.screenshot({ path: '/tmp/look3.png' });
    await page.setViewport(WIDE);
    await tapText(page, 'Done');
    await new Promise((r) => setTimeout(r, 2500));
    await page.screenshot({ path: '/tmp/look4.png' });
    console.log(harness.problems);
  } catch (e) { console.log(e, harness.problems); } finally { await harness.stop(); }
})();
