import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Job, PlanStep, joinPrograms, textKeySteps, PlanView, ProofView, Maker } from '@tidypath/core';
import { engine } from '../compute/engine';
import type { Answer } from '../compute/messages';
import { Ahead, aheadOf, endAhead, keyOf } from './ahead';

interface State {
  /** The setup all this is about. */
  setupId?: string;
  plan?: PlanView;
  proof?: ProofView;
  /** Keys of what plan and proof were made from. */
  planKey?: string;
  proofKey?: string;
  cancelledKey?: string;
  /** Who made the plan, and who the proof, where it was not this device. */
  planMaker?: Maker;
  proofMaker?: Maker;
  /** The text the proof was made from. */
  provedText?: string;
  error?: string;
}

/** How far the work under way is: told often, so kept apart from what it is about. */
export interface Pace {
  /** The operation being planned. */
  planning?: PlanStep;
  /** 0..1 while proving. */
  progress?: number;
  /** How many wait for the server before it. */
  waiting?: number;
  /** 0..1 while what is shown as it was kept is cut again. */
  again?: number;
}

/** A program that is not the job's own. */
export interface OtherText {
  name: string;
  text: string;
}

/** Key of a text, worked out in pieces between which the page can do other things. */
async function textKey(text: string): Promise<string> {
  const steps = textKeySteps(text);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
}

export interface Computed extends State {
  /** Whether plan and proof belong to the job as it stands. */
  planFresh: boolean;
  proofFresh: boolean;
  cancelled: boolean;
  /** Who made it, where it was not this device alone. */
  maker?: Maker;
}

const PAUSE = 120;

/** Answers that are for whoever asked, not about the job as a whole. */
const ELSEWHERE = [
  'key',
  'took',
  'moment',
  'advised',
  'drawn',
  'proposed',
  'part planned',
  'compared',
  'edited',
  'levelled',
  'probed',
  'stl',
  'written',
  'told',
  'tightest',
] as const;
type Own = Exclude<Answer, { type: (typeof ELSEWHERE)[number] }>;
const PACE = ['planning', 'progress', 'again', 'waiting'] as const;
type Outcome = Exclude<Own, { type: (typeof PACE)[number] }>;
const isPace = (answer: Own): answer is Exclude<Own, Outcome> => (PACE as readonly string[]).includes(answer.type);
const isOwn = (answer: Answer): answer is Own => !(ELSEWHERE as readonly string[]).includes(answer.type);

/** What an answer about the job with key `about` changes; `text` was proved in the place of its own program. */
function after(s: State, answer: Outcome, about: string, text?: string): State {
  switch (answer.type) {
    case 'planned': {
      const written = answer.plan.programs.length > 0;
      return {
        ...s,
        plan: answer.plan,
        planMaker: answer.maker,
        planKey: about,
        error: undefined,
        proof: written ? s.proof : undefined,
      };
    }
    case 'proved':
      return {
        ...s,
        proof: answer.proof,
        proofMaker: answer.maker,
        provedText: text ?? joinPrograms(s.plan?.programs ?? []).text,
        proofKey: about,
      };
    case 'cancelled':
      return { ...s, cancelledKey: about };
    case 'failed':
      return { ...s, error: answer.message };
  }
}

/** What stays true once the job with this key is asked about: another job's plan and any proof do not, even if it is undone before they are replaced. */
const stillTrue = (s: State, key: string): Partial<State> => ({
  planKey: s.planKey === key ? key : undefined,
  proofKey: undefined,
  cancelledKey: undefined,
});

/** How far the work is after an answer about it. */
function paceAfter(answer: Own): Pace {
  if (answer.type === 'planning') return { planning: answer.step };
  if (answer.type === 'progress') return { progress: answer.share };
  if (answer.type === 'again') return { again: answer.share };
  if (answer.type === 'waiting') return { waiting: answer.waiting };
  return answer.type === 'planned' && answer.plan.programs.length > 0 ? { progress: 0 } : {};
}

/** What a question asked ahead has come to by now. */
function begun(early: Ahead | undefined, setupId: string): { state: State; pace: Pace } {
  const answers = early?.answers.filter(isOwn) ?? [];
  const outcomes = answers.filter((answer): answer is Outcome => !isPace(answer));
  return {
    state: outcomes.reduce((s, answer) => after(s, answer, early!.key), early ? { setupId } : ({} as State)),
    pace: answers.length > 0 ? paceAfter(answers[answers.length - 1]) : {},
  };
}

/** Plans and proves the job in the worker whenever something they depend on changes. */
export function useComputed(job: Job, setupId: string) {
  /** A program from elsewhere that is proved instead of the job's own. */
  const [other, setOther] = useState<OtherText & { key: string }>();
  const opened = useRef<OtherText | undefined>(undefined);
  const key = useMemo(() => keyOf(job, setupId, other), [job, setupId, other]);
  const [early] = useState(() => aheadOf(key));
  const [first] = useState(() => ({ ...begun(early, setupId), seen: early?.answers.length ?? 0 }));
  const [state, setState] = useState(first.state);
  const [pace, setPace] = useState(first.pace);
  /** The question under way and what it was about. */
  const asked = useRef<{ seq: number; key: string; text?: string }>(early ?? { seq: 0, key: '' });
  const latest = useRef(job);
  useEffect(() => {
    latest.current = job;
  }, [job]);

  useEffect(() => {
    const hear = (answer: Answer) => {
      if (!isOwn(answer) || answer.seq !== asked.current.seq) return;
      const { key: about, text } = asked.current;
      setPace(paceAfter(answer));
      if (!isPace(answer)) setState((s) => after(s, answer, about, text));
    };
    const stop = engine.listen(hear);
    // What came between the first drawing and now.
    early?.answers.slice(first.seen).forEach(hear);
    endAhead();
    return stop;
  }, [early, first]);

  const ask = useCallback(
    (by?: 'device alone') => {
      asked.current = { seq: engine.nextSeq(), key, text: other?.text };
      setPace({});
      setState((s) => (s.setupId === setupId ? { ...s, ...stillTrue(s, key) } : { setupId }));
      engine.compute({ seq: asked.current.seq, job: latest.current, setupId, instead: other?.text, by });
    },
    [setupId, key, other],
  );
  const run = useCallback(() => ask(), [ask]);
  /** Makes anew what came from elsewhere. */
  const makeHere = useCallback(() => ask('device alone'), [ask]);

  useEffect(() => {
    // Only what is typed is waited for.
    const pause = asked.current.key === '' ? 0 : PAUSE;
    const timer = setTimeout(() => asked.current.key !== key && run(), pause);
    return () => clearTimeout(timer);
  }, [run, key]);

  const cancel = useCallback(() => engine.send({ type: 'cancel' }), []);

  /** Proves another text over the same setup: an edited or foreign program. */
  const proveText = useCallback(
    (text: string) => {
      asked.current = { seq: engine.nextSeq(), key, text };
      setPace({ progress: 0 });
      setState((s) => ({ ...s, proofKey: undefined }));
      engine.send({ type: 'prove', seq: asked.current.seq, job: latest.current, setupId, text });
    },
    [setupId, key],
  );

  const proveOther = useCallback(async (program: OtherText) => {
    opened.current = program;
    const key = await textKey(program.text);
    if (opened.current === program) setOther({ ...program, key });
  }, []);

  const backToOwn = useCallback(() => {
    opened.current = undefined;
    setOther(undefined);
    if (!other) run();
  }, [other, run]);

  const computed = useMemo(() => {
    const own = state.setupId === setupId ? state : {};
    const fresh: Computed = {
      ...own,
      planFresh: own.planKey === key,
      proofFresh: own.proofKey === key,
      cancelled: own.cancelledKey === key,
      maker: [own.planMaker, own.proofMaker].find((m) => m === 'page') ?? own.planMaker,
    };
    return { ...fresh, run, makeHere, cancel, proveText, other, proveOther, backToOwn };
  }, [state, setupId, key, run, makeHere, cancel, proveText, other, proveOther, backToOwn]);

  return { computed, pace };
}
