import { MOVE, Motions } from '../path/motions';
import { Samples } from '../simulate/samples';
import { idleSteps, idleTools, stepsOf } from './steps';

/** Six motions at lines 2 to 9: one before any step, two of the first, two of the second, one of the third. */
const motions = { count: 6, line: Uint32Array.from([2, 4, 5, 7, 8, 9]) } as unknown as Motions;
const section = (line: number, operationId: string) => ({ line, operationId });
/** As they may come: not in the order of the program. */
const sections = [section(7, 'o2'), section(4, 'o1'), section(9, 'o3')];
const seconds = Float64Array.from([5, 6, 9, 30, 30, 3]);
const removed = Float32Array.from([0, 400, 600, 0, 2500, 0.004]);
const samples = {
  count: 4,
  motion: Uint32Array.from([1, 2, 4, 0]),
  load: Float32Array.from([0.25, 0.5, 0.75, 2]),
} as unknown as Samples;
const steps = stepsOf(sections, motions, seconds, removed, samples);

test('time, metal and the greatest load are told by step, in the order of the program', () => {
  expect(steps).toEqual([
    { operationId: 'o1', motion: 1, minutes: 0.25, removed: 1, load: 0.5 },
    { operationId: 'o2', motion: 3, minutes: 1, removed: 2.5, load: 0.75 },
    { operationId: 'o3', motion: 5, minutes: 0.05, removed: expect.closeTo(0, 4) as number, load: 0 },
  ]);
});

test('a step that took nothing away is told, where it begins; one that moves nothing is not', () => {
  const [found, ...more] = idleSteps([...steps, { ...steps[2], operationId: 'o4', motion: -1 }], motions);
  expect(found).toMatchObject({ code: 'removed-nothing', place: { operation: 'o3', motion: 5, line: 9 } });
  expect(more).toEqual([]);
});

test('a program without steps has none', () => {
  expect(stepsOf([], motions, seconds, removed, samples)).toEqual([]);
});

test('tools that never cut, or cut nothing but air, are told at their change or their first cut', () => {
  const { toolChange, rapid, line } = MOVE;
  const m = {
    count: 9,
    type: Uint8Array.from([toolChange, rapid, line, toolChange, rapid, toolChange, line, toolChange, line]),
    tool: Uint16Array.from([1, 1, 1, 2, 2, 3, 3, 4, 4]),
    line: Uint32Array.from([1, 2, 3, 4, 5, 6, 7, 8, 9]),
  } as unknown as Motions;
  const cut = Float32Array.from([0, 0, 50, 0, 0, 0, 0, 0, 0]);
  const found = idleTools(m, cut, (tool) => tool !== 4);
  expect(found.map((f) => [f.message, f.place.line])).toEqual([
    ['T2 is changed in and never cuts', 4],
    ['T3 cuts nothing but air', 7],
  ]);
});
