import { readAs } from '@tidypath/core';
import { loaded, machineWith, pass, pocketAndWall } from '../../testing/work';
import { Machine } from './machine';
import { freshMemory } from './memory';
import { Press, press } from './press';
import { seenOf } from './run';
import { viewOf } from './view';

const of = loaded(pocketAndWall);
const fresh = () => new Machine(of, freshMemory({ lengths: {}, zero: {}, lift: 0 }));
const off = (machine: Machine, n: number) => machine.memory.entered.lengths[n] - of.character.tools.get(n)!.length;

test('a machine whose zero was never set does not start', () => {
  const machine = fresh();
  expect(press(machine, { press: 'start' })).toBe('The zero is not set along X, Y, Z');
});

test('touched off as it is told, registers and zero are within what a hand feels', () => {
  const machine = fresh();
  for (const n of [4, 7]) press(machine, { press: 'touch length', n, under: 50, told: 50 });
  for (const axis of ['x', 'y'] as const) press(machine, { press: 'touch zero', axis, under: 5, told: 5 });
  press(machine, { press: 'touch zero', axis: 'z', n: 4 });
  for (const n of [4, 7]) expect(Math.abs(off(machine, n))).toBeLessThan(0.015);
  for (const axis of ['x', 'y', 'z'] as const)
    expect(Math.abs(machine.memory.entered.zero[axis]! - of.character.zero[axis])).toBeLessThan(0.03);
  expect(press(machine, { press: 'start' })).toBeUndefined();
  pass(machine, 10_000);
  expect(machine.memory.state).toBe('done');
  expect(viewOf(machine).ran).toBeGreaterThan(10);
  // What was seen of one piece is nothing of the next.
  press(machine, { press: 'new piece' });
  expect(viewOf(machine)).toMatchObject({ state: 'ready', ran: 0, steps: [] });
});

test('the block that was forgotten is in the register; where the zero was touched with that tool it goes out again', () => {
  const machine = fresh();
  press(machine, { press: 'touch length', n: 4, under: 50, told: 0 });
  expect(off(machine, 4)).toBeCloseTo(50, 1);
  press(machine, { press: 'touch zero', axis: 'z', n: 4 });
  expect(machine.memory.entered.zero.z! - of.character.zero.z + off(machine, 4)).toBeCloseTo(0, 1);
});

test('what cannot be is refused in words', () => {
  const machine = fresh();
  expect(press(machine, { press: 'touch length', n: 99 })).toMatch(/no T99/);
  expect(press(machine, { press: 'touch zero', axis: 'z', n: 99 })).toMatch(/which tool/);
  expect(press(machine, { press: 'touch zero' })).toMatch(/axis/);
  expect(press(machine, { press: 'switch', which: 'feed' })).toMatch(/which switch/);
  expect(press(machine, { press: 'override', which: 'door', n: 50 })).toMatch(/which override/);
  expect(press(machine, { press: 'hold' })).toBe('Nothing runs');
  expect(readAs(Press, { press: 'explode' }).value).toBeUndefined();
  expect(readAs(Press, { press: 'override', which: 'feed', n: 50 }).value).toBeDefined();
});

test('a control shows its program, its registers against the sheet, and what is felt', () => {
  const machine = machineWith(of, ({ lengths }) => ({ lengths: { ...lengths, 7: lengths[7] + 2 } }));
  const [mill, wall] = viewOf(machine).registers;
  expect([mill.tool, wall.tool]).toEqual([4, 7]);
  expect(Math.abs(mill.entered! - mill.sheet)).toBeLessThan(0.15);
  expect(wall.entered! - wall.sheet).toBeGreaterThan(1.8);
  machine.start();
  pass(machine, 25);
  const view = viewOf(machine);
  expect(view).toMatchObject({ state: 'running', tool: 4 });
  expect(view.whole).toBeGreaterThan(view.ran);
  expect(view.lines.find((l) => l.line === view.line)!.text).toMatch(/^N\d+ /);
  expect(JSON.parse(JSON.stringify(view))).toEqual(expect.objectContaining({ state: 'running' }));
});

test('what was seen of a step is told as somebody would log it: what screams leaves marks, what welds tears', () => {
  const step = {
    ...{ operationId: 'o1', tool: 4, seconds: 12.34, load: 0.4567, vibration: 0.01, heat: 1, chattered: 0 },
    ...{ shapes: { chips: 9, dust: 1 }, inCut: 9, lateForce: 50 },
  };
  expect(seenOf(step)).toEqual({
    ...{ operation: 'o1', seconds: 12.3, load: 0.457, sound: 'quiet', finish: 'clean', shape: 'chips' },
  });
  expect(seenOf({ ...step, chattered: 3, chatter: 803.4 })).toMatchObject({
    ...{ sound: 'screams', chatter: 803, finish: 'chatter marks' },
  });
  expect(seenOf({ ...step, chattered: 0.2, chatter: 803 })).toMatchObject({ sound: 'quiet', finish: 'clean' });
  expect(seenOf({ ...step, colour: 'welds' })).toMatchObject({ finish: 'torn' });
});
