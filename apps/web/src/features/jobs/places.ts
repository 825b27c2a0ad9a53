import type { JobPlace, JobSummary } from '@tidypath/core';
import type { Waiting } from '../../api/writes';

/** Where a job is once the server has heard what waits here. */
export function placeOf({ id, archived, deletedAt }: JobSummary, waiting: Waiting[]): JobPlace {
  const put = (what: 'bin' | 'archive') =>
    waiting.flatMap(({ write: w }) => (w.what === what && w.id === id ? [w.there] : [])).at(-1);
  if (!(put('bin') ?? !deletedAt)) return 'bin';
  return (put('archive') ?? !archived) ? 'list' : 'archive';
}
