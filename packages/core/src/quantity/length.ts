import { NUMBER_DRILLS } from './drill-sizes';
import { LengthUnit, MM_PER_INCH } from './units';
import { maths } from './maths';

export type ParsedLength = { ok: true; mm: number } | { ok: false; why: string };

/** No machine in this trade is larger; a longer length is a slip of the finger. */
export const ABSURD_MM = 20_000;

const NUMBER = String.raw`(?:\d+(?:[.,]\d*)?|[.,]\d+)`;
const UNIT = String.raw`(?:mm|cm|m|in|inch|"|''|thou)`;
const MIXED = new RegExp(String.raw`^(\d+)[- ](\d+)\/(\d+)\s*(${UNIT})?`, 'i');
const FRACTION = new RegExp(String.raw`^(\d+)\/(\d+)\s*(${UNIT})?`, 'i');
const DRILL = /^#\s*(\d{1,3})/;
const SHARE = new RegExp(String.raw`^(${NUMBER})\s*%`);
const DEGREES = new RegExp(String.raw`^(${NUMBER})\s*°`);
const PLAIN = new RegExp(String.raw`^(${NUMBER})\s*(${UNIT})?`, 'i');

const MM_PER: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  '"': MM_PER_INCH,
  "''": MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
};

const toNumber = (text: string) => Number(text.replace(',', '.'));

type Term = { mm: number; length: number } | { why: string };

function fraction(whole: number, top: string, bottom: string, unit: string | undefined, length: number): Term {
  if (Number(bottom) === 0) return { why: `a fraction cannot be over zero` };
  const value = whole + Number(top) / Number(bottom);
  return { mm: value * (unit ? MM_PER[unit.toLowerCase()] : MM_PER_INCH), length };
}

function term(text: string, unit: LengthUnit, shareOf?: number): Term {
  const drill = DRILL.exec(text);
  if (drill) {
    const inch = NUMBER_DRILLS[Number(drill[1]) - 1];
    return inch === undefined
      ? { why: `there is no number drill #${drill[1]}; they run from #1 to #80` }
      : { mm: inch * MM_PER_INCH, length: drill[0].length };
  }
  const mixed = MIXED.exec(text);
  if (mixed) return fraction(Number(mixed[1]), mixed[2], mixed[3], mixed[4], mixed[0].length);
  const fractional = FRACTION.exec(text);
  if (fractional) return fraction(0, fractional[1], fractional[2], fractional[3], fractional[0].length);
  const share = SHARE.exec(text);
  if (share) {
    return shareOf === undefined
      ? { why: 'a percentage has nothing to be a share of here; give a length' }
      : { mm: (toNumber(share[1]) / 100) * shareOf, length: share[0].length };
  }
  const angle = DEGREES.exec(text);
  if (angle) {
    const degrees = toNumber(angle[1]);
    if (shareOf === undefined) return { why: 'an angle has no meaning here; give a length' };
    if (degrees > 180) return { why: 'a cutter is engaged by 180° at most' };
    return { mm: ((1 - maths.cos((degrees * Math.PI) / 180)) * shareOf) / 2, length: angle[0].length };
  }
  const plain = PLAIN.exec(text);
  if (plain) {
    const factor = plain[2] ? MM_PER[plain[2].toLowerCase()] : unit === 'mm' ? 1 : MM_PER_INCH;
    return { mm: toNumber(plain[1]) * factor, length: plain[0].length };
  }
  return { why: `"${text.slice(0, 12)}" is not a length; write 12, 12mm, 5/16, .3125in, 1-5/8, 10+0.2 or #21` };
}

/**
 * Reads a length as people in the shop write it: `12`, `12mm`, `.3125in`, `5/16`, `1-5/8`, `10+0.2`, `#21`, and `40%`
 * or an engaged angle of `60°` where a share of a diameter makes sense. A bare number is in the job's unit; a bare fraction and a number drill are always inches.
 * @param text what was typed
 * @param unit the job's unit
 * @param shareOf mm that 100 % stands for, and a bite of 180°, where a share is allowed
 * @returns the length in mm, or why it cannot be read
 */
export function parseLength(text: string, unit: LengthUnit, shareOf?: number): ParsedLength {
  let rest = text.trim().replace(/[\u2009\u202f\u00a0]/g, '');
  if (rest === '') return { ok: false, why: 'a length is needed here' };
  let mm = 0;
  let sign = 1;
  if (/^[+-]/.test(rest)) {
    sign = rest[0] === '-' ? -1 : 1;
    rest = rest.slice(1).trimStart();
  }
  for (;;) {
    const next = term(rest, unit, shareOf);
    if ('why' in next) return { ok: false, why: next.why };
    mm += sign * next.mm;
    rest = rest.slice(next.length).trimStart();
    if (rest === '') break;
    if (rest[0] !== '+' && rest[0] !== '-') return { ok: false, why: `"${rest.slice(0, 12)}" is left over` };
    sign = rest[0] === '-' ? -1 : 1;
    rest = rest.slice(1).trimStart();
  }
  if (!Number.isFinite(mm) || Math.abs(mm) > ABSURD_MM) {
    return { ok: false, why: `that is more than ${ABSURD_MM / 1000} m; check the unit` };
  }
  return { ok: true, mm };
}
