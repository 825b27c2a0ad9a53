import { jobWith, prove, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { TOOLS } from '../shop/library';
import { TAGS } from '../path/path';
import { Job } from '../document/job';
import { planSetup } from '../plan/pipeline';
import { withEntryHole } from './entry-hole';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };
const clearing = (number: number, depth = 6) =>
  withOperation(
    withStock(jobWith({ type: 'rectangle', width: 50, height: 34, radius: 8 }, { depth }), flush),
    'clear',
    ['f2'],
    tool(number),
  );

test('a hole wider than the cutter is drilled first, and the cutter goes down through it', () => {
  const job = clearing(7);
  const made = withEntryHole(job, 'o1', TOOLS);
  if (!made.ok) throw new Error(made.why);
  const { operations } = made.job.setups[0];
  expect(operations.map((o) => o.kind)).toEqual(['drill', 'clear']);
  expect(operations[0].reason).toBeTruthy();
  const proof = prove(made.job, 0.1);
  expect(proof.codes).toEqual([]);
  const helices = (j: Job) => {
    const { path } = planSetup(j, j.setups[0]).planned.find((p) => p.operation.kind === 'clear')!.plan;
    return Array.from(path.tag).filter((t, i) => TAGS[t] === 'entry' && path.kind[i] > 1).length;
  };
  expect(helices(made.job)).toBe(0);
  expect(helices(job)).toBeGreaterThan(2);
});

test('what cannot be is said: no such drill, too shallow', () => {
  expect(withEntryHole(clearing(3), 'o1', TOOLS)).toEqual({ ok: false, why: expect.stringContaining('No drill') });
  expect(withEntryHole(clearing(7, 1), 'o1', TOOLS)).toEqual({
    ok: false,
    why: expect.stringContaining('too shallow'),
  });
});

test('a drill opens every pocket of a pattern, and what it took is not cleared again', () => {
  const shape = { type: 'rectangle', width: 26, height: 20, radius: 6 } as const;
  const pattern = { type: 'line', count: 2, rows: 1, dx: 34, dy: 0, centreX: 0, centreY: 0 } as const;
  const base = withStock(jobWith(shape, { depth: 6, x: 23, y: 25, pattern }), flush);
  const drill = TOOLS.find((t) => t.kind === 'drill' && t.diameter === 8.5)!;
  const drilled = withOperation(base, 'drill', ['f2'], drill);
  const [one] = planSetup(drilled, drilled.setups[0]).planned;
  expect(one.plan.findings).toEqual([]);
  expect(one.plan.cycle!.holes.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
    [23, 25],
    [57, 25],
  ]);
  expect(prove(drilled, 0.1).codes.filter((c) => c === 'gouge')).toEqual([]);
  const helices = (job: Job) => {
    const clear = withOperation(job, 'clear', ['f2'], tool(7), { finish: false, layer: 6 });
    const { path } = planSetup(clear, clear.setups[0]).planned.find((p) => p.operation.kind === 'clear')!.plan;
    return [...path.tag].filter((t, i) => TAGS[t] === 'entry' && path.kind[i] > 1).length;
  };
  expect(helices(base)).toBeGreaterThan(0);
  expect(helices(drilled)).toBe(0);
});

test('a drill that has no room in a pocket, or whose point would mark its floor, is refused', () => {
  const codes = (width: number, depth: number) => {
    const shape = { type: 'rectangle', width, height: width, radius: 2 } as const;
    const drill = TOOLS.find((t) => t.kind === 'drill' && t.diameter === 8.5)!;
    const job = withOperation(withStock(jobWith(shape, { depth }), flush), 'drill', ['f2'], drill);
    return planSetup(job, job.setups[0]).planned[0].plan.findings.map((f) => f.code);
  };
  expect(codes(8.8, 6)).toEqual(['drill-too-large']);
  expect(codes(20, 2.5)).toEqual(['pocket-shallow']);
  expect(codes(20, 4)).toEqual([]);
});
