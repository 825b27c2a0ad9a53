import { tool } from '../../testing/parts';
import { cellFor, makeField } from '../stock/height/field';
import { HeightStock } from '../stock/height/height-stock';
import { cutterOf } from '../stock/height/sweep';
import { drive } from './drive';

const stock = () => {
  const bounds = { minX: 0, minY: 0, maxX: 40, maxY: 20 };
  const field = makeField(bounds, cellFor(bounds, 20_000, 0.1));
  field.height.fill(0);
  return new HeightStock(field, -10);
};
const cutter = cutterOf(tool(7));
const along = (k: number) => ({ x: 5 + k * 10, y: 10, z: -2 });

test('a cutter is driven chord by chord; each bite is told with the place it ends at', () => {
  const steps: [number, number][] = [];
  drive(stock(), cutter, 7, 3, along, { bite: ({ volume }, at) => steps.push([Math.round(volume), at.x]) });
  expect(steps.map(([, x]) => x)).toEqual([15, 25, 35]);
  // Slot of 6 x 2: the first bite holds the disc it starts with, each goes on by 10 mm.
  expect(steps[1][0]).toBeGreaterThan(110);
  expect(steps[1][0]).toBeLessThan(130);
  expect(steps[0][0] - steps[1][0]).toBeGreaterThan(45);
});

test('what is passed by is not cut, and the way goes on behind it', () => {
  const part = stock();
  drive(part, cutter, 7, 3, along, { passesBy: (from) => from.x === 15 });
  const at = (x: number) =>
    part.field.height[Math.floor(10 / part.field.cell) * part.field.nx + Math.floor(x / part.field.cell)];
  expect([at(10), at(20), at(30)]).toEqual([-2, 0, -2]);
});

test('a snapshot brings back heights and owners', () => {
  const part = stock();
  drive(part, cutter, 1, 1, along);
  const then = part.snapshot();
  drive(part, cutter, 2, 3, along);
  expect(new Set(part.owner).has(2)).toBe(true);
  part.restore(then);
  expect(new Set(part.owner)).toEqual(new Set([-1, 1]));
  expect(part.field.height).toEqual(then.height);
});
