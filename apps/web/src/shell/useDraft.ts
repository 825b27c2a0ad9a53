import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { Finding, Kept, ShelfName, ShopItems, hasStop, readItem } from '@tidypath/core';
import { ApiError } from '../api/client';
import { down } from '../api/flags';
import { useShelf } from '../api/useShelf';
import { dropWrite, holdItem, keepWrite, waiting } from '../api/writes';

const PAUSE = 500;

/** Something of the shop as it is being changed, and the version it came from. */
interface Draft<T> {
  version: number;
  item: T;
}

/** Drafts that cannot be saved yet, kept while one looks elsewhere. */
const unsaved = new Map<string, Draft<unknown>>();

/** What waits to be sent of it. */
function waitingDraft<K extends ShelfName>(shelf: K, id: string): Draft<ShopItems[K]> | undefined {
  const found = waiting().find(({ write: w }) => w.what === 'item' && w.shelf === shelf && w.item.id === id)?.write;
  return found?.what === 'item' ? { version: found.version, item: found.item as ShopItems[K] } : undefined;
}

export type DraftState = 'saved' | 'saving' | 'held back' | 'waits' | 'failed';

/** Something of the shop being changed: saved by itself as soon as it is sound; a save that came too late is shown, not lost. */
export function useDraft<K extends ShelfName>(shelf: K, id: string, extra?: (item: ShopItems[K]) => Finding[]) {
  const { kept, save, put, loading, error } = useShelf(shelf);
  const own = kept?.find((k) => k.item.id === id);
  const key = `${shelf}/${id}`;
  const [draft, setDraft] = useState(
    () => (unsaved.get(key) as Draft<ShopItems[K]> | undefined) ?? waitingDraft(shelf, id),
  );
  const [state, setState] = useState<DraftState>('saved');
  /** What was sent last, and whether the server answered then: it is not sent again unless that changes. */
  const [tried, setTried] = useState<{ draft: Draft<ShopItems[K]>; isDown: boolean }>();
  const [theirs, setTheirs] = useState<Kept<ShopItems[K]> | null>();
  const [told, setTold] = useState<string>();
  const isDown = useSyncExternalStore(down.listen, down.now, down.now);
  const item = draft?.item ?? own?.item;
  const findings = useMemo(
    () => (item ? [...readItem(shelf, item).findings, ...(extra?.(item) ?? [])] : []),
    [shelf, item, extra],
  );
  const sound = !hasStop(findings);
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => holdItem(shelf, id), [shelf, id]);
  const isSending = state === 'saving';
  const isTried = tried !== undefined && tried.draft === draft && tried.isDown === isDown;

  const send = useCallback(
    async (sent: Draft<ShopItems[K]>) => {
      setState('saving');
      try {
        const said = await latest.current(sent.version, sent.item);
        if (said === 'waits') return setState('waits');
        if (!said.saved) {
          setState(keepWrite({ what: 'item', shelf, ...sent }) ? 'waits' : 'saved');
          return setTheirs(said.current);
        }
        unsaved.delete(key);
        const { version } = said;
        setDraft((d) => (d === sent ? undefined : d && { ...d, version }));
        setState('saved');
      } catch (e) {
        setTold((e as ApiError).message);
        setState('failed');
      } finally {
        setTried({ draft: sent, isDown: down.now() });
      }
    },
    [shelf, key],
  );

  useEffect(() => {
    if (!draft) return;
    // What waits in the store is not kept twice: it may be sent, or thrown away, while one looks elsewhere.
    if (state === 'waits' && isTried) unsaved.delete(key);
    else unsaved.set(key, draft);
    if (!sound || theirs !== undefined || isSending || isTried) return;
    const timer = setTimeout(() => void send(draft), PAUSE);
    return () => clearTimeout(timer);
  }, [draft, sound, key, theirs, state, isSending, isTried, send]);

  const change = useCallback(
    (more: Partial<ShopItems[K]>) => {
      setTold(undefined);
      setDraft((d) => {
        const base = d ?? own;
        return base && { version: base.version, item: { ...base.item, ...more } };
      });
    },
    [own],
  );
  const takeTheirs = () => {
    if (draft) dropWrite({ what: 'item', shelf, ...draft });
    if (theirs) void put(theirs);
    unsaved.delete(key);
    setDraft(undefined);
    setTheirs(undefined);
  };
  const keepMine = () => {
    setDraft((d) => d && { ...d, version: theirs?.version ?? 0 });
    setTheirs(undefined);
  };
  const shown: DraftState = draft && !sound ? 'held back' : draft && state === 'saved' ? 'saving' : state;
  return { item, change, findings, state: shown, told: told ?? error?.message, loading, theirs, takeTheirs, keepMine };
}
