import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseJob } from '@tidypath/core';
import type { JobStore } from './store';

/** The demo shop's jobs, put in when there are none at all. */
export function seedDemo(store: JobStore, folder: string): number {
  if (!store.isEmpty) return 0;
  const files = readdirSync(folder)
    .filter((f) => f.endsWith('.json'))
    .sort();
  for (const file of files) {
    const { job, findings } = parseJob(readFileSync(join(folder, file), 'utf8'));
    if (!job) throw new Error(`Demo job ${file}: ${findings.map((f) => f.message).join('; ')}`);
    store.create(job);
  }
  return files.length;
}
