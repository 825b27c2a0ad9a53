import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Bench, BenchWork } from '../plan/bench';
import { estimateMinutes } from '../plan/insight';
import { planSetup } from '../plan/pipeline';
import { joinPrograms } from '../plan/joined';
import { proveProgram } from '../plan/prove';
import { packMade, unpackMade } from './packed';
import { inUnitOf, planView, proofView } from './views';

const pocketed = jobWith({ type: 'round', diameter: 30 });
const job = withOperation(pocketed, 'pocket', [pocketed.part.features[1].id], tool(4));

test('findings speak the unit of their job, planned and proved', () => {
  const short = { ...job, unit: 'inch' as const, tools: job.tools.map((t) => ({ ...t, stickOut: 3 })) };
  const told = planView(planSetup(short, short.setups[0])).planned.flatMap((p) => p.findings);
  const reach = told.find((f) => f.code === 'too-deep-for-stick-out')!;
  expect(reach.message).toMatch(/sticks out 0\.1181 in, so its holder would hit/);
  expect(reach.remedy).toMatch(/at least 0\.\d+ in/);
  const { findings } = proveProgram(job, job.setups[0], 'G21 G90 G54\nT4 M6\nS1000 M3\nG0 X40 Y25\nG0 Z-2\nM30\n', 0.5);
  const rapid = (all: typeof findings) => all.find((f) => f.code === 'rapid-through-stock')!.message;
  expect(rapid(findings)).toMatch(/runs [\d.]+ mm deep through metal near X 40 Y 25/);
  expect(rapid(inUnitOf(short, findings))).toMatch(/runs 0\.\d+ in deep through metal near X/);
  expect(inUnitOf(job, findings)).toEqual(findings);
});

function ended<T>(work: BenchWork<T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

describe('a result on its way', () => {
  const bench = new Bench();
  const plan = planView(ended(bench.plan(job, job.setups[0])));
  const { text, sections } = joinPrograms(plan.programs);
  const made = { plan, proof: proofView(ended(bench.prove(job, job.setups[0], text, sections))!) };

  test('arrives as it was sent, every column with its kind and its numbers', () => {
    const kinds = (view: unknown) =>
      JSON.stringify(view, (_, v) => (ArrayBuffer.isView(v) ? [v.constructor.name, ...(v as Float32Array)] : v));
    expect(kinds(unpackMade(packMade(made)))).toBe(kinds(made));
    // As a server hands it on: a stretch of a longer piece of memory.
    const among = Buffer.concat([Buffer.from('...'), packMade(made)]).subarray(3);
    expect(kinds(unpackMade(among))).toBe(kinds(made));
  });

  test('what is cut off, damaged at its start, or something else is none', () => {
    const bytes = packMade(made);
    expect(bytes.length).toBeGreaterThan(10_000);
    for (const part of [0, 1, 100, bytes.length - 1]) expect(unpackMade(bytes.slice(0, part))).toBeUndefined();
    expect(unpackMade(Uint8Array.from([...bytes, 0]))).toBeUndefined();
    expect(unpackMade(Uint8Array.from([0xc1, ...bytes.slice(1)]))).toBeUndefined();
    expect(unpackMade(new TextEncoder().encode('{"plan":{"planned":[],"programs":[]}}'))).toBeUndefined();
  });
});

test('the minutes of a plan: what is done by hand takes its own, and changes no tool', () => {
  const [first] = job.setups[0].operations;
  const hand = {
    ...first,
    ...{ id: 'hand', kind: 'by-hand', name: 'Grip anew', toolId: 'by-hand', targets: [] },
    params: { what: 'grip anew', minutes: 4, note: '' },
  };
  const asked = { ...job, setups: [{ ...job.setups[0], operations: [first, hand, { ...first, id: 'again' }] }] };
  const { planned } = planView(planSetup(asked, asked.setups[0]));
  const [before, by, after] = planned.map((p) => p.minutes);
  expect(estimateMinutes(by, hand)).toBe(4);
  expect(before.rapid - after.rapid).toBeCloseTo(job.machine.toolChangeSeconds / 60, 6);
});
