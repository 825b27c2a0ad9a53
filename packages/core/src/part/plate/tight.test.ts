import { putAtHand } from '../../quantity/files';
import { solidFile } from '../../../testing/solids';
import { plate } from '../../../testing/parts';
import { facesOfSolid } from '../solid/faces/faces';
import { readModel } from '../solid/read/read';
import { takenSolid } from '../solid/take';
import { Feature, Part, Shape } from './feature';
import { newFeature } from './new';
import { tightestOf } from './tight';

const outline = plate();
const withPockets = (...pockets: [Shape, Partial<Feature>][]): Part => {
  const features = pockets.reduce<Feature[]>(
    (all, [shape, more]) => [
      ...all,
      newFeature(all, 'pocket', `Pocket ${all.length}`, shape, { x: 40, y: 25, depth: 5, ...more }),
    ],
    [outline],
  );
  return { kind: 'plate', thickness: 10, features };
};

test('a plain plate has no hard place but its own width', () => {
  const { corner, reach, wall } = tightestOf({ kind: 'plate', thickness: 10, features: [outline] });
  expect([corner, reach, wall]).toEqual([undefined, undefined, undefined]);
});

test('the tightest corner is told with its feature; where it is sharp it is 0', () => {
  const round = withPockets(
    [{ type: 'rectangle', width: 20, height: 20, radius: 4 }, { x: 20 }],
    [{ type: 'rectangle', width: 20, height: 20, radius: 2.5 }, { x: 60 }],
  );
  expect(tightestOf(round).corner).toMatchObject({
    radius: expect.closeTo(2.5, 6) as number,
    feature: round.features[2].id,
  });
  const sharp = withPockets([{ type: 'rectangle', width: 20, height: 20, radius: 0 }, {}]);
  expect(tightestOf(sharp).corner!.radius).toBe(0);
  expect(tightestOf(sharp).reach).toBeUndefined();
});

test('the corners of a step that lie beyond the part are none', () => {
  const step = withPockets([{ type: 'rectangle', width: 40, height: 60, radius: 0 }, { x: 80 }]);
  expect(tightestOf(step).corner).toBeUndefined();
});

test('the thinnest wall lies between two pockets, or a pocket and the outside', () => {
  const two = withPockets(
    [{ type: 'rectangle', width: 20, height: 30, radius: 4 }, { x: 25 }],
    [{ type: 'rectangle', width: 20, height: 30, radius: 4 }, { x: 46.5 }],
  );
  expect(tightestOf(two).wall!.thickness).toBeCloseTo(1.5, 6);
  const beside = withPockets([{ type: 'slot', length: 30, width: 10 }, { y: 6.2 }]);
  expect(tightestOf(beside).wall!.thickness).toBeCloseTo(1.2, 6);
});

test('the deepest reach counts by the mill that turns in the corners, not by depth alone', () => {
  const part = withPockets(
    [
      { type: 'rectangle', width: 20, height: 20, radius: 5 },
      { x: 20, depth: 8 },
    ],
    [
      { type: 'rectangle', width: 20, height: 20, radius: 1 },
      { x: 60, depth: 6 },
    ],
  );
  expect(tightestOf(part).reach).toEqual({
    depth: 6,
    diameter: expect.closeTo(2, 6) as number,
    feature: part.features[2].id,
  });
});

test('the thinnest floor lies over the underside, or over what is cut from there', () => {
  const square = (size: number): Shape => ({ type: 'rectangle', width: size, height: size, radius: 3 });
  const floor = (...pockets: [Shape, Partial<Feature>][]) => tightestOf(withPockets(...pockets)).floor;
  expect(floor([square(20), { x: 20, depth: 7 }], [square(12), { x: 60, depth: 4 }])).toMatchObject({ thickness: 3 });
  const turned = { side: 'underside', depth: 2.5 } as const;
  expect(floor([square(20), { x: 20, depth: 6 }], [square(12), { x: 60, ...turned }])?.thickness).toBeCloseTo(4, 9);
  expect(floor([square(20), { x: 20, depth: 6 }], [square(12), { x: 22, ...turned }])?.thickness).toBeCloseTo(1.5, 9);
  // Under what goes through there is none, and what meets is open.
  expect(floor([square(20), { x: 20, through: true }], [square(12), { x: 20, ...turned }])).toBeUndefined();
  const well = floor(
    [square(40), { x: 30, depth: 5 }],
    [square(14), { x: 30, depth: 8 }],
    [square(10), { x: 30, ...turned, depth: 4 }],
  );
  expect(well?.thickness).toBeCloseTo(2, 9);
});

test('of a solid its walls are found from every side', () => {
  const { bodies } = readModel(solidFile('thin-tray.stl'));
  const { part, surface } = takenSolid(facesOfSolid(bodies[0].mesh), { body: 0, unit: 'mm', up: 'top' }, undefined);
  putAtHand(surface);
  const { wall, corner } = tightestOf(part);
  expect(wall!.thickness).toBeCloseTo(1.8, 3);
  expect(corner!.radius).toBeCloseTo(6, 3);
});
