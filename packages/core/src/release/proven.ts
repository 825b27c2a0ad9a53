/** Plans, posts and proves a setup for a release: what is kept is what was proved. */
import type { Job, Setup } from '../document/job';
import type { Waiting } from '../operation/operation';
import { Bench, BenchWork } from '../plan/bench';
import { joinPrograms } from '../plan/joined';
import { planView, proofView } from '../view/views';
import type { ProofView } from '../view/terms';
import { firstPlunges } from './plunges';
import { preflight, toAccept } from './preflight';
import type { ProofSummary, Proven, ReleaseBody } from './release';
import { MARK, ReleasedProgram, acceptedKey, marked, partsOf, rootOf } from './root';

/** Of a proof what is kept with a release. */
export const summaryOf = (proof: ProofView): ProofSummary => {
  const { findings, clock, steps, grip, wear, energy, called, removed, grid, places } = proof;
  return { findings, clock, steps, grip, wear, energy, called, removed, grid, places };
};

/**
 * Everything a release is made from, from the job alone; where there is no program, what speaks against it.
 * @returns undefined where nobody waits any more
 */
export function* proven(bench: Bench, job: Job, setup: Setup, waiting: Waiting = {}): BenchWork<Proven | undefined> {
  const planned = yield* bench.plan(job, setup, waiting);
  if (waiting.stopped?.()) return undefined;
  const plan = planView(planned, MARK);
  const { text, sections } = joinPrograms(plan.programs);
  const proved = yield* bench.prove(job, setup, text, sections, waiting);
  if (!proved) return undefined;
  const proof = proofView(proved);
  return {
    programs: plan.programs.map(({ fileName, text: own }) => ({ fileName, text: own })),
    checks: preflight(job, setup, plan, proof),
    proof: summaryOf(proof),
    plunges: firstPlunges(proved.run.prover.input.motions),
  };
}

/** The release itself: what was proved, with what was accepted of it, under its root. */
export function released(
  job: Job,
  setup: Setup,
  { programs, checks, proof, plunges }: Proven,
  keys: string[],
): { body: ReleaseBody; programs: ReleasedProgram[] } {
  const accepted = toAccept(checks).filter((f) => keys.includes(acceptedKey(f)));
  const parts = partsOf(job, setup, programs, accepted);
  const root = rootOf(parts);
  return {
    body: { job, setupId: setup.id, parts, root, accepted, checks, proof, plunges },
    programs: marked(programs, root),
  };
}
