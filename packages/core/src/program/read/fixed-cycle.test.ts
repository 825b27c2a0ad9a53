import { FixedCycle } from './fixed-cycle';
import { wordsOf } from './words';

const words = (line: string) => wordsOf(line).words;
const depths = (cycle: FixedCycle) => {
  const path = cycle.hole(10, 20, 30, cycle.initial, 100);
  return Array.from({ length: path.count }, (_, i) => `${path.kind[i] === 0 ? 'G0' : 'G1'} ${path.z[i].toFixed(2)}`);
};

test('what a line leaves out stays as it was; a cycle without depth or start height is not whole', () => {
  const cycle = new FixedCycle('drill', 30);
  cycle.take(words('G81 X10 Y20 R2'), true, 1);
  expect(cycle.isWhole).toBe(false);
  cycle.take(words('Z-5'), true, 1);
  expect(cycle.isWhole).toBe(true);
  expect([cycle.r, cycle.z]).toEqual([2, -5]);
  cycle.take(words('X30'), true, 1);
  expect([cycle.r, cycle.z]).toEqual([2, -5]);
});

test('incremental heights count from the height it was called at and from where feed begins, in inches too', () => {
  const cycle = new FixedCycle('drill', 25.4);
  cycle.take(words('G81 X1 R-.9 Z-.5'), false, 25.4);
  expect(cycle.r).toBeCloseTo(2.54, 9);
  expect(cycle.z).toBeCloseTo(-10.16, 9);
});

test('pecks of Q, the last to the bottom; a wait in milliseconds without a point, in seconds with one', () => {
  const cycle = new FixedCycle('peck', 30);
  cycle.take(words('G83 X10 Y20 R2 Z-5 Q3 P500'), true, 1);
  expect(cycle.p).toBe(0.5);
  expect(depths(cycle)).toEqual(
    'G0 30.00,G0 2.00,G1 -1.00,G0 2.00,G0 -0.50,G1 -4.00,G0 2.00,G0 -3.50,G1 -5.00,G0 30.00'.split(','),
  );
  cycle.take(words('P1.5'), true, 1);
  expect(cycle.p).toBe(1.5);
});

test('a reamer comes out at its feed', () => {
  const cycle = new FixedCycle('ream', 30);
  cycle.take(words('G85 X10 Y20 R2 Z-5'), true, 1);
  expect(depths(cycle)).toEqual(['G0 30.00', 'G0 2.00', 'G1 -5.00', 'G1 2.00', 'G0 30.00']);
});
