import { planSetup, proveProgram } from '@tidypath/core';
import { sampleJob } from '../../testing/show';
import { inUnitOf, planView } from './views';

test('findings speak the unit of their job, planned and proved', () => {
  const job = sampleJob();
  const short = { ...job, unit: 'inch' as const, tools: job.tools.map((t) => ({ ...t, stickOut: 3 })) };
  const told = planView(planSetup(short, short.setups[0])).planned.flatMap((p) => p.findings);
  const reach = told.find((f) => f.code === 'too-deep-for-stick-out')!;
  expect(reach.message).toMatch(/sticks out 0\.1181 in, so its holder would hit/);
  expect(reach.remedy).toMatch(/at least 0\.\d+ in/);
  const { findings } = proveProgram(job, job.setups[0], 'G21 G90 G54\nT1 M6\nS1000 M3\nG0 X0 Y0\nG0 Z-2\nM30\n', 0.5);
  const rapid = (all: typeof findings) => all.find((f) => f.code === 'rapid-through-stock')!.message;
  expect(rapid(findings)).toMatch(/runs [\d.]+ mm deep through metal near X 0 Y 0/);
  expect(rapid(inUnitOf(short, findings))).toMatch(/runs 0\.\d+ in deep through metal near X 0 Y 0/);
  expect(inUnitOf(job, findings)).toEqual(findings);
});
