import { plainToInstance } from 'class-transformer';
import { ValidationError, validateSync } from 'class-validator';
import { Finding, finding } from './finding';

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

/** What is too much to be looked at value by value; looked for without going down the stack. */
function overSize(root: unknown): Finding | undefined {
  const open: { value: unknown; path: string[] }[] = [{ value: root, path: [] }];
  let seen = 0;
  const at = (path: string[]) => ({ field: path.slice(0, DEEPEST).join('.') });
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, path } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (path.length > DEEPEST) return finding('too-deep', { deepest: DEEPEST }, at(path));
    for (const [key, inner] of Object.entries(value)) {
      if (++seen > MOST_VALUES) return finding('too-many-values', { millions: MOST_VALUES / 1e6 }, at(path));
      if (typeof inner === 'object' && inner !== null) open.push({ value: inner, path: [...path, key] });
    }
  }
  return undefined;
}

/**
 * Checks plain data against a described class: its size first, then every field; unknown fields are refused by name.
 * @param path where the data lies in its document, for the places of findings
 */
export function checked(type: new () => object, value: object, path = ''): Finding[] {
  const over = overSize(value);
  return over ? [over] : fieldFindings(validateSync(plainToInstance(type, value), RULES), path);
}
