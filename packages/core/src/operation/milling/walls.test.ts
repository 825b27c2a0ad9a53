import { Chain, flatten, reversed } from '../../geometry/plane/chain';
import { distanceToBoundary, ringArea } from '../../geometry/plane/clip';
import { distanceToSegment } from '../../geometry/plane/point';
import { Run, closedWall, openWall } from './walls';

const square = [
  [
    { x: 0, y: 0 },
    { x: 40, y: 0 },
    { x: 40, y: 30 },
    { x: 0, y: 30 },
  ],
];
const run: Run = {
  radius: 4,
  side: 'outside',
  direction: 'climb',
  corners: 'rolled',
  startAt: 'longest straight',
  start: 0,
};
/** A quarter of a circle between two straights. */
const bend: Chain = {
  closed: false,
  vertices: [
    { x: 0, y: 0, bulge: 0 },
    { x: 30, y: 0, bulge: Math.tan(Math.PI / 8) },
    { x: 50, y: 20, bulge: 0 },
    { x: 50, y: 40, bulge: 0 },
  ],
};
const turn = (lap: Chain) => Math.sign(ringArea(flatten(lap, 0.001)));

test.each([
  [false, 'climb', -1],
  [false, 'conventional', 1],
  [true, 'climb', 1],
  [true, 'conventional', -1],
] as const)('closed, inside %s, %s: a climbing cutter has the wall at its right', (inside, direction, way) => {
  const wall = closedWall(square, inside, { ...run, direction });
  const [lap] = wall.laps(0.5);
  expect(turn(lap)).toBe(way);
  for (const p of flatten(lap, 0.001)) {
    expect(Math.abs(distanceToBoundary(square, p))).toBeCloseTo(4.5, 2);
    expect(wall.isFree(p, 0.5)).toBe(true);
    expect(wall.isFree(p, 0.6)).toBe(false);
  }
});

test('a lap too large for an inside is none', () => {
  expect(closedWall(square, true, { ...run, radius: 15.1 }).laps(0)).toEqual([]);
});

test('a lap begins in the middle of the longest straight, or where it is asked to', () => {
  const [first] = closedWall(square, true, run).laps(0)[0].vertices;
  expect([first.x, Math.min(first.y, 30 - first.y)]).toEqual([expect.closeTo(20, 3), expect.closeTo(4, 3)]);
  const at = (start: number) => closedWall(square, true, { ...run, startAt: 'chosen', start }).laps(0)[0].vertices[0];
  const [here, across] = [at(0.1), at(0.6)];
  expect(here.x + across.x).toBeCloseTo(40, 3);
  expect(here.y + across.y).toBeCloseTo(30, 3);
});

test.each([
  ['left', 'climb', false],
  ['left', 'conventional', true],
  ['right', 'climb', true],
  ['right', 'conventional', false],
] as const)('open, on its %s, %s: the same distance all along, reversed %s', (side, direction, isReversed) => {
  // A climbing cutter keeps the wall at its right, so it runs beside a line's left in the line's own direction.
  const wall = openWall(bend, bend, { ...run, side, direction });
  const [lap] = wall.laps(0);
  const points = flatten(isReversed ? lap : reversed(lap), 0.001);
  expect(points[0].x).toBeCloseTo(side === 'left' ? 46 : 54, 2);
  expect(points[0].y).toBeCloseTo(40, 2);
  const drawn = flatten(bend, 0.001);
  for (const p of points) {
    const nearest = Math.min(...drawn.slice(1).map((q, i) => distanceToSegment(p, drawn[i], q).distance));
    expect(nearest).toBeCloseTo(4, 2);
    expect(wall.isFree(p, 0)).toBe(true);
  }
});

test('on the line the lap is the line itself, to and fro as asked, and everywhere is free', () => {
  const on = (direction: Run['direction']) => openWall(bend, bend, { ...run, side: 'on the line', direction });
  expect(on('climb').laps(3)).toEqual([bend]);
  expect(on('conventional').laps(3)).toEqual([reversed(bend)]);
  expect(on('climb').isFree({ x: 10, y: 0 }, 3)).toBe(true);
});
