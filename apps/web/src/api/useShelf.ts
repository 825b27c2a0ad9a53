import { useMemo } from 'react';
import useSWR, { useSWRConfig } from 'swr';
import type { Kept, ShelfName, ShopItems } from '@tidypath/core';
import { ApiError, api } from './client';
import { KEYS } from './keys';

/** Everything on one shelf of the shop, and the ways to change it. Empty until it has been read. */
export function useShelf<K extends ShelfName>(shelf: K) {
  const { mutate } = useSWRConfig();
  const { data, error } = useSWR(KEYS.shelf(shelf), () => api.shelf(shelf));
  const items = useMemo(() => data?.map((k) => k.item) ?? [], [data]);
  const refresh = () => mutate(KEYS.shelf(shelf));
  const put = (kept: Kept<ShopItems[K]>) =>
    mutate(
      KEYS.shelf(shelf),
      (old: Kept<ShopItems[K]>[] | undefined) =>
        old?.some((k) => k.item.id === kept.item.id)
          ? old.map((k) => (k.item.id === kept.item.id ? kept : k))
          : [...(old ?? []), kept],
      { revalidate: false },
    );
  return {
    kept: data,
    items,
    loading: !data && !error,
    error: error as ApiError | undefined,
    refresh,
    put,
    /** Saves; undefined when it was taken, else what stands there now. */
    save: async (version: number, item: ShopItems[K]): Promise<Kept<ShopItems[K]> | null | undefined> => {
      const answer = await api.keep(shelf, version, item);
      if (!answer.saved) return answer.current;
      await put({ version: answer.version, updatedAt: new Date().toISOString(), item });
      return undefined;
    },
    remove: async (id: string) => {
      await api.discard(shelf, id);
      await refresh();
    },
    restore: async (id: string) => {
      await api.bringBack(shelf, id);
      await refresh();
    },
  };
}
