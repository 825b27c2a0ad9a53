/** What results hang on, for whoever keeps them. */
import stringify from 'fast-json-stable-stringify';
import { missingFiles, sha256Of } from '../document/files';
import type { Job } from '../document/job';

/**
 * Key of what is planned or proved of a setup: SHA-256 of everything it depends on. The note of a job is all that does not count.
 * @param source what made it: the hash of the code itself
 * @param text the whole text proved in the place of the job's own program, where there is one
 */
export const resultKey = (source: string, job: Job, setupId: string, text?: string): string => {
  const all = { source, job: { ...job, note: '' }, setupId, text, missing: missingFiles(job) };
  return sha256Of(new TextEncoder().encode(stringify(all)));
};
