import { newFeature } from '../part/plate/new';
import { PlanCache, PlanStep, planSetup, planSteps } from './pipeline';
import type { Waiting } from '../operation/operation';
import { jobWith, post, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { MACHINES } from '../shop/library';
import { proveProgram } from './prove';

/** A plate with two pockets, faced and then cleared at a steady load. */
function twoPockets() {
  const job = jobWith({ type: 'rectangle', width: 26, height: 30, radius: 6 }, { x: 20, y: 25, depth: 6 });
  const { features } = job.part;
  const other = newFeature(features, 'pocket', 'Other', { type: 'round', diameter: 28 }, { x: 60, y: 25, depth: 4 });
  const both = { ...job, part: { ...job.part, features: [...features, other] } };
  return withOperation(withOperation(both, 'face', [], tool(4)), 'clear', ['f2', other.id], tool(4));
}

/** Plans to the end; each share told, with the operation it was about. */
function planned(waiting: Waiting, cache?: PlanCache) {
  const job = twoPockets();
  const steps: PlanStep[] = [];
  const shares: { of: number; share: number }[] = [];
  const told = (share: number) => shares.push({ of: steps.length - 1, share });
  const run = planSteps(job, job.setups[0], cache, { told, ...waiting });
  for (;;) {
    const { done, value } = run.next();
    if (done) return { steps, shares, plan: value };
    steps.push(value);
  }
}

test('planning says which operation it is at and how much of a long one is done, rising to all of it', () => {
  const { steps, shares, plan } = planned({});
  expect(steps.map((s) => [s.index, s.of])).toEqual([
    [0, 2],
    [1, 2],
  ]);
  expect(shares.every((s) => s.of === 1)).toBe(true);
  const told = shares.map((s) => s.share);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told[0]).toBeLessThan(0.5);
  expect(told.filter((s) => s > 0.3 && s < 0.7).length).toBeGreaterThan(2);
  expect(told[told.length - 1]).toBeGreaterThan(0.95);
  expect(told[told.length - 1]).toBeLessThanOrEqual(1);
  expect(plan.planned.map((p) => p.plan.path.count)).toEqual(
    planSetup(twoPockets(), twoPockets().setups[0]).planned.map((p) => p.plan.path.count),
  );
});

test('a plan nobody waits for comes back early and is not remembered', () => {
  const cache: PlanCache = new Map();
  let asked = 0;
  const { plan, shares } = planned({ stopped: () => ++asked > 6 }, cache);
  expect(shares.length).toBeLessThan(12);
  const whole = planned({}, cache);
  expect(whole.plan.planned[1].plan.path.count).toBeGreaterThan(plan.planned[1].plan.path.count);
  const again = planned({}, cache);
  expect(again.shares).toEqual([]);
  expect(again.plan.planned[1].plan.path.count).toBe(whole.plan.planned[1].plan.path.count);
});

test.each(MACHINES.filter((m) => m.kind !== 'lathe' && m.kind !== 'sheet cutter').map((m) => [m.id, m] as const))(
  'on the %s, with the work as high as it stands by default, mills of any usual size reach its underside and its clearance',
  (_, machine) => {
    for (const number of [3, 4, 5, 7, 10]) {
      const job = withOperation({ ...jobWith(undefined), machine }, 'contour', ['f1'], tool(number), { layer: 5 });
      const [setup] = job.setups;
      const operations = setup.operations.map((o) => ({ ...o, coolant: 'off' as const }));
      const text = post({ ...job, setups: [{ ...setup, operations }] }).text;
      const { findings } = proveProgram(job, setup, text, 1);
      expect(findings.filter((f) => f.code === 'beyond-travel').map((f) => f.message)).toEqual([]);
    }
  },
);
