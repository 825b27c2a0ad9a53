import { MM_PER_INCH } from '../../quantity/units';
import { Bar } from '../bar';

const SAW = { kerf: 2.5, sawnMore: 1 };
const LONG = 3000;

const flat = (materialId: string, word: string, width: number, thickness: number, more: Partial<Bar>): Bar => ({
  id: `flat-${word}-${width}-${thickness}`,
  name: `Flat ${width} × ${thickness}, ${word}`,
  materialId,
  section: 'flat',
  width,
  thickness,
  diameter: width,
  bore: 0,
  length: LONG,
  ...SAW,
  ...more,
});

const round = (materialId: string, word: string, diameter: number, more: Partial<Bar>): Bar => ({
  ...flat(materialId, word, diameter, diameter, more),
  id: `round-${word}-${diameter}`,
  name: `Round ${diameter}, ${word}`,
  section: 'round',
});

const plate = (materialId: string, word: string, thickness: number, more: Partial<Bar>): Bar => ({
  ...flat(materialId, word, 500, thickness, { length: 1000, ...more }),
  id: `plate-${word}-${thickness}`,
  name: `Plate ${thickness}, ${word}`,
  section: 'plate',
});

/** Prices of a kilogram in the invented shop. */
const ALUMINIUM = { pricePerKg: 6.5 };
const STEEL = { pricePerKg: 2.2, corner: 0.5 };
const STAINLESS = { pricePerKg: 7.4, corner: 0.5 };

/** What the invented shop keeps; how many of each it has is its own to say. */
export const BARS: Bar[] = [
  ...[
    [30, 20],
    [40, 20],
    [60, 15],
    [60, 25],
    [80, 20],
    [80, 50],
    [100, 20],
    [100, 25],
    [120, 80],
    [150, 25],
  ].map(([w, t]) => flat('alu-6082', 'aluminium', w, t, ALUMINIUM)),
  {
    ...flat('alu-6082', 'aluminium', 1.75 * MM_PER_INCH, 0.5 * MM_PER_INCH, {
      ...ALUMINIUM,
      length: 144 * MM_PER_INCH,
    }),
    id: 'flat-aluminium-inch-1.75-0.5',
    name: 'Flat 1 3/4 × 1/2 in, aluminium',
  },
  ...[30, 60, 120].map((d) => round('alu-6082', 'aluminium', d, ALUMINIUM)),
  ...[6, 12].map((t) => plate('alu-6082', 'aluminium', t, ALUMINIUM)),
  ...[
    [40, 20],
    [60, 30],
    [100, 20],
  ].map(([w, t]) => flat('steel-low', 'low-carbon steel', w, t, STEEL)),
  round('steel-alloy', 'alloy steel', 50, { pricePerKg: 3.4 }),
  flat('stainless', 'stainless', 50, 12, STAINLESS),
  round('brass', 'brass', 40, { pricePerKg: 9.8 }),
  {
    ...round('brass', 'brass', 60, { pricePerKg: 9.8 }),
    id: 'tube-brass-60-40',
    name: 'Tube 60 × 40, brass',
    section: 'tube',
    bore: 40,
  },
  plate('acetal', 'acetal', 20, { pricePerKg: 8.9 }),
  plate('tooling-board', 'tooling board', 50, { pricePerKg: 14 }),
];
