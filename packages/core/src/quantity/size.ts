import { KNOWN_FITS, Limits, fitLimits } from './fits';
import { parseLength } from './length';
import { LengthUnit, MM_PER_INCH, formatLength, formatNumber, lengthNumber } from './units';

/** A size with what it may be off by: its nominal value, and limits or a fit where some were given. */
export interface Size {
  mm: number;
  limits?: Limits & { fit?: string };
}

export type ParsedSize = ({ ok: true } & Size) | { ok: false; why: string };

const NUMBER = String.raw`\d*[.,]?\d+`;
const EVEN = new RegExp(String.raw`^(.*?)\s*(?:±|\+\/-|\+-)\s*(${NUMBER})$`);
const PAIR = new RegExp(String.raw`^(.*?)\s*([+-]${NUMBER}|\s0)\s*\/\s*([+-]${NUMBER}|0)$`);
const FIT = /^(.*?)\s*([A-Z]{1,2}|[a-z]{1,2})(\d{1,2})$/;

const offset = (text: string, unit: LengthUnit) =>
  Number(text.trim().replace(',', '.')) * (unit === 'mm' ? 1 : MM_PER_INCH);

/**
 * Reads a size as drawings give it: `12`, `12 H7`, `12 ±0.05`, `12 +0.02/0`, `0.5 +.001/-.0005`.
 * Whatever stands before the limits is read as any length is.
 */
export function parseSize(text: string, unit: LengthUnit): ParsedSize {
  const trimmed = text.trim();
  const even = EVEN.exec(trimmed);
  const pair = even ? null : PAIR.exec(trimmed);
  const fit = even || pair ? null : FIT.exec(trimmed);
  const nominal = parseLength((even ?? pair ?? fit)?.[1] || trimmed, unit);
  if (!nominal.ok) return nominal;
  const { mm } = nominal;
  if (even) {
    const by = offset(even[2], unit);
    return { ok: true, mm, limits: { upper: by, lower: -by } };
  }
  if (pair) {
    const [upper, lower] = [offset(pair[2], unit), offset(pair[3], unit)];
    if (upper < lower)
      return { ok: false, why: `the upper limit, ${pair[2].trim()}, lies below the lower, ${pair[3]}` };
    return { ok: true, mm, limits: { upper, lower } };
  }
  if (fit) {
    const limits = fitLimits(mm, fit[2] + fit[3]);
    if (!limits) return { ok: false, why: `“${fit[2]}${fit[3]}” is no fit the table has: ${KNOWN_FITS}, up to 500 mm` };
    return { ok: true, mm, limits: { ...limits, fit: fit[2] + fit[3] } };
  }
  return { ok: true, mm };
}

/** Finer than lengths are written: limits are often microns. */
function signed(mm: number, unit: LengthUnit): string {
  const text = unit === 'mm' ? formatNumber(mm, 4) : formatNumber(mm / MM_PER_INCH, 5);
  return mm > 0 ? `+${text}` : text;
}

/** Limits as they are typed: `H7`, `±0.05`, `+0.02/0`. */
export function limitsText({ upper, lower, fit }: NonNullable<Size['limits']>, unit: LengthUnit): string {
  if (fit) return fit;
  if (upper === -lower) return `±${signed(upper, unit).replace('+', '')}`;
  return `${signed(upper, unit)}/${signed(lower, unit)}`;
}

/** A size as it is typed: `12 H7`, `12 +0.02/0`. */
export const sizeText = ({ mm, limits }: Size, unit: LengthUnit): string =>
  `${lengthNumber(mm, unit).replace(/\u202f/g, '')}${limits ? ` ${limitsText(limits, unit)}` : ''}`;

/** What a size may measure, in words: `12 to 12.018 mm`. */
export const rangeText = ({ mm, limits }: Size, unit: LengthUnit): string =>
  limits
    ? `${formatNumber((mm + limits.lower) / (unit === 'mm' ? 1 : MM_PER_INCH), unit === 'mm' ? 4 : 5)} to ${formatNumber((mm + limits.upper) / (unit === 'mm' ? 1 : MM_PER_INCH), unit === 'mm' ? 4 : 5)} ${unit === 'mm' ? 'mm' : 'in'}`
    : formatLength(mm, unit);
