import * as fc from 'fast-check';
import { maths } from './maths';

/** Whether two numbers are the same but for the last digits. */
const isNear = (a: number, b: number) => Object.is(a, b) || Math.abs(a - b) <= 1e-15 * Math.max(1, Math.abs(b)) * 4;
const angle = fc.double({ min: -1000, max: 1000, noNaN: true });
const share = fc.double({ min: -1, max: 1, noNaN: true });
const size = fc.double({ min: 1e-6, max: 1e6, noNaN: true });

test.each(['sin', 'cos', 'atan'] as const)('%s is the engine’s but for its last digits', (name) => {
  fc.assert(fc.property(angle, (a) => isNear(maths[name](a), Math[name](a))));
});

test.each(['asin', 'acos'] as const)('%s too', (name) => {
  fc.assert(fc.property(share, (s) => isNear(maths[name](s), Math[name](s))));
  expect(maths[name](1.5)).toBeNaN();
});

test('and those of two numbers, and of sizes', () => {
  fc.assert(
    fc.property(angle, size, (x, y) => {
      expect(isNear(maths.atan2(x, y), Math.atan2(x, y))).toBe(true);
      expect(isNear(maths.hypot(x, y), Math.hypot(x, y))).toBe(true);
      expect(isNear(maths.log(y), Math.log(y))).toBe(true);
      expect(isNear(maths.tan(x / 1000), Math.tan(x / 1000))).toBe(true);
    }),
  );
  expect(maths.hypot(2, 3, 6)).toBe(7);
});

test('powers, whole ones as products', () => {
  const exponent = fc.double({ min: -3, max: 3, noNaN: true });
  fc.assert(fc.property(size, exponent, (x, n) => isNear(maths.pow(x, n) / Math.pow(x, n), 1)));
  for (const n of [2, 3, 4]) expect(maths.pow(0.1, n)).toBeCloseTo(Math.pow(0.1, n), 15);
  expect(maths.pow(-3, 3)).toBe(-27);
  expect(maths.pow(-8, 0.5)).toBeNaN();
});

test('these digits, on whatever engine; that of Node 20 has others for the last two', () => {
  const found = [
    maths.atan2(1, -3),
    maths.pow(0.3, -0.25),
    maths.acos(0.5463315172965075),
    maths.sin(0.8401559589255176),
  ];
  expect(found).toEqual([2.819842099193151, 1.3512001548070345, 0.9928182944113744, 0.7447472076995317]);
});
