/** A job is asked about before its page stands: what was kept of it is there when the page is first drawn. */
import { Job, hashOf, missingFiles } from '@tidypath/core';
import { engine } from '../compute/engine';
import type { Answer } from '../compute/messages';

/** A page does not wait longer for what may be kept, ms. */
const PATIENCE = 1500;

/** Everything a path depends on, files that are not here as well; notes, the unit shown and what is compared do not count. */
export const keyOf = (job: Job, setupId: string, other?: { key: string }): string =>
  hashOf({
    ...job,
    note: '',
    unit: '',
    comparisons: undefined,
    setupId,
    other: other?.key,
    missing: missingFiles(job),
  });

/** A question asked ahead, by the key of what it is about, and what was answered so far. */
export interface Ahead {
  seq: number;
  key: string;
  answers: Answer[];
}

let ahead: Ahead | undefined;

/** Whether it is known by then what is kept: all of it, or that there is no more. */
const isKnown = (answer: Answer) =>
  answer.type === 'planned' ? answer.plan.programs.length === 0 : answer.type !== 'again';

/** Asks about the first setup of a job; ends once it is known what was kept of it, at once where the worker has to start first. */
export function askAhead(job: Job): Promise<void> {
  const setupId = job.setups[0].id;
  const { isWarm } = engine;
  const asked: Ahead = { seq: engine.nextSeq(), key: keyOf(job, setupId), answers: [] };
  ahead = asked;
  return new Promise((known) => {
    const stop = engine.listen((answer) => {
      if (ahead !== asked) return stop();
      if (!('seq' in answer) || answer.seq !== asked.seq) return;
      asked.answers.push(answer);
      if (isKnown(answer)) known();
    });
    setTimeout(known, isWarm ? PATIENCE : 0);
    engine.compute({ seq: asked.seq, job, setupId });
  });
}

/** What was asked ahead about the job with this key. */
export const aheadOf = (key: string): Ahead | undefined => (ahead?.key === key ? ahead : undefined);

/** Whoever has the page hears the answers from now on. */
export const endAhead = (): void => void (ahead = undefined);
