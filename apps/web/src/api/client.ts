import { shut } from './shut';
import type { Finding, Job, JobRow, JobSummary, Kept, SaveResult, ShelfName, ShopItems } from '@tidypath/core';

/** An answer that was not the one hoped for, with the findings the server gave. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly findings: Finding[] = [],
  ) {
    super(message);
  }
}

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const init: RequestInit = { method };
  if (body !== undefined)
    Object.assign(init, { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new ApiError('The server cannot be reached', 0);
  }
  if (response.status === 204) return undefined as T;
  const answer = await response.json().catch(() => ({}));
  if (response.ok || response.status === 409) return answer as T;
  if (response.status === 401 && !path.startsWith('/door')) shut.close();
  throw new ApiError(answer.error ?? 'The server refused', response.status, answer.findings);
}

/** Devices that were let in, and which of them this is. */
export interface Devices {
  devices: { id: string; name: string; createdAt: string; seenAt: string }[];
  here: string;
}

/** A save of something on a shelf that was taken, or one that came too late, with what stands there now. */
export type ItemSave<T> = { saved: true; version: number } | { saved: false; current: Kept<T> | null };

const at = (shelf: ShelfName, id: string) => `/shop/${shelf}/${encodeURIComponent(id)}`;

/** The only place that talks to the server. */
export const api = {
  /** Knocks with the pass phrase of the shop. */
  comeIn: (phrase: string, name: string) => call<void>('POST', '/door', { phrase, name }),
  /** Nothing where the server asks nobody for a phrase. */
  devices: () => call<Devices | null>('GET', '/door'),
  showOut: (id: string) => call<void>('DELETE', `/door/${id}`),
  jobs: () => call<JobSummary[]>('GET', '/jobs'),
  job: (id: string) => call<JobRow>('GET', `/jobs/${id}`),
  /** Where a job is to be had as it is stored, readable or not. */
  documentOf: (id: string) => `/api/jobs/${id}/document`,
  create: (job: Job) => call<JobRow>('POST', '/jobs', { job }),
  save: (id: string, version: number, job: Job) => call<SaveResult>('PUT', `/jobs/${id}`, { version, job }),
  duplicate: (id: string) => call<JobRow>('POST', `/jobs/${id}/duplicate`),
  remove: (id: string) => call<void>('DELETE', `/jobs/${id}`),
  restore: (id: string) => call<void>('POST', `/jobs/${id}/restore`),
  shelf: <K extends ShelfName>(shelf: K) => call<Kept<ShopItems[K]>[]>('GET', `/shop/${shelf}`),
  /** What stands on a shelf and cannot be read. */
  unread: (shelf: ShelfName) => call<Finding[]>('GET', `/shop/${shelf}/unread`),
  keep: <K extends ShelfName>(shelf: K, version: number, item: ShopItems[K]) =>
    call<ItemSave<ShopItems[K]>>('PUT', at(shelf, item.id), { version, item }),
  keepAll: <K extends ShelfName>(shelf: K, entries: { version: number; item: ShopItems[K] }[]) =>
    call<{ saved: boolean; late: string[] }>('POST', `/shop/${shelf}`, { entries }),
  discard: (shelf: ShelfName, id: string) => call<void>('DELETE', at(shelf, id)),
  bringBack: (shelf: ShelfName, id: string) => call<void>('POST', `${at(shelf, id)}/restore`),
  jobsUsing: (shelf: ShelfName, id: string) => call<{ id: string; name: string }[]>('GET', `${at(shelf, id)}/jobs`),
};
