import fc from 'fast-check';
import { Boundary } from './boundary';
import { segmentMeetsBox } from '../space/box';
import {
  Chain,
  asCircle,
  chainBounds,
  chainLength,
  circle,
  flatten,
  pointAtShare,
  shareNear,
  signedArea,
  splitAlong,
  startedAtShare,
  startDirection,
  transform,
} from './chain';
import {
  Region,
  area,
  bandAlong,
  contains,
  difference,
  distanceToBoundary,
  islands,
  offset,
  offsetOpen,
  union,
} from './clip';
import { selfCrossing } from './crossing';
import { Point, boundsOf, distance, distanceToSegment } from './point';

const SEED = { seed: 11, numRuns: 60 };
const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });
const angle = fc.double({ min: -180, max: 180, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });

/** A ring round the origin: as many corners, each so far out. */
const star = fc.array(fc.double({ min: 12, max: 40, noNaN: true }), { minLength: 3, maxLength: 12 }).map((radii) =>
  radii.map((r, i): Point => {
    const a = (2 * Math.PI * i) / radii.length;
    return { x: r * Math.cos(a), y: r * Math.sin(a) };
  }),
);

/** A closed chain of straights and arcs that bulge out a little. */
const chain = fc
  .tuple(star, fc.array(fc.double({ min: 0, max: 0.4, noNaN: true }), { minLength: 12, maxLength: 12 }))
  .map(([ring, bulges]): Chain => ({ closed: true, vertices: ring.map((p, i) => ({ ...p, bulge: bulges[i] })) }));

const hole = [...flatten(circle(0, 0, 3), 0.01)].reverse();

describe('the distance to a boundary', () => {
  test('is that to the nearest of all edges, positive inside, wherever one asks', () => {
    fc.assert(
      fc.property(star, fc.array(point, { minLength: 1, maxLength: 20 }), (ring, points) => {
        const region: Region = [ring, hole];
        const boundary = new Boundary(region);
        for (const p of points) {
          const signed = boundary.distance(p.x, p.y);
          expect(Math.abs(signed)).toBeCloseTo(distanceToBoundary(region, p), 9);
          if (Math.abs(signed) > 1e-6) expect(signed > 0).toBe(contains(region, p));
        }
      }),
      SEED,
    );
  });
});

describe('distance to a segment', () => {
  test('no point of it is nearer, and the nearest is where it says', () => {
    fc.assert(
      fc.property(point, point, point, share, (p, a, b, t) => {
        const { distance: d, at } = distanceToSegment(p, a, b);
        const on = (s: number) => ({ x: a.x + (b.x - a.x) * s, y: a.y + (b.y - a.y) * s });
        expect(d).toBeLessThanOrEqual(distance(p, on(t)) + 1e-9);
        expect(d).toBeCloseTo(distance(p, on(at)), 9);
      }),
      SEED,
    );
  });
});

describe('a segment and a box', () => {
  test('meet when some point of the segment is near enough to some point of the box', () => {
    const box = { minX: -10, minY: -5, maxX: 15, maxY: 8 };
    const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
    fc.assert(
      fc.property(point, point, fc.double({ min: 0.5, max: 10, noNaN: true }), (a, b, radius) => {
        let nearest = Infinity;
        for (let k = 0; k <= 400; k++) {
          const p = { x: a.x + ((b.x - a.x) * k) / 400, y: a.y + ((b.y - a.y) * k) / 400 };
          const q = { x: clamp(p.x, box.minX, box.maxX), y: clamp(p.y, box.minY, box.maxY) };
          nearest = Math.min(nearest, distance(p, q));
        }
        // Between two samples it may come nearer by half their distance at most.
        const slack = distance(a, b) / 800;
        if (nearest < radius - 1e-9) expect(segmentMeetsBox(a, b, box, radius)).toBe(true);
        if (nearest > radius + slack) expect(segmentMeetsBox(a, b, box, radius)).toBe(false);
      }),
      SEED,
    );
  });
});

describe('chains', () => {
  test('shares of their length: there and back, in order, all of it', () => {
    fc.assert(
      fc.property(chain, share, (c, s) => {
        const p = pointAtShare(c, s);
        const near = shareNear(c, p);
        expect(distance(pointAtShare(c, near), p)).toBeLessThan(chainLength(c) / 400);
        const moved = startedAtShare(c, s);
        expect(distance(moved.vertices[0], p)).toBeLessThan(1e-6);
        expect(chainLength(moved)).toBeCloseTo(chainLength(c), 6);
        expect(signedArea(moved)).toBeCloseTo(signedArea(c), 5);
      }),
      SEED,
    );
  });

  test('a stretch between two shares has their part of the length, and ends where they are', () => {
    fc.assert(
      fc.property(chain, share, share, (c, s, t) => {
        const [from, to] = s < t ? [s, t] : [t, s];
        const stretch = splitAlong(c, from, to);
        if (to - from < 1e-6) return;
        expect(chainLength(stretch) / chainLength(c)).toBeCloseTo(to - from, 6);
        expect(distance(stretch.vertices[0], pointAtShare(c, from))).toBeLessThan(1e-6);
        expect(distance(stretch.vertices[stretch.vertices.length - 1], pointAtShare(c, to))).toBeLessThan(1e-6);
      }),
      SEED,
    );
  });

  test('chords lie in the box of a chain, and the box is no larger than they need', () => {
    fc.assert(
      fc.property(chain, (c) => {
        const [box, seen] = [chainBounds(c), boundsOf(flatten(c, 0.0005))];
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
          expect(Math.abs(box[side] - seen[side])).toBeLessThan(0.001);
      }),
      SEED,
    );
  });

  test('a circle turned and moved is found again, an oval is none', () => {
    fc.assert(
      fc.property(point, fc.double({ min: 0.1, max: 40, noNaN: true }), angle, (p, r, turn) => {
        const found = asCircle(transform(circle(0, 0, r), { turn, dx: p.x, dy: p.y }))!;
        expect(distance(found.centre, p)).toBeLessThan(1e-9);
        expect(found.radius).toBeCloseTo(r, 9);
      }),
      SEED,
    );
    const half = { bulge: 1 };
    const oval = [
      { x: 10, y: -5, ...half },
      { x: 10, y: 5, bulge: 0 },
      { x: -10, y: 5, ...half },
      { x: -10, y: -5, bulge: 0 },
    ];
    expect(asCircle({ closed: true, vertices: oval })).toBeUndefined();
  });

  test('the direction at the start is that of the first chord of a fine division', () => {
    fc.assert(
      fc.property(chain, (c) => {
        const [a, b] = flatten(c, 1e-6);
        const d = startDirection(c);
        const along = (d.x * (b.x - a.x) + d.y * (b.y - a.y)) / distance(a, b);
        expect(along).toBeGreaterThan(0.999);
      }),
      SEED,
    );
  });
});

describe('regions', () => {
  test('out and in again: never more than there was, and out never less', () => {
    fc.assert(
      fc.property(star, fc.double({ min: 0.1, max: 4, noNaN: true }), (ring, by) => {
        const whole = area([ring]);
        const opened = offset(offset([ring], -by), by);
        expect(area(difference(opened, offset([ring], 0.005)))).toBeLessThan(0.01);
        expect(area(offset([ring], by))).toBeGreaterThan(whole);
      }),
      SEED,
    );
  });

  test('two regions: what both cover counts once', () => {
    fc.assert(
      fc.property(star, star, point, (a, b, by) => {
        const moved = b.map((p) => ({ x: p.x + by.x, y: p.y + by.y }));
        const both = area([a]) + area([moved]) - area(union([a], [moved]));
        expect(both).toBeCloseTo(area([a]) - area(difference([a], [moved])), 1);
        expect(islands(union([a], [moved])).reduce((sum, piece) => sum + area(piece), 0)).toBeCloseTo(
          area(union([a], [moved])),
          1,
        );
      }),
      SEED,
    );
  });

  test('a band along a line has its length, and a line beside it keeps its distance', () => {
    const line = [
      { x: 0, y: 0 },
      { x: 40, y: 0 },
      { x: 40, y: 30 },
    ];
    // Two strips, a square's worth of corner outside as a quarter circle, inside once, and two half circles at the ends.
    expect(area(bandAlong(line, 3))).toBeCloseTo(70 * 6 + Math.PI * 9 + (Math.PI * 9) / 4 - 9, 0);
    for (const side of ['left', 'right'] as const) {
      const beside = offsetOpen(line, 3, side);
      for (const p of beside) {
        const d = Math.min(
          distanceToSegment(p, line[0], line[1]).distance,
          distanceToSegment(p, line[1], line[2]).distance,
        );
        expect(Math.abs(d - 3)).toBeLessThan(0.01);
      }
      expect(distance(beside[0], { x: 0, y: side === 'left' ? 3 : -3 })).toBeLessThan(0.01);
    }
    expect(offsetOpen(line, 0, 'left')).toBe(line);
  });
});

test('a ring crosses itself where two of its sides do, and nowhere else', () => {
  fc.assert(
    fc.property(star, (ring) => expect(selfCrossing(ring)).toBeUndefined()),
    SEED,
  );
  fc.assert(
    fc.property(fc.array(point, { minLength: 4, maxLength: 9 }), (ring) => {
      const at = selfCrossing(ring);
      if (!at) return;
      const on = ring.filter((a, i) => distanceToSegment(at, a, ring[(i + 1) % ring.length]).distance < 1e-6);
      expect(on.length).toBeGreaterThanOrEqual(2);
    }),
    SEED,
  );
});
