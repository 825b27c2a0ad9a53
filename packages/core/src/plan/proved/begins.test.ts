import { jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Job } from '../../document/job';
import { SINGLE } from '../../part/plate/feature';
import { planSetup } from '../pipeline';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };
const pattern = { ...SINGLE, type: 'line' as const, count: 2, dx: 36, dy: 0 };
/** Two openings in a plate. */
const plate = withStock(
  jobWith({ type: 'rectangle', width: 30, height: 22, radius: 6 }, { x: 25, depth: 4, pattern }),
  flush,
);
const begun = (job: Job, begins: Job['setups'][0]['operations'][0]['begins']): Job => ({
  ...job,
  setups: job.setups.map((s) => ({ ...s, operations: s.operations.map((o) => ({ ...o, begins })) })),
});
/** Where the cutter stands when it reaches the wall: the ends of its last lead onto each lap. */
function startsOf(job: Job): { x: number; y: number }[] {
  const { path } = planSetup(job, job.setups[0]).planned[0].plan;
  const [lead, cut] = [3, 2];
  const floor = Math.min(...path.z);
  return [...path.tag].flatMap((t, i) =>
    t === cut && path.tag[i - 1] === lead && path.z[i] === floor ? [{ x: path.x[i - 1], y: path.y[i - 1] }] : [],
  );
}

test.each([
  ['contour', { side: 'inside', finish: true, finishStock: 0.2, layer: 4 }],
  ['pocket', { finish: true, finishStock: 0.2 }],
  ['clear', { finish: true, finishStock: 0.2 }],
] as const)('each lap of a %s begins at the start point beside its own line', (kind, params) => {
  const job = withOperation(plate, kind, ['f2'], tool(7), params);
  const spots = [
    { x: 25, y: 14 },
    { x: 76, y: 25 },
  ];
  const found = startsOf(begun(job, spots)).slice(-2);
  const r = tool(7).diameter / 2;
  for (const wanted of [
    { x: 25, y: 14 + r },
    { x: 76 - r, y: 25 },
  ])
    expect(found.some((p) => Math.hypot(p.x - wanted.x, p.y - wanted.y) < 0.02)).toBe(true);
  const proof = prove(begun(job, spots), 0.25);
  expect(proof.findings.filter((f) => f.level === 'stop')).toEqual([]);
  if (kind !== 'contour') expect(proof.codes).not.toContain('metal-left');
  // Without them they begin elsewhere.
  expect(startsOf(job)).not.toEqual(startsOf(begun(job, spots)));
});
