import { formatNumber } from '../quantity/units';

/** Where an input of a working can be changed. */
export type InputPlace = 'tool' | 'holder' | 'material' | 'machine' | 'bite' | 'layer' | 'boldness' | 'asked';

/** One step of the arithmetic behind a suggested number. */
export interface Working {
  /** The number it leads to. */
  of: 'rpm' | 'feed' | 'entryFeed';
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

/** Rounds down to a step that suits the size of a feed or speed, so that no limit is passed by rounding. */
export function roundDown(value: number): number {
  const step = value >= 1000 ? 10 : value >= 100 ? 5 : value >= 10 ? 0.5 : 0.01;
  return Math.round(Math.floor(value / step + 1e-9) * step * 100) / 100;
}
