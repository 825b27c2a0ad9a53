import type { JobQuestion, LogQuestion } from '@tidypath/core';

/** Keys of everything SWR keeps. */
export const KEYS = {
  jobList: (question: JobQuestion) => ['jobs', question] as const,
  jobChoices: 'job-choices',
  versions: (id: string) => ['versions', id] as const,
  comments: (id: string) => ['comments', id] as const,
  version: (id: string, version: string) => ['version', id, version] as const,
  releases: (job: string) => ['releases', job] as const,
  workList: ['releases'] as const,
  release: (id: string) => ['releases', 'one', id] as const,
  handingOut: ['releases', 'how'] as const,
  runs: (job: string, setup: string) => ['runs', job, setup] as const,
  run: (id: string) => ['runs', 'one', id] as const,
  log: (release: string) => ['runs', 'log', release] as const,
  logRows: (question: LogQuestion, page: number) => ['runs', 'rows', question, page] as const,
  notices: ['runs', 'notices'] as const,
  lessons: (item = '') => ['runs', 'lessons', item] as const,
  people: 'people',
  backups: 'backups',
  computes: 'computes',
  unsent: 'unsent',
  devices: 'devices',
  job: (id: string) => ['job', id] as const,
  shelf: (shelf: string) => ['shelf', shelf] as const,
  unread: (shelf: string) => ['unread', shelf] as const,
  jobsUsing: (shelf: string, id: string) => ['jobs-using', shelf, id] as const,
};
