import fc from 'fast-check';
import { jobWith, plate, withOperation, withStock } from '../../../testing/jobs';
import { newFeature } from '../../job/edit';
import { Job } from '../../job/job';
import { planSetup } from '../../job/pipeline';
import { Feature, Shape } from '../../part/feature';
import { ParameterInfo, parametersOf } from '../../quantity/parameter';
import { TOOLS } from '../../shop/library';
import { OperationKind } from '../operation';
import { KINDS } from '../registry';

type Params = Record<string, unknown>;

/** Something each kind can work on. */
const WORK: Record<string, { shape: Shape; more: Partial<Feature>; tool: number }> = {
  face: { shape: { type: 'round', diameter: 10 }, more: { meaning: 'ignore' }, tool: 1 },
  clear: { shape: { type: 'rectangle', width: 24, height: 18, radius: 4 }, more: {}, tool: 7 },
  pocket: { shape: { type: 'rectangle', width: 24, height: 18, radius: 4 }, more: {}, tool: 7 },
  slot: { shape: { type: 'slot', length: 30, width: 8 }, more: {}, tool: 7 },
  contour: { shape: { type: 'rectangle', width: 30, height: 20, radius: 4 }, more: {}, tool: 7 },
  chamfer: {
    shape: { type: 'round', diameter: 24 },
    more: { edge: { form: 'chamfer', size: 0.5, angle: 90 } },
    tool: 22,
  },
  'round-edge': {
    shape: { type: 'round', diameter: 24 },
    more: { edge: { form: 'round', size: 3, angle: 90 } },
    tool: 30,
  },
  engrave: { shape: { type: 'text', text: 'B8', height: 8 }, more: { meaning: 'line' }, tool: 31 },
  'cut-out': { shape: { type: 'round', diameter: 20 }, more: { meaning: 'hole', through: true }, tool: 43 },
};
const hole = (diameter: number, number: number, more: Partial<Feature> = {}) => ({
  shape: { type: 'round' as const, diameter },
  more: { meaning: 'hole' as const, through: true, ...more },
  tool: number,
});
Object.assign(WORK, {
  drill: hole(5, 15),
  'helical-bore': hole(14, 7),
  counterbore: hole(5, 7, { counterbore: { diameter: 9, depth: 3 } }),
  countersink: hole(5, 13),
  ream: hole(6, 35),
  bore: hole(24, 36),
  tap: hole(4.2, 37, { thread: 'M5' }),
  'thread-mill': hole(18.9, 40, { thread: 'M20x1' }),
});

function jobFor(kind: OperationKind, params: Params): Job {
  const { shape, more, tool } = WORK[kind.kind];
  const outline = plate();
  const feature = newFeature([outline], more.meaning ?? 'pocket', 'Work', shape, { x: 40, y: 25, depth: 4, ...more });
  const job = withStock(jobWith(undefined, {}, 8), { top: 0.5 });
  const drawn = { ...job, part: { ...job.part, features: [outline, feature] } };
  const cutter = TOOLS.find((t) => t.number === tool)!;
  return withOperation(drawn, kind.kind, kind.works.length ? ['f2'] : [], cutter, params);
}

/** Values a person might give: inside the range, lengths no larger than the work. */
function valuesOf(info: ParameterInfo): fc.Arbitrary<unknown> {
  if (info.choices) return fc.constantFrom(...info.choices);
  if (info.unit === undefined) return info.max ? fc.constantFrom('', '20', '5 30.5, 80') : fc.boolean();
  const [min, max] = [info.min!, info.max!];
  if (info.unit === 'count') return fc.integer({ min, max: Math.min(max, 4) });
  const least = info.unit === 'length' ? Math.max(min, Math.min(0.4, max)) : min;
  return fc.double({ min: least, max: Math.min(max, info.unit === 'length' ? 12 : max), noNaN: true });
}

const anyParams = (kind: OperationKind): fc.Arbitrary<Params> =>
  fc.record(Object.fromEntries(Object.entries(parametersOf(kind.Params)).map(([key, info]) => [key, valuesOf(info)])), {
    requiredKeys: [],
  });

const planOf = (job: Job) => planSetup(job, job.setups[0]);

describe.each(KINDS.map((k) => [k.kind, k] as const))('%s', (name, kind) => {
  const runs = { numRuns: name === 'clear' ? 4 : 25, seed: 11, endOnFailure: true };

  test('with its own values it plans moves, and no value is refused', () => {
    const { plan } = planOf(jobFor(kind, {})).planned[0];
    const wanted = ['ream', 'bore', 'tap', 'thread-mill'].includes(name) ? 0 : 1;
    expect(plan.path.count).toBeGreaterThanOrEqual(wanted);
    expect(plan.findings.filter((f) => f.level === 'stop' && f.code !== 'hole-not-made')).toEqual([]);
  });

  test('any values in their ranges give finite moves within the heights and feeds there are, or say why not', () => {
    fc.assert(
      fc.property(anyParams(kind), (params) => {
        const job = jobFor(kind, params);
        const { planned, clearance } = planOf(job);
        const [{ plan }] = planned;
        const { path } = plan;
        for (let i = 0; i < path.count; i++) {
          const values = [path.x[i], path.y[i], path.z[i], path.cx[i], path.cy[i], path.feed[i]];
          if (!values.every(Number.isFinite)) throw new Error(`move ${i} is not finite: ${values.join()}`);
          if (path.z[i] > clearance + 1e-6) throw new Error(`move ${i} goes above the clearance`);
          if (path.feed[i] > job.machine.maxFeed + 1e-6) throw new Error(`move ${i} is faster than the machine`);
        }
        if (path.count > 0) expect(path.kind[0]).toBe(0);
        else expect(plan.findings.length).toBeGreaterThan(0);
      }),
      runs,
    );
  });

  test('a value that does not matter has no effect', () => {
    const info = Object.entries(parametersOf(kind.Params));
    fc.assert(
      fc.property(anyParams(kind), anyParams(kind), (given, others) => {
        const job = jobFor(kind, given);
        const { params } = job.setups[0].operations[0];
        const idle = info.filter(([key, i]) => i.matters && !i.matters(params as never) && key in others);
        if (idle.length === 0) return;
        const changed = Object.fromEntries(idle.map(([key]) => [key, others[key]]));
        expect(planOf(jobFor(kind, { ...params, ...changed })).planned[0].plan.path).toEqual(
          planOf(job).planned[0].plan.path,
        );
      }),
      { ...runs, numRuns: Math.ceil(runs.numRuns / 2) },
    );
  });
});
