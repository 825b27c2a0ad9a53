import { outlineOf } from './outline';

/** A square of 10 on the plane, and one edge down. */
const square = [0, 0, 10, 0, 10, 10, 0, 10].flatMap((_, i, a) =>
  i % 2 ? [] : [a[i], a[i + 1], 0, a[(i + 2) % 8], a[(i + 3) % 8], 0],
);

test('from the top it is the plan, from the front its width and height', () => {
  const edges = { positions: Float32Array.from([...square, 0, 0, 0, 0, 0, -4]) };
  const [, , width, height] = outlineOf(edges, 'top').box;
  expect([width, height]).toEqual([expect.closeTo(10, 2), expect.closeTo(10, 2)]);
  const front = outlineOf(edges, 'front').box;
  expect([front[2], front[3]]).toEqual([expect.closeTo(10, 2), expect.closeTo(4, 2)]);
  expect(outlineOf(edges, 'corner').path.match(/M/g)).toHaveLength(5);
});

test('nothing drawn is nothing, and far too much is thinned', () => {
  expect(outlineOf({ positions: new Float32Array(0) }, 'corner').path).toBe('');
  const many = { positions: new Float32Array(6 * 50_000).fill(1) };
  expect(outlineOf(many, 'corner').path.match(/M/g)!.length).toBeLessThanOrEqual(4000);
});
