import { alike } from '../machine/axes';
import fc from 'fast-check';
import { tool } from '../../testing/parts';
import { HOLDERS, MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { Tool, profileHeight, profileTop } from '../shop/tool';
import { MOVE, MotionList, Motions } from '../path/motions';
import { readProgram } from '../program/read/reader';
import { clock, cornerSpeed, trapezoid } from './clock';
import { segmentMeetsBox } from '../geometry/space/box';
import { eachInside, makeField, makePiles, pileOf, setPile, volumeAbove, volumeOf } from '../stock/height/field';
import { Playback } from './playback';
import { ProveInput } from './input';
import { Prover } from './prover';
import { Sweeper, cutterOf } from '../stock/height/sweep';

const BLOCK = [
  { x: 0, y: 0 },
  { x: 60, y: 0 },
  { x: 60, y: 40 },
  { x: 0, y: 40 },
];
const CELL = 0.05;

function block(cell = CELL, top = 0, bottom = -20) {
  const field = makeField({ minX: 0, minY: 0, maxX: 60, maxY: 40 }, cell);
  eachInside(field, [BLOCK], (i) => (field.height[i] = top));
  return new Sweeper(field, bottom);
}

const ball: Tool = { ...tool(12) };
const flat10 = cutterOf(tool(4));

describe('volumes against closed forms, 0.05 mm cells', () => {
  const cut = (s: Sweeper, t: Tool | typeof flat10, points: number[][]) => {
    const cutter = 'table' in t ? t : cutterOf(t);
    let volume = 0;
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1], points[i]];
      volume += s.sweep(cutter, a[0], a[1], a[2], b[0], b[1], b[2], i).volume;
    }
    return volume;
  };

  test('slot', () => {
    const v = cut(block(), flat10, [
      [15, 20, -4],
      [45, 20, -4],
    ]);
    expect(v / (4 * (30 * 10 + Math.PI * 25))).toBeCloseTo(1, 2);
    expect(Math.abs(v / (4 * (30 * 10 + Math.PI * 25)) - 1)).toBeLessThan(0.005);
  });

  /** Every tool of the rack narrow enough for the block, pressed straight in: the body of its own profile is gone. */
  test.each(TOOLS.filter((t) => t.diameter <= 24 && t.diameter >= 2).map((t) => [t.name, t] as const))(
    'the profile of a %s',
    (_, t) => {
      const depth = Math.min(6, Math.max(2, profileTop(t) + 1));
      const steps = 4000;
      let expected = 0;
      for (let i = 0; i < steps; i++) {
        const r = ((i + 0.5) / steps) * (t.diameter / 2);
        expected += 2 * Math.PI * r * Math.max(0, depth - profileHeight(t, r)) * (t.diameter / 2 / steps);
      }
      const v = cut(block(), cutterOf(t), [
        [30, 20, 1],
        [30, 20, -depth],
      ]);
      const rim = 0.3 / (t.diameter / CELL);
      expect(Math.abs(v / expected - 1)).toBeLessThan(0.005 + rim);
    },
  );

  test('slanted slot, any direction', () => {
    const v = cut(block(), flat10, [
      [12, 10, -3],
      [47, 31, -3],
    ]);
    expect(Math.abs(v / (3 * (Math.hypot(35, 21) * 10 + Math.PI * 25)) - 1)).toBeLessThan(0.005);
  });

  test('drilled hole with its cone', () => {
    const drill = tool(18);
    const r = drill.diameter / 2;
    const point = r / Math.tan((drill.pointAngle * Math.PI) / 360);
    const v = cut(block(), drill, [
      [30, 20, 5],
      [30, 20, -12],
    ]);
    expect(Math.abs(v / (Math.PI * r * r * (12 - point + point / 3)) - 1)).toBeLessThan(0.005);
  });

  test('ball groove', () => {
    const v = cut(block(), ball, [
      [10, 20, -2],
      [50, 20, -2],
    ]);
    const phi = 2 * Math.acos((3 - 2) / 3);
    const segment = (9 / 2) * (phi - Math.sin(phi));
    const cap = (Math.PI * 4 * (9 - 2)) / 3;
    expect(Math.abs(v / (segment * 40 + cap) - 1)).toBeLessThan(0.005);
  });

  test('ring milled by a circle of chords', () => {
    const n = 720;
    const circle = Array.from({ length: n + 1 }, (_, i) => [
      30 + 12 * Math.cos((2 * Math.PI * i) / n),
      20 + 12 * Math.sin((2 * Math.PI * i) / n),
      -2,
    ]);
    const v = cut(block(), cutterOf(tool(7)), circle);
    expect(Math.abs(v / (2 * Math.PI * (15 ** 2 - 9 ** 2)) - 1)).toBeLessThan(0.005);
  });

  test('ramp: half the volume of the level slot, plus its ends', () => {
    const v = cut(block(), flat10, [
      [15, 20, 0],
      [45, 20, -3],
      [15, 20, -3],
    ]);
    expect(Math.abs(v / (3 * (30 * 10 + Math.PI * 25)) - 1)).toBeLessThan(0.01);
  });

  test('nothing is taken below the underside, or twice', () => {
    const s = block(0.2, 0, -5);
    expect(
      cut(s, flat10, [
        [30, 20, 5],
        [30, 20, -50],
      ]),
    ).toBeCloseTo(Math.PI * 25 * 5, -1);
    expect(
      cut(s, flat10, [
        [30, 20, 5],
        [30, 20, -50],
      ]),
    ).toBe(0);
  });

  test('what is gone equals what is missing, whatever the moves', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 40 }), fc.integer({ min: -10, max: 2 })),
          { minLength: 2, maxLength: 8 },
        ),
        fc.constantFrom(4, 12, 13),
        (points, number) => {
          const s = block(0.5);
          const before = volumeAbove(s.field, -20);
          const v = cut(s, tool(number), points);
          expect(before - volumeAbove(s.field, -20)).toBeCloseTo(v, 1);
        },
      ),
      { numRuns: 40, seed: 10 },
    );
  });
});

describe('clock', () => {
  const settings = { maxFeed: 6000, axes: alike(800, 500, 500, 15000, 500), tolerance: 0.02, toolChangeSeconds: 10 };
  const motions = (rows: [number, number, number, number, number?][]): Motions => {
    const list = new MotionList();
    for (const [type, x, y, z, feed] of rows)
      list.push({ type, line: 1, x, y, z, cx: 0, cy: 0, feed: feed ?? 0, rpm: 0, tool: 1, seconds: 0 });
    return list.build();
  };

  test('a machine known to need 12 % more moves 12 % longer; its tool changes do not', () => {
    const moves = motions([
      [MOVE.toolChange, 0, 0, 0],
      [MOVE.line, 50, 0, 0, 600],
      [MOVE.line, 50, 30, 0, 600],
    ]);
    const [plain, slow] = [0, 0.12].map((extraTime) => clock(moves, { ...settings, extraTime }));
    expect(slow.cut).toBeCloseTo(plain.cut * 1.12, 9);
    expect(slow.toolChange).toBe(plain.toolChange);
  });

  test('no axis runs faster than it can, nor gets faster: a slanting rapid takes as long as its slowest axis', () => {
    const axes = { ...settings.axes, y: { from: 0, to: 500, rapid: 6000, acceleration: 200 } };
    const seconds = (x: number, y: number, z = 0) =>
      clock(
        motions([
          [MOVE.rapid, 0, 0, 0],
          [MOVE.rapid, x, y, z],
        ]),
        { ...settings, axes },
      ).rapid * 60;
    // Along one axis: a trapezoid at its own rate.
    expect(seconds(400, 0)).toBeCloseTo(trapezoid(400, 0, 0, 250, 500), 9);
    expect(seconds(0, 300)).toBeCloseTo(trapezoid(300, 0, 0, 100, 200), 9);
    // Aslant Y governs both: its share of the way is what it takes alone.
    expect(seconds(300, 300)).toBeCloseTo(seconds(0, 300), 9);
    // X governs where Y hardly moves.
    expect(seconds(400, 40)).toBeCloseTo(trapezoid(400, 0, 0, 250, 500), 1);
    const even = clock(
      motions([
        [MOVE.rapid, 0, 0, 0],
        [MOVE.rapid, 400, 400, 0],
      ]),
      settings,
    );
    expect(even.rapid * 60).toBeCloseTo(trapezoid(400 * Math.SQRT2, 0, 0, 250 * Math.SQRT2, 500), 9);
  });

  test('trapezoids from and to rest', () => {
    expect(trapezoid(100, 0, 0, 100, 500)).toBeCloseTo(1.2, 9);
    expect(trapezoid(10, 0, 0, 100, 500)).toBeCloseTo(0.2828, 4);
  });

  test('a straight cut in many pieces takes as long as in one', () => {
    const one = clock(
      motions([
        [0, 0, 0, 0],
        [1, 100, 0, 0, 6000],
      ]),
      settings,
    );
    const many = clock(
      motions([
        [0, 0, 0, 0],
        ...Array.from({ length: 100 }, (_, i): [number, number, number, number, number] => [1, i + 1, 0, 0, 6000]),
      ]),
      settings,
    );
    expect(many.total).toBeCloseTo(one.total, 9);
    expect(one.cut * 60).toBeCloseTo(1.2, 6);
  });

  test('a zigzag slows at its corners; an equal straight does not', () => {
    const zigzag = clock(
      motions([
        [0, 0, 0, 0],
        ...Array.from({ length: 20 }, (_, i): [number, number, number, number, number] => [
          1,
          i % 2,
          (i + 1) * 0.5,
          0,
          6000,
        ]),
      ]),
      settings,
    );
    expect(zigzag.total).toBeGreaterThan(
      clock(
        motions([
          [0, 0, 0, 0],
          [1, 22, 0, 0, 6000],
        ]),
        settings,
      ).total * 1.5,
    );
    expect(cornerSpeed(1, 0.02, 500)).toBe(Infinity);
    expect(cornerSpeed(-1, 0.02, 500)).toBe(0);
  });

  test('agrees with stepping through time, within 1 %', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.5, max: 30, noNaN: true }), { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 500, max: 6000 }),
        (lengths, feed) => {
          let x = 0;
          const rows = lengths.map((l): [number, number, number, number, number] => [1, (x += l), 0, 0, feed]);
          const found = clock(motions([[0, 0, 0, 0], ...rows]), settings);
          const [v, a, total] = [feed / 60, 500, x];
          let [t, s, speed] = [0, 0, 0];
          const dt = 1e-4;
          while (s < total - 1e-9 && t < 100) {
            const stopping = (speed * speed) / (2 * a) >= total - s;
            speed = stopping ? Math.max(0.05, speed - a * dt) : Math.min(v, speed + a * dt);
            s += speed * dt;
            t += dt;
          }
          expect(Math.abs(found.total * 60 - t) / t).toBeLessThan(0.01);
        },
      ),
      { numRuns: 25, seed: 11 },
    );
  });

  test('parts are told apart', () => {
    const c = clock(
      motions([
        [5, 0, 0, 0],
        [0, 0, 0, 50],
        [1, 10, 0, 50, 600],
      ]),
      settings,
    );
    expect(c.toolChange * 60).toBe(10);
    expect(c.total).toBeCloseTo(c.cut + c.rapid + c.toolChange + c.dwell, 12);
  });
});

function input(text: string, more: Partial<ProveInput> = {}): ProveInput {
  const { motions } = readProgram(text, { homeZ: 200, unit: 'mm' });
  return {
    motions,
    tools: new Map([4, 12, 13, 18, 1].map((n) => [n, tool(n)])),
    machine: MACHINES[2],
    material: MATERIALS[0],
    stock: { region: [BLOCK], top: 0, bottom: -20 },
    zero: { x: 0, y: 0, z: 0 },
    fixtures: [],
    zeroAboveTable: 60,
    cell: 0.1,
    ...more,
  };
}
const START = 'G21 G90 G54\nT4 M6\nS6000 M3\nG0 X-20 Y20 Z5\n';
const proveText = (text: string, more: Partial<ProveInput> = {}) => {
  const prover = new Prover(input(START + text, more));
  prover.advance();
  return prover.result();
};

describe('engagement and load', () => {
  test.each([0.5, 1, 2, 3, 5, 7.5])('straight side cut biting %d mm', (ae) => {
    const { samples } = proveText(`G0 X-10 Y${40 + 5 - ae}\nG0 Z-3\nG1 X70 F600\n`, { cell: 0.05 });
    const steady = Array.from(samples.engagement).filter((_, i) => samples.x[i] > 10 && samples.x[i] < 50);
    const expected = (Math.acos(1 - (2 * ae) / 10) * 180) / Math.PI;
    for (const angle of steady) expect(Math.abs(angle - expected)).toBeLessThan(1.5);
  });

  test('a slot is engaged half a turn, and the removal rate is width × depth × feed', () => {
    const { samples } = proveText('G0 Z-2\nG1 X80 F600\n');
    const i = samples.x.findIndex((x) => x > 30);
    expect(samples.engagement[i]).toBeGreaterThan(170);
    expect(samples.rate[i]).toBeCloseTo((10 * 2 * 600) / 60, -1);
    expect(samples.load[i]).toBeGreaterThan(0);
  });

  test('time grows along the samples and ends with the program', () => {
    const prover = new Prover(input(START + 'G0 Z-2\nG1 X80 F600\nG0 Z5\n'));
    prover.advance(3);
    expect(prover.done).toBe(false);
    prover.advance();
    const { samples } = prover.result();
    for (let i = 1; i < samples.count; i++) expect(samples.time[i]).toBeGreaterThanOrEqual(samples.time[i - 1]);
  });
});

describe('contacts', () => {
  const codes = (text: string, more: Partial<ProveInput> = {}) =>
    proveText(text, more).findings.map((f) => `${f.code}@${f.place.line}`);
  const clamp = { name: 'Clamp', minX: 20, minY: 10, minZ: -20, maxX: 30, maxY: 30, maxZ: 8 };

  test('a slim cone passes where a cylinder of its widest would hit, and hits where it is wide', () => {
    const cone = { ...HOLDERS[0], segments: [{ lower: 12, upper: 60, length: 24 }] };
    const post = { ...input('').stock, region: [BLOCK], top: 12 };
    const at = (stickOut: number, segments = cone.segments) =>
      codes('G0 Z60\nG0 X-16 Y20\nG0 Z-10\nG1 Y25 F600\nG0 Z60\n', {
        stock: post,
        tools: new Map([[4, { ...tool(4), stickOut, holder: { ...cone, segments } }]]),
      }).filter((c) => c.startsWith('holder-hit'));
    expect(at(18)).toEqual([]);
    expect(at(18, [{ lower: 60, upper: 60, length: 24 }])).toHaveLength(1);
    expect(at(10)).toHaveLength(1);
  });

  test('a clean cut raises nothing', () => expect(codes('G0 Z-2\nG1 X80 F600\nG0 Z50\n')).toEqual([]));

  test.each([
    ['rapid through stock', 'G0 Z-2\nG0 X80\n', {}, 'rapid-through-stock@6'],
    ['rapid down into stock', 'G0 X30\nG0 Z-3\n', {}, 'rapid-through-stock@6'],
    [
      'deeper than the flutes',
      'G0 Z-15\nG1 X80 F600\n',
      { tools: new Map([[4, { ...tool(4), fluteLength: 10 }]]) },
      'too-deep-for-flutes@6',
    ],
    [
      'holder into stock',
      'G0 Z-15\nG1 X80 F600\n',
      { tools: new Map([[4, { ...tool(4), stickOut: 12 }]]) },
      'holder-hit@6',
    ],
    [
      'plunge of a tool that cannot',
      'G0 X30\nG1 Z-3 F100\n',
      { tools: new Map([[4, { ...tool(4), centreCutting: false }]]) },
      'cannot-plunge@6',
    ],
    ['clamp', 'G1 X80 F2000\n', { fixtures: [clamp] }, 'fixture-hit@5'],
    ['travel in X', 'G0 X900\n', {}, 'beyond-travel@5'],
    ['travel in Z', 'G0 X-20\nG1 Z-600 F500\n', {}, 'beyond-travel@6'],
    ['a tool nobody knows', 'T77 M6\nS1000 M3\nG1 X1 F100\n', {}, 'unknown-tool@7'],
    [
      'below the stock',
      'G0 Z-25\nG1 X80 F600\n',
      { tools: new Map([[4, { ...tool(4), fluteLength: 40, stickOut: 60 }]]) },
      'below-stock@6',
    ],
  ])('%s', (_, text, more, expected) => expect(codes(text, more as Partial<ProveInput>)).toContain(expected));

  test('the same fault many times is told once, with its count and first line', () => {
    const found = proveText('G0 Z-2\nG0 X80\nG0 Y10\nG0 X-20\nG0 Y30\nG0 X80\n').findings.filter(
      (f) => f.code === 'rapid-through-stock',
    );
    expect(found).toHaveLength(1);
    expect(found[0].place.line).toBe(6);
    expect(found[0].message).toMatch(/3 moves/);
  });

  test('a segment and a box', () => {
    const box = { minX: 0, minY: 0, maxX: 10, maxY: 10 };
    const p = (x: number, y: number) => ({ x, y, z: 0 });
    expect(segmentMeetsBox(p(-5, 5), p(15, 5), box, 1)).toBe(true);
    expect(segmentMeetsBox(p(-5, 12), p(15, 12), box, 1)).toBe(false);
    expect(segmentMeetsBox(p(-5, 10.5), p(15, 10.5), box, 1)).toBe(true);
    expect(segmentMeetsBox(p(-5, -2), p(-2, -5), box, 2)).toBe(false);
  });
});

test('playback shows the stock of any moment, forwards and backwards the same', () => {
  const text = START + 'G0 Z-2\nG1 X80 F600\nG1 Y30\nG3 X70 Y20 I0 J-10\nG1 X-20\nG0 Z5\n';
  const given = input(text);
  const { seconds } = clock(given.motions, {
    axes: alike(800, 500, 540, 30000, 4000),
    maxFeed: 12000,
    tolerance: 0.01,
    toolChangeSeconds: 5,
  });
  const total = seconds.reduce((a, b) => a + b, 0);
  const playback = new Playback(given, seconds, 0.5);
  const at = (share: number) => {
    const moment = playback.seek(total * share);
    return { moment, volume: volumeAbove(playback.field, -20) };
  };
  const forward = [0, 0.3, 0.55, 0.8, 1].map(at);
  const back = [0.8, 0.3, 0.55, 0].map(at);
  expect(back.map((b) => b.volume)).toEqual([3, 1, 2, 0].map((i) => expect.closeTo(forward[i].volume, 3)));
  expect(forward[0].volume).toBeGreaterThan(forward[4].volume);
  expect(forward[4].moment).toMatchObject({ x: -20, z: 5, line: 10, tool: 4 });
  expect(MOVE.rapid).toBe(0);
});

describe('strokes that go on from one another, and piles', () => {
  const point = fc.record({
    x: fc.double({ min: -5, max: 65, noNaN: true }),
    y: fc.double({ min: -5, max: 45, noNaN: true }),
    z: fc.constantFrom(-1, -1, -1, -2.5),
  });

  /** Cuts a way with fields that must come out the same. */
  function compare(
    way: { x: number; y: number; z: number }[],
    cutter: ReturnType<typeof cutterOf>,
    other: Sweeper,
    each: () => void,
  ) {
    const plain = block(0.5);
    for (let i = 1; i < way.length; i++) {
      const [a, b] = [way[i - 1], way[i]];
      const bite = plain.sweep(cutter, a.x, a.y, a.z, b.x, b.y, b.z, i);
      each();
      const same = other.sweep(cutter, a.x, a.y, a.z, b.x, b.y, b.z, i);
      expect(same.volume).toBeCloseTo(bite.volume, 2);
      expect(same.depth).toBeCloseTo(bite.depth, 4);
    }
    expect(other.field.height).toEqual(plain.field.height);
  }

  test('what stood under the start of a stroke is passed by, and nothing else', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 8 }), (way) => {
        const fresh = block(0.5);
        compare(way, flat10, fresh, () => fresh.restart());
      }),
      { seed: 2, numRuns: 40 },
    );
  });

  test('a piece given as piles is cut like a fresh one', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 6 }), fc.boolean(), (way, isBall) => {
        const { field } = block(0.5);
        const piles = makePiles(field);
        field.height.forEach((_, i) => setPile(piles, i, pileOf(field, i, -20)));
        compare(way, isBall ? cutterOf(ball) : flat10, new Sweeper(piles, -20), () => undefined);
      }),
      { seed: 7, numRuns: 30 },
    );
  });

  test('a cut through several pieces takes each of them, and what lies below stays', () => {
    const { field } = block(0.5);
    const piles = makePiles(field);
    for (let i = 0; i < field.height.length; i++) setPile(piles, i, [0, -2, -5, -8, -12, -20]);
    const sweeper = new Sweeper(piles, -20);
    const area = volumeOf({ ...field, height: field.height.map((_, i) => (inDisc(field, i) ? 0 : -20)) }, -20) / 20;
    const { volume, depth } = sweeper.sweep(flat10, 30, 20, -13, 30, 20, -13, 1);
    expect(volume / area).toBeCloseTo(2 + 3 + 1, 6);
    expect(depth).toBeCloseTo(6, 6);
    const middle = Math.floor(20 / 0.5) * piles.nx + Math.floor(30 / 0.5);
    expect(pileOf(piles, middle, -20)).toEqual([-13, -20]);
  });

  const inDisc = ({ nx }: { nx: number }, i: number) =>
    Math.hypot(((i % nx) + 0.5) * 0.5 - 30, (Math.floor(i / nx) + 0.5) * 0.5 - 20) <= 5;
});
