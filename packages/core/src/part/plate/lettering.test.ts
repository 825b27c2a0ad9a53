import { chainBounds, chainLength, flatten } from '../../geometry/plane/chain';
import { joinBounds, EMPTY_BOUNDS } from '../../geometry/plane/point';
import { lettering, unknownLetters } from './lettering';

const box = (text: string, height: number) => lettering(text, height).map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);

describe('lettering', () => {
  const ALL =
    'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyzß0123456789.,:;!?-_+±×=*/\\()[]<>#%°\'"&ØøµÄÖÜäöüéèêñå';

  test('every letter is finite, inside its height, and none is missing', () => {
    expect(unknownLetters(ALL)).toEqual([]);
    for (const letter of ALL) {
      for (const stroke of lettering(letter, 9)) {
        expect(stroke.vertices.every((v) => [v.x, v.y, v.bulge].every(Number.isFinite))).toBe(true);
        expect(chainLength(stroke)).toBeGreaterThan(0.5);
        for (const p of flatten(stroke)) expect(Math.abs(p.y)).toBeLessThan(9);
      }
    }
  });

  test('capitals are as high as asked, and the text stands about its middle', () => {
    const { minX, maxX, minY, maxY } = box('HEX', 5);
    expect(maxY - minY).toBeCloseTo(5, 6);
    expect(minX + maxX).toBeCloseTo(0, 6);
    expect(minY + maxY).toBeCloseTo(0, 6);
    expect(maxX - minX).toBeCloseTo(((6 + 3 + 6 + 3 + 6) * 5) / 9, 6);
  });

  test('corners are rounded by true arcs', () => {
    const [o] = lettering('O', 9);
    expect(o.closed).toBe(true);
    expect(o.vertices.filter((v) => v.bulge !== 0)).toHaveLength(4);
    expect(chainLength(o)).toBeCloseTo(2 * Math.PI * 3 + 2 * 3, 6);
  });

  test('what it does not have is named and left out', () => {
    expect(unknownLetters('A→B→')).toEqual(['→']);
    expect(lettering('A→', 9)).toEqual(lettering('A', 9));
  });
});
