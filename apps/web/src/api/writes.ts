/** Writes the server may not have heard of yet. Each says what is to stand somewhere, so that said twice it is the same; they wait on this device, in order. */
import type { CommentEntry, CorrectionEntry, LogEntry, ShelfName, ShopItems, SizeEntry } from '@tidypath/core';
import { ApiError, ItemSave, api } from './client';
import { deviceId } from './device';
import { sendPhotos } from './files';

type Item = ShopItems[ShelfName];

export type Write =
  /** Something of the shop as it is to be, over the version it came from. */
  | { what: 'item'; shelf: ShelfName; version: number; item: Item }
  /** Whether it stands on its shelf. */
  | { what: 'shelf'; shelf: ShelfName; id: string; name: string; there: boolean }
  /** Whether a job is among the others, and not in the bin. */
  | { what: 'bin'; id: string; name: string; there: boolean }
  /** Whether a job is among those at work, and not in the archive. */
  | { what: 'archive'; id: string; name: string; there: boolean }
  /** Something of the checklist of a release was seen to, or is not so. */
  | { what: 'tick'; id: string; name: string; item: string; isSo: boolean }
  /** Something said at an operation of a job. */
  | { what: 'comment'; id: string; name: string; entry: CommentEntry }
  /** What is written down of runs of a release. */
  | { what: 'log'; id: string; name: string; entry: LogEntry }
  /** A size as it was measured on a part of a release, and what was entered because of one. */
  | { what: 'size'; id: string; name: string; entry: SizeEntry & Required<Pick<SizeEntry, 'id' | 'part'>> }
  | { what: 'correction'; id: string; name: string; entry: CorrectionEntry };

/** A write that waits: since when, ms since 1970, and why it still does where the server has answered. */
export interface Waiting {
  at: number;
  write: Write;
  told?: string;
}

/** What the server said of an item, under the id it has there. */
export type Said = ItemSave<Item> & { id: string };

const KEY = 'tidypath-write-';
const listeners = new Set<() => void>();
let all: Waiting[] | undefined;

/** One place, one write: a later one takes the place of an earlier one. */
function addressOf(write: Write): string {
  if (write.what === 'item') return `item ${write.shelf} ${write.item.id}`;
  if (write.what === 'shelf') return `shelf ${write.shelf} ${write.id}`;
  const of = write.what === 'tick' ? ` ${write.item}` : 'entry' in write ? ` ${write.entry.id}` : '';
  return `${write.what} ${write.id}${of}`;
}

/** What a write is about, as it is called. */
export const nameOf = (write: Write): string => (write.what === 'item' ? write.item.name : write.name);

function read(key: string): Waiting[] {
  try {
    return [JSON.parse(localStorage.getItem(key)!) as Waiting];
  } catch {
    return [];
  }
}

function readAll(): Waiting[] {
  try {
    const keys = Object.keys(localStorage).filter((k) => k.startsWith(KEY));
    return keys.flatMap(read).sort((a, b) => a.at - b.at);
  } catch {
    // Where nothing can be kept nothing waits.
    return [];
  }
}

function changed(): void {
  all = undefined;
  listeners.forEach((told) => told());
}

/** All that wait, the oldest first. */
export const waiting = (): Waiting[] => (all ??= readAll());

const heardOf = ({ key }: StorageEvent) => key?.startsWith(KEY) && changed();

/** Hears when what waits has changed, here or on another page of this browser, until the answer is called. */
export function onWaiting(told: () => void): () => void {
  window.addEventListener('storage', heardOf);
  listeners.add(told);
  return () => void listeners.delete(told);
}

/** Keeps a write until the server has heard it; false where this device cannot. */
export function keepWrite(write: Write, more: Partial<Omit<Waiting, 'write'>> = {}): boolean {
  try {
    const one: Waiting = { at: Date.now(), write, ...more };
    localStorage.setItem(KEY + addressOf(write), JSON.stringify(one));
    changed();
    return true;
  } catch {
    return false;
  }
}

/** What waits for the same place is past. */
export function dropWrite(write: Write): void {
  try {
    localStorage.removeItem(KEY + addressOf(write));
  } catch {
    // What could not be kept cannot be in the way.
  }
  changed();
}

/** Something new of the shop whose id somebody else gave meanwhile stands under another, the same however often it is said. */
async function keepItem({ shelf, version, item }: Extract<Write, { what: 'item' }>): Promise<Said> {
  const said = await api.keep(shelf, version, item);
  if (said.saved || version > 0) return { ...said, id: item.id };
  const id = `${item.id}-${deviceId().slice(0, 6)}`;
  return { ...(await api.keep(shelf, 0, { ...item, id })), id };
}

async function say(write: Write): Promise<Said | undefined> {
  switch (write.what) {
    case 'item':
      return keepItem(write);
    case 'shelf':
      return void (await (write.there ? api.bringBack : api.discard)(write.shelf, write.id));
    case 'bin':
      return void (await (write.there ? api.restore : api.remove)(write.id));
    case 'archive':
      return void (await api.archive(write.id, !write.there));
    case 'comment':
      return void (await api.comment(write.id, write.entry));
    case 'log':
      await sendPhotos(write.entry.photos ?? []);
      return void (await api.log(write.id, write.entry));
    case 'size':
      return void (await api.measure(write.id, write.entry));
    case 'correction':
      return void (await api.correct(write.id, write.entry));
    case 'tick':
      return void (await api.tick(write.id, write.item, write.isSo));
  }
}

const isDown = (error: unknown) => (error as Partial<ApiError>).status === 0;

/**
 * Brings a write to the server; where that does not answer it waits here until it does.
 * @returns what the server said of an item; `waits` where it does
 * @throws what the server says against it, and where it can be neither sent nor kept
 */
export async function bring(write: Write): Promise<Said | 'waits' | undefined> {
  try {
    const said = await say(write);
    if (!said || said.saved) dropWrite(write);
    return said;
  } catch (error) {
    if (!isDown(error) || !keepWrite(write)) throw error;
    return 'waits';
  }
}

/** The same for many items at once: all of them, or none where one came too late. */
export async function bringAll<K extends ShelfName>(shelf: K, entries: { version: number; item: ShopItems[K] }[]) {
  try {
    return await api.keepAll(shelf, entries);
  } catch (error) {
    if (!isDown(error)) throw error;
    const kept = entries.filter((entry) => keepWrite({ what: 'item', shelf, ...entry }));
    if (kept.length < entries.length) throw error;
    return { saved: true, late: [] };
  }
}

/** Items that are open on this page: it brings them itself. */
const open = new Set<string>();

/** Leaves an item to whoever has it open, until the answer is called. */
export function holdItem(shelf: ShelfName, id: string): () => void {
  const address = `item ${shelf} ${id}`;
  open.add(address);
  return () => void open.delete(address);
}

/** The same write still waits, and no later one. */
const stillWaits = ({ write, at }: Waiting) => read(KEY + addressOf(write))[0]?.at === at;

/**
 * Tries what waits, one after the other, as long as the server answers; what it says no to waits on, with its reason.
 * @returns whether any of it arrived
 */
export async function bringWaiting(): Promise<boolean> {
  let hasArrived = false;
  for (const one of readAll()) {
    const { write, at } = one;
    if (open.has(addressOf(write))) continue;
    try {
      const said = await say(write);
      hasArrived ||= !said || said.saved;
      if (!stillWaits(one)) continue;
      if (!said || said.saved) dropWrite(write);
      else keepWrite(write, { at, told: 'changed elsewhere too' });
    } catch (error) {
      if (isDown(error)) return hasArrived;
      const { status, message } = error as ApiError;
      if (!stillWaits(one)) continue;
      // What is not there cannot be put away.
      if (status === 404 && 'there' in write) dropWrite(write);
      else keepWrite(write, { at, told: message });
    }
  }
  return hasArrived;
}
