import {
  Job,
  LevelAsk,
  MEASURES,
  Motions,
  NOTHING,
  PlanCache,
  Playback,
  Proof,
  ProofRun,
  Section,
  Setup,
  SetupPlan,
  adviseTools,
  cellFor,
  joinPrograms,
  levelFeed,
  boundsOf,
  pathLengths,
  peaksOf,
  planSteps,
  postSetup,
  proposeRoute,
} from '@tidypath/core';
import { runsOf } from './runs';
import type { Answer, LoadView, PlanView, ProofView, Request, SurfaceView } from './messages';

/** Motions cut between two looks at the message queue. */
const SLICE = 200;
const PICTURE_CELLS = 60_000;
const FINEST_PICTURE = 0.2;

const scope = globalThis as unknown as {
  postMessage(m: Answer, transfer?: Transferable[]): void;
  onmessage: ((e: MessageEvent<Request>) => void) | null;
};
const cache: PlanCache = new Map();
let current = 0;
let awaited: Int32Array | undefined;
let playback: Playback | undefined;
let bottom = 0;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
const setupOf = (job: Job, id: string): Setup => job.setups.find((s) => s.id === id) ?? job.setups[0];

/** Plans operation by operation, so that a newer question or a cancel is heard between them; undefined when it was. */
async function planned(seq: number, job: Job, setup: Setup): Promise<SetupPlan | undefined> {
  const stopped = () => !!awaited && Atomics.load(awaited, 0) !== seq;
  const steps = planSteps(job, setup, cache, stopped);
  for (;;) {
    const { done, value } = steps.next();
    if (seq !== current || stopped()) return undefined;
    if (done) return value;
    scope.postMessage({ type: 'planning', seq, step: value });
    await breath();
  }
}

function planView(job: Job, setup: Setup, plan: SetupPlan): PlanView {
  const posted = postSetup(job, setup, plan);
  const own = new Set([...plan.findings, ...plan.planned.flatMap((p) => p.plan.findings)]);
  return {
    planned: plan.planned.map(({ operation, key, plan: p }) => ({
      operationId: operation.id,
      key,
      path: p.path,
      findings: p.findings,
      minutes: pathLengths(p.path),
    })),
    findings: [...plan.findings, ...posted.findings.filter((f) => !own.has(f))],
    programs: posted.programs,
    zero: plan.zero,
    clearance: plan.clearance,
  };
}

function surfaceOf(field: Playback['field'], top: number): SurfaceView {
  return {
    x0: field.x0,
    y0: field.y0,
    cell: field.cell,
    nx: field.nx,
    ny: field.ny,
    bottom,
    top,
    height: solid(field.height),
  };
}

/** A copy with empty cells brought down to the stock's underside. */
function solid(height: Float32Array): Float32Array {
  return height.map((h) => (h <= NOTHING ? bottom : h));
}

/** What was proved last. */
let last: { job: Job; setup: Setup; text: string; sections: Section[]; run: ProofRun; proof: Proof } | undefined;

/** Cuts a proof to its end, telling how far it is; false when something newer was asked meanwhile. */
async function cut(seq: number, { prover }: ProofRun, isWanted: () => boolean): Promise<boolean> {
  let told = 0;
  while (!prover.done) {
    prover.advance(SLICE);
    if (prover.progress - told > 0.02) {
      told = prover.progress;
      scope.postMessage({ type: 'progress', seq, share: told });
    }
    await breath();
    if (!isWanted()) return false;
  }
  return true;
}

function loadView({ clock, samples }: Proof, motions: Motions): LoadView {
  const peaks = Object.fromEntries(MEASURES.map((m) => [m, peaksOf(samples, motions, m)]));
  return { clock, samples, peaks: peaks as LoadView['peaks'] };
}

async function prove(seq: number, job: Job, setup: Setup, text: string, sections: Section[] = []): Promise<void> {
  const run = new ProofRun(job, setup, text, undefined, sections);
  const { prover } = run;
  if (!(await cut(seq, run, () => seq === current))) return;
  const proof = run.finish();
  last = { job, setup, text, sections, run, proof };
  const { stock, motions, zero } = prover.input;
  bottom = stock.bottom;
  const bounds = boundsOf(stock.region.flat());
  playback = new Playback(prover.input, proof.clock.seconds, cellFor(bounds, PICTURE_CELLS, FINEST_PICTURE));
  playback.seek(Infinity);
  const ends = new Float32Array(motions.count);
  let sum = 0;
  proof.clock.seconds.forEach((s, i) => (ends[i] = sum += s));
  const view: ProofView = {
    findings: proof.findings,
    ...loadView(proof, motions),
    steps: proof.steps,
    removed: proof.removed,
    cell: proof.field.cell,
    surface: surfaceOf(playback.field, stock.top),
    lines: motions.line,
    ...runsOf(proof.samples, motions, zero),
    ends,
  };
  scope.postMessage({ type: 'proved', seq, text, proof: view });
}

async function compute(seq: number, job: Job, setup: Setup): Promise<void> {
  const made = await planned(seq, job, setup);
  if (!made) return;
  const plan = planView(job, setup, made);
  scope.postMessage({ type: 'planned', seq, plan });
  await breath();
  if (seq !== current || plan.programs.length === 0) return;
  const { text, sections } = joinPrograms(plan.programs);
  await prove(seq, job, setup, text, sections);
}

/** Levels the feeds of what was proved last, and proves the outcome. */
async function level(seq: number, ask: LevelAsk): Promise<void> {
  if (!last) return;
  const { job, setup, text, sections, run, proof } = last;
  const { motions, tools, material, machine } = run.prover.input;
  const levelled = levelFeed({ text, motions, samples: proof.samples, tools, material, machine }, ask);
  const after = new ProofRun(job, setup, levelled.text, undefined, sections);
  if (!(await cut(seq, after, () => last?.text === text))) return;
  const { findings, ...rest } = after.finish();
  scope.postMessage({
    type: 'levelled',
    seq,
    levelled: {
      ...levelled,
      ...loadView({ findings, ...rest }, rest.read.motions),
      findings: [...levelled.findings, ...findings],
    },
  });
}

function seek(seq: number, time: number): void {
  if (!playback) return;
  const moment = playback.seek(time);
  const height = solid(playback.field.height);
  scope.postMessage({ type: 'moment', seq, moment, height }, [height.buffer]);
}

scope.onmessage = ({ data }) => {
  const failed = (seq: number) => (error: unknown) =>
    scope.postMessage({ type: 'failed', seq, message: String(error) });
  if (data.type === 'advise') {
    const { seq, job, featureId, rack } = data;
    return scope.postMessage({ type: 'advised', seq, advised: adviseTools(job, featureId, rack) });
  }
  if (data.type === 'propose') {
    const { seq, job, setupId, rack } = data;
    return scope.postMessage({ type: 'proposed', seq, proposal: proposeRoute(job, setupId, rack) });
  }
  if (data.type === 'watch') return void (awaited = data.awaited);
  if (data.type === 'seek') return seek(data.seq, data.time);
  if (data.type === 'level') return void level(data.seq, data.ask).catch(failed(data.seq));
  if (data.type === 'cancel') {
    scope.postMessage({ type: 'cancelled', seq: current });
    current = -1;
    return;
  }
  current = data.seq;
  const setup = setupOf(data.job, data.setupId);
  if (data.type === 'compute') compute(data.seq, data.job, setup).catch(failed(data.seq));
  else prove(data.seq, data.job, setup, data.text).catch(failed(data.seq));
};
