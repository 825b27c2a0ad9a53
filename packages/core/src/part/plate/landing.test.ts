import { chainBounds } from '../../geometry/plane/chain';
import { EMPTY_BOUNDS, joinBounds } from '../../geometry/plane/point';
import { SINGLE, Feature, Shape } from './feature';
import { landed, onZero, oppositeOf } from './landing';
import { regionOf } from './model';
import { area, difference } from '../../geometry/plane/clip';
import { newFeature } from './new';
import { instancesOf } from './shapes';

const plate = newFeature(
  [],
  'outline',
  'Plate',
  { type: 'rectangle', width: 100, height: 60, radius: 0 },
  { x: 57, y: 41 },
);
const boundsOf = (f: Feature) => instancesOf(f).map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);
const hole = (more: Partial<Feature> = {}, shape: Shape = { type: 'round', diameter: 6 }) =>
  newFeature([plate], 'hole', 'Hole', shape, { x: 20, y: 30, ...more });

test('features land on zero together, the centre of a circle of holes too', () => {
  const around = hole({ pattern: { ...SINGLE, type: 'circle', count: 4, centreX: 57, centreY: 41 } });
  const [first, second] = onZero([plate, around]);
  expect(boundsOf(first)).toMatchObject({ minX: 0, minY: 0, maxX: 100, maxY: 60 });
  expect(second).toMatchObject({ x: 13, y: 19, pattern: { centreX: 50, centreY: 30 } });
  expect(onZero([])).toEqual([]);
});

test('an outside on zero stays there when it grows; one that lies elsewhere does not move', () => {
  const [there] = onZero([plate]);
  const grow = (f: Feature): Feature => ({ ...f, shape: { type: 'rectangle', width: 130, height: 70, radius: 0 } });
  expect(boundsOf(landed(there, grow(there)))).toMatchObject({ minX: 0, minY: 0, maxX: 130, maxY: 70 });
  expect(landed(plate, grow(plate))).toEqual(grow(plate));
  expect(landed(there, { ...there, x: 80 })).toEqual({ ...there, x: 80 });
});

test('a hole that is moved no longer knows where it ends', () => {
  const found = hole({ through: true, from: 4, ends: 12 });
  expect(landed(found, { ...found, name: 'Pin' })).toMatchObject({ from: 4, ends: 12 });
  for (const moved of [
    landed(found, { ...found, x: 50 }),
    oppositeOf({ kind: 'plate', thickness: 20, features: [plate, found] }, found, 'left and right'),
  ])
    expect(moved).toMatchObject({ from: undefined, ends: undefined });
});

test.each([
  ['left and right', [94, 30]],
  ['front and back', [20, 52]],
  ['half a turn', [94, 52]],
] as const)('the opposite side, %s', (how, [x, y]) => {
  const part = { kind: 'plate' as const, thickness: 10, features: [plate, hole()] };
  const image = oppositeOf(part, part.features[1], how);
  expect(image).toMatchObject({ id: 'f3', x, y, meaning: 'hole', shape: { diameter: 6 } });
});

test('twice the opposite side is where it was, drawn shapes and rows too', () => {
  const corner = [
    { x: 0, y: 0, bulge: 0 },
    { x: 9, y: 0, bulge: 0.3 },
    { x: 0, y: 5, bulge: 0 },
  ];
  const row = { ...SINGLE, type: 'line' as const, count: 3, dx: 12, dy: 2 };
  const drawn = hole({ meaning: 'pocket', turn: 20, pattern: row }, { type: 'chain', vertices: corner, closed: true });
  const part = { kind: 'plate' as const, thickness: 10, features: [plate, drawn] };
  for (const how of ['left and right', 'front and back', 'half a turn'] as const) {
    const once = oppositeOf(part, drawn, how);
    expect(area(difference(regionOf(once), regionOf(drawn)))).toBeGreaterThan(20);
    expect(area(difference(regionOf(oppositeOf(part, once, how)), regionOf(drawn)))).toBeLessThan(0.01);
  }
});
