/** What results hang on, for whoever keeps them. */
import stringify from 'fast-json-stable-stringify';
import { sha256Of } from '../quantity/files';
import { missingFiles } from '../document/files';
import type { Job } from '../document/job';

/** The job without what only its batch hangs on, and what is only compared. */
const withoutBatch = (job: Job) => ({
  ...job,
  batch: undefined,
  prices: undefined,
  comparisons: undefined,
  setups: job.setups.map((setup) => ({
    ...setup,
    setUpMinutes: undefined,
    reloadMinutes: undefined,
    stock: { ...setup.stock, bar: undefined },
  })),
});

/**
 * Key of what is planned or proved of a setup: SHA-256 of everything it depends on. Its note, and what
 * only the batch hangs on, do not count.
 * @param source what made it: the hash of the code itself
 * @param text the whole text proved in the place of the job's own program, where there is one
 */
export const resultKey = (source: string, job: Job, setupId: string, text?: string): string => {
  const all = { source, job: withoutBatch({ ...job, note: '' }), setupId, text, missing: missingFiles(job) };
  return sha256Of(new TextEncoder().encode(stringify(all)));
};
