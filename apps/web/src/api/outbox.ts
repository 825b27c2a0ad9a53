/** What this device could not send: jobs made and changed while the server did not answer. They are sent once it does, open or not. */
import { Job, hashOf } from '@tidypath/core';
import { ApiError, api } from './client';
import { newId } from './device';
import { Draft, draftIds, draftOf, dropDraft, keepDraft } from './drafts';
import { sendFiles } from './files';

/** A job with what was not sent of it. */
export interface Unsent {
  id: string;
  name: string;
  /** Made here: the server knows nothing of it. */
  isNew: boolean;
  /** Why it waits though the server answers. */
  told?: string;
}

/** A change so young is being sent by the page it was made on, ms. */
const YOUNG = 5000;

/** Jobs that are open on this page: it sends them itself. */
const open = new Set<string>();

/** Leaves a job to whoever has it open, until the answer is called. */
export function holdJob(id: string): () => void {
  open.add(id);
  return () => void open.delete(id);
}

/** Drafts nobody is at. */
async function drafts(): Promise<[string, Draft][]> {
  const all: [string, Draft][] = [];
  for (const id of await draftIds()) {
    const draft = await draftOf(id);
    const isYoung = draft && draft.version > 0 && Date.now() - draft.at! < YOUNG;
    if (draft && !isYoung) all.push([id, draft]);
  }
  return all;
}

/**
 * Makes a job; where the server does not answer it is kept here until it does.
 * @returns its id
 * @throws where it can be neither sent nor kept
 */
export async function makeJob(job: Job): Promise<string> {
  const id = newId();
  try {
    await sendFiles(job);
    await api.save(id, 0, job);
  } catch (error) {
    if ((error as Partial<ApiError>).status !== 0 || !(await keepDraft(id, { version: 0, job }))) throw error;
  }
  return id;
}

/** Why what waits was not taken, by job. */
const reasons = new Map<string, string>();
const ELSEWHERE = 'changed elsewhere too';

/** Whether the server has it then; what was changed elsewhere meanwhile waits until somebody opens it. */
async function send(id: string, { job, version }: Draft): Promise<boolean> {
  const there = await api.job(id).catch((error: ApiError) => {
    if (version === 0 && error.status === 404) return undefined;
    throw error;
  });
  if (there && there.version > version) return hashOf(there.job) === hashOf(job);
  await sendFiles(job);
  return (await api.save(id, version, job)).saved;
}

let sending: Promise<void> | undefined;

async function sendThem(): Promise<void> {
  for (const [id, draft] of await drafts()) {
    if (open.has(id)) continue;
    try {
      const isSent = await send(id, draft);
      if (isSent) reasons.delete(id);
      else reasons.set(id, ELSEWHERE);
      // What another page wrote meanwhile is not sent yet.
      if (isSent && !open.has(id) && (await draftOf(id))?.at === draft.at) await dropDraft(id);
    } catch (error) {
      const { status, message } = error as ApiError;
      if (status === 0) return;
      reasons.set(id, message);
    }
  }
}

/** Sends what is not open, one after the other, as long as the server answers. */
export const sendUnsent = (): Promise<void> => (sending ??= sendThem().finally(() => (sending = undefined)));

/** What is left once all was tried. */
export async function unsent(): Promise<Unsent[]> {
  await sendUnsent();
  return (await drafts()).map(([id, { job, version }]) => ({
    id,
    name: job.name,
    isNew: version === 0,
    told: reasons.get(id),
  }));
}
