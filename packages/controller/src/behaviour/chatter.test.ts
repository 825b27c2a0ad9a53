import { depthLimit, directionalRoots, quietSpeeds, undampedLimit, worstDepth } from './chatter';

const MODE = { stiffness: 20_000, frequency: 800, damping: 0.03 };
/** Engaged angles for a width as a share of the diameter. */
const angle = (share: number) => Math.acos(1 - 2 * share);

test('the directional matrix of a slot and of half the width', () => {
  const [slot] = directionalRoots(Math.PI);
  expect([slot.re, slot.im]).toEqual([expect.closeTo(-0.942, 3), expect.closeTo(3.142, 3)]);
  const [half] = directionalRoots(Math.PI / 2);
  expect([half.re, half.im]).toEqual([expect.closeTo(-0.471, 3), expect.closeTo(1.174, 3)]);
});

/** Worst of all speeds, then 4000 to 14 500 rpm, mm; the last column was simulated in time. */
test.each([
  [1, 0.295, [1.24, 0.42, 1.79, 0.3, 0.57, 0.64]],
  [1 / 2, 0.777, [3.24, 1.16, 4.69, 0.8, 1.6, 1.58]],
  [1 / 10, 4.9, [19.1, 9.1, 28.1, 5.7, 15.1, 7.5]],
  [1 / 20, 9.91, [33, 22, 50, 15, 41, 12]],
])('depth limits at %f of the diameter', (share, worst, depths) => {
  const cut = { teeth: 4, engagement: angle(share), force: 2000 };
  expect(worstDepth(MODE, cut) / worst).toBeCloseTo(1, 2);
  [4000, 5200, 6000, 8000, 9500, 14_500].forEach((rpm, i) => {
    const found = undampedLimit(MODE, { ...cut, rpm }).depth;
    expect(Math.abs(found / depths[i] - 1)).toBeLessThan(0.035);
  });
});

test('from a slot to a tenth of the diameter the limit grows 16.6 times', () => {
  const at = (share: number) => worstDepth(MODE, { teeth: 4, engagement: angle(share), force: 2000 });
  expect(at(0.1) / at(1)).toBeCloseTo(16.6, 1);
});

test('a light cut the whole depth of a small mill is quiet when slow, screams when fast, and is quiet again in narrow windows', () => {
  const mode = { stiffness: 5000, frequency: 2200, damping: 0.015 };
  const limit = (rpm: number) =>
    depthLimit(mode, { rpm, teeth: 3, engagement: angle(0.15 / 6), force: 5300 }, (Math.PI * 6 * rpm) / 1000, 20).depth;
  const found = [3000, 4000, 6000, 12_000].map(limit);
  expect(limit(2000)).toBeGreaterThan(10);
  [4.4, 3.4, 2, 1].forEach((mm, i) => expect(Math.abs(found[i] / mm - 1)).toBeLessThan(0.1));
  [
    [9000, 4.1],
    [11_000, 4.1],
    [14_667, 5.1],
  ].forEach(([rpm, mm]) => expect(Math.abs(limit(rpm) / mm - 1)).toBeLessThan(0.1));
});

test('quiet speeds are in step with the chatter that was heard', () => {
  expect(quietSpeeds(800, 4)).toEqual([12_000, 6000, 4000]);
  // There the limit is deeper than round about.
  const cut = { teeth: 4, engagement: angle(0.5), force: 2000 };
  const heard = undampedLimit(MODE, { ...cut, rpm: 9000 }).frequency;
  const quiet = undampedLimit(MODE, { ...cut, rpm: quietSpeeds(heard, 4)[0] }).depth;
  expect(quiet).toBeGreaterThan(3 * undampedLimit(MODE, { ...cut, rpm: 9000 }).depth);
});

test('what does not turn does not chatter', () => {
  expect(undampedLimit(MODE, { rpm: 0, teeth: 4, engagement: 1, force: 2000 }).depth).toBe(Infinity);
});
