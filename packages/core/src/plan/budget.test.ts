import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { MACHINES } from '../shop/library';
import { planFindings, planSetup } from './pipeline';
import { proveProgram } from './prove';

/** A plate of 18 m, which every value is allowed for. */
function vast(kind: string, number: number, params: Record<string, unknown>) {
  const shape = { type: 'rectangle', width: 18_000, height: 15_000, radius: 50 } as const;
  const meaning = kind === 'engrave' ? 'line' : 'pocket';
  const job = jobWith(shape, { meaning, depth: 10 }, 40);
  const [outline, feature] = job.part.features;
  const plate = { ...outline, shape: { type: 'rectangle' as const, width: 19_000, height: 16_000, radius: 0 } };
  const drawn = { ...job, part: { ...job.part, features: [plate, feature] } };
  return withOperation(drawn, kind, kind === 'face' ? [] : ['f2'], tool(number), params);
}

describe('a plan that would take for ever meets its budget, and says so at its operation', () => {
  test.each([
    ['rings inside rings', 'pocket', 4, { stepover: 0.1, pattern: 'inside out' }],
    ['rows', 'pocket', 4, { stepover: 0.1, pattern: 'zigzag' }],
    ['a spiral over the whole', 'face', 1, { stepover: 0.2, passes: 'spiral' }],
    ['layers of a wall', 'contour', 4, { layer: 0.02, passes: 40, stepover: 0.05, side: 'inside' }],
    ['a chequer', 'engrave', 31, { what: 'a chequer', pitch: 0.3, by: 'depth', depth: 0.1 }],
    ['carving', 'engrave', 31, { what: 'what they enclose', step: 0.05 }],
  ])('%s', (_, kind, number, params) => {
    const job = vast(kind, number, params);
    const plan = planSetup(job, job.setups[0]);
    expect(plan.planned[0].plan.path.count).toBe(0);
    const [found] = planFindings(plan).filter((f) => f.code === 'plan-too-long');
    expect([found?.level, found?.place.operation]).toEqual(['stop', 'o1']);
  });
});

test('a proof that would take for hours ends at the line that asks for it', () => {
  const job = { ...jobWith(undefined), machine: MACHINES[2], tools: [tool(27)] };
  const text = 'G21 G90 G54\nT27 M6\nS900 M3\nG43 H27 Z5\nG0 X-80 Y20\nG1 Z-0.2 F300\nX9999999\nG0 Z50\nM30\n';
  const { findings } = proveProgram(job, job.setups[0], text, 0.05);
  expect(findings.filter((f) => f.code === 'proof-too-long').map((f) => [f.level, f.place.line])).toEqual([
    ['stop', 7],
  ]);
});
