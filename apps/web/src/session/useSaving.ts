import { useCallback, useEffect, useRef, useState } from 'react';
import { Job, JobRow, Side, changesOf, hashOf, mergeJobs } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { onEvent, versionTold } from '../api/events';
import { bringFiles, sendFiles } from '../api/files';
import { holdJob } from '../api/outbox';
import { dropDraft, keepDraft } from '../api/drafts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'failing' | 'refused' | 'invalid' | 'deleted';

const PAUSE = 600;
/** First wait before it is tried again, ms; each is twice the one before, up to the longest. */
const RETRY = { first: 4000, most: 60_000 } as const;

/** Two people touched the same: what stands at the server, and what one is asked about. */
export interface Conflict {
  current: JobRow;
  about: string[];
}

/** The version a job started from; `isBase` where `job` is what stood there then. */
export interface Start {
  job: Job;
  version: number;
  isBase: boolean;
}

/** What comes of a job changed here and elsewhere; where nobody knows what both started from one side is taken whole. */
function merged({ job: base, isBase }: Start, mine: Job, theirs: Job, side: Side): Job {
  if (isBase) return mergeJobs(base, mine, theirs, side);
  return side === 'mine' ? mine : theirs;
}

type Outcome = 'ready' | 'saving' | 'offline' | 'failing' | 'deleted';
const GONE = 410;
/** More happened than can be told: whatever stands there now may be newer. */
const UNKNOWN = Number.MAX_SAFE_INTEGER;

const isSame = (a: Job, b: Job) => hashOf(a) === hashOf(b);

/**
 * Saves a job by itself a moment after each change, and keeps what is not sent yet on this device. What was changed elsewhere is taken in;
 * where both touched the same one is asked.
 * @param foundDraft whether this device had kept a draft of it
 * @param edit takes what came of both
 */
export function useSaving(id: string, start: Start, job: Job, foundDraft: boolean, edit: (job: Job) => void) {
  const [kept, setKept] = useState(start);
  const [outcome, setOutcome] = useState<Outcome>('ready');
  /** A job the server would not take; it is not sent again until it changes. */
  const [invalid, setInvalid] = useState<Job>();
  const [conflict, setConflict] = useState<Conflict>();
  /** Why the last save was not taken, and how often in a row it was not. */
  const [why, setWhy] = useState('');
  const [failures, setFailures] = useState(0);
  const [forgets, setForgets] = useState(false);
  const pending = job !== kept.job && job !== invalid && !conflict && outcome !== 'deleted';

  const latest = useRef({ job, kept });
  useEffect(() => {
    latest.current = { job, kept };
  }, [job, kept]);

  /** Goes on from what stands at the server, with what was changed here put to it. */
  const settle = useCallback(
    (current: JobRow, side: Side) => {
      const { job: own, kept: base } = latest.current;
      const next = merged(base, own, current.job, side);
      setKept({ job: current.job, version: current.version, isBase: true });
      setConflict(undefined);
      edit(isSame(next, current.job) ? current.job : next);
    },
    [edit],
  );

  /** Takes in what was saved elsewhere. */
  const meet = useCallback(
    async (current: JobRow) => {
      await bringFiles(current.job).catch(() => undefined);
      const { job: own, kept: base } = latest.current;
      const [mine, theirs] = (['mine', 'theirs'] as const).map((side) => merged(base, own, current.job, side));
      if (isSame(mine, theirs)) settle(current, 'mine');
      else setConflict({ current, about: changesOf(theirs, mine) });
    },
    [settle],
  );

  const save = useCallback(
    async (sending: Job, version: number) => {
      setOutcome('saving');
      try {
        await sendFiles(sending);
        const result = await api.save(id, version, sending);
        if (result.saved) setKept({ job: sending, version: result.version, isBase: true });
        else await meet(result.current);
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
    [id, meet],
  );

  /** The newest version that was told of; what is under way here comes first. */
  const [told, setTold] = useState(() => versionTold(id));
  useEffect(
    () =>
      onEvent((event) => {
        if (event.kind === 'missed') setTold(UNKNOWN);
        else if (event.kind === 'job' && event.id === id) setTold(event.version);
      }),
    [id],
  );
  const isNews = told > kept.version && outcome !== 'saving' && outcome !== 'deleted' && !conflict;
  useEffect(() => {
    if (!isNews) return;
    const look = async () => {
      try {
        const current = await api.job(id);
        if (current.version > latest.current.kept.version) await meet(current);
      } catch (error) {
        if ((error as Partial<ApiError>).status === GONE) setOutcome('deleted');
        // What was told of is not told again: it is looked at once the server answers.
        else window.addEventListener('online', () => setTold(UNKNOWN), { once: true });
      }
      setTold(0);
    };
    void look();
  }, [isNews, id, meet]);

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

  useEffect(() => holdJob(id), [id]);

  const isUnsent = job !== kept.job;
  /** Only its own draft is dropped: the same job may be open beside it. */
  const hasDraft = useRef(foundDraft);
  useEffect(() => {
    if (!isUnsent && !hasDraft.current) return;
    hasDraft.current = isUnsent;
    const base = kept.isBase ? kept.job : undefined;
    if (isUnsent) void keepDraft(id, { version: kept.version, job, base }).then((isKept) => setForgets(!isKept));
    else void dropDraft(id);
  }, [id, isUnsent, job, kept]);

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
