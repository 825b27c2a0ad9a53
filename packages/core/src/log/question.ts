/** Looking for entries of the log, and taking them elsewhere. */
import Papa from 'papaparse';
import { IsIn, IsISO8601, IsOptional, IsString, MaxLength } from 'class-validator';
import { KeptEntry, LOGGED_KINDS, LogRow } from './entry';
import { seenText } from './seen';

/** What is looked for; everything where nothing is said. */
export class LogQuestion {
  /** Words that all have to be somewhere in it. */
  @IsOptional() @IsString() @MaxLength(200) text?: string;
  @IsOptional() @IsIn([...LOGGED_KINDS, 'simulated']) kind?: KeptEntry['kind'];
  /** Id. */
  @IsOptional() @IsString() @MaxLength(40) machine?: string;
  @IsOptional() @IsISO8601() since?: string;
}

const seenOf = ({ seen = [] }: LogRow) => seen.map(seenText).filter(Boolean);

const wordsOf = (row: LogRow): string =>
  [row.jobName, row.setupName, row.machine, row.facts.material, row.kind, row.who, row.cause, row.remark]
    .concat(
      seenOf(row),
      row.facts.uses.map((u) => u.name),
    )
    .join(' ')
    .toLowerCase();

/** Whether an entry is one of those looked for. */
export function isAsked(row: LogRow, { text = '', kind, machine, since }: LogQuestion): boolean {
  if (kind && row.kind !== kind) return false;
  if (machine && row.machineId !== machine) return false;
  if (since && Date.parse(row.at) < Date.parse(since)) return false;
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return true;
  const all = wordsOf(row);
  return words.every((w) => all.includes(w));
}

/** Entries as CSV: one row each, times in s. */
export const logCsv = (rows: readonly LogRow[]): string =>
  Papa.unparse(
    rows.map((r) => ({
      ...{ at: r.at, who: r.who, kind: r.kind, job: r.jobName, setup: r.setupName, release: r.number },
      ...{ machine: r.machine, material: r.facts.material, parts: r.parts, scrapped: r.scrapped, cause: r.cause ?? '' },
      ...{ seconds: r.seconds ?? '', computed_s: Math.round(r.computed * 10) / 10, seen: seenOf(r).join('; ') },
      ...{ remark: r.remark, photos: r.photos?.length ?? 0, id: r.id },
    })),
    { newline: '\n', escapeFormulae: true },
  ) + '\n';

/** Entries as JSON, whole. */
export const logJson = (rows: readonly LogRow[]): string =>
  JSON.stringify({ format: 'tidypath-log', version: 1, entries: rows }, null, 1) + '\n';
