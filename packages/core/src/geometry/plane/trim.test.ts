import fc from 'fast-check';
import { Chain, arcOf, chainLength, circle, flatten, pieces, reversed, signedArea, transform } from './chain';
import { area, difference, offset } from './clip';
import { crossingsOf, filleted, trimmed, withRoundCorners } from './trim';
import { distance } from './point';

const box = (x0: number, y0: number, x1: number, y1: number): Chain => ({
  closed: true,
  vertices: [
    { x: x0, y: y0, bulge: 0 },
    { x: x1, y: y0, bulge: 0 },
    { x: x1, y: y1, bulge: 0 },
    { x: x0, y: y1, bulge: 0 },
  ],
});
const regionOf = (chain: Chain) => [flatten(chain, 1e-4)];

test('lines and circles cross where they do', () => {
  expect(crossingsOf(box(0, 0, 10, 10), box(5, 5, 20, 20))).toHaveLength(2);
  const [p, q] = crossingsOf(circle(0, 0, 5), circle(6, 0, 5)).sort((a, b) => a.y - b.y);
  expect(p.x).toBeCloseTo(3, 9);
  expect(p.y).toBeCloseTo(-4, 9);
  expect(q.y).toBeCloseTo(4, 9);
  expect(crossingsOf(circle(0, 0, 5), box(1, -9, 9, 9)).map((c) => c.x)).toEqual([
    expect.closeTo(1, 9),
    expect.closeTo(1, 9),
  ]);
  expect(crossingsOf(circle(0, 0, 5), circle(0, 0, 3))).toEqual([]);
});

test('a slot in a disc: straights stay straight, the arc an arc of the same circle', () => {
  const disc = circle(0, 0, 30);
  const { chain, corners } = trimmed(disc, box(20, -4, 40, 4))!;
  expect(signedArea(chain)).toBeGreaterThan(0);
  expect(chain.vertices.filter((v) => v.bulge === 0)).toHaveLength(3);
  for (const { a, b, bulge } of pieces(chain)) if (bulge) expect(arcOf(a, b, bulge).radius).toBeCloseTo(30, 9);
  for (const c of corners) expect(Math.hypot(c.x, c.y)).toBeCloseTo(30, 9);
  const round = corners.reduce((c, corner) => filleted(c, corner, 2)!, chain);
  const radii = [...pieces(round)].filter((p) => p.bulge).map((p) => arcOf(p.a, p.b, p.bulge).radius);
  expect(radii.filter((r) => Math.abs(r - 2) < 1e-9)).toHaveLength(2);
  // Nothing sharper than the rounding is left at the mouth: rolled over by a ball of 2 mm it stays what it is.
  const opened = offset(offset(regionOf(round), -2, 1e-4), 2, 1e-4);
  expect(area(difference(regionOf(round), opened))).toBeLessThan(0.02);
  expect(area(difference(regionOf(chain), opened))).toBeGreaterThan(0.5);
});

test('what does not cross in two places trims nothing; a mouth that has no room is none', () => {
  const plate = box(0, 0, 40, 30);
  expect(trimmed(plate, circle(20, 15, 5))).toBeUndefined();
  expect(trimmed(plate, circle(90, 15, 5))).toBeUndefined();
  expect(trimmed(plate, box(10, -5, 20, 35))).toBeUndefined();
  const { chain, corners } = trimmed(plate, box(10, -5, 20, 3))!;
  expect(filleted(chain, corners[0], 2)).toBeDefined();
  expect(filleted(chain, corners[0], 4)).toBeUndefined();
});

test('whatever is trimmed, however it lies and is drawn, the area is the difference and the line closed', () => {
  const lies = fc.record({
    x: fc.integer({ min: -6000, max: 6000 }).map((v) => v / 100),
    y: fc.integer({ min: -6000, max: 6000 }).map((v) => v / 100),
    turn: fc.integer({ min: 0, max: 3600 }).map((v) => v / 10),
    round: fc.boolean(),
    back: fc.boolean(),
  });
  let cut = 0;
  fc.assert(
    fc.property(lies, fc.boolean(), ({ x, y, turn, round, back }, isDisc) => {
      const outer = isDisc ? circle(0, 0, 40) : box(-40, -30, 40, 30);
      const shape = transform(round ? circle(0, 0, 14) : box(-15, -9, 15, 9), { dx: x, dy: y, turn });
      const found = trimmed(back ? reversed(outer) : outer, back ? reversed(shape) : shape);
      if (!found) return;
      cut++;
      const wanted = difference(regionOf(outer), regionOf(shape));
      const got = regionOf(found.chain);
      expect(area(difference(wanted, got)) + area(difference(got, wanted))).toBeLessThan(0.05);
      for (const { a, b } of pieces(found.chain)) expect(distance(a, b)).toBeGreaterThan(1e-7);
      for (const corner of found.corners) {
        const rounded = filleted(found.chain, corner, 0.5);
        if (rounded) expect(chainLength(rounded)).toBeLessThan(chainLength(found.chain));
      }
    }),
    { numRuns: 400, seed: 5 },
  );
  expect(cut).toBeGreaterThan(60);
});

describe('round corners', () => {
  const zigzag: Chain = {
    closed: false,
    vertices: [
      { x: 0, y: 0, bulge: 0 },
      { x: 10, y: 0, bulge: 0 },
      { x: 10, y: 10, bulge: 0 },
      { x: 20, y: 10, bulge: -0.4 },
      { x: 26, y: 16, bulge: 0 },
    ],
  };
  const radiiOf = (chain: Chain) =>
    [...pieces(chain)].filter((p) => p.bulge).map((p) => arcOf(p.a, p.b, p.bulge).radius);

  test('left and right, between straights and onto an arc; the ends stay', () => {
    const round = withRoundCorners(zigzag, 1.5);
    expect(radiiOf(round).filter((r) => Math.abs(r - 1.5) < 1e-9)).toHaveLength(3);
    expect(round.vertices[0]).toMatchObject({ x: 0, y: 0 });
    expect(round.vertices.at(-1)).toMatchObject({ x: 26, y: 16 });
    expect(chainLength(round)).toBeLessThan(chainLength(zigzag));
    expect(chainLength(round)).toBeGreaterThan(chainLength(zigzag) - 3 * 1.5);
  });

  test('all round a closed line; by less where there is no room', () => {
    expect(radiiOf(withRoundCorners(box(0, 0, 10, 6), 2))).toEqual(Array(4).fill(expect.closeTo(2, 9)));
    expect(radiiOf(withRoundCorners(box(0, 0, 10, 6), 5))).toEqual(Array(4).fill(expect.closeTo(2.5, 9)));
    expect(withRoundCorners(circle(0, 0, 5), 1).vertices).toHaveLength(circle(0, 0, 5).vertices.length);
  });
});
