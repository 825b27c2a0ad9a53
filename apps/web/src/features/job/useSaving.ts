import { useCallback, useEffect, useRef, useState } from 'react';
import type { Job } from '@tidypath/core';
import { ApiError, JobRow, api } from '../../api/client';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'refused' | 'invalid';

const PAUSE = 600;
const RETRY = 4000;

/** Saves a job by itself a moment after each change; a save that comes too late is told with the other version. */
export function useSaving(id: string, row: JobRow, job: Job) {
  const [state, setState] = useState<SaveState>('saved');
  const [conflict, setConflict] = useState<JobRow>();
  const version = useRef(row.version);
  const saved = useRef(row.job);
  const latest = useRef(job);
  const busy = useRef(false);
  useEffect(() => {
    latest.current = job;
  }, [job]);

  const save = useCallback(async () => {
    if (busy.current || latest.current === saved.current) return;
    busy.current = true;
    const sending = latest.current;
    setState('saving');
    try {
      const result = await api.save(id, version.current, sending);
      if (result.saved) {
        version.current = result.version;
        saved.current = sending;
        setState(latest.current === sending ? 'saved' : 'waiting');
      } else {
        setConflict(result.current);
        setState('refused');
      }
    } catch (error) {
      setState(error instanceof ApiError && error.status === 422 ? 'invalid' : 'offline');
    } finally {
      busy.current = false;
    }
  }, [id]);

  useEffect(() => {
    if (job === saved.current || conflict) return;
    setState('waiting');
    const timer = setTimeout(() => void save(), PAUSE);
    return () => clearTimeout(timer);
  }, [job, save, conflict]);

  useEffect(() => {
    if (state !== 'offline' && !(state === 'waiting' && !busy.current)) return;
    const timer = setTimeout(() => void save(), state === 'offline' ? RETRY : PAUSE);
    return () => clearTimeout(timer);
  }, [state, save]);

  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (latest.current !== saved.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      window.removeEventListener('beforeunload', leave);
      void save();
    };
  }, [save]);

  /** Goes on from the other person's version (`theirs`), or saves this one over it. */
  const settle = useCallback((current: JobRow, keepMine: boolean) => {
    version.current = current.version;
    if (!keepMine) saved.current = current.job;
    setConflict(undefined);
    setState(keepMine ? 'waiting' : 'saved');
  }, []);

  return { state, conflict, settle };
}
