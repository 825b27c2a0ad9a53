/** The one door for stored jobs: they are read with every kind of operation there is. */
import { Job } from '../document/job';
import { parseJob as parseWith, readJob as readWith } from '../document/read';
import { Finding } from '../quantity/finding';
import { KINDS } from '../operation/registry';

type Read = { job?: Job; findings: Finding[] };

/** Checks plain data as a job; see `document/read`. */
export const readJob = (value: unknown): Read => readWith(value, KINDS);

/** Reads a job file's text. */
export const parseJob = (text: string): Read => parseWith(text, KINDS);
