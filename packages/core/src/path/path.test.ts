import { PathBuilder } from './path';

test.each([
  ['left', 1000 / 4],
  ['right', 1000],
] as const)('a cut that turns away from a wall, its room on the %s, is slowed; leads are not', (side, feed) => {
  const path = new PathBuilder().rapid(0, 0, 0).line(10, 0, 0, 1000, 'cut').arc(10, 1, 11, 1, 0, false, 1000, 'cut');
  path.arc(11, 3, 13, 3, 0, false, 1000, 'lead');
  const built = path.slowInside(1, side, 3).build();
  expect(Array.from(built.feed).slice(1)).toEqual([1000, feed, 1000]);
});
