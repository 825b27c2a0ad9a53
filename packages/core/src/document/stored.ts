import { IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Matches, Max, Min } from 'class-validator';
import type { ShelfName } from '../shop/shelves';
import type { Thumbnail } from '../part/plate/outline-path';
import type { Job } from './job';

/** A stored job with the version a save must name. */
export interface JobRow {
  id: string;
  version: number;
  updatedAt: string;
  job: Job;
}

/** What was last known of one setup of a job, told by whoever had it open. */
export class Standing {
  /** The version of the job it is about. */
  @IsInt() @Min(1) version!: number;
  @IsString() @Length(1, 40) setupId!: string;
  /** Findings that stand in the way of its program. */
  @IsInt() @Min(0) @Max(1e6) stops!: number;
  @IsNumber() @Min(0) @Max(1e9) seconds!: number;
}

/** How far a job is: `proved` is every setup that has operations, as the job stands now. */
export const JOB_STATES = ['empty', 'not proved', 'out of date', 'to cure', 'proved', 'released'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** A stored job in a list. */
export interface JobSummary {
  id: string;
  name: string;
  version: number;
  updatedAt: string;
  thumbnail: Thumbnail;
  material: string;
  machine: string;
  customerNumber: string;
  tags: string[];
  state: JobState;
  /** Findings that stop it, where it is to be cured. */
  stops: number;
  /** Of all its programs, s; 0 where nobody has proved them all. */
  seconds: number;
  archived: boolean;
  /** When it was deleted; it stands in the bin until it is taken out or its days are over. */
  deletedAt?: string;
}

export const JOB_ORDERS = ['changed', 'name', 'state', 'time'] as const;
export type JobOrder = (typeof JOB_ORDERS)[number];
export const JOB_PLACES = ['list', 'archive', 'bin'] as const;
export type JobPlace = (typeof JOB_PLACES)[number];

/** Which stored jobs are asked for; what is left out is not asked about. */
export interface JobQuestion {
  /** Words in its name, its tags or its customer's number. */
  words?: string;
  material?: string;
  machine?: string;
  tag?: string;
  state?: JobState;
  place?: JobPlace;
  order?: JobOrder;
  /** From 0. */
  page?: number;
}

/** Jobs of one page. */
export const JOBS_PER_PAGE = 24;

/** A job as it once was: the saves of one device within ten minutes, a save that came too late, or a release. */
export interface JobVersion {
  id: string;
  version: number;
  at: string;
  /** Whoever saved it, or the device. */
  who: string;
  kind: 'saved' | 'refused' | 'released';
}

/** A save that was taken, or one that came too late: the version in force, and where the late one is kept. */
export type SaveResult = { saved: true; version: number } | { saved: false; current: JobRow; keptId: string };

/** The stages of a job, in order. */
export const STAGES = ['part', 'hold', 'cut', 'prove', 'release', 'run'] as const;
export type Stage = (typeof STAGES)[number];

/** Where a page is in a job: told to the others who have it open, and kept nowhere. */
export class Place {
  @Matches(/^[0-9a-f-]{32,36}$/) job!: string;
  @IsIn(STAGES) stage!: Stage;
  @IsOptional() @IsString() @Length(1, 40) setupId?: string;
  /** The operation that is open. */
  @IsOptional() @IsString() @Length(1, 40) operationId?: string;
  /** The second of the proof that is shown. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e9) second?: number;
}

/** Something that changed at the server, told to every page: what is to be asked for anew. */
export type ShopEvent =
  /** A job, with the version it has now; the list of them where no id is given. */
  | { kind: 'job'; id: string; version: number }
  /** Something on a shelf of the shop. */
  | { kind: 'shelf'; shelf: ShelfName }
  /** A release, what is said of one, or how programs are handed out. */
  | { kind: 'releases' }
  /** A run began, or something happened in one. */
  | { kind: 'runs' }
  /** What the control of a run's machine shows now. */
  | { kind: 'machine'; run: string; shown: object }
  /** Somebody planned and proved what has this key. */
  | { kind: 'result'; key: string }
  /** Where a page is now, and who sits there; no place: it has left. */
  | { kind: 'here'; page: string; who: string; place?: Place }
  /** More than can be told any more. */
  | { kind: 'missed' };
