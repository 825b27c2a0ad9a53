import 'reflect-metadata';
import { area } from '../../geometry/plane/clip';
import { aroundFloor } from './around-floor';
import { Part } from './feature';
import { modelOf } from './model';
import { newFeature } from './new';

/** A plate 60 × 40 × 20: a step 5 deep in its right half, one 12 deep right of that, a pocket by itself. */
function model() {
  const features: Part['features'] = [];
  const add = (meaning: 'outline' | 'pocket', name: string, x: number, width: number, depth: number, height = 44) =>
    features.push(
      newFeature(features, meaning, name, { type: 'rectangle', width, height, radius: 0 }, { x, y: 20, depth }),
    );
  add('outline', 'Outside', 30, 60, 0, 40);
  add('pocket', 'Upper', 38, 16, 5);
  add('pocket', 'Lower', 54, 16, 12);
  add('pocket', 'Alone', 12, 10, 7, 10);
  return {
    made: modelOf({ kind: 'plate', thickness: 20, features }),
    id: (n: string) => features.find((f) => f.name === n)!.id,
  };
}

test('a wall is as high as what stands beside it, which is cut before', () => {
  const { made, id } = model();
  expect(aroundFloor(made, id('Upper')).wall).toBe(5);
  expect(aroundFloor(made, id('Lower')).wall).toBe(7);
  expect(aroundFloor(made, id('Alone'))).toMatchObject({ wall: 7, open: [] });
});

test('a cutter may run out over what is deeper and beside the part, not over what is higher', () => {
  const { made, id } = model();
  const inside = (name: string) => area(aroundFloor(made, id(name)).open);
  expect(inside('Upper')).toBeGreaterThan(inside('Lower'));
  expect(inside('Lower')).toBeGreaterThan(0);
});
