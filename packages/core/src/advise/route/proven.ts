import { Finding, worded } from '../../quantity/finding';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { Job, Setup } from '../../document/job';
import type { BenchWork } from '../../plan/bench';
import { PlanCache, planFindings, planSteps, postSetup } from '../../plan/pipeline';
import type { Section } from '../../program/write/step';
import { joinPrograms } from '../../plan/joined';
import { Ground } from '../../plan/ground';
import { leavings } from '../../plan/leavings';
import type { RunFigures } from '../../plan/cost';
import { ProofRun, leftBefore, runFigures } from '../../plan/prove';
import type { Piece } from '../../stock/height/height-stock';
import { Barred, proposeRoute } from './propose';
import type { Proposal } from './step';

/** Grid routes are chosen on, mm; the chosen one is proved on the grid every proof has. */
const COARSE = 0.5;
/** Motions cut in one step. */
const SLICE = 200;
/** Proposals tried at most. */
const MOST_TRIES = 6;

/** A proposal with what its plan and its cut found. */
interface Tried {
  proposal: Proposal;
  setup: Setup;
  findings: Finding[];
  /** The cut, where there was one: the next begins where it is still the same. */
  run?: ProofRun;
  ground?: Ground;
  figures?: RunFigures;
}

/** What tries of one setup share. */
interface Bench extends Known {
  setupId: string;
}

/** What is known when a setup comes to its turn. */
export interface Known {
  /** Plans that were made before. */
  plans: PlanCache;
  /** What the setup before left. */
  left?: Piece;
}

/** A route, with what it takes and leaves. */
export interface ProvenRoute extends Proposal {
  /** One run of it; undefined where it has no program. */
  figures?: RunFigures;
  /** What it leaves for another setup; undefined where it has no program. */
  leaves(to: Setup): Piece | undefined;
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

/** Cares and stops; what a rougher leaves in corners is none where another operation comes back for it, nor is a cut too thin for the coarse grid. */
function worries({ operations }: Setup, findings: Finding[]): Finding[] {
  const comesBack = ({ place }: Finding) => {
    const own = operations.findIndex((o) => o.id === place.operation);
    return operations.some((o, i) => i > own && o.params.finish === true && o.targets.includes(place.feature ?? ''));
  };
  const isSaid = (f: Finding) => f.code !== 'removed-nothing' && !(f.code === 'corner-left' && comesBack(f));
  return findings.filter((f) => f.level !== 'note' && isSaid(f));
}

/** A finding of the cut with the operation whose line it stands at. */
function named(found: Finding, sections: Section[]): Finding {
  const { line, operation } = found.place;
  const at = line === undefined ? undefined : sections.filter((s) => s.line <= line).pop();
  return { ...found, place: { ...found.place, operation: operation ?? at?.operationId } };
}

/**
 * Plans a proposed setup, posts it and cuts it.
 * @param before what was tried last
 * @param glance whether it is enough to see what a coarse grid shows; else it is proved
 */
function* tryOut(
  proposal: Proposal,
  { setupId, plans, left }: Bench,
  glance: boolean,
  before?: Tried,
): BenchWork<Tried> {
  const { job } = proposal;
  const setup = setupOf(job, setupId);
  const steps = planSteps(job, setup, plans);
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield { planning: step.value };
  const plan = step.value;
  const posted = postSetup(job, setup, plan);
  if (posted.programs.length === 0) return { proposal, setup, findings: worries(setup, posted.findings) };
  const { text, sections } = joinPrograms(posted.programs);
  const run = new ProofRun(job, setup, text, glance ? COARSE : undefined, {
    sections,
    left,
    ground: plan.ground,
    glance,
  });
  if (before?.run) run.prover.follow(before.run.prover);
  while (!run.done) {
    run.advance(SLICE);
    yield { proving: run.progress };
  }
  const proof = run.finish();
  const cut = proof.findings.map((f) => named(f, sections));
  const findings = worries(setup, [...planFindings(plan), ...cut]);
  return { proposal, setup, findings, run, ground: plan.ground, figures: runFigures(proof) };
}

const setupOf = ({ setups }: Job, id: string): Setup => setups.find((s) => s.id === id) ?? setups[0];

/** Findings that tell of metal left in a feature. */
const LEFT: ReadonlySet<string> = new Set(['metal-left', 'left-standing', 'corner-left']);

/** What was found, but for metal left in features there is no tool for: that is said already. */
const open = ({ proposal: { job, missing }, findings }: Tried): Finding[] =>
  findings.filter(({ code, place }) => {
    const feature = job.part.features.find((f) => f.id === place.feature);
    return !(LEFT.has(code) && missing.some((m) => m.feature === feature?.name));
  });

/** The tools that what was found speaks against, each on the features it was to work on. */
const speaksAgainst = (tried: Tried): Barred[] =>
  open(tried).flatMap(({ place }) => {
    const operation = tried.setup.operations.find((o) => o.id === place.operation);
    if (!operation) return [];
    const features = place.feature ? [place.feature] : operation.targets;
    return features.map((feature) => ({ feature, tool: operation.toolId }));
  });

/** What is left to be said of a proposal, beside what it has no way for. */
const stillStands = (tried: Tried): Proposal['missing'] =>
  open(tried).map((found) => {
    const { proposal, setup } = tried;
    const { place, message } = worded(found, proposal.job.unit);
    const operation = setup.operations.find((o) => o.id === place.operation);
    const feature = proposal.job.part.features.find((f) => f.id === place.feature);
    return { feature: operation?.name ?? feature?.name ?? setup.name, why: message };
  });

/**
 * A route as {@link proposeRoute} finds it, planned and cut before it is shown: where a finding stands, the next tool takes
 * the place of the one it speaks against, as long as that makes it better; the one that is left is proved, and the search goes on
 * where that shows more. What still stands then is told with it.
 * @param known what earlier setups were found to be
 */
export function* provenSetup(job: Job, setupId: string, rack: Tool[], known: Known): BenchWork<ProvenRoute> {
  const bench: Bench = { setupId, ...known };
  let best = yield* tryOut(proposeRoute(job, setupId, rack), bench, true);
  let barred: Barred[] = [];
  let tries = MOST_TRIES;
  for (const glance of [true, false]) {
    if (!glance) best = yield* tryOut(best.proposal, bench, glance, best);
    for (const open = speaksAgainst(best); tries > 1 && open.length > 0; tries--) {
      const more = [...barred, ...open.splice(0, 1)];
      const next = yield* tryOut(proposeRoute(job, setupId, rack, more), bench, glance, best);
      if (!isBetter(next, best)) continue;
      [best, barred] = [next, more];
      open.splice(0, Infinity, ...speaksAgainst(best));
    }
  }
  const { proposal, run, ground, figures } = best;
  return {
    job: proposal.job,
    missing: [...proposal.missing, ...stillStands(best)],
    figures,
    leaves: (to) => run && ground && leavings(proposal.job, ground, to, run.piece),
  };
}

/** The same for a setup by itself: what earlier ones leave is worked out first. */
export function* provenRoute(job: Job, setupId: string, rack: Tool[] = TOOLS): BenchWork<Proposal> {
  const { left } = leftBefore(job, setupOf(job, setupId), COARSE);
  const proven = yield* provenSetup(job, setupId, rack, { plans: new Map(), left });
  return { job: proven.job, missing: proven.missing };
}
