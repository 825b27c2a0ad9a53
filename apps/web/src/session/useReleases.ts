import useSWR from 'swr';
import { ReleaseRow } from '@tidypath/core';
import { api } from '../api/client';
import { KEYS } from '../api/keys';

/**
 * Releases of a job, and whether its programs are handed out only once somebody has approved them. Where that is not known yet nothing is
 * handed out; where the server cannot say, what a device last saw counts.
 */
export function useReleases(jobId: string): { releases: ReleaseRow[]; needsApproval: boolean; known: boolean } {
  const { data, error } = useSWR(jobId ? KEYS.releases(jobId) : null, () => api.releases(jobId));
  const known = data !== undefined || error !== undefined;
  return { releases: data?.releases ?? [], needsApproval: data?.needsApproval ?? !known, known };
}
