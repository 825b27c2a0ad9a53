import { LengthUnit, MM_PER_INCH, degrees, formatNumber } from '../quantity/units';
import { isDrill } from '../shop/tool';
import { CutInput, RUBBING, atPeak, cutState } from './cut';

/** One quantity against its limits; `value`, `low` and `high` share a unit. */
export interface Gauge {
  id: 'chip' | 'engagement' | 'load' | 'deflection';
  label: string;
  value: number;
  text: string;
  low: number;
  high: number;
  /** Full scale of the drawing. */
  scale: number;
  state: 'under' | 'good' | 'over';
}

/** Share of the spindle's power a steady cut may take. */
export const POWER_SHARE = 0.8;
/** Tip deflection a roughing cut may have, mm. */
export const DEFLECTION_LIMIT = 0.05;

/** Chips and bending are small: thousandths of a mm, ten-thousandths of an inch. */
const thin = (mm: number, unit: LengthUnit) =>
  unit === 'mm' ? `${formatNumber(mm, 3)} mm` : `${formatNumber(mm / MM_PER_INCH, 4)} in`;

const stateOf = (value: number, low: number, high: number): Gauge['state'] =>
  value > high * 1.0001 ? 'over' : value < low * 0.9999 ? 'under' : 'good';

function gauge(id: Gauge['id'], label: string, value: number, text: string, low: number, high: number): Gauge {
  return { id, label, value, text, low, high, scale: Math.max(high * 1.5, low), state: stateOf(value, low, high) };
}

/** The gauges under an operation's sentence: chip and engagement on straights; spindle load and bending at their worst. */
export function gaugesOf(input: CutInput, unit: LengthUnit = 'mm'): Gauge[] {
  const state = cutState(input);
  const peak = cutState(atPeak(input));
  const { tool, material } = input;
  const drill = isDrill(tool);
  const share = drill ? material.drillShare : material.chipShare;
  const perTooth = drill ? tool.flutes : 1;
  const boldest = ((share.to / 100) * tool.diameter) / perTooth;
  const chip = gauge(
    'chip',
    'Chip',
    state.largestChip,
    thin(state.largestChip, unit),
    Math.min(RUBBING, boldest),
    Math.max(boldest, RUBBING),
  );
  const load = peak.powerAvailable > 0 ? peak.power / peak.powerAvailable : 0;
  const spindle = gauge('load', 'Spindle', load, `${formatNumber(load * 100, 0)} %`, 0, POWER_SHARE);
  if (drill) return [chip, spindle];
  const angle = degrees(state.engagement);
  return [
    chip,
    gauge('engagement', 'Engaged', angle, `${formatNumber(angle, 0)}°`, 0, 180),
    spindle,
    gauge('deflection', 'Bends', peak.deflection, thin(peak.deflection, unit), 0, DEFLECTION_LIMIT),
  ];
}
