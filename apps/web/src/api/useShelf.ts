import { useMemo } from 'react';
import useSWR, { useSWRConfig } from 'swr';
import type { Kept, ShelfName, ShopItems } from '@tidypath/core';
import { ApiError, ItemSave, api } from './client';
import { KEYS } from './keys';
import { useWaiting } from './useWaiting';
import { Waiting, Write, bring } from './writes';

type Items<K extends ShelfName> = Kept<ShopItems[K]>[];

/** Puts something in its place on a shelf. */
const withItem = <K extends ShelfName>(items: Items<K>, one: Kept<ShopItems[K]>): Items<K> =>
  items.some((k) => k.item.id === one.item.id)
    ? items.map((k) => (k.item.id === one.item.id ? one : k))
    : [...items, one];

/** A shelf as it will be once the server has heard what waits here; what it said no to is left out. */
export function asItWillBe<K extends ShelfName>(shelf: K, items: Items<K>, waiting: Waiting[]): Items<K> {
  return waiting.reduce((all, { write, at, told }) => {
    if (told !== undefined || !('shelf' in write) || write.shelf !== shelf) return all;
    if (write.what === 'shelf') return write.there ? all : all.filter((k) => k.item.id !== write.id);
    const item = write.item as ShopItems[K];
    return withItem(all, { version: write.version, updatedAt: new Date(at).toISOString(), item });
  }, items);
}

/** Everything on one shelf of the shop, and the ways to change it. Empty until it has been read. */
export function useShelf<K extends ShelfName>(shelf: K) {
  const { mutate } = useSWRConfig();
  const { data, error } = useSWR(KEYS.shelf(shelf), () => api.shelf(shelf));
  const waiting = useWaiting();
  const kept = useMemo(() => data && asItWillBe(shelf, data, waiting), [shelf, data, waiting]);
  const items = useMemo(() => kept?.map((k) => k.item) ?? [], [kept]);
  const refresh = () => mutate(KEYS.shelf(shelf));
  const put = (one: Kept<ShopItems[K]>) =>
    mutate(KEYS.shelf(shelf), (old: Items<K> = []) => withItem(old, one), { revalidate: false });
  const bringItem = async (version: number, item: ShopItems[K]) => {
    const said = await bring({ what: 'item', shelf, version, item });
    if (said === 'waits' || !said) return 'waits';
    if (said.saved)
      await put({ version: said.version, updatedAt: new Date().toISOString(), item: { ...item, id: said.id } });
    return said;
  };
  const shelve = async (id: string, there: boolean) => {
    const name = data?.find((k) => k.item.id === id)?.item.name ?? id;
    await bring({ what: 'shelf', shelf, id, name, there } satisfies Write);
    await refresh();
  };
  return {
    kept,
    items,
    loading: !data && !error,
    error: error as ApiError | undefined,
    refresh,
    put,
    /** Saves over a version, or has it wait where the server does not answer. */
    save: bringItem as (version: number, item: ShopItems[K]) => Promise<ItemSave<ShopItems[K]> | 'waits'>,
    /** Something new; the id it has there. */
    add: async (item: ShopItems[K]): Promise<string> => {
      const said = await bringItem(0, item);
      return said === 'waits' ? item.id : said.id;
    },
    remove: (id: string) => shelve(id, false),
    restore: (id: string) => shelve(id, true),
  };
}
