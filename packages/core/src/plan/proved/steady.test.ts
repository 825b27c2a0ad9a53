import fc from 'fast-check';
import { Boundary } from '../../geometry/plane/boundary';
import { Region, contains, distanceToBoundary, offset } from '../../geometry/plane/clip';
import { atGentleSpeeds, prove } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { againstBest, clearingShapes, measureSteady, steadyJob } from '../../../testing/steady-jobs';
import { checkSteady } from '../../../testing/steady-checker';
import { smoothLink } from '../../operation/milling/steady/links';
import { SteadyClearing } from '../../operation/milling/steady/clearing';
import { Metal } from '../../operation/milling/steady/metal';
import { metalLeft } from '../../operation/milling/rest';
import { area } from '../../geometry/plane/clip';
import { PathBuilder } from '../../path/path';
import { flatten } from '../../geometry/plane/chain';
import { Shape } from '../../part/plate/feature';
import { newFeature } from '../../part/plate/new';
import { instancesOf } from '../../part/plate/shapes';

const square: Region = [
  [
    { x: 0, y: 0 },
    { x: 60, y: 0 },
    { x: 60, y: 40 },
    { x: 0, y: 40 },
  ],
];
const shape = (name: string, D = 10) => clearingShapes(D).find((s) => s.name === name)!;

describe('distance to a boundary', () => {
  const region = offset([[...square[0]], ...offset(shape('blob').target, -12).map((r) => [...r].reverse())], 0);
  const boundary = new Boundary(region);

  test('is the least distance to any edge, signed by the side', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 140, noNaN: true }),
        fc.double({ min: -40, max: 100, noNaN: true }),
        (x, y) => {
          const exact = distanceToBoundary(region, { x, y }) * (contains(region, { x, y }) ? 1 : -1);
          expect(boundary.distance(x, y)).toBeCloseTo(exact, 6);
          for (const least of [-3, 0.5, 4])
            expect(boundary.isDeeper(x, y, least)).toBe(boundary.distance(x, y) >= least);
        },
      ),
      { numRuns: 400, seed: 41 },
    );
  });
});

describe('metal as a distance field', () => {
  const box = { minX: -15, minY: -15, maxX: 75, maxY: 55 };

  test('a straight side cut engages acos(1 - 2 ae / D)', () => {
    for (const ae of [0.3, 1, 2.5, 5, 8]) {
      const metal = new Metal(square, box, 0.25, 5);
      expect(metal.engaged(30, 45 - ae, 1, 0)).toBeCloseTo(Math.acos(1 - (2 * ae) / 10), 1.6);
    }
  });

  test('what was taken can be put back', () => {
    const metal = new Metal(square, box, 0.25, 5);
    const before = metal.depth.slice();
    metal.remember();
    metal.take(10, 10, 50, 30);
    expect(metal.under(30, 20)).toBeLessThanOrEqual(0);
    metal.putBack();
    expect(metal.depth).toEqual(before);
  });
});

describe('links', () => {
  test('are free of corners: each starts and ends with the heading of its poses', () => {
    const angle = fc.double({ min: -3.1, max: 3.1, noNaN: true });
    const place = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(place, place, angle, angle, (x, y, h0, h1) => {
        const found = smoothLink({ x: 0, y: 0, heading: h0 }, { x, y, heading: h1 }, [2], 1000, () => true)!;
        const points = flatten(found.chain, 0.001);
        const [a, b] = points;
        const [c, d] = points.slice(-2);
        const off = (p: typeof a, q: typeof a, h: number) => Math.sin(Math.atan2(q.y - p.y, q.x - p.x) - h);
        if (Math.hypot(b.x - a.x, b.y - a.y) > 0.01) expect(Math.abs(off(a, b, h0))).toBeLessThan(0.05);
        if (Math.hypot(d.x - c.x, d.y - c.y) > 0.01) expect(Math.abs(off(c, d, h1))).toBeLessThan(0.05);
        expect(Math.hypot(d.x - x, d.y - y)).toBeLessThan(1e-6);
      }),
      { numRuns: 200, seed: 42 },
    );
  });

  test('go only where it is free, or not at all', () => {
    const wall = (x: number, y: number) => Math.hypot(x - 10, y) > 4;
    const found = smoothLink({ x: 0, y: 0, heading: 0 }, { x: 20, y: 0, heading: 0 }, [4, 2], 100, wall);
    for (const p of found ? flatten(found.chain, 0.01) : []) expect(wall(p.x, p.y)).toBe(true);
  });
});

describe('what earlier operations left', () => {
  test('a slot, a drilled hole and nothing above the height looked at', () => {
    const path = new PathBuilder().rapid(-10, 20, 5).rapid(-10, 20, -4).line(70, 20, -4, 100, 'cut').build();
    const left = metalLeft(square, [{ tool: tool(4), path }], -4, square, 3);
    expect(area(left)).toBeCloseTo(60 * 40 - 60 * 10, -1);
    expect(area(metalLeft(square, [{ tool: tool(4), path }], -5, square, 3))).toBe(2400);
    const hole = new PathBuilder().rapid(30, 20, 5).line(30, 20, -20, 100, 'cut').build();
    const drilled = metalLeft(square, [{ tool: tool(13), path: hole }], -5, square, 3);
    const r = tool(13).diameter / 2;
    expect(2400 - area(drilled)).toBeCloseTo(Math.PI * r * r, 0);
  });
});

/** Measured from the posted program by the brute-force checker; a small cutter keeps it quick. */
describe('steady-load clearing keeps its promise', () => {
  const bar = { steady: 0.999, peak: 1.25, mean: 0.8, length: 1.25, left: 0.001, widest: 0.25, gouge: 0.01 };
  test.each([
    ['rectangle', 16, 4, {}],
    ['three islands', 16, 4, { wallAllowance: 0.3 }],
    ['boss from outside', 16, 2, {}],
    ['neck of 1.15 D', 16, 3, { direction: 'both ways' }],
  ])('%s, D %d, bite %d', (name, D, ae, params) => {
    const { figures, findings } = measureSteady(shape(name, D), D, ae, params);
    expect(findings).toEqual([]);
    expect(figures.steady).toBeGreaterThanOrEqual(bar.steady);
    expect(figures.peak).toBeLessThanOrEqual(bar.peak);
    expect(figures.mean).toBeGreaterThanOrEqual(bar.mean);
    expect(figures.length).toBeLessThanOrEqual(bar.length);
    expect(figures.left).toBeLessThanOrEqual(bar.left);
    expect(figures.widest).toBeLessThanOrEqual(bar.widest);
    expect(figures.gouge).toBeLessThanOrEqual(bar.gouge);
    expect(figures.brushed).toBe(0);
  });

  test('a neck scarcely wider than the cutter takes no longer than the best known, and few ways that do not cut', () => {
    const { figures } = measureSteady(shape('neck of 1.15 D'), 10, 1);
    expect(figures.idle).toBeLessThanOrEqual(0.18);
    expect(againstBest('neck of 1.15 D', figures)).toBeLessThanOrEqual(1);
  });

  test('a light bite is held as well', () => {
    const { figures } = measureSteady(shape('blob'), 10, 0.3);
    expect(figures.steady).toBeGreaterThanOrEqual(bar.steady);
    expect(figures.most).toBeLessThanOrEqual(1.3);
    expect(figures.left).toBeLessThanOrEqual(bar.left);
    expect(figures.gouge).toBeLessThanOrEqual(bar.gouge);
  });

  test.each([
    [1.5, 0.32],
    [2.05, 0.32],
    [3, 0],
  ])('a corner between a wall and an open side is cut with a bite of %d, with %d more on the stock', (bite, more) => {
    const rect = (x0: number, y0: number, x1: number, y1: number): Region => [
      [
        { x: x0, y: y0 },
        { x: x1, y: y0 },
        { x: x1, y: y1 },
        { x: x0, y: y1 },
      ],
    ];
    const clearing = new SteadyClearing({
      allowed: rect(62, -10, 98, 70),
      stock: rect(45, -more, 90 + more, 60 + more),
      ...{ radius: 8, bite, firstBite: bite, turn: 0.8, allowance: 0.32, both: false, conventional: false, helix: 0.8 },
      ...{ linkFeed: 6000, rapid: 15_000, retract: 15, patience: 1, longestLink: 1000 },
    });
    clearing.run();
    expect(clearing.leftStanding(0.05).area).toBeLessThan(0.25);
  });

  describe('metal as far from a wall as the cutter is wide, to the hair', () => {
    const ring = (shape: Shape, x: number, y: number) => flatten(instancesOf({ ...hole, shape, x, y })[0]);
    const hole = newFeature([], 'pocket', 'Pocket', { type: 'round', diameter: 12 }, { depth: 20 });
    const round = (diameter: number, x: number, y: number) => ring({ type: 'round', diameter }, x, y);
    const cleared = (region: Region, cut: { radius: number; bite: number; turn: number; allowance: number }) => {
      const clearing = new SteadyClearing({
        ...{ allowed: region, stock: region, firstBite: cut.bite, helix: 1.28, ...cut },
        ...{ both: false, conventional: false, linkFeed: 3000, rapid: 15_000, retract: 15 },
        ...{ patience: 1, longestLink: 200 },
      });
      const looks = jest.spyOn(Metal.prototype, 'under');
      clearing.run();
      const count = looks.mock.calls.length;
      looks.mockRestore();
      return { clearing, count };
    };

    test('is not looked at for ever behind a gap', () => {
      const pocket = ring({ type: 'rectangle', width: 90, height: 56, radius: 6 }, 55, 38);
      // Each island leaves 18 mm on one side: the cutter, what it leaves, and its smallest turn.
      const region = [pocket, round(12, 34, 26).reverse(), round(12, 76, 50).reverse()];
      const { count } = cleared(region, { radius: 8, bite: 1.6, turn: 0.8, allowance: 0.2 });
      expect(count).toBeLessThan(500_000);
    });

    test('ends no room that is behind it: a small corner is entered by itself, whatever the neighbours took of it', () => {
      const pocket = ring({ type: 'rectangle', width: 90, height: 56, radius: 6 }, 55, 38);
      const region = [pocket, round(12, 34, 26).reverse(), round(12, 76, 50).reverse()];
      const { clearing } = cleared(region, { radius: 8, bite: 2.05, turn: 0.8, allowance: 0.32 });
      // One round each corner.
      expect(clearing.stretches.filter(({ kind }) => kind === 'ramp')).toHaveLength(2);
      expect(clearing.leftStanding(0.1).area).toBeLessThan(0.5);
      expect(clearing.leftStanding(0.1, 2).area).toBe(0);
    });

    test('is none it could reach where there is no room at all', () => {
      const groove = [round(56, 45, 45), round(49, 45, 45).reverse()];
      const { clearing, count } = cleared(groove, { radius: 1.5, bite: 0.33, turn: 0.15, allowance: 0.1 });
      expect(count).toBeLessThan(500_000);
      expect(clearing.leftStanding(0.05).area).toBe(0);
    });
  });

  test('the checker itself sees a slot, a gouge and a rapid through metal', () => {
    const text = ['G0 X-20. Y20. Z5.', 'Z-10.', 'X-8.', 'G1 X30. F3000.', 'G0 X50.'].join('\n');
    const figures = checkSteady({
      text,
      zero: { x: 0, y: 0, z: 0 },
      z: -10,
      radius: 5,
      bite: 1,
      turn: 0.5,
      allowance: 0,
      target: square,
      keep: [square[0].map((p) => ({ x: p.x, y: p.y + 22 }))],
      stock: square,
      linkFeed: 6000,
      entryFeed: 500,
    });
    expect(figures.peak).toBeCloseTo(Math.PI / Math.acos(0.8), 1);
    expect(figures.gouge).toBeGreaterThan(2.9);
    expect(figures.brushed).toBeGreaterThan(0.1);
    expect(figures.left).toBeGreaterThan(0.5);
  });

  test('our own prover agrees: no gouge, no rapid through metal, nothing left on the floor', () => {
    for (const params of [{}, { direction: 'conventional' }]) {
      const proof = prove(atGentleSpeeds(steadyJob(shape('blob', 16), 16, 3, params)), 0.2);
      expect(proof.codes.filter((c) => c !== 'metal-left')).toEqual([]);
    }
  });

  test('the same job gives the same program', () => {
    const job = steadyJob(shape('uneven stock', 10), 10, 2);
    expect(prove(job, 0.5).text).toBe(prove(JSON.parse(JSON.stringify(job)), 0.5).text);
  });
});
