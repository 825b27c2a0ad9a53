import type { Biting } from '../cutting/bite';
import { FixtureBox } from '../geometry/space/box';
import { Chain } from '../geometry/plane/chain';
import { Region } from '../geometry/plane/clip';
import { Bounds, Point } from '../geometry/plane/point';
import { Added } from '../part/plate/added';
import { PartModel } from '../part/plate/model';
import { Feature } from '../part/plate/feature';
import { Budget } from '../quantity/budget';
import { Finding } from '../quantity/finding';
import { Process } from '../machine/abilities';
import { Machine } from '../machine/machine';
import { CycleKind } from '../shop/controller';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { Operation } from '../document/operation';
import { Path } from '../path/path';
import type { Earlier } from './earlier';

/** Who waits for long work. */
export interface Waiting {
  /** Whether nobody waits any more: asked now and then; work that was stopped comes back with what it has. */
  stopped?: () => boolean;
  /** Told now and then how much is done, 0 to 1. */
  told?: (share: number) => void;
}

/** What an operation is done with. */
export interface Means {
  tool: Tool;
  material: Material;
  machine: Machine;
}

/** What a setup works on, before anything is cut in it. Z is 0 at the part's top. */
export interface Workpiece {
  model: PartModel;
  /** Outline of the stock, part coordinates. */
  stock: Region;
  /** Height where the metal begins: of what is left of the stock when the operation starts, or where it was asked to begin. */
  top: number;

  /** Underside of the stock. */
  bottom: number;
  /** Height at which rapids are free of everything. */
  clearance: number;
}

/** What stands around the work and what was done to it. */
export interface Surroundings {
  /** What ran before, in this setup and those it starts from, as the work lies now. */
  earlier: Earlier[];
  /** Clamps and jaws. */
  fixtures: FixtureBox[];
  /** All features of the part, as it lies. */
  features: Feature[];
  /** Top of the stock before anything was cut. */
  stockTop: number;
  /** Tools of the job, to name one that would do. */
  rack: Tool[];
}

/** A lap that is worked out by an offset counts as so many moves. */
export const LAP_STEPS = 500;

/** What a plan needs to know besides its own parameters. */
export interface PlanContext extends Means, Workpiece, Surroundings, Waiting {
  operation: Operation;
  /** Features it works on. */
  targets: Feature[];
  /** How far above the metal the tool is fed from, mm. */
  approach: number;
  /** Z where it is asked to end on a feature; undefined where that is the feature's own. */
  end?: (feature: string) => number | undefined;
  /** Moves and laps it may take. */
  budget: Budget;
}

/** Holes to be made along Z; the writer uses the control's canned cycle or writes it out. */
export interface DrillCycle {
  kind: CycleKind;
  holes: CycleHole[];
  /** Height where feeding starts. */
  start: number;
  clearance: number;
  /** Depth of the first peck, mm; 0 for none. */
  peck: number;
  /** Share by which each peck is less deep than the one before; 0 for equal pecks. */
  lessen: number;
  /** Seconds at the bottom. */
  dwell: number;
  feed: number;
  /** Where the program waits for someone's hand: chips blown out, lubricant brushed on. */
  stops: 'none' | 'before the first' | 'before each';
}

/** One hole of a cycle: where its tip ends, and how high the tool is lifted before the next. */
export interface CycleHole {
  x: number;
  y: number;
  z: number;
  hop: number;
}

export interface Plan {
  path: Path;
  cycle?: DrillCycle;
  findings: Finding[];
  /** Seconds a beam stands where it pierces. */
  pierce?: number;
  /** Height of the stock's top once it has run, where it lowers all of it. */
  lowersTo?: number;
}

/** A sideways bite, the layer's depth, and the widest bite that occurs (corners, slots); mm. */
export interface BiteOf {
  ae: number;
  ap: number;
  peakAe: number;
  /** Metal left on the wall for a finish: half of it may be spoilt by bending. */
  leaves?: number;
}

/** Stages of a route, in the order that keeps a part stiff and a way back open: rough everything, then finish everything. */
export const STAGES = [
  'face',
  'rough',
  'rest',
  'holes',
  'mouths',
  'threads',
  'finish',
  'edges',
  'marks',
  'outside',
] as const;
export type Stage = (typeof STAGES)[number];

/** What its place in a route depends on. */
export interface InRoute {
  /** Whether it works on the outside of the part. */
  onOutside: boolean;
  /** Whether another operation leaves the walls of the same feature to it. */
  finishesAfter: boolean;
}

/** What an operation will run along, known before it is planned: walls, laps in their direction, and where tabs stand. */
export interface LapPreview {
  walls: Chain[];
  /** Whether the metal kept lies inside the walls, outside them, or neither is kept. */
  keeps: 'inside' | 'outside' | 'nothing';
  laps: { chain: Chain; tabs: Point[] }[];
}

/** Everything one kind of operation is: its process, its parameters, where they start from, its place in a route, and its plan. */
export interface OperationKind<P extends object = object> {
  kind: string;
  /** What it does, as a verb with its object: "Face the top". */
  title: string;
  /** The verb alone, for names: "Clear" makes "Clear float pocket". */
  verb: string | ((params: P) => string);
  process: Process;
  stage: Stage | ((at: InRoute) => Stage);
  /** Within a stage, lower comes first: spots before drills, edges after the walls they bound; 1 where left out. */
  rank?(params: P): number;
  /** Meanings of the features it works on; empty where it works on the whole stock. */
  works: Feature['meaning'][];
  /** Which of its heights can be asked for; neither where its features alone say them. */
  takesHeights?: 'start' | 'start and end';
  /** Whether it can be told to stay within a line and to keep away from others. */
  takesBounds?: boolean;
  /** Whether it can run along a part of a closed line. */
  takesStretch?: boolean;
  /** Whether it runs in laps that may begin at picked places. */
  takesBegins?: boolean;
  /** How far above the metal it is fed from where nothing else is asked, mm; 1 where left out. */
  approach?: number;
  /** Of the features it can work on those a new one starts with, where that is not the first nobody works on yet. */
  startsWith?(fitting: Feature[]): Feature[];
  /** Whether a tool can do it, by its geometry. */
  suits(tool: Tool): boolean;
  Params: new () => P;
  defaults(context: Means & Workpiece & Pick<PlanContext, 'targets'> & { boldness: number }): P;
  /** How its bite and layer are suggested, where both have a reason to be looked at. */
  biting?: Biting;
  /**
   * The bite the speeds are worked out for, and its worst place (corners, slots), mm.
   * @param deep how far it goes down in all, where that is known
   */
  bite(params: P, tool: Tool, deep?: number): BiteOf;
  /** Whether its plan depends on what earlier operations cut. */
  usesEarlier?(params: P): boolean;
  /** Where what was cut before may matter to it; anywhere where left out. */
  looksOver?(targets: Feature[], tool: Tool): Bounds | undefined;
  /** Whether its plan depends on clamps and jaws. */
  usesFixtures?: boolean;
  /** Whether it takes the top of the stock down to the part. */
  lowersTop?: boolean;
  /** Whether it cuts the part free of the stock around it. */
  frees?(targets: Feature[]): boolean;
  /** Whether it leaves the sizes of what it works on as they are: it breaks edges, opens mouths, marks or threads. */
  leavesSizes?: true;
  /** What the control compensates: the wear of the cutter, or all of its radius; nothing where left out. */
  compensates?(params: P): 'wear' | 'radius' | undefined;
  /** What it is asked to shape that the part does not say; the proof takes that for wanted. */
  adds?(params: P, context: Pick<PlanContext, 'model' | 'targets' | 'tool'>): Partial<Added>;
  /** Its laps before they are planned, and the values that are seen in them. */
  preview?: {
    shows: (keyof P)[];
    of(params: P, context: Pick<PlanContext, 'tool' | 'targets' | 'operation'>): LapPreview;
  };
  /** The value that says how it goes down into a closed pocket; a drilled hole does as well. */
  entry?: keyof P;
  plan(params: P, context: PlanContext): Plan;
}
