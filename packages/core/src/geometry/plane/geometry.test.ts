import fc from 'fast-check';
import { fitArcs } from './arcfit';
import {
  Chain,
  asCircle,
  chainBounds,
  chainLength,
  circle,
  flatten,
  pieces,
  reversed,
  signedArea,
  startedAtShare,
  startedNear,
  startedOnLongest,
  transform,
} from './chain';
import { area, contains, difference, distanceToBoundary, intersection, islands, offset, ringArea, union } from './clip';
import { selfCrossing } from './crossing';
import { joinChains } from './join';

const square = (size: number, x = 0, y = 0) => [
  { x, y },
  { x: x + size, y },
  { x: x + size, y: y + size },
  { x, y: y + size },
];
const straight = (x0: number, y0: number, x1: number, y1: number): Chain => ({
  closed: false,
  vertices: [
    { x: x0, y: y0, bulge: 0 },
    { x: x1, y: y1, bulge: 0 },
  ],
});

describe('chains', () => {
  const c = circle(5, 7, 3);

  test('a circle keeps its length, area and centre exactly', () => {
    expect(chainLength(c)).toBeCloseTo(2 * Math.PI * 3, 9);
    expect(signedArea(c)).toBeCloseTo(Math.PI * 9, 9);
    expect(asCircle(c)).toEqual({
      centre: { x: expect.closeTo(5, 9), y: expect.closeTo(7, 9) },
      radius: expect.closeTo(3, 9),
    });
  });

  test('chords stay within tolerance', () => {
    const points = flatten(c, 0.01);
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length];
      expect(3 - Math.hypot((p.x + q.x) / 2 - 5, (p.y + q.y) / 2 - 7)).toBeLessThan(0.01);
    });
  });

  test('turning round keeps length and flips the area; restarting keeps both', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (share, bulge) => {
          const chain: Chain = {
            closed: true,
            vertices: [
              { x: 0, y: 0, bulge: bulge / 10 },
              { x: 10, y: 0, bulge: 0 },
              { x: 4, y: 8, bulge: 0.3 },
            ],
          };
          const length = chainLength(chain);
          const started = startedAtShare(chain, share);
          expect(signedArea(reversed(chain))).toBeCloseTo(-signedArea(chain), 6);
          expect(chainLength(started)).toBeCloseTo(length, 6);
          expect(signedArea(started)).toBeCloseTo(signedArea(chain), 6);
          expect(chainLength(startedNear(chain, { x: 5, y: -3 }))).toBeCloseTo(length, 6);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });

  test('moving, turning and mirroring keep shape', () => {
    const moved = transform(c, { dx: 10, turn: 30, scale: 2 });
    expect(asCircle(moved)!.radius).toBeCloseTo(6, 9);
    expect(signedArea(transform(c, { mirror: true }))).toBeCloseTo(-Math.PI * 9, 9);
  });

  test('a lap begins in the middle of the longest straight', () => {
    const chain: Chain = { closed: true, vertices: square(10).map((p) => ({ ...p, bulge: 0 })) };
    chain.vertices[2].x = 14;
    expect(startedOnLongest(chain).vertices[0]).toMatchObject({ x: 7, y: 10 });
  });
});

describe('regions', () => {
  test('booleans and areas', () => {
    expect(area(difference([square(10)], [square(4, 3, 3)]))).toBeCloseTo(84, 3);
    expect(area(union([square(10)], [square(10, 5, 0)]))).toBeCloseTo(150, 3);
    expect(area(intersection([square(10)], [square(10, 5, 5)]))).toBeCloseTo(25, 3);
  });

  test('offsets grow by the closed form: area + perimeter·d + π·d²', () => {
    expect(area(offset([square(10)], 2))).toBeCloseTo(100 + 80 + Math.PI * 4, 1);
    expect(area(offset([square(10)], -2))).toBeCloseTo(36, 3);
    expect(offset([square(3)], -2)).toEqual([]);
  });

  test('a boundary moved by d lies d away, within the precision of offsets', () => {
    for (const p of offset([square(20)], 3).flat())
      expect(Math.abs(distanceToBoundary([square(20)], p) - 3)).toBeLessThan(0.0015);
  });

  test('separate pieces come with their own holes', () => {
    const pieces = islands(union(difference([square(10)], [square(4, 3, 3)]), [square(2, 4, 4)]));
    expect(pieces.map((p) => p.length).sort()).toEqual([1, 2]);
    expect(pieces.every((p) => ringArea(p[0]) > 0 && p.slice(1).every((h) => ringArea(h) < 0))).toBe(true);
  });

  test('inside and outside', () => {
    const ring = difference([square(10)], [square(4, 3, 3)]);
    expect(contains(ring, { x: 1, y: 1 })).toBe(true);
    expect(contains(ring, { x: 5, y: 5 })).toBe(false);
    expect(contains(ring, { x: 11, y: 5 })).toBe(false);
  });

  test('a bow tie crosses itself, a square does not', () => {
    expect(selfCrossing([square(10)[0], square(10)[2], square(10)[1], square(10)[3]])).toEqual({ x: 5, y: 5 });
    expect(selfCrossing(square(10))).toBeUndefined();
  });
});

describe('arcs from chords', () => {
  test('an offset rounded square becomes four straights and four arcs again', () => {
    const [ring] = offset([square(30)], 5);
    const chain = fitArcs(ring, 0.002);
    expect([...pieces(chain)].filter((p) => p.bulge !== 0).length).toBeLessThanOrEqual(8);
    expect(Math.abs(signedArea(chain) - (900 + 600 + Math.PI * 25))).toBeLessThan(0.05);
  });

  test('every chord point stays within tolerance of the fitted chain', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 2, max: 12 }), (radius, size) => {
        const [ring] = offset([square(size + 4)], radius);
        const chain = fitArcs(ring, 0.002);
        const fine = flatten(chain, 0.0002);
        expect(Math.max(...ring.map((p) => distanceToBoundary([fine], p)))).toBeLessThan(0.003);
      }),
      { numRuns: 20, seed: 4 },
    );
  });

  test('straight-sided polygons keep their corners', () => {
    const chain = fitArcs(square(10));
    expect(chain.vertices).toHaveLength(4);
    expect(chain.vertices.every((v) => v.bulge === 0)).toBe(true);
  });
});

describe('joining', () => {
  const sides = [straight(0, 0, 10, 0), straight(10, 10, 10, 0), straight(0, 10, 10, 10), straight(0, 10, 0, 0.005)];

  test('pieces in any order and direction close within tolerance', () => {
    const { chains, gaps } = joinChains(sides, 0.01);
    expect(chains).toHaveLength(1);
    expect(chains[0].closed).toBe(true);
    expect(Math.abs(signedArea(chains[0]))).toBeCloseTo(100, 1);
    expect(gaps).toEqual([]);
  });

  test('a gap is told with its place, and closed only when asked', () => {
    const open = [...sides.slice(0, 3), straight(0, 10, 0, 0.5)];
    const told = joinChains(open, 0.01);
    expect(told.chains[0].closed).toBe(false);
    expect(told.gaps[0].width).toBeCloseTo(0.5, 6);
    expect(joinChains(open, 0.01, 0.6).chains[0].closed).toBe(true);
  });

  test('shuffled pieces give the same area', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray(sides, { minLength: 4 }),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        (order, flips) => {
          const { chains } = joinChains(
            order.map((c, i) => (flips[i] ? reversed(c) : c)),
            0.01,
          );
          return chains.length === 1 && chains[0].closed && Math.abs(Math.abs(signedArea(chains[0])) - 100) < 0.1;
        },
      ),
      { numRuns: 100, seed: 5 },
    );
  });
});

test('the box of a chain is exact: arcs reach as far as their circle, from wherever they start', () => {
  expect(chainBounds(circle(3, -2, 32))).toEqual({ minX: -29, minY: -34, maxX: 35, maxY: 30 });
  const bow = (bulge: number) =>
    chainBounds({
      closed: false,
      vertices: [
        { x: -5, y: 0, bulge },
        { x: 5, y: 0, bulge: 0 },
      ],
    });
  expect(bow(1).minY).toBeCloseTo(-5, 9);
  expect(bow(1).maxY).toBeCloseTo(0, 9);
  expect(bow(-1).maxY).toBeCloseTo(5, 9);
  expect(bow(0.4)).toEqual({ minX: -5, maxX: 5, minY: expect.closeTo(-2, 9), maxY: 0 });
});
