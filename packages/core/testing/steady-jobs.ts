import { alike } from '../src/machine/axes';
import { Region, Ring, ringArea } from '../src/geometry/plane/clip';
import { newFeature } from '../src/part/plate/new';
import { newJob } from '../src/document/new';
import { Job } from '../src/document/job';
import { planSetup, postSetup } from '../src/plan/pipeline';
import { Feature } from '../src/part/plate/feature';
import { boundsOf } from '../src/geometry/plane/point';
import { ClearingShape, clearingShapes } from './clearing-shapes';
import { withOperation } from './jobs';
import { tool } from './parts';
import { SteadyFigures, checkSteady } from './steady-checker';

const DEPTH = 10;

/** Cutters and bites that clearing is measured with: diameter, bite, mm. */
export const STEADY_TOOLS: [number, number][] = [
  [10, 1],
  [16, 4],
  [20, 1],
  [6, 0.9],
];

/** What the best figures known for D 10, bite 1 come to: length in cut against area / bite, and share of the cycle not cutting. */
const BEST: Record<string, [number, number]> = {
  rectangle: [1.03, 0.11],
  'three islands': [1.1, 0.25],
  comb: [1.21, 0.28],
  L: [1.06, 0.22],
  'neck of 1.15 D': [1.06, 0.19],
  '30° corner': [1.06, 0.19],
  'sliver island': [1.05, 0.24],
  'boss from outside': [1.01, 0.02],
  'one open side': [1.01, 0.22],
  blob: [1.01, 0.1],
};

/** A cycle against the best known for that shape; undefined where none is known. */
export function againstBest(name: string, { length, idle }: SteadyFigures): number | undefined {
  const best = BEST[name] as [number, number] | undefined;
  return best && length / (1 - idle) / (best[0] / (1 - best[1]));
}

const chain = (
  features: Feature[],
  meaning: Feature['meaning'],
  ring: Ring,
  more: Partial<Feature> = {},
): Feature[] => [
  ...features,
  newFeature(
    features,
    meaning,
    `${meaning} ${features.length}`,
    { type: 'chain', closed: true, vertices: ring.map((p) => ({ ...p, bulge: 0 })) },
    more,
  ),
];

/** Outer rings counterclockwise, holes as bosses. */
function pocketFeatures(features: Feature[], target: Region): Feature[] {
  let all = features;
  for (const ring of target)
    all = chain(
      all,
      ringArea(ring) > 0 ? 'pocket' : 'boss',
      ring,
      ringArea(ring) > 0 ? { depth: DEPTH } : { depth: 0 },
    );
  return all;
}

/** Shapes that lie open to the sides of a plate. */
const PLATES: ReadonlySet<string> = new Set(['one open side', 'shoulder']);

/** A job that clears a shape in one layer of 10 mm, with retracts of 15 mm. */
export function steadyJob(shape: ClearingShape, D: number, ae: number, params: Record<string, unknown> = {}): Job {
  const outside = shape.kind === 'open' && shape.keep.length === 1 && !PLATES.has(shape.name);
  const outline = outside ? shape.keep[0] : shape.stock[0];
  let features = chain([], 'outline', outline);
  if (!outside) features = pocketFeatures(features, shape.target);
  const cutter = { ...tool(4), id: 'cutter', diameter: D, shankDiameter: D, fluteLength: 30, stickOut: 40 };
  const base = newJob('Steady', 'mm');
  const part = boundsOf(outline);
  const stock = boundsOf(shape.stock.flat());
  const job: Job = {
    ...base,
    machine: { ...base.machine, maxFeed: 20_000, axes: alike(800, 500, 540, 15_000, base.machine.axes.x.acceleration) },
    part: { kind: 'plate', thickness: outside ? DEPTH : DEPTH + 5, features },
    setups: [
      {
        ...base.setups[0],
        clearance: 5,
        stock: {
          ...base.setups[0].stock,
          left: part.minX - stock.minX,
          right: stock.maxX - part.maxX,
          front: part.minY - stock.minY,
          back: stock.maxY - part.maxY,
          top: 0,
          bottom: 1,
        },
      },
    ],
  };
  const target = features.find((f) => f.meaning === (outside ? 'outline' : 'pocket'))!;
  const planned = withOperation(job, 'clear', [target.id], cutter, {
    stepover: ae,
    layer: DEPTH,
    wallAllowance: 0,
    finish: false,
    breakthrough: 0,
    turn: D * 0.05,
    linkFeed: 6000,
    longestBack: 1000,
    raise: false,
    ...params,
  });
  const [setup] = planned.setups;
  const operations = setup.operations.map((o) => ({ ...o, speeds: { rpm: 4000, feed: 3000, entryFeed: 500 } }));
  return { ...planned, setups: [{ ...setup, operations }] };
}

/** Plans, posts and measures a shape with a tool. */
export function measureSteady(
  shape: ClearingShape,
  D: number,
  ae: number,
  params: Record<string, unknown> = {},
  cell = D / 80,
): { figures: SteadyFigures; seconds: number; findings: string[]; text: string } {
  const job = steadyJob(shape, D, ae, params);
  const started = process.cpuUsage().user;
  const plan = planSetup(job, job.setups[0]);
  const seconds = (process.cpuUsage().user - started) / 1e6;
  const { programs, findings } = postSetup(job, job.setups[0], plan);
  const text = programs[0]?.text ?? '';
  const [operation] = job.setups[0].operations;
  const figures = checkSteady(
    {
      text,
      zero: plan.ground.zero,
      z: -DEPTH,
      radius: D / 2,
      bite: ae,
      turn: operation.params.turn as number,
      allowance: operation.params.wallAllowance as number,
      target: shape.target,
      keep: shape.keep,
      stock: shape.stock,
      linkFeed: 6000,
      entryFeed: operation.speeds.entryFeed,
    },
    cell,
  );
  return { figures, seconds, findings: findings.map((f) => f.message), text };
}

export { clearingShapes };
