import fc from 'fast-check';
import { atGentleSpeeds, jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { chainLength, circle, pointAtShare, shareNear, signedArea } from '../../geometry/plane/chain';
import { area, intersection, offset } from '../../geometry/plane/clip';
import { distance } from '../../geometry/plane/point';
import { newFeature } from '../../part/plate/new';
import { Job } from '../../document/job';
import { planSetup } from '../pipeline';
import { Shape } from '../../part/plate/feature';
import { closedLaps, extended, openLap } from '../../operation/milling/laps';
import { PathBuilder } from '../../path/path';
import { previewContour } from '../../operation/milling/contour/preview';
import { followStations, moveTab, spread, stationsOver, tabShares } from '../../operation/milling/tabs';

const around = { left: 14, right: 14, front: 14, back: 14, top: 0, bottom: 2 };
const plate = () => withStock(jobWith(undefined, {}, 6), around);
const contour = (params: Record<string, unknown>, job: Job = plate(), target = 'f1', number = 4) =>
  withOperation(job, 'contour', [target], tool(number), params);
const clean = (job: Job, cell = 0.2) => prove(job, cell).codes.filter((c) => c !== 'below-stock');

describe('contouring', () => {
  test('several sideways passes clear a margin wider than the cutter, layer by layer', () => {
    const job = contour({ passes: 2, stepover: 7, layer: 3 });
    expect(clean(job)).toEqual([]);
    const { removed } = prove(job, 0.2);
    const box = (by: number) => [
      { x: -by, y: -by },
      { x: 80 + by, y: -by },
      { x: 80 + by, y: 50 + by },
      { x: -by, y: 50 + by },
    ];
    const reached = area(intersection([box(14)], offset([box(0)], 17))) - 80 * 50;
    expect(removed * 1000).toBeCloseTo(reached * 6.2, -2);
  });

  test.each(['arc', 'line', 'tangent'])('led on by %s', (leadForm) => {
    expect(clean(contour({ leadForm, leadAngle: leadForm === 'line' ? 45 : 90, lead: 4 }))).toEqual([]);
  });

  test.each(['rolled', 'sharp', 'looped'])('corners %s leave the part as drawn', (corners) => {
    expect(clean(contour({ corners }))).toEqual([]);
  });

  test('finishing each layer and a spring pass add laps', () => {
    const laps = (params: Record<string, unknown>) =>
      post(contour({ layer: 2, ...params }))
        .text.split('\n')
        .filter((l) => l.startsWith('G0') || / G0 /.test(l)).length;
    const once = laps({});
    expect(laps({ spring: true })).toBeGreaterThan(once);
    expect(laps({ finishAt: 'each layer' })).toBeGreaterThan(laps({ spring: true }));
    expect(laps({ finish: false, spring: true, finishAt: 'each layer' })).toBe(laps({ finish: false }));
  });

  test('tabs hold the part at their number, width and height', () => {
    for (const tabs of ['rectangular', 'ramped']) {
      const job = atGentleSpeeds(contour({ tabs, tabCount: 4, tabWidth: 5, tabHeight: 2, layer: 3, finish: false }));
      const [kept, whole] = [prove(job, 0.1), prove(contour({ layer: 3, finish: false }), 0.1)];
      expect(kept.codes.filter((c) => c !== 'below-stock')).toEqual([]);
      const standing = (whole.removed - kept.removed) * 1000;
      // Each bridge: its width, and half a circle of the cutter's on either side, across the slot, as high as the tab stands.
      const bridge = 5 * 10 + (10 * 10 - Math.PI * 25);
      const ramps = tabs === 'ramped' ? 2 * 2 * 2.2 * 10 * 0.5 : 0;
      expect(standing / (4 * 2.2 * bridge)).toBeGreaterThan(0.97);
      expect(standing / (4 * 2.2 * (bridge + ramps))).toBeLessThan(1.03);
    }
  });

  test('tabs leave nothing to cut, or go round a corner: told', () => {
    const codes = (params: Record<string, unknown>) => post(contour({ tabs: 'rectangular', ...params })).codes;
    expect(codes({ tabCount: 60, tabWidth: 5 })).toContain('tabs-too-wide');
    const small = withStock(
      jobWith({ type: 'rectangle', width: 20, height: 16, radius: 0 }, { depth: 6, through: true }, 6),
      around,
    );
    expect(
      post(contour({ side: 'inside', tabs: 'rectangular', tabCount: 4, tabWidth: 6 }, small, 'f2', 9)).codes,
    ).toContain('tab-round-corner');
  });

  test('wear in the control: switched on and off on straights, and the proof follows it', () => {
    const proof = prove(contour({ compensation: 'wear in the control' }), 0.2);
    expect(proof.codes.filter((c) => c !== 'below-stock')).toEqual([]);
    expect(proof.text).toMatch(/G41 D4 X/);
    expect(proof.text.match(/G41/g)!.length).toBe(proof.text.match(/G40 X|G40 Y/g)!.length);
    const hobby = { ...contour({ compensation: 'wear in the control' }), controllerId: 'hobby' };
    expect(post(hobby).codes).toContain('no-compensation');
  });
});

describe('open lines', () => {
  const line: Shape = {
    type: 'chain',
    closed: false,
    vertices: [
      { x: 0, y: 0, bulge: 0 },
      { x: 30, y: 0, bulge: 0.3 },
      { x: 45, y: 12, bulge: 0 },
    ],
  };
  const withLine = () => {
    const job = withStock(jobWith(undefined, {}, 6), around);
    const made = newFeature(job.part.features, 'line', 'Groove', line, { x: 15, y: 20, depth: 2 });
    return { ...job, part: { ...job.part, features: [...job.part.features, made] } };
  };
  const cut = (params: Record<string, unknown>) => {
    const job = contour({ finish: false, layer: 2, ...params }, withLine(), 'f2', 9);
    return { job, plan: planSetup(job, job.setups[0]).planned[0].plan };
  };

  test.each([
    ['left', 1],
    ['right', -1],
  ])('run on the %s, a radius away, in the direction that climbs', (side, sign) => {
    const { path } = cut({ side, descent: 'plunge' }).plan;
    const cuts = Array.from({ length: path.count }, (_, i) => i).filter((i) => path.tag[i] === 1 || path.tag[i] === 2);
    const low = cuts.reduce((a, b) => (path.x[b] < path.x[a] ? b : a));
    expect([path.x[low], path.y[low]]).toEqual([expect.closeTo(15, 2), expect.closeTo(20 + 2 * sign, 2)]);
    expect(Math.sign(path.x[cuts[cuts.length - 1]] - path.x[cuts[0]])).toBe(sign);
  });

  test('drawn longer and held back at either end, each its own', () => {
    const length = (params: Record<string, unknown>) => {
      const { path } = cut({ side: 'on the line', descent: 'plunge', ...params }).plan;
      return [...path.x].filter((_, i) => path.tag[i] === 2 || path.tag[i] === 1);
    };
    const [least, most] = [Math.min(...length({})), Math.max(...length({}))];
    expect(Math.min(...length({ extendStart: 5 }))).toBeCloseTo(least - 5, 6);
    expect(Math.min(...length({ extendStart: -5 }))).toBeCloseTo(least + 5, 6);
    expect(Math.max(...length({ extendEnd: -3 }))).toBeLessThan(most);
  });

  test('a side that means nothing for the line is told', () => {
    expect(cut({ side: 'outside' }).plan.findings.map((f) => f.code)).toContain('side-unclear');
    expect(post(contour({ side: 'left' })).codes).toContain('side-unclear');
  });
});

describe('laps and stations', () => {
  test('looped corners keep the straights and turn the long way round', () => {
    const square = [
      { x: 0, y: 0 },
      { x: 40, y: 0 },
      { x: 40, y: 20 },
      { x: 0, y: 20 },
    ];
    const [sharp, loop] = (['sharp', 'looped'] as const).map((c) => closedLaps([square], 5, c, 3)[0]);
    expect(signedArea(sharp)).toBeCloseTo(50 * 30, 1);
    expect(chainLength(loop)).toBeCloseTo(chainLength(sharp) + 4 * (2 * 3 + 1.5 * Math.PI * 3), 1);
  });

  test('a line beside an arc has the arc’s radius more or less', () => {
    const half = {
      closed: false,
      vertices: circle(0, 0, 10)
        .vertices.slice(0, 2)
        .map((v, i) => ({ ...v, bulge: i ? 0 : v.bulge })),
    };
    expect(chainLength(openLap(half, 3, 'left')!)).toBeCloseTo(Math.PI * 7, 1);
    expect(chainLength(openLap(half, 3, 'right')!)).toBeCloseTo(Math.PI * 13, 1);
    expect(chainLength(extended(half, -2, -3))).toBeCloseTo(Math.PI * 10 - 5, 1);
  });

  test('heights over tabs: never below them, never below the lap, ending where it ends', () => {
    fc.assert(
      fc.property(
        fc.record({
          length: fc.double({ min: 40, max: 400, noNaN: true }),
          from: fc.double({ min: -6, max: 0, noNaN: true }),
          drop: fc.double({ min: 0, max: 4, noNaN: true }),
          count: fc.integer({ min: 1, max: 6 }),
          shift: fc.double({ min: 0, max: 1, noNaN: true }),
          width: fc.double({ min: 0.5, max: 6, noNaN: true }),
          ramped: fc.boolean(),
        }),
        ({ length, from, drop, count, shift, width, ramped }) => {
          const tabs = {
            at: spread(count).map((s) => (s + shift) % 1),
            width,
            top: -5,
            shape: ramped ? ('ramped' as const) : ('rectangular' as const),
          };
          const stations = stationsOver(length, from, from - drop, tabs, 2);
          const path = new PathBuilder().rapid(length / (2 * Math.PI), 0, from);
          followStations(
            path,
            circle(0, 0, length / (2 * Math.PI)),
            stations,
            { feed: 100, entryFeed: 50, down: 50 },
            'cut',
          );
          const { z, count: n } = path.build();
          stations.forEach((s, i) => i && expect(s.s).toBeGreaterThanOrEqual(stations[i - 1].s - 1e-9));
          expect(stations[stations.length - 1].s).toBeCloseTo(length, 9);
          for (const s of stations) expect(s.z).toBeGreaterThanOrEqual(from - (drop * s.s) / length - 1e-9);
          for (const share of tabs.at) {
            const at = stations.filter((s) => Math.abs(s.s - share * length) <= (width + 2) / 2 - 1e-6);
            for (const s of at) expect(s.z).toBeGreaterThanOrEqual(-5 - 1e-9);
          }
          for (let i = 0; i < n; i++) expect(z[i]).toBeGreaterThanOrEqual(Math.min(from - drop, -5) - 1e-9);
        },
      ),
      { numRuns: 200, seed: 41 },
    );
  });
});

describe('the picture of a contour before it is planned', () => {
  const of = (
    params: Record<string, unknown>,
    shape: Shape = { type: 'rectangle', width: 40, height: 30, radius: 0 },
  ) => {
    const job = contour(params, jobWith(shape), 'f2', 7);
    const [operation] = job.setups[0].operations;
    const targets = job.part.features.filter((f) => operation.targets.includes(f.id));
    return previewContour(operation.params as never, { tool: tool(7), targets, operation });
  };

  test('keeps what the side keeps, and runs where the plan will', () => {
    expect(of({ side: 'outside' }).keeps).toBe('inside');
    expect(of({ side: 'inside' }).keeps).toBe('outside');
    expect(of({ side: 'on the line' }).keeps).toBe('nothing');
    const [{ chain }] = of({ side: 'inside', finish: false }).laps;
    expect(Math.abs(signedArea(chain))).toBeCloseTo(34 * 24, 3);
    const conventional = of({ side: 'inside', direction: 'conventional' }).laps[0].chain;
    expect(Math.sign(signedArea(conventional))).toBe(-Math.sign(signedArea(chain)));
  });

  test('a tab goes where it is dragged, and the others stay', () => {
    const { laps } = of({ tabs: 'ramped', tabCount: 4 });
    const [{ chain, tabs }] = laps;
    expect(tabs).toHaveLength(4);
    const wanted = pointAtShare(chain, 0.3);
    const tabPlaces = moveTab({ tabCount: 4, tabPlaces: '' }, shareNear(chain, wanted));
    expect(tabPlaces).toBe('12.5 30 62.5 87.5');
    const moved = of({ tabs: 'ramped', tabPlaces }).laps[0].tabs;
    expect(distance(moved[1], wanted)).toBeLessThan(0.5);
    expect([moved[0], moved[2], moved[3]]).toEqual([tabs[0], tabs[2], tabs[3]]);
    expect(tabShares({ tabCount: 4, tabPlaces: '80; 5.5,20' })).toEqual([0.055, 0.2, 0.8]);
    expect(moveTab({ tabCount: 1, tabPlaces: '1 50' }, 0.98)).toBe('98 50');
  });

  test('places that are none are told', () => {
    const codes = post(contour({ tabs: 'ramped', tabPlaces: '10, half way' }, jobWith(undefined), 'f1', 7)).codes;
    expect(codes).toContain('tab-places');
  });
});
