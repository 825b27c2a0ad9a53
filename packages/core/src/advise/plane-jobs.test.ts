import { prove } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Job } from '../document/job';
import { bracket, notchedDisc, stepBlock } from '../../testing/plane-jobs';
import { readJob } from '../plan/documents';
import { planSetup } from '../plan/pipeline';

/** What must not be said of a job that is done right. */
const stops = (proof: ReturnType<typeof prove>) =>
  proof.findings.filter((f) => f.level === 'stop').map((f) => f.message);

test.each([
  ['bracket', bracket],
  ['step block', stepBlock],
  ['notched disc', notchedDisc],
])('the %s is a job file anybody can read', (_, job) => {
  expect(readJob(JSON.parse(JSON.stringify(job()))).findings).toEqual([]);
});

test('a bracket whose outside is cut in parts around clamps, which are moved between', () => {
  const proof = prove(bracket(), 0.25);
  expect(stops(proof)).toEqual([]);
  expect(proof.codes).not.toContain('metal-left');
  expect(proof.clock.hand).toBe(4);
  // Without moving them, the cutter meets them.
  const job = bracket();
  const [setup] = job.setups;
  const operations = setup.operations.map((o) => (o.kind === 'by-hand' ? { ...o, on: false } : o));
  expect(prove({ ...job, setups: [{ ...setup, operations }] }, 0.25).codes).toContain('fixture-hit');
});

test('a disc whose notches are cut with its outside in one lap, their mouths rounded', () => {
  const job = notchedDisc();
  const proof = prove(job, 0.2);
  expect(stops(proof)).toEqual([]);
  expect(proof.codes).not.toContain('metal-left');
  // The mouths are arcs of 2 mm with the cutter’s radius put on; a slot’s end takes it off.
  const [, outside] = planSetup(job, job.setups[0]).planned.map((p) => p.plan.path);
  const radii = [...outside.kind].flatMap((k, i) =>
    k > 1 ? Math.hypot(outside.x[i] - outside.cx[i], outside.y[i] - outside.cy[i]) : [],
  );
  const r = tool(4).diameter / 2;
  for (const wanted of [40 + r, 2 + r, 6 - r])
    expect(radii.some((found) => Math.abs(found - wanted) < 0.01)).toBe(true);
  // Turned over, the notches are where they were.
  const [setup] = job.setups;
  const below: Job = { ...job, setups: [{ ...setup, up: 'underside, turned sideways' }] };
  expect(stops(prove(below, 0.3))).toEqual([]);
});

test('a block of steps: nothing is fed from above what is gone already', () => {
  const job = stepBlock();
  const proof = prove(job, 0.25);
  expect(stops(proof)).toEqual([]);
  const [, lower, hole] = planSetup(job, job.setups[0]).planned.map((p) => p.plan);
  expect(Math.max(...[...lower.path.z].filter((_, i) => lower.path.kind[i] !== 0))).toBeLessThan(-4);
  expect(hole.cycle).toMatchObject({ start: -13 });
  // From its own floor it drills as much, in more time.
  const [setup] = job.setups;
  const operations = setup.operations.map((o) => ({ ...o, heights: undefined }));
  const plain = prove({ ...job, setups: [{ ...setup, operations }] }, 0.25);
  expect(proof.removed).toBeCloseTo(plain.removed, 1);
  expect(proof.clock.total).toBeLessThan(plain.clock.total);
});
