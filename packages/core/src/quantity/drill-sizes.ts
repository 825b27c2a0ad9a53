import { MM_PER_INCH, formatNumber } from './units';

/** Diameters of number drills #1 to #80, inch (ASME B94.11M). */
export const NUMBER_DRILLS = [
  0.228, 0.221, 0.213, 0.209, 0.2055, 0.204, 0.201, 0.199, 0.196, 0.1935, 0.191, 0.189, 0.185, 0.182, 0.18, 0.177,
  0.173, 0.1695, 0.166, 0.161, 0.159, 0.157, 0.154, 0.152, 0.1495, 0.147, 0.144, 0.1405, 0.136, 0.1285, 0.12, 0.116,
  0.113, 0.111, 0.11, 0.1065, 0.104, 0.1015, 0.0995, 0.098, 0.096, 0.0935, 0.089, 0.086, 0.082, 0.081, 0.0785, 0.076,
  0.073, 0.07, 0.067, 0.0635, 0.0595, 0.055, 0.052, 0.0465, 0.043, 0.042, 0.041, 0.04, 0.039, 0.038, 0.037, 0.036,
  0.035, 0.033, 0.032, 0.031, 0.0292, 0.028, 0.026, 0.025, 0.024, 0.0225, 0.021, 0.02, 0.018, 0.016, 0.0145, 0.0135,
];

/** Diameters of letter drills A to Z, inch (ASME B94.11M). */
export const LETTER_DRILLS = [
  0.234, 0.238, 0.242, 0.246, 0.25, 0.257, 0.261, 0.266, 0.272, 0.277, 0.281, 0.29, 0.295, 0.302, 0.316, 0.323, 0.332,
  0.339, 0.348, 0.358, 0.368, 0.377, 0.386, 0.397, 0.404, 0.413,
];

export type DrillSeries = 'number' | 'letter' | 'fraction' | 'metric';

/** A drill as it is stocked; diameter in mm. */
export interface DrillSize {
  name: string;
  series: DrillSeries;
  diameter: number;
}

function fractionName(sixtyFourths: number): string {
  let [top, bottom] = [sixtyFourths, 64];
  while (top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  if (bottom === 1) return `${top} in`;
  const whole = Math.floor(top / bottom);
  return whole ? `${whole}-${top - whole * bottom}/${bottom} in` : `${top}/${bottom} in`;
}

const count = (from: number, to: number, step: number) =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => Math.round((from + i * step) * 1000) / 1000);

/** Stocked metric drills: by 0.05 mm up to 3, by 0.1 up to 14, by 0.25 up to 20, by 0.5 up to 32 (the usual steps of ISO 235 sets). */
const METRIC = [...count(0.3, 3, 0.05), ...count(3.1, 14, 0.1), ...count(14.25, 20, 0.25), ...count(20.5, 32, 0.5)];

/** Every stocked drill size: number, letter, fraction (1/64 to 1-1/4 in) and metric. */
export const DRILL_SIZES: DrillSize[] = [
  ...NUMBER_DRILLS.map((inch, i): DrillSize => ({ name: `#${i + 1}`, series: 'number', diameter: inch * MM_PER_INCH })),
  ...LETTER_DRILLS.map((inch, i): DrillSize => ({
    name: String.fromCharCode(65 + i),
    series: 'letter',
    diameter: inch * MM_PER_INCH,
  })),
  ...count(1, 80, 1).map((n): DrillSize => ({
    name: fractionName(n),
    series: 'fraction',
    diameter: (n / 64) * MM_PER_INCH,
  })),
  ...METRIC.map((mm): DrillSize => ({ name: `${formatNumber(mm, 2)} mm`, series: 'metric', diameter: mm })),
];

/** The stocked size of a series nearest to a wanted diameter, and by how much it is off, mm (positive: larger). */
export function nearestDrill(
  wanted: number,
  series: readonly DrillSeries[] = ['metric'],
): { drill: DrillSize; error: number } {
  const [drill] = DRILL_SIZES.filter((d) => series.includes(d.series)).sort(
    (a, b) => Math.abs(a.diameter - wanted) - Math.abs(b.diameter - wanted) || a.name.localeCompare(b.name),
  );
  return { drill, error: drill.diameter - wanted };
}
