/** What is written down of runs: rows are only added, a correction takes the place of the row it names. */
import {
  ArrayMaxSize,
  ArrayUnique,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { ListOf } from '../quantity/nested';
import type { Facts } from './facts';
import { Seen } from './seen';

/** What somebody can log by hand; what ran on the simulated machine logs itself. */
export const LOGGED_KINDS = ['production', 'prove-out', 'trial'] as const;
export type LoggedKind = (typeof LOGGED_KINDS)[number];

/** Why parts are scrapped. */
export const SCRAP_CAUSES = [
  'size',
  'finish',
  'broken tool',
  'wrong zero or length',
  'came loose',
  'material',
  'other',
] as const;
export type ScrapCause = (typeof SCRAP_CAUSES)[number];

const ID = /^[0-9a-f-]{32,36}$/;
/** Operations an entry tells of, and photos it brings. */
const MOST_SEEN = 200;
export const MOST_PHOTOS = 6;

export class LogEntry {
  /** Made where it is written, so that sent twice it is the same. */
  @Matches(ID) id!: string;
  @IsIn(LOGGED_KINDS) kind!: LoggedKind;
  @IsInt() @Min(0) @Max(100_000) parts!: number;
  /** Of the parts. */
  @IsInt() @Min(0) @Max(100_000) scrapped!: number;
  @IsOptional() @IsIn(SCRAP_CAUSES) cause?: ScrapCause;
  /** From start to end of one run of the program, s, without what was held; where somebody looked. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(1e6) seconds?: number;
  @IsString() @MaxLength(1000) remark!: string;
  @IsOptional() @ListOf(() => Seen, MOST_SEEN) seen?: Seen[];
  /** SHA-256 of each, sent before. */
  @IsOptional() @Matches(/^[0-9a-f]{64}$/, { each: true }) @ArrayMaxSize(MOST_PHOTOS) @ArrayUnique() photos?: string[];
  /** The entry it corrects. */
  @IsOptional() @Matches(ID) replaces?: string;
}

/** An entry as it is kept. */
export interface KeptEntry extends Omit<LogEntry, 'kind'> {
  kind: LoggedKind | 'simulated';
  releaseId: string;
  /** ISO 8601. */
  at: string;
  who: string;
}

/** An entry among those of all jobs: what it is about, and what was computed of it. */
export interface LogRow extends KeptEntry {
  jobId: string;
  jobName: string;
  setupName: string;
  /** Of its release. */
  number: number;
  machineId: string;
  machine: string;
  /** s of a run, as computed when it was released. */
  computed: number;
  facts: Facts;
}

/** A row that may take the place of an earlier one; its time is empty where it was not sent yet. */
type Correcting = Pick<LogEntry, 'id' | 'replaces'> & { at?: string };

/** Entries that stand, those that a later one corrects do not: each in the place of the first it corrects, and of its time. */
export function standing<T extends Correcting>(entries: readonly T[]): T[] {
  const places = new Map<string, number>();
  entries.forEach(({ id, replaces }, i) =>
    places.set(id, (replaces === undefined ? undefined : places.get(replaces)) ?? i),
  );
  const gone = new Set(entries.map((e) => e.replaces));
  return entries
    .filter((e) => !gone.has(e.id))
    .sort((a, b) => places.get(a.id)! - places.get(b.id)!)
    .map((e) => {
      const { at } = entries[places.get(e.id)!];
      return e.at && at !== e.at ? { ...e, at } : e;
    });
}

/** Why an entry is none, beside what its fields say; undefined where it is one. */
export function entryFault({
  parts,
  scrapped,
  cause,
}: Pick<LogEntry, 'parts' | 'scrapped' | 'cause'>): string | undefined {
  if (scrapped > parts) return 'More are scrapped than were made';
  return cause && scrapped === 0 ? 'There is a cause of scrap, and no scrap' : undefined;
}
