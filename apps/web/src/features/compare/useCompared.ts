import { useEffect, useState } from 'react';
import useSWR from 'swr';
import { Compared, ComparedAt, Comparison, Job, hashOf } from '@tidypath/core';
import { engine } from '../../compute/engine';

/** Holds ways against each other beside the page; what is known of the same question stands at once. */
export function useCompared(job: Job, comparison: Comparison | undefined, at: ComparedAt) {
  const [planning, setPlanning] = useState('');
  const [left, setLeft] = useState<string>();
  const key = hashOf({ ...job, note: '', comparisons: comparison, at });
  const isAsked = comparison !== undefined && left !== key;
  const { data, error, isValidating } = useSWR<Compared | null>(
    isAsked ? ['compared', key] : null,
    () => engine.compare(job, comparison!, at, setPlanning),
    { keepPreviousData: true, revalidateIfStale: false, revalidateOnFocus: false, revalidateOnReconnect: false },
  );
  useEffect(() => () => engine.leaveCompare(), []);
  return {
    compared: data ?? undefined,
    planning: isValidating ? planning || 'the first' : undefined,
    failed: error ? (error as Error).message : undefined,
    isLeft: comparison !== undefined && left === key,
    leave: () => (engine.leaveCompare(), setLeft(key)),
    again: () => setLeft(undefined),
  };
}
