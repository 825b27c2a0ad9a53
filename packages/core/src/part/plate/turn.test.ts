import fc from 'fast-check';
import { FACES, FACE_UPS, UPS, back, faceOf, isFlat, isOnSide, turnBetween, turnPlace, turnedBody } from './turn';

const box = { x: 7, y: -3, size: [60, 40, 20] as [number, number, number] };
const [low, high] = [
  { x: box.x - 30, y: box.y - 20, z: -20 },
  { x: box.x + 30, y: box.y + 20, z: 0 },
];
const middle = { x: box.x, y: box.y, z: -10 };
const as = (up: (typeof UPS)[number], p: typeof low) => turnPlace(turnBetween('top', up), p, box);

test('there are 24 ways of lying, four with each face up, all of them turns and none a mirror', () => {
  expect(new Set(UPS.map((up) => JSON.stringify(turnBetween('top', up)))).size).toBe(24);
  for (const face of FACES) expect(UPS.filter((up) => faceOf(up) === face)).toHaveLength(4);
  for (const up of UPS) {
    const { takes, flips } = turnBetween('top', up);
    const isEven = ['012', '120', '201'].includes(takes.join(''));
    expect(flips.filter(Boolean).length % 2 === 0).toBe(isEven);
    expect(isFlat(turnBetween('top', up))).toBe(!isOnSide(up));
  }
});

test.each([
  ['front', { ...middle, y: low.y }],
  ['back', { ...middle, y: high.y }],
  ['left', { ...middle, x: low.x }],
  ['right', { ...middle, x: high.x }],
] as const)('%s: that face is up, the top of the part lies to the back', (face, on) => {
  expect(as(FACE_UPS[face], on)).toMatchObject({ z: 0 });
  const { y, size } = turnedBody(turnBetween('top', FACE_UPS[face]), box);
  expect(as(FACE_UPS[face], { ...middle, z: 0 }).y).toBeCloseTo(y + size[1] / 2, 9);
  expect(size[1]).toBe(20);
});

test('whoever stands before a face sees its right end at the right', () => {
  expect(as('front', { ...middle, x: high.x }).x).toBeCloseTo(box.x + 30, 9);
  expect(as('back', { ...middle, x: high.x }).x).toBeCloseTo(box.x - 30, 9);
  expect(as('right', { ...middle, y: high.y }).x).toBeCloseTo(box.x + 20, 9);
  expect(as('left', { ...middle, y: high.y }).x).toBeCloseTo(box.x - 20, 9);
});

test('two turns make one, and a turn and its way back none', () => {
  const up = fc.constantFrom(...UPS);
  const mm = fc.double({ min: -50, max: 50, noNaN: true });
  fc.assert(
    fc.property(up, up, mm, mm, mm, (from, to, x, y, z) => {
      const first = turnBetween('top', from);
      const there = turnPlace(turnBetween(from, to), turnPlace(first, { x, y, z }, box), turnedBody(first, box));
      const at = as(to, { x, y, z });
      for (const axis of ['x', 'y', 'z'] as const) expect(there[axis]).toBeCloseTo(at[axis], 9);
      expect(turnBetween(to, from)).toEqual(back(turnBetween(from, to)));
    }),
    { numRuns: 200, seed: 3 },
  );
});
