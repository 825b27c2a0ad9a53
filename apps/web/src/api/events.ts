/** What changes at the server, heard without asking: one line for all pages of a browser, which tell each other. */
import type { ShopEvent } from '@tidypath/core';
import { shut } from './flags';

type Listener = (event: ShopEvent) => void;

/** Who of the pages holds the line, and when it last said so. */
const HOLDER = 'tidypath-line';
/** Between two looks who does, and after which silence another page takes it, ms. */
const LOOK = 2000;
const SILENT = 5000;

const me = Math.random().toString(36).slice(2);
const listeners = new Set<Listener>();
let channel: BroadcastChannel | undefined;
let source: EventSource | undefined;
let latest = '';

/** The newest version of each job that was told of. */
const versions = new Map<string, number>();

function tell(event: ShopEvent): void {
  if (event.kind === 'job') versions.set(event.id, event.version);
  listeners.forEach((hear) => hear(event));
}

/** What was told of a job before anybody here listened for it; 0 where nothing was. */
export const versionTold = (id: string): number => versions.get(id) ?? 0;

/** The first answer of the server says from where on events are missed: nothing is lost between it and the line. */
export function heardUpTo(id: string | null): void {
  latest ||= id ?? '';
}

interface Heard {
  id: string;
  event: ShopEvent;
}

/** Whether this page is to hold the line; each does where they cannot agree. */
function isHolder(): boolean {
  try {
    const [who, at] = (localStorage.getItem(HOLDER) ?? '').split(' ');
    if (who !== me && Date.now() - Number(at) < SILENT) return false;
    localStorage.setItem(HOLDER, `${me} ${Date.now()}`);
    return true;
  } catch {
    return true;
  }
}

function hang(): void {
  source?.close();
  source = undefined;
}

function hold(): void {
  if (source) return;
  source = new EventSource(`/api/events${latest && `?after=${latest}`}`);
  source.onmessage = ({ data, lastEventId }: MessageEvent<string>) => {
    latest = lastEventId || latest;
    const event = JSON.parse(data) as ShopEvent;
    channel?.postMessage({ id: latest, event } satisfies Heard);
    tell(event);
  };
  // What the server refused is not asked for again by itself.
  source.onerror = () => source?.readyState === EventSource.CLOSED && hang();
}

function look(): void {
  if (!shut.now() && isHolder()) hold();
  else hang();
}

function letGo(): void {
  hang();
  try {
    if (localStorage.getItem(HOLDER)?.startsWith(me)) localStorage.removeItem(HOLDER);
  } catch {
    // Then nobody knew.
  }
}

function begin(): void {
  if (typeof BroadcastChannel !== 'undefined') {
    channel = new BroadcastChannel('tidypath-events');
    channel.onmessage = ({ data }: MessageEvent<Heard>) => {
      latest = data.id;
      tell(data.event);
    };
  }
  look();
  setInterval(look, LOOK);
  window.addEventListener('pagehide', letGo);
}

let hasBegun = false;

/** Hears what changes at the server, until the answer is called. */
export function onEvent(listener: Listener): () => void {
  listeners.add(listener);
  if (!hasBegun && typeof EventSource !== 'undefined') begin();
  hasBegun = true;
  return () => void listeners.delete(listener);
}
