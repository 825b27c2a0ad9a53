import type { CommentEntry, KeptComment } from '@tidypath/core';
import type { Db } from '../db/open';
import type { Author } from '../guard/author';

/** What is asked and answered at operations of jobs. */
export class Comments {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {}

  of = (jobId: string): KeptComment[] =>
    this.db
      .prepare<[string], KeptComment>('SELECT id, operation, text, who, at FROM comments WHERE job_id = ? ORDER BY n')
      .all(jobId);

  /** Said again it was said once; false where there is no such job. */
  add(jobId: string, { id, operation, text }: CommentEntry, { who }: Author): boolean {
    return this.db.transaction(() => {
      if (!this.db.prepare('SELECT 1 FROM jobs WHERE id = ?').get(jobId)) return false;
      this.db
        .prepare('INSERT OR IGNORE INTO comments (id, job_id, operation, text, who, at) VALUES (?, ?, ?, ?, ?, ?)')
        .run(id, jobId, operation, text, who, this.now().toISOString());
      return true;
    })();
  }
}
