import fc from 'fast-check';
import { Chain, chainLength, flatten } from '../../geometry/plane/chain';
import { Point, distance } from '../../geometry/plane/point';
import { LeadForm, leadFor } from './leads';

/** A straight wall along X, run along from 0 to 40. */
const along: Chain = {
  closed: false,
  vertices: [
    { x: 0, y: 0, bulge: 0 },
    { x: 40, y: 0, bulge: 0 },
  ],
};
const anywhere = () => true;
const heading = (a: Point, b: Point) => (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
const ends = (chain: Chain) => {
  const points = flatten(chain, 0.00001);
  return { points, first: points[0], last: points[points.length - 1] };
};

test('an arc touches the wall: it arrives in the direction of the lap and leaves in it, by as much as its sweep', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 20, noNaN: true }),
      fc.integer({ min: 10, max: 180 }),
      fc.constantFrom('left' as const, 'right' as const),
      (size, angle, side) => {
        const lead = leadFor(along, { form: 'arc', size, angle }, side, anywhere)!;
        const on = ends(lead.on);
        const off = ends(lead.off);
        expect(on.last).toMatchObject({ x: 0, y: 0 });
        expect(off.first).toMatchObject({ x: 40, y: 0 });
        // By the last and first chord, which may be a degree off the arc.
        expect(Math.abs(heading(on.points[on.points.length - 2], on.last))).toBeLessThan(1);
        expect(Math.abs(heading(off.first, off.points[1]))).toBeLessThan(1);
        for (const lap of [lead.on, lead.off]) expect(chainLength(lap)).toBeCloseTo((size * angle * Math.PI) / 180, 6);
        const free = side === 'left' ? 1 : -1;
        for (const p of [...on.points, ...off.points]) expect(p.y * free).toBeGreaterThan(-1e-9);
      },
    ),
    { numRuns: 100, seed: 5 },
  );
});

test.each([
  ['line', 30, -30],
  ['tangent', 30, 0],
] as const)('a %s is as long as asked and comes at its angle from the free side', (form, angle, direction) => {
  const lead = leadFor(along, { form, size: 6, angle }, 'left', anywhere)!;
  const [a, b] = lead.on.vertices;
  expect(distance(a, b)).toBeCloseTo(6, 9);
  expect(heading(a, b)).toBeCloseTo(direction, 9);
  const [c, d] = lead.off.vertices;
  expect(heading(c, d)).toBeCloseTo(-direction, 9);
});

test('before an arc there may be a straight, in the direction the arc begins with', () => {
  const form: LeadForm = { form: 'arc', size: 5, angle: 90, straight: 3 };
  const { on } = leadFor(along, form, 'left', anywhere)!;
  expect(on.vertices).toHaveLength(3);
  const [a, b] = on.vertices;
  expect(distance(a, b)).toBeCloseTo(3, 9);
  expect(heading(a, b)).toBeCloseTo(-90, 6);
});

test('where there is less room it is halved until it fits, and there is none where nothing does', () => {
  const below = (most: number) => (p: Point) => p.y < most;
  const arc: LeadForm = { form: 'arc', size: 8, angle: 90 };
  const lead = leadFor(along, arc, 'left', below(2.5))!;
  expect(Math.max(...ends(lead.on).points.map((p) => p.y))).toBeCloseTo(2, 3);
  expect(leadFor(along, arc, 'left', () => false)).toBeUndefined();
});
