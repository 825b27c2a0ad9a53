import type { Advised, Clock, Finding, Job, Moment, Path, PlanStep, Proposal, Samples, Tool } from '@tidypath/core';

/** One planned operation as the page sees it. */
export interface PlannedView {
  operationId: string;
  key: string;
  path: Path;
  findings: Finding[];
  minutes: { cut: number; entry: number; rapid: number };
}

export interface ProgramView {
  fileName: string;
  text: string;
  tools: number[];
  sections: { line: number; operationId: string }[];
}

export interface PlanView {
  planned: PlannedView[];
  findings: Finding[];
  programs: ProgramView[];
  zero: { x: number; y: number; z: number };
  clearance: number;
}

/** A field of heights for the picture. */
export interface SurfaceView {
  x0: number;
  y0: number;
  cell: number;
  nx: number;
  ny: number;
  bottom: number;
  top: number;
  height: Float32Array;
}

/** Straight pieces for drawing: six coordinates and six colour shares each, and the program line of each. */
export interface PathRun {
  positions: Float32Array;
  colours?: Float32Array;
  line: Uint32Array;
}

export interface ProofView {
  findings: Finding[];
  clock: Clock;
  samples: Samples;
  removed: number;
  cell: number;
  surface: SurfaceView;
  /** Program line of every motion. */
  lines: Uint32Array;
  /** The path as proved, in program order. */
  cut: PathRun;
  rapid: PathRun;
  /** Seconds at the end of every motion. */
  ends: Float32Array;
}

export type Request =
  | { type: 'compute'; seq: number; job: Job; setupId: string }
  | { type: 'prove'; seq: number; job: Job; setupId: string; text: string }
  | { type: 'seek'; seq: number; time: number }
  | { type: 'advise'; seq: number; job: Job; featureId: string; rack: Tool[] }
  | { type: 'propose'; seq: number; job: Job; setupId: string; rack: Tool[] }
  /** Holds the number of the question whose answer is awaited, seen by the worker while it computes. */
  | { type: 'watch'; awaited: Int32Array }
  | { type: 'cancel' };

export type Answer =
  | { type: 'planned'; seq: number; plan: PlanView }
  | { type: 'planning'; seq: number; step: PlanStep }
  | { type: 'progress'; seq: number; share: number }
  | { type: 'proved'; seq: number; text: string; proof: ProofView }
  | { type: 'cancelled'; seq: number }
  | { type: 'moment'; seq: number; moment: Moment; height: Float32Array }
  | { type: 'advised'; seq: number; advised: Advised }
  | { type: 'proposed'; seq: number; proposal: Proposal }
  | { type: 'failed'; seq: number; message: string };
