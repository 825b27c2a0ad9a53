/** What is written down of a run: rows are only added, a correction takes the place of the row it names. */
import { IsIn, IsInt, IsNumber, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import type { Machine } from '../machine/machine';
import type { Clock } from '../simulate/clock';
import type { TimedRun } from './time';

/** What somebody can log by hand; what ran on the simulated machine logs itself. */
export const LOGGED_KINDS = ['production', 'prove-out', 'trial'] as const;
export type LoggedKind = (typeof LOGGED_KINDS)[number];

const ID = /^[0-9a-f-]{32,36}$/;

export class LogEntry {
  /** Made where it is written, so that sent twice it is the same. */
  @Matches(ID) id!: string;
  @IsIn(LOGGED_KINDS) kind!: LoggedKind;
  @IsInt() @Min(0) @Max(100_000) parts!: number;
  /** Of the parts. */
  @IsInt() @Min(0) @Max(100_000) scrapped!: number;
  /** From start to end of one part, s, without what was held; where somebody looked. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(1e6) seconds?: number;
  @IsString() @MaxLength(1000) remark!: string;
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

/** What of a run's time was computed, without what was learnt of its machine before. */
export function computedTime(
  { extraTime = 0, toolChangeSeconds }: Pick<Machine, 'extraTime' | 'toolChangeSeconds'>,
  { cut, rapid, dwell, toolChange }: Pick<Clock, 'cut' | 'rapid' | 'dwell' | 'toolChange'>,
): Omit<TimedRun, 'seconds'> {
  return {
    dwell: 60 * dwell,
    moves: (60 * (cut + rapid)) / (1 + extraTime),
    changes: toolChangeSeconds > 0 ? Math.round((60 * toolChange) / toolChangeSeconds) : 0,
  };
}

/** Entries that stand: those that a later one corrects do not. */
export function standing<T extends Pick<LogEntry, 'id' | 'replaces'>>(entries: readonly T[]): T[] {
  const gone = new Set(entries.map((e) => e.replaces));
  return entries.filter((e) => !gone.has(e.id));
}

/** What a machine's log says of its time, and what is counted now. */
export interface MachineTime {
  /** What would be counted; undefined where there are too few runs. */
  proposed?: { extraTime: number; toolChangeSeconds: number };
  /** Runs it is from, and how many of them fitted nothing. */
  runs: number;
  outliers: number;
  /** Whether they are of the simulated machine. */
  simulated: boolean;
  now: { extraTime: number; toolChangeSeconds: number };
  /** What was taken over last and not undone. */
  taken?: { at: string; who: string; runs: number; before: { extraTime: number; toolChangeSeconds: number } };
}
