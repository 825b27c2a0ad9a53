import { LengthUnit, MM_PER_INCH, formatNumber } from '../units';
import type { Spot } from './words';
import { maths } from '../maths';

/** Puts measures into the words of a unit; all take mm, mm², mm³ or mm/min and at most so many decimals in metric. */
export interface Say {
  number(value: number, digits: number): string;
  mm(length: number, digits: number): string;
  /** A length or feed without its unit, where that follows. */
  bare(length: number, digits: number): string;
  area(area: number, digits: number): string;
  volume(volume: number, digits: number): string;
  feed(feed: number, digits: number): string;
  /** "X 12 Y 3.5", and Z where it is given. */
  at(spot: Spot, digits?: number): string;
}

/** Inches want so many decimals more for the same fineness, by the power of the length in them. */
const MORE_DIGITS = [0, 2, 3, 5];

/** Speaks of measures in a unit. */
export function sayIn(unit: LengthUnit): Say {
  const isMetric = unit === 'mm';
  const measure = (value: number, digits: number, power: number) =>
    isMetric
      ? formatNumber(value, digits)
      : formatNumber(
          value / maths.pow(MM_PER_INCH, power),
          digits === 0 && power === 1 ? 1 : digits + MORE_DIGITS[power],
        );
  const name = isMetric ? 'mm' : 'in';
  return {
    number: formatNumber,
    bare: (length, digits) => measure(length, digits, 1),
    mm: (length, digits) => `${measure(length, digits, 1)} ${name}`,
    area: (area, digits) => `${measure(area, digits, 2)} ${name}²`,
    volume: (volume, digits) => `${measure(volume, digits, 3)} ${name}³`,
    feed: (feed, digits) => `${measure(feed, digits, 1)} ${name}/min`,
    at: ({ x, y, z }, digits = 2) =>
      [...Object.entries({ X: x, Y: y, Z: z })]
        .filter((entry): entry is [string, number] => entry[1] !== undefined)
        .map(([axis, value]) => `${axis} ${measure(value, digits, 1)}`)
        .join(' '),
  };
}
