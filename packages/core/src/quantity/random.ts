/** Random figures that a seed repeats. */
import { maths } from './maths';

/** Figures from 0 to below 1, evenly spread, the same for the same seed: a 32-bit counter, mixed. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Figures spread normally about 0, with deviation 1. */
export const normalFrom = (random: () => number) => (): number =>
  Math.sqrt(-2 * maths.log(1 - random())) * maths.cos(2 * Math.PI * random());
