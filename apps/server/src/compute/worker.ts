/** What plans and proves beside the event loop. Bundled by the build, which writes in what it is made of. */
import 'reflect-metadata';
import type { MessagePort } from 'node:worker_threads';
import {
  Bench,
  BenchStep,
  BenchWork,
  Job,
  Waiting,
  joinPrograms,
  packMade,
  planView,
  Proven,
  proven,
  proofView,
  putAtHand,
  resultKey,
} from '@tidypath/core';

/** The hash of all that computes. */
declare const SOURCE: string;

/** Between two tellings how far work is, ms. */
const TOLD = 150;

export interface Ask {
  /** What is shown of plan and proof, or everything a release is made from. */
  what: 'result' | 'release';
  key: string;
  job: Job;
  setupId: string;
  /** Files the job names. */
  files: Uint8Array[];
  /** Hears how far work is; first of all that it has begun. */
  port: MessagePort;
  /** Not zero any more once nobody waits. */
  stop: Int32Array;
}

/** What came of it: bytes of a result and the seconds it took, or why there is none. */
export type Outcome =
  { made: Uint8Array; seconds: number } | { proven: Proven } | { refused: 'stopped' | 'other version' };

/** What it knows goes on to the next task: the edit of a job plans only what it changes. */
const bench = new Bench();

/** Work to its end, telling how far it is; undefined once nobody waits. */
function ended<T>(work: BenchWork<T>, isStopped: () => boolean, tell: (step: BenchStep) => void): T | undefined {
  let next = 0;
  let stage = '';
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    if (isStopped()) return undefined;
    // A new stage is told at once.
    const now = Object.keys(value).join();
    if (now === stage && performance.now() < next) continue;
    [stage, next] = [now, performance.now() + TOLD];
    tell(value);
  }
}

export default function compute({ what, key, job, setupId, files, port, stop }: Ask): Outcome {
  const begun = performance.now();
  port.postMessage({ begun: true });
  files.forEach((bytes) => void putAtHand(bytes));
  if (what === 'result' && resultKey(SOURCE, job, setupId) !== key) return { refused: 'other version' };
  const setup = job.setups.find((s) => s.id === setupId) ?? job.setups[0];
  const isStopped = () => Atomics.load(stop, 0) !== 0;
  const tell = (step: BenchStep) => port.postMessage(step);
  const waiting: Waiting = { stopped: isStopped };
  if (what === 'release') {
    const found = ended(proven(bench, job, setup, waiting), isStopped, tell);
    return found ? { proven: found } : { refused: 'stopped' };
  }
  const planned = ended(bench.plan(job, setup, waiting), isStopped, tell);
  if (!planned || isStopped()) return { refused: 'stopped' };
  const plan = planView(planned);
  const seconds = () => (performance.now() - begun) / 1000;
  if (plan.programs.length === 0) return { made: packMade({ plan }), seconds: seconds() };
  const { text, sections } = joinPrograms(plan.programs);
  const proved = ended(bench.prove(job, setup, text, sections, waiting), isStopped, tell);
  if (!proved) return { refused: 'stopped' };
  return { made: packMade({ plan, proof: proofView(proved) }), seconds: seconds() };
}
