/** Where tests keep a database of their own. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

export const root = resolve(__dirname, '../../..');
export const folder = () => mkdtempSync(join(tmpdir(), 'tidypath-server-'));
