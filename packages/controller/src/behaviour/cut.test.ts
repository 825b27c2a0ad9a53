import { MACHINES, MATERIALS, Tool, cutState, powerAt, suggest, suggestBite } from '@tidypath/core';
import { tool } from '@tidypath/core/testing/parts';
import { characterOf } from './character';
import { SampledCut, feel } from './cut';

const machine = MACHINES.find((m) => m.id === 'fulmar')!;
const material = MATERIALS.find((m) => m.group === 'low-carbon steel')!;
const power = (rpm: number) => powerAt(machine, rpm);
/** A machine as its figures say: nothing hidden but how it swings. */
const plain = (t: Tool) => {
  const c = characterOf(machine, [t], 1);
  return { ...c, force: 1, spindle: 1, tools: new Map([[t.number, { ...c.tools.get(t.number)!, dull: 1 }]]) };
};

function sampled(t: Tool, rpm: number, feed: number, ae: number, ap: number): SampledCut {
  const s = cutState({ tool: t, material, machine, rpm, feed, ae, ap });
  const engagement = (s.engagement * 180) / Math.PI;
  return {
    ...{ tool: t, rpm, feed, depth: ap, engagement },
    ...{ load: s.power / s.powerAvailable, force: s.force, chip: s.largestChip, stress: s.stress / 2000 },
  };
}
const CUT = sampled(tool(5), 4000, 800, 3, 8);

test('at full feed and speed it is what the proof says', () => {
  const felt = feel(CUT, { feed: 1, speed: 1 }, material, plain(CUT.tool), power);
  expect(felt.load).toBeCloseTo(CUT.load, 9);
  expect(felt.force).toBeCloseTo(CUT.force, 9);
  expect(felt.thickest).toBeCloseTo(CUT.chip, 9);
});

test.each([
  [0.5, 1],
  [1, 0.8],
  [1.2, 1.2],
])('at feed × %f and speed × %f it is what the relations of milling say of that cut', (feed, speed) => {
  const felt = feel(CUT, { feed, speed }, material, plain(CUT.tool), power);
  const s = cutState({ ...{ tool: CUT.tool, material, machine, ae: 3, ap: 8 }, rpm: 4000 * speed, feed: 800 * feed });
  expect(felt.load).toBeCloseTo(s.power / s.powerAvailable, 6);
  expect(felt.force / s.force).toBeCloseTo(1, 2);
  expect(felt.thickest).toBeCloseTo(s.largestChip, 6);
});

test('a drill slowed from 300 to 250 ft/min at the same chip strains its motor a sixth less', () => {
  const at = (ft: number) => {
    const rpm = (ft * 0.3048 * 1000) / (Math.PI * 10);
    return cutState({ tool: { ...tool(18), diameter: 10 }, material, machine, rpm, feed: 0.15 * rpm, ae: 10, ap: 1 })
      .power;
  };
  expect(at(250) / at(300)).toBeCloseTo(1 - 0.167, 2);
});

test('nothing in the cut, nothing to feel; held at no feed, nothing either', () => {
  const none = { ...CUT, load: 0 };
  expect(feel(none, { feed: 1, speed: 1 }, material, plain(CUT.tool), power)).toMatchObject({
    load: 0,
    wear: 0,
    hazard: 0,
  });
  expect(feel(CUT, { feed: 0, speed: 1 }, material, plain(CUT.tool), power).load).toBe(0);
});

test('over its limit of depth it shakes, says how fast, and asks more of the tool', () => {
  const soft = { ...plain(CUT.tool), machine: { gives: 1 / 300, stiffness: 300, frequency: 180, damping: 0.03 } };
  const [quiet, loud] = [plain(CUT.tool), soft].map((c) => feel(CUT, { feed: 1, speed: 1 }, material, c, power));
  expect(quiet.chatter).toBeUndefined();
  expect(quiet.vibration).toBeCloseTo(0.02 * CUT.chip, 9);
  expect(loud.chatter).toBeGreaterThan(100);
  expect(loud.vibration).toBeGreaterThan(0.3 * CUT.chip);
  expect(loud.stress).toBeGreaterThan(1.5 * quiet.stress);
});

/** Of suggested cuts on many machines, the share that chatters. */
function chattering(boldness: number): number {
  const cuts = ['whimbrel', 'fulmar'].flatMap((id) =>
    ['low-carbon steel', 'wrought aluminium', 'austenitic stainless'].flatMap((group) =>
      [3, 5, 7].flatMap((number) => {
        const [m, t] = [MACHINES.find((one) => one.id === id)!, tool(number)];
        const mat = MATERIALS.find((one) => one.group === group)!;
        const { ae, ap } = suggestBite(t, mat, m, boldness);
        const { rpm, feed } = suggest({ tool: t, material: mat, machine: m, ae, ap, boldness });
        const s = cutState({ tool: t, material: mat, machine: m, rpm, feed, ae, ap });
        const cut: SampledCut = {
          ...{ tool: t, rpm, feed, depth: ap, engagement: (s.engagement * 180) / Math.PI },
          ...{ load: s.power / s.powerAvailable, force: s.force, chip: s.largestChip, stress: s.stress / 2000 },
        };
        return [1, 2, 3, 4, 5, 6].map(
          (seed) => feel(cut, { feed: 1, speed: 1 }, mat, characterOf(m, [t], seed), (n) => powerAt(m, n)).chatter,
        );
      }),
    ),
  );
  return cuts.filter((hz) => hz !== undefined).length / cuts.length;
}

test('what is suggested for a first cut is quiet on nearly every machine, settled on most; who pushes hears it', () => {
  expect(chattering(0)).toBeLessThan(0.05);
  expect(chattering(0.5)).toBeLessThan(0.35);
  expect(chattering(1)).toBeGreaterThan(0.4);
});
