import { PathBuilder, Samples, groundOf, newFeature, newJob, partModel, PlannedView } from '@tidypath/core';
import { sampleJob } from '../../testing/show';
import { partEdges, planSegments, sampleAt, within } from './segments';

const lengthOf = (positions: Float32Array) => {
  let sum = 0;
  for (let i = 0; i < positions.length; i += 6)
    sum += Math.hypot(...[0, 1, 2].map((k) => positions[i + 3 + k] - positions[i + k]));
  return sum;
};

const heights = (positions: Float32Array) => new Set([...positions].filter((_, i) => i % 3 === 2));

describe('edges of the part', () => {
  const outline = newFeature([], 'outline', 'Plate', { type: 'rectangle', width: 80, height: 50, radius: 0 }, {});
  const part = (...more: ReturnType<typeof newFeature>[]) => ({
    ...newJob('Test', 'mm').part,
    thickness: 10,
    features: [outline, ...more],
  });

  test('an outline stands at the top and at the underside', () => {
    const { positions } = partEdges(part());
    expect(lengthOf(positions)).toBeCloseTo(2 * 260, 3);
    expect(heights(positions)).toEqual(new Set([0, -10]));
  });

  test('a pocket ends at its floor, what goes through at the underside, a boss has its top only', () => {
    const round = { type: 'round' as const, diameter: 20 };
    const pocket = newFeature([outline], 'pocket', 'Pocket', round, { depth: 4, through: false });
    expect(heights(partEdges(part(pocket)).positions)).toEqual(new Set([0, -10, -4]));
    const boss = newFeature([outline, pocket], 'boss', 'Boss', round, { depth: 2 });
    expect(heights(partEdges({ ...part(), features: [boss] }).positions)).toEqual(new Set([-2]));
    const hole = newFeature([outline], 'hole', 'Hole', round, { through: true });
    const drawn = partEdges({ ...part(), features: [hole] }).positions;
    expect(heights(drawn)).toEqual(new Set([0, -10]));
    expect(lengthOf(drawn) / (2 * Math.PI * 20)).toBeCloseTo(1, 2);
  });

  test('what is to be ignored is not drawn', () => {
    const ignored = { ...part(), features: part().features.map((f) => ({ ...f, meaning: 'ignore' as const })) };
    expect(partEdges(ignored).positions).toHaveLength(0);
  });
});

describe('a path', () => {
  const planned = (path: PathBuilder): PlannedView[] => [
    {
      operationId: 'o1',
      key: '',
      path: path.build(),
      findings: [],
      minutes: { cut: 0, entry: 0, rapid: 0, feed: 1, entryFeed: 1 },
    },
  ];

  test('is drawn in cuts and rapids, as long as it is', () => {
    const { cut, rapid } = planSegments(
      planned(
        new PathBuilder().rapid(0, 0, 5).rapid(30, 40, 5).line(30, 40, -1, 100, 'entry').line(60, 40, -1, 100, 'cut'),
      ),
    );
    expect(lengthOf(rapid.positions)).toBeCloseTo(50, 6);
    expect(lengthOf(cut.positions)).toBeCloseTo(6 + 30, 6);
  });

  test.each([
    ['a quarter clockwise', true, [0, 10], [10, 0], Math.PI / 2],
    ['three quarters counterclockwise', false, [0, 10], [10, 0], (3 * Math.PI) / 2],
    ['a full circle', false, [10, 0], [10, 0], 2 * Math.PI],
  ] as const)('%s has the length of its arc', (_, clockwise, from, to, angle) => {
    const path = new PathBuilder().rapid(from[0], from[1], 0).arc(0, 0, to[0], to[1], 0, clockwise, 100, 'cut');
    const { cut } = planSegments(planned(path));
    expect(lengthOf(cut.positions) / (10 * angle)).toBeCloseTo(1, 1);
  });

  test('a stretch of lines is one slice of a run, with its colours', () => {
    const run = {
      positions: Float32Array.from({ length: 24 }, (_, i) => i),
      engagement: Float32Array.from([0, 90, 180, 0]),
      line: Uint32Array.from([3, 5, 5, 9]),
    };
    const { positions, colours } = within(run, (l) => l >= 5 && l < 9);
    expect([...positions]).toEqual([...run.positions.slice(6, 18)]);
    const [light, heavy] = [colours!.slice(0, 6), colours!.slice(6)];
    expect([...light.slice(0, 3)]).toEqual([...light.slice(3)]);
    expect(heavy[0]).toBeLessThan(light[0]);
    expect(colours).toHaveLength(12);
    expect(within(run).positions).toHaveLength(24);
    expect(within(run, (l) => l >= 10).positions).toHaveLength(0);
    expect(within(run, (l) => l >= 4).positions).toHaveLength(18);
  });
});

test('the sample of a moment is the first that ends at it or later', () => {
  const samples = { count: 4, time: Float32Array.from([1, 2, 4, 8]) } as Samples;
  expect([0, 1, 1.5, 2, 7, 8, 99].map((t) => sampleAt(samples, t))).toEqual([0, 0, 1, 1, 3, 3, 3]);
});

test('a part that leans is drawn on its slope, with the edges of its block', () => {
  const lean = { to: 'right' as const, degrees: 30 };
  const job = sampleJob();
  const [outline, pocket] = job.part.features;
  const leaning = { ...pocket, x: 20, y: 10, lean };
  const held = { ...job, part: { ...job.part, features: [outline, leaning] }, setups: [{ ...job.setups[0], lean }] };
  const { job: seen, work } = groundOf(held, held.setups[0], partModel);
  const { positions } = partEdges(seen.part, work.leaning);
  const zs = Array.from({ length: positions.length / 3 }, (_, i) => positions[i * 3 + 2]);
  // Twelve edges come first; the highest of them is at 0, the lowest as deep as the block is high.
  const edges = zs.slice(0, 24);
  expect(Math.max(...edges)).toBeCloseTo(0, 5);
  expect(-Math.min(...edges)).toBeCloseTo(80 * Math.sin(Math.PI / 6) + 10 * Math.cos(Math.PI / 6), 4);
  // The mouth of the pocket lies on the slope: it rises over its width.
  const mouth = zs.slice(24, 24 + zs.slice(24).length / 2);
  expect(Math.max(...mouth) - Math.min(...mouth)).toBeGreaterThan(10);
});
