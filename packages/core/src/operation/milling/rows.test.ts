import fc from 'fast-check';
import { Region, area, contains, difference, offset } from '../../geometry/plane/clip';
import { distance } from '../../geometry/plane/point';
import { Stretch, rowsAcross, staysInside, zigzagRuns } from './rows';

const box = (x0: number, y0: number, x1: number, y1: number): Region => [
  [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ],
];
const plate = box(0, 0, 60, 40);
/** With a hole in its middle. */
const frame = difference(plate, box(20, 10, 40, 30));
const long = (rows: Stretch[][]) => rows.flat().reduce((sum, { a, b }) => sum + distance(a, b), 0);

test('rows are even, none farther apart than asked, and reach from edge to edge', () => {
  const rows = rowsAcross(plate, 7, 0);
  expect(rows).toHaveLength(6);
  rows.forEach((row, k) => {
    expect(row).toHaveLength(1);
    expect(row[0].a.y).toBeCloseTo((40 * (k + 0.5)) / 6, 9);
    expect([row[0].a.x, row[0].b.x]).toEqual([0, 60]);
  });
});

test('a hole parts a row in two', () => {
  expect(rowsAcross(frame, 5, 0).map((row) => row.length)).toEqual([1, 1, 2, 2, 2, 2, 1, 1]);
});

test('whatever their angle, rows sweep the area of the region and lie inside it', () => {
  fc.assert(
    fc.property(fc.double({ min: -180, max: 180, noNaN: true }), (angle) => {
      const rows = rowsAcross(frame, 0.25, angle);
      const turn = (angle * Math.PI) / 180;
      const tall = 60 * Math.abs(Math.sin(turn)) + 40 * Math.abs(Math.cos(turn));
      expect(Math.abs((long(rows) * tall) / rows.length / area(frame) - 1)).toBeLessThan(0.01);
      for (const { a, b } of rows.flat())
        expect(contains(frame, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })).toBe(true);
    }),
    { numRuns: 60, seed: 3 },
  );
});

test('one run goes to and fro through a plate; a hole makes further runs, and every stretch is cut once', () => {
  const runsOf = (region: Region) => {
    const rows = rowsAcross(region, 5, 0);
    const runs = zigzagRuns(rows, (a, b) => staysInside(offset(region, 0.05), a, b, 1));
    expect(runs.reduce((sum, run) => sum + run.length / 2, 0)).toBe(rows.flat().length);
    return runs;
  };
  const [whole, ...none] = runsOf(plate);
  expect(none).toEqual([]);
  // Every other stretch the other way.
  expect(whole.slice(0, 4).map((p) => p.x)).toEqual([0, 60, 60, 0]);
  expect(runsOf(frame).length).toBeGreaterThan(1);
});

test('a straight across a hole does not stay inside', () => {
  expect(staysInside(frame, { x: 10, y: 20 }, { x: 50, y: 20 }, 1)).toBe(false);
  expect(staysInside(frame, { x: 10, y: 5 }, { x: 50, y: 5 }, 1)).toBe(true);
});
