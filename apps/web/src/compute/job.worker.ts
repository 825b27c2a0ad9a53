import {
  Allowed,
  Job,
  LevelAsk,
  MEASURES,
  MOVE,
  Motions,
  NOTHING,
  Piece,
  PlanCache,
  PlanStep,
  Playback,
  Proof,
  ProofRun,
  Section,
  Setup,
  SetupPlan,
  adviseTools,
  beforeOf,
  cellFor,
  hashOf,
  joinPrograms,
  leavings,
  levelFeed,
  boundsOf,
  calledTools,
  notKnown,
  pathLengths,
  peaksOf,
  planSteps,
  probeAt,
  postSetup,
  regridded,
  stockStl,
  proposeRoute,
  worstOn,
  worstPlaces,
} from '@tidypath/core';
import { runsOf } from './runs';
import type { Answer, LoadView, PlanView, ProofView, Request, SurfaceView } from './messages';

/** Motions cut between two looks at the clock, and milliseconds between two looks at the message queue. */
const SLICE = 50;
const BUSY = 40;
/** Milliseconds between two tellings how far planning is. */
const TOLD = 150;
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
/** What the part wants, on the grid of the picture. */
let wanted: Allowed | undefined;
let bottom = 0;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
const setupOf = (job: Job, id: string): Setup => job.setups.find((s) => s.id === id) ?? job.setups[0];

/** Plans operation by operation, so that a newer question or a cancel is heard between them; undefined when it was. */
async function planned(seq: number, job: Job, setup: Setup): Promise<SetupPlan | undefined> {
  const stopped = () => !!awaited && Atomics.load(awaited, 0) !== seq;
  let step: PlanStep | undefined;
  let next = 0;
  const told = (share: number) => {
    if (!step || performance.now() < next) return;
    next = performance.now() + TOLD;
    scope.postMessage({ type: 'planning', seq, step: { ...step, share } });
  };
  const steps = planSteps(job, setup, cache, { stopped, told });
  for (;;) {
    const { done, value } = steps.next();
    if (seq !== current || stopped()) return undefined;
    if (done) return value;
    step = value;
    scope.postMessage({ type: 'planning', seq, step });
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
    zero: plan.ground.zero,
    clearance: plan.ground.clearance,
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

/** Which lines belong to which operation, and what an earlier setup left. */
interface Left {
  sections?: Section[];
  left?: Piece;
}

/** What setups left, by what they were made from. */
const leftBy = new Map<string, Piece>();

/** What was proved last. */
let last: { job: Job; setup: Setup; text: string; left: Left; run: ProofRun; proof: Proof } | undefined;

/** A proof, or the cutting alone. */
type Steps = Pick<ProofRun, 'done' | 'progress' | 'advance'>;

/** Cuts a proof to its end, telling how far it is; false when something newer was asked meanwhile. */
async function cut(seq: number, run: Steps, isWanted: () => boolean): Promise<boolean> {
  let told = 0;
  while (!run.done) {
    const until = performance.now() + BUSY;
    while (!run.done && performance.now() < until) run.advance(SLICE);
    if (run.progress - told > 0.02) {
      told = run.progress;
      scope.postMessage({ type: 'progress', seq, share: told });
    }
    await breath();
    if (!isWanted()) return false;
  }
  return true;
}

/** `samples` is a copy, which may be given away. */
function loadView({ clock, samples: own }: Proof, motions: Motions): LoadView {
  const { cut, rapid, toolChange, dwell, total } = clock;
  const samples = structuredClone(own);
  const peaks = Object.fromEntries(MEASURES.map((m) => [m, peaksOf(samples, motions, m)]));
  return { clock: { cut, rapid, toolChange, dwell, total }, samples, peaks: peaks as LoadView['peaks'] };
}

/** What the setup before leaves, proved where that is not known yet; nothing where it has no program. */
async function leftBefore(seq: number, job: Job, setup: Setup): Promise<Piece | undefined> {
  const before = beforeOf(job, setup);
  if (!before) return undefined;
  const index = job.setups.indexOf(before);
  const key = hashOf({ ...job, note: '', unit: '', setups: job.setups.slice(0, index + 1), up: setup.up });
  const known = leftBy.get(key);
  if (known) return known;
  const plan = await planned(seq, job, before);
  const { programs } = plan ? postSetup(job, before, plan) : { programs: [] };
  if (programs.length === 0) return undefined;
  const left = await leftBefore(seq, job, before);
  const run = new ProofRun(job, before, joinPrograms(programs).text, undefined, { left });
  if (!(await cut(seq, run.prover, () => seq === current))) return undefined;
  const leaves = leavings(job, plan!.ground, setup, run.piece);
  leftBy.clear();
  leftBy.set(key, leaves);
  return leaves;
}

async function prove(seq: number, job: Job, setup: Setup, text: string, sections?: Section[]): Promise<void> {
  const left = { sections, left: await leftBefore(seq, job, setup) };
  if (seq !== current) return;
  const stopped = () => !!awaited && Atomics.load(awaited, 0) !== seq;
  const run = new ProofRun(job, setup, text, undefined, { ...left, stopped });
  if (stopped()) return;
  const { prover } = run;
  if (last) prover.follow(last.run.prover);
  if (!(await cut(seq, run, () => seq === current))) return;
  const proof = run.finish();
  const before = beforeOf(job, setup);
  if (before && !left.left) proof.findings.unshift(notKnown(before));
  last = { job, setup, text, left, run, proof };
  const { stock, motions, zero } = prover.input;
  bottom = stock.bottom;
  const bounds = boundsOf(stock.region.flat());
  playback = new Playback(prover.input, proof.clock.seconds, cellFor(bounds, PICTURE_CELLS, FINEST_PICTURE));
  playback.seek(Infinity);
  wanted = run.allowedOn(playback.field);
  const ends = new Float32Array(motions.count);
  let sum = 0;
  const toolStarts: number[] = [];
  proof.clock.seconds.forEach((s, i) => {
    if (motions.type[i] === MOVE.toolChange) toolStarts.push(sum);
    ends[i] = sum += s;
  });
  const view: ProofView = {
    findings: proof.findings,
    ...loadView(proof, motions),
    steps: proof.steps,
    called: calledTools(proof.read),
    removed: proof.removed,
    grid: { cell: proof.field.cell, finest: proof.finest, cells: proof.field.height.length, memory: prover.memory },
    surface: { ...surfaceOf(playback.field, stock.top), off: proof.judged && worstOn(proof.judged, playback.field) },
    allowed: structuredClone(wanted),
    places: proof.judged ? worstPlaces(proof.judged) : [],
    lines: motions.line.slice(),
    ...runsOf(proof.samples, motions, zero),
    toolStarts,
    ends,
  };
  scope.postMessage({ type: 'proved', seq, proof: view }, buffersOf(view));
}

async function compute(seq: number, job: Job, setup: Setup, instead?: string): Promise<void> {
  const made = await planned(seq, job, setup);
  if (!made) return;
  const plan = planView(job, setup, made);
  scope.postMessage({ type: 'planned', seq, plan });
  await breath();
  if (seq !== current) return;
  if (instead !== undefined) return prove(seq, job, setup, instead);
  if (plan.programs.length === 0) return;
  const { text, sections } = joinPrograms(plan.programs);
  await prove(seq, job, setup, text, sections);
}

/** Memory behind the columns of a view: given away, it need not be copied, which would hold up the page. */
function buffersOf(view: object): ArrayBuffer[] {
  return Object.values(view).flatMap((v) =>
    ArrayBuffer.isView(v)
      ? [v.buffer as ArrayBuffer]
      : v && typeof v === 'object' && !Array.isArray(v)
        ? buffersOf(v)
        : [],
  );
}

/** Levels the feeds of what was proved last, and proves the outcome. */
async function level(seq: number, ask: LevelAsk): Promise<void> {
  if (!last) return;
  const { job, setup, text, left, run, proof } = last;
  const { motions, tools, material, machine } = run.prover.input;
  const levelled = levelFeed({ text, motions, samples: proof.samples, tools, material, machine }, ask);
  const after = new ProofRun(job, setup, levelled.text, undefined, left);
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

/** The stock as the last proof left it, on the grid of the picture. */
function stl(seq: number): void {
  if (!last) return;
  const { prover } = last.run;
  const { region, bottom: floor } = prover.input.stock;
  const cell = cellFor(boundsOf(region.flat()), PICTURE_CELLS, FINEST_PICTURE);
  const file = stockStl(regridded(prover.field, cell, floor), floor);
  scope.postMessage({ type: 'stl', seq, file }, [file.buffer]);
}

/** Probes the piece as it is shown: finely at the end of the program, on the grid of the picture before. */
function probe(seq: number, x: number, y: number): void {
  if (!last || !playback) return scope.postMessage({ type: 'probed', seq, probe: null });
  const { field, owner } = playback;
  const { proof, run } = last;
  const found = playback.isAtEnd
    ? probeAt({ ...proof, floor: bottom }, x, y, run.around(x, y))
    : probeAt({ field, owner, allowed: wanted, floor: bottom }, x, y);
  scope.postMessage({ type: 'probed', seq, probe: found ?? null });
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
  if (data.type === 'stl') return stl(data.seq);
  if (data.type === 'probe') return probe(data.seq, data.x, data.y);
  if (data.type === 'level') return void level(data.seq, data.ask).catch(failed(data.seq));
  if (data.type === 'cancel') {
    scope.postMessage({ type: 'cancelled', seq: current });
    current = -1;
    return;
  }
  current = data.seq;
  const setup = setupOf(data.job, data.setupId);
  if (data.type === 'compute') compute(data.seq, data.job, setup, data.instead).catch(failed(data.seq));
  else prove(data.seq, data.job, setup, data.text).catch(failed(data.seq));
};
