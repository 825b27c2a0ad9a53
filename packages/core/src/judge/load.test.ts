import { boldestChip, chipRoomShare } from '../cutting/cut';
import { bendLimit } from '../cutting/limits';
import { MATERIALS } from '../shop/library';
import { Motions } from '../path/motions';
import { Samples } from '../simulate/samples';
import { tool } from '../../testing/parts';
import { LOAD_LIMITS, loadFindings } from './load';

const material = MATERIALS.find((m) => m.id === 'steel-alloy')!;
const mill = tool(4);
const RPM = 3000;
const FEED = 600;

/** Stretches of half a millimetre, one after the other, with a value each; 0 is in the air. */
function samplesOf(
  values: number[],
  measure: keyof Samples,
  more: Partial<Record<keyof Samples, number>> = {},
): Samples {
  const seconds = (0.5 / FEED) * 60;
  const column = (v: number) => Float32Array.from(values, () => v);
  return {
    count: values.length,
    motion: new Uint32Array(values.length),
    time: Float32Array.from(values, (_, i) => (i + 1) * seconds),
    depth: column(5),
    engagement: column(60),
    x: column(0),
    y: column(0),
    z: column(0),
    load: column(more.load ?? 0.1),
    chip: column(more.chip ?? 0.03),
    force: column(300),
    bend: column(more.bend ?? 0.01),
    stress: column(more.stress ?? 100),
    grip: column(more.grip ?? 0.1),
    seconds: column(seconds),
    length: column(0.5),
    rate: Float32Array.from(values, (v) => (v > 0 ? 50 : 0)),
    [measure]: Float32Array.from(values),
  } as Samples;
}

const motions = {
  line: Uint32Array.of(7),
  tool: Uint16Array.of(4),
  rpm: Float32Array.of(RPM),
  feed: Float32Array.of(FEED),
  z: Float64Array.of(0),
};

function codesOf(samples: Samples, leaves?: number, of = mill, continuous = 1, cut = material): string[] {
  const sections = leaves === undefined ? [] : [{ line: 1, operationId: 'o1' }];
  return loadFindings({
    samples,
    motions: motions as unknown as Motions,
    tools: new Map([[4, of]]),
    material: cut,
    continuous,
    sections: sections as never,
    bendOf: () => (leaves === undefined ? undefined : bendLimit({ leaves }).most),
    cell: 0.1,
  }).map((f) => f.code);
}

const SECOND = Math.ceil(FEED / 60 / 0.5);
const steady = (v: number, seconds = 1) => Array<number>(Math.ceil(SECOND * seconds)).fill(v);
const breaks = LOAD_LIMITS.stress[mill.material];
const thick = LOAD_LIMITS.chip.care * boldestChip(mill, material);

test.each<[keyof Samples, number, string, string | undefined]>([
  ['load', 0.85, 'power-high', undefined],
  ['load', 1, 'power-over', 'power-high'],
  ['load', 1.5, 'stalls', 'power-over'],
  ['grip', 0.8, 'grip-high', undefined],
  ['grip', 1, 'grip-over', 'grip-high'],
  ['bend', 0.1, 'bends-much', undefined],
  ['bend', 0.2, 'bends-too-much', 'bends-much'],
  ['stress', 0.5 * breaks, 'may-break', undefined],
  ['stress', breaks, 'breaks', 'may-break'],
  ['chip', thick, 'chip-thick', undefined],
  ['chip', 1.5 * thick, 'chip-too-thick', 'chip-thick'],
])('%s at %d: %s 2 % over it, not 2 % under', (measure, limit, over, under) => {
  expect(codesOf(samplesOf(steady(1.02 * limit), measure))).toEqual([over]);
  expect(codesOf(samplesOf(steady(0.98 * limit), measure))).toEqual(under ? [under] : []);
});

test('an operation may bend by half of what it leaves, at least a twentieth and at most a fifth of a millimetre', () => {
  for (const [leaves, limit] of [
    [0, 0.05],
    [0.3, 0.15],
    [2, 0.2],
  ]) {
    expect(codesOf(samplesOf(steady(1.02 * limit), 'bend'), leaves)).toEqual(['bends-much']);
    expect(codesOf(samplesOf(steady(0.98 * limit), 'bend'), leaves)).toEqual([]);
  }
});

test('moments shorter than their span are averaged: single cells raise no alarm', () => {
  const blip = [...steady(0.4, 1), 1.4, ...steady(0.4, 1)];
  expect(codesOf(samplesOf(blip, 'load'))).toEqual([]);
  expect(codesOf(samplesOf([...steady(0.4, 1), ...steady(1.4, 0.5), ...steady(0.4, 1)], 'load'))).toEqual([
    'power-over',
  ]);
  // Two cuts apart in the air are not one.
  expect(codesOf(samplesOf([0.11, 0, 0, 0.11, 0, 0, 0.11], 'bend'))).toEqual([]);
});

test('chips thinner than the edge is round are told from a fifth of the time in cut on', () => {
  const { share, sharp } = LOAD_LIMITS.rub;
  const bare = { ...mill, coating: 'none' as const };
  const mixed = (part: number) =>
    samplesOf(
      [...Array<number>(100 * part).fill(0.98 * share * sharp), ...Array<number>(100 - 100 * part).fill(0.03)],
      'chip',
    );
  expect(codesOf(mixed(0.22), undefined, bare)).toEqual(['rubs']);
  expect(codesOf(mixed(0.18), undefined, bare)).toEqual([]);
});

test('chips that fill more than half of the room between the flutes are told', () => {
  const ae = (mill.diameter / 2) * (1 - Math.cos(Math.PI / 3));
  const at = (share: number) => {
    const chip = share / chipRoomShare(mill, material, 1, ae);
    const seconds = (60 * 0.5) / (chip * RPM * mill.flutes);
    const samples = samplesOf(steady(0.03), 'chip');
    return codesOf({ ...samples, seconds: samples.seconds.map(() => seconds) });
  };
  expect(at(1.02)).toEqual(['chips-crowd']);
  expect(at(0.98)).toEqual([]);
});

test('rubbing is told sooner where it hardens the work', () => {
  const { share, sharp } = LOAD_LIMITS.rub;
  const bare = { ...mill, coating: 'none' as const };
  const some = samplesOf([...Array<number>(7).fill(0.9 * share * sharp), ...Array<number>(93).fill(0.03)], 'chip');
  expect(codesOf(some, undefined, bare)).toEqual([]);
  expect(codesOf(some, undefined, bare, 1, { ...material, workHardens: true })).toEqual(['rubs']);
});

test('the remedy is a feed that brings it to the bound, and the place is the worst line', () => {
  const value = 1.2;
  const [found] = loadFindings({
    samples: samplesOf(steady(value), 'load'),
    motions: motions as unknown as Motions,
    tools: new Map([[4, mill]]),
    material,
    sections: [],
    continuous: 1,
    bendOf: () => undefined,
    cell: 0.1,
  });
  const feed = (found.data as { feed: number }).feed;
  expect(value * (feed / FEED) ** (1 - material.mc)).toBeLessThanOrEqual(0.85);
  expect(value * ((feed + 10) / FEED) ** (1 - material.mc)).toBeGreaterThan(0.85 * 0.99);
  expect(found.place).toMatchObject({ line: 7, tool: mill.id });
  expect(found.message).toMatch(/120 % of the spindle’s power for \d/);
});

test('a speed above what the holder is balanced for is told, 2 % over it', () => {
  const held = (balancedRpm: number) => ({ ...mill, holder: { ...mill.holder, balancedRpm } });
  expect(codesOf(samplesOf(steady(0.3), 'load'), undefined, held(RPM / 1.02))).toEqual(['above-balance']);
  expect(codesOf(samplesOf(steady(0.3), 'load'), undefined, held(RPM * 1.02))).toEqual([]);
});

test('what twists a drill is judged by its torque, a care at half of what it stands', () => {
  const drill = { ...tool(15), number: 4 };
  const stands = LOAD_LIMITS.stress[drill.material];
  const found = (share: number) => codesOf(samplesOf(steady(share * stands), 'stress'), undefined, drill);
  expect(found(0.49)).toEqual([]);
  expect(found(0.51)).toEqual(['may-twist-off']);
  expect(found(1.02)).toEqual(['twists-off']);
});

test('more than the spindle gives for longer may last less than three seconds', () => {
  const held = (share: number, seconds: number) =>
    codesOf(samplesOf(steady(share, seconds), 'load'), undefined, mill, 0.6);
  expect(held(0.61, 3.2)).toEqual(['power-sustained']);
  expect(held(0.59, 3.2)).toEqual([]);
  expect(held(0.8, 2)).toEqual([]);
});

test('what a tool itself says of its chips and its edges comes before the material', () => {
  const told = (chip: number, more: object) =>
    codesOf(samplesOf(steady(chip), 'chip'), undefined, { ...mill, ...more });
  expect(told(0.05, { mostChip: 0.06 })).toEqual([]);
  expect(told(0.07, { mostChip: 0.06 })).toEqual(['chip-thick']);
  expect(told(0.1, { mostChip: 0.06 })).toEqual(['chip-too-thick']);
  expect(told(0.004, {})).toEqual([]);
  expect(told(0.004, { edgeRadius: 0.02 })).toEqual(['rubs']);
});
