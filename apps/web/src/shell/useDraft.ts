import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Finding, Kept, ShelfName, ShopItems, hasStop, readItem } from '@tidypath/core';
import { ApiError } from '../api/client';
import { useShelf } from '../api/useShelf';

const PAUSE = 500;

/** Drafts that cannot be saved yet, kept while one looks elsewhere. */
const unsaved = new Map<string, unknown>();

export type DraftState = 'saved' | 'saving' | 'held back' | 'failed';

/** Something of the shop being changed: saved by itself as soon as it is sound; a save that came too late is shown, not lost. */
export function useDraft<K extends ShelfName>(shelf: K, id: string, extra?: (item: ShopItems[K]) => Finding[]) {
  const { kept, save, put, loading, error } = useShelf(shelf);
  const own = kept?.find((k) => k.item.id === id);
  const key = `${shelf}/${id}`;
  const [draft, setDraft] = useState(() => unsaved.get(key) as ShopItems[K] | undefined);
  const [state, setState] = useState<DraftState>('saved');
  const [theirs, setTheirs] = useState<Kept<ShopItems[K]> | null>();
  const [told, setTold] = useState<string>();
  const item = draft ?? own?.item;
  const findings = useMemo(
    () => (item ? [...readItem(shelf, item).findings, ...(extra?.(item) ?? [])] : []),
    [shelf, item, extra],
  );
  const sound = !hasStop(findings);
  const latest = useRef({ save, version: own?.version ?? 0 });
  useEffect(() => {
    latest.current = { save, version: own?.version ?? 0 };
  });

  useEffect(() => {
    if (!draft) return;
    unsaved.set(key, draft);
    if (!sound || theirs !== undefined) return;
    const timer = setTimeout(() => {
      setState('saving');
      latest.current
        .save(latest.current.version, draft)
        .then((current) => {
          if (current !== undefined) return setTheirs(current);
          unsaved.delete(key);
          setDraft((d) => (d === draft ? undefined : d));
          setState('saved');
        })
        .catch((e: ApiError) => {
          setTold(e.message);
          setState('failed');
        });
    }, PAUSE);
    return () => clearTimeout(timer);
  }, [draft, sound, key, theirs]);

  const change = useCallback(
    (more: Partial<ShopItems[K]>) => {
      setTold(undefined);
      setDraft((d) => {
        const base = d ?? own?.item;
        return base && { ...base, ...more };
      });
    },
    [own],
  );
  const takeTheirs = () => {
    if (theirs) void put(theirs);
    unsaved.delete(key);
    setDraft(undefined);
    setTheirs(undefined);
  };
  const keepMine = () => {
    if (theirs) void put(theirs).then(() => setTheirs(undefined));
    else setTheirs(undefined);
  };
  const shown: DraftState = draft && !sound ? 'held back' : draft && state === 'saved' ? 'saving' : state;
  return { item, change, findings, state: shown, told: told ?? error?.message, loading, theirs, takeTheirs, keepMine };
}
