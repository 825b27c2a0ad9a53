/** A proposed route tried: planned, posted, timed, cut. */
import { Finding, worded } from '../../quantity/finding';
import { Job, Setup } from '../../document/job';
import type { Operation } from '../../document/operation';
import type { BenchWork } from '../../plan/bench';
import { PlanCache, Planned, SetupPlan, planFindings, planSteps, postSetup } from '../../plan/pipeline';
import type { Section } from '../../program/write/step';
import { joinPrograms } from '../../plan/joined';
import { Ground } from '../../plan/ground';
import type { RunFigures } from '../../plan/cost';
import { ProofRun, runFigures } from '../../plan/prove';
import type { Piece } from '../../stock/height/height-stock';
import { Barred, Proposed } from './propose';
import type { Proposal } from './step';

/** Grid routes are chosen on, mm; the chosen one is proved on the grid every proof has. */
const COARSE = 0.5;
/** Motions cut in one step. */
const SLICE = 200;

/** What tries of one setup share. */
export interface TryBench extends Known {
  setupId: string;
}

/** What is known when a setup comes to its turn. */
export interface Known {
  /** Plans that were made before. */
  plans: PlanCache;
  /** What the setup before left. */
  left?: Piece;
}

/** A proposal planned and posted. */
export interface Begun {
  proposal: Proposed;
  setup: Setup;
  plan: SetupPlan;
  /** Its cut, not run yet; undefined where it has no program. */
  run?: ProofRun;
  sections: Section[];
  findings: Finding[];
}

/** A proposal with what its plan and its cut found; where there was a cut, the next begins where it is still the same. */
export interface Tried extends Begun {
  ground?: Ground;
  figures?: RunFigures;
  /** Operations that took nothing away. */
  idle?: string[];
}

/**
 * Plans a proposed setup and posts it.
 * @param glance whether it is enough to see what a coarse grid shows; else it is to be proved
 * @param taken plans that are taken as they are: enough to see what it takes
 */
export function* begin(
  proposal: Proposed,
  { setupId, plans, left }: TryBench,
  glance: boolean,
  taken?: (operation: Operation) => Planned | undefined,
): BenchWork<Begun> {
  const { job } = proposal;
  const setup = setupOf(job, setupId);
  const steps = planSteps(job, setup, plans, {}, taken);
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield { planning: step.value };
  const plan = step.value;
  const posted = postSetup(job, setup, plan);
  const begun = { proposal, setup, plan, sections: [], findings: worries(setup, posted.findings) };
  if (posted.programs.length === 0) return begun;
  const { text, sections } = joinPrograms(posted.programs);
  const options = { sections, left, ground: plan.ground, glance };
  return { ...begun, sections, run: new ProofRun(job, setup, text, glance ? COARSE : undefined, options) };
}

/** Cuts what was begun, from where the cut before was still the same. */
export function* cut(begun: Begun, before?: Tried): BenchWork<Tried> {
  const { setup, plan, run, sections } = begun;
  if (!run) return begun;
  if (before?.run) run.prover.follow(before.run.prover);
  while (!run.done) {
    run.advance(SLICE);
    yield { proving: run.progress };
  }
  const proof = run.finish();
  const found = proof.findings.map((f) => named(f, sections));
  return {
    ...{ ...begun, ground: plan.ground, figures: runFigures(proof) },
    idle: found.flatMap(({ code, place }) => (code === 'removed-nothing' && place.operation ? [place.operation] : [])),
    findings: worries(setup, [...planFindings(plan), ...found]),
  };
}

/** Plans a proposed setup, posts it and cuts it. */
export function* tryOut(proposal: Proposed, bench: TryBench, glance: boolean, before?: Tried): BenchWork<Tried> {
  return yield* cut(yield* begin(proposal, bench, glance), before);
}

export const setupOf = ({ setups }: Job, id: string): Setup => setups.find((s) => s.id === id) ?? setups[0];

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

/** What speaks against a proposal, worst first: features it leaves alone, stops, what it has no way for, cares. */
const against = ({ proposal, setup, findings }: Tried): number[] => [
  -new Set(setup.operations.flatMap((o) => o.targets)).size,
  findings.filter((f) => f.level === 'stop').length,
  proposal.missing.length,
  findings.filter((f) => f.level === 'care').length,
];

/** Whether less speaks against one than against another: below 0; as much: 0. */
export function compared(a: Tried, b: Tried): number {
  const [x, y] = [against(a), against(b)];
  const k = x.findIndex((v, i) => v !== y[i]);
  return k < 0 ? 0 : x[k] - y[k];
}

/** Findings that tell of metal left in a feature. */
const LEFT: ReadonlySet<string> = new Set(['metal-left', 'left-standing', 'corner-left']);

/** What was found, but for metal left in features there is no tool for: that is said already. */
const open = ({ proposal: { job, missing }, findings }: Tried): Finding[] =>
  findings.filter(({ code, place }) => {
    const feature = job.part.features.find((f) => f.id === place.feature);
    // What no setup sees is nothing this one could mend.
    return code !== 'side-never-up' && !(LEFT.has(code) && missing.some((m) => m.feature === feature?.name));
  });

/** The tools that what was found speaks against, each on the features it was to work on. */
export const speaksAgainst = (tried: Tried): Barred[] =>
  open(tried).flatMap(({ place }) => {
    const operation = tried.setup.operations.find((o) => o.id === place.operation);
    if (!operation) return [];
    const features = place.feature ? [place.feature] : operation.targets;
    return features.map((feature) => ({ feature, tool: operation.toolId }));
  });

/** What is left to be said of a proposal, beside what it has no way for. */
export const stillStands = (tried: Tried): Proposal['missing'] =>
  open(tried).map((found) => {
    const { proposal, setup } = tried;
    const { place, message } = worded(found, proposal.job.unit);
    const operation = setup.operations.find((o) => o.id === place.operation);
    const feature = proposal.job.part.features.find((f) => f.id === place.feature);
    return { feature: operation?.name ?? feature?.name ?? setup.name, why: message };
  });
