import type { Finding, ProofView } from '@tidypath/core';

/** Seconds at which a motion begins. */
export const startOf = (proof: ProofView, motion: number) => (motion > 0 ? proof.ends[motion - 1] : 0);

/** Just before the end of a line, so that it is the one shown; by more than the rounding of its time. */
export const within = (end: number) => Math.max(0, end - Math.max(1e-4, end * 2e-7));

/** Index of the first stretch of a motion, or of one after it. */
function firstStretch({ count, motion }: ProofView['samples'], wanted: number): number {
  let [low, high] = [0, count];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (motion[middle] < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** When a motion comes nearest to a point while it cuts; its end where it does not, or where no point is named. */
function nearest({ samples, ends }: ProofView, motion: number, at: Finding['place']['at']): number {
  const end = within(ends[motion]);
  if (!at) return end;
  let [best, least] = [end, Infinity];
  for (let i = firstStretch(samples, motion); i < samples.count && samples.motion[i] === motion; i++) {
    const far = Math.hypot(samples.x[i] - at.x, samples.y[i] - at.y, samples.z[i] - (at.z ?? samples.z[i]));
    if (far < least) [best, least] = [samples.time[i], far];
  }
  return Math.min(best, end);
}

/** A finding's moment in the program, by its motion or its line, s: there the tool is where it is wrong. */
export function momentOf(proof: ProofView, { place }: Finding): number | undefined {
  if (place.motion !== undefined) return nearest(proof, place.motion, place.at);
  if (place.line === undefined) return undefined;
  const motion = proof.lines.findIndex((line) => line >= place.line!);
  if (motion < 0) return undefined;
  return proof.lines[motion] === place.line ? nearest(proof, motion, place.at) : startOf(proof, motion);
}

/** The operation a motion belongs to, where that is known. */
export const operationAt = ({ steps }: ProofView, motion: number): string | undefined =>
  steps.filter((s) => s.motion >= 0 && s.motion <= motion).pop()?.operationId;

/** Where the findings’ flags stand in time. */
export const flagsOf = (proof: ProofView | undefined) =>
  (proof?.findings ?? []).flatMap((finding) => {
    const time = momentOf(proof!, finding);
    return time === undefined ? [] : [{ time, finding }];
  });
