import fc from 'fast-check';
import { contains } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { NOTHING_ADDED } from './added';
import { Feature, Part, Shape } from './feature';
import { HeightRule, wantedHeights } from './heights';
import { modelOf, surfaceAt } from './model';
import { newFeature } from './new';

const THICK = 20;
const PLATE = { type: 'rectangle', width: 100, height: 80, radius: 0 } as const;

function partOf(more: [Feature['meaning'], Shape, Partial<Feature>][]): Part {
  const features = [newFeature([], 'outline', 'Plate', PLATE, { x: 50, y: 40 })];
  for (const [meaning, shape, values] of more)
    features.push(newFeature(features, meaning, meaning, shape, { x: 50, y: 40, ...values }));
  return { kind: 'plate', thickness: THICK, features };
}

/** Height that should stand at a point by the rules, mm. */
const heightAt = (rules: HeightRule[], p: Point) =>
  rules
    .filter((r) => typeof r.high === 'number' && contains(r.region, p))
    .reduce((z, { how, high }) => {
      const bound = high as number;
      return how === 'set' ? bound : how === 'lower' ? Math.min(z, bound) : Math.max(z, bound);
    }, -Infinity);

const rulesOf = (part: Part) => wantedHeights(part, modelOf(part), NOTHING_ADDED);
const round = (diameter: number): Shape => ({ type: 'round', diameter });

describe('a spigot on a shoulder in a pocket', () => {
  const part = partOf([
    ['pocket', round(60), { depth: 15 }],
    ['boss', round(30), { depth: 10 }],
    ['boss', round(12), { depth: 2 }],
  ]);
  const at = (x: number) => ({ x: 50 + x, y: 40 });

  test.each([
    ['the spigot', 0, -2],
    ['the shoulder', 10, -10],
    ['the floor', 25, -15],
    ['the top', 40, 0],
  ])('%s stands where it was drawn', (_, x, z) => {
    expect(surfaceAt(modelOf(part), at(x))).toBe(z);
    expect(heightAt(rulesOf(part), at(x))).toBe(z);
  });

  test('the order in which they were drawn says nothing', () => {
    const turned = { ...part, features: [part.features[0], ...part.features.slice(1).reverse()] };
    for (const x of [0, 10, 25, 40]) expect(surfaceAt(modelOf(turned), at(x))).toBe(surfaceAt(modelOf(part), at(x)));
  });
});

test('a pocket in a boss is cut into it', () => {
  const part = partOf([
    ['pocket', round(60), { depth: 15 }],
    ['boss', round(30), { depth: 2 }],
    ['pocket', round(16), { depth: 8 }],
  ]);
  expect(surfaceAt(modelOf(part), { x: 50, y: 40 })).toBe(-8);
  expect(heightAt(rulesOf(part), { x: 50, y: 40 })).toBe(-8);
  expect(surfaceAt(modelOf(part), { x: 62, y: 40 })).toBe(-2);
});

test('in random stacks of pockets and bosses, what is planned and what is judged are the same heights', () => {
  const feature = fc.record({
    meaning: fc.constantFrom('pocket' as const, 'boss' as const),
    isRound: fc.boolean(),
    wide: fc.integer({ min: 5, max: 70 }),
    x: fc.integer({ min: 30, max: 70 }),
    y: fc.integer({ min: 25, max: 55 }),
    depth: fc.integer({ min: 1, max: 18 }),
    through: fc.boolean(),
  });
  const places = fc.array(fc.record({ x: fc.integer({ min: 2, max: 97 }), y: fc.integer({ min: 2, max: 77 }) }), {
    minLength: 20,
    maxLength: 20,
  });
  fc.assert(
    fc.property(fc.array(feature, { minLength: 2, maxLength: 5 }), places, (features, points) => {
      const part = partOf(
        features.map(({ meaning, isRound, wide, x, y, depth, through }, i) => {
          // No two are as large: what stands in what would be left to chance.
          const size = wide + i * 0.013;
          const shape: Shape = isRound
            ? round(size)
            : { type: 'rectangle', width: size, height: size * 0.7, radius: 0 };
          return [meaning, shape, { x: x + 0.37, y: y + 0.41, depth, through: through && meaning === 'pocket' }];
        }),
      );
      const [model, rules] = [modelOf(part), rulesOf(part)];
      for (const p of points) {
        const [z, wanted] = [surfaceAt(model, p), heightAt(rules, p)];
        if (z === wanted) continue;
        // Only beside a wall, where the slack of judging decides, may they differ.
        const beside = [-0.1, 0.1].some((d) =>
          [heightAt(rules, { x: p.x + d, y: p.y }), heightAt(rules, { x: p.x, y: p.y + d })].includes(z),
        );
        expect([p, z, wanted, beside]).toEqual([p, z, wanted, true]);
      }
    }),
    { seed: 12, numRuns: 300 },
  );
});
