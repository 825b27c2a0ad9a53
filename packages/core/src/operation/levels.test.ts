import { newFeature } from '../part/plate/new';
import { area } from '../geometry/plane/clip';
import { modelOf } from '../part/plate/model';
import { plate } from '../../testing/parts';
import { deepest, levelsOf } from './levels';
import type { PlanContext } from './operation';

/** An 80 x 50 x 12 plate with a stepped pocket: 40 x 30 and 4 deep, and in it a round one that is 10 deep or goes through. */
function stepped(through = false) {
  const outline = plate();
  const wide = newFeature(
    [outline],
    'pocket',
    'Wide',
    { type: 'rectangle', width: 40, height: 30, radius: 4 },
    { x: 40, y: 25, depth: 4 },
  );
  const deep = newFeature(
    [outline, wide],
    'pocket',
    'Deep',
    { type: 'round', diameter: 20 },
    { x: 40, y: 25, depth: 10, through },
  );
  const model = modelOf({ kind: 'plate', thickness: 12, features: [outline, wide, deep] });
  const stock = [
    [
      { x: -2, y: -2 },
      { x: 82, y: -2 },
      { x: 82, y: 52 },
      { x: -2, y: 52 },
    ],
  ];
  return { outline, wide, deep, context: { model, stock, top: 1, operation: {} } as PlanContext };
}

const params = { layer: 3, breakthrough: 0.2, floorAllowance: 0.1, flats: true };
const heights = (levels: { z: number }[]) => levels.map((l) => Math.round(l.z * 1000) / 1000);

test('layers go from what is left of the stock to each flat, equal between two, what is left on floors above each', () => {
  const { wide, context } = stepped();
  const levels = levelsOf(wide, params, context);
  expect(heights(levels)).toEqual([-1.45, -3.9]);
  expect(levels.map((l) => l.from)).toEqual([1, levels[0].z]);
  // The deep pocket is part of the opening above its floor.
  expect(area(levels[0].wanted)).toBeCloseTo(40 * 30 - (4 - Math.PI) * 16, 0);
  expect(area(levels[0].keep)).toBeGreaterThan(80 * 50 - 40 * 30);
});

test('a pocket in a pocket is cleared to the flat above it first, unless flats are left alone', () => {
  const { deep, context } = stepped();
  expect(heights(deepest(levelsOf(deep, params, context)))).toEqual([-3.9, -9.9]);
  expect(heights(levelsOf(deep, { ...params, layer: 20, flats: false }, context))).toEqual([-9.9]);
});

test('where it goes through, the last layer is as far below the part as asked, nothing is left on no floor', () => {
  const { deep, context } = stepped(true);
  const levels = levelsOf(deep, params, context);
  expect(heights(levels).at(-1)).toBe(-12.2);
  expect(levels.every((l, i) => i === 0 || l.from === levels[i - 1].z)).toBe(true);
});

test('an outline wants all of the stock round the part, down through it', () => {
  const { outline, context } = stepped();
  const levels = levelsOf(outline, params, context);
  expect(heights(levels).at(-1)).toBe(-12.2);
  expect(levels.every((l) => l.z - l.from >= -3 - 1e-9)).toBe(true);
  expect(area(levels[0].wanted)).toBeCloseTo(84 * 54 - 80 * 50, 3);
  expect(deepest(levels)).toHaveLength(1);
});

test('above the part’s top there is nothing to clear to', () => {
  const { wide, context } = stepped();
  expect(levelsOf(wide, params, { ...context, top: -5 })).toEqual([]);
});
