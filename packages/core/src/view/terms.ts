/** What is shown of plans and proofs, wherever they were made: plain data with columns of numbers. */
import type { Worst } from '../judge/grip';
import type { Peak } from '../judge/peaks';
import type { Wear } from '../judge/wear';
import type { StepFigures } from '../judge/steps';
import type { Path } from '../path/path';
import type { BenchStep } from '../plan/bench';
import type { PathMinutes } from '../plan/insight';
import type { CalledTool } from '../program/read/remarks';
import type { Section } from '../program/write/step';
import type { Finding } from '../quantity/finding';
import type { Clock } from '../simulate/clock';
import type { Measure, Samples } from '../simulate/samples';
import type { WrongPlace } from '../stock/height/places';
import type { Allowed } from '../stock/height/wanted';

/** How far the server is with what it was asked: how many wait before it, or what it is at. */
export type TaskStep = { waiting: number } | BenchStep;

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

/** Straight pieces for drawing: six coordinates each, the engagement in degrees of those that cut, and the program line of each. */
export interface PathRun {
  positions: Float32Array;
  engagement?: Float32Array;
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
  /** The worst moments for what holds the work, by operation. */
  grip: Worst[];
  /** What each tool wears in a run. */
  wear: Wear[];
  /** What a run takes from the mains, kWh. */
  energy: number;
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
