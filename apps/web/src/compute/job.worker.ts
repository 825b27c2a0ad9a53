/** A thin shell round the bench: it takes questions, works at them in slices of time, and hands out views. */
import {
  Bench,
  BenchStep,
  BenchWork,
  Job,
  Section,
  Setup,
  Tool,
  adviseTools,
  importDrawing,
  joinPrograms,
  provenRoute,
  putAtHand,
} from '@tidypath/core';
import { buffersOf, heightsOf, inUnitOf, loadView, planView, proofView } from './views';
import type { Answer, Request } from './messages';

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
/** The question whose answer is awaited, in memory the page writes to while this computes. */
let awaited: Int32Array | undefined;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
const setupOf = (job: Job, id: string): Setup => job.setups.find((s) => s.id === id) ?? job.setups[0];

/** Does work in slices, telling how far it is; undefined when something newer was asked meanwhile. */
async function through<T>(seq: number, work: BenchWork<T>, isWanted: () => boolean): Promise<T | undefined> {
  let until = performance.now() + BUSY;
  let told = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) return isWanted() ? value : undefined;
    const isPlanning = 'planning' in value;
    if (isPlanning) told = tell(seq, value, 0);
    else if (performance.now() >= until) told = tell(seq, value, told);
    else continue;
    await breath();
    if (!isWanted()) return undefined;
    until = performance.now() + BUSY;
  }
}

/** Tells a step, a share only where it has grown; what was told last. */
function tell(seq: number, step: BenchStep, told: number): number {
  if ('planning' in step) {
    scope.postMessage({ type: 'planning', seq, step: step.planning });
    return 0;
  }
  if (step.proving - told <= TOLD_SHARE) return told;
  scope.postMessage({ type: 'progress', seq, share: step.proving });
  return step.proving;
}

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

async function prove(seq: number, job: Job, setup: Setup, text: string, sections?: Section[]): Promise<void> {
  const waiting = waitingFor(seq);
  const work = heardBy(bench.prove(job, setup, text, sections, waiting), waiting.heard);
  const proved = await through(seq, work, () => seq === current);
  if (!proved) return;
  const proof = proofView(proved);
  scope.postMessage({ type: 'proved', seq, proof }, buffersOf(proof));
}

async function compute(seq: number, job: Job, setup: Setup, instead?: string): Promise<void> {
  const waiting = waitingFor(seq);
  const work = heardBy(bench.plan(job, setup, waiting), waiting.heard);
  const made = await through(seq, work, () => seq === current && !waiting.stopped());
  if (!made) return;
  const plan = planView(made);
  scope.postMessage({ type: 'planned', seq, plan });
  await breath();
  if (seq !== current) return;
  if (instead !== undefined) return prove(seq, job, setup, instead);
  if (plan.programs.length === 0) return;
  const { text, sections } = joinPrograms(plan.programs);
  await prove(seq, job, setup, text, sections);
}

/** Levels the feeds of what was proved last, and proves the outcome. */
async function level(seq: number, ask: Extract<Request, { type: 'level' }>['ask']): Promise<void> {
  const { last } = bench;
  const found = await through(seq, bench.level(ask), () => bench.last === last);
  if (!found) return;
  const { levelled, proof } = found;
  const findings = inUnitOf(last!.job, [...levelled.findings, ...proof.findings]);
  scope.postMessage({
    type: 'levelled',
    seq,
    levelled: { ...levelled, ...loadView(proof, proof.read.motions), findings },
  });
}

/** A route, planned and coarsely cut before it is shown; whatever else is asked meanwhile goes on beside it. */
async function propose(seq: number, job: Job, setupId: string, rack: Tool[]): Promise<void> {
  const proposal = await through(seq, provenRoute(job, setupId, rack), () => true);
  if (proposal) scope.postMessage({ type: 'proposed', seq, proposal });
}

function stl(seq: number): void {
  const file = bench.stl();
  if (file) scope.postMessage({ type: 'stl', seq, file }, [file.buffer as ArrayBuffer]);
}

function seek(seq: number, time: number): void {
  const moment = bench.seek(time);
  if (!moment || !bench.last) return;
  const height = heightsOf(bench.last.picture, bench.last.floor);
  scope.postMessage({ type: 'moment', seq, moment, height }, [height.buffer as ArrayBuffer]);
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
    case 'propose':
      return propose(data.seq, data.job, data.setupId, data.rack);
    case 'file':
      putAtHand(data.bytes);
      return;
    case 'watch':
      awaited = data.awaited;
      return;
    case 'seek':
      return seek(data.seq, data.time);
    case 'stl':
      return stl(data.seq);
    case 'probe':
      return scope.postMessage({ type: 'probed', seq: data.seq, probe: bench.probe(data.x, data.y) ?? null });
    case 'level':
      return level(data.seq, data.ask);
    case 'cancel':
      scope.postMessage({ type: 'cancelled', seq: current });
      current = -1;
      return;
    case 'compute':
      current = data.seq;
      return compute(data.seq, data.job, setupOf(data.job, data.setupId), data.instead);
    case 'prove':
      current = data.seq;
      return prove(data.seq, data.job, setupOf(data.job, data.setupId), data.text);
  }
}

scope.onmessage = async ({ data }) => {
  try {
    await answer(data);
  } catch (error) {
    if ('seq' in data) scope.postMessage({ type: 'failed', seq: data.seq, message: String(error) });
  }
};
