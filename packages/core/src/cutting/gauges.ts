import { LengthUnit, MM_PER_INCH, degrees, formatNumber } from '../quantity/units';
import { formOf, isAxial } from '../shop/tool';
import { CutInput, atPeak, boldestChip, cutState, thinnestChip } from './cut';
import { GRIP_SHARE, POWER_SHARE, bendLimit } from './limits';

/** One quantity against its limits; `value`, `low` and `high` share a unit. */
export interface Gauge {
  id: 'chip' | 'engagement' | 'load' | 'deflection' | 'grip';
  label: string;
  value: number;
  text: string;
  low: number;
  high: number;
  /** Full scale of the drawing. */
  scale: number;
  state: 'under' | 'good' | 'over';
}

/** Chips and bending are small: thousandths of a mm, ten-thousandths of an inch. */
export const thin = (mm: number, unit: LengthUnit) =>
  unit === 'mm' ? `${formatNumber(mm, 3)} mm` : `${formatNumber(mm / MM_PER_INCH, 4)} in`;

const percent = (share: number) => `${formatNumber(share * 100, 0)} %`;

const stateOf = (value: number, low: number, high: number): Gauge['state'] =>
  value > high * 1.0001 ? 'over' : value < low * 0.9999 ? 'under' : 'good';

function gauge(id: Gauge['id'], label: string, value: number, text: string, low: number, high: number): Gauge {
  return { id, label, value, text, low, high, scale: Math.max(high * 1.5, low), state: stateOf(value, low, high) };
}

/** The gauges under an operation's sentence: chip and engagement on straights; spindle, bending and grip at their worst. */
export function gaugesOf(input: CutInput, unit: LengthUnit = 'mm'): Gauge[] {
  const state = cutState(input);
  const peak = cutState(atPeak(input));
  const { tool, material } = input;
  const thinnest = thinnestChip(tool, material);
  const boldest = Math.max(boldestChip(tool, material), thinnest, ownChip(input));
  const chip = gauge('chip', 'Chip', state.largestChip, thin(state.largestChip, unit), thinnest, boldest);
  const load = peak.powerAvailable > 0 ? peak.power / peak.powerAvailable : 0;
  const spindle = gauge('load', 'Spindle', load, percent(load), 0, POWER_SHARE);
  const grip = gauge('grip', 'Grip', peak.grip, percent(peak.grip), 0, GRIP_SHARE);
  // What a tap or a reamer takes off is set by the hole it is given, not by its chip.
  if (['tap', 'bore'].includes(formOf(tool))) return [spindle, grip];
  if (isAxial(tool)) return [chip, spindle, grip];
  const angle = degrees(state.engagement);
  return [
    chip,
    gauge('engagement', 'Engaged', angle, `${formatNumber(angle, 0)}°`, 0, 180),
    spindle,
    gauge('deflection', 'Bends', peak.deflection, thin(peak.deflection, unit), 0, bendLimit(input).most),
    grip,
  ];
}

const ownChip = ({ tool, material }: CutInput) =>
  (tool.ownData.find((d) => d.materialId === material.id)?.chip ?? 0) * 1.1;
