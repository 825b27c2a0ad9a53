import 'reflect-metadata';
import fc from 'fast-check';
import { terraces } from '../../../testing/solids';
import { Chain } from '../../geometry/plane/chain';
import { distance } from '../../geometry/plane/point';
import { Feature, Pattern, SINGLE, Shape } from '../plate/feature';
import { newFeature } from '../plate/new';
import { placements, singles } from '../plate/placed';
import { instancesOf } from '../plate/shapes';
import { facesOfSolid } from './faces/faces';
import { onPlace } from './lying';
import { arranged } from './patterns';
import { Standing } from './rings';
import { understood } from './sides';

/** A hook: it has another look in each mirror. */
const HOOK: Shape = {
  type: 'chain',
  closed: true,
  vertices: [
    [3, 2],
    [15, 2],
    [15, 6],
    [8, 6, 0.4],
    [7, 11],
    [3, 11],
  ].map(([x, y, bulge = 0]) => ({ x, y, bulge })),
};
const SHAPES: Shape[] = [
  { type: 'round', diameter: 6 },
  { type: 'slot', length: 14, width: 6 },
  { type: 'rectangle', width: 12, height: 8, radius: 2 },
  HOOK,
];
const PATTERNS: Pattern[] = [
  { ...SINGLE, type: 'line', count: 3, dx: 31, dy: 7 },
  { ...SINGLE, type: 'grid', count: 3, rows: 2, dx: 30, dy: 25 },
  { ...SINGLE, type: 'circle', count: 5, centreX: -40, centreY: 10 },
  { ...SINGLE, type: 'circle', count: 2, centreX: -40, centreY: 10 },
  { ...SINGLE, type: 'mirror', count: 2, centreX: -30 },
  { ...SINGLE, type: 'mirror', rows: 2, centreY: 60 },
  { ...SINGLE, type: 'mirror', count: 2, rows: 2, centreX: -30, centreY: 60 },
];
const thing = (shape: Shape, turn: number, pattern = SINGLE): Feature => ({
  ...newFeature([], 'pocket', 'Pocket', shape, { x: 4, y: 9, depth: 3 }),
  turn,
  pattern,
});

const isNear = (a: Chain, b: Chain) =>
  a.vertices.every((p) => b.vertices.some((q) => distance(p, q) < 1e-2)) && a.vertices.length === b.vertices.length;

/** An open line from one place to another, as an edge is. */
const edge = (x: number, from: number, to: number): Feature =>
  thing({ type: 'chain', closed: false, vertices: [from, to].map((y) => ({ x, y, bulge: 0 })) }, 0);

test('edges on both sides of a step are no row that starts half way along', () => {
  expect(showsAll([edge(0, 50, 0), edge(70, 0, 50)])).toBe(true);
});

/** Whether patterns show all that was there, each once. */
function showsAll(things: Feature[]): boolean {
  const found = arranged(things as Standing[]);
  const shown = found.flatMap(({ pattern, members }) => instancesOf({ ...things[members[0]], pattern }));
  const members = found.flatMap((f) => f.members);
  return (
    [...members].sort((a, b) => a - b).every((k, i) => k === i) &&
    members.length === things.length &&
    shown.every(
      (chain, i) => things[members[i]].shape.type === 'round' || isNear(chain, instancesOf(things[members[i]])[0]),
    )
  );
}

const cases = SHAPES.flatMap((shape) => PATTERNS.map((pattern) => ({ shape, pattern })));
test.each(cases)('what stands as $pattern.type of $shape.type is one', ({ shape, pattern }) => {
  for (const turn of [0, 25]) {
    const things = singles(thing(shape, turn, pattern)).reverse();
    expect([turn, arranged(things).map((a) => a.members.length)]).toEqual([turn, [placements(pattern).length]]);
    expect(showsAll(things)).toBe(true);
  }
});

test('slots that stand round a circle, but all lie the same way, make none', () => {
  const slot = thing(SHAPES[1], 0, SINGLE);
  const on = (angle: number) => ({ ...slot, x: 40 * Math.cos(angle), y: 40 * Math.sin(angle) });
  const things = [0, 1, 2].map((k) => on(0.3 + (k * 2 * Math.PI) / 3));
  expect(arranged(things).map((a) => a.pattern.type)).toEqual(['single', 'single', 'single']);
});

test('holes with an image each are pairs, and what stands in the mirror stands alone', () => {
  const hole = thing(SHAPES[0], 0);
  const at = (x: number, y: number) => ({ ...hole, x, y });
  const found = arranged([at(10, 5), at(90, 5), at(30, 40), at(70, 40), at(50, 71)]);
  expect(found.map((a) => [a.pattern.type, a.pattern.centreX, ...a.members])).toEqual([
    ['mirror', 50, 0, 1],
    ['mirror', 50, 2, 3],
    ['single', 0, 4],
  ]);
});

test('whatever stands anywhere, patterns show all of it, each once', () => {
  const anything = fc.record({
    shape: fc.constantFrom(...SHAPES),
    places: fc.array(
      fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 3 }), fc.constantFrom(0, 90, 25)),
      {
        minLength: 1,
        maxLength: 7,
      },
    ),
  });
  fc.assert(
    fc.property(anything, ({ shape, places }) => {
      const apart = [...new Map(places.map((p) => [`${p[0]} ${p[1]}`, p])).values()];
      return showsAll(apart.map(([i, j, turn]) => ({ ...thing(shape, turn), x: 30 * i, y: 25 * j })));
    }),
    { seed: 4, numRuns: 400 },
  );
});

test('pockets of a solid that are images of each other are one feature', () => {
  const { features } = understood(
    onPlace(
      facesOfSolid(
        terraces([
          [0, 0, 0, 0, 0, 0, 0],
          [0, -5, 0, 0, 0, -5, 0],
          [0, -5, -5, 0, -5, -5, 0],
          [0, 0, 0, 0, 0, 0, 0],
        ]),
      ),
    ),
  );
  const [pocket, ...more] = features.filter((f) => f.meaning === 'pocket');
  expect(more).toEqual([]);
  expect(pocket).toMatchObject({ depth: 5, pattern: { type: 'mirror', count: 2, rows: 1, centreX: 35 } });
  expect(pocket.faces!.length).toBeGreaterThan(10);
});
