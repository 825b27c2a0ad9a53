import { Range } from '../shop/material';

/** Boldness 0 to 1: a first cut on an unknown machine, settled, pushing. */
export const BOLDNESS = { first: 0, settled: 0.5, pushing: 1 } as const;

/** Boldness at which a range's careful end is reached; below it one starts under the sheet. */
const SHEET = 0.3;
/** Share of the careful end that a first cut on an unknown machine starts at. */
const BELOW = 0.7;

/** How firmly the work is held. */
export const GRIPS = ['poor', 'fair', 'firm'] as const;
export type WorkGrip = (typeof GRIPS)[number];

/** How far the grip of the work moves a suggestion along its range: firm work takes the middle of a sheet's range when settled. */
const BY_GRIP: Record<WorkGrip, number> = { poor: -0.2, fair: 0, firm: 0.15 };

/** Place in a range for a boldness and a grip of the work, 0 to 1. */
export const placeInRange = (boldness: number, grip: WorkGrip = 'fair') =>
  Math.min(1, Math.max(0, boldness + BY_GRIP[grip]));

/** The words for a boldness. */
export const boldnessWord = (b: number) =>
  b < 0.15
    ? 'first cut on an unknown machine'
    : b < 0.4
      ? 'careful'
      : b <= 0.6
        ? 'settled'
        : b < 0.9
          ? 'brisk'
          : 'pushing';

/**
 * A value of a range at a boldness of 0 to 1: 0.7 of its careful end at 0, the careful end at 0.3, its bold end at 1; never beyond.
 * Ranges on makers’ sheets span three to one, so a start below them is safe and one works up.
 */
export function inRange({ from, to }: Range, boldness: number): number {
  const b = Math.min(1, Math.max(0, boldness));
  return b < SHEET ? from * (BELOW + ((1 - BELOW) * b) / SHEET) : from + ((to - from) * (b - SHEET)) / (1 - SHEET);
}

/** The shop's own value at a boldness: itself when settled, 0.7 of it for a first cut, 1.1 of it when pushing. */
export const ownAt = (value: number, boldness: number) =>
  value * (boldness < 0.5 ? BELOW + (1 - BELOW) * 2 * boldness : 1 + 0.2 * (boldness - 0.5));
