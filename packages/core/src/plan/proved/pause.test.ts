import { jobWith, prove, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { editOperation, withController } from '../../document/edit';
import { Job } from '../../document/job';
import { Pause } from '../../document/operation';
import { CONTROLLERS } from '../../shop/controllers';
import { readJob } from '../documents';
import { PlanCache, planSetup, postSetup } from '../pipeline';

const MILL = tool(4);

/** A pocket that is cleared, then cleared again with the same tool after a stop. */
function paused(before: Pause | undefined, controller = CONTROLLERS[0]): Job {
  const job = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 });
  const pocket = job.part.features[1].id;
  const twice = [1, 2].reduce((j) => withOperation(j, 'pocket', [pocket], MILL), job);
  const [, second] = twice.setups[0].operations;
  return withController(
    editOperation(twice, second.id, (o) => ({ ...o, before })),
    controller,
  );
}
const linesOf = (job: Job) =>
  prove(job, 0.5)
    .text.split('\n')
    .map((l) => l.replace(/^N\d+ /, ''));
/** What stands around a stop. */
const around = (lines: string[], stop: string) => {
  const at = lines.indexOf(stop);
  return lines.slice(at - 6, at + 8).join('\n');
};
const found = (job: Job) => prove(job, 0.5).codes.sort();

test.each([
  ['planned', 'M0'],
  ['optional', 'M1'],
] as const)('a %s stop: tool up, spindle and coolant off, the note, and all of it stated anew', (stop, word) => {
  const lines = linesOf(paused({ stop, note: 'Turn the clamp' }));
  expect(around(lines, word)).toMatch(
    new RegExp(`M9\\nM5\\nG[^]*\\(TURN THE CLAMP\\)\\n${word}\\n\\([^]*\\nS\\d+ M3\\nG54 G0 X[^]*\\nG43 H\\d+ Z`),
  );
  expect(lines.filter((l) => / M6$/.test(l))).toHaveLength(1);
  expect(linesOf(paused(undefined))).not.toContain(word);
});

test.each(CONTROLLERS.filter((c) => !c.beam).map((c) => [c.id, c] as const))(
  '%s reads it back and finds nothing against it',
  (_, controller) => {
    const job = paused({ stop: 'planned', note: 'Blow it out' }, controller);
    expect(linesOf(job).filter((l) => l === 'M0')).toHaveLength(1);
    expect(found(job)).toEqual(found(paused(undefined, controller)));
  },
);

test('before the first operation, and with a new tool', () => {
  const job = paused({ stop: 'planned', note: '' });
  const [first, second] = job.setups[0].operations;
  const atFirst = editOperation(job, first.id, (o) => ({
    ...o,
    before: { stop: 'planned' as const, note: 'Indicate' },
  }));
  const lines = linesOf(atFirst);
  const stop = lines.indexOf('M0');
  expect(lines[stop - 1]).toBe('(INDICATE)');
  expect(lines.findIndex((l) => / M6$/.test(l))).toBeGreaterThan(stop);
  expect(lines.filter((l) => l === 'M0')).toHaveLength(2);
  const other = tool(5);
  const changed = editOperation({ ...job, tools: [...job.tools, other] }, second.id, (o) => ({
    ...o,
    toolId: other.id,
  }));
  expect(around(linesOf(changed), 'M0')).toMatch(/M5\nG[^]*\nM0\n[^]*T5 M6\nS/);
});

test('where it waits is nothing to its path; what it cannot be is refused by name', () => {
  const cache: PlanCache = new Map();
  const job = paused(undefined);
  planSetup(job, job.setups[0], cache);
  const known = cache.size;
  const later = paused({ stop: 'optional', note: 'Later' });
  planSetup(later, later.setups[0], cache);
  expect(cache.size).toBe(known);
  const bad = paused({ stop: 'sometimes' as never, note: 'x'.repeat(81) });
  expect(readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field)).toEqual([
    expect.stringContaining('before.stop'),
    expect.stringContaining('before.note'),
  ]);
});

test('a tool that is changed anew is called again, without a stop', () => {
  const lines = linesOf(paused({ stop: 'tool change', note: 'New edges' }));
  expect(lines.filter((l) => /^T4 M6$/.test(l))).toHaveLength(2);
  expect(lines.filter((l) => l === 'M0' || l === 'M1')).toEqual([]);
  expect(around(lines, '(NEW EDGES)')).toMatch(/M9\nM5\nG[^]*\(NEW EDGES\)\n\([^]*\nT4 M6\nS\d+ M3/);
  const hobby = CONTROLLERS.find((c) => c.toolChange !== 'automatic' && !c.beam)!;
  const job = paused({ stop: 'tool change', note: '' }, hobby);
  expect(postSetup(job, job.setups[0], planSetup(job, job.setups[0])).programs).toHaveLength(2);
});
