/** How long one operation of the demo takes to plan again after a change, and the whole proof. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PlanCache, editOperation, parseJob, planSetup, postSetup, proveProgram } from '@tidypath/core';
import type { Row } from './kernel';

const time = (work: () => void) => {
  const started = process.hrtime.bigint();
  work();
  return Number(process.hrtime.bigint() - started) / 1e9;
};

export function planningRows(): Row[] {
  const job = parseJob(readFileSync(join(__dirname, '../demo/jobs/vane-hub-plate.json'), 'utf8')).job!;
  const cache: PlanCache = new Map();
  planSetup(job, job.setups[0], cache);
  const again = [2.1, 2.3, 2.5, 2.7, 2.9].map((stepover) => {
    const edited = editOperation(job, 'o2', (o) => ({ ...o, params: { ...o.params, stepover } }));
    return time(() => planSetup(edited, edited.setups[0], cache));
  });
  const slowest = Math.max(...again);
  const [program] = postSetup(job, job.setups[0], planSetup(job, job.setups[0], cache)).programs;
  const proof = time(() => proveProgram(job, job.setups[0], program.text));
  return [
    {
      what: 'path of a demo pocket after a change',
      figure: `${(slowest * 1000).toFixed(0)} ms, slowest of five`,
      bar: 'under 1 s',
      met: slowest < 1,
    },
    { what: 'proof of the demo job, whole', figure: `${proof.toFixed(2)} s`, bar: 'in the background', met: undefined },
  ];
}
