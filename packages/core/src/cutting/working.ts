import { LengthUnit, MM_PER_INCH, formatNumber } from '../quantity/units';

/** Where an input of a working can be changed. */
export type InputPlace =
  'tool' | 'holder' | 'material' | 'machine' | 'bite' | 'layer' | 'coolant' | 'boldness' | 'asked';

/** One step of the arithmetic behind a suggested number. */
export interface Working {
  /** The number it leads to. */
  of: 'rpm' | 'feed' | 'entryFeed' | 'bite' | 'layer';
  what: string;
  formula: string;
  result: string;
  source: string;
  inputs: { name: string; text: string; at: InputPlace }[];
}

export const TEXTBOOK = 'Textbook relation';

export const n0 = (v: number) => formatNumber(v, 0);
export const n1 = (v: number) => formatNumber(v, 1);
export const n2 = (v: number) => formatNumber(v, 2);
export const n3 = (v: number) => formatNumber(v, 3);

/** Steps of a feed in inches a minute. */
const INCH_STEP = 0.1 * MM_PER_INCH;

/** Rounds a feed (mm/min) down to a step that suits its size and unit, so that no limit is passed by rounding. */
export function roundDown(value: number, unit: LengthUnit = 'mm'): number {
  if (unit === 'inch' && value >= 10 * INCH_STEP)
    return Math.round(Math.floor(value / INCH_STEP + 1e-9) * INCH_STEP * 1e4) / 1e4;
  const step = value >= 1000 ? 10 : value >= 100 ? 5 : value >= 10 ? 0.5 : 0.01;
  return Math.round(Math.floor(value / step + 1e-9) * step * 100) / 100;
}
