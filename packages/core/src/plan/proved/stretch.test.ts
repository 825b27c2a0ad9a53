import { jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { editOperation } from '../../document/edit';
import { Job } from '../../document/job';
import { Stretch } from '../../document/operation';
import { RAPID, TAGS } from '../../path/path';
import { readJob } from '../documents';
import { planFindings, planSetup } from '../pipeline';

const MILL = tool(4);
const spot = (x: number, y: number) => ({ x, y });
/** From the middle of the front edge round the right side to the middle of the back. */
const RIGHT: Stretch = { from: spot(40, -3), to: spot(40, 54), before: 0, after: 0 };
const LEFT: Stretch = { from: spot(40, 50), to: spot(40, 0), before: 0, after: 0 };

/** A plate of 80 by 50, its outside run along. */
const base = withStock(jobWith(undefined), { left: 4, right: 4, front: 4, back: 4, top: 0 });
function along(stretch: Stretch | undefined, params: Record<string, unknown> = {}, job: Job = base): Job {
  const next = withOperation(job, 'contour', ['f1'], MILL, { finish: false, ...params });
  const { operations } = next.setups[0];
  return editOperation(next, operations[operations.length - 1].id, (o) => ({ ...o, stretch }));
}
const pathOf = (job: Job) => planSetup(job, job.setups[0]).planned[0].plan.path;
/** Bounds of where the cutter's middle cuts. */
function reach(job: Job) {
  const { x, y, kind, tag, count } = pathOf(job);
  const at = Array.from({ length: count }, (_, i) => i).filter((i) => kind[i] !== RAPID && TAGS[tag[i]] === 'cut');
  const [xs, ys] = [at.map((i) => x[i]), at.map((i) => y[i])];
  return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
}

test.each([
  ['right', RIGHT, [40, 85, -5, 55]],
  ['left', LEFT, [-5, 40, -5, 55]],
] as const)('the %s half of an outline is run along, no more', (_, stretch, bounds) => {
  const found = reach(along(stretch));
  found.forEach((v, i) => expect(v).toBeCloseTo(bounds[i], 2));
});

test('its ends are made longer, or held back', () => {
  const found = reach(along({ ...RIGHT, before: 6, after: -7 }));
  expect(found[0]).toBeCloseTo(34, 2);
  const { x, y, count, kind } = pathOf(along({ ...RIGHT, before: 6, after: -7 }, { direction: 'conventional' }));
  const ends = Array.from({ length: count }, (_, i) => i).filter(
    (i) => kind[i] !== RAPID && Math.abs(y[i] - 55) < 0.01,
  );
  expect(Math.min(...ends.map((i) => x[i]))).toBeCloseTo(47, 2);
});

test('climbing it runs the other way than conventionally, as round the whole', () => {
  const first = (job: Job) => {
    const { y, kind, tag } = pathOf(job);
    return y[[...kind].findIndex((k, i) => k !== RAPID && TAGS[tag[i]] === 'cut')];
  };
  expect(first(along(RIGHT))).toBeGreaterThan(first(along(RIGHT, { direction: 'conventional' })));
});

test('both halves, a little longer at their ends, cut the plate free as one lap does', () => {
  const longer = (s: Stretch) => ({ ...s, before: 1, after: 1 });
  const halves = prove(along(longer(LEFT), {}, along(longer(RIGHT))), 0.2);
  const whole = prove(along(undefined), 0.2);
  expect(halves.codes.filter((c) => c === 'gouge' || c === 'metal-left')).toEqual([]);
  expect(halves.removed).toBeCloseTo(whole.removed, 0);
});

test('of a pocket, the part of its wall inside', () => {
  const job = jobWith({ type: 'round', diameter: 40 }, { depth: 4 });
  const cleared = withOperation(job, 'pocket', ['f2'], MILL);
  const wall = withOperation(cleared, 'contour', ['f2'], MILL, { finish: false });
  const [, { id }] = wall.setups[0].operations;
  const half: Stretch = { from: spot(60, 25), to: spot(20, 25), before: 0, after: 0 };
  const asked = editOperation(wall, id, (o) => ({ ...o, stretch: half }));
  const { x, y, kind, tag, count } = planSetup(asked, asked.setups[0]).planned[1].plan.path;
  const cut = Array.from({ length: count }, (_, i) => i).filter((i) => kind[i] !== RAPID && TAGS[tag[i]] === 'cut');
  expect(Math.min(...cut.map((i) => y[i]))).toBeGreaterThan(24.9);
  for (const i of cut) expect(Math.hypot(x[i] - 40, y[i] - 25)).toBeCloseTo(15, 2);
});

test('places that are one, a line that is open: a finding at the value', () => {
  const none = along({ ...RIGHT, to: RIGHT.from });
  const [found] = planFindings(planSetup(none, none.setups[0])).filter((f) => f.level === 'stop');
  expect(found).toMatchObject({ code: 'no-stretch', place: { field: 'stretch' } });
  const bad = along({ ...RIGHT, from: spot(1e6, 0), before: 1e4 });
  expect(readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field)).toEqual([
    expect.stringContaining('stretch.from.x'),
    expect.stringContaining('stretch.before'),
  ]);
});

test('a stretch that begins in metal is ramped down along itself, there and back, with a cutter that cannot plunge too', () => {
  const pocketed = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }, { depth: 6 });
  const job = withStock(pocketed, { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 2 });
  const open = { ...MILL, id: 'open', centreCutting: false };
  const params = { side: 'inside', finish: false, layer: 3, lead: 0.5, descent: 'ramp', rampAngle: 3 };
  const cut = withOperation(job, 'contour', ['f2'], open, params);
  const ramped = editOperation(cut, 'o1', (o) => ({
    ...o,
    stretch: { from: spot(30, 10), to: spot(50, 10), before: 0, after: 0 },
  }));
  const plan = planSetup(ramped, ramped.setups[0]);
  expect(planFindings(plan).map((f) => f.code)).not.toContain('cannot-plunge');
  const { x, y, z, tag, count } = plan.planned[0].plan.path;
  const down = Array.from({ length: count }, (_, i) => i).filter((i) => TAGS[tag[i]] === 'entry');
  expect(down.length).toBeGreaterThan(3);
  for (const i of down) {
    const along = Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
    expect(z[i - 1] - z[i]).toBeLessThanOrEqual(along * Math.tan((3 * Math.PI) / 180) + 1e-9);
  }
  expect(prove(ramped, 0.25).findings.filter((f) => f.level === 'stop')).toEqual([]);
});
