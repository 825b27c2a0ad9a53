import {
  LengthUnit,
  Measure,
  Samples,
  WrongKind,
  formatNumber,
  formatThin,
  formatVolume,
  ProofView,
} from '@tidypath/core';

/** How each measure of the load is named and written. */
export const MEASURE_INFO: Record<Measure, { label: string; text: (v: number, unit: LengthUnit) => string }> = {
  rate: { label: 'Metal', text: (v, unit) => `${formatVolume(v * 60, unit)}/min` },
  engagement: { label: 'Bite', text: (v) => `${formatNumber(v, 0)}°` },
  chip: { label: 'Chip', text: (v, unit) => formatThin(v, unit) },
  load: { label: 'Spindle', text: (v) => `${formatNumber(v * 100, 0)} %` },
  force: { label: 'Side force', text: (v) => `${formatNumber(v, 0)} N` },
  bend: { label: 'Bending', text: (v, unit) => formatThin(v, unit) },
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
export const offText = (by: number, kind: WrongKind, unit: LengthUnit) =>
  `${formatThin(Math.abs(by), unit, 2)} ${WRONG[kind]}`;

/** How fine a proof's grid is, and where it is finer. */
export const gridText = ({ cell, finest }: ProofView['grid'], unit: LengthUnit) =>
  `${formatThin(cell, unit)}${finest < cell ? `, ${formatThin(finest, unit)} at walls and narrow cuts` : ''}`;
