/** Files of jobs: kept on this device until the server has them, and brought to hand before anything is computed from them. */
import { createStore, del, get, set } from 'idb-keyval';
import { Job, JobFile, atHand, filesOf, missingFiles, putAtHandAs, sha256InPieces } from '@tidypath/core';
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

/**
 * What a file is kept under, found without holding the page up: the browser finds it aside where it trusts the page, else it is found
 * piece by piece.
 */
export async function keyOf(bytes: Uint8Array): Promise<string> {
  const aside = globalThis.crypto?.subtle;
  if (aside) {
    const hash = new Uint8Array(await aside.digest('SHA-256', bytes as BufferSource));
    return [...hash].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  }
  const pieces = sha256InPieces(bytes);
  for (;;) {
    const { done, value } = pieces.next();
    if (done) return value;
    await new Promise((resolve) => setTimeout(resolve));
  }
}

/** Takes a file in, so that it outlives the tab; what a job names it by. Where nothing can be kept it lives as long as the page. */
export async function keepFile(name: string, bytes: Uint8Array): Promise<JobFile> {
  const sha256 = putAtHandAs(await keyOf(bytes), bytes);
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
    if (bytes) putAtHandAs(await keyOf(bytes), bytes);
  }
  return missingFiles(job);
}
