import { PathBuilder } from '../../../path/path';
import { Metal } from './metal';
import { followPass } from './moves';

const RADIUS = 6;
const box = { minX: -20, minY: -20, maxX: 20, maxY: 20 };
const rectangle = (x0: number, y0: number, x1: number, y1: number) => [
  { x: x0, y: y0 },
  { x: x1, y: y0 },
  { x: x1, y: y1 },
  { x: x0, y: y1 },
];

test.each([
  ['a bite beside a wall of metal', rectangle(-20, 4.7, 20, 20), 1.3],
  ['the end of a strip', rectangle(4, -1.9, 20, 1.9), 3.8],
  ['nothing', rectangle(-20, 8, 20, 20), 0],
])('%s before a cutter is as wide as it is', (_, metal, wide) => {
  const told = new Metal([metal], box, 0.15, RADIUS).across(0, 0, 1, 0);
  expect(Math.abs(told - wide)).toBeLessThanOrEqual(0.08 * wide);
});

test('where the metal is wider than asked the feed falls with it, so that no more is taken a minute', () => {
  const angle = Math.acos(1 - 1.3 / RADIUS);
  const poses = Array.from({ length: 61 }, (_, i) => ({ x: i, y: 0, heading: 0 }));
  const across = poses.map((p) => (p.x > 20 && p.x <= 40 ? 3.8 : 1.3));
  const path = new PathBuilder().rapid(0, 0, 1).line(0, 0, -5, 500, 'entry');
  const rule = { feed: 2000, most: 3000, angle, raise: false };
  followPass(path, { side: 1, poses, engaged: poses.map(() => angle), across }, -5, RADIUS, rule);
  const { x, feed, count } = path.build();
  const at = (place: number) => feed[Array.from({ length: count }, (_, i) => i).find((i) => x[i] >= place)!];
  expect([at(10), at(50)]).toEqual([2000, 2000]);
  expect(at(30) * 3.8).toBeLessThanOrEqual(1.2 * 2000 * 1.3);
  expect(at(30)).toBeGreaterThan(600);
});
