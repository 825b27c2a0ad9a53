import { createStore, del, get, keys, set } from 'idb-keyval';
import { Job, readJob } from '@tidypath/core';
import { keepFile } from './files';

/** A job as somebody has it who could not send it yet, and the version it started from. */
export interface Draft {
  version: number;
  job: Job;
  /** What stood there then, where this device could keep it. */
  base?: Job;
  /** When it was kept, ms since 1970. */
  at?: number;
}

/** Beside the draft, and written once: it does not change while the draft does. */
const BASE = ' base';
const baseKey = (id: string) => id + BASE;
const basesKept = new Map<string, number>();

async function keepBase(id: string, version: number, base: Job): Promise<void> {
  if (basesKept.get(id) === version) return;
  await set(baseKey(id), { version, job: base }, database());
  basesKept.set(id, version);
}

const AT_ONCE = 'tidypath-draft-';
const keyOf = (id: string) => AT_ONCE + id;
let store: ReturnType<typeof createStore> | undefined;
const database = () => (store ??= createStore('tidypath-drafts', 'drafts'));

/** Writes at once, so that it stands though the page is killed the next moment; whether that could be. */
function atOnce(id: string, draft: Draft): boolean {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(draft));
    return true;
  } catch {
    // An older one must not stand before what the database holds.
    forgetAtOnce(id);
    return false;
  }
}

function forgetAtOnce(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // Where nothing can be kept nothing stands.
  }
}

/** Keeps a draft on this device: at once where it fits, and in a database of its own; false where neither can be. */
export async function keepDraft(id: string, { base, ...own }: Draft): Promise<boolean> {
  const draft = { ...own, at: Date.now() };
  const isKept = atOnce(id, draft);
  try {
    await set(id, draft, database());
    if (base) await keepBase(id, draft.version, base);
    return true;
  } catch {
    return isKept;
  }
}

/** What was sent needs no draft any more. */
export async function dropDraft(id: string): Promise<void> {
  forgetAtOnce(id);
  basesKept.delete(id);
  try {
    await del(id, database());
    await del(baseKey(id), database());
  } catch {
    // What could not be kept cannot be in the way.
  }
}

async function stored(id: string): Promise<unknown> {
  try {
    const latest = localStorage.getItem(keyOf(id));
    if (latest) return JSON.parse(latest);
    return await get(id, database());
  } catch {
    return undefined;
  }
}

/** The draft of a job on this device, the latest there is; undefined where there is none that can be read. */
export async function draftOf(id: string): Promise<Draft | undefined> {
  const found = (await stored(id)) as Partial<Draft> | undefined;
  if (!found || !Number.isInteger(found.version)) return undefined;
  const { job, files } = readJob(found.job);
  for (const bytes of files ?? []) await keepFile('', bytes);
  return job && { version: found.version!, job, base: await baseOf(id, found.version!), at: found.at ?? 0 };
}

async function baseOf(id: string, version: number): Promise<Job | undefined> {
  try {
    const found = await get<Draft>(baseKey(id), database());
    return found?.version === version ? readJob(found.job).job : undefined;
  } catch {
    return undefined;
  }
}

/** The jobs this device holds drafts of. */
export async function draftIds(): Promise<string[]> {
  const all: string[] = [];
  try {
    all.push(...Object.keys(localStorage).flatMap((k) => (k.startsWith(AT_ONCE) ? [k.slice(AT_ONCE.length)] : [])));
    all.push(...(await keys<string>(database())).filter((k) => !k.endsWith(BASE)));
  } catch {
    // Where nothing can be kept nothing stands.
  }
  return [...new Set(all)];
}
