import { Finding, worded } from '../../quantity/finding';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { Job, Setup } from '../../document/job';
import type { BenchWork } from '../../plan/bench';
import { PlanCache, planFindings, planSteps, postSetup } from '../../plan/pipeline';
import type { Section } from '../../program/write/step';
import { joinPrograms } from '../../plan/joined';
import { ProofRun, leftBefore } from '../../plan/prove';
import type { Piece } from '../../stock/height/height-stock';
import { Barred, proposeRoute } from './propose';
import type { Proposal } from './step';

/** Grid of the coarse cut, mm. */
const COARSE = 0.5;
/** Motions cut in one step. */
const SLICE = 200;
/** Proposals tried at most. */
const MOST_TRIES = 6;

/** A proposal with what its plan and its coarse cut found. */
interface Tried {
  proposal: Proposal;
  setup: Setup;
  findings: Finding[];
}

/** What speaks against a proposal, worst first: features it leaves alone, stops, what it has no way for, cares. */
const against = ({ proposal, setup, findings }: Tried): number[] => [
  -new Set(setup.operations.flatMap((o) => o.targets)).size,
  findings.filter((f) => f.level === 'stop').length,
  proposal.missing.length,
  findings.filter((f) => f.level === 'care').length,
];

function isBetter(a: Tried, b: Tried): boolean {
  const [x, y] = [against(a), against(b)];
  const k = x.findIndex((v, i) => v !== y[i]);
  return k >= 0 && x[k] < y[k];
}

/** Cares and stops; what a rougher leaves in corners is none where another operation comes back for it. */
function worries({ operations }: Setup, findings: Finding[]): Finding[] {
  const comesBack = ({ place }: Finding) => {
    const own = operations.findIndex((o) => o.id === place.operation);
    return operations.some((o, i) => i > own && o.params.finish === true && o.targets.includes(place.feature ?? ''));
  };
  return findings.filter((f) => f.level !== 'note' && !(f.code === 'corner-left' && comesBack(f)));
}

/** A finding of the cut with the operation whose line it stands at. */
function named(found: Finding, sections: Section[]): Finding {
  const { line, operation } = found.place;
  const at = line === undefined ? undefined : sections.filter((s) => s.line <= line).pop();
  return { ...found, place: { ...found.place, operation: operation ?? at?.operationId } };
}

/** Plans a proposed setup, posts it and cuts it on a coarse grid. */
function* tryOut(proposal: Proposal, setupId: string, plans: PlanCache, left?: Piece): BenchWork<Tried> {
  const { job } = proposal;
  const setup = job.setups.find((s) => s.id === setupId) ?? job.setups[0];
  const steps = planSteps(job, setup, plans);
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield { planning: step.value };
  const plan = step.value;
  const posted = postSetup(job, setup, plan);
  if (posted.programs.length === 0) return { proposal, setup, findings: worries(setup, posted.findings) };
  const { text, sections } = joinPrograms(posted.programs);
  const run = new ProofRun(job, setup, text, COARSE, { sections, left, ground: plan.ground });
  while (!run.done) {
    run.advance(SLICE);
    yield { proving: run.progress };
  }
  const cut = run.finish().findings.map((f) => named(f, sections));
  return { proposal, setup, findings: worries(setup, [...planFindings(plan), ...cut]) };
}

/** The tools that what was found speaks against, each on the features it was to work on. */
const speaksAgainst = ({ setup, findings }: Tried): Barred[] =>
  findings.flatMap(({ place }) => {
    const operation = setup.operations.find((o) => o.id === place.operation);
    if (!operation) return [];
    const features = place.feature ? [place.feature] : operation.targets;
    return features.map((feature) => ({ feature, tool: operation.toolId }));
  });

/** What is left to be said of a proposal, beside what it has no way for. */
const stillStands = ({ proposal, setup, findings }: Tried): Proposal['missing'] =>
  findings.map((found) => {
    const { place, message } = worded(found, proposal.job.unit);
    const operation = setup.operations.find((o) => o.id === place.operation);
    const feature = proposal.job.part.features.find((f) => f.id === place.feature);
    return { feature: operation?.name ?? feature?.name ?? setup.name, why: message };
  });

/**
 * A route as {@link proposeRoute} finds it, planned and coarsely cut before it is shown: where a finding stands, the next tool takes
 * the place of the one it speaks against, as long as that makes it better. What still stands then is told with it.
 */
export function* provenRoute(job: Job, setupId: string, rack: Tool[] = TOOLS): BenchWork<Proposal> {
  const plans: PlanCache = new Map();
  const setup = job.setups.find((s) => s.id === setupId) ?? job.setups[0];
  const { left } = leftBefore(job, setup, COARSE);
  let best = yield* tryOut(proposeRoute(job, setupId, rack), setupId, plans, left);
  let barred: Barred[] = [];
  const open = speaksAgainst(best);
  for (let n = 1; n < MOST_TRIES && open.length > 0; n++) {
    const more = [...barred, ...open.splice(0, 1)];
    const next = yield* tryOut(proposeRoute(job, setupId, rack, more), setupId, plans, left);
    if (!isBetter(next, best)) continue;
    [best, barred] = [next, more];
    open.splice(0, Infinity, ...speaksAgainst(best));
  }
  return { ...best.proposal, missing: [...best.proposal.missing, ...stillStands(best)] };
}
