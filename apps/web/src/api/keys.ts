/** Keys of everything SWR keeps. */
export const KEYS = {
  jobs: 'jobs',
  job: (id: string) => ['job', id] as const,
};
