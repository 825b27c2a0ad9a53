/** How long one operation of the demo takes to plan again after a change, and the whole proof. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PlanCache, editOperation, parseJob, planSetup, postSetup, proveProgram } from '@tidypath/core';
import { difference } from '../packages/core/src/geometry/plane/clip';
import { steadyJob } from '../packages/core/testing/steady-jobs';
import type { Row } from './kernel';

const time = (work: () => void) => {
  const started = process.hrtime.bigint();
  work();
  return Number(process.hrtime.bigint() - started) / 1e9;
};

/** How planning of steady-load clearing grows when the area doubles: 120 x 80 mm against 170 x 113 mm, D 10, 1 mm. */
function growthRow(): Row {
  const plan = (width: number, height: number) => {
    const target = [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ].map(([x, y]) => ({ x, y }));
    const plate = [
      [-30, -30],
      [width + 30, -30],
      [width + 30, height + 30],
      [-30, height + 30],
    ].map(([x, y]) => ({ x, y }));
    const shape = {
      name: 'room',
      target: [target],
      keep: difference([plate], [target]),
      stock: [plate],
      kind: 'plain' as const,
    };
    const job = steadyJob(shape, 10, 1);
    return time(() => planSetup(job, job.setups[0]));
  };
  plan(60, 40);
  const [one, two] = [plan(120, 80), plan(120 * Math.SQRT2, 80 * Math.SQRT2)];
  return {
    what: 'planning at a steady load, area doubled',
    figure: `${one.toFixed(1)} s, then ${(two / one).toFixed(2)} times as long`,
    bar: 'about 1 s, at most 2.3 times',
    met: one < 1.3 && two / one <= 2.3,
  };
}

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
    growthRow(),
    { what: 'proof of the demo job, whole', figure: `${proof.toFixed(2)} s`, bar: 'in the background', met: undefined },
  ];
}
