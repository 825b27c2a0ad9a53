import { tool } from '../../testing/parts';
import { MACHINES, MATERIALS } from '../shop/library';
import { Material } from '../shop/material';
import { adviseCoolant, kcOf } from './conditions';
import { chipRoomShare, cutState, thinnestChip } from './cut';
import { bendLimit } from './limits';
import { perTurnForRoughness, wallRoughness } from './milling';
import { suggest } from './suggest';
import { Situation } from './suggestion';

const material = (id: string): Material => MATERIALS.find((m) => m.id === id)!;
const machine = MACHINES.find((m) => m.id === 'fulmar')!;
const mill = { ...tool(4), coating: 'nitride' as const, ownData: [] };
const alloy = material('steel-alloy');
const on = (more: Partial<Situation> = {}): Situation => ({
  tool: mill,
  material: alloy,
  machine,
  ae: 1,
  ap: 5,
  ...more,
});
const speed = (more: Partial<Situation>) => suggest(on(more)).rpm / suggest(on()).rpm;

test('a harder bar is cut slower and with more force, by the powers that are said', () => {
  const harder = { ...alloy, atHand: 350 };
  expect(kcOf(mill, harder) / alloy.kc11).toBeCloseTo((350 / 250) ** 0.4, 9);
  expect(speed({ material: harder })).toBeCloseTo((250 / 350) ** 0.7, 2);
  expect(speed({ material: { ...alloy, atHand: 250 } })).toBe(1);
  expect(speed({ material: { ...harder, brinell: undefined } })).toBe(1);
  const { working } = suggest(on({ material: harder }));
  expect(working.find((w) => w.what === 'At 350 HB')).toMatchObject({ of: 'rpm', source: 'Workshop estimate' });
});

test('coating and coolant move the speed of a range, not one found by trial', () => {
  expect(speed({ tool: { ...mill, coating: 'none' } })).toBeCloseTo(0.85, 2);
  const titanium = { material: material('titanium') };
  const dry = suggest(on({ ...titanium, coolant: 'off' })).rpm / suggest(on({ ...titanium, coolant: 'flood' })).rpm;
  expect(dry).toBeCloseTo(0.7, 2);
  expect(speed({ coolant: 'off' })).toBe(1);
  const own = [{ materialId: alloy.id, surfaceSpeed: 100, chip: 0.04, note: '' }];
  const bare = suggest(on({ tool: { ...mill, ownData: own, coating: 'none' } })).rpm;
  expect(bare).toBe(suggest(on({ tool: { ...mill, ownData: own } })).rpm);
});

test('a roughing mill cuts chips twice as thick with less force; what hardens wants thicker ones', () => {
  const cut = { material: alloy, machine, rpm: 3000, feed: 600, ae: 5, ap: 5 };
  const waved = cutState({ ...cut, tool: { ...mill, kind: 'roughing' } });
  expect(waved.force / cutState({ ...cut, tool: mill }).force).toBeCloseTo(2 ** -alloy.mc, 6);
  const { workHardens, ...soft } = material('stainless');
  expect(workHardens).toBe(true);
  expect(thinnestChip(mill, material('stainless'))).toBeCloseTo(2 * thinnestChip(mill, soft as Material), 9);
});

test('coolant is advised by tool and material, of what the machine has', () => {
  const advised = (t: number, id: string, coolants: Parameters<typeof adviseCoolant>[2]) =>
    adviseCoolant(tool(t), material(id), coolants).coolant;
  expect(advised(4, 'alu-6082', ['off', 'flood', 'air'])).toBe('flood');
  expect(advised(4, 'steel-alloy', ['off', 'flood', 'air'])).toBe('air');
  expect(advised(1, 'steel-alloy', ['off', 'flood'])).toBe('off');
  expect(advised(4, 'iron-grey', ['off', 'flood'])).toBe('off');
  expect(advised(15, 'steel-alloy', ['off', 'flood', 'air'])).toBe('flood');
  expect(adviseCoolant({ ...tool(15), throughCoolant: true }, alloy, ['off', 'through']).coolant).toBe('through');
});

test('a slot with too many flutes is fed by the room for its chips; splitters find more', () => {
  const slot = { material: material('alu-6082'), ae: 10, ap: 2, boldness: 1, machine: { ...machine, maxFeed: 50_000 } };
  const five = { ...mill, flutes: 5 };
  const { limit, feed, rpm } = suggest(on({ ...slot, tool: five }));
  expect(limit).toBe('chip room');
  expect(chipRoomShare(five, slot.material, feed / rpm / 5, 10)).toBeLessThanOrEqual(1);
  expect(suggest(on({ ...slot, tool: { ...five, splitsChips: true } })).limit).not.toBe('chip room');
  // π/4·(100 − 36)/3 = 16.76 mm² a gullet; 0.08·10·5 = 4 mm² of chips: 0.477 of half of it.
  expect(chipRoomShare(mill, slot.material, 0.08, 10)).toBeCloseTo(0.4775, 3);
});

test('bending: as set, by what is left, by the tolerance', () => {
  expect(bendLimit({ leaves: 0.3 })).toEqual({ most: 0.15, why: 'half of what is left for the finish' });
  expect(bendLimit({}).most).toBeCloseTo(0.05, 9);
  expect(bendLimit({ leaves: 0.3, bend: { most: 0.01, why: 'as it was set' } }).most).toBe(0.01);
});

test('a wall’s roughness sets the feed: 0.2 mm a turn of 10 mm leaves Ra 0.26', () => {
  expect(wallRoughness(0.2, 10)).toBeCloseTo(0.2566, 4);
  expect(perTurnForRoughness(0.2566, 10)).toBeCloseTo(0.2, 4);
  const { feed, rpm, limit } = suggest(on({ finish: { ra: 0.05, share: 1 } }));
  expect(limit).toBe('finish');
  expect(wallRoughness(feed / rpm, mill.diameter)).toBeLessThanOrEqual(0.05);
  expect(suggest(on({ finish: { ra: 0.05, share: 0.5 } })).feed / feed).toBeCloseTo(2, 1);
});
