import { circle, flatten } from './chain';
import { Region, difference } from './clip';
import { MiddlePoint, middleLines, straightened } from './middle';
import { distance } from './point';

const box = (w: number, h: number): Region => [
  [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ],
];
const lengthOf = (run: MiddlePoint[]) => run.reduce((sum, p, i) => sum + (i ? distance(p, run[i - 1]) : 0), 0);
const whole = (runs: MiddlePoint[][]) => runs.reduce((sum, run) => sum + lengthOf(run), 0);

test('of a bar: the line along it, and a branch into each corner', () => {
  const runs = middleLines(box(20, 4), 0.1);
  const level = runs.flat().filter((p) => p.x > 2.2 && p.x < 17.8);
  for (const p of level) {
    expect(p.y).toBeCloseTo(2, 6);
    expect(p.clearance).toBeCloseTo(2, 6);
  }
  expect(whole(runs)).toBeGreaterThan(16 + 4 * 2.6);
  expect(whole(runs)).toBeLessThan(16 + 4 * 2 * Math.SQRT2 + 0.5);
});

test('of a ring: the circle between, everywhere as far from both', () => {
  const ring = difference([flatten(circle(0, 0, 10), 0.001)], [flatten(circle(0, 0, 6), 0.001)]);
  const runs = middleLines(ring, 0.2);
  for (const p of runs.flat()) {
    expect(Math.hypot(p.x, p.y)).toBeCloseTo(8, 1);
    expect(p.clearance).toBeCloseTo(2, 1);
  }
  expect(whole(runs)).toBeGreaterThan(2 * Math.PI * 8 * 0.98);
});

test('a disc has a middle and no lines; nothing has none', () => {
  const runs = middleLines([flatten(circle(3, 4, 5), 0.01)], 0.2);
  expect(whole(runs)).toBeLessThan(0.1);
  for (const p of runs.flat()) expect(distance(p, { x: 3, y: 4 })).toBeLessThan(0.05);
  expect(middleLines([], 0.1)).toEqual([]);
});

test('straightened, a line keeps its ends and its corners, clearance included', () => {
  const line = Array.from({ length: 21 }, (_, i) => ({ x: i, y: 0, clearance: i <= 10 ? i : 20 - i }));
  expect(straightened(line, 0.01)).toEqual([line[0], line[10], line[20]]);
});
