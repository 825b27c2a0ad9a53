import { tool } from '../../testing/parts';
import { MATERIALS } from '../shop/library/materials';
import { edgeLife, lifeReference } from './edge-life';

const [material] = MATERIALS;

const REFERENCE = { minutes: 60, speed: 140, chip: 0.072, exponent: 4 };

test.each([
  [{ speed: 140, chip: 0.072, angle: 90 }, 60],
  [{ speed: 170, chip: 0.045, angle: 36.87 }, 185.0],
  [{ speed: 120, chip: 0.045, angle: 180 }, 69.1],
])('an edge of 60 min at 140 m/min in a cut of %o lasts %d min', (cut, minutes) => {
  expect(edgeLife(REFERENCE, cut)).toBeCloseTo(minutes, 1);
});

test('twice the speed takes a sixteenth of a carbide edge’s life, and a 256th of one of high-speed steel', () => {
  const at = (speed: number, exponent: number) => edgeLife({ ...REFERENCE, exponent }, { speed });
  expect(at(280, 4)).toBeCloseTo(60 / 16, 9);
  expect(at(280, 8)).toBeCloseTo(60 / 256, 9);
});

test('the life on a card is for the middle of the material’s range', () => {
  const mill = tool(4);
  const { speed, chip, minutes } = lifeReference(mill, material);
  const { from, to } = material.millingSpeed[mill.material];
  expect(speed).toBe((from + to) / 2);
  expect(minutes).toBe(mill.edgeLife);
  expect(chip).toBeCloseTo(((material.chipShare.from + material.chipShare.to) / 200) * mill.diameter, 9);
});
