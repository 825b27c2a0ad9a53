import 'reflect-metadata';
import { clearingShapes, steadyJob } from './packages/core/testing/steady-jobs';
import { planSetup } from '@tidypath/core';
for (const name of ['three islands']) {
  const shape = clearingShapes(10).find((s) => s.name.includes(name))!;
  const job = steadyJob(shape, 10, 1);
  for (let i = 0; i < 3; i++) { const t = process.cpuUsage().user; const p = planSetup(job, job.setups[0]); console.log(name, (process.cpuUsage().user - t) / 1e6, p.planned[0].plan.path.count); }
}
