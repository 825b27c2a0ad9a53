import { FixtureBox } from '../geometry/space/box';
import { Region } from '../geometry/plane/clip';
import { Added } from '../part/plate/added';
import { PartModel } from '../part/plate/model';
import { Feature } from '../part/plate/feature';
import { Finding } from '../quantity/finding';
import { Machine } from '../machine/machine';
import { CycleKind } from '../shop/controller';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { Operation } from '../document/operation';
import { Path } from '../path/path';
import type { Earlier } from './milling/rest';

/** Who waits for long work. */
export interface Waiting {
  /** Whether nobody waits any more: asked now and then; work that was stopped comes back with what it has. */
  stopped?: () => boolean;
  /** Told now and then how much is done, 0 to 1. */
  told?: (share: number) => void;
}

/** What a plan needs to know besides its own parameters. Z is 0 at the part's top. */
export interface PlanContext extends Waiting {
  operation: Operation;
  tool: Tool;
  material: Material;
  machine: Machine;
  model: PartModel;
  targets: Feature[];
  /** Outline of the stock, part coordinates. */
  stock: Region;
  /** Height of what is left of the stock when this operation starts. */
  top: number;
  /** Underside of the stock. */
  bottom: number;
  /** What ran before in this setup. */
  earlier: Earlier[];
  /** Height at which rapids are free of everything. */
  clearance: number;
  /** Clamps and jaws. */
  fixtures: FixtureBox[];
  /** Tools of the job, to name one that would do. */
  rack: Tool[];
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
}

/** Everything one kind of operation is: its parameters, where they start from, and its plan. */
export interface OperationKind<P extends object = object> {
  kind: string;
  /** What it does, as a verb with its object: "Face the top". */
  title: string;
  /** The verb alone, for names: "Clear" makes "Clear float pocket". */
  verb: string;
  /** Meanings of the features it works on; empty where it works on the whole stock. */
  works: Feature['meaning'][];
  /** Whether a tool can do it, by its geometry. */
  suits(tool: Tool): boolean;
  Params: new () => P;
  defaults(context: Omit<PlanContext, 'operation' | 'earlier' | 'fixtures' | 'rack'>): P;
  /** The bite the speeds are worked out for, and its worst place (corners, slots), mm. */
  bite(params: P, tool: Tool): BiteOf;
  /** Whether its plan depends on what earlier operations cut. */
  usesEarlier?(params: P): boolean;
  /** Whether its plan depends on clamps and jaws. */
  usesFixtures?: boolean;
  /** What it is asked to shape that the part does not say; the proof takes that for wanted. */
  adds?(params: P, context: Pick<PlanContext, 'model' | 'targets' | 'tool'>): Partial<Added>;
  plan(params: P, context: PlanContext): Plan;
}
