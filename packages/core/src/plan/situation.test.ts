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
