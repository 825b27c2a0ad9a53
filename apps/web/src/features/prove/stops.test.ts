import { ProofView } from '@tidypath/core';
import { stopFrom } from './stops';

/** Lines 3, 4 (two motions), 6; a tool change at 1 s and 4 s; steps from motions 1 and 3. */
const proof = {
  lines: Uint32Array.from([1, 3, 4, 4, 6]),
  ends: Float32Array.from([0, 2, 3, 5, 9]),
  toolStarts: [1, 4],
  steps: [{ motion: 1 }, { motion: -1 }, { motion: 3 }],
  clock: { total: 9 / 60 },
} as unknown as ProofView;

const walk = (stride: 'line' | 'tool' | 'step', from: number, forwards: boolean) => {
  const stops = [];
  for (let t = from, k = 0; k < 8; k++) {
    const next = stopFrom(proof, stride, t, forwards);
    if (next === t) break;
    t = next;
    stops.push(Math.round(next * 1e3) / 1e3);
  }
  return stops;
};

test('line by line, a line of several motions is one stop, both ways', () => {
  expect(walk('line', 0, true)).toEqual([2, 5, 9]);
  expect(walk('line', 9, false)).toEqual([5, 2, 0]);
  expect(stopFrom(proof, 'line', 2.5, true)).toBeCloseTo(5, 3);
  expect(stopFrom(proof, 'line', 2.5, false)).toBeCloseTo(2, 3);
});

test('by tool and by step, with the ends as last stops', () => {
  expect(walk('tool', 0, true)).toEqual([1, 4, 9]);
  expect(walk('tool', 9, false)).toEqual([4, 1, 0]);
  expect(walk('step', 0.5, true)).toEqual([3, 9]);
  expect(walk('step', 2, false)).toEqual([0]);
});
