import type {
  Advised,
  Allowed,
  CalledTool,
  Clock,
  Finding,
  ImportOptions,
  Imported,
  Job,
  LevelAsk,
  Measure,
  Moment,
  Path,
  Peak,
  PlanStep,
  Probe,
  Proposal,
  Samples,
  Section,
  StepFigures,
  Tool,
  PathMinutes,
  WrongPlace,
} from '@tidypath/core';

/** One planned operation as the page sees it. */
export interface PlannedView {
  operationId: string;
  key: string;
  path: Path;
  findings: Finding[];
  minutes: PathMinutes;
}

export interface ProgramView {
  fileName: string;
  text: string;
  tools: number[];
  sections: Section[];
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
  /** How far each cell is off in the end, at its worst, mm; undefined where there is no part yet. */
  off?: Float32Array;
}

/** Straight pieces for drawing: six coordinates and six colour shares each, and the program line of each. */
export interface PathRun {
  positions: Float32Array;
  colours?: Float32Array;
  line: Uint32Array;
}

/** Time and load of a proved program. */
export interface LoadView {
  clock: Omit<Clock, 'seconds' | 'fastest'>;
  samples: Samples;
  /** Its heaviest moments by each measure. */
  peaks: Record<Measure, Peak[]>;
}

export interface ProofView extends LoadView {
  findings: Finding[];
  steps: StepFigures[];
  /** The tools the program calls, with what it says about them. */
  called: CalledTool[];
  removed: number;
  /** Grid of the proof: its cell, and the finest where it mattered, mm, how many there are, and the memory it takes with its key frames, bytes. */
  grid: { cell: number; finest: number; cells: number; memory: number };
  surface: SurfaceView;
  /** What the part wants, on the grid of the surface; undefined where there is no part yet. */
  allowed?: Allowed;
  /** Where the piece is not as wanted, the worst first. */
  places: WrongPlace[];
  /** Program line of every motion. */
  lines: Uint32Array;
  /** The path as proved, in program order. */
  cut: PathRun;
  rapid: PathRun;
  /** Seconds at which tools are changed. */
  toolStarts: number[];
  /** Seconds at the end of every motion. */
  ends: Float32Array;
}

/** A program with levelled feeds, proved. */
export interface LevelledView extends LoadView {
  text: string;
  changed: number;
  findings: Finding[];
}

export type Request =
  /** A file that jobs name, before the first of them. */
  | { type: 'file'; bytes: Uint8Array }
  /** `instead`: a text to prove in the place of the job's own program. */
  | { type: 'compute'; seq: number; job: Job; setupId: string; instead?: string }
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
  | { type: 'propose'; seq: number; job: Job; setupId: string; rack: Tool[] }
  /** Before all others: what the worker is made of, and where the number of the question stands whose answer is awaited. */
  | { type: 'start'; source?: string; awaited?: Int32Array }
  | { type: 'cancel' };

export type Answer =
  | { type: 'planned'; seq: number; plan: PlanView }
  | { type: 'planning'; seq: number; step: PlanStep }
  | { type: 'progress'; seq: number; share: number }
  | { type: 'proved'; seq: number; proof: ProofView }
  /** What was shown from before is cut again; no share: it is done. */
  | { type: 'again'; seq: number; share?: number }
  | { type: 'levelled'; seq: number; levelled: LevelledView }
  | { type: 'probed'; seq: number; probe: Probe | null }
  | { type: 'stl'; seq: number; file: Uint8Array }
  | { type: 'cancelled'; seq: number }
  | { type: 'moment'; seq: number; moment: Moment; height: Float32Array }
  | { type: 'advised'; seq: number; advised: Advised }
  | { type: 'drawn'; seq: number; imported: Imported }
  | { type: 'proposed'; seq: number; proposal: Proposal }
  | { type: 'failed'; seq: number; message: string };
