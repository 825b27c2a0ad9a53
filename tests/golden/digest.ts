/** Short marks of large values: equal values, equal marks. */
import { createHash } from 'node:crypto';
import stringify from 'fast-json-stable-stringify';

function feed(hash: ReturnType<typeof createHash>, value: unknown): void {
  if (ArrayBuffer.isView(value))
    hash.update(value.constructor.name).update(new Uint8Array(value.buffer, value.byteOffset, value.byteLength));
  else if (value instanceof Map || value instanceof Set) feed(hash, [...value]);
  else if (Array.isArray(value)) {
    hash.update('[');
    for (const v of value) feed(hash, v);
    hash.update(']');
  } else if (typeof value === 'object' && value !== null) {
    for (const [key, v] of Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1))) {
      if (v === undefined) continue;
      hash.update(`{${key}:`);
      feed(hash, v);
    }
    hash.update('}');
  } else hash.update(stringify(value) ?? 'undefined').update(';');
}

/** A mark of any plain value, typed arrays bit by bit; what is undefined counts as left out. */
export function digest(value: unknown): string {
  const hash = createHash('sha256');
  feed(hash, value);
  return hash.digest('hex').slice(0, 16);
}
