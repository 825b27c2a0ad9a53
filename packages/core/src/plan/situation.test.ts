import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { addSetup } from '../document/edit';
import { insightOf } from './insight';
import { planSetup } from './pipeline';

const shape = { type: 'rectangle', width: 60, height: 40, radius: 8 } as const;
const flush = { top: 0 };
const pocket = (depth: number, layer: number, kind = 'pocket', stock: object = flush) =>
  withOperation(withStock(jobWith(shape, { depth }, 30), stock), kind, ['f2'], tool(4), { layer, stepover: 2 });
const spindle = (job: ReturnType<typeof pocket>) =>
  insightOf(job, job.setups[0].operations[0])!.gauges.find((g) => g.id === 'load')!.value;

test.each(['pocket', 'clear'])('%s: gauges speak of the layers that are cut, not of the most they may be', (kind) => {
  expect(spindle(pocket(5, 12.8, kind))).toBeCloseTo(spindle(pocket(5, 5, kind)), 9);
  // Nine millimetres in layers of up to five come out as two of four and a half.
  expect(spindle(pocket(9, 5, kind))).toBeCloseTo(spindle(pocket(4.5, 4.5, kind)), 9);
  expect(spindle(pocket(5, 12.8, kind, { top: 2 }))).toBeCloseTo(spindle(pocket(7, 7, kind)), 9);
});

test('an operation bends by what is set, by what it leaves, by its tightest size; its setup’s grip and coolant count', () => {
  const job = pocket(5, 5);
  const of = (change: (j: typeof job) => void) => {
    const next = structuredClone(job);
    change(next);
    return insightOf(next, next.setups[0].operations[0])!;
  };
  const first = (j: typeof job) => j.setups[0].operations[0];
  const finished = of((j) => (first(j).params.finish = false));
  expect(finished.bend).toMatchObject({ most: 0.05, why: 'a quarter of the tolerance of 0.2 mm' });
  const fitted = of((j) => {
    first(j).params.finish = false;
    j.part.features[1].limits = [{ size: 'width', upper: 0.03, lower: -0.01 }];
  });
  expect(fitted.bend.most).toBeCloseTo(0.01, 9);
  expect(of((j) => (first(j).bend = 0.07)).bend).toEqual({ most: 0.07, why: 'as it was set' });
  const rpm = (change: (j: typeof job) => void) =>
    of(change).suggestion.chain.find((s) => s.on === 'rpm' && s.id === 'range')!.allows;
  expect(rpm((j) => (j.setups[0].grip = 'poor'))).toBeLessThan(rpm((j) => (j.setups[0].grip = 'firm')));
  expect(rpm((j) => (first(j).coolant = 'off'))).toBeLessThan(rpm((j) => (first(j).coolant = 'flood')));
});

test('walls rougher by their feed than the drawing asks are told, with the feed that keeps it', () => {
  const job = pocket(5, 5);
  const [operation] = job.setups[0].operations;
  job.part.features[1].finish = 0.4;
  operation.speeds = { ...operation.speeds, rpm: 3000, feed: 900 };
  const told = () => planSetup(job, job.setups[0]).planned[0].plan.findings.filter((f) => f.code === 'wall-rough');
  expect(told()).toHaveLength(1);
  operation.speeds.feed = Math.floor((told()[0].data as { feed: number }).feed);
  expect(told()).toHaveLength(0);
  operation.speeds.feed = 900;
  operation.params.finishFeed = 0.8;
  expect(told()).toHaveLength(0);
  Object.assign(operation.params, { finishFeed: 1, wallAllowance: 0.2 });
  expect(told()).toHaveLength(0);
});

test('they are the layers of the plan', () => {
  const job = pocket(9, 5);
  const { path } = planSetup(job, job.setups[0]).planned[0].plan;
  const level = Array.from({ length: path.count - 1 }, (_, i) => [path.z[i], path.z[i + 1]]).filter(
    ([a, b]) => a === b,
  );
  const floors = new Set(level.map(([z]) => z).filter((z) => z < 0));
  expect([...floors].sort((a, b) => b - a)).toEqual([-4.5, -9]);
});

test('the first layer of a later setup takes what stands above the part there', () => {
  const load = (i: { gauges: { id: string; value: number }[] }) => i.gauges.find((g) => g.id === 'load')!.value;
  const second = (bottom: number, layer: number) => {
    const base = withStock(jobWith(undefined, {}, 20), { top: 0, bottom });
    const job = addSetup(base);
    const { setups, tools } = withOperation({ ...job, setups: [job.setups[1]] }, 'face', [], tool(1), { layer });
    const whole = { ...job, tools, setups: [job.setups[0], { ...job.setups[1], operations: setups[0].operations }] };
    return insightOf(whole, whole.setups[1].operations[0])!;
  };
  expect(load(second(3, 10))).toBeCloseTo(load(second(3, 3)), 9);
});

test('a slender tool whose layers collapse is told with what that costs', () => {
  const out = (stickOut: number, layer?: number) => {
    const mill = { ...tool(42), stickOut, overallLength: stickOut + 30 };
    const params = layer ? { layer } : {};
    const job = withOperation(withStock(jobWith(shape, { depth: 5 }, 30), flush), 'pocket', ['f2'], mill, params);
    return planSetup(job, job.setups[0]).planned[0].plan.findings.filter((f) => f.code === 'slender');
  };
  expect(out(20)).toEqual([]);
  const [told] = out(60);
  expect(told.data).toMatchObject({ out: 60, diameter: 5 });
  expect((told.data as { would: number }).would).toBeGreaterThanOrEqual(3 * (told.data as { layer: number }).layer);
  // Thicker layers than suggested are the proof's to judge.
  expect(out(60, 3)).toEqual([]);
});
