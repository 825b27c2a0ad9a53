import { Measure, Samples, WrongKind, formatNumber } from '@tidypath/core';
import type { ProofView } from '../../compute/messages';

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

const WRONG: Record<WrongKind, string> = {
  cut: 'cut into the part',
  missing: 'missing from the stock',
  left: 'left',
};

/** How a place is not as wanted. */
export const offText = (by: number, kind: WrongKind) => `${formatNumber(Math.abs(by), 2)} mm ${WRONG[kind]}`;

/** How fine a proof's grid is, and where it is finer. */
export const gridText = ({ cell, finest }: ProofView['grid']) =>
  `${formatNumber(cell, 3)} mm${finest < cell ? `, ${formatNumber(finest, 3)} mm at walls and narrow cuts` : ''}`;
