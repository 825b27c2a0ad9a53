import { TOOLS } from '../../shop/library';
import fc from 'fast-check';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { plate, tool } from '../../../testing/parts';
import { pathLengths } from '../insight';
import { planFindings, planSetup } from '../pipeline';
import { newFeature } from '../../part/plate/new';
import { Shape, SINGLE } from '../../part/plate/feature';
import { validateSync } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { tourLength, shortTour } from '../../operation/ordering';
import { peckDepths } from '../../operation/cycle';
import { layersBetween } from '../../operation/layers';
import { LINE, RAPID, TAGS } from '../../path/path';
import { KINDS } from '../../operation/registry';
import { boreRadii } from '../../operation/hole/radii';

const POCKET: Shape = { type: 'rectangle', width: 50, height: 30, radius: 6 };
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

describe('facing', () => {
  test.each(['both ways', 'one way'])('%s leaves nothing on the top and touches nothing below it', (passes) => {
    const proof = prove(withOperation(jobWith(undefined), 'face', [], tool(1), { passes, layer: 0.4 }), 0.2);
    expect(proof.codes).toEqual([]);
    expect(proof.removed).toBeCloseTo((84 * 54 * 1) / 1000, 1);
  });

  test.each([
    ['spiral', false, 'box'],
    ['spiral', false, 'round'],
    ['both ways', true, 'box'],
    ['one way', true, 'round'],
    ['both ways', false, 'round'],
  ])('%s, rolled in %s, on %s stock', (passes, rolledIn, shape) => {
    const job = withStock(jobWith(undefined), { shape: shape as 'box', diameter: 100 });
    const proof = prove(withOperation(job, 'face', [], tool(1), { passes, rolledIn, stepover: 26 }), 0.2);
    expect(proof.codes).toEqual([]);
    expect(proof.removed).toBeCloseTo((shape === 'box' ? 84 * 54 : Math.PI * 2500) / 1000, 1);
    const small = prove(withOperation(job, 'face', [], tool(4), { passes, rolledIn, stepover: 7 }), 0.2);
    expect(small.codes).toEqual([]);
  });

  test('a stepover wider than the cutter is refused, and nothing is cut', () => {
    const job = withOperation(jobWith(undefined), 'face', [], tool(4), { stepover: 12 });
    expect(post(job)).toEqual({ text: '', codes: expect.arrayContaining(['stepover-too-wide']) });
  });
});

describe('pocket patterns', () => {
  const shapes: Record<string, Shape> = {
    rounded: POCKET,
    round: { type: 'round', diameter: 40 },
    ell: {
      type: 'chain',
      closed: true,
      vertices: [
        [-28, -18],
        [28, -18],
        [28, -2],
        [2, -2],
        [2, 20],
        [-28, 20],
      ].map(([x, y]) => ({ x, y, bulge: 0 })),
    },
  };
  test.each(
    Object.keys(shapes).flatMap((shape) =>
      ['outside in', 'spiral', 'zigzag', 'one way'].map((pattern) => [shape, pattern] as const),
    ),
  )('%s by %s: cleared, nothing hit', (shape, pattern) => {
    const job = withStock(jobWith(shapes[shape], { depth: 4 }), flush);
    const cut = withOperation(job, 'pocket', ['f2'], tool(6), { pattern, rowAngle: 30, layer: 2, finishLaps: 2 });
    const { codes } = prove(cut, 0.1);
    expect(codes.filter((c) => shape !== 'ell' || c !== 'metal-left')).toEqual([]);
  });

  test('with an island, and the finish above the floor', () => {
    const base = withStock(jobWith(POCKET, { depth: 4 }), flush);
    const boss = newFeature(base.part.features, 'boss', 'Boss', { type: 'round', diameter: 8 }, { x: 40, y: 25 });
    const job = { ...base, part: { ...base.part, features: [...base.part.features, boss] } };
    for (const pattern of ['outside in', 'spiral', 'zigzag', 'one way'])
      expect(
        prove(withOperation(job, 'pocket', ['f2'], tool(7), { pattern, floorGap: 0.05, overlap: 3, spring: true }), 0.1)
          .codes,
      ).toEqual([]);
  });
});

describe('pocket passes and their finish', () => {
  const job = withStock(jobWith(POCKET, { depth: 4 }), flush);
  const cut = (params: Record<string, unknown>) =>
    withOperation(job, 'pocket', ['f2'], tool(6), { layer: 4, ...params });

  test.each(['inside out', 'outside in', 'spiral'])('%s with rounded passes clears all the same', (pattern) => {
    expect(prove(cut({ pattern, smooth: 3 }), 0.1).codes).toEqual([]);
  });

  test('finish laps have a feed and a start of their own', () => {
    const path = (params: Record<string, unknown>) => {
      const made = cut(params);
      return {
        path: planSetup(made, made.setups[0]).planned[0].plan.path,
        feed: made.setups[0].operations[0].speeds.feed,
      };
    };
    const slow = path({ finishFeed: 0.5 });
    const last = slow.path.count - 2;
    expect(slow.path.feed[last]).toBeCloseTo(slow.feed / 2, 6);
    const there = path({ finishStart: 0.5 }).path;
    expect(there.y[there.count - 1]).not.toBeCloseTo(slow.path.y[slow.path.count - 1], 1);
  });

  test('too large a tool: the one of the job that fits is named', () => {
    const small = withStock(jobWith({ type: 'round', diameter: 7 }, { depth: 4 }), flush);
    const both = withOperation(withOperation(small, 'pocket', ['f2'], tool(7)), 'pocket', ['f2'], tool(4));
    const found = planFindings(planSetup(both, both.setups[0])).find((f) => f.code === 'pocket-too-small');
    expect(found?.remedy).toContain('T7, 6 mm end mill');
  });
});

describe('slots', () => {
  const slotJob = (width: number) => withStock(jobWith({ type: 'slot', length: 50, width }, { depth: 5 }), flush);

  test.each([
    ['layers', 6, 7],
    ['layers', 9, 7],
    ['full depth', 6, 7],
    ['looping', 9, 7],
    ['looping', 16, 7],
  ])('%s, %d mm wide', (method, width, number) => {
    const proof = prove(withOperation(slotJob(width), 'slot', ['f2'], tool(number), { method, stepover: 0.8 }), 0.05);
    expect(proof.codes).toEqual([]);
    expect(proof.removed * 1000).toBeCloseTo(((50 - width) * width + (Math.PI * width * width) / 4) * 5, -1.2);
  });

  test('loops keep the bite near what was asked', () => {
    const proof = prove(
      withOperation(slotJob(9), 'slot', ['f2'], tool(7), { method: 'looping', stepover: 0.6, finish: false }),
      0.05,
    );
    const { samples } = proof;
    const cut = Array.from(samples.engagement).filter((a, i) => a > 0 && a < 179 && samples.z[i] < -4.9);
    const most = cut.sort((a, b) => a - b)[Math.floor(cut.length * 0.98)];
    expect(most).toBeLessThan(95);
  });

  test('a groove along an open line is as wide as the cutter, or as asked', () => {
    const base = withStock(jobWith(undefined), flush);
    const shape: Shape = {
      type: 'chain',
      closed: false,
      vertices: [
        { x: 0, y: 0, bulge: 0 },
        { x: 30, y: 0, bulge: 0.4 },
        { x: 40, y: 14, bulge: 0 },
      ],
    };
    const line = newFeature(base.part.features, 'line', 'Groove', shape, { x: 20, y: 18, depth: 3 });
    const job = { ...base, part: { ...base.part, features: [...base.part.features, line] } };
    for (const params of [{ width: 0 }, { width: 9 }, { width: 9, method: 'looping', stepover: 1 }])
      expect(prove(withOperation(job, 'slot', ['f2'], tool(7), params), 0.1).codes).toEqual([]);
  });

  test('too narrow, too wide, no room for loops, no slot at all: told', () => {
    const codes = (job: ReturnType<typeof slotJob>, params = {}) =>
      post(withOperation(job, 'slot', ['f2'], tool(7), params)).codes;
    expect(codes(slotJob(5))).toContain('slot-narrow');
    expect(codes(slotJob(14))).toContain('slot-wide');
    expect(codes(slotJob(6.2), { method: 'looping' })).toContain('no-room-for-loops');
    expect(codes(withStock(jobWith(POCKET), flush))).toContain('not-a-slot');
  });
});

describe('clearing at a steady load', () => {
  const roomy: Shape = { type: 'rectangle', width: 56, height: 36, radius: 9 };
  const pocketJob = (depth = 4) => withStock(jobWith(roomy, { depth }), flush);

  test('a pocket with its walls finished proves clean', () => {
    const proof = prove(withOperation(pocketJob(), 'clear', ['f2'], tool(4), { stepover: 2 }), 0.1);
    expect(proof.codes).toEqual([]);
  });

  test('flats on the way down are cleared too, and left alone where not asked for', () => {
    const base = pocketJob(6);
    const boss = newFeature(
      base.part.features,
      'boss',
      'Boss',
      { type: 'round', diameter: 12 },
      { x: 40, y: 25, depth: 2 },
    );
    const job = { ...base, part: { ...base.part, features: [...base.part.features, boss] } };
    const cut = (flats: boolean) => prove(withOperation(job, 'clear', ['f2'], tool(4), { stepover: 2, flats }), 0.25);
    const [all, without] = [cut(true), cut(false)];
    expect([all.codes, without.codes]).toEqual([[], ['metal-left']]);
    expect((all.removed - without.removed) * 1000).toBeCloseTo(Math.PI * 36 * 2, -1.3);
  });

  test('rest clearing cuts only what a larger tool left', () => {
    const corners = withStock(jobWith({ type: 'rectangle', width: 56, height: 36, radius: 4 }, { depth: 4 }), flush);
    const rough = withOperation(corners, 'clear', ['f2'], tool(3), { stepover: 3, finish: false });
    const alone = prove(rough, 0.25);
    const both = withOperation(rough, 'clear', ['f2'], tool(9), { stepover: 1, finish: false });
    const rest = prove(both, 0.25);
    expect(alone.codes).toContain('metal-left');
    expect(rest.codes).toEqual([]);
    const length = (job: typeof rough, i: number) =>
      pathLengths(planSetup(job, job.setups[0]).planned[i].plan.path).cut;
    const anew = withOperation(rough, 'clear', ['f2'], tool(9), {
      stepover: 1,
      finish: false,
      from: 'all of the stock',
    });
    expect(length(both, 1)).toBeLessThan(length(anew, 1) / 5);
  });

  const outside = withStock(jobWith(undefined, {}, 6), { left: 8, right: 3, front: 5, back: 12, top: 0, bottom: 2 });
  const around = (params: Record<string, unknown>) =>
    withOperation(outside, 'clear', ['f1'], tool(4), { stepover: 2, layer: 10, ...params });

  test('the outside of a part, from the stock inwards, without an entry into solid metal', () => {
    const job = around({ careful: true });
    expect(prove(job, 0.2).codes.filter((c) => c !== 'below-stock')).toEqual([]);
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    expect([...path.tag].map((t) => TAGS[t])).not.toContain('entry');
  });

  test('values that do not matter have no effect: neither bite nor feed of a first lap that is not asked for', () => {
    const text = (params: Record<string, unknown>) => post(around(params)).text;
    expect(text({ careful: false, firstBite: 0.2, firstFeed: 0.3 })).toBe(
      text({ careful: false, firstBite: 0.9, firstFeed: 1 }),
    );
    expect(text({ careful: true, firstFeed: 0.3 })).not.toBe(text({ careful: true, firstFeed: 1 }));
    const job = around({ careful: false });
    const { operation, plan } = planSetup(job, job.setups[0]).planned[0];
    for (let i = 0; i < plan.path.count; i++)
      if (TAGS[plan.path.tag[i]] === 'cut') expect(plan.path.feed[i]).toBeGreaterThanOrEqual(operation.speeds.feed);
  });

  test('faults say what and where: too large a tool, too wide a bite', () => {
    const narrow = withStock(jobWith({ type: 'slot', length: 40, width: 9 }, { depth: 3 }), flush);
    expect(post(withOperation(narrow, 'clear', ['f2'], tool(4))).codes).toContain('pocket-too-small');
    expect(post(withOperation(pocketJob(), 'clear', ['f2'], tool(4), { stepover: 9.5 })).codes).toContain(
      'bite-too-wide',
    );
  });
});

describe('boring on a helix', () => {
  const bore = (params: Record<string, unknown>, more = {}, number = 6) =>
    withOperation(
      withStock(jobWith({ type: 'round', diameter: 20 }, { meaning: 'hole', depth: 8, ...more }), flush),
      'helical-bore',
      ['f2'],
      tool(number),
      params,
    );

  test('makes the hole to size and depth: volume within half a percent, no findings', () => {
    const proof = prove(bore({}), 0.05);
    expect(proof.codes).toEqual([]);
    expect(proof.removed * 1000).toBeCloseTo(Math.PI * 100 * 8, -1.2);
  });

  test('a hole wider than one helix clears leaves no post; through holes break through', () => {
    expect(prove(bore({ stepover: 1.5, spring: true, direction: 'conventional' }, {}, 9), 0.1).codes).toEqual([]);
    const proof = prove(bore({ breakthrough: 0.5, finish: false }, { through: true }), 0.1);
    expect(proof.codes).toEqual([]);
    expect(Math.min(...proof.read.motions.z.slice(1))).toBeLessThan(-10);
  });

  test('radii never bite wider than asked, and end at the last one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        fc.double({ min: 0.5, max: 10, noNaN: true }),
        fc.double({ min: 0.05, max: 5, noNaN: true }),
        (final, cutter, stepover) => {
          const radii = boreRadii(final, cutter, stepover);
          expect(radii[radii.length - 1]).toBe(final);
          expect(radii[0]).toBeLessThanOrEqual(cutter);
          radii.slice(1).forEach((r, i) => expect(r - radii[i]).toBeLessThanOrEqual(stepover + 1e-6));
        },
      ),
      { numRuns: 200, seed: 43 },
    );
  });

  test('a cutter too large for a helix is refused with what would do', () => {
    expect(post(bore({}, {}, 1)).codes).toContain('bore-too-small');
  });
});

describe('pocket', () => {
  const cases: [string, Shape, Record<string, unknown>, number][] = [
    ['helix, climb', POCKET, {}, 4],
    ['ramp, conventional', POCKET, { entry: 'ramp', direction: 'conventional' }, 4],
    ['plunge, no finish lap', POCKET, { entry: 'plunge', finish: false }, 4],
    ['round', { type: 'round', diameter: 24 }, {}, 4],
    ['slot just wider than the tool', { type: 'slot', length: 40, width: 10.6 }, { finishStock: 0.1 }, 4],
    ['small tool', { type: 'polygon', sides: 6, across: 30 }, { stepover: 2 }, 9],
  ];
  test.each(cases)('%s: cleared to its floor, no gouge, no rapid through metal', (_, shape, params, number) => {
    const job = withOperation(
      withStock(jobWith(shape, { depth: 4 }), { ...flush }),
      'pocket',
      ['f2'],
      tool(number),
      params,
    );
    const proof = prove(job, 0.1);
    expect(proof.codes.filter((c) => c !== 'metal-left')).toEqual([]);
    if (shape.type !== 'polygon') expect(proof.codes).toEqual([]);
  });

  test('a boss inside stays', () => {
    const base = withStock(jobWith({ type: 'rectangle', width: 60, height: 40, radius: 6 }, { depth: 4 }), flush);
    const boss = newFeature(base.part.features, 'boss', 'Boss', { type: 'round', diameter: 10 }, { x: 40, y: 25 });
    const job = { ...base, part: { ...base.part, features: [...base.part.features, boss] } };
    const proof = prove(withOperation(job, 'pocket', ['f2'], tool(6)));
    expect(proof.codes).toEqual([]);
  });

  test('an open notch is entered from outside', () => {
    const job = withStock(
      jobWith({ type: 'rectangle', width: 30, height: 20, radius: 6 }, { x: 40, y: 48, depth: 4 }),
      flush,
    );
    const proof = prove(withOperation(job, 'pocket', ['f2'], tool(4)));
    expect(proof.codes).toEqual([]);
  });

  test('allowances are left, to a hundredth', () => {
    const job = withStock(jobWith({ type: 'round', diameter: 30 }, { depth: 4 }), flush);
    const proof = prove(
      withOperation(job, 'pocket', ['f2'], tool(4), { wallAllowance: 0.5, floorAllowance: 0.3, finish: true }),
      0.05,
    );
    expect(proof.removed * 1000).toBeCloseTo(Math.PI * 14.5 ** 2 * 3.7, -1);
    expect(Math.abs((proof.removed * 1000) / (Math.PI * 14.5 ** 2 * 3.7) - 1)).toBeLessThan(0.005);
  });

  test('layers come out equal and end on the floor', () => {
    expect(layersBetween(0, -7, 5)).toEqual([-3.5, -7]);
    expect(layersBetween(0, 0, 5)).toEqual([]);
    const job = withOperation(withStock(jobWith(POCKET, { depth: 7 }), flush), 'pocket', ['f2'], tool(4), { layer: 3 });
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    const cuts = new Set(
      Array.from(path.z)
        .filter((_, i) => TAGS[path.tag[i]] === 'cut')
        .map((z) => z.toFixed(3)),
    );
    expect([...cuts].sort()).toEqual(['-2.333', '-4.667', '-7.000']);
  });

  test.each([
    ['too small for the tool', { type: 'round', diameter: 8 } as Shape, {}, 'pocket-too-small'],
    ['deeper than flutes in one layer', POCKET, { layer: 100 }, 'too-deep-for-flutes'],
    ['bite over half the cutter', POCKET, { stepover: 8 }, 'bite-too-wide'],
    [
      'corners tighter than the cutter',
      { type: 'rectangle', width: 40, height: 30, radius: 1 } as Shape,
      {},
      'corner-left',
    ],
  ])('%s: a finding', (_, shape, params, code) => {
    const deep = code === 'too-deep-for-flutes';
    const job = withOperation(
      withStock(jobWith(shape, { depth: deep ? 25 : 4 }, deep ? 30 : 10), flush),
      'pocket',
      ['f2'],
      tool(4),
      params,
    );
    const found = planFindings(planSetup(job, job.setups[0])).find((f) => f.code === code);
    expect(found?.place.operation).toBe('o1');
    expect(found?.remedy).toBeTruthy();
  });

  test('a tool that cannot plunge is not plunged', () => {
    const blunt = { ...tool(4), centreCutting: false };
    const job = withOperation(
      withStock(jobWith({ type: 'round', diameter: 10.4 }, { depth: 4 }), flush),
      'pocket',
      ['f2'],
      blunt,
      { entry: 'plunge', finish: false },
    );
    expect(post(job).codes).toContain('cannot-plunge');
  });

  test('any rounded pocket in any place is cut without a gouge', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 14, max: 60 }),
        fc.integer({ min: 14, max: 40 }),
        fc.integer({ min: 20, max: 60 }),
        fc.integer({ min: 10, max: 45 }),
        fc.constantFrom(4, 6, 7),
        (width, height, x, y, number) => {
          const job = withStock(jobWith({ type: 'rectangle', width, height, radius: 6 }, { x, y, depth: 3 }), flush);
          const proof = prove(withOperation(job, 'pocket', ['f2'], tool(number)), 0.25);
          expect(proof.codes.filter((c) => c === 'gouge' || c === 'rapid-through-stock')).toEqual([]);
        },
      ),
      { numRuns: 12, seed: 7 },
    );
  });
});

describe('contour', () => {
  const round = (meaning: 'boss' | 'pocket', more = {}) =>
    jobWith({ type: 'round', diameter: 30 }, { meaning, depth: meaning === 'boss' ? 0 : 5, ...more });

  test.each(['climb', 'conventional'])('%s round the outside, through, within the bar', (direction) => {
    const proof = prove(
      withOperation(
        withStock(jobWith(undefined), { left: 1, right: 1, front: 1, back: 1, top: 0 }),
        'contour',
        ['f1'],
        tool(4),
        { direction },
      ),
    );
    expect(proof.codes).toEqual([]);
  });

  test('inside and outside are the right way round, and climb keeps the wall at the right', () => {
    const run = (job: ReturnType<typeof round>, side: string) => {
      const { path } = planSetup(job, job.setups[0]).planned[0].plan;
      const cut = Array.from({ length: path.count }, (_, i) => i).filter(
        (i) => TAGS[path.tag[i]] === 'cut' && path.kind[i] > LINE,
      );
      return { radius: Math.hypot(path.x[cut[0]] - 40, path.y[cut[0]] - 25), ccw: path.kind[cut[0]] === 3, side };
    };
    expect(
      run(withOperation(round('pocket'), 'contour', ['f2'], tool(7), { side: 'inside', finish: false }), 'in'),
    ).toEqual({ radius: expect.closeTo(12, 2), ccw: true, side: 'in' });
    expect(
      run(withOperation(round('boss'), 'contour', ['f2'], tool(7), { side: 'outside', finish: false }), 'out'),
    ).toEqual({ radius: expect.closeTo(18, 2), ccw: false, side: 'out' });
  });

  test('the finish lap lies within 5 micrometres of the wall', () => {
    const job = withOperation(round('pocket'), 'contour', ['f2'], tool(7), { side: 'inside' });
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    const last = Array.from({ length: path.count }, (_, i) => i)
      .filter((i) => TAGS[path.tag[i]] === 'cut')
      .slice(-1);
    for (const i of last) expect(Math.abs(Math.hypot(path.x[i] - 40, path.y[i] - 25) + 3 - 15)).toBeLessThan(0.005);
  });

  test('a chosen start is where the lap begins', () => {
    const at = (start: number) => {
      const job = withOperation(jobWith(undefined), 'contour', ['f1'], tool(7), {
        startAt: 'chosen',
        start,
        descent: 'plunge',
        finish: false,
      });
      const { path } = planSetup(job, job.setups[0]).planned[0].plan;
      return { x: path.x[0], y: path.y[0] };
    };
    expect(Math.hypot(at(0).x - at(0.5).x, at(0).y - at(0.5).y)).toBeGreaterThan(40);
  });

  test('a tool that does not fit inside is told', () => {
    const job = withOperation(jobWith({ type: 'round', diameter: 8 }), 'contour', ['f2'], tool(4), { side: 'inside' });
    expect(post(job).codes).toContain('contour-too-small');
  });
});

describe('drilling', () => {
  const holes = (through: boolean) =>
    jobWith(
      { type: 'round', diameter: 5 },
      {
        meaning: 'hole',
        x: 10,
        y: 10,
        depth: 6,
        through,
        pattern: { ...SINGLE, type: 'grid', count: 4, rows: 3, dx: 15, dy: 12 },
      },
    );

  test.each(['straight', 'peck', 'chip-break'])('%s: full diameter to depth, nothing else touched', (method) => {
    const proof = prove(
      withOperation(withStock(holes(false), flush), 'drill', ['f2'], tool(15), { method, peck: 2 }),
      0.05,
    );
    expect(proof.codes).toEqual([]);
    const tip = 2.5 / Math.tan((70 * Math.PI) / 180);
    expect((proof.removed * 1000) / (12 * Math.PI * 2.5 ** 2 * (6 + tip / 3))).toBeCloseTo(1, 2);
  });

  test('a through hole breaks through by its point and a bit', () => {
    const job = withOperation(holes(true), 'drill', ['f2'], tool(15), { breakthrough: 0.5 });
    const cycle = planSetup(job, job.setups[0]).planned[0].plan.cycle!;
    expect(cycle.holes[0].z).toBeCloseTo(-10 - 0.5 - 5 * 0.182, 2);
  });

  test('a spot reaches its diameter', () => {
    const job = withOperation(withStock(holes(true), flush), 'drill', ['f2'], tool(13), {
      method: 'spot',
      spotDiameter: 4,
    });
    expect(planSetup(job, job.setups[0]).planned[0].plan.cycle!.holes[0].z).toBeCloseTo(-2, 6);
  });

  test.each([
    ['drill larger than the hole', 16, {}, 'drill-too-large'],
    ['spot wider than the tool', 13, { method: 'spot', spotDiameter: 20 }, 'spot-too-wide'],
    ['a mill with an open centre cannot drill', 25, {}, 'wrong-tool'],
  ])('%s', (_, number, params, code) =>
    expect(post(withOperation(holes(true), 'drill', ['f2'], tool(number), params)).codes).toContain(code),
  );

  test('tours are short, and visit every hole once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.integer({ min: 0, max: 200 }), y: fc.integer({ min: 0, max: 100 }) }), {
          minLength: 1,
          maxLength: 40,
        }),
        (points) => {
          const tour = shortTour(points);
          const keys = (list: typeof points) => list.map((p) => `${p.x} ${p.y}`).sort();
          expect(keys(tour)).toEqual(keys(points));
          const ordered = [...points].sort((a, b) => a.x + a.y - (b.x + b.y) || a.x - b.x);
          expect(tourLength(tour)).toBeLessThanOrEqual(tourLength(ordered) * 1.2 + 1e-6);
        },
      ),
      { numRuns: 60, seed: 8 },
    );
  });

  test('pecks end exactly at the bottom', () => expect(peckDepths(1, -6, 2)).toEqual([-1, -3, -5, -6]));
});

describe('every kind', () => {
  test('its defaults pass its own checks, for every tool it takes', () => {
    for (const kind of KINDS) {
      const features = [
        plate(),
        newFeature(
          [plate()],
          (kind.works.find((w) => w !== 'outline') ?? 'pocket') as 'pocket',
          'F',
          { type: 'round', diameter: 30 },
          { x: 40, y: 25 },
        ),
      ];
      const job = { ...jobWith(undefined), part: { thickness: 10, features } };
      for (let n = 1; n <= TOOLS.length; n++) {
        if (!kind.suits(tool(n))) continue;
        const { params } = withOperation(job, kind.kind, ['f2'], tool(n)).setups[0].operations[0];
        expect([
          kind.kind,
          tool(n).name,
          validateSync(plainToInstance(kind.Params, params), { whitelist: true, forbidNonWhitelisted: true }),
        ]).toEqual([kind.kind, tool(n).name, []]);
      }
    }
  });

  test('a switched-off value has no effect on the path', () => {
    const off = (finishStock: number) =>
      post(withOperation(withStock(jobWith(POCKET), flush), 'pocket', ['f2'], tool(4), { finish: false, finishStock }))
        .text;
    expect(off(0.1)).toBe(off(3));
  });

  test('first move is a rapid, feeds are the ones asked for, entries at the entry feed', () => {
    const job = withOperation(withStock(jobWith(POCKET), flush), 'pocket', ['f2'], tool(4));
    const { operation, plan } = planSetup(job, job.setups[0]).planned[0];
    const { path } = plan;
    expect(path.kind[0]).toBe(RAPID);
    for (let i = 0; i < path.count; i++) {
      if (TAGS[path.tag[i]] === 'entry') expect(path.feed[i]).toBe(operation.speeds.entryFeed);
      if (TAGS[path.tag[i]] === 'cut') expect(path.feed[i]).toBe(operation.speeds.feed);
    }
  });
});
