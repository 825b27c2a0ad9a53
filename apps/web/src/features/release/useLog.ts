import useSWR from 'swr';
import { KeptEntry, standing } from '@tidypath/core';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { useWaiting } from '../../api/useWaiting';

/** Entries of a release as the server has them, and those that wait here; corrected ones are left out. */
export function useLog(release: string): { entries: KeptEntry[]; again: () => void } {
  const { data, mutate } = useSWR(KEYS.log(release), () => api.logOf(release));
  const waiting = useWaiting().flatMap(({ write }): KeptEntry[] =>
    write.what === 'log' && write.id === release
      ? [{ ...write.entry, releaseId: release, who: 'waits here to be sent', at: '' }]
      : [],
  );
  return { entries: standing([...(data ?? []), ...waiting]), again: () => void mutate() };
}
