import fc from 'fast-check';
import { assembled } from '../../../../../scripts/kernel';
import { Kernel } from './kernel';
import { KERNEL_CODE } from './kernel-code';

test('the code is what its text assembles to', async () => expect(await assembled()).toBe(KERNEL_CODE));

/** The same loop in plain words. */
function plainly(height: Float32Array, owner: Int32Array, from: number, to: number, level: number, mark: number) {
  const at = Math.fround(level);
  let [sum, deepest] = [0, 0];
  for (let i = from; i <= to; i++) {
    const over = height[i] - at;
    if (over <= 0) continue;
    sum += over;
    deepest = Math.max(deepest, over);
    height[i] = at;
    owner[i] = mark;
  }
  return { sum, deepest };
}

test('it lowers what a plain loop lowers, whatever the row', () => {
  const heights = fc.array(fc.float({ min: -30, max: 5, noNaN: true }), { minLength: 1, maxLength: 90 });
  const share = fc.double({ min: 0, max: 0.999, noNaN: true });
  fc.assert(
    fc.property(heights, share, share, fc.double({ min: -31, max: 6, noNaN: true }), (list, a, b, level) => {
      const kernel = new Kernel(Float32Array.from(list));
      const height = Float32Array.from(list);
      const owner = new Int32Array(list.length).fill(-1);
      const [from, to] = [Math.floor(a * list.length), Math.floor(b * list.length)];
      const { sum, deepest } = plainly(height, owner, from, to, level, 7);
      expect(kernel.lowerRow(from, to, level, 7)).toBeCloseTo(sum, 3);
      expect(kernel.deepest[0]).toBeCloseTo(deepest, 4);
      expect(Array.from(kernel.height)).toEqual(Array.from(height));
      expect(Array.from(kernel.owner)).toEqual(Array.from(owner));
    }),
    { seed: 5, numRuns: 300 },
  );
});
