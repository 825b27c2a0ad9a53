import { useCallback, useEffect, useRef, useState } from 'react';
import type { Job, JobRow } from '@tidypath/core';
import { ApiError, api } from '../api/client';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'refused' | 'invalid';

const PAUSE = 600;
const RETRY = 4000;

type Outcome = 'ready' | 'saving' | 'offline';

/** Saves a job by itself a moment after each change; a save that comes too late is told with the other version. */
export function useSaving(id: string, row: JobRow, job: Job) {
  const [kept, setKept] = useState({ job: row.job, version: row.version });
  const [outcome, setOutcome] = useState<Outcome>('ready');
  /** A job the server would not take; it is not sent again until it changes. */
  const [invalid, setInvalid] = useState<Job>();
  const [conflict, setConflict] = useState<JobRow>();
  const pending = job !== kept.job && job !== invalid && !conflict;

  const save = useCallback(
    async (sending: Job, version: number) => {
      setOutcome('saving');
      try {
        const result = await api.save(id, version, sending);
        if (result.saved) setKept({ job: sending, version: result.version });
        else setConflict(result.current);
        setOutcome('ready');
      } catch (error) {
        const refused = error instanceof ApiError && error.status >= 400;
        if (refused) setInvalid(sending);
        setOutcome(refused ? 'ready' : 'offline');
      }
    },
    [id],
  );

  useEffect(() => {
    if (!pending || outcome === 'saving') return;
    const timer = setTimeout(() => void save(job, kept.version), outcome === 'offline' ? RETRY : PAUSE);
    return () => clearTimeout(timer);
  }, [pending, outcome, job, kept.version, save]);

  /** What leaving the page now would lose. */
  const unsaved = useRef<() => Promise<void>>(undefined);
  useEffect(() => {
    unsaved.current = pending && outcome !== 'saving' ? () => save(job, kept.version) : undefined;
  }, [pending, outcome, job, kept.version, save]);
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => unsaved.current && event.preventDefault();
    window.addEventListener('beforeunload', leave);
    return () => {
      window.removeEventListener('beforeunload', leave);
      void unsaved.current?.();
    };
  }, []);

  /** Goes on from the other person's version, or saves this one over it. */
  const settle = useCallback((current: JobRow) => {
    setKept({ job: current.job, version: current.version });
    setConflict(undefined);
  }, []);

  return { state: stateOf(outcome, pending, !!conflict, job === invalid), conflict, settle };
}

function stateOf(outcome: Outcome, pending: boolean, conflict: boolean, invalid: boolean): SaveState {
  if (conflict) return 'refused';
  if (invalid) return 'invalid';
  if (outcome !== 'ready') return outcome;
  return pending ? 'waiting' : 'saved';
}
