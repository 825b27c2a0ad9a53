/** When a wear offset is corrected, by how much, and why not yet: correcting every part only adds noise. */
import type { KeptSize, SizeToMeasure } from '../release/sizes';

/** A size as it was measured on a part, in the order of parts. */
export interface SizedPart {
  /** From the middle of its limits, mm. */
  off: number;
  /** Whether the same part was measured before. */
  again?: boolean;
  /** Whether its tool came with a new edge, or its offset was corrected, before it. */
  fresh?: boolean;
}

/** Later than any time. */
const NOT_YET = '9';

/**
 * A size part after part.
 * @param sizes those of it that stand, as they were measured
 * @param fresh when its tool came with a new edge or was corrected, ISO 8601; empty for what was not sent yet
 */
export function sizedParts(
  { mm, limits: { lower, upper } }: Pick<SizeToMeasure, 'mm' | 'limits'>,
  sizes: readonly Pick<KeptSize, 'measured' | 'part' | 'at'>[],
  fresh: readonly string[],
): SizedPart[] {
  const middle = mm + (lower + upper) / 2;
  const since = (at: string, before: string | undefined) =>
    fresh.some((f) => (f || NOT_YET) <= (at || NOT_YET) && (f || NOT_YET) > (before ?? '0'));
  return sizes.map(({ measured, part, at }, i) => ({
    off: measured - middle,
    again: sizes.slice(0, i).some((s) => s.part === part),
    fresh: since(at, sizes[i - 1]?.at),
  }));
}

export type OffsetAdvice =
  /** Leave it: why. */
  | { do: 'leave'; why: string }
  | { do: 'measure again'; why: string }
  /** So much is taken off the size, mm. */
  | { do: 'correct'; by: number; why: string };

/** Shares of half the tolerance at which it is corrected at once, and where two in a row are. */
const AT_ONCE = 0.9;
const TWICE = 0.5;
/** So many in a row on one side are no chance. */
const IN_A_ROW = 7;
/** Of what it is off, so much is corrected: a part of it is chance. */
const TAKEN = 0.7;
/** Less than this is below what is measured, mm. */
const LEAST = 0.002;
/** A jump of so many deviations is a chip under the part, until it was measured twice. */
const JUMP = 4;

const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
const onOneSide = (values: number[]) => values.every((v) => v > 0) || values.every((v) => v < 0);

/** Parts since the last correction or new edge. */
function sinceFresh(parts: readonly SizedPart[]): SizedPart[] {
  const at = parts.findLastIndex((p) => p.fresh);
  return parts.slice(Math.max(0, at));
}

/** What is done, where it is enough to be done. */
function correct(values: number[], step: number, why: string): OffsetAdvice {
  const by = TAKEN * mean(values);
  const whole = Math.round(by / step) * step;
  if (Math.abs(whole) < Math.max(LEAST, step))
    return { do: 'leave', why: 'less than the register or the gauge can tell' };
  return { do: 'correct', by: whole, why };
}

/**
 * What to do after the last part that was measured.
 * @param half half the tolerance, mm
 * @param deviation how much sizes vary by chance, mm; 0 where that is not known yet
 * @param step smallest step of the register, mm
 */
export function adviseOffset(
  parts: readonly SizedPart[],
  { half, deviation = 0, step = 0.001 }: { half: number; deviation?: number; step?: number },
): OffsetAdvice {
  const since = sinceFresh(parts);
  const last = since.at(-1);
  if (!last) return { do: 'leave', why: 'nothing was measured yet' };
  const before = since.at(-2);
  const jumped = before && deviation > 0 && Math.abs(last.off - before.off) > JUMP * deviation && !last.again;
  if (jumped) return { do: 'measure again', why: 'it jumped: a chip may lie under the part' };
  if (Math.abs(last.off) > AT_ONCE * half) {
    if (!last.again) return { do: 'measure again', why: 'it is at its limit' };
    return correct([last.off], step, 'it is at its limit, measured twice');
  }
  const two = since.slice(-2).map((p) => p.off);
  if (two.length === 2 && onOneSide(two) && two.every((v) => Math.abs(v) > TWICE * half))
    return correct(two, step, 'two in a row are more than half way to the same limit');
  const row = since.slice(-IN_A_ROW).map((p) => p.off);
  if (row.length === IN_A_ROW && onOneSide(row)) return correct(row, step, `${IN_A_ROW} in a row lie on the same side`);
  return { do: 'leave', why: 'within what chance does' };
}
