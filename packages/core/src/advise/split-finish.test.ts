import { jobWith, prove, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Job } from '../document/job';
import { SINGLE } from '../part/plate/feature';
import { planSetup } from '../plan/pipeline';
import { changeTool, duplicateOperation, splitFinish, splitsFinish } from './edit';
import { kindOf } from '../operation/registry';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };
const pocketed = (kind: string, params = {}): Job =>
  withOperation(
    withStock(jobWith({ type: 'rectangle', width: 44, height: 30, radius: 8 }, { depth: 6, pattern: SINGLE }), flush),
    kind,
    ['f2'],
    tool(7),
    { finish: true, finishStock: 0.3, ...params },
  );
const stops = (job: Job) =>
  prove(job, 0.2)
    .findings.filter((f) => f.level === 'stop')
    .map((f) => f.message);

test.each(['pocket', 'clear'])(
  '%s that clears and finishes in two: the second finishes what the first left, with another tool',
  (kind) => {
    const job = splitFinish(pocketed(kind), 'o1');
    const [first, second] = job.setups[0].operations;
    expect(first.params).toMatchObject({ finish: false, wallAllowance: 0.3 });
    expect(second).toMatchObject({
      id: 'o2',
      name: 'Finish feature',
      params: { finish: true, finishAlone: true, finishStock: 0.3, wallAllowance: 0 },
    });
    const finer = changeTool(job, 'o2', tool(5));
    expect(stops(finer)).toEqual([]);
    const proof = prove(finer, 0.2);
    expect(proof.codes).not.toContain('metal-left');
    const [, alone] = planSetup(finer, finer.setups[0]).planned.map((p) => p.plan.path);
    // One lap at the floor, and nothing above it that bites.
    const deepest = Math.min(...alone.z);
    expect([...alone.z].filter((z, i) => alone.kind[i] > 0 && z > deepest + 1e-6 && z < -0.01)).toEqual([]);
    expect(kindOf(kind)!.bite(second.params as never, tool(5), 6)).toMatchObject({ ae: 0.3, ap: 6, peakAe: 0.3 });
  },
);

test('a contour too, along the outside of a part', () => {
  const job = withOperation(
    withStock(jobWith(undefined), { left: 8, right: 8, front: 8, back: 8, top: 0, bottom: 1 }),
    'contour',
    ['f1'],
    tool(4),
    {
      finish: true,
      compensation: 'wear in the control',
    },
  );
  const two = splitFinish(job, 'o1');
  expect(two.setups[0].operations.map((o) => o.params.compensation)).toEqual(['worked out', 'wear in the control']);
  expect(stops(two)).toEqual([]);
  expect(prove(two, 0.2).codes).not.toContain('metal-left');
  const volume = (j: Job) => prove(j, 0.2).removed;
  expect(volume(two)).toBeCloseTo(volume(job), 1);
});

test('only what finishes as well is split, and once', () => {
  const job = splitFinish(pocketed('pocket'), 'o1');
  expect(job.setups[0].operations.map((o) => splitsFinish(o))).toEqual([false, false]);
  expect(splitFinish(job, 'o1')).toBe(job);
  expect(splitFinish(job, 'nobody')).toBe(job);
  const drilled = withOperation(pocketed('pocket', { finish: false }), 'pocket', ['f2'], tool(7), { finish: false });
  expect(splitFinish(drilled, 'o2')).toBe(drilled);
});

test('what is duplicated has an id nothing in the job has, in other setups neither', () => {
  const job = pocketed('pocket');
  const [setup] = job.setups;
  const two: Job = {
    ...job,
    setups: [setup, { ...setup, id: 's2', operations: setup.operations.map((o) => ({ ...o, id: 'o2' })) }],
  };
  const next = duplicateOperation(two, 'o1');
  expect(next.setups.map((s) => s.operations.map((o) => o.id))).toEqual([['o1', 'o3'], ['o2']]);
  expect(next.setups[0].operations[1].name).toBe('Clear feature again');
});
