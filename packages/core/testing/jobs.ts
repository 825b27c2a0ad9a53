/** Small jobs for tests. */
import { Feature, Shape } from '../src/part/plate/feature';
import { newFeature } from '../src/part/plate/new';
import { newJob } from '../src/document/new';
import { addOperation, takeSuggested } from '../src/advise/edit';
import { Job, Setup } from '../src/document/job';
import { PlanCache, planFindings, planSetup, postSetup } from '../src/plan/pipeline';
import { Proof, proveProgram } from '../src/plan/prove';
import { Tool } from '../src/shop/tool';
import { plate, tool } from './parts';

/** A plate with one more feature. */
export function jobWith(shape: Shape | undefined, more: Partial<Feature> = {}, thickness = 10): Job {
  const outline = plate();
  const features = shape
    ? [
        outline,
        newFeature([outline], more.meaning ?? 'pocket', 'Feature', shape, {
          x: 40,
          y: 25,
          depth: 5,
          through: false,
          ...more,
        }),
      ]
    : [outline];
  const job = newJob('Test', 'mm');
  return { ...job, part: { kind: 'plate', thickness, features } };
}

export const withStock = (job: Job, stock: Partial<Setup['stock']>): Job => ({
  ...job,
  setups: [{ ...job.setups[0], stock: { ...job.setups[0].stock, ...stock } }],
});

/** Adds an operation and changes its values. */
export function withOperation(
  job: Job,
  kind: string,
  targets: string[],
  t: Tool,
  params: Record<string, unknown> = {},
): Job {
  const next = addOperation(job, 's1', kind, targets, t);
  const setup = next.setups[0];
  const operations = setup.operations.map((o, i) =>
    i === setup.operations.length - 1 ? { ...o, params: { ...o.params, ...params } } : o,
  );
  return { ...next, setups: [{ ...setup, operations }] };
}

/** The job at the speeds that would be suggested for the values it has now. */
export const atSuggestedSpeeds = (job: Job): Job =>
  job.setups[0].operations.reduce((j, { id }) => takeSuggested(j, id), job);

/** The job at feeds so slow that no spindle of the shop feels them: where a test asks for the shape alone. */
export const atGentleSpeeds = (job: Job): Job => ({
  ...job,
  setups: job.setups.map((setup) => ({
    ...setup,
    operations: setup.operations.map((o) => ({ ...o, speeds: { ...o.speeds, feed: 500, entryFeed: 200 } })),
  })),
});

/** Plans of one test file: the same job is planned once. */
const PLANS: PlanCache = new Map();

export function post(job: Job): { text: string; codes: string[] } {
  const plan = planSetup(job, job.setups[0], PLANS);
  const { programs, findings } = postSetup(job, job.setups[0], plan);
  return { text: programs.map((p) => p.text).join(''), codes: [...planFindings(plan), ...findings].map((f) => f.code) };
}

export function prove(job: Job, cell = 0.1): Proof & { codes: string[]; text: string } {
  const { text, codes } = post(job);
  if (!text) throw new Error(`not posted: ${codes.join()}`);
  const proof = proveProgram(job, job.setups[0], text, cell);
  return { ...proof, codes: proof.findings.map((f) => f.code), text };
}

/** The zero of its setup, part coordinates. */
export const zeroOf = (job: Job) => planSetup(job, job.setups[0], PLANS).ground.zero;

/** A pocket of 50 x 30 x 4 in stock flush with the part but for 5 mm below, cut by a tool too large for its corners. */
export const TIGHT_POCKET = { depth: 4, toolRadius: 5, cornerRadius: 3, long: 50, wide: 30, below: 5 };

export function tightPocket(): Job {
  const { long: width, wide: height, cornerRadius: radius, depth, below: bottom } = TIGHT_POCKET;
  const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom };
  const drawn = withStock(jobWith({ type: 'rectangle', width, height, radius }, { depth }), flush);
  return withOperation(drawn, 'pocket', ['f2'], tool(4));
}
