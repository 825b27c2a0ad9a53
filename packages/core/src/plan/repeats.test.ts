import { jobWith, post, prove, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { chainBounds } from '../geometry/plane/chain';
import { SINGLE, Shape } from '../part/plate/feature';
import { ONCE, Repeat, repeated } from '../part/plate/repeat';
import { instancesOf } from '../part/plate/shapes';
import { Job } from '../document/job';
import { editOperation } from '../document/edit';
import { parseJob } from './documents';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };
const repeatedJob = (job: Job, repeat: Partial<Repeat>): Job =>
  editOperation(job, 'o1', (o) => ({ ...o, repeat: { ...ONCE, ...repeat } }));

const small: Shape = { type: 'rectangle', width: 16, height: 12, radius: 4 };
const pocketAt = (x: number, y: number, shape: Shape = small, turn = 0) =>
  withOperation(withStock(jobWith(shape, { x, y, depth: 2, turn }), flush), 'pocket', ['f2'], tool(7), { layer: 2 });

const count = (job: Job) => prove(job, 0.14).removed / prove(pocketAt(15, 12), 0.14).removed;

describe('repeats', () => {
  test.each<[string, Partial<Repeat>, number]>([
    ['a line', { pattern: { ...SINGLE, type: 'line', count: 3, dx: 24 } }, 3],
    ['a grid', { pattern: { ...SINGLE, type: 'grid', count: 3, rows: 2, dx: 24, dy: 24 } }, 6],
    [
      'a grid without two of its places',
      { pattern: { ...SINGLE, type: 'grid', count: 3, rows: 2, dx: 24, dy: 24 }, without: [2, 6] },
      4,
    ],
    [
      'a line and a mirror without one place and its image',
      { pattern: { ...SINGLE, type: 'line', count: 3, dx: 24 }, mirror: 'front and back', at: 25, without: [3] },
      4,
    ],
    ['half a turn', { pattern: { ...SINGLE, type: 'circle', count: 2, centreX: 40, centreY: 25 } }, 2],
    ['a mirror', { mirror: 'left and right', at: 40 }, 2],
    [
      'a line and a mirror',
      { pattern: { ...SINGLE, type: 'line', count: 3, dx: 24 }, mirror: 'front and back', at: 25 },
      6,
    ],
  ])('%s: the count is the total, every copy is cut and proves clean', (_, repeat, total) => {
    const job = repeatedJob(pocketAt(15, 12), repeat);
    expect(prove(job, 0.14).codes).toEqual([]);
    expect(count(job)).toBeCloseTo(total, 1);
  });

  test('a drawn pocket as in two mirrors is four, each cut as it is, clean', () => {
    const hook: Shape = {
      type: 'chain',
      closed: true,
      vertices: [
        [5, 4],
        [30, 4],
        [30, 11],
        [14, 11],
        [14, 20],
        [5, 20],
      ].map(([x, y]) => ({ x, y, bulge: 0 })),
    };
    const mirrors = { ...SINGLE, type: 'mirror' as const, count: 2, rows: 2, centreX: 40, centreY: 25 };
    const job = pocketAt(0, 0, hook);
    const [outline, feature] = job.part.features;
    const mirrored = { ...job, part: { ...job.part, features: [outline, { ...feature, pattern: mirrors }] } };
    const [one, four] = [job, mirrored].map((j) => prove(j, 0.14));
    expect([...new Set(four.codes)]).toEqual([...new Set(one.codes)]);
    expect(four.codes).not.toContain('gouge');
    expect(four.removed / one.removed).toBeCloseTo(4, 1);
  });

  test('what is drawn can be left alone too; copies stand where they did', () => {
    const [feature] = pocketAt(15, 12).part.features.slice(1);
    const line = { ...ONCE, pattern: { ...SINGLE, type: 'line' as const, count: 3, dx: 24 } };
    const ids = (without?: number[]) => repeated(feature, { ...line, without }).map((f) => f.id);
    expect(ids([1])).toEqual(ids().slice(1));
    expect(ids([1, 2, 3])).toEqual([]);
  });

  test('around a centre the angle is the full turn divided by the count', () => {
    const [feature] = pocketAt(60, 25).part.features.slice(1);
    const all = repeated(feature, {
      ...ONCE,
      pattern: { ...SINGLE, type: 'circle', count: 6, centreX: 40, centreY: 25 },
    });
    expect(all).toHaveLength(6);
    all.forEach((f, i) => {
      expect(f.x).toBeCloseTo(40 + 20 * Math.cos((i * Math.PI) / 3), 9);
      expect(f.y).toBeCloseTo(25 + 20 * Math.sin((i * Math.PI) / 3), 9);
    });
  });

  test('a drawn shape is its own image in the mirror, arcs included', () => {
    const shape: Shape = {
      type: 'chain',
      closed: true,
      vertices: [
        { x: 0, y: 0, bulge: 0 },
        { x: 12, y: 0, bulge: 0.5 },
        { x: 12, y: 8, bulge: 0 },
        { x: 3, y: 10, bulge: 0 },
      ],
    };
    const [feature] = pocketAt(10, 12, shape, 25).part.features.slice(1);
    for (const mirror of ['left and right', 'front and back'] as const) {
      const [own, image] = repeated(feature, { ...ONCE, mirror, at: 30 }).map((f) => chainBounds(instancesOf(f)[0]));
      const across = mirror === 'left and right';
      expect(across ? image.minX : image.minY).toBeCloseTo(60 - (across ? own.maxX : own.maxY), 4);
      expect(across ? image.minY : image.minX).toBeCloseTo(across ? own.minY : own.minX, 4);
    }
  });

  test('climb stays climb in the mirror: the wall is on the same side of every lap', () => {
    const { text } = post(repeatedJob(pocketAt(15, 12), { mirror: 'left and right', at: 40 }));
    const arcs = (word: string) => text.split('\n').filter((l) => l.includes(word)).length;
    expect(arcs('G2 ')).toBeLessThan(arcs('G3 ') / 4);
  });

  test('holes are drilled in their copies too', () => {
    const base = withStock(jobWith({ type: 'round', diameter: 5 }, { meaning: 'hole', x: 10, y: 10, depth: 6 }), flush);
    const job = withOperation(base, 'drill', ['f2'], tool(15));
    const { text } = post(repeatedJob(job, { pattern: { ...SINGLE, type: 'line', count: 4, dx: 15 } }));
    for (const x of [10, 25, 40, 55]) expect(text).toContain(`X${x}.`);
  });

  test('a copy beside the stock and a copy on another are told', () => {
    const codes = (repeat: Partial<Repeat>) => post(repeatedJob(pocketAt(15, 12), repeat)).codes;
    expect(codes({ pattern: { ...SINGLE, type: 'line', count: 5, dx: 24 } })).toContain('copy-off-stock');
    expect(codes({ mirror: 'left and right', at: 15 })).toContain('copy-on-another');
  });

  test('it is part of the job file, checked like the rest', () => {
    const job = repeatedJob(pocketAt(15, 12), { mirror: 'left and right', at: 40 });
    expect(parseJob(JSON.stringify(job)).job).toEqual(job);
    const wrong = JSON.parse(JSON.stringify(job).replace('left and right', 'sideways'));
    expect(parseJob(JSON.stringify(wrong)).findings[0].place.field).toContain('repeat.mirror');
  });
});
