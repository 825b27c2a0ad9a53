import useSWR from 'swr';
import { RunRow } from '@tidypath/core';
import { api } from '../api/client';
import { KEYS } from '../api/keys';

const NONE: RunRow[] = [];

/** Runs of a setup, the newest first, and whether its server has simulated machines. */
export function useRuns(jobId: string, setupId: string): { runs: RunRow[]; canRun: boolean; known: boolean } {
  const { data, error } = useSWR(KEYS.runs(jobId, setupId), () => api.runs(jobId, setupId));
  return {
    runs: data?.runs ?? NONE,
    canRun: data?.canRun ?? false,
    known: data !== undefined || error !== undefined,
  };
}
