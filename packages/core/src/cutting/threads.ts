import { MM_PER_INCH } from '../quantity/units';
import { maths } from '../quantity/maths';

export type ThreadSeries = 'ISO coarse' | 'ISO fine' | 'UNC' | 'UNF' | 'BSP parallel' | 'custom';

/** A thread by its size; mm. `form` is the included angle of its profile, degrees. */
export interface Thread {
  name: string;
  series: ThreadSeries;
  major: number;
  pitch: number;
  form: 60 | 55;
}

const iso = (series: ThreadSeries, rows: [number, ...number[]][]): Thread[] =>
  rows.flatMap(([major, ...pitches]) =>
    pitches.map((pitch) => ({
      name: series === 'ISO coarse' ? `M${major}` : `M${major}x${pitch}`,
      series,
      major,
      pitch,
      form: 60 as const,
    })),
  );

/** ISO 261 coarse: major, pitch. */
const COARSE = iso('ISO coarse', [
  [1.6, 0.35],
  [2, 0.4],
  [2.5, 0.45],
  [3, 0.5],
  [4, 0.7],
  [5, 0.8],
  [6, 1],
  [8, 1.25],
  [10, 1.5],
  [12, 1.75],
  [14, 2],
  [16, 2],
  [18, 2.5],
  [20, 2.5],
  [22, 2.5],
  [24, 3],
  [27, 3],
  [30, 3.5],
  [33, 3.5],
  [36, 4],
  [42, 4.5],
  [48, 5],
]);

/** ISO 261 fine, the pitches in daily use. */
const FINE = iso('ISO fine', [
  [3, 0.35],
  [4, 0.5],
  [5, 0.5],
  [6, 0.75],
  [8, 1, 0.75],
  [10, 1.25, 1],
  [12, 1.5, 1.25, 1],
  [14, 1.5, 1],
  [16, 1.5, 1],
  [18, 1.5, 1],
  [20, 2, 1.5, 1],
  [22, 1.5, 1],
  [24, 2, 1.5, 1],
  [27, 2, 1.5],
  [30, 2, 1.5, 1],
  [33, 2, 1.5],
  [36, 3, 2, 1.5],
  [42, 3, 2, 1.5, 1],
  [48, 3, 2, 1.5],
]);

type InchRow = [name: string, majorInch: number, tpi: number];

const inch = (series: ThreadSeries, rows: InchRow[]): Thread[] =>
  rows.map(([name, major, tpi]) => ({
    name: `${name}-${tpi}`,
    series,
    major: major * MM_PER_INCH,
    pitch: MM_PER_INCH / tpi,
    form: 60 as const,
  }));

/** Number sizes are 0.060 in + 0.013 in a number (ASME B1.1). */
const numbered = (n: number) => 0.06 + 0.013 * n;

const UNC = inch('UNC', [
  ['#1', numbered(1), 64],
  ['#2', numbered(2), 56],
  ['#3', numbered(3), 48],
  ['#4', numbered(4), 40],
  ['#5', numbered(5), 40],
  ['#6', numbered(6), 32],
  ['#8', numbered(8), 32],
  ['#10', numbered(10), 24],
  ['#12', numbered(12), 24],
  ['1/4', 0.25, 20],
  ['5/16', 0.3125, 18],
  ['3/8', 0.375, 16],
  ['7/16', 0.4375, 14],
  ['1/2', 0.5, 13],
  ['9/16', 0.5625, 12],
  ['5/8', 0.625, 11],
  ['3/4', 0.75, 10],
  ['7/8', 0.875, 9],
  ['1', 1, 8],
  ['1-1/8', 1.125, 7],
  ['1-1/4', 1.25, 7],
  ['1-1/2', 1.5, 6],
]);
const UNF = inch('UNF', [
  ['#0', numbered(0), 80],
  ['#1', numbered(1), 72],
  ['#2', numbered(2), 64],
  ['#3', numbered(3), 56],
  ['#4', numbered(4), 48],
  ['#5', numbered(5), 44],
  ['#6', numbered(6), 40],
  ['#8', numbered(8), 36],
  ['#10', numbered(10), 32],
  ['#12', numbered(12), 28],
  ['1/4', 0.25, 28],
  ['5/16', 0.3125, 24],
  ['3/8', 0.375, 24],
  ['7/16', 0.4375, 20],
  ['1/2', 0.5, 20],
  ['9/16', 0.5625, 18],
  ['5/8', 0.625, 18],
  ['3/4', 0.75, 16],
  ['7/8', 0.875, 14],
  ['1', 1, 12],
  ['1-1/8', 1.125, 12],
  ['1-1/4', 1.25, 12],
  ['1-1/2', 1.5, 12],
]);

/** ISO 228-1: major diameter mm, threads an inch. */
const BSP: Thread[] = (
  [
    ['G1/16', 7.723, 28],
    ['G1/8', 9.728, 28],
    ['G1/4', 13.157, 19],
    ['G3/8', 16.662, 19],
    ['G1/2', 20.955, 14],
    ['G5/8', 22.911, 14],
    ['G3/4', 26.441, 14],
    ['G7/8', 30.201, 14],
    ['G1', 33.249, 11],
    ['G1-1/4', 41.91, 11],
    ['G1-1/2', 47.803, 11],
    ['G2', 59.614, 11],
  ] as [string, number, number][]
).map(([name, major, tpi]) => ({ name, series: 'BSP parallel', major, pitch: MM_PER_INCH / tpi, form: 55 }));

/** Every thread of the tables. */
export const THREADS: Thread[] = [...COARSE, ...FINE, ...UNC, ...UNF, ...BSP];

/** Diameters of a thread, mm. */
export interface ThreadSizes {
  major: number;
  pitch: number;
  pitchDiameter: number;
  /** Of the nut: the hole before the thread is cut. */
  internalMinor: number;
  /** Largest internal minor diameter the tolerance allows: 6H, 2B or ISO 228. */
  internalMinorMost: number;
  /** Of the screw, at its root. */
  externalMinor: number;
}

/** Tolerance of the internal minor diameter of class 6H by pitch, µm, as the standard rounds it (ISO 965-1). */
const ROUNDED_6H: Record<number, number> = {
  0.35: 100,
  0.4: 112,
  0.45: 125,
  0.5: 140,
  0.6: 160,
  0.7: 180,
  0.75: 190,
  0.8: 200,
  1: 236,
  1.25: 265,
  1.5: 300,
  1.75: 335,
  2: 375,
  2.5: 450,
  3: 500,
  3.5: 560,
  4: 600,
  4.5: 670,
  5: 710,
  5.5: 750,
  6: 800,
};

/** The same in mm for any pitch: the standard's value, else its formula, 433·P − 190·P^1.22 µm below 1 mm pitch, 230·P^0.7 above. */
const tolerance6H = (P: number) =>
  (ROUNDED_6H[P] ?? (P < 1 ? 433 * P - 190 * maths.pow(P, 1.22) : 230 * maths.pow(P, 0.7))) / 1000;

/** Tolerance of the internal minor diameter of class 2B, mm (ASME B1.1), from inches. */
function tolerance2B(majorMm: number, pitchMm: number): number {
  const [D, P] = [majorMm / MM_PER_INCH, pitchMm / MM_PER_INCH];
  const coarse = 0.25 * P - 0.4 * P * P;
  const fine = 0.05 * maths.pow(P, 2 / 3) + (0.03 * P) / D - 0.002;
  const t = D < 0.25 ? Math.min(0.394 * P, Math.max(coarse, fine)) : P > 0.25 ? 0.15 * P : coarse;
  return t * MM_PER_INCH;
}

/** Tolerance of the internal minor diameter of pipe threads by threads an inch, mm (ISO 228-1). */
const TOLERANCE_BSP: Record<number, number> = { 28: 0.282, 19: 0.445, 14: 0.541, 11: 0.64 };

/**
 * Diameters of a thread, mm. 60°: pitch diameter D − 0.649519·P, internal minor D − 1.082532·P, external minor D − 1.226869·P
 * (ISO 68-1, ASME B1.1). 55°: pitch diameter D − 0.640327·P, minor D − 1.280654·P inside and out (ISO 228-1).
 */
export function threadSizes({ major, pitch, form, series }: Thread): ThreadSizes {
  if (form === 55) {
    const minor = major - 1.280654 * pitch;
    const tolerance = TOLERANCE_BSP[Math.round(MM_PER_INCH / pitch)] ?? 0.35 * pitch;
    return {
      major,
      pitch,
      pitchDiameter: major - 0.640327 * pitch,
      internalMinor: minor,
      internalMinorMost: minor + tolerance,
      externalMinor: minor,
    };
  }
  const internalMinor = major - 1.082532 * pitch;
  const tolerance = series === 'UNC' || series === 'UNF' ? tolerance2B(major, pitch) : tolerance6H(pitch);
  return {
    major,
    pitch,
    pitchDiameter: major - 0.649519 * pitch,
    internalMinor,
    internalMinorMost: internalMinor + tolerance,
    externalMinor: major - 1.226869 * pitch,
  };
}

/** Drill for a cutting tap, mm, at a share of full thread height in percent: D − %·P/76.98. General workshop relation. */
export const tapDrill = (D: number, P: number, percent: number) => D - (percent * P) / 76.98;

/** Drill for a forming tap, mm, at a share of full thread height in percent: D − 0.0068·%·P. General workshop relation. */
export const formingDrill = (D: number, P: number, percent: number) => D - 0.0068 * percent * P;

/** Threads are offered in this order. */
const OFFERED: Record<'mm' | 'inch', ThreadSeries[]> = {
  mm: ['ISO coarse', 'ISO fine', 'BSP parallel'],
  inch: ['UNC', 'UNF', 'BSP parallel'],
};
/** Height of a formed thread its hole is drilled for, percent, and how far the hole may be off, as a share of the pitch. */
const FORMED = { percent: 65, off: 0.05 };
/** A drawn diameter is rounded so far, mm. */
const ROUNDED = 0.01;
const MOST_OFFERED = 3;

/**
 * Threads a hole may be drilled for, the likeliest first: it lies within their minor diameter, or is the hole of a forming tap.
 * @param diameter of the hole, mm
 */
export function likelyThreads(diameter: number, unit: 'mm' | 'inch'): Thread[] {
  const isFor = (thread: Thread) => {
    const { internalMinor, internalMinorMost, major, pitch } = threadSizes(thread);
    const formed = Math.abs(diameter - formingDrill(major, pitch, FORMED.percent)) <= FORMED.off * pitch;
    return formed || (diameter >= internalMinor - ROUNDED && diameter <= internalMinorMost + ROUNDED);
  };
  return OFFERED[unit]
    .flatMap((series) => THREADS.filter((t) => t.series === series && isFor(t)))
    .slice(0, MOST_OFFERED);
}

/** Thread height in percent that a drill (mm) leaves for a cutting tap. Inverse of {@link tapDrill}. */
export const tapPercent = (D: number, P: number, drill: number) => ((D - drill) * 76.98) / P;

/** Path of a thread mill of diameter d (mm) cutting inside a thread of major diameter D: radius of the path and share of the feed at its centre. */
export const threadMillInside = (D: number, d: number) => ({ radius: (D - d) / 2, feedShare: (D - d) / D });

/** Path of a thread mill of diameter d (mm) cutting outside: radius from the screw's minor diameter, feed share (D3 + d)/D3. */
export const threadMillOutside = (minor: number, d: number) => ({
  radius: (minor + d) / 2,
  feedShare: (minor + d) / minor,
});

const METRIC_NAME = /^M\s*(\d+(?:[.,]\d+)?)(?:\s*[x×*]\s*(\d+(?:[.,]\d+)?))?$/i;
const INCH_NAME = /^(#\d+|\d+(?:-\d+\/\d+|\/\d+)?|\d*\.\d+)\s*-\s*(\d+(?:\.\d+)?)\s*(UNC|UNF|UN)?$/i;
const PIPE_NAME = /^G\s*(\d+(?:-\d+\/\d+|\/\d+)?)$/i;

const inches = (text: string): number => {
  if (text.startsWith('#')) return numbered(Number(text.slice(1)));
  const [, whole, top, bottom] = /^(?:(\d+)-)?(\d+)\/(\d+)$/.exec(text) ?? [];
  return bottom ? Number(whole ?? 0) + Number(top) / Number(bottom) : Number(text);
};

/**
 * Reads a thread's name: `M6`, `M42x1`, `5/8-18`, `#10-32`, `1-1/8-7`, `G1/2`. A size that is in no table is taken as custom when its
 * pitch is given.
 * @returns the thread, or why it cannot be read
 */
export function parseThread(text: string): { ok: true; thread: Thread } | { ok: false; why: string } {
  const name = text.trim().replace(/\s+/g, ' ');
  const metric = METRIC_NAME.exec(name);
  if (metric) {
    const [major, pitch] = [Number(metric[1].replace(',', '.')), metric[2] && Number(metric[2].replace(',', '.'))];
    const known = THREADS.find(
      (t) => t.name.startsWith('M') && t.major === major && (pitch ? t.pitch === pitch : t.series === 'ISO coarse'),
    );
    if (known) return { ok: true, thread: known };
    if (!pitch) return { ok: false, why: `M${major} has no coarse pitch in the tables; give one, as in M${major}x1` };
    return custom(`M${major}x${pitch}`, major, pitch);
  }
  const pipe = PIPE_NAME.exec(name);
  if (pipe) {
    const known = THREADS.find((t) => t.name.toLowerCase() === `g${pipe[1]}`.toLowerCase());
    return known
      ? { ok: true, thread: known }
      : { ok: false, why: `there is no G${pipe[1]}; the table runs from G1/16 to G2` };
  }
  const unified = INCH_NAME.exec(name);
  if (unified) {
    const [size, tpi] = [unified[1], Number(unified[2])];
    const known = THREADS.find((t) => t.name === `${size}-${tpi}`);
    return known
      ? { ok: true, thread: known }
      : custom(`${size}-${tpi}`, inches(size) * MM_PER_INCH, MM_PER_INCH / tpi);
  }
  return { ok: false, why: 'write a thread as M6, M42x1, 5/8-18, #10-32 or G1/2' };
}

/** A thread of any major diameter and pitch, mm, when the two can go together. */
export function custom(
  name: string,
  major: number,
  pitch: number,
): { ok: true; thread: Thread } | { ok: false; why: string } {
  if (!(major > 0) || !(pitch > 0) || major > 1000) return { ok: false, why: 'a thread needs a diameter and a pitch' };
  if (1.226869 * pitch >= major)
    return {
      ok: false,
      why: `a pitch of ${Math.round(pitch * 1000) / 1000} mm is too coarse for ${Math.round(major * 1000) / 1000} mm`,
    };
  return { ok: true, thread: { name, series: 'custom', major, pitch, form: 60 } };
}
