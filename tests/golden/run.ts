/** `npm run golden` writes what the product says and proves today; with `--check` it is held against what was written. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { CASES } from './cases';

const FILE = join(__dirname, 'golden.json');
const MOST_TOLD = 20;

type Value = unknown;
const isNested = (v: Value): v is Record<string, Value> => typeof v === 'object' && v !== null;

/** Where two values differ, by their path. */
function differences(path: string, was: Value, is: Value): string[] {
  if (isNested(was) && isNested(is))
    return [...new Set([...Object.keys(was), ...Object.keys(is)])].flatMap((key) =>
      differences(`${path} / ${key}`, was[key], is[key]),
    );
  return Object.is(was, is) ? [] : [`${path}: was ${JSON.stringify(was)}, is ${JSON.stringify(is)}`];
}

const made: Record<string, Value> = {};
/** Findings are held as they are told; what they are told from is in their words. */
const asTold = (_: string, value: Value) =>
  isNested(value) && 'remedy' in value && 'message' in value ? { ...value, data: undefined, times: undefined } : value;
for (const [name, make] of Object.entries(CASES)) made[name] = JSON.parse(JSON.stringify(make(), asTold));

if (process.argv.includes('--check')) {
  const found = differences('golden', JSON.parse(readFileSync(FILE, 'utf8')), made);
  for (const line of found.slice(0, MOST_TOLD)) process.stdout.write(`${line}\n`);
  process.stdout.write(
    found.length ? `${found.length} differences\n` : `${Object.keys(made).length} parts, all the same\n`,
  );
  process.exit(found.length ? 1 : 0);
}
writeFileSync(FILE, JSON.stringify(made, null, 2) + '\n');
