import { jobWith, post, prove, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { editOperation } from '../../document/edit';
import { Job } from '../../document/job';
import { readJob } from '../documents';
import { planSetup } from '../pipeline';

const row = { type: 'line' as const, count: 4, rows: 1, dx: 15, dy: 0, centreX: 0, centreY: 0 };

/** Four of a shape in a row, 15 mm apart, worked on by one operation. */
function fourOf(kind: 'drill' | 'pocket'): Job {
  const drill = kind === 'drill';
  const shape = drill ? { type: 'round' as const, diameter: 5 } : { type: 'round' as const, diameter: 12 };
  const drawn = jobWith(shape, { meaning: drill ? 'hole' : 'pocket', through: drill, depth: 3, x: 15 });
  const [outline, feature] = drawn.part.features;
  const pattern = { ...feature.pattern, ...row };
  const job = { ...drawn, part: { ...drawn.part, features: [outline, { ...feature, pattern }] } };
  return withOperation(job, kind, ['f2'], tool(drill ? 15 : 7));
}
const leaving = (job: Job, places: number[]): Job =>
  editOperation(job, job.setups[0].operations[0].id, (o) => ({ ...o, leaves: [{ feature: 'f2', places }] }));

test('of a row of holes those that are left alone are not drilled', () => {
  const job = leaving(fourOf('drill'), [2, 4]);
  const [{ plan }] = planSetup(job, job.setups[0]).planned;
  expect(plan.cycle?.holes.map((h) => h.x).sort((a, b) => a - b)).toEqual([15, 45]);
  const all = fourOf('drill');
  expect(planSetup(all, all.setups[0]).planned[0].plan.cycle?.holes).toHaveLength(4);
  expect(prove(job).removed).toBeCloseTo(prove(fourOf('drill')).removed / 2, 2);
});

test('of a row of pockets the same, and the proof still wants the ones left', () => {
  const job = leaving(fourOf('pocket'), [1]);
  const whole = prove(fourOf('pocket'));
  const some = prove(job);
  expect(some.removed).toBeCloseTo((whole.removed * 3) / 4, 2);
  expect(some.codes).toContain('metal-left');
  const both = editOperation(withOperation(job, 'pocket', ['f2'], tool(7)), 'o2', (o) => ({
    ...o,
    leaves: [{ feature: 'f2', places: [2, 3, 4] }],
  }));
  expect(prove(both).removed).toBeCloseTo(whole.removed, 2);
});

test('none left is nothing to work on; a place that is none is refused by name', () => {
  expect(post(leaving(fourOf('drill'), [1, 2, 3, 4])).codes).toContain('no-target');
  const bad = leaving(fourOf('drill'), [0]);
  expect(readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field)).toEqual([
    expect.stringContaining('leaves.0.places'),
  ]);
});
