import fc from 'fast-check';
import { anyParams, jobForKind } from '../../../testing/every-kind';
import { Job } from '../../document/job';
import { planSetup } from '../pipeline';
import { parametersOf } from '../../quantity/parameter';
import { KINDS } from '../../operation/registry';

/** Plans a job; the operation tried is the last of its route. */
function planOf(job: Job) {
  const { planned, ground } = planSetup(job, job.setups[0]);
  return { ...planned[planned.length - 1], clearance: ground.clearance };
}

describe.each(KINDS.map((k) => [k.kind, k] as const))('%s', (name, kind) => {
  const runs = { numRuns: name === 'clear' ? 4 : 25, seed: 11, endOnFailure: true };

  test('with its own values it plans moves, and no value is refused', () => {
    const { plan } = planOf(jobForKind(kind));
    expect(plan.path.count).toBeGreaterThan(0);
    expect(plan.findings.filter((f) => f.level === 'stop')).toEqual([]);
  });

  test('any values in their ranges give finite moves within the heights and feeds there are, or say why not', () => {
    let planned = 0;
    fc.assert(
      fc.property(anyParams(kind), (params) => {
        const job = jobForKind(kind, params);
        const { plan, clearance } = planOf(job);
        const { path } = plan;
        for (let i = 0; i < path.count; i++) {
          const values = [path.x[i], path.y[i], path.z[i], path.cx[i], path.cy[i], path.feed[i]];
          if (!values.every(Number.isFinite)) throw new Error(`move ${i} is not finite: ${values.join()}`);
          if (path.z[i] > clearance + 1e-6) throw new Error(`move ${i} goes above the clearance`);
          if (path.feed[i] > job.machine.maxFeed + 1e-6) throw new Error(`move ${i} is faster than the machine`);
        }
        if (path.count > 0) expect(path.kind[0]).toBe(0);
        else expect(plan.findings.length).toBeGreaterThan(0);
        if (path.count > 0) planned++;
      }),
      runs,
    );
    // Values that nothing can be planned with prove nothing.
    expect(planned).toBeGreaterThan(runs.numRuns / 10);
  });

  test('a value that does not matter has no effect', () => {
    const info = Object.entries(parametersOf(kind.Params));
    fc.assert(
      fc.property(anyParams(kind), anyParams(kind), (given, others) => {
        const job = jobForKind(kind, given);
        const { params } = job.setups[0].operations.at(-1)!;
        const idle = info.filter(([key, i]) => i.matters && !i.matters(params as never) && key in others);
        if (idle.length === 0) return;
        const changed = Object.fromEntries(idle.map(([key]) => [key, others[key]]));
        expect(planOf(jobForKind(kind, { ...params, ...changed })).plan.path).toEqual(planOf(job).plan.path);
      }),
      { ...runs, numRuns: Math.ceil(runs.numRuns / 2) },
    );
  });
});
