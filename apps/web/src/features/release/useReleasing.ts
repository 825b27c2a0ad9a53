import { useCallback, useRef, useState } from 'react';
import { useSWRConfig } from 'swr';
import { ApiError, Held, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { stepText } from './words';

/** A release that is being made, and what became of it. */
export interface Releasing {
  /** How far the server is; undefined where nothing is under way. */
  at?: string;
  failed: string;
  held?: Held;
  release: (accepted: string[]) => void;
  leave: () => void;
}

/** Has the server plan, prove and keep a setup of the job as it is saved. */
export function useReleasing(jobId: string, setupId: string, version: number): Releasing {
  const { mutate } = useSWRConfig();
  const [at, setAt] = useState<string>();
  const [failed, setFailed] = useState('');
  const [held, setHeld] = useState<Held>();
  const under = useRef<AbortController>(undefined);
  const release = useCallback(
    async (accepted: string[]) => {
      const control = (under.current = new AbortController());
      setAt('The server begins');
      setFailed('');
      setHeld(undefined);
      try {
        const hear = (step: Parameters<typeof stepText>[0]) => setAt(stepText(step));
        const made = await api.release({ jobId, setupId, version, accepted }, hear, control.signal);
        if ('held' in made) setHeld(made.held);
        await mutate(KEYS.releases(jobId));
      } catch (error) {
        if (!control.signal.aborted) setFailed((error as ApiError).message);
      } finally {
        setAt(undefined);
      }
    },
    [jobId, setupId, version, mutate],
  );
  return { at, failed, held, release: (keys) => void release(keys), leave: () => under.current?.abort() };
}
