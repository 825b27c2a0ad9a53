import { resolve } from 'node:path';

/** The folder of the server: the same from its sources and from its bundle. */
export const SERVER = resolve(__dirname, '..');
