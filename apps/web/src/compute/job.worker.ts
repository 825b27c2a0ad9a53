/** A thin shell round the bench: it takes questions, works at them in slices of time, and hands out views. */
import {
  Bench,
  BenchStep,
  BenchWork,
  Finding,
  Job,
  Maker,
  Proved,
  Section,
  Setup,
  Tool,
  Waiting,
  adviseTools,
  hashOf,
  importDrawing,
  joinPrograms,
  PlanCache,
  compare,
  provenRoute,
  returned,
  planPart,
  putAtHand,
  resultKey,
  PlanView,
  ProofView,
  heightsOf,
  inUnitOf,
  loadView,
  planView,
  proofView,
  tightestOf,
  toldFeature,
  written,
} from '@tidypath/core';
import { buffersOf } from './buffers';
import { KeptPlan, keepPlan, keepProof, keptPlan, keptProof, openKept } from './kept';
import { Answer, NOBODY, Request } from './messages';

/** Milliseconds between two looks at the message queue, and between two tellings how far planning is. */
const BUSY = 40;
const TOLD = 150;
/** Share of a proof between two tellings. */
const TOLD_SHARE = 0.02;

const scope = globalThis as unknown as {
  postMessage(m: Answer, transfer?: Transferable[]): void;
  onmessage: ((e: MessageEvent<Request>) => void) | null;
};
const bench = new Bench();
let current = 0;
/** What the question under way is about. */
let asking: { job: Job; setup: Setup } | undefined;
/** The question whose answer came from elsewhere. */
let taken = 0;
const isAsked = (seq: number) => seq === current && seq !== taken;
/** The question whose answer is awaited, in memory the page writes to while this computes. */
let awaited: Int32Array | undefined;

/** What this is made of; without it nothing is kept. */
let source: string | undefined;
const keyOf = (job: Job, setup: Setup, text?: string) => source && resultKey(source, job, setup.id, text);

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
const setupOf = (job: Job, id: string): Setup => job.setups.find((s) => s.id === id) ?? job.setups[0];

/** Says how far work is, a share only where it has grown; what was said last. */
type Tell = (step: BenchStep, told: number) => number;

/** Does work in slices, telling how far it is; undefined when something newer was asked meanwhile. */
async function through<T>(work: BenchWork<T>, isWanted: () => boolean, tell: Tell): Promise<T | undefined> {
  let until = performance.now() + BUSY;
  let told = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) return isWanted() ? value : undefined;
    if ('planning' in value) told = tell(value, 0);
    else if (performance.now() >= until) told = tell(value, told);
    else continue;
    await breath();
    if (!isWanted()) return undefined;
    until = performance.now() + BUSY;
  }
}

const telling =
  (seq: number): Tell =>
  (step, told) => {
    if ('planning' in step) {
      scope.postMessage({ type: 'planning', seq, step: step.planning });
      return 0;
    }
    if (step.proving - told <= TOLD_SHARE) return told;
    scope.postMessage({ type: 'progress', seq, share: step.proving });
    return step.proving;
  };

const tellingAgain =
  (seq: number): Tell =>
  (step, told) => {
    const share = 'planning' in step ? 0 : step.proving;
    if (share > 0 && share - told <= TOLD_SHARE) return told;
    scope.postMessage({ type: 'again', seq, share });
    return share;
  };

/** Who waits for a question: hears that it is not awaited any more, is told how far an operation is. */
function waitingFor(seq: number) {
  let next = 0;
  let step: BenchStep | undefined;
  return {
    heard: (s: BenchStep) => (step = s),
    stopped: () => !!awaited && Atomics.load(awaited, 0) !== seq,
    told: (share: number) => {
      if (!step || !('planning' in step) || performance.now() < next) return;
      next = performance.now() + TOLD;
      scope.postMessage({ type: 'planning', seq, step: { ...step.planning, share } });
    },
  };
}

/** The same work, with each step heard by whoever waits. */
function* heardBy<T>(work: BenchWork<T>, heard: (step: BenchStep) => void): BenchWork<T> {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    heard(value);
    yield value;
  }
}

/** A text to be proved, or the program of the job itself, which comes in sections. */
interface Asked {
  seq: number;
  job: Job;
  setup: Setup;
  text: string;
  sections?: Section[];
}

/** What is shown as it was kept: neither planned nor cut here. */
let owed: (Asked & { maker?: Maker; seen: string }) | undefined;
let cutting: Promise<void> | undefined;

/** What two proofs of the same have in common. */
const seenOf = (findings: Finding[], { removed, clock }: Pick<ProofView, 'removed'> & { clock: { total: number } }) =>
  hashOf([findings, removed, clock.total]);

/** By its text as well: the same job planned by another engine is another program, for their sines differ in the last digit. */
const proofKeyOf = ({ job, setup, text, sections }: Asked) => keyOf(job, setup, sections ? `own\n${text}` : text);

/** Shows a proof as it was kept; false where there is none. */
async function showKept(asked: Asked): Promise<boolean> {
  const key = proofKeyOf(asked);
  const known = key && (await keptProof(key));
  if (!known || asked.seq !== current) return false;
  const { view, maker } = known;
  owed = { ...asked, maker, seen: seenOf(view.findings, view) };
  scope.postMessage({ type: 'proved', seq: asked.seq, proof: view, maker }, buffersOf(view));
  return true;
}

function* plannedAndProved({ job, setup, text, sections }: Asked, waiting: Waiting): BenchWork<Proved | undefined> {
  if (!bench.planOf(job, setup)) yield* bench.plan(job, setup, waiting);
  return yield* bench.prove(job, setup, text, sections, waiting);
}

/** Proves a text; what it is about was just planned, or is planned from what is known. */
async function prove(asked: Asked): Promise<void> {
  const { seq } = asked;
  const waiting = waitingFor(seq);
  const work = heardBy(plannedAndProved(asked, waiting), waiting.heard);
  const proved = await through(work, () => isAsked(seq), telling(seq));
  if (proved) tellProof(asked, proved);
}

function tellProof(asked: Asked, proved: Proved): void {
  const proof = proofView(proved);
  const key = proofKeyOf(asked);
  if (key) void keepProof(key, { view: proof });
  scope.postMessage({ type: 'proved', seq: asked.seq, proof }, buffersOf(proof));
}

async function proveText(asked: Asked): Promise<void> {
  if (!(await showKept(asked)) && asked.seq === current) await prove(asked);
}

/** Cuts what is shown as it was kept, the first time more is asked of it than was kept. */
async function cutOwed(): Promise<void> {
  while (owed) await (cutting ??= owing(owed).finally(() => (cutting = undefined)));
}

/** What a page elsewhere made is made anew, its program too. */
async function owing(mine: NonNullable<typeof owed>): Promise<void> {
  if (mine.maker !== 'page') return cutAgain(mine);
  const { seq, job, setup } = mine;
  owed = undefined;
  taken = 0;
  return compute({ type: 'compute', seq, job, setupId: setup.id, by: 'device alone' });
}

async function cutAgain(mine: NonNullable<typeof owed>): Promise<void> {
  const { seq, job, seen } = mine;
  const { stopped } = waitingFor(seq);
  const proved = await through(plannedAndProved(mine, { stopped }), () => owed === mine, tellingAgain(seq));
  if (owed !== mine) return;
  owed = undefined;
  scope.postMessage({ type: 'again', seq });
  if (!proved || seenOf(inUnitOf(job, proved.proof.findings), proved.proof) === seen) return;
  // What was kept is not what comes out.
  tellProof(mine, proved);
}

/** Tells what this device planned itself, and keeps it. */
function tellPlan(seq: number, job: Job, setup: Setup): PlanView | undefined {
  const made = bench.planOf(job, setup);
  if (!made) return undefined;
  const view = planView(made);
  const key = keyOf(job, setup);
  if (key) void keepPlan(key, { plans: made.plans, view });
  scope.postMessage({ type: 'planned', seq, plan: view });
  return view;
}

/** What is to be proved of a plan: its own program, or what stands in its place; nothing where it has none. */
function provable(seq: number, job: Job, setup: Setup, plan: PlanView, instead?: string): Asked | undefined {
  if (instead !== undefined) return { seq, job, setup, text: instead };
  return plan.programs.length > 0 ? { seq, job, setup, ...joinPrograms(plan.programs) } : undefined;
}

async function compute({ seq, job, instead, by, ...ask }: Extract<Request, { type: 'compute' }>): Promise<void> {
  const setup = setupOf(job, ask.setupId);
  const key = keyOf(job, setup);
  const kept = key && (await keptPlan(key));
  if (seq !== current) return;
  const known = kept && (by !== 'device alone' || kept.maker !== 'page') ? kept : undefined;
  if (!known && key) scope.postMessage({ type: 'key', seq, key });
  if (!known && key && by === 'server') return;
  const view = known ? showPlan(seq, known) : await planned(seq, job, setup);
  if (!view) return;
  await breath();
  if (!isAsked(seq)) return;
  const asked = provable(seq, job, setup, view, instead);
  if (!asked) return;
  if (by === 'device alone') await prove(asked);
  else await proveText(asked);
}

function showPlan(seq: number, { plans, view, maker }: KeptPlan): PlanView {
  bench.know(plans);
  scope.postMessage({ type: 'planned', seq, plan: view, maker });
  return view;
}

async function planned(seq: number, job: Job, setup: Setup): Promise<PlanView | undefined> {
  const waiting = waitingFor(seq);
  const work = heardBy(bench.plan(job, setup, waiting), waiting.heard);
  const made = await through(work, () => isAsked(seq) && !waiting.stopped(), telling(seq));
  return made && tellPlan(seq, job, setup);
}

/** Takes what was made elsewhere as if it had been kept here; the page has shown it already. */
function take({ seq, key, made, maker }: Extract<Request, { type: 'taken' }>): void {
  scope.postMessage({ type: 'took', seq });
  if (seq !== current || !asking) return;
  taken = seq;
  if (awaited) Atomics.compareExchange(awaited, 0, NOBODY, seq);
  const { job, setup } = asking;
  const { plan, proof } = made;
  void keepPlan(key, { plans: [], view: plan, maker });
  const asked = proof && provable(seq, job, setup, plan);
  if (!asked) return;
  owed = { ...asked, maker, seen: seenOf(proof.findings, proof) };
  const proofKey = proofKeyOf(asked);
  if (proofKey) void keepProof(proofKey, { view: proof, maker });
}

/** Levels the feeds of what was proved last, and proves the outcome. */
async function level(seq: number, ask: Extract<Request, { type: 'level' }>['ask']): Promise<void> {
  await cutOwed();
  const { last } = bench;
  const found = await through(bench.level(ask), () => bench.last === last, telling(seq));
  if (!found) return;
  const { levelled, proof } = found;
  const findings = inUnitOf(last!.job, [...levelled.findings, ...proof.findings]);
  scope.postMessage({
    type: 'levelled',
    seq,
    levelled: { ...levelled, ...loadView(proof, proof.read.motions), findings },
  });
}

/** A route, planned and proved before it is shown; whatever else is asked meanwhile goes on beside it. */
async function propose(seq: number, job: Job, setupId: string, rack: Tool[]): Promise<void> {
  const proposal = await through(provenRoute(job, setupId, rack), () => true, telling(seq));
  if (proposal) scope.postMessage({ type: 'proposed', seq, proposal });
}

/** The plan of a part that is awaited. */
let awaitedPlan: number | undefined;

async function planWhole({ seq, job, bars, rack }: Extract<Request, { type: 'plan part' }>): Promise<void> {
  awaitedPlan = seq;
  const planned = await through(planPart(job, { bars, rack }), () => awaitedPlan === seq, telling(seq));
  scope.postMessage({ type: 'part planned', seq, planned: planned ?? null });
}

/** The comparison that is awaited, and what was planned for those before. */
let awaitedComparison: number | undefined;
const compared: PlanCache = new Map();

async function hold({ seq, job, comparison, at }: Extract<Request, { type: 'compare' }>): Promise<void> {
  awaitedComparison = seq;
  const work = compare(job, comparison, at, compared);
  const found = await through(work, () => awaitedComparison === seq, telling(seq));
  scope.postMessage({ type: 'compared', seq, compared: found ?? null });
}

async function stl(seq: number): Promise<void> {
  await cutOwed();
  const file = bench.stl();
  if (file) scope.postMessage({ type: 'stl', seq, file }, [file.buffer as ArrayBuffer]);
}

async function seek(seq: number, time: number): Promise<void> {
  await cutOwed();
  const moment = bench.seek(time);
  if (!moment || !bench.last) return;
  const height = heightsOf(bench.last.picture, bench.last.floor);
  scope.postMessage({ type: 'moment', seq, moment, height }, [height.buffer as ArrayBuffer]);
}

async function probe(seq: number, x: number, y: number): Promise<void> {
  await cutOwed();
  scope.postMessage({ type: 'probed', seq, probe: bench.probe(x, y) ?? null });
}

function answer(data: Request): void | Promise<void> {
  switch (data.type) {
    case 'advise':
      return scope.postMessage({
        type: 'advised',
        seq: data.seq,
        advised: adviseTools(data.job, data.featureId, data.rack),
      });
    case 'drawing': {
      const imported = importDrawing(data.text, data.options);
      return scope.postMessage({ type: 'drawn', seq: data.seq, imported });
    }
    case 'tight':
      return scope.postMessage({ type: 'tightest', seq: data.seq, tight: tightestOf(data.job.part) });
    case 'tell': {
      const { job, face, told } = data;
      const feature = (job.part.kind === 'solid' && toldFeature(job.part, face, told)) || null;
      return scope.postMessage({ type: 'told', seq: data.seq, feature });
    }
    case 'write': {
      const file = written(data.job, data.ask) ?? null;
      return scope.postMessage({ type: 'written', seq: data.seq, file });
    }
    case 'edits': {
      const { seq, job, setupId, programs, zeroZ, text } = data;
      const found = returned(job, setupOf(job, setupId), programs, zeroZ, text);
      return scope.postMessage({ type: 'edited', seq, returned: found ?? null });
    }
    case 'propose':
      return propose(data.seq, data.job, data.setupId, data.rack);
    case 'plan part':
      return planWhole(data);
    case 'compare':
      return hold(data);
    case 'leave compare':
      awaitedComparison = undefined;
      return;
    case 'leave plan':
      awaitedPlan = undefined;
      return;
    case 'file':
      putAtHand(data.bytes);
      return;
    case 'start':
      ({ source, awaited } = data);
      if (source) void openKept();
      return;
    case 'seek':
      return seek(data.seq, data.time);
    case 'stl':
      return stl(data.seq);
    case 'probe':
      return probe(data.seq, data.x, data.y);
    case 'level':
      return level(data.seq, data.ask);
    case 'cancel':
      scope.postMessage({ type: 'cancelled', seq: current });
      current = -1;
      owed = undefined;
      return;
    case 'compute':
      current = data.seq;
      owed = undefined;
      asking = { job: data.job, setup: setupOf(data.job, data.setupId) };
      return compute(data);
    case 'taken':
      return take(data);
    case 'prove':
      current = data.seq;
      owed = undefined;
      return proveText({ ...data, setup: setupOf(data.job, data.setupId) });
  }
}

scope.onmessage = async ({ data }) => {
  try {
    await answer(data);
  } catch (error) {
    if ('seq' in data) scope.postMessage({ type: 'failed', seq: data.seq, message: String(error) });
  }
};
