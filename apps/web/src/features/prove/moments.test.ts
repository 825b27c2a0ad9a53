import { type Finding, type Samples, finding, ProofView } from '@tidypath/core';
import { barsOf } from './RibbonBars';
import { flagsOf, momentOf, startOf } from './moments';

const about = (place: Finding['place']): Finding => finding('proof-too-long', {}, place);
const f = (...values: number[]) => Float32Array.from(values);
/** Motions that end after 1, 2, 4 and 9 s, at lines 3, 3, 5 and 8; the last cuts along X from 0 to 40, in four stretches. */
const proof = {
  lines: Uint32Array.from([3, 3, 5, 8]),
  ends: f(1, 2, 4, 9),
  samples: {
    count: 5,
    motion: Uint32Array.from([1, 3, 3, 3, 3]),
    time: f(2, 5, 6, 7, 9),
    x: f(0, 10, 20, 30, 40),
    y: f(0, 0, 0, 0, 0),
    z: f(-1, -1, -1, -1, -1),
  },
} as unknown as ProofView;
const moment = (place: Finding['place']) => momentOf(proof, about(place));

test('a motion begins where the one before ends, the first at nothing', () => {
  expect([0, 1, 3].map((motion) => startOf(proof, motion))).toEqual([0, 1, 4]);
});

test('a finding has the moment in which its motion comes nearest to its place', () => {
  expect(moment({ motion: 3, at: { x: 21, y: 4 } })).toBe(6);
  expect(moment({ motion: 3, at: { x: 33, y: -2, z: -1 } })).toBe(7);
  expect(moment({ line: 8, at: { x: 8, y: 0 } })).toBe(5);
});

test('without a place, or where nothing is cut, it is just before the end of the motion, whose line is then the one shown', () => {
  for (const [place, end] of [
    [{ motion: 2, at: { x: 0, y: 0 } }, 4],
    [{ motion: 3 }, 9],
    [{ motion: 3, at: { x: 90, y: 0 } }, 9],
    [{ line: 5 }, 4],
  ] as const) {
    expect(moment(place)).toBeLessThan(end);
    expect(moment(place)).toBeGreaterThan(end - 0.001);
  }
});

test('a line that moves nothing has the moment of the next that does; one behind all of them, or none, has none', () => {
  expect(moment({ line: 4 })).toBe(2);
  expect(moment({ line: 90 })).toBeUndefined();
  expect(moment({})).toBeUndefined();
  const findings = [{ line: 4 }, {}].map(about);
  expect(flagsOf({ ...proof, findings }).map((flag) => flag.time)).toEqual([2]);
  expect(flagsOf(undefined)).toEqual([]);
});

test('a bar of the ribbon holds the most of its stretch of time, the end belongs to the last', () => {
  const samples = {
    count: 4,
    time: Float32Array.from([0, 0.01, 12, 24]),
    rate: Float32Array.from([3, 7, 5, 2]),
    engagement: Float32Array.from([90, 20, 40, 10]),
    load: Float32Array.from([0.2, 1.3, 0.5, 0.1]),
  } as unknown as Samples;
  const bars = barsOf(samples, 'rate', 24);
  expect(bars[0].value).toBe(7);
  expect(bars[0].engagement).toBe(90);
  expect(bars[0].load).toBeCloseTo(1.3, 6);
  expect(bars[bars.length / 2].value).toBe(5);
  expect(bars[bars.length - 1].value).toBe(2);
  expect(bars.filter((b) => b.value > 0)).toHaveLength(3);
});
