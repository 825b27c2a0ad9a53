import { MATERIALS, Material, boldestChip, specificForce } from '@tidypath/core';
import { tool } from '@tidypath/core/testing/parts';
import { colourAt, contactRise, heatGroupOf, heatIndex } from './heat';

const MILL = tool(4);
const material = (group: string) => MATERIALS.find((m) => m.group === group)!;

test('the rise where a chip leaves the edge', () => {
  expect(contactRise({ capacity: 3e-3, spread: 50 }, 1038, 100, 0.5)).toBeCloseTo(353.5, 1);
});

/** K above the room with a mill of 10 mm at the careful end, the middle and the bold end of a range, and what share of the bold one. */
test.each([
  ['low-carbon steel', [630, 759, 855]],
  ['austenitic stainless', [775, 907, 1008]],
  ['titanium', [961, 1085, 1186]],
  ['wrought aluminium', [271, 351, 406]],
  ['brass', [190, 229, 258]],
])('%s', (group, rises) => {
  const m = material(group);
  const at = (share: number) => {
    const { from, to } = m.millingSpeed.carbide;
    const chip = ((m.chipShare.from + (m.chipShare.to - m.chipShare.from) * share) / 100) * MILL.diameter;
    const kc = specificForce(m.kc11, m.mc, chip);
    return {
      rise: contactRise(heatGroupOf(m)!, kc, from + (to - from) * share, chip),
      chip,
      speed: from + (to - from) * share,
    };
  };
  const found = [0, 0.5, 1].map(at);
  found.forEach(({ rise, chip, speed }, i) => {
    expect(Math.abs(rise / rises[i] - 1)).toBeLessThan(0.12);
    const index = heatIndex(MILL, m, { speed, chip, engagement: 90, force: 1 })!;
    expect(index).toBeCloseTo(rise / found[2].rise, 6);
  });
});

const coloursOf = (m: Pick<Material, 'group'>, ...indices: number[]) => indices.map((i) => colourAt(m, i));

test('chips get their colours from cool to hot, each metal its own; wood and plastics none', () => {
  expect(coloursOf({ group: 'low-carbon steel' }, 0.7, 0.85, 0.9, 0.95, 1.05, 1.2)).toEqual([
    ...['bright', 'straw', 'brown', 'blue', 'dark blue', 'grey'],
  ]);
  expect(coloursOf({ group: 'titanium' }, 0.9, 1, 1.2)).toEqual(['pale straw', 'blue', 'white sparks']);
  expect(coloursOf({ group: 'wrought aluminium' }, 0.5, 1.1, 2)).toEqual(['cool', 'hot', 'welds']);
  expect(coloursOf({ group: 'board and wood' }, 1)).toEqual([undefined]);
});

test('faster, thicker and longer in the cut is hotter', () => {
  const m = material('low-carbon steel');
  const base = { speed: 120, chip: 0.5 * boldestChip(MILL, m), engagement: 60, force: 1 };
  const index = heatIndex(MILL, m, base)!;
  for (const more of [{ speed: 180 }, { chip: boldestChip(MILL, m) }, { engagement: 150 }, { force: 1.2 }])
    expect(heatIndex(MILL, m, { ...base, ...more })!).toBeGreaterThan(index);
  expect(heatIndex(MILL, m, { ...base, chip: 0 })).toBeUndefined();
});
