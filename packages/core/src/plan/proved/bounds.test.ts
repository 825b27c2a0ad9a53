import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { editOperation } from '../../document/edit';
import { Job } from '../../document/job';
import { Operation } from '../../document/operation';
import { newFeature } from '../../part/plate/new';
import { RAPID } from '../../path/path';
import { readJob } from '../documents';
import { planFindings, planSetup } from '../pipeline';

const MILL = tool(7);
const r = MILL.diameter / 2;

/** A pocket from X 15 to 65, and a line drawn round what lies left of X 40. */
function bounded(kind: 'pocket' | 'clear', more: Partial<Operation>): Job {
  const flush = { left: 0, right: 0, front: 0, back: 0, top: 0 };
  const job = withStock(jobWith({ type: 'rectangle', width: 50, height: 20, radius: 5 }, { depth: 3 }), flush);
  const half = { type: 'rectangle' as const, width: 40, height: 60, radius: 0 };
  const line = newFeature(job.part.features, 'ignore', 'Left half', half, { x: 20, y: 25 });
  const drawn = { ...job, part: { ...job.part, features: [...job.part.features, { ...line, id: 'half' }] } };
  const next = withOperation(drawn, kind, ['f2'], MILL, { finish: false });
  return editOperation(next, next.setups[0].operations[0].id, (o) => ({ ...o, ...more }));
}
/** How far right and left the cutter's middle gets at feed. */
function reach(job: Job): [number, number] {
  const { x, kind, count } = planSetup(job, job.setups[0]).planned[0].plan.path;
  const at = Array.from({ length: count }, (_, i) => i).filter((i) => kind[i] !== RAPID);
  return [Math.min(...at.map((i) => x[i])), Math.max(...at.map((i) => x[i]))];
}

describe.each(['pocket', 'clear'] as const)('%s', (kind) => {
  test.each([
    ['inside', 40 - r],
    ['on', 40],
    ['outside', 40 + r],
  ] as const)('stays within a line, the cutter %s of it', (cutter, most) => {
    const [least, far] = reach(bounded(kind, { within: { feature: 'half', cutter } }));
    expect(far).toBeLessThanOrEqual(most + 0.02);
    expect(far).toBeGreaterThan(most - 0.6);
    expect(least).toBeCloseTo(15 + r, 1);
  });

  test('keeps away from what is drawn, by so much', () => {
    const [least] = reach(bounded(kind, { keepAway: [{ feature: 'half', by: 2 }] }));
    expect(least).toBeGreaterThanOrEqual(42 + r - 0.02);
    expect(least).toBeLessThan(42 + r + 0.6);
  });

  test('what is left to another is cut by it: both together make the pocket', () => {
    const first = bounded(kind, { within: { feature: 'half', cutter: 'on' } });
    const both = withOperation(first, kind, ['f2'], MILL, { finish: false });
    const rest = editOperation(both, both.setups[0].operations[1].id, (o) => ({
      ...o,
      keepAway: [{ feature: 'half', by: 0 }],
    }));
    const whole = prove(bounded(kind, {}), 0.2);
    expect(prove(rest, 0.2).removed).toBeCloseTo(whole.removed, 1);
    expect(prove(rest, 0.2).codes).not.toContain('gouge');
  });
});

test('a line that is gone is a stop at the value, and what it cannot be is refused by name', () => {
  const gone = bounded('pocket', { within: { feature: 'gone', cutter: 'on' }, keepAway: [{ feature: 'too', by: 1 }] });
  const found = planFindings(planSetup(gone, gone.setups[0])).filter((f) => f.code === 'bound-gone');
  expect(found.map((f) => f.place.field)).toEqual(['within', 'keepAway']);
  expect(post(gone).text).toBe('');
  const bad = bounded('pocket', {
    within: { feature: 'half', cutter: 'near' as never },
    keepAway: [{ feature: 'half', by: -1 }],
  });
  expect(readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field)).toEqual([
    expect.stringContaining('within.cutter'),
    expect.stringContaining('keepAway.0.by'),
  ]);
});
