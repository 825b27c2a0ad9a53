import fc from 'fast-check';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { boreRadii } from '../../operation/hole/radii';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

describe('boring on a helix', () => {
  const bore = (params: Record<string, unknown>, more = {}, number = 6) =>
    withOperation(
      withStock(jobWith({ type: 'round', diameter: 20 }, { meaning: 'hole', depth: 8, ...more }), flush),
      'helical-bore',
      ['f2'],
      tool(number),
      params,
    );

  test('makes the hole to size and depth: volume within half a percent, no findings', () => {
    const proof = prove(bore({}), 0.05);
    expect(proof.codes).toEqual([]);
    expect(proof.removed * 1000).toBeCloseTo(Math.PI * 100 * 8, -1.2);
  });

  test('a hole wider than one helix clears leaves no post; through holes break through', () => {
    expect(prove(bore({ stepover: 1.5, spring: true, direction: 'conventional' }, {}, 9), 0.1).codes).toEqual([]);
    const proof = prove(bore({ breakthrough: 0.5, finish: false }, { through: true }), 0.1);
    expect(proof.codes).toEqual([]);
    expect(Math.min(...proof.read.motions.z.slice(1))).toBeLessThan(-10);
  });

  test('radii never bite wider than asked, and end at the last one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        fc.double({ min: 0.5, max: 10, noNaN: true }),
        fc.double({ min: 0.05, max: 5, noNaN: true }),
        (final, cutter, stepover) => {
          const radii = boreRadii(final, cutter, stepover);
          expect(radii[radii.length - 1]).toBe(final);
          expect(radii[0]).toBeLessThanOrEqual(cutter);
          radii.slice(1).forEach((r, i) => expect(r - radii[i]).toBeLessThanOrEqual(stepover + 1e-6));
        },
      ),
      { numRuns: 200, seed: 43 },
    );
  });

  test('a cutter too large for a helix is refused with what would do', () => {
    expect(post(bore({}, {}, 1)).codes).toContain('bore-too-small');
  });
});
