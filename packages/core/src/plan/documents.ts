/** The one door for stored jobs: they are read with every kind of operation there is. */
import { openJob as openWith } from '../document/package';
import { ReadJob, parseJob as parseWith, readJob as readWith } from '../document/read';
import { HOLDINGS } from '../holding/registry';
import { ALL_KINDS } from '../operation/registry';

/** Every kind a job may name. */
export const STORED_KINDS = { operations: ALL_KINDS, holdings: HOLDINGS };

/** Checks plain data as a job; see `document/read`. */
export const readJob = (value: unknown): ReadJob => readWith(value, STORED_KINDS);

/** Reads a job file's text. */
export const parseJob = (text: string): ReadJob => parseWith(text, STORED_KINDS);

/** Reads a job file of either kind, plain or with its files. */
export const openJob = (file: Uint8Array): ReadJob => openWith(file, STORED_KINDS);
