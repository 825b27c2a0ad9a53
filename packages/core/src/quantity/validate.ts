import { plainToInstance } from 'class-transformer';
import { ValidationError, validateSync } from 'class-validator';
import { Finding, finding } from './finding';
import { innerOf } from './nested';

/** Unknown fields are refused by name, never dropped. */
const RULES = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } as const;

/** Field faults of class-validator as findings, each with its dotted path. */
function fieldFindings(errors: ValidationError[], path = ''): Finding[] {
  return errors.flatMap((e) => {
    const field = path ? `${path}.${e.property}` : e.property;
    const own = Object.entries(e.constraints ?? {}).map(([rule, text]) =>
      rule === 'whitelistValidation'
        ? finding('unknown-field', { field }, { field })
        : finding('bad-field', { field, why: text }, { field }),
    );
    return [...own, ...fieldFindings(e.children ?? [], field)];
  });
}

/** Values one document may hold, lists and objects counted too, and how deep they may lie in each other. */
const MOST_VALUES = 3_000_000;
const DEEPEST = 40;
/** Fields one object may have: none that anybody describes has as many. */
const MOST_FIELDS = 500;
/** Names that mean something to the language itself. */
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);

/** What no document may be, whatever it describes: too much to be looked at value by value; looked for without going down the stack. */
export function misshapen(root: unknown): Finding | undefined {
  const open: { value: unknown; path: string[] }[] = [{ value: root, path: [] }];
  let seen = 0;
  const at = (path: string[]) => ({ field: path.slice(0, DEEPEST).join('.') });
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, path } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (path.length > DEEPEST) return finding('too-deep', { deepest: DEEPEST }, at(path));
    const isList = Array.isArray(value);
    const entries = Object.entries(value);
    if (!isList && entries.length > MOST_FIELDS)
      return finding('too-many-fields', { count: entries.length, most: MOST_FIELDS }, at(path));
    for (const [key, inner] of entries) {
      if (RESERVED.has(key)) return finding('reserved-field', { field: key }, at([...path, key]));
      if (isList && Array.isArray(inner)) return finding('list-in-list', { field: path.join('.') }, at([...path, key]));
      if (++seen > MOST_VALUES) return finding('too-many-values', { millions: MOST_VALUES / 1e6 }, at(path));
      if (typeof inner === 'object' && inner !== null) open.push({ value: inner, path: [...path, key] });
    }
  }
  return undefined;
}

/** Lists that are longer than they may be: looked for before anything of them is read. */
function tooLong(type: new () => object, value: object, path: string): Finding | undefined {
  for (const { key, type: inner, most } of innerOf(type)) {
    const held = (value as Record<string, unknown>)[key];
    const field = path ? `${path}.${key}` : key;
    if (typeof held !== 'object' || held === null) continue;
    if (most === undefined) {
      const found = tooLong(inner(), held, field);
      if (found) return found;
    } else if (Array.isArray(held)) {
      if (held.length > most) return finding('list-too-long', { field, count: held.length, most }, { field });
      for (let i = 0; i < held.length; i++) {
        const found = held[i] && tooLong(inner(), held[i] as object, `${field}.${i}`);
        if (found) return found;
      }
    }
  }
  return undefined;
}

/**
 * Checks plain data against a described class: its size first, then every field; unknown fields are refused by name.
 * @param path where the data lies in its document, for the places of findings
 */
export function checked(type: new () => object, value: object, path = ''): Finding[] {
  const over = misshapen(value) ?? tooLong(type, value, path);
  return over ? [over] : fieldFindings(validateSync(plainToInstance(type, value), RULES), path);
}

/** Plain data as a described class; undefined, with what speaks against it, where it is none. */
export function readAs<T extends object>(type: new () => T, value: unknown): { value?: T; findings: Finding[] } {
  const isObject = typeof value === 'object' && value !== null && !Array.isArray(value);
  const findings = isObject
    ? checked(type, value)
    : [finding('bad-field', { field: 'it', why: 'it must be an object' })];
  return findings.length ? { findings } : { value: value as T, findings };
}
