/** Limits of sizes by the ISO system of limits and fits (ISO 286-1), for sizes up to 500 mm. */

/** Limits of a size, mm from its nominal value; both may lie on one side. */
export interface Limits {
  upper: number;
  lower: number;
}

/** Upper ends of the ranges of nominal sizes, mm. */
const RANGES = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];

/** Widths of the standard grades in each range, µm. */
const GRADES: Record<number, number[]> = {
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
  12: [100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630],
  13: [140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970],
};

/** How far the nearer limit lies from the nominal size, µm: clearance letters below a shaft's size, the others above it. */
const CLEARANCE: Record<string, number[]> = {
  d: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  e: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  f: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  g: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  h: RANGES.map(() => 0),
};
const INTERFERENCE: Record<string, number[]> = {
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
};
/** Grades for which the letters beyond h are tabled: shafts, and holes by their rule. */
const TIGHT = { shaft: [5, 6, 7], hole: [6, 7, 8] };

/** The letters and grades that are known, for whoever typed another. */
export const KNOWN_FITS = 'H, JS, D to G with grades 5 to 13; K to P with 6 to 8; small letters for shafts';

/**
 * Limits of a fit such as H7 or g6 at a nominal size; undefined where the table has none.
 * @param nominal mm, above 0 and up to 500
 * @returns mm
 */
export function fitLimits(nominal: number, fit: string): Limits | undefined {
  const read = /^([A-Z]{1,2}|[a-z]{1,2})(\d{1,2})$/.exec(fit);
  const range = RANGES.findIndex((most) => nominal <= most);
  if (!read || range < 0 || nominal <= 0) return undefined;
  const [, letter, digits] = read;
  const grade = Number(digits);
  const width = GRADES[grade]?.[range];
  if (width === undefined) return undefined;
  const isHole = letter === letter.toUpperCase();
  const name = letter.toLowerCase();
  const of = (upper: number): Limits => ({ upper: upper / 1000, lower: (upper - width) / 1000 });
  if (name === 'js') return of(width / 2);
  const clear = CLEARANCE[name]?.[range];
  if (clear !== undefined) return isHole ? of(clear + width) : of(-clear);
  const beyond = INTERFERENCE[name]?.[range];
  if (beyond === undefined || !TIGHT[isHole ? 'hole' : 'shaft'].includes(grade)) return undefined;
  if (!isHole) return of(beyond + width);
  // A hole of these letters is tabled by the next finer grade: what a shaft of it makes of the fit stays the same.
  if (range === 0) return of(-beyond);
  if (name === 'p' && grade > 7) return of(-beyond);
  return of(-beyond + width - GRADES[grade - 1][range]);
}
