import stringify from 'fast-json-stable-stringify';
import murmur from 'murmurhash';

const keyOf = (text: string) => murmur.v3(text, 1).toString(36) + '-' + murmur.v3(text, 2).toString(36);

/** A short key of everything `value` holds: equal values give equal keys, on every machine. */
export const hashOf = (value: unknown): string => keyOf(stringify(value) ?? '');

/** A short key of long rows of numbers, as they are kept. */
export function keyOfNumbers(rows: (Float64Array | Uint8Array)[]): string {
  const bytes = rows.map((row) => new Uint8Array(row.buffer, row.byteOffset, row.byteLength));
  return bytes.map((b) => `${murmur.v3(b, 1).toString(36)}-${murmur.v3(b, 2).toString(36)}`).join('.');
}

/** Letters of a long text that are taken at once. */
const PIECE = 1_000_000;

/** A short key of a whole text, however long; in steps, for whoever has to breathe in between. */
export function* textKeySteps(text: string): Generator<void, string> {
  const keys: string[] = [];
  for (let at = 0; at < text.length; at += PIECE) {
    keys.push(keyOf(text.slice(at, at + PIECE)));
    yield;
  }
  return hashOf(keys);
}
