import { Measure, Samples, formatNumber } from '@tidypath/core';

/** How each measure of the load is named and written. */
export const MEASURE_INFO: Record<Measure, { label: string; text: (v: number) => string }> = {
  rate: { label: 'Metal', text: (v) => `${formatNumber((v * 60) / 1000, 1)} cm³/min` },
  engagement: { label: 'Bite', text: (v) => `${formatNumber(v, 0)}°` },
  chip: { label: 'Chip', text: (v) => `${formatNumber(v, 3)} mm` },
  load: { label: 'Spindle', text: (v) => `${formatNumber(v * 100, 0)} %` },
  force: { label: 'Side force', text: (v) => `${formatNumber(v, 0)} N` },
  bend: { label: 'Bending', text: (v) => `${formatNumber(v, 3)} mm` },
};

/** The greatest value of a measure; of several programs, of all of them. */
export const highestOf = (measure: Measure, ...programs: Samples[]) =>
  programs.reduce((most, s) => s[measure].reduce((a, b) => (b > a ? b : a), most), 0);

/** How far a place is off, above 0 left, below 0 cut into. */
export const offText = (by: number) =>
  by > 0 ? `${formatNumber(by, 2)} mm left` : `${formatNumber(-by, 2)} mm cut into the part`;
