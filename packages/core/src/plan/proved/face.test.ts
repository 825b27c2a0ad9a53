import { atSuggestedSpeeds, jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';

describe('facing', () => {
  test.each(['both ways', 'one way'])('%s leaves nothing on the top and touches nothing below it', (passes) => {
    const proof = prove(withOperation(jobWith(undefined), 'face', [], tool(1), { passes, layer: 0.4 }), 0.2);
    expect(proof.codes).toEqual([]);
    expect(proof.removed).toBeCloseTo((84 * 54 * 1) / 1000, 1);
  });

  test.each([
    ['spiral', false, 'box'],
    ['spiral', false, 'round'],
    ['both ways', true, 'box'],
    ['one way', true, 'round'],
    ['both ways', false, 'round'],
  ])('%s, rolled in %s, on %s stock', (passes, rolledIn, shape) => {
    const job = withStock(jobWith(undefined), { shape: shape as 'box', diameter: 100 });
    const wide = withOperation(job, 'face', [], tool(1), { passes, rolledIn, stepover: 26 });
    const proof = prove(atSuggestedSpeeds(wide), 0.2);
    expect(proof.codes).toEqual([]);
    expect(proof.removed).toBeCloseTo((shape === 'box' ? 84 * 54 : Math.PI * 2500) / 1000, 1);
    const small = prove(withOperation(job, 'face', [], tool(4), { passes, rolledIn, stepover: 7 }), 0.2);
    expect(small.codes).toEqual([]);
  });

  test('a stepover wider than the cutter is refused, and nothing is cut', () => {
    const job = withOperation(jobWith(undefined), 'face', [], tool(4), { stepover: 12 });
    expect(post(job)).toEqual({ text: '', codes: expect.arrayContaining(['stepover-too-wide']) });
  });
});
