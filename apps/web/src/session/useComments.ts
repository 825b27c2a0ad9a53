import { useMemo } from 'react';
import useSWR, { useSWRConfig } from 'swr';
import { KeptComment } from '@tidypath/core';
import { api } from '../api/client';
import { freshKey } from '../api/fresh';
import { KEYS } from '../api/keys';
import { useWaiting } from '../api/useWaiting';
import { bring } from '../api/writes';

/** What is asked and answered at the operations of a job, those that wait on this device included. */
export function useComments(jobId: string): KeptComment[] {
  const { data } = useSWR(jobId ? KEYS.comments(jobId) : null, () => api.comments(jobId));
  const waiting = useWaiting();
  return useMemo(() => {
    const here = waiting.flatMap(({ write }) =>
      write.what === 'comment' && write.id === jobId ? [{ ...write.entry, who: 'waits here to be sent', at: '' }] : [],
    );
    return [...(data ?? []), ...here];
  }, [data, waiting, jobId]);
}

/** Says something at an operation; where the server does not answer it waits here. */
export function useSayComment(jobId: string, jobName: string): (operation: string, text: string) => Promise<void> {
  const { mutate } = useSWRConfig();
  return async (operation, text) => {
    await bring({ what: 'comment', id: jobId, name: jobName, entry: { id: freshKey(), operation, text } });
    await mutate(KEYS.comments(jobId));
  };
}
