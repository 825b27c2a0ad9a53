/** Ways to do the same work held against each other: each planned, posted and proved like any program. */
import { maths } from '../../quantity/maths';
import { Candidate, Comparison } from '../../document/comparison';
import { editOperation } from '../../document/edit';
import { Job, Setup } from '../../document/job';
import { Operation, Speeds } from '../../document/operation';
import { drawnBy } from '../../judge/energy';
import { Measured, measured } from '../../judge/measured';
import { kindOf } from '../../operation/registry';
import type { BenchWork } from '../../plan/bench';
import { partsARun } from '../../plan/batch';
import { EDGE_MINUTES, RunFigures } from '../../plan/cost';
import { joinPrograms } from '../../plan/joined';
import { sectionAt } from '../../program/write/step';
import { PlanCache, planFindings, planSteps, postSetup } from '../../plan/pipeline';
import { ProofRun, leftBefore } from '../../plan/prove';
import { Finding } from '../../quantity/finding';
import { LOAD } from '../../quantity/findings/load';
import { formatNumber, formatVolume } from '../../quantity/units';
import { Tool } from '../../shop/tool';
import { wholeTime } from '../../simulate/clock';
import { takeSuggested } from '../edit';
import { Known, setupOf } from '../route/tried';
import { comparedIn, takenOver } from './candidates';
import { Priced, Verdict, verdictOf } from './verdict';
import { verdictText } from './words';

/** At which speeds candidates are held against each other: as each has them, all at those of what they stand in for, or each as it would be suggested. */
export const COMPARED_AT = ['as set', 'the same for all', 'each at its best'] as const;
export type ComparedAt = (typeof COMPARED_AT)[number];

/** What came of one candidate. */
export interface Outcome {
  id: string;
  /** Left out where it has no program. */
  figures?: Measured;
  /** Minutes the whole program of the setup takes. */
  whole?: number;
  priced?: Priced;
  /** Cares and stops, the plan’s and the proof’s. */
  findings: Finding[];
  /** Why somebody should watch it, in words; nothing where nobody has to. */
  watched: string[];
  /** Whether its own walls are coarser than is asked for. */
  coarse: boolean;
}

export interface Compared {
  at: ComparedAt;
  outcomes: Outcome[];
  /** Of those that can be cut without a stop; left out where there is none. */
  verdict?: Verdict;
  /** Prices that are not known, in words. */
  missing: string[];
}

/** Degrees an operation is asked to engage. */
function askedAngle(operation: Operation | undefined, tool: Tool | undefined): number {
  const kind = operation && kindOf(operation.kind);
  if (!kind || !tool) return 180;
  const { ae } = kind.bite(operation.params, tool);
  const cos = 1 - (2 * Math.min(ae, tool.diameter)) / tool.diameter;
  return (maths.acos(Math.max(-1, cos)) * 180) / Math.PI;
}

/** Speeds at which another tool has the cutting speed and the feed a tooth of an operation. */
function speedsAs({ speeds }: Operation, from: Tool, to: Tool, most: number): Speeds {
  const rpm = Math.min(most, Math.round((speeds.rpm * from.diameter) / to.diameter));
  const teeth = (rpm * to.flutes) / (speeds.rpm * from.flutes);
  const feed = (mm: number) => Math.max(0.1, Math.round(mm * teeth));
  return { rpm, feed: feed(speeds.feed), entryFeed: feed(speeds.entryFeed) };
}

/** The job with the speeds that are suggested for some operations, as boldly as asked. */
const atSuggested = (job: Job, own: string[], boldness = job.boldness): Job => ({
  ...own.reduce(takeSuggested, { ...job, boldness }),
  boldness: job.boldness,
});

/** The job with a candidate’s own operations at the speeds asked for. */
function atSpeeds(
  job: Job,
  own: string[],
  at: ComparedAt,
  { boldness }: Candidate,
  model: Operation | undefined,
  tools: Tool[],
): Job {
  if (at === 'as set') return job;
  if (at === 'each at its best') return atSuggested(job, own, boldness);
  const from = tools.find((t) => t.id === model?.toolId);
  if (!model || !from) return job;
  return own.reduce(
    (next, id) =>
      editOperation(next, id, (o) => {
        const to = next.tools.find((t) => t.id === o.toolId);
        return to ? { ...o, speeds: speedsAs(model, from, to, next.machine.maxRpm) } : o;
      }),
    job,
  );
}

/** What a run costs a part, in the terms it is doubted by, and the prices that are not known, in words. */
function pricedRun(
  { tools, prices = {} }: Job,
  setup: Setup,
  { minutes, wear, kWh }: RunFigures,
  { id, spend = 0, heat = 0, spikes = 0 }: { id: string; spend?: number; heat?: number; spikes?: number },
): { priced: Priced; missing: string[] } {
  const parts = partsARun(setup);
  const energy = prices.energy ?? 0;
  const priced: Priced = {
    ...{ id, minutes: minutes / parts, edgePrice: 0, edgeMinutes: 0, spikes, oneOff: spend },
    ...{ energy: (kWh * energy) / parts, cutting: (drawnBy(heat) * energy) / parts },
  };
  const missing: string[] = [];
  for (const { tool: number, share } of wear) {
    const tool = tools.find((t) => t.number === number);
    if (!tool?.edgePrice) missing.push(`the price of an edge of ${tool?.name ?? `T${number}`}`);
    priced.edgePrice += (share * (tool?.edgePrice ?? 0)) / parts;
    priced.edgeMinutes += tool?.edgePrice ? (share * (prices.edgeMinutes ?? EDGE_MINUTES)) / parts : 0;
  }
  return { priced, missing };
}

/** A run of a whole program: what it costs with the tools it was run with, what it takes away, cm³, and how many findings stop it. */
export interface WholeRun {
  name: string;
  priced: Priced;
  /** Prices that are not known, in words. */
  missing: string[];
  removed: number;
  stops: number;
}

/** A proved program as one to hold against others. */
export const wholeRun = (
  name: string,
  job: Job,
  setup: Setup,
  run: RunFigures,
  { removed, findings }: { removed: number; findings: Finding[] },
): WholeRun => ({
  ...{ name, removed, ...pricedRun(job, setup, run, { id: name }) },
  stops: findings.filter((f) => f.level === 'stop').length,
});

/** Programs that take this much more than others do other work, as a share. */
const OTHER_WORK = 0.02;

/** Two programs of a setup held against each other by what a part costs, in sentences; or why that says nothing. */
export function runsCompared(job: Job, runs: [WholeRun, WholeRun]): string[] {
  const rate = job.machine.hourlyRate;
  const stopped = runs.find((r) => r.stops > 0);
  if (stopped) return [`“${stopped.name}” is not one to run as it is: what stops it comes first.`];
  const [less, more] = runs.map((r) => r.removed).sort((a, b) => a - b);
  const volume = (cm3: number) => formatVolume(1000 * cm3, job.unit);
  if (more > (1 + OTHER_WORK) * less)
    return [`They do other work: one takes ${volume(less)} away, the other ${volume(more)}.`];
  if (!(rate > 0)) return [`Which costs less is not known without the hourly rate of ${job.machine.name}.`];
  const priced = runs.map((r, i) => ({ ...r.priced, id: String(i) }));
  const energy = job.prices?.energy ? [] : ['the price of energy'];
  const missing = [...new Set([...runs.flatMap((r) => r.missing), ...energy])];
  return [
    ...verdictText(verdictOf(priced, rate, job.batch), priced, rate, (id) => runs[Number(id)].name, job.batch),
    ...(missing.length > 0 ? [`Not counted, as it is not known: ${missing.join(', ')}.`] : []),
  ];
}

/** The job with a candidate in place of what it stands in for, at the speeds asked for, and which operations are its own then. */
export function takenAt(
  job: Job,
  comparison: Comparison,
  candidate: Candidate,
  at: ComparedAt,
): { job: Job; own: string[] } {
  // A whole route has no speeds that could be those of another.
  const model = comparison.route ? undefined : comparedIn(job, comparison)[0];
  const taken = takenOver(job, comparison, candidate);
  return { job: atSpeeds(taken.job, taken.own, at, candidate, model, job.tools), own: taken.own };
}

/** Motions cut in one step. */
const SLICE = 100;

/** Plans, posts and proves one candidate. */
function* outcomeOf(
  job: Job,
  comparison: Comparison,
  candidate: Candidate,
  at: ComparedAt,
  { plans, left }: Known,
): BenchWork<{ outcome: Outcome; missing: string[] }> {
  const { job: made, own } = takenAt(job, comparison, candidate, at);
  const setup = setupOf(made, comparison.setup);
  const steps = planSteps(made, setup, plans);
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield { planning: step.value };
  const plan = step.value;
  const { programs, findings } = postSetup(made, setup, plan);
  const isWorry = (f: Finding) => f.level !== 'note';
  const worries = [...planFindings(plan), ...findings].filter(isWorry);
  if (programs.length === 0)
    return { outcome: { id: candidate.id, findings: worries, watched: [], coarse: false }, missing: [] };
  const { text, sections } = joinPrograms(programs);
  const cut = new ProofRun(made, setup, text, undefined, { sections, left, ground: plan.ground });
  while (!cut.done) {
    cut.advance(SLICE);
    yield { proving: cut.progress };
  }
  const proof = cut.finish();
  const byId = new Map(setup.operations.map((o) => [o.id, o]));
  const toolOf = (o?: Operation) => made.tools.find((t) => t.id === o?.toolId);
  const { tools, material, machine } = cut.prover.input;
  const figures = measured(
    { ...proof, motions: proof.read.motions, seconds: proof.clock.seconds, sections, tools, material, machine },
    new Set(own),
    (id) => askedAngle(byId.get(id), toolOf(byId.get(id))),
  );
  const run = { minutes: figures.minutes.total, wear: figures.wear, kWh: figures.kWh };
  const { id, spend } = candidate;
  const more = { id, spend, heat: figures.heat, spikes: figures.spikes.count };
  const { priced, missing } = pricedRun(made, setup, run, more);
  const all = [...worries, ...proof.findings.filter(isWorry)];
  const starts = [...sections].sort((a, b) => a.line - b.line);
  const isOwn = ({ place: { operation, line } }: Finding) =>
    own.includes(operation ?? (line ? (starts[sectionAt(starts, line)]?.operationId ?? '') : ''));
  const ofOwn = all.filter(isOwn);
  const watched = watchedFor(figures, ofOwn);
  const coarse = ofOwn.some((f) => f.code === 'wall-rough');
  return {
    outcome: { id: candidate.id, figures, whole: wholeTime(proof.clock), priced, findings: all, watched, coarse },
    missing,
  };
}

/** Seconds of too much load, and the share of an edge in one run, from which on somebody stands by. */
const WATCHED = { spikes: 1, edge: 0.5 };

/** Why a way should not run while nobody watches it. */
function watchedFor({ spikes, wear }: Measured, findings: Finding[]): string[] {
  const most = Math.max(0, ...wear.map((w) => w.share));
  return [
    ...findings.filter((f) => f.code in LOAD).map((f) => f.message),
    ...(spikes.seconds > WATCHED.spikes ? [`${formatNumber(spikes.seconds, 1)} s of load spikes`] : []),
    ...(most > WATCHED.edge ? [`${formatNumber(100 * most, 0)} % of an edge goes in one run`] : []),
  ];
}

/** Why a way is not counted, though it can be cut; nothing where it is. */
export function leftOutBy({ watched, coarse }: Outcome, { unattended, smoothedLater }: Comparison): string | undefined {
  if (unattended && watched.length > 0) return `watched only: ${watched[0]}`;
  if (!smoothedLater && coarse) return 'its walls are coarser than is asked for';
  return undefined;
}

/** Whether a candidate may be cut at all. */
export const isSound = ({ figures, findings }: Outcome): boolean =>
  !!figures && !findings.some((f) => f.level === 'stop');

/** What those cost that are counted. */
export const countedIn = (outcomes: Outcome[], comparison: Comparison): Priced[] =>
  outcomes.filter((o) => isSound(o) && !leftOutBy(o, comparison)).flatMap((o) => o.priced ?? []);

/**
 * Holds all candidates of a comparison against each other.
 * @param plans what was planned before, and is remembered
 */
export function* compare(
  job: Job,
  comparison: Comparison,
  at: ComparedAt,
  plans: PlanCache = new Map(),
): BenchWork<Compared> {
  const outcomes: Outcome[] = [];
  const missing = new Set<string>(job.machine.hourlyRate > 0 ? [] : [`the hourly rate of ${job.machine.name}`]);
  // What the setup before left is the same for all.
  const { left } = leftBefore(job, setupOf(job, comparison.setup));
  for (const candidate of comparison.candidates) {
    const found = yield* outcomeOf(job, comparison, candidate, at, { plans, left });
    outcomes.push(found.outcome);
    found.missing.forEach((m) => missing.add(m));
  }
  if (!job.prices?.energy) missing.add('the price of energy');
  const priced = countedIn(outcomes, comparison);
  return {
    ...{ at, outcomes, missing: [...missing] },
    ...(priced.length > 0 && { verdict: verdictOf(priced, job.machine.hourlyRate, job.batch) }),
  };
}
