import { useCallback, useRef, useState } from 'react';
import { useSWRConfig } from 'swr';
import { ApiError, Held, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { stepText } from './words';

/** What is known of a release that is being made. */
interface Stand {
  /** How far the server is; undefined where nothing is under way. */
  at?: string;
  failed?: string;
  held?: Held;
}

/** A release that is being made, and what became of it. */
export interface Releasing extends Stand {
  release: (accepted: string[]) => void;
  leave: () => void;
}

/** Has the server plan, prove and keep a setup of the job as it is saved. */
export function useReleasing(jobId: string, setupId: string, version: number): Releasing {
  const { mutate } = useSWRConfig();
  const [stand, setStand] = useState<Stand & { of: string }>({ of: setupId });
  const under = useRef<AbortController>(undefined);
  const release = useCallback(
    async (accepted: string[]) => {
      const control = (under.current = new AbortController());
      const tell = (next: Stand) => setStand({ of: setupId, ...next });
      tell({ at: 'The server begins' });
      try {
        const ask = { jobId, setupId, version, accepted };
        const made = await api.release(ask, (step) => tell({ at: stepText(step) }), control.signal);
        await mutate(KEYS.releases(jobId));
        tell('held' in made ? { held: made.held } : {});
      } catch (error) {
        tell(control.signal.aborted ? {} : { failed: (error as ApiError).message });
      }
    },
    [jobId, setupId, version, mutate],
  );
  // What is told of one setup is nothing to another.
  const { of, ...own } = stand;
  return {
    ...(of === setupId ? own : {}),
    release: (keys) => void release(keys),
    leave: () => under.current?.abort(),
  };
}
