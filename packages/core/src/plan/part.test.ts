import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { jobWith } from '../../testing/jobs';
import { instancesOf } from '../part/plate/shapes';
import { modelOf, solidAt } from '../part/plate/model';
import { area } from '../geometry/plane/clip';
import { newFeature } from '../part/plate/new';
import { parseJob } from './documents';
import { SINGLE } from '../part/plate/feature';
import { thumbnailOf } from '../part/plate/outline-path';

const TEXT = readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8');
const JOB = parseJob(TEXT).job!;

describe('the part', () => {
  test('patterns: the count is the total', () => {
    const hole = (pattern: Partial<typeof SINGLE>) =>
      instancesOf(
        newFeature(
          [],
          'hole',
          'H',
          { type: 'round', diameter: 4 },
          { x: 10, y: 0, pattern: { ...SINGLE, ...pattern } },
        ),
      );
    expect(hole({ type: 'line', count: 3, dx: 5 })).toHaveLength(3);
    expect(hole({ type: 'grid', count: 3, rows: 2, dx: 5, dy: 5 })).toHaveLength(6);
    const around = hole({ type: 'circle', count: 6 });
    expect(around).toHaveLength(6);
    expect(around[3].vertices[0]).toMatchObject({ x: expect.closeTo(-12, 6), y: expect.closeTo(0, 6) });
  });

  test.each([
    ['rectangle', { type: 'rectangle' as const, width: 20, height: 10, radius: 2 }, 200 - (4 - Math.PI) * 4],
    [
      'rectangle with full radius',
      { type: 'rectangle' as const, width: 20, height: 10, radius: 5 },
      100 + Math.PI * 25,
    ],
    ['slot', { type: 'slot' as const, length: 20, width: 10 }, 100 + Math.PI * 25],
    ['round', { type: 'round' as const, diameter: 10 }, Math.PI * 25],
    ['hexagon', { type: 'polygon' as const, sides: 6, across: 10 }, 50 * Math.sqrt(3)],
  ])('%s has its area', (_, shape, expected) => {
    const model = modelOf({ kind: 'plate', thickness: 10, features: [newFeature([], 'outline', 'P', shape)] });
    expect(area(model.outline)).toBeCloseTo(expected, 1);
  });

  test('a boss is taken out of its pocket; solid at a depth leaves open what is deeper', () => {
    const model = modelOf(JOB.part);
    const pocket = model.floors.find((f) => f.z === -7)!;
    expect(area(pocket.region)).toBeCloseTo(68 * 50 - (4 - Math.PI) * 36 - 2 * Math.PI * 36, 0);
    expect(area(solidAt(model, -7))).toBeLessThan(area(solidAt(model, -1)) + area(model.outline));
    expect(area(solidAt(model, -12))).toBeGreaterThan(area(solidAt(model, -5)));
  });

  test.each([
    [
      'self-crossing',
      {
        type: 'chain' as const,
        closed: true,
        vertices: [
          [0, 0],
          [10, 10],
          [10, 0],
          [0, 10],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
    [
      'open-chain',
      {
        type: 'chain' as const,
        closed: false,
        vertices: [
          [0, 0],
          [10, 10],
          [10, 0],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
    [
      'no-area',
      {
        type: 'chain' as const,
        closed: true,
        vertices: [
          [0, 0],
          [10, 0],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
  ])('%s is told with its feature', (code, shape) => {
    const { findings } = modelOf({
      kind: 'plate',
      thickness: 5,
      features: [
        ...jobWith(undefined).part.features,
        newFeature(jobWith(undefined).part.features, 'pocket', 'Bad', shape),
      ],
    });
    expect(findings).toContainEqual(
      expect.objectContaining({ code, level: 'stop', place: expect.objectContaining({ feature: 'f2' }) }),
    );
  });

  test('depths that make no sense are told', () => {
    const codes = (more: object) =>
      modelOf(jobWith({ type: 'round', diameter: 10 }, more).part).findings.map((f) => f.code);
    expect(codes({ depth: 0 })).toEqual(['no-depth']);
    expect(codes({ depth: 50 })).toEqual(['deeper-than-part']);
    expect(codes({ meaning: 'hole', depth: 5 })).toEqual([]);
    expect(
      modelOf(jobWith({ type: 'rectangle', width: 5, height: 5, radius: 0 }, { meaning: 'hole' }).part).findings.map(
        (f) => f.code,
      ),
    ).toEqual(['hole-not-round']);
    expect(modelOf({ kind: 'plate', thickness: 5, features: [] }).findings.map((f) => f.code)).toEqual(['no-outline']);
  });

  test('a thumbnail draws outside and inside', () => {
    const t = thumbnailOf(JOB.part);
    expect(t.box.width).toBeCloseTo(120, 1);
    expect(t.outside).toMatch(/^M.*A6 6 .*Z$/);
    expect(thumbnailOf({ kind: 'plate', thickness: 1, features: [] }).outside).toBe('');
  });
});
