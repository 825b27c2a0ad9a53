import { useCallback, useEffect, useRef, useState } from 'react';
import type { Job, JobRow } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { sendFiles } from '../api/files';
import { dropDraft, keepDraft } from './drafts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'failing' | 'refused' | 'invalid' | 'deleted';

const PAUSE = 600;
/** First wait before it is tried again, ms; each is twice the one before, up to the longest. */
const RETRY = { first: 4000, most: 60_000 } as const;

type Outcome = 'ready' | 'saving' | 'offline' | 'failing' | 'deleted';
const GONE = 410;

/**
 * Saves a job by itself a moment after each change, and keeps what is not sent yet on this device; a save that comes too late is told with
 * the other version.
 * @param foundDraft whether this device had kept a draft of it
 * @param row the version the job started from, and what stands there
 */
export function useSaving(id: string, row: Pick<JobRow, 'job' | 'version'>, job: Job, foundDraft = false) {
  const [kept, setKept] = useState({ job: row.job, version: row.version });
  const [outcome, setOutcome] = useState<Outcome>('ready');
  /** A job the server would not take; it is not sent again until it changes. */
  const [invalid, setInvalid] = useState<Job>();
  const [conflict, setConflict] = useState<JobRow>();
  /** Why the last save was not taken, and how often in a row it was not. */
  const [why, setWhy] = useState('');
  const [failures, setFailures] = useState(0);
  const [forgets, setForgets] = useState(false);
  const pending = job !== kept.job && job !== invalid && !conflict && outcome !== 'deleted';

  const save = useCallback(
    async (sending: Job, version: number) => {
      setOutcome('saving');
      try {
        await sendFiles(sending);
        const result = await api.save(id, version, sending);
        if (result.saved) setKept({ job: sending, version: result.version });
        else setConflict(result.current);
        setFailures(0);
        setOutcome('ready');
      } catch (error) {
        const { status = 0, message } = error as Partial<ApiError>;
        const isBad = status >= 400 && status < 500 && status !== 401 && status !== GONE;
        setWhy(message ?? '');
        setFailures((n) => n + 1);
        if (isBad) setInvalid(sending);
        setOutcome(outcomeOf(status, isBad));
      }
    },
    [id],
  );

  useEffect(() => {
    if (!pending || outcome === 'saving') return;
    const send = () => void save(job, kept.version);
    const wait = outcome === 'ready' ? PAUSE : Math.min(RETRY.most, RETRY.first * 2 ** (failures - 1));
    const timer = setTimeout(send, wait);
    window.addEventListener('online', send);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', send);
    };
  }, [pending, outcome, failures, job, kept.version, save]);

  const isUnsent = job !== kept.job;
  /** Only its own draft is dropped: the same job may be open beside it. */
  const hasDraft = useRef(foundDraft);
  useEffect(() => {
    if (!isUnsent && !hasDraft.current) return;
    hasDraft.current = isUnsent;
    if (isUnsent) void keepDraft(id, { version: kept.version, job }).then((isKept) => setForgets(!isKept));
    else void dropDraft(id);
  }, [id, isUnsent, job, kept.version]);

  /** What leaving the page now would lose. */
  const unsaved = useRef<() => Promise<void>>(undefined);
  useEffect(() => {
    unsaved.current = pending && outcome !== 'saving' ? () => save(job, kept.version) : undefined;
  }, [pending, outcome, job, kept.version, save]);
  const unsent = useRef(false);
  useEffect(() => {
    unsent.current = isUnsent;
  }, [isUnsent]);
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => unsent.current && event.preventDefault();
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

  /** Out of the bin again; what was not sent follows. */
  const bringBack = useCallback(async () => {
    await api.restore(id);
    setOutcome('ready');
  }, [id]);

  const state = stateOf(outcome, pending, !!conflict, job === invalid);
  const { version } = kept;
  return { state, version, why, forgets, conflict, settle, bringBack };
}

function outcomeOf(status: number, isBad: boolean): Outcome {
  if (status === GONE) return 'deleted';
  return isBad ? 'ready' : status ? 'failing' : 'offline';
}

function stateOf(outcome: Outcome, pending: boolean, conflict: boolean, invalid: boolean): SaveState {
  if (conflict) return 'refused';
  if (invalid) return 'invalid';
  if (outcome !== 'ready') return outcome;
  return pending ? 'waiting' : 'saved';
}
