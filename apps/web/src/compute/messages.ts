import type {
  Advised,
  Bar,
  Compared,
  ComparedAt,
  Comparison,
  Feature,
  ImportOptions,
  Imported,
  Job,
  LevelAsk,
  LevelledView,
  Made,
  Maker,
  Moment,
  PlanStep,
  PlanView,
  PlannedPart,
  Probe,
  Program,
  Proposal,
  ProofView,
  Returned,
  Tight,
  Told,
  Tool,
  WriteAsk,
} from '@tidypath/core';

/** In place of a question's number: no answer is awaited. */
export const NOBODY = -1;

/** Who plans and proves what is not kept here: this device while others may have it already, the server, or this device and nobody else. */
export type Computes = 'device' | 'server' | 'device alone';

export type Request =
  /** A file that jobs name, before the first of them. */
  | { type: 'file'; bytes: Uint8Array }
  /** `instead`: a text to prove in the place of the job's own program; `by`: who is to make what is not kept here. */
  | { type: 'compute'; seq: number; job: Job; setupId: string; instead?: string; by?: Computes }
  /** What was made elsewhere, in place of what the worker is at. */
  | { type: 'taken'; seq: number; key: string; made: Made; maker: Maker }
  | { type: 'prove'; seq: number; job: Job; setupId: string; text: string }
  | { type: 'seek'; seq: number; time: number }
  /** Levels the feeds of the program that was proved last. */
  | { type: 'level'; seq: number; ask: LevelAsk }
  /** Asks what stands at a point of the piece shown. */
  | { type: 'probe'; seq: number; x: number; y: number }
  /** Asks for the stock as it was left, as a file. */
  | { type: 'stl'; seq: number }
  | { type: 'advise'; seq: number; job: Job; featureId: string; rack: Tool[] }
  /** Reads a drawing. */
  | { type: 'drawing'; seq: number; text: string; options: ImportOptions }
  /** Asks for a file of the part or its stock. */
  | { type: 'write'; seq: number; job: Job; ask: WriteAsk }
  /** Asks where a part is hard on cutters. */
  | { type: 'tight'; seq: number; job: Job }
  /** Asks what a face of the part makes. */
  | { type: 'tell'; seq: number; job: Job; face: number; told: Told }
  | { type: 'propose'; seq: number; job: Job; setupId: string; rack: Tool[] }
  /** A whole plan for the part; only the one asked for last is made. */
  | { type: 'plan part'; seq: number; job: Job; bars: Bar[]; rack: Tool[] }
  | { type: 'leave plan' }
  /** Ways to do the same, held against each other; only those asked for last are. */
  | { type: 'compare'; seq: number; job: Job; comparison: Comparison; at: ComparedAt }
  | { type: 'leave compare' }
  /** What was changed in a text that was made from one of a setup’s programs. */
  | { type: 'edits'; seq: number; job: Job; setupId: string; programs: Program[]; zeroZ: number; text: string }
  /** Before all others: what the worker is made of, and where the number of the question stands whose answer is awaited. */
  | { type: 'start'; source?: string; awaited?: Int32Array }
  | { type: 'cancel' };

export type Answer =
  /** Nothing is kept here for the question; what others make of it has this key. */
  | { type: 'key'; seq: number; key: string }
  /** It knows of what was made elsewhere: what it said of the question before is of no use. */
  | { type: 'took'; seq: number }
  /** How many wait for the server before the question. */
  | { type: 'waiting'; seq: number; waiting: number }
  /** `maker`: who made it, where it was not this device. */
  | { type: 'planned'; seq: number; plan: PlanView; maker?: Maker }
  | { type: 'planning'; seq: number; step: PlanStep }
  | { type: 'progress'; seq: number; share: number }
  | { type: 'proved'; seq: number; proof: ProofView; maker?: Maker }
  /** What was shown from before is cut again; no share: it is done. */
  | { type: 'again'; seq: number; share?: number }
  | { type: 'levelled'; seq: number; levelled: LevelledView }
  | { type: 'probed'; seq: number; probe: Probe | null }
  | { type: 'stl'; seq: number; file: Uint8Array }
  | { type: 'cancelled'; seq: number }
  | { type: 'moment'; seq: number; moment: Moment; height: Float32Array }
  | { type: 'advised'; seq: number; advised: Advised }
  | { type: 'drawn'; seq: number; imported: Imported }
  | { type: 'written'; seq: number; file: Uint8Array | null }
  | { type: 'tightest'; seq: number; tight: Tight }
  | { type: 'told'; seq: number; feature: Feature | null }
  | { type: 'proposed'; seq: number; proposal: Proposal }
  | { type: 'part planned'; seq: number; planned: PlannedPart | null }
  | { type: 'compared'; seq: number; compared: Compared | null }
  | { type: 'edited'; seq: number; returned: Returned | null }
  | { type: 'failed'; seq: number; message: string };
