import stringify from 'fast-json-stable-stringify';
import murmur from 'murmurhash';

/** A short key of everything `value` holds: equal values give equal keys, on every machine. */
export function hashOf(value: unknown): string {
  const text = stringify(value) ?? '';
  return murmur.v3(text, 1).toString(36) + '-' + murmur.v3(text, 2).toString(36);
}
