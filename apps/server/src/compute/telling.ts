/** Long work asked for over HTTP: how far it is, a line of JSON for each word, until it ends or whoever asked goes away. */
import type { Response } from 'express';
import { Job, filesOf } from '@tidypath/core';
import type { FileStore } from '../db/files';

/** The files a job names that are kept here. */
export const filesFor = (files: FileStore, job: Job): Uint8Array[] =>
  filesOf(job)
    .filter(({ sha256 }) => files.size(sha256) !== undefined)
    .map(({ sha256 }) => Buffer.concat([...files.pieces(sha256)]));

/** Ends with the connection. */
export function leaving(res: Response): AbortSignal {
  const left = new AbortController();
  res.on('close', () => left.abort());
  return left.signal;
}

/** Begins an answer of lines; what says one. */
export function telling(res: Response): (word: object) => void {
  // Packed it would be held back.
  res.set({ 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store, no-transform' });
  res.flushHeaders();
  return (word) => void res.write(`${JSON.stringify(word)}\n`);
}
