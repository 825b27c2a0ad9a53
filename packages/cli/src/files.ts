import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import {
  Finding,
  Job,
  Setup,
  ShelfName,
  ShopItems,
  hasStop,
  missingFiles,
  openJob,
  putAtHand,
  readItem,
} from '@tidypath/core';

/** What was typed cannot be done as it stands; told without a stack. */
export class UsageError extends Error {}

export const print = (text: string): void => void process.stdout.write(`${text}\n`);

/** Writes a file into a folder, which is made where it is not there, and says where it is. */
export function writeInto(folder: string, name: string, content: string | Uint8Array): void {
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, name), content);
  print(join(folder, name));
}

export function readBytes(path: string | undefined, what: string): Buffer {
  if (!path) throw new UsageError(`Name ${what}`);
  try {
    return readFileSync(path);
  } catch {
    throw new UsageError(`${path} cannot be read`);
  }
}

export const readText = (path: string | undefined, what: string): string => readBytes(path, what).toString('utf8');

type Options = Record<string, { type: 'string' | 'boolean' }>;

/** Splits arguments into positionals and known options; an unknown option is told, not ignored. */
export function parse<T extends Options>(args: string[], options: T) {
  try {
    return parseArgs({ args, options, allowPositionals: true, strict: true });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

/** A number in a range, or what was left out. */
export function numberOption(text: unknown, name: string, min: number, max: number): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!Number.isFinite(value) || value < min || value > max)
    throw new UsageError(`--${name} takes a number from ${min} to ${max}`);
  return value;
}

/** One of some words, or what was left out. */
export function oneOf<T extends string>(text: unknown, name: string, words: readonly T[]): T | undefined {
  if (text === undefined) return undefined;
  if (!words.includes(text as T)) throw new UsageError(`--${name} takes one of: ${words.join(', ')}`);
  return text as T;
}

/** Something of the shop from a file: what it does not say is taken from what is usual, what cannot be is told. */
export function fromFile<K extends ShelfName>(
  shelf: K,
  path: string,
  usual: (given: Record<string, unknown>) => object,
): ShopItems[K] {
  let given: unknown;
  try {
    given = JSON.parse(readText(path, 'a file'));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${path} is no JSON`);
  }
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    throw new UsageError(`${path} holds no object`);
  const own = given as Record<string, unknown>;
  const { item, findings } = readItem(shelf, { ...usual(own), ...own });
  if (!item) throw new UsageError(`${path}: ${findings.map((f) => f.message).join('; ')}`);
  return item;
}

const placeOf = ({ place }: Finding) =>
  [
    place.line && `line ${place.line}`,
    place.operation && `operation ${place.operation}`,
    place.feature && `feature ${place.feature}`,
    place.field,
  ]
    .filter(Boolean)
    .join(', ');

export const findingLine = (f: Finding) =>
  `${f.level}: ${f.message}${placeOf(f) ? ` [${placeOf(f)}]` : ''}\n      ${f.remedy}`;

/** Prints findings, and returns 1 when one of them is a stop. */
export function report(findings: Finding[]): number {
  for (const f of findings) process.stdout.write(`${findingLine(f)}\n`);
  return hasStop(findings) ? 1 : 0;
}

/** The job in a file, plain or with its files; those that lie in a folder `files` beside it are taken as well. Findings are printed. */
export function loadJob(path: string | undefined): Job | undefined {
  const { job, findings, files } = openJob(readBytes(path, 'a job file'));
  report(findings);
  files?.forEach(putAtHand);
  for (const { sha256 } of job ? missingFiles(job) : []) {
    const beside = join(dirname(path!), 'files', sha256);
    if (existsSync(beside)) putAtHand(readFileSync(beside));
  }
  return job;
}

export function pickSetup(job: Job, id: string | undefined): Setup {
  const setup = id ? job.setups.find((s) => s.id === id) : job.setups[0];
  if (!setup) throw new UsageError(`The job has no setup “${id}”; it has ${job.setups.map((s) => s.id).join(', ')}`);
  return setup;
}
