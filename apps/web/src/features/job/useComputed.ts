import { useCallback, useEffect, useRef, useState } from 'react';
import { Job, hashOf } from '@tidypath/core';
import { engine } from '../../compute/engine';
import type { PlanView, ProofView } from '../../compute/messages';

export interface Computed {
  plan?: PlanView;
  proof?: ProofView;
  /** The text the proof was made from. */
  provedText?: string;
  /** Whether plan and proof belong to the job as it stands. */
  planFresh: boolean;
  proofFresh: boolean;
  /** 0..1 while proving. */
  progress?: number;
  cancelled: boolean;
  error?: string;
}

const PAUSE = 120;
const START: Computed = { planFresh: false, proofFresh: false, cancelled: false };

/** Everything a path depends on; names and notes of the job do not. */
const keyOf = (job: Job, setupId: string) => hashOf({ ...job, note: '', unit: '', setupId });

/** Plans and proves the job in the worker whenever something they depend on changes. */
export function useComputed(job: Job, setupId: string) {
  const [state, setState] = useState<Computed>(START);
  const key = keyOf(job, setupId);
  const seq = useRef(0);
  const latest = useRef(job);
  useEffect(() => {
    latest.current = job;
  }, [job]);

  useEffect(
    () =>
      engine.listen((answer) => {
        if (answer.type === 'moment' || answer.seq !== seq.current) return;
        setState((s): Computed => {
          if (answer.type === 'planned')
            return {
              ...s,
              plan: answer.plan,
              planFresh: true,
              progress: answer.plan.programs.length ? 0 : undefined,
              proof: answer.plan.programs.length ? s.proof : undefined,
            };
          if (answer.type === 'progress') return { ...s, progress: answer.share };
          if (answer.type === 'proved')
            return {
              ...s,
              proof: answer.proof,
              provedText: answer.text,
              proofFresh: true,
              progress: undefined,
              cancelled: false,
            };
          if (answer.type === 'cancelled') return { ...s, progress: undefined, cancelled: true };
          return { ...s, progress: undefined, error: answer.message };
        });
      }),
    [],
  );

  const run = useCallback(() => {
    seq.current = engine.nextSeq();
    engine.send({ type: 'compute', seq: seq.current, job: latest.current, setupId });
  }, [setupId]);

  useEffect(() => {
    setState((s) => ({ ...s, planFresh: false, proofFresh: false, cancelled: false, error: undefined }));
    const timer = setTimeout(run, PAUSE);
    return () => clearTimeout(timer);
  }, [key, run]);

  const cancel = useCallback(() => engine.send({ type: 'cancel' }), []);

  /** Proves another text over the same setup: an edited or foreign program. */
  const proveText = useCallback(
    (text: string) => {
      seq.current = engine.nextSeq();
      setState((s) => ({ ...s, progress: 0, proofFresh: false }));
      engine.send({ type: 'prove', seq: seq.current, job: latest.current, setupId, text });
    },
    [setupId],
  );

  return { ...state, run, cancel, proveText };
}
