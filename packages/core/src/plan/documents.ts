/** The one door for stored jobs: they are read with every kind of operation there is. */
import { openJob as openWith } from '../document/package';
import { ReadJob, parseJob as parseWith, readJob as readWith } from '../document/read';
import { ALL_KINDS } from '../operation/registry';

/** Checks plain data as a job; see `document/read`. */
export const readJob = (value: unknown): ReadJob => readWith(value, ALL_KINDS);

/** Reads a job file's text. */
export const parseJob = (text: string): ReadJob => parseWith(text, ALL_KINDS);

/** Reads a job file of either kind, plain or with its files. */
export const openJob = (file: Uint8Array): ReadJob => openWith(file, ALL_KINDS);
