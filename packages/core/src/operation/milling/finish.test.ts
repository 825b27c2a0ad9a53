import { offset, ringArea } from '../../geometry/plane/clip';
import { tool } from '../../../testing/parts';
import { FinishParams, Walls, finishDefaults, finishWalls } from './finish';
import type { PlanContext } from '../operation';
import { PathBuilder, TAGS } from '../../path/path';

/** A pocket of 40 x 30, its walls to be finished by a 10 mm cutter. */
const pocket = [
  [
    { x: 0, y: 0 },
    { x: 40, y: 0 },
    { x: 40, y: 30 },
    { x: 0, y: 30 },
  ],
];
const context = {
  tool: { ...tool(4), diameter: 10 },
  machine: { maxFeed: 1500 },
  operation: { id: 'o1', speeds: { rpm: 6000, feed: 1000, entryFeed: 300 } },
  top: 1,
  clearance: 12,
} as unknown as PlanContext;

function finished(more: Partial<FinishParams> = {}, walls: Partial<Walls> = {}) {
  const params: FinishParams = { ...finishDefaults(context.tool), finishStock: 0.3, ...more };
  const left: number[] = [];
  const path = new PathBuilder();
  const findings = finishWalls(path, context, params, {
    feature: { id: 'f2' },
    allowance: 0,
    floor: -6,
    conventional: false,
    at: (leave) => {
      left.push(leave);
      const rings = offset(pocket, -(5 + leave));
      return { free: rings, rings };
    },
    ...walls,
  });
  const built = path.build();
  const tags = Array.from(built.tag, (tag) => TAGS[tag]);
  const cuts = [...tags.keys()].filter((i) => tags[i] === 'cut');
  return { path: built, tags, cuts, left: left.map((l) => Math.round(l * 1000) / 1000), findings };
}

test('one lap on the wall, or several that share what was left for them; a spring lap repeats the last', () => {
  expect(finished().left).toEqual([0]);
  expect(finished({ finishLaps: 3 }).left).toEqual([0.2, 0.1, 0]);
  expect(finished({ finishLaps: 2, spring: true }, { allowance: 0.5 }).left).toEqual([0.65, 0.5, 0.5]);
});

test.each([
  [false, 1],
  [true, -1],
])(
  'conventional %s: the lap goes round the inside with the wall on the side it should be, and closes',
  (conventional, way) => {
    const { path, cuts, findings } = finished({}, { conventional });
    const ring = cuts.map((i) => ({ x: path.x[i], y: path.y[i] }));
    expect(Math.sign(ringArea(ring))).toBe(way);
    expect(Math.abs(ringArea(ring))).toBeCloseTo(30 * 20, 0);
    const start = { x: path.x[cuts[0] - 1], y: path.y[cuts[0] - 1] };
    expect(ring[ring.length - 1].x).toBeCloseTo(start.x, 6);
    expect(ring[ring.length - 1].y).toBeCloseTo(start.y, 6);
    expect(findings).toEqual([]);
  },
);

test('it is led on and off by arcs, above the floor by the gap, and ends at the clearance', () => {
  const { path, tags, cuts } = finished({ floorGap: 0.05 });
  for (const i of cuts) expect(path.z[i]).toBeCloseTo(-5.95, 9);
  expect(tags[cuts[0] - 1]).toBe('lead');
  expect(tags[cuts[cuts.length - 1] + 1]).toBe('lead');
  expect(path.z[path.count - 1]).toBe(12);
});

test('the feed of the finish is a share of the feed, within what the machine can', () => {
  const feedOf = (finishFeed: number) => {
    const { path, cuts } = finished({ finishFeed });
    return path.feed[cuts[0]];
  };
  expect([0.5, 1, 2].map(feedOf)).toEqual([500, 1000, 1500]);
});

test('a lap may run on past its start', () => {
  const lengthOf = (overlap: number) => {
    const { path, cuts } = finished({ overlap });
    return cuts.reduce((sum, i) => sum + Math.hypot(path.x[i] - path.x[i - 1], path.y[i] - path.y[i - 1]), 0);
  };
  expect(lengthOf(4) - lengthOf(0)).toBeCloseTo(4, 6);
});

test('where there is no room to lead on it starts on the wall, goes down at the entry feed, and says so once', () => {
  const rings = offset(pocket, -5);
  const { path, tags, findings } = finished({ finishLaps: 2 }, { at: () => ({ free: [], rings }) });
  expect(findings.map((f) => f.code)).toEqual(['finish-starts-on-wall']);
  const entries = [...tags.keys()].filter((i) => tags[i] === 'entry');
  expect(entries.map((i) => path.feed[i])).toEqual([300, 300]);
});
