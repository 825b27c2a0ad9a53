/** A release: what is kept of a program that was handed out, and whether it may be run. */
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import type { Finding } from '../quantity/finding';
import type { Job } from '../document/job';
import type { ProofView } from '../view/terms';
import type { Check } from './preflight';
import type { Plunge } from './plunges';
import type { KeptCorrection, KeptSize } from './sizes';
import { PartHashes, ReleasePart, ReleasedProgram, rowOf } from './root';

/** What is kept of a proof: everything that is read, nothing that is drawn over time. */
export type ProofSummary = Pick<
  ProofView,
  'findings' | 'clock' | 'steps' | 'grip' | 'wear' | 'energy' | 'called' | 'removed' | 'grid' | 'places'
>;

/** A setup planned, posted and proved for a release; its programs still without the digits of their root. */
export interface Proven {
  programs: ReleasedProgram[];
  checks: Check[];
  proof: ProofSummary;
  plunges: Plunge[];
}

/** All that is kept of a release beside its programs; never changed. */
export interface ReleaseBody {
  job: Job;
  setupId: string;
  parts: PartHashes;
  root: string;
  accepted: Finding[];
  checks: Check[];
  proof: ProofSummary;
  plunges: Plunge[];
}

/** What is asked of the server to release a setup. */
export class ReleaseAsk {
  /** The version of the job that was looked at. */
  @IsInt() @Min(1) @Max(1e9) version!: number;
  /** Keys of the findings that are accepted. */
  @Matches(/^[0-9a-f]{64}$/, { each: true }) accepted!: string[];
}

export const ANSWERS = ['approve', 'approve for single block', 'refuse'] as const;
export type Answer = (typeof ANSWERS)[number];

/** What an approver looks at. */
export const LOOKED_AT = [
  'what was accepted',
  'how it is held',
  'the heaviest moments',
  'the program, played through',
  'what differs from the last',
] as const;

/** What somebody who may approve says of a release. */
export class AnswerEntry {
  @IsIn(ANSWERS) answer!: Answer;
  /** The root they looked at. */
  @Matches(/^[0-9a-f]{64}$/) root!: string;
  @IsString() @MaxLength(1000) remark!: string;
  /** What they looked at. */
  @IsArray() @ArrayMaxSize(LOOKED_AT.length) @IsIn(LOOKED_AT, { each: true }) checks!: (typeof LOOKED_AT)[number][];
}

/** An answer as it is kept. */
export interface KeptAnswer extends AnswerEntry {
  who: string;
  /** ISO 8601. */
  at: string;
}

/** Something of a checklist that was seen to, or is not so. */
export class TickEntry {
  @IsString() @Length(1, 60) item!: string;
  @IsBoolean() isSo!: boolean;
}

export interface KeptTick extends TickEntry {
  who: string;
  at: string;
}

/** How long an approval stands, days. */
export const APPROVED_DAYS = 30;

/** Whether a release may be run, and why. */
export type ReleaseState =
  | { state: 'released' }
  | { state: 'waiting' }
  | { state: 'approved'; by: string; at: string; singleBlock: boolean }
  | { state: 'refused'; by: string; at: string; remark: string }
  | { state: 'void'; why: string };

/** How a release stands against its job as it is now. */
export interface AgainstJob {
  /** Whether everything its program is made from is as it was. */
  same: boolean;
  /** Parts that are others. */
  changed: ReleasePart[];
}

/** How an approval is told. */
export const APPROVED_WORDS = {
  approve: 'Approved',
  'approve for single block': 'Approved for single block',
} as const;

const PART_WORDS: Record<ReleasePart, string> = {
  findings: 'what was accepted',
  hold: 'how the work is held',
  machine: 'the machine',
  material: 'the material',
  program: 'the work itself',
  tools: 'the tools',
};

/** What of a release is another in its job now, in words; empty where nothing is. */
export const changedWords = ({ same, changed }: AgainstJob): string =>
  same && changed.length === 0
    ? ''
    : rowOf((changed.length > 0 ? changed : (['program'] as const)).map((p) => PART_WORDS[p]));

const DAY = 24 * 3600_000;

/**
 * Whether a release may be run.
 * @param answers in the order they were given; the last one counts
 * @param needsApproval whether somebody has to approve it first
 * @param now ms since 1970
 */
export function stateOf(answers: KeptAnswer[], needsApproval: boolean, against: AgainstJob, now: number): ReleaseState {
  const free: ReleaseState = needsApproval ? { state: 'waiting' } : { state: 'released' };
  const last = answers[answers.length - 1];
  if (!last) return free;
  const { answer, who: by, at, remark } = last;
  if (answer === 'refuse') return { state: 'refused', by, at, remark };
  const changed = changedWords(against);
  const isOld = now - Date.parse(at) > APPROVED_DAYS * DAY;
  const why = changed ? `${changed} changed since` : isOld ? `approved more than ${APPROVED_DAYS} days ago` : '';
  if (why) return needsApproval ? { state: 'void', why } : free;
  return { state: 'approved', by, at, singleBlock: answer === 'approve for single block' };
}

/** Whether its programs are handed out. */
export const isHandedOut = ({ state }: ReleaseState): boolean => state === 'released' || state === 'approved';

/** A release in a list. */
export interface ReleaseRow {
  id: string;
  jobId: string;
  jobName: string;
  setupId: string;
  setupName: string;
  machine: string;
  /** Counted within its job from 1. */
  number: number;
  version: number;
  at: string;
  who: string;
  root: string;
  seconds: number;
  files: string[];
  /** Tools to load before it runs, as its machine stood then. */
  toLoad: string[];
  /** Whether somebody has to approve it before it is handed out. */
  needsApproval: boolean;
  state: ReleaseState;
  against: AgainstJob;
}

/** A release with all that is kept of it but its programs. */
export interface ReleaseView extends ReleaseRow {
  body: ReleaseBody;
  answers: KeptAnswer[];
  ticks: KeptTick[];
  sizes: KeptSize[];
  corrections: KeptCorrection[];
  /** Against the release of this setup that was approved last before it, in words; undefined where there is none. */
  difference?: { number: number; lines: string[] };
}

/** How the shop hands out programs. */
export class HandingOut {
  /** Whether programs are handed out only once somebody has approved them. */
  @IsBoolean() needsApproval!: boolean;
  /** Under which phones of the shop reach this server: "http://192.168.1.20:4380"; empty where they do not. */
  @Matches(/^(https?:\/\/[A-Za-z0-9.:[\]-]+)?$/) @MaxLength(200) address!: string;
}

/** How a release stands, in words. */
export function stateWords(state: ReleaseState): string {
  switch (state.state) {
    case 'released':
      return 'released';
    case 'waiting':
      return 'nobody has approved it yet';
    case 'approved':
      return `${APPROVED_WORDS[state.singleBlock ? 'approve for single block' : 'approve'].toLowerCase()} by ${state.by}`;
    case 'refused':
      return `refused by ${state.by}${state.remark ? `: ${state.remark}` : ''}`;
    case 'void':
      return `its approval is void: ${state.why}`;
  }
}
