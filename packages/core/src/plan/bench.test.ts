import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { addSetup } from '../document/edit';
import { Job } from '../document/job';
import { LEVEL_DEFAULTS } from '../judge/level';
import { Bench, BenchStep, BenchWork } from './bench';
import { planSetup, postSetup } from './pipeline';
import { joinPrograms } from './joined';
import { proveProgram } from './prove';

const job = withOperation(
  withOperation(jobWith({ type: 'rectangle', width: 30, height: 20, radius: 5 }), 'face', [], tool(1)),
  'pocket',
  ['f2'],
  tool(7),
);
const [setup] = job.setups;

function done<T>(work: BenchWork<T>, steps: BenchStep[] = []): T {
  for (;;) {
    const { done: isDone, value } = work.next();
    if (isDone) return value;
    steps.push(value);
  }
}

const posted = (of: Job, at: number) =>
  joinPrograms(postSetup(of, of.setups[at], planSetup(of, of.setups[at])).programs);

function proved(bench: Bench) {
  done(bench.plan(job, setup));
  const { text, sections } = posted(job, 0);
  return { text, last: done(bench.prove(job, setup, text, sections))! };
}

test('plan and proof are those of the pipeline, told step by step', () => {
  const bench = new Bench();
  const steps: BenchStep[] = [];
  const plan = done(bench.plan(job, setup), steps);
  expect(plan).toEqual(planSetup(job, setup));
  expect(steps).toEqual([0, 1].map((index) => ({ planning: { index, of: 2, name: expect.any(String) } })));
  const { text, last } = proved(bench);
  const alone = proveProgram(job, setup, text, undefined, { sections: posted(job, 0).sections });
  expect(last.proof.findings).toEqual(alone.findings);
  const bytes = (a: Float32Array) => Buffer.from(a.buffer);
  expect(bytes(last.proof.field.height).equals(bytes(alone.field.height))).toBe(true);
  expect(bytes(last.proof.samples.load).equals(bytes(alone.samples.load))).toBe(true);
  expect(bench.last).toBe(last);
});

test('the picture follows a time and comes back; what is probed is what it shows', () => {
  const bench = new Bench();
  expect([bench.seek(3), bench.probe(40, 25), bench.stl()]).toEqual([undefined, undefined, undefined]);
  const { last } = proved(bench);
  expect(bench.probe(40, 25)!.z).toBeCloseTo(-5, 3);
  expect(bench.seek(0)!.motion).toBeLessThan(3);
  expect(bench.probe(40, 25)!.z).toBeCloseTo(1, 3);
  expect(bench.seek(Infinity)!.line).toBe(last.proof.read.motions.line.at(-1));
  expect(bench.probe(40, 25)!.z).toBeCloseTo(-5, 3);
  expect(bench.stl()!.length).toBeGreaterThan(1000);
});

test('work that is left half way changes nothing', () => {
  const bench = new Bench();
  const { text, last } = proved(bench);
  const other = bench.prove(job, setup, text.replace('S', 'S '), undefined);
  other.next();
  expect(bench.last).toBe(last);
});

test('a text that differs by one letter is proved anew', () => {
  const bench = new Bench();
  const { text, last } = proved(bench);
  const deeper = text.replace(/Z-6\.?(?=\s)/g, 'Z-7.');
  expect(deeper).not.toBe(text);
  const again = done(bench.prove(job, setup, deeper))!;
  expect(again.proof.removed).toBeGreaterThan(last.proof.removed);
});

test('levelled feeds are proved; where something else was proved meanwhile, nothing comes of them', () => {
  const bench = new Bench();
  const { text } = proved(bench);
  const found = done(bench.level(LEVEL_DEFAULTS))!;
  expect(found.levelled.text.split('\n')).toHaveLength(text.split('\n').length);
  expect(found.proof.removed).toBeCloseTo(bench.last!.proof.removed, 6);
  const late = bench.level(LEVEL_DEFAULTS);
  late.next();
  done(bench.prove(job, setup, `${text}\n(another)\n`));
  expect(done(late)).toBeUndefined();
});

test('a later setup starts from what the one before leaves, worked out once', () => {
  const two = withOperation(addSetup(job), 'face', [], tool(1));
  const second = { ...addSetup(job).setups[1], operations: two.setups[0].operations.slice(0, 1) };
  const both: Job = { ...addSetup(job), tools: two.tools, setups: [setup, second] };
  const bench = new Bench();
  const text = 'G21 G90 G54\nT1 M6\nS900 M3\nG0 X0 Y0 Z50\nM30\n';
  const steps: BenchStep[] = [];
  const first = done(bench.prove(both, second, text), steps)!;
  expect(steps.some((s) => 'planning' in s)).toBe(true);
  expect(first.more.left).toBeDefined();
  const again: BenchStep[] = [];
  const next = done(bench.prove(both, second, text), again)!;
  expect(again.some((s) => 'planning' in s)).toBe(false);
  expect(next.more.left).toBe(first.more.left);
});
