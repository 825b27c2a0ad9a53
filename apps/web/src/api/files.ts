/** Files of jobs: kept on this device until the server has them, and brought to hand before anything is computed from them. */
import { createStore, del, get, set } from 'idb-keyval';
import { Job, JobFile, atHand, filesOf, missingFiles, putAtHand } from '@tidypath/core';
import { ApiError, api } from './client';

let store: ReturnType<typeof createStore> | undefined;

/** What the database of this device answers; nothing where it is full or forbidden. */
async function onDevice<T>(ask: (database: NonNullable<typeof store>) => Promise<T>): Promise<T | undefined> {
  try {
    return await ask((store ??= createStore('tidypath-files', 'files')));
  } catch {
    return undefined;
  }
}

/** Of this visit: what the server is known to have. */
const sent = new Set<string>();

/** Takes a file in, so that it outlives the tab; what a job names it by. Where nothing can be kept it lives as long as the page. */
export async function keepFile(name: string, bytes: Uint8Array): Promise<JobFile> {
  const sha256 = putAtHand(bytes);
  await onDevice((database) => set(sha256, bytes, database));
  return { name: name.slice(0, 120), sha256 };
}

const kept = (sha256: string) => onDevice((database) => get<Uint8Array>(sha256, database));

async function sendOne(sha256: string): Promise<void> {
  if (sent.has(sha256)) return;
  if (!(await api.hasFile(sha256))) {
    const bytes = atHand(sha256) ?? (await kept(sha256));
    // One that is nowhere is named by whoever asks for it.
    if (!bytes) return;
    await api.sendFile(sha256, bytes);
  }
  sent.add(sha256);
  await onDevice((database) => del(sha256, database));
}

/** Sends those files of a job that the server has not got; called before the job itself is sent. */
export async function sendFiles(job: Job): Promise<void> {
  for (const { sha256 } of filesOf(job)) await sendOne(sha256);
}

/** The same for photos of an entry of the log. */
export async function sendPhotos(photos: string[]): Promise<void> {
  for (const sha256 of photos) await sendOne(sha256);
}

async function found(sha256: string): Promise<Uint8Array | undefined> {
  const here = await kept(sha256);
  if (here) return here;
  try {
    return await api.file(sha256);
  } catch (error) {
    if ((error as ApiError).status === 404) return undefined;
    throw error;
  }
}

/**
 * Puts the files of a job at hand, from this device or from the server: other bytes than those it names are at hand under their own name.
 * @returns those that are nowhere, or not what they should be
 */
export async function bringFiles(job: Job): Promise<JobFile[]> {
  for (const { sha256 } of missingFiles(job)) {
    const bytes = await found(sha256);
    if (bytes) putAtHand(bytes);
  }
  return missingFiles(job);
}
