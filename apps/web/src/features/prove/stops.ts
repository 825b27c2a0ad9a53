import { ProofView } from '@tidypath/core';
import { within } from './moments';

/** What one goes on by: a program line at a time (single block), a tool, an operation. */
export const STRIDES = ['line', 'tool', 'step'] as const;
export type Stride = (typeof STRIDES)[number];

/** Moments nearer than this are the same, s. */
const SAME = 2e-3;

/** End of the line under way or, where it has ended, of the next; backwards the end of the one before. */
function lineStop({ ends, lines }: ProofView, time: number, forwards: boolean): number {
  let i = 0;
  while (i < ends.length - 1 && ends[i] <= time + (forwards ? SAME : -SAME)) i++;
  if (forwards) {
    while (i < ends.length - 1 && lines[i + 1] === lines[i]) i++;
    return within(ends[i]);
  }
  while (i > 0 && lines[i - 1] === lines[i]) i--;
  return i > 0 ? within(ends[i - 1]) : 0;
}

/** The next moment to stop at, s from the start; the end, or the start, where there is none. */
export function stopFrom(proof: ProofView, stride: Stride, time: number, forwards: boolean): number {
  if (stride === 'line') return lineStop(proof, time, forwards);
  const total = proof.clock.total * 60;
  const starts =
    stride === 'tool'
      ? proof.toolStarts
      : proof.steps.filter((s) => s.motion >= 0).map((s) => (s.motion > 0 ? proof.ends[s.motion - 1] : 0));
  return forwards
    ? Math.min(total, ...starts.filter((t) => t > time + SAME))
    : Math.max(0, ...starts.filter((t) => t < time - SAME));
}
