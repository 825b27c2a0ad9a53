import fc from 'fast-check';
import { sweepOf } from '../../path/path';
import { ArcEnds, centreOf, chords } from './arcs';

const point = fc.double({ min: -200, max: 200, noNaN: true });
const turn = fc.double({ min: 0.05, max: 2 * Math.PI - 0.05, noNaN: true });

/** An arc about a centre, by its radius, where it starts, and how far it goes which way. */
const arcs = fc.record({
  cu: point,
  cv: point,
  radius: fc.double({ min: 0.5, max: 100, noNaN: true }),
  from: fc.double({ min: 0, max: 6, noNaN: true }),
  turn,
  clockwise: fc.boolean(),
});

function endsOf({ cu, cv, radius, from, turn, clockwise }: typeof arcs extends fc.Arbitrary<infer T> ? T : never) {
  const to = from + (clockwise ? -turn : turn);
  const at = (a: number) => [cu + radius * Math.cos(a), cv + radius * Math.sin(a)];
  return [...at(from), ...at(to)] as ArcEnds;
}

test('the same centre is found from I and J as from R; a negative R means the longer way', () => {
  fc.assert(
    fc.property(arcs, (arc) => {
      const ends = endsOf(arc);
      const { cu, cv, radius, clockwise } = arc;
      const [u0, v0] = ends;
      const byPlace = centreOf(ends, { i: cu - u0, j: cv - v0 }, clockwise) as number[];
      expect(byPlace[0]).toBeCloseTo(cu, 6);
      expect(byPlace[1]).toBeCloseTo(cv, 6);
      const byRadius = centreOf(ends, { r: arc.turn > Math.PI ? -radius : radius }, clockwise) as number[];
      // Near half a turn the chord is as long as the circle is wide, and its square root loses half the digits.
      expect(Math.hypot(byRadius[0] - cu, byRadius[1] - cv)).toBeLessThan(1e-4);
    }),
    { numRuns: 300, seed: 7 },
  );
});

test('chords stay within a micrometre of the circle, end where the arc ends, and share the way evenly', () => {
  fc.assert(
    fc.property(arcs, (arc) => {
      const ends = endsOf(arc);
      const { cu, cv, radius, clockwise } = arc;
      const sweep = sweepOf(clockwise ? 2 : 3, ...ends, cu, cv);
      const found = chords(ends, [cu, cv], sweep);
      expect(found[found.length - 1]).toEqual([ends[2], ends[3], 1]);
      let before: number[] = [ends[0], ends[1], 0];
      for (const [u, v, share] of found) {
        const middle = Math.hypot((u + before[0]) / 2 - cu, (v + before[1]) / 2 - cv);
        expect(Math.abs(middle - radius)).toBeLessThan(0.001001);
        expect(share - before[2]).toBeCloseTo(1 / found.length, 9);
        before = [u, v, share];
      }
    }),
    { numRuns: 100, seed: 8 },
  );
});

test('what cannot be is told with what is wrong', () => {
  expect(centreOf([0, 0, 50, 0], { r: 20 }, true)).toMatchObject({
    message: 'An arc of radius 20 mm cannot join points 50 mm apart',
  });
  expect(centreOf([3, 3, 3, 3], { r: 20 }, true)).toMatchObject({ remedy: 'Correct R, or give I and J' });
  expect(centreOf([0, 0, 10, 3], { i: 5, j: 0 }, true)).toMatchObject({
    message: 'An arc ends 0.831 mm off its own circle',
  });
  expect(centreOf([0, 0, 10, 0], {}, false)).toMatchObject({ remedy: 'Correct I and J, or the end point' });
  // A hundredth of a millimetre off is what rounding leaves.
  expect(centreOf([0, 0, 10.009, 0], { i: 5, j: 0 }, true)).toEqual([5, 0]);
});
