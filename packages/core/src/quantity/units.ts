import { maths } from './maths';
export type LengthUnit = 'mm' | 'inch';

export const MM_PER_INCH = 25.4;

const THIN_SPACE = '\u202f';

/** Groups thousands with a thin space that no line ends at: 9500 -> "9 500". */
export function group(text: string): string {
  const [whole, rest] = text.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, THIN_SPACE);
  return rest === undefined ? grouped : `${grouped}.${rest}`;
}

/** A number with at most `digits` decimals, trailing zeros dropped, thousands grouped, never "-0". */
export function formatNumber(value: number, digits: number): string {
  const fixed = value.toFixed(digits);
  const trimmed = fixed.includes('.') ? fixed.replace(/\.?0+$/, '') : fixed;
  return group(trimmed === '-0' ? '0' : trimmed);
}

/** mm -> the number shown in a unit system (3 decimals in mm, 4 in inch). */
export function lengthNumber(mm: number, unit: LengthUnit): string {
  return unit === 'mm' ? formatNumber(mm, 3) : formatNumber(mm / MM_PER_INCH, 4);
}

/** mm -> text with its unit, "12 mm" or "0.5 in". */
export function formatLength(mm: number, unit: LengthUnit): string {
  return `${lengthNumber(mm, unit)} ${unit === 'mm' ? 'mm' : 'in'}`;
}

/** mm² -> the number shown for a surface, "350 mm²" or "0.543 in²". */
export function formatArea(mm2: number, unit: LengthUnit): string {
  return unit === 'mm'
    ? `${formatNumber(mm2, mm2 < 10 ? 2 : 0)} mm²`
    : `${formatNumber(mm2 / (MM_PER_INCH * MM_PER_INCH), 3)} in²`;
}

/** mm³ -> the number shown for a volume of metal, "12.5 cm³" or "0.763 in³"; small ones in mm³ where `small`. */
export function formatVolume(mm3: number, unit: LengthUnit, small = false): string {
  if (unit === 'inch') return `${formatNumber(mm3 / maths.pow(MM_PER_INCH, 3), small ? 5 : 3)} in³`;
  return small ? `${formatNumber(mm3, 1)} mm³` : `${formatNumber(mm3 / 1000, 2)} cm³`;
}

/** mm -> a small length with its unit, "0.012 mm" or "0.0005 in". */
export const formatThin = (mm: number, unit: LengthUnit, digits = 3): string =>
  unit === 'mm' ? `${formatNumber(mm, digits)} mm` : `${formatNumber(mm / MM_PER_INCH, digits + 1)} in`;

/** mm/min -> text with its unit: "950 mm/min" or "37.4 in/min". */
export function formatFeed(mmPerMin: number, unit: LengthUnit): string {
  return unit === 'mm' ? `${formatNumber(mmPerMin, 0)} mm/min` : `${formatNumber(mmPerMin / MM_PER_INCH, 1)} in/min`;
}

/** m/min -> text: "200 m/min" or "656 ft/min". */
export function formatSurfaceSpeed(mPerMin: number, unit: LengthUnit): string {
  return unit === 'mm' ? `${formatNumber(mPerMin, 0)} m/min` : `${formatNumber(mPerMin / 0.3048, 0)} ft/min`;
}

/** minutes -> "4:12" or "1:02:05". */
export function formatTime(minutes: number): string {
  const total = Math.round(minutes * 60);
  const h = Math.floor(total / 3600);
  const m = Math.floor((total % 3600) / 60);
  const s = String(total % 60).padStart(2, '0');
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`;
}

export const radians = (degrees: number) => (degrees * Math.PI) / 180;
export const degrees = (radians: number) => (radians * 180) / Math.PI;
