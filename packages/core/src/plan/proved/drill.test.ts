import fc from 'fast-check';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { planSetup } from '../pipeline';
import { SINGLE } from '../../part/plate/feature';
import { tourLength, shortTour } from '../../operation/ordering';
import { peckDepths } from '../../operation/cycle';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

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

  test('a mark smaller than the pilot of a centre drill is as deep as its point, a spot wider than it as the pilot is long', () => {
    const spotted = (spotDiameter: number) => {
      const params = { method: 'spot', spotDiameter };
      const job = withOperation(withStock(holes(true), flush), 'drill', ['f2'], tool(32), params);
      return planSetup(job, job.setups[0]).planned[0].plan;
    };
    expect(spotted(1).cycle!.holes[0].z).toBeCloseTo(-0.5 / Math.tan((59 * Math.PI) / 180), 6);
    expect(spotted(4).cycle!.holes[0].z).toBeCloseTo(-3.1 - 0.75 / Math.tan(Math.PI / 6), 6);
    expect(spotted(1).findings).toEqual([]);
  });

  test('a spot goes as deep as it is asked to', () => {
    const job = withOperation(withStock(holes(true), flush), 'drill', ['f2'], tool(13), { method: 'spot' });
    job.setups[0].operations[0].heights = { end: { at: 'part top', offset: -1.25 } };
    expect(planSetup(job, job.setups[0]).planned[0].plan.cycle!.holes[0].z).toBeCloseTo(-1.25, 6);
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
