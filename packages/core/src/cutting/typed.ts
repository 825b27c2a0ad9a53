import { LengthUnit, MM_PER_INCH, formatFeed, formatNumber, formatSurfaceSpeed, formatThin } from '../quantity/units';
import { spindleSpeed, surfaceSpeed } from './milling';

export type Typed = { ok: true; value: number } | { ok: false; why: string };

/** A cutter as far as typing a speed or a feed needs it: mm, edges, and the speed it turns at. */
export interface Turning {
  diameter: number;
  flutes: number;
  rpm: number;
}

const MM_PER_FOOT = 0.3048;
const NUMBER = String.raw`(\d+(?:[.,]\d*)?|[.,]\d+)`;
const SPEED = new RegExp(String.raw`^${NUMBER}\s*(rpm|r/min|1/min|m/min|ft/min)?$`, 'i');
const FEED = new RegExp(String.raw`^${NUMBER}\s*(mm|in|")?\s*(?:(?:/|a|per)\s*(min|minute|turn|rev|tooth|z))?$`, 'i');

const toNumber = (text: string) => Number(text.replace(',', '.'));
const clean = (text: string) => text.trim().replace(/[\u2009\u202f\u00a0]/g, '');

/**
 * Reads a spindle speed as people say it: `6000`, `6000 rpm`, `190 m/min`, `620 ft/min`.
 * @param diameter that cuts, mm
 * @returns rpm, or why it cannot be read
 */
export function parseSpeed(text: string, diameter: number): Typed {
  const read = SPEED.exec(clean(text));
  if (!read) return { ok: false, why: 'write 6000, 190 m/min or 620 ft/min' };
  const value = toNumber(read[1]);
  const unit = (read[2] ?? 'rpm').toLowerCase();
  if (unit === 'm/min') return { ok: true, value: Math.round(spindleSpeed(value, diameter)) };
  if (unit === 'ft/min') return { ok: true, value: Math.round(spindleSpeed(value * MM_PER_FOOT, diameter)) };
  return { ok: true, value: Math.round(value) };
}

/**
 * Reads a feed as people say it: `900`, `900 mm/min`, `0.15 a turn`, `0.05 / tooth`, `.002 in/tooth`. Bare numbers are in the job's
 * unit a minute.
 * @returns mm/min, or why it cannot be read
 */
export function parseFeed(text: string, unit: LengthUnit, { flutes, rpm }: Turning): Typed {
  const read = FEED.exec(clean(text));
  if (!read) return { ok: false, why: 'write 900, 0.15 a turn or 0.05 a tooth' };
  const scale = (read[2] ? read[2].toLowerCase() !== 'mm' : unit === 'inch') ? MM_PER_INCH : 1;
  const per = (read[3] ?? 'min').toLowerCase();
  const times = per.startsWith('min') ? 1 : per === 'turn' || per === 'rev' ? rpm : rpm * flutes;
  return { ok: true, value: toNumber(read[1]) * scale * times };
}

/** A spindle speed in its other form: "190 m/min". */
export const speedForms = ({ diameter, rpm }: Turning, unit: LengthUnit) =>
  `${formatNumber(rpm, 0)} rpm = ${formatSurfaceSpeed(surfaceSpeed(rpm, diameter), unit)}`;

/** A feed in its three forms: "900 mm/min = 0.15 mm a turn = 0.05 mm a tooth". */
export function feedForms(feed: number, { flutes, rpm }: Turning, unit: LengthUnit): string {
  const minute = formatFeed(feed, unit);
  if (!(rpm > 0)) return minute;
  const turn = `${formatThin(feed / rpm, unit)} a turn`;
  return flutes > 1 ? `${minute} = ${turn} = ${formatThin(feed / rpm / flutes, unit)} a tooth` : `${minute} = ${turn}`;
}
