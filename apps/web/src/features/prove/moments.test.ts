import type { Finding, Samples } from '@tidypath/core';
import type { ProofView } from '../../compute/messages';
import { barsOf } from './RibbonBars';
import { flagsOf, momentOf, startOf } from './moments';

const about = (place: Finding['place']): Finding => ({ code: 'gouge', level: 'stop', message: '', remedy: '', place });
const proof = {
  lines: Uint32Array.from([3, 3, 5, 8]),
  ends: Float32Array.from([1, 2, 4, 9]),
  findings: [about({}), about({ motion: 2 }), about({ line: 4 }), about({ line: 90 })],
} as unknown as ProofView;

test('a motion begins where the one before ends, the first at nothing', () => {
  expect([0, 1, 3].map((motion) => startOf(proof, motion))).toEqual([0, 1, 4]);
});

test('a finding has the moment of its motion, else that of the first motion from its line on', () => {
  expect(proof.findings.map((f) => momentOf(proof, f))).toEqual([undefined, 2, 2, undefined]);
  expect(flagsOf(proof).map((flag) => flag.time)).toEqual([2, 2]);
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
