import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { Job, openJob, sha256Of } from '@tidypath/core';
import type { FileStore } from '../db/files';
import type { JobStore } from './store';

/** The demo shop's jobs, put in when there are none at all; those of solids come with their files. */
export async function seedDemo(store: JobStore, files: FileStore, folder: string): Promise<number> {
  if (!store.isEmpty) return 0;
  const names = readdirSync(folder)
    .filter((f) => /\.(json|zip)$/.test(f))
    .sort();
  const jobs: Job[] = [];
  for (const name of names) {
    const { job, findings, files: own = [] } = openJob(new Uint8Array(readFileSync(join(folder, name))));
    if (!job) throw new Error(`Demo job ${name}: ${findings.map((f) => f.message).join('; ')}`);
    for (const bytes of own) await files.keep(sha256Of(bytes), Readable.from([bytes]));
    jobs.push(job);
  }
  jobs.forEach((job) => store.create(job));
  return names.length;
}
