/**
 * Functions whose last digit engines of the language are free to choose, from sums, products and square roots alone, whose digits are
 * fixed (IEEE 754): the same job is the same program everywhere. Angles in rad; undefined places give NaN as in `Math`.
 */
import acos from '@stdlib/math-base-special-acos';
import asin from '@stdlib/math-base-special-asin';
import atan from '@stdlib/math-base-special-atan';
import atan2 from '@stdlib/math-base-special-atan2';
import cos from '@stdlib/math-base-special-cos';
import log from '@stdlib/math-base-special-ln';
import raised from '@stdlib/math-base-special-pow';
import sin from '@stdlib/math-base-special-sin';
import tan from '@stdlib/math-base-special-tan';

export const maths = {
  acos,
  asin,
  atan,
  atan2,
  cos,
  /** Length of a vector; several times as fast as the engines’, which guard against overflow nobody meets here. */
  hypot: (x: number, y: number, z = 0): number => Math.sqrt(x * x + y * y + z * z),
  /** Natural logarithm. */
  log,
  /** Small whole powers as products. */
  pow: (x: number, n: number): number => {
    if (n === 2) return x * x;
    if (n === 3) return x * x * x;
    return n === 4 ? x * x * (x * x) : raised(x, n);
  },
  sin,
  tan,
};
