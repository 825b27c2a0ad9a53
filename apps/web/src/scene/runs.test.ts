import { MOVE, MotionList, NOTHING, Samples, planSetup, postSetup, runsOf } from '@tidypath/core';
import { sampleJob } from '../../testing/show';
import { partEdges, planSegments, sampleAt, within } from './segments';

const job = sampleJob();
const setup = job.setups[0];

test('a planned path is drawn in pieces, rapids apart', () => {
  const { planned } = planSetup(job, setup);
  const { programs } = postSetup(job, setup, planSetup(job, setup));
  expect(programs).toHaveLength(1);
  const views = planned.map((p) => ({
    operationId: p.operation.id,
    key: p.key,
    path: p.plan.path,
    findings: [],
    minutes: { cut: 0, entry: 0, rapid: 0, feed: 1, entryFeed: 1 },
  }));
  const { cut, rapid } = planSegments(views);
  expect(cut.positions.length % 6).toBe(0);
  expect(cut.positions.length).toBeGreaterThan(600);
  expect(rapid.positions.length).toBeGreaterThan(60);
  expect(Array.from(cut.positions).every(Number.isFinite)).toBe(true);
  expect(partEdges(job.part).positions.length).toBeGreaterThan(100);
  expect(NOTHING).toBeLessThan(-1e5);
});

test('the proved path keeps its lines, so that one operation is one slice', () => {
  const list = new MotionList();
  const push = (type: number, line: number, x: number) =>
    list.push({ type, line, x, y: 0, z: 0, cx: 0, cy: 0, feed: 100, rpm: 1, tool: 1, seconds: 0 });
  push(MOVE.rapid, 1, 0);
  push(MOVE.line, 2, 1);
  push(MOVE.line, 3, 2);
  push(MOVE.rapid, 4, 9);
  push(MOVE.line, 5, 10);
  const samples = {
    count: 3,
    motion: Uint32Array.from([1, 2, 4]),
    engagement: Float32Array.from([10, 90, 180]),
    time: Float32Array.from([1, 2, 5]),
    x: Float32Array.from([1, 2, 10]),
    y: new Float32Array(3),
    z: new Float32Array(3),
  } as unknown as Samples;
  const { cut, rapid } = runsOf(samples, list.build(), { x: 5, y: 0, z: 0 });
  expect(Array.from(cut.line)).toEqual([2, 3, 5]);
  expect(Array.from(rapid.line)).toEqual([4]);
  expect(Array.from(within(cut, (l) => l === 3).positions.slice(0, 1))).toEqual([6]);
  expect(within(cut, (l) => l === 3).positions).toHaveLength(6);
  expect(within(cut, (l) => l === 99).positions).toHaveLength(0);
  expect([0, 1.5, 99].map((t) => sampleAt(samples, t))).toEqual([0, 1, 2]);
});

test('a path of more pieces than are drawn is thinned within its cuts, never across a rapid', () => {
  const list = new MotionList();
  const push = (type: number, x: number) =>
    list.push({ type, line: 1, x, y: 0, z: 0, cx: 0, cy: 0, feed: 100, rpm: 1, tool: 1, seconds: 0 });
  push(MOVE.rapid, 0);
  const motion: number[] = [];
  const xs: number[] = [];
  // Cuts of 7 mm in steps of 1, each 100 mm from the last by a rapid.
  for (let cut = 0; cut < 10_000; cut++) {
    push(MOVE.rapid, 100 * cut);
    for (let k = 1; k <= 7; k++) {
      push(MOVE.line, 100 * cut + k);
      xs.push(100 * cut + k);
      motion.push(1 + cut * 8 + k);
    }
  }
  const count = xs.length;
  const samples = {
    count,
    motion: Uint32Array.from(motion),
    engagement: new Float32Array(count),
    rate: new Float32Array(count).fill(1),
    x: Float32Array.from(xs),
    y: new Float32Array(count),
    z: new Float32Array(count),
  } as unknown as Samples;
  const { positions, line } = runsOf(samples, list.build(), { x: 0, y: 0, z: 0 }).cut;
  expect(line.length).toBeLessThan(count / 1.5);
  let drawn = 0;
  for (let i = 0; i < positions.length; i += 6) {
    const long = positions[i + 3] - positions[i];
    expect(long).toBeLessThanOrEqual(7);
    drawn += long;
  }
  expect(drawn).toBe(7 * 10_000);
});
