/** Keys of everything SWR keeps. */
export const KEYS = {
  jobs: 'jobs',
  devices: 'devices',
  job: (id: string) => ['job', id] as const,
  shelf: (shelf: string) => ['shelf', shelf] as const,
  unread: (shelf: string) => ['unread', shelf] as const,
  jobsUsing: (shelf: string, id: string) => ['jobs-using', shelf, id] as const,
};
