import {
  ReactNode,
  createContext,
  useCallback,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useSWRConfig } from 'swr';
import { Job, JobRow, Setup, hashOf } from '@tidypath/core';
import { KEYS } from '../api/keys';
import type { Draft } from '../api/drafts';
import { begin, change, redo, undo } from './history';
import { Pace, useComputed } from './useComputed';
import { Start, useSaving } from './useSaving';
import { useStanding } from './useStanding';

interface JobContextValue {
  job: Job;
  /** The setup being looked at. */
  setup: Setup;
  chooseSetup: (id: string) => void;
  /** Changes the job; calls with one tag close together are undone as one. */
  edit: (next: (job: Job) => Job, tag?: string) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
  computed: ReturnType<typeof useComputed>['computed'];
  saving: ReturnType<typeof useSaving>;
  takeTheirs: () => void;
  keepMine: () => void;
}

const Context = createContext<JobContextValue | undefined>(undefined);
/** The same a moment later, for what may lag behind the typing finger. */
const CalmContext = createContext<JobContextValue | undefined>(undefined);
const PaceContext = createContext<Pace>({});

/** How far planning and proving are. */
export const usePace = () => useContext(PaceContext);

/** The job being worked on, from anywhere below its page. */
export function useJob(): JobContextValue {
  const value = useContext(Context);
  if (!value) throw new Error('useJob outside a job');
  return value;
}

/** The job for pictures and summaries: numbers being typed come first, this follows as soon as there is time. */
export function useCalmJob(): JobContextValue {
  const value = useContext(CalmContext);
  if (!value) throw new Error('useCalmJob outside a job');
  return value;
}

interface ProviderProps {
  id: string;
  row: JobRow;
  /** What was not sent yet when this device last had it open. */
  draft?: Draft;
  children: ReactNode;
}

/** What saving starts from: the draft's own version, and what stood there then where that is known. */
function startOf(row: JobRow, draft?: Draft): Start {
  // Made here and not sent yet: it has to be sent as it is.
  if (row.version === 0) return { job: { ...row.job }, version: 0, isBase: false };
  if (!draft || draft.version === row.version) return { job: row.job, version: row.version, isBase: true };
  return { job: draft.base ?? row.job, version: draft.version, isBase: !!draft.base };
}

export function JobProvider({ id, row, draft: found, children }: ProviderProps) {
  // A draft that arrived after all, though its answer did not, is no draft any more.
  const [draft] = useState(() => (found && hashOf(found.job) !== hashOf(row.job) ? found : undefined));
  const [history, setHistory] = useState(() =>
    draft ? change(begin(row.job), draft.job, '', Date.now()) : begin(row.job),
  );
  const job = history.present;
  const [setupId, chooseSetup] = useState('');
  const setup = job.setups.find((s) => s.id === setupId) ?? job.setups[0];
  const edit = useCallback(
    (next: (job: Job) => Job, tag = '') => setHistory((h) => change(h, next(h.present), tag, Date.now())),
    [],
  );
  const takeIn = useCallback((next: Job) => edit(() => next), [edit]);
  const [start] = useState(() => startOf(row, draft));
  const saving = useSaving(id, start, job, !!found, takeIn);
  const { computed, pace } = useComputed(useDeferredValue(job), setup.id);

  const { mutate } = useSWRConfig();
  const { state, version } = saving;
  useEffect(() => {
    const known: JobRow = { id, version, updatedAt: row.updatedAt, job };
    if (state === 'saved') void mutate(KEYS.job(id), known, { revalidate: false });
  }, [id, row.updatedAt, state, version, job, mutate]);
  useStanding(id, setup.id, computed, saving);

  const stepBack = useCallback(() => setHistory(undo), []);
  const stepOn = useCallback(() => setHistory(redo), []);
  const { conflict, settle } = saving;
  const takeTheirs = useCallback(() => conflict && settle(conflict.current, 'theirs'), [conflict, settle]);
  const keepMine = useCallback(() => conflict && settle(conflict.current, 'mine'), [conflict, settle]);

  useShortcuts(stepBack, stepOn);

  const value = useMemo(
    (): JobContextValue => ({
      job,
      setup,
      chooseSetup,
      edit,
      undo: stepBack,
      redo: stepOn,
      canUndo: history.past.length > 0,
      canRedo: history.future.length > 0,
      computed,
      saving,
      takeTheirs,
      keepMine,
    }),
    [job, setup, edit, stepBack, stepOn, history, computed, saving, takeTheirs, keepMine],
  );
  const calm = useDeferredValue(value);
  return (
    <Context.Provider value={value}>
      <CalmContext.Provider value={calm}>
        <PaceContext.Provider value={pace}>{children}</PaceContext.Provider>
      </CalmContext.Provider>
    </Context.Provider>
  );
}

/** Ctrl or Command with Z and Shift+Z (or Y), except while typing in a field. */
function useShortcuts(onUndo: () => void, onRedo: () => void) {
  const handlers = useRef({ onUndo, onRedo });
  useEffect(() => {
    handlers.current = { onUndo, onRedo };
  }, [onUndo, onRedo]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (!(event.ctrlKey || event.metaKey) || target?.tagName === 'INPUT' || target?.tagName === 'TEXTAREA') return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      if (key === 'y' || event.shiftKey) handlers.current.onRedo();
      else handlers.current.onUndo();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
