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
