import { jobForKind } from '../../../testing/every-kind';
import { jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { plate, tool } from '../../../testing/parts';
import { newFeature } from '../../part/plate/new';
import { editOperation } from '../../document/edit';
import { Heights } from '../../document/heights';
import { Job } from '../../document/job';
import { KINDS } from '../../operation/registry';
import { Path, RAPID } from '../../path/path';
import { readJob } from '../documents';
import { planFindings, planSetup } from '../pipeline';

const lastOf = (job: Job) => job.setups[0].operations[job.setups[0].operations.length - 1];
const at = (job: Job, heights: Heights | undefined, id = lastOf(job).id): Job =>
  editOperation(job, id, (o) => ({ ...o, heights }));
const planOf = (job: Job) => {
  const setup = planSetup(job, job.setups[0]);
  return { ...setup.planned[setup.planned.length - 1].plan, found: planFindings(setup).map((f) => f.code) };
};
const lowest = ({ z }: Path) => Math.min(...z);
/** Where the tool comes down to by a rapid, before it is fed. */
const fedFrom = ({ kind, z, count }: Path) =>
  Math.min(...Array.from({ length: count }, (_, i) => i).flatMap((i) => (kind[i] === RAPID ? [z[i]] : [])));

const TAKING = KINDS.filter((k) => k.takesHeights);
const ENDING = TAKING.filter((k) => k.takesHeights === 'start and end');

test('what lies about the work and how deep it goes can be told of as many kinds as make sense', () => {
  expect(TAKING.map((k) => k.kind).sort()).toEqual([
    ...['bore', 'clear', 'contour', 'counterbore', 'drill', 'face', 'helical-bore', 'pocket', 'ream', 'slot'],
    ...['tap', 'thread-mill'],
  ]);
});

describe.each(ENDING.map((k) => [k.kind, k] as const))('%s', (_, kind) => {
  test('ends where it is asked to', () => {
    const job = jobForKind(kind);
    const at04 = planOf(at(job, { end: { at: 'floor', offset: 0.4 } }));
    const at00 = planOf(at(job, { end: { at: 'floor', offset: 0 } }));
    expect(at04.path.count).toBeGreaterThan(0);
    expect(lowest(at04.path) - lowest(at00.path)).toBeCloseTo(0.4, 6);
  });
});

describe.each(TAKING.map((k) => [k.kind, k] as const))('%s', (_, kind) => {
  test('begins where it is asked to, is fed from as far above as it is asked, and goes back no higher', () => {
    const job = jobForKind(kind);
    const own = planOf(job).path;
    const low = planOf(at(job, { start: { at: 'stock top', offset: -0.2 } })).path;
    const far = planOf(at(job, { approach: 3.5 })).path;
    const back = planOf(at(job, { retract: { at: 'part top', offset: 4 } })).path;
    // The stock stands 0.5 mm above the part, and is cleared by so much as the setup says.
    expect(Math.max(...back.z)).toBeCloseTo(4, 6);
    expect(Math.max(...own.z)).toBeGreaterThan(4);
    expect([own, low, far, back].every((p) => p.count > 0)).toBe(true);
    // A face mill comes down beside the stock, to each layer.
    if (kind.kind === 'face') return expect(fedFrom(far) - fedFrom(own)).toBeCloseTo(1.5, 6);
    // A thread mill comes down by a rapid in the hole that is there; its thread begins where it is asked to.
    if (kind.kind === 'thread-mill') {
      const under = planOf(at(job, { start: { at: 'part top', offset: -0.7 } })).path;
      const fed = (p: Path) => Math.max(...[...p.z].filter((_, i) => p.kind[i] !== RAPID));
      return expect(fed(own) - fed(under)).toBeGreaterThan(0.4);
    }
    const first = (p: Path) => p.z[[...p.kind].findIndex((k) => k !== RAPID) - 1];
    expect(first(far) - first(own)).toBeCloseTo(2.5, 6);
    expect(first(own) - first(low)).toBeCloseTo(0.2, 6);
  });
});

/** A hole in the floor of a pocket 5 deep: the pocket is cleared first. */
function stepped(heights?: Heights): Job {
  const outline = plate();
  const box = { type: 'rectangle' as const, width: 30, height: 20, radius: 5 };
  const pocket = newFeature([outline], 'pocket', 'Well', box, { x: 40, y: 25, depth: 5 });
  const hole = newFeature([outline, pocket], 'hole', 'Hole', { type: 'round', diameter: 5 }, { x: 40, y: 25 });
  const drawn = { ...jobWith(undefined, {}, 10), part: { kind: 'plate' as const, thickness: 10, features: [] } };
  const job = {
    ...drawn,
    part: { ...drawn.part, features: [outline, pocket, { ...hole, through: false, depth: 8 }] },
  };
  const cleared = withOperation(job, 'pocket', [pocket.id], tool(7));
  return at(withOperation(cleared, 'drill', [hole.id], tool(15)), heights);
}
const cycleOf = (text: string) => /G98 G8\d X\S+ Y\S+ Z(\S+) R(\S+)/.exec(text)!.slice(1).map(Number);

test.each<[string, Heights]>([
  ['the mouth of the hole', { start: { at: 'top', offset: 0 } }],
  ['the floor of the pocket', { start: { at: 'floor', feature: 'f2', offset: 0 } }],
  ['what is left', { start: { at: 'what is left', offset: 0 } }],
])('a hole in the floor of a pocket is begun at %s, and not fed from above the stock', (_, heights) => {
  const own = prove(stepped());
  const low = prove(stepped(heights));
  expect(cycleOf(own.text)[1] - cycleOf(low.text)[1]).toBeCloseTo(5 + stepped().setups[0].stock.top, 3);
  expect(cycleOf(low.text)[0]).toBe(cycleOf(own.text)[0]);
  expect(low.codes).toEqual(own.codes);
});

test('where nothing was cut before, what is left is the stock', () => {
  const job = stepped({ start: { at: 'what is left', offset: 0 } });
  const alone = { ...job, setups: [{ ...job.setups[0], operations: job.setups[0].operations.slice(1) }] };
  const { path } = planOf(alone);
  expect(fedFrom(path)).toBeCloseTo(job.setups[0].stock.top + 1, 6);
});

test('begun too low, the rapid that comes down through metal is proved to be a hit', () => {
  const job = stepped({ start: { at: 'top', offset: 0 } });
  const alone = { ...job, setups: [{ ...job.setups[0], operations: job.setups[0].operations.slice(1) }] };
  expect(prove(alone).codes).toContain('rapid-through-stock');
});

test('a drill reaches its depth by its full diameter or by its tip', () => {
  const [z] = cycleOf(prove(stepped()).text);
  const [tip] = cycleOf(prove(stepped({ reach: 'tip' })).text);
  const point = 2.5 / Math.tan((tool(15).pointAngle * Math.PI) / 360);
  expect(tip - z).toBeCloseTo(point, 2);
});

test('a step cut to a part of its depth leaves the rest to the next, and together they make the pocket', () => {
  const flush = { left: 0, right: 0, front: 0, back: 0, top: 0 };
  const job = withStock(jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }, { depth: 6 }), flush);
  const [upper, lower] = ['pocket', 'clear'].map((kind) => ({ kind, half: { at: 'floor' as const, offset: 3 } }));
  const first = at(withOperation(job, upper.kind, ['f2'], tool(4)), { end: upper.half });
  const both = at(withOperation(first, lower.kind, ['f2'], tool(4)), { start: lower.half });
  expect(prove(first).codes).toContain('metal-left');
  expect(prove(both).codes).not.toContain('metal-left');
  expect(prove(both).removed).toBeCloseTo(prove(withOperation(job, 'pocket', ['f2'], tool(4))).removed, 1);
  const { planned } = planSetup(both, both.setups[0]);
  expect(lowest(planned[0].plan.path)).toBeCloseTo(-3, 6);
  expect(lowest(planned[1].plan.path)).toBeCloseTo(-6, 6);
});

test('an operation that goes aside low is left and entered where all is free', () => {
  const job = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 });
  const low = at(withOperation(job, 'pocket', ['f2'], tool(4)), { retract: { at: 'stock top', offset: 2 } });
  const { text } = prove(withOperation(low, 'contour', ['f1'], tool(4)));
  const between = text.slice(text.indexOf('CONTOUR')).split('\n').slice(2, 5);
  expect(between).toEqual([
    expect.stringMatching(/^(N\d+ )?(G0 )?Z\d/),
    expect.stringMatching(/^(N\d+ )?X\S+ Y\S+$/),
    expect.stringMatching(/^(N\d+ )?Z/),
  ]);
});

test.each<[string, Heights, string, string]>([
  ['a feature that is gone', { start: { at: 'floor', feature: 'gone', offset: 0 } }, 'height-gone', 'heights.start'],
  ['an end above its start', { end: { at: 'stock top', offset: 1 } }, 'start-below-end', 'heights.end'],
  ['an end in the part', { end: { at: 'floor', offset: -0.5 } }, 'end-in-part', 'heights.end'],
  ['going aside in the metal', { retract: { at: 'part top', offset: 0 } }, 'retract-low', 'heights.retract'],
])('%s is a stop at the value', (_, heights, code, field) => {
  const job = at(
    withOperation(jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }), 'pocket', ['f2'], tool(4)),
    heights,
  );
  const plan = planSetup(job, job.setups[0]);
  const [found] = planFindings(plan).filter((f) => f.level === 'stop');
  expect(found).toMatchObject({ code, place: { operation: lastOf(job).id, field } });
  expect(plan.planned[0].plan.path.count).toBe(0);
});

test('what a height cannot be is refused by name', () => {
  const job = stepped({ start: { at: 'the moon' as never, offset: 2000 }, approach: 0, reach: 'all' as never });
  expect(readJob(JSON.parse(JSON.stringify(job))).findings.map((f) => f.place.field)).toEqual([
    ...['start.at', 'start.offset', 'reach', 'approach'].map((f) => expect.stringContaining(`heights.${f}`)),
  ]);
});

test('a setup whose clearance is small is planned as it was where no height is asked for', () => {
  const job = withOperation(jobWith(undefined), 'face', [], tool(1));
  const near = { ...job, setups: [{ ...job.setups[0], clearance: 0.5 }] };
  expect(planOf(near).path.count).toBeGreaterThan(0);
  expect(planOf(near).found).not.toContain('retract-low');
  expect(planOf(at(near, { approach: 1.5 })).found).toContain('retract-low');
});
