import {
  FORMAT_VERSION,
  Finding,
  Kept,
  SHELF_NAMES,
  SHELVES,
  ShelfName,
  ShopItems,
  readStored,
  finding,
} from '@tidypath/core';
import { handedOut, remember } from '../db/carry';
import type { Db } from '../db/open';

interface Stored {
  id: string;
  document: string;
  version: number;
  updated_at: string;
  format: number | null;
}

/** A save that was taken, or one that came too late, with what stands there now. */
export type ItemSave<T> = { saved: true; version: number } | { saved: false; current: Kept<T> | null };

/** Where a job keeps its copies of what stands on a shelf. */
const IN_JOB: Record<Exclude<ShelfName, 'recipes'>, string> = {
  tools: "SELECT 1 FROM json_each(document, '$.tools') AS t WHERE json_extract(t.value, '$.id') = @id",
  holders: "SELECT 1 FROM json_each(document, '$.tools') AS t WHERE json_extract(t.value, '$.holder.id') = @id",
  machines: "SELECT 1 WHERE json_extract(document, '$.machine.id') = @id",
  bars: "SELECT 1 FROM json_each(document, '$.setups') AS s WHERE json_extract(s.value, '$.stock.bar.id') = @id",
  controllers: "SELECT 1 WHERE json_extract(document, '$.controllerId') = @id",
  materials: "SELECT 1 WHERE json_extract(document, '$.material.id') = @id",
};

/** Keeps what the shop has: every write in a transaction, every save with the version it started from. */
export class ShopStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {}

  private read<K extends ShelfName>(shelf: K, { document, format }: Pick<Stored, 'document' | 'format'>) {
    return handedOut<ShopItems[K]>(document, (value) => {
      const { item, findings } = readStored(shelf, value, format);
      return { value: item, findings };
    });
  }

  private rows(shelf: ShelfName): Stored[] {
    return this.db
      .prepare<[string], Stored>(
        'SELECT id, document, version, updated_at, format FROM shop_items WHERE shelf = ? AND deleted_at IS NULL ORDER BY rowid',
      )
      .all(shelf);
  }

  list<K extends ShelfName>(shelf: K): Kept<ShopItems[K]>[] {
    return this.rows(shelf).flatMap((row) => {
      const read = this.read(shelf, row);
      return 'value' in read ? [{ version: row.version, updatedAt: row.updated_at, item: read.value }] : [];
    });
  }

  /** What stands on a shelf and cannot be read: one finding each, with the first thing that speaks against it. */
  unread(shelf: ShelfName): Finding[] {
    return this.rows(shelf).flatMap((row) => {
      const read = this.read(shelf, row);
      if ('value' in read) return [];
      const [first, ...more] = read.findings;
      const told = { one: SHELVES[shelf].one, id: row.id, first: first?.message ?? '', more: more.length };
      return [finding('stored-unread', told, { field: row.id })];
    });
  }

  private row(shelf: ShelfName, id: string): (Stored & { deleted_at: string | null }) | undefined {
    return this.db
      .prepare<[string, string], Stored & { deleted_at: string | null }>(
        'SELECT id, document, version, updated_at, format, deleted_at FROM shop_items WHERE shelf = ? AND id = ?',
      )
      .get(shelf, id);
  }

  /** Saves over `baseVersion` (0 for something new); one that started from an older version is refused. */
  save<K extends ShelfName>(shelf: K, baseVersion: number, item: ShopItems[K]): ItemSave<ShopItems[K]> {
    return this.db.transaction((): ItemSave<ShopItems[K]> => {
      const row = this.row(shelf, item.id);
      const version = row && !row.deleted_at ? row.version : 0;
      const document = JSON.stringify(item);
      // The answer to a save that was taken did not arrive, and it is sent again.
      if (row && version === baseVersion + 1 && row.document === document) return { saved: true, version };
      if (version !== baseVersion)
        return { saved: false, current: row && !row.deleted_at ? keptOf<ShopItems[K]>(row) : null };
      const next = (row?.version ?? 0) + 1;
      remember(document);
      this.db
        .prepare(
          `INSERT INTO shop_items (shelf, id, document, version, updated_at, format)
           VALUES (@shelf, @id, @document, @version, @at, @format)
           ON CONFLICT (shelf, id) DO UPDATE
           SET document = @document, version = @version, updated_at = @at, format = @format, deleted_at = NULL`,
        )
        .run({
          shelf,
          id: item.id,
          document,
          version: next,
          at: this.now(),
          format: FORMAT_VERSION,
        });
      return { saved: true, version: next };
    })();
  }

  /** Saves many at once: all of them, or none when one came too late. */
  saveAll<K extends ShelfName>(
    shelf: K,
    entries: { version: number; item: ShopItems[K] }[],
  ): { saved: boolean; late: string[] } {
    const late: string[] = [];
    try {
      this.db.transaction(() => {
        for (const { version, item } of entries) if (!this.save(shelf, version, item).saved) late.push(item.id);
        if (late.length) throw new Late();
      })();
    } catch (error) {
      if (!(error instanceof Late)) throw error;
    }
    return { saved: late.length === 0, late };
  }

  /** Puts something aside; `restore` brings it back. */
  remove(shelf: ShelfName, id: string): boolean {
    return (
      this.db
        .prepare('UPDATE shop_items SET deleted_at = coalesce(deleted_at, ?) WHERE shelf = ? AND id = ?')
        .run(this.now(), shelf, id).changes > 0
    );
  }

  restore(shelf: ShelfName, id: string): boolean {
    return (
      this.db.prepare('UPDATE shop_items SET deleted_at = NULL WHERE shelf = ? AND id = ?').run(shelf, id).changes > 0
    );
  }

  /** Jobs that hold a copy of it. */
  jobsUsing(shelf: ShelfName, id: string): { id: string; name: string }[] {
    if (shelf === 'recipes') return [];
    return this.db
      .prepare<{ id: string }, { id: string; name: string }>(
        `SELECT id, name FROM jobs WHERE deleted_at IS NULL AND EXISTS (${IN_JOB[shelf]}) ORDER BY name`,
      )
      .all({ id });
  }

  /** The starting shop: each shelf that has never held anything gets what it starts with. */
  seed(): void {
    const count = this.db.prepare<[string], { n: number }>('SELECT count(*) AS n FROM shop_items WHERE shelf = ?');
    this.db.transaction(() => {
      for (const shelf of SHELF_NAMES)
        if (count.get(shelf)!.n === 0) for (const item of SHELVES[shelf].start) this.save(shelf, 0, item as never);
    })();
  }
}

class Late extends Error {}

const keptOf = <T>(row: Stored): Kept<T> => ({
  version: row.version,
  updatedAt: row.updated_at,
  item: JSON.parse(row.document) as T,
});
