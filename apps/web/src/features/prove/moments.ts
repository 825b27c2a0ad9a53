import type { Finding } from '@tidypath/core';
import type { ProofView } from '../../compute/messages';

/** Seconds at which a motion begins. */
export const startOf = (proof: ProofView, motion: number) => (motion > 0 ? proof.ends[motion - 1] : 0);

/** A finding's moment in the program, by its motion or its line, s. */
export function momentOf(proof: ProofView, f: Finding): number | undefined {
  if (f.place.motion !== undefined) return startOf(proof, f.place.motion);
  if (f.place.line === undefined) return undefined;
  const motion = proof.lines.findIndex((line) => line >= f.place.line!);
  return motion < 0 ? undefined : startOf(proof, motion);
}

/** Where the findings' flags stand in time. */
export const flagsOf = (proof: ProofView | undefined) =>
  (proof?.findings ?? []).flatMap((finding) => {
    const time = momentOf(proof!, finding);
    return time === undefined ? [] : [{ time, finding }];
  });
