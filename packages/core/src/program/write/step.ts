import { LengthUnit } from '../../quantity/units';
import type { Pause } from '../../document/operation';
import { Coolant } from '../../machine/machine';
import { Finding } from '../../quantity/finding';
import { Tool } from '../../shop/tool';
import { DrillCycle } from '../../operation/operation';
import { Path } from '../../path/path';

/** One operation ready to be written; coordinates already relative to the work zero. */
export interface Step {
  operationId: string;
  name: string;
  tool: Tool;
  rpm: number;
  coolant: Coolant;
  path: Path;
  cycle?: DrillCycle;
  /** Seconds a beam stands where it pierces. */
  pierce?: number;
  /** Where the program waits for somebody first. */
  before?: Pause;
  /** The work offset it is in; that of the program where left out. */
  workOffset?: string;
}

/** Something done by hand while the program waits. */
export interface HandStep {
  operationId: string;
  name: string;
  hand: { note: string };
}

export const isHand = (step: Step | HandStep): step is HandStep => 'hand' in step;

export interface WriteOptions {
  name: string;
  number: number;
  /** What its file is called, without an ending. */
  file: string;
  unit: LengthUnit;
  workOffset: string;
  /** Height at which rapids are free of everything. */
  free: number;
  lineNumbers: boolean;
  /** Operations of the setup that are switched off. */
  without?: string[];
  /** Said in its head of which release it is. */
  mark?: string;
  /** Whether the program can be begun at each tool. */
  restarts?: boolean;
  /** Whether what is cut again elsewhere is written once and called, where the control calls subprograms. */
  subprograms?: boolean;
  /** Numbers of the job’s other programs: no subprogram has one of them. */
  taken?: number[];
}

/** From a line of the program on, an operation. */
export interface Section {
  line: number;
  operationId: string;
}

export interface Program {
  fileName: string;
  text: string;
  /** Tool numbers it uses, in order. */
  tools: number[];
  /** From this line (counted from 1) the program belongs to this operation. */
  sections: Section[];
}

export interface Written {
  programs: Program[];
  findings: Finding[];
}

/** The section a line belongs to, by its place among sections in the order of lines; -1 before the first. */
export function sectionAt(sections: Section[], line: number): number {
  let [low, high] = [-1, sections.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (sections[middle].line <= line) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** What a program says before it waits for something done by hand. */
export const handRemark = (name: string) => `By hand: ${name}`;

export const spindleWord = (step: Step) => (step.cycle?.kind === 'tap-left' ? 'M4' : 'M3');

/**
 * A file name no longer than a control takes: what comes before its end gives way.
 * @param most letters; 0 for any length
 */
export const shortName = (name: string, most: number, end = ''): string =>
  most > 0 && name.length + end.length > most
    ? name.slice(0, Math.max(1, most - end.length)).replace(/-+$/, '') + end
    : name + end;

/** A name as a file may have it. */
export const safeName = (name: string) =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase() || 'program';
