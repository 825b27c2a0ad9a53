import { Vec3 } from '../geometry/space/vec3';
import { Bite, Cutter } from '../stock/height/sweep';
import type { Stock } from '../stock/stock';

/** Looks on while a cutter is driven through a stock. */
export interface Observer {
  /** Whether a chord is of no interest: then it is passed by, not cut. */
  passesBy?(from: Vec3, to: Vec3): boolean;
  /** Told what each chord took, and where the tip then stands. */
  bite?(bite: Bite, at: Vec3): void;
}

/**
 * The one loop of simulation: drives a cutter through a stock, chord by chord.
 * @param chords how many, 1 or more
 * @param place where the tip stands after so many of them; its start at 0
 */
export function drive(
  stock: Stock,
  cutter: Cutter,
  mark: number,
  chords: number,
  place: (k: number) => Vec3,
  observer: Observer = {},
): void {
  let from = place(0);
  for (let k = 1; k <= chords; k++) {
    const to = place(k);
    if (!observer.passesBy?.(from, to)) {
      const bite = stock.cut(cutter, from, to, mark);
      observer.bite?.(bite, to);
    }
    from = to;
  }
}
