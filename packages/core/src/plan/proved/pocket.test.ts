import { HeightStock } from '../../stock/height/height-stock';
import fc from 'fast-check';
import {
  atGentleSpeeds,
  atSuggestedSpeeds,
  jobWith,
  post,
  prove,
  withOperation,
  withStock,
} from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { planFindings, planSetup } from '../pipeline';
import { newFeature } from '../../part/plate/new';
import { Shape } from '../../part/plate/feature';
import { layersBetween } from '../../operation/layers';
import { MOVE } from '../../path/motions';
import { TAGS } from '../../path/path';

const POCKET: Shape = { type: 'rectangle', width: 50, height: 30, radius: 6 };
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

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

  test('a spigot that stands on a shoulder stays, and so does the shoulder', () => {
    const base = jobWith({ type: 'rectangle', width: 70, height: 44, radius: 6 }, { depth: 8 }, 12);
    const about = { x: 40, y: 25 };
    const shoulder = newFeature(
      base.part.features,
      'boss',
      'Shoulder',
      { type: 'round', diameter: 24 },
      { ...about, depth: 4 },
    );
    const spigot = newFeature(
      [...base.part.features, shoulder],
      'boss',
      'Spigot',
      { type: 'round', diameter: 12 },
      about,
    );
    const stepped = { ...base, part: { ...base.part, features: [...base.part.features, shoulder, spigot] } };
    const cleared = withOperation(withStock(stepped, { top: 0 }), 'clear', ['f2'], tool(4), { stepover: 4 });
    const { field, codes } = prove(atSuggestedSpeeds(cleared), 0.4);
    const stock = new HeightStock(field, -12);
    const tops = [40, 44, 49, 60].map((x) => stock.facesAt(x, 25)[0]);
    expect([codes, ...tops]).toEqual([[], 0, 0, -4, -8]);
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
    ['deeper than flutes in one layer', POCKET, { layer: 100 }, 'layer-too-deep'],
    ['bite over half the cutter', POCKET, { stepover: 8 }, 'posts-between'],
    [
      'corners tighter than the cutter',
      { type: 'rectangle', width: 40, height: 30, radius: 1 } as Shape,
      {},
      'corner-left',
    ],
  ])('%s: a finding', (_, shape, params, code) => {
    const deep = code === 'layer-too-deep';
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

test.each(['pocket', 'clear', 'slot'])(
  '%s: a finish takes no more metal a minute in corners than on straights',
  (kind) => {
    const shape: Shape = kind === 'slot' ? { type: 'slot', length: 40, width: 12.5 } : POCKET;
    const asked = withOperation(withStock(jobWith(shape, { depth: 4 }), flush), kind, ['f2'], tool(4), {
      finish: true,
    });
    const { read, samples } = prove(atGentleSpeeds(asked), 0.05);
    const { type, count } = read.motions;
    // The last lap, without its leads.
    const ends = [...Array(count).keys()].filter((i) => type[i] === MOVE.rapid && type[i - 1] !== MOVE.rapid);
    const end = ends[ends.length - 1];
    const begin = type.subarray(0, end).lastIndexOf(MOVE.rapid);
    const rateOf = (isArc: boolean) => {
      let [metal, seconds] = [0, 0];
      for (let i = 0; i < samples.count; i++) {
        const motion = samples.motion[i];
        if (motion < begin + 3 || motion > end - 2 || (type[motion] === MOVE.line) === isArc) continue;
        metal += samples.rate[i] * samples.seconds[i];
        seconds += samples.seconds[i];
      }
      return metal / seconds;
    };
    expect(rateOf(true)).toBeGreaterThan(0.3 * rateOf(false));
    expect(rateOf(true)).toBeLessThan(1.2 * rateOf(false));
  },
);
