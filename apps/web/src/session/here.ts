/** Who else has the job open, and where they are; somebody can be followed: their stage, setup, operation and second, never their edits. */
import { useEffect, useSyncExternalStore } from 'react';
import type { Place } from '@tidypath/core';
import { api } from '../api/client';
import { newId } from '../api/device';
import { onEvent } from '../api/events';

/** Between two tellings at least, and at most while nothing changes, ms. */
const SOON = 400;
const PULSE = 10_000;
/** Who says nothing for so long has left, ms. */
const SILENT = 30_000;

export interface Other {
  page: string;
  /** Whoever sits there, or the device; empty where neither has a name. */
  who: string;
  place: Place;
}

interface State {
  others: Other[];
  /** The page that is followed. */
  following?: string;
}

const me = newId();
let state: State = { others: [] };
const listeners = new Set<() => void>();
/** When each was heard last. */
const heard = new Map<string, number>();
/** Where this page is; in no job without one. */
let mine: Partial<Place> = {};
let due: ReturnType<typeof setTimeout> | undefined;

function set(next: Partial<State>): void {
  state = { ...state, ...next };
  listeners.forEach((told) => told());
}

function drop(pages: string[]): void {
  pages.forEach((page) => heard.delete(page));
  if (!state.others.some((o) => pages.includes(o.page))) return;
  const isLost = state.following !== undefined && pages.includes(state.following);
  set({
    others: state.others.filter((o) => !pages.includes(o.page)),
    following: isLost ? undefined : state.following,
  });
}

function hear(page: string, who: string, place?: Place): void {
  if (page === me) return;
  if (!place || place.job !== mine.job) return drop([page]);
  const isNew = !state.others.some((o) => o.page === page);
  heard.set(page, Date.now());
  const other = { page, who, place };
  set({ others: isNew ? [...state.others, other] : state.others.map((o) => (o.page === page ? other : o)) });
  // Whoever comes later hears where this page is.
  if (isNew) tell();
}

function tell(): void {
  due ??= setTimeout(() => {
    due = undefined;
    if (mine.job) void api.here(me, mine as Place).catch(() => undefined);
  }, SOON);
}

/** Says where this page is from now on; nobody is told while nobody else is there. */
export function say(change: Partial<Place>): void {
  const isSame = (Object.keys(change) as (keyof Place)[]).every((k) => change[k] === mine[k]);
  mine = { ...mine, ...change };
  if (!isSame && state.others.length > 0) tell();
}

/** Is in a job until the answer is called. */
export function enter(job: string): () => void {
  mine = { stage: 'part', ...mine, job };
  tell();
  const stop = onEvent((event) => event.kind === 'here' && hear(event.page, event.who, event.place));
  const pulse = setInterval(() => {
    tell();
    drop([...heard].flatMap(([page, at]) => (Date.now() - at > SILENT ? [page] : [])));
  }, PULSE);
  const leave = () => void api.gone(me).catch(() => undefined);
  window.addEventListener('pagehide', leave);
  return () => {
    stop();
    clearInterval(pulse);
    window.removeEventListener('pagehide', leave);
    leave();
    mine = {};
    heard.clear();
    set({ others: [], following: undefined });
  };
}

export const follow = (page: string | undefined): void => set({ following: page });

const listen = (told: () => void) => {
  listeners.add(told);
  return () => void listeners.delete(told);
};
const now = () => state;

/** Who else is in the job, and who of them is followed. */
export const useOthers = (): State => useSyncExternalStore(listen, now, now);

/** Where the one who is followed is; undefined while nobody is. */
export function useFollowed(): Place | undefined {
  const { others, following } = useOthers();
  return others.find((o) => o.page === following)?.place;
}

/** Says one thing of where this page is while something shows it. */
export function useSaying<K extends 'setupId' | 'operationId' | 'second'>(what: K, value: Place[K]): void {
  useEffect(() => say({ [what]: value }), [what, value]);
  useEffect(() => () => say({ [what]: undefined }), [what]);
}
