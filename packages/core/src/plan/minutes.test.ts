import { jobWith, post, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { pathMinutes } from './insight';
import { planSetup, postSetup } from './pipeline';
import { joinPrograms } from './joined';
import { proveProgram } from './prove';

test('the time right after planning is that of the proof', () => {
  const shape = { type: 'rectangle', width: 50, height: 30, radius: 6 } as const;
  const faced = withOperation(jobWith(shape), 'face', [], tool(4));
  const job = withOperation(withOperation(faced, 'pocket', ['f2'], tool(4)), 'contour', ['f1'], tool(7));
  expect(post(job).codes.filter((c) => c.startsWith('missing'))).toEqual([]);
  const [setup] = job.setups;
  const plan = planSetup(job, setup);
  const { text, sections } = joinPrograms(postSetup(job, setup, plan).programs);
  const { steps } = proveProgram(job, setup, text, 0.5, { sections });
  plan.planned.forEach(({ operation, plan: { path } }, i) => {
    const changes = operation.toolId !== plan.planned[i - 1]?.operation.toolId;
    const { cut, entry, rapid } = pathMinutes(path, operation, job.machine, changes);
    // But for the way from home to the work and back.
    expect(Math.abs(cut + entry + rapid - steps[i].minutes)).toBeLessThan(0.1 + 0.02 * steps[i].minutes);
  });
});
