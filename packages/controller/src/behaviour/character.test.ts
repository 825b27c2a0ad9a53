import { MACHINES, TOOLS } from '@tidypath/core';
import { tool } from '@tidypath/core/testing/parts';
import { characterOf, rodFrequency } from './character';

const machine = (id: string) => MACHINES.find((m) => m.id === id)!;
const SEEDS = Array.from({ length: 60 }, (_, i) => i);

test('the same seed is the same machine; another tool in the rack changes nothing of the others', () => {
  const [a, b] = [[tool(4)], [tool(7), tool(4)]].map((tools) => characterOf(machine('fulmar'), tools, 12));
  expect(a.machine).toEqual(b.machine);
  expect(a.tools.get(4)).toEqual(b.tools.get(4));
  expect(characterOf(machine('fulmar'), [tool(4)], 13)).not.toEqual(a);
});

test.each([
  ['sanderling', 1800, 5000, 90, 220],
  ['whimbrel', 6000, 16_000, 900, 2000],
  ['fulmar', 18_000, 45_000, 4000, 8000],
])('%s is as stiff and as strong as its class', (id, soft, stiff, weak, strong) => {
  const all = SEEDS.map((seed) => characterOf(machine(id), TOOLS, seed));
  for (const c of all) {
    expect(1 / c.machine.gives).toBeGreaterThanOrEqual(soft);
    expect(1 / c.machine.gives).toBeLessThanOrEqual(stiff);
    expect(c.machine.stiffness * c.machine.gives).toBeGreaterThanOrEqual(3);
    expect(c.push).toBeGreaterThanOrEqual(weak);
    expect(c.push).toBeLessThanOrEqual(strong);
    expect(c.force).toBeGreaterThanOrEqual(0.9);
    expect(c.force).toBeLessThanOrEqual(1.15);
    // What is planned within its limits does not stall by what is hidden alone.
    for (const { dull } of c.tools.values()) expect((0.8 * c.force * dull) / c.spindle).toBeLessThan(1.2);
    expect(c.skips === undefined).toBe(id !== 'sanderling');
  }
  // They are all over their range, not at one place of it.
  const low = all.filter((c) => 1 / c.machine.gives < Math.sqrt(soft * stiff)).length;
  expect(low).toBeGreaterThan(15);
  expect(low).toBeLessThan(45);
});

test('a tool set twice as far out swings four times slower', () => {
  const out = tool(4);
  expect(rodFrequency(out) / rodFrequency({ ...out, stickOut: 2 * out.stickOut })).toBeCloseTo(4, 9);
});
