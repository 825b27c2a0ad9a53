import { useCallback, useEffect, useState } from 'react';
import useSWR from 'swr';
import type { Press } from '@tidypath/controller';
import { ApiError, RunView, Shown, api } from '../../api/client';
import { onEvent } from '../../api/events';
import { KEYS } from '../../api/keys';

/** A run as it is seen, and what can be done at its machine. */
export interface Running {
  run?: RunView;
  shown?: Shown;
  /** Why something was not done. */
  refused?: string;
  press: (one: Press) => void;
  setPace: (pace: number) => void;
  onward: () => void;
}

/** The machine of a run, as every page sees it. */
export function useRun(id: string): Running {
  const { data, mutate } = useSWR(id ? KEYS.run(id) : null, () => api.run(id));
  const [live, setLive] = useState<{ of: string; shown: Shown }>();
  const [refused, setRefused] = useState<{ of: string; why?: string }>();
  useEffect(
    () =>
      onEvent((event) => {
        if (event.kind === 'machine' && event.run === id) setLive({ of: id, shown: event.shown as Shown });
      }),
    [id],
  );
  const ask = useCallback(
    async (what: Promise<string | undefined>) => {
      try {
        setRefused({ of: id, why: await what });
      } catch (error) {
        setRefused({ of: id, why: (error as ApiError).message });
      }
      void mutate();
    },
    [id, mutate],
  );
  return {
    run: data,
    shown: live?.of === id ? live.shown : data?.shown,
    refused: refused?.of === id ? refused.why : undefined,
    press: (one) => void ask(api.press(id, one)),
    setPace: (pace) => void ask(api.setPace(id, pace)),
    onward: () => void ask(api.onward(id)),
  };
}
