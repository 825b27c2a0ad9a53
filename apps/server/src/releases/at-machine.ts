/** What is said of a release by whoever stands at the machine: rows that are only added. */
import { CorrectionEntry, KeptCorrection, KeptSize, KeptTick, ReleaseView, SizeEntry, TickEntry } from '@tidypath/core';
import type { Db } from '../db/open';
import type { Author } from '../guard/author';

export class AtMachine {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date,
  ) {}

  /** All of it, the oldest first. */
  of = (id: string): Pick<ReleaseView, 'ticks' | 'sizes' | 'corrections'> => ({
    ticks: this.ticks(id),
    sizes: this.sizes(id),
    corrections: this.corrections(id),
  });

  private ticks = (id: string): KeptTick[] =>
    this.db
      .prepare<[string], { item: string; is_so: number; who: string; at: string }>(
        'SELECT item, is_so, who, at FROM release_ticks WHERE release_id = ? ORDER BY n',
      )
      .all(id)
      .map(({ is_so, ...tick }) => ({ ...tick, isSo: is_so === 1 }));

  private sizes = (id: string): KeptSize[] =>
    this.db
      .prepare<[string], KeptSize & { replaces: string | null }>(
        `SELECT coalesce(id, CAST(n AS TEXT)) AS id, size, measured, part, replaces, who, at FROM release_sizes
         WHERE release_id = ? ORDER BY n`,
      )
      .all(id)
      .map(({ replaces, ...size }) => ({ ...size, ...(replaces !== null && { replaces }) }));

  private corrections = (id: string): KeptCorrection[] =>
    this.db
      .prepare<[string], KeptCorrection>(
        'SELECT id, size, by_mm AS by, who, at FROM release_corrections WHERE release_id = ? ORDER BY n',
      )
      .all(id);

  tick(id: string, { item, isSo }: TickEntry, { who }: Author): void {
    this.db
      .prepare('INSERT INTO release_ticks (release_id, item, is_so, who, at) VALUES (?, ?, ?, ?, ?)')
      .run(id, item, Number(isSo), who, this.now().toISOString());
  }

  measure(releaseId: string, { id, size, measured, part, replaces }: SizeEntry, { who }: Author): void {
    this.db
      .prepare(
        'INSERT OR IGNORE INTO release_sizes (id, release_id, size, measured, part, replaces, who, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      )
      .run(id ?? null, releaseId, size, measured, part ?? 1, replaces ?? null, who, this.now().toISOString());
  }

  correct(releaseId: string, { id, size, by }: CorrectionEntry, { who }: Author): void {
    this.db
      .prepare(
        'INSERT OR IGNORE INTO release_corrections (id, release_id, size, by_mm, who, at) VALUES (?, ?, ?, ?, ?, ?)',
      )
      .run(id, releaseId, size, by, who, this.now().toISOString());
  }
}
