import { Feature } from '../part/plate/feature';
import { tool } from '../../testing/parts';
import { cannotPlunge, reachFindings, targetFindings, toolFindings } from './checks';
import { Operation } from '../document/operation';

const operation = { id: 'o1', name: 'Clear it' } as Operation;
const mill = { ...tool(4), diameter: 10, shankDiameter: 10, fluteLength: 22, stickOut: 35 };
const context = { operation, tool: mill };
const codes = (depth: number, layer: number, more: Partial<typeof mill> = {}) =>
  reachFindings({ operation, tool: { ...mill, ...more } }, depth, layer).map((f) => `${f.level} ${f.code}`);

test('reach: the gravest is told, from the holder to the shank', () => {
  expect(codes(20, 20)).toEqual([]);
  expect(codes(36, 10)).toEqual(['stop too-deep-for-stick-out']);
  expect(codes(30, 23)).toEqual(['stop layer-too-deep']);
  expect(codes(30, 10)).toEqual(['care shank-beside-wall']);
  expect(codes(30, 10, { shankDiameter: 9 })).toEqual([]);
});

test('how long the tool must be is said with some room to spare', () => {
  expect(reachFindings(context, 36, 10)[0].remedy).toMatch(/at least 38 mm/);
});

test('a tool that cannot do it, and one that cannot go straight down, are named', () => {
  expect(toolFindings(context, () => true)).toEqual([]);
  const [found] = toolFindings(context, () => false);
  expect(found.message).toContain(mill.name);
  expect(found.place).toEqual({ operation: 'o1', tool: mill.id, field: 'toolId' });
  expect(cannotPlunge(context, { x: 3, y: 4 }).place.at).toEqual({ x: 3, y: 4 });
});

test('features it does not work on are left out with a note; none at all stops it', () => {
  const feature = (id: string, meaning: Feature['meaning']) => ({ id, name: id, meaning }) as Feature;
  const targets = [feature('a', 'pocket'), feature('b', 'line')];
  expect(targetFindings({ operation, targets }, ['pocket']).map((f) => [f.level, f.place.feature])).toEqual([
    ['note', 'b'],
  ]);
  const [none] = targetFindings({ operation, targets: [] }, ['pocket', 'outline']);
  expect(none).toMatchObject({ level: 'stop', remedy: 'Choose a feature: pocket, outline' });
});
