import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
} from 'class-validator';
import { Nested } from '../quantity/nested';
import { Choice, Parameter, Toggle, Words } from '../quantity/parameter';
import type { Coolant } from '../machine/machine';

export const CYCLES = ['drill', 'spot', 'peck', 'chip-break', 'ream', 'bore', 'tap', 'tap-left'] as const;
export type CycleKind = (typeof CYCLES)[number];

export const ARCS = ['all', 'level only', 'none'] as const;
/** How far straights may be off their arc where nothing else is said, mm. */
export const CHORD = 0.004;

/** One word of a program: a letter and a number. */
const WORD = /^[A-Z]\d{1,4}(\.\d)?$/;
const MOST_LINES = 20;

/** A list of whole program lines. */
function TextLines() {
  return (target: object, key: string) => {
    IsArray()(target, key);
    ArrayMaxSize(MOST_LINES)(target, key);
    IsString({ each: true })(target, key);
    Length(0, 120, { each: true })(target, key);
  };
}

/** How a remark is set apart; text is upper-cased and stripped where the control needs it. */
export class CommentStyle {
  @IsString() @Length(1, 4) open!: string;
  @IsString() @Length(0, 4) close!: string;
  @IsBoolean() upperCase!: boolean;
}

/** First and last lines around a whole program; {number} and {name} are filled in. */
export class Wrapping {
  @TextLines() open!: string[];
  @TextLines() close!: string[];
}

export class Decimals {
  @IsInt() @Min(0) @Max(6) mm!: number;
  @IsInt() @Min(0) @Max(6) inch!: number;
  @IsInt() @Min(0) @Max(6) feed!: number;
}

export class LineNumbers {
  @IsInt() @Min(1) @Max(100) step!: number;
}

/** The word of each canned cycle it knows; a cycle that is missing is written out as moves. */
export class CycleWords implements Partial<Record<CycleKind, string>> {
  @IsOptional() @Matches(WORD) drill?: string;
  @IsOptional() @Matches(WORD) spot?: string;
  @IsOptional() @Matches(WORD) peck?: string;
  @IsOptional() @Matches(WORD) 'chip-break'?: string;
  @IsOptional() @Matches(WORD) ream?: string;
  @IsOptional() @Matches(WORD) bore?: string;
  @IsOptional() @Matches(WORD) tap?: string;
  @IsOptional() @Matches(WORD) 'tap-left'?: string;
}

/** The word that turns each coolant on; a coolant that is missing cannot be asked for. */
export class CoolantWords implements Partial<Record<Exclude<Coolant, 'off'>, string>> {
  @IsOptional() @Matches(WORD) flood?: string;
  @IsOptional() @Matches(WORD) mist?: string;
  @IsOptional() @Matches(WORD) air?: string;
  @IsOptional() @Matches(WORD) through?: string;
}

export class UnitWords {
  @Matches(WORD) mm!: string;
  @Matches(WORD) inch!: string;
}

/** How it probes: a straight move that ends where the probe touches, and what makes a work offset of where it stands. */
export class ProbeWords {
  @Matches(WORD) touch!: string;
  /** A line; {offset} is its number from 1, {axis} and {value} say where it stands then. */
  @Matches(/^(?=.*\{axis\})(?=.*\{value\}).{1,60}$/) zero!: string;
}

/** Words that switch the beam of a two-axis machine; such a control knows no Z. */
export class BeamWords {
  @Matches(WORD) on!: string;
  @Matches(WORD) off!: string;
}

/** A controller dialect as data: what it can do and the words it uses. */
export class Controller {
  @IsString() @Length(1, 40) id!: string;
  @Words({ group: 'Controller', label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @Words({ group: 'Controller', label: 'About', help: 'What it can do, in a line.', min: 0, max: 200 })
  about!: string;
  @Words({ group: 'Controller', label: 'File extension', help: 'Of its programs.', min: 1, max: 8 })
  fileExtension!: string;
  /** Letters its file names may have before their ending; as many as they like where left out. */
  @IsOptional()
  @Parameter({
    group: 'Controller',
    label: 'Longest file name',
    help: 'Letters before the ending; longer names are cut short, and stay apart. 0 for any length.',
    unit: 'count',
    min: 0,
    max: 255,
    absent: 0,
  })
  longestFileName?: number;
  /** How the next tool gets into the spindle. */
  @Choice({
    group: 'Tools',
    label: 'Tool change',
    help: 'By itself within a program, or one program a tool.',
    choices: ['automatic', 'one program a tool'],
  })
  toolChange!: 'automatic' | 'one program a tool';
  @Toggle({ group: 'Tools', label: 'Length offsets', help: 'It knows G43 and H.' })
  lengthOffsets!: boolean;
  /** For machines that cut with a beam instead of a tool. */
  @IsOptional() @Nested(() => BeamWords) beam?: BeamWords;
  /** For machines with a probe that finds a zero. */
  @IsOptional() @Nested(() => ProbeWords) probe?: ProbeWords;
  @IsOptional()
  @Toggle({ group: 'Tools', label: 'Cutter compensation', help: 'It knows G41 and G42 with D.' })
  compensation?: boolean;
  @IsOptional()
  @Toggle({ group: 'Moves', label: 'Subprograms', help: 'It calls subprograms in the same file: M98 P, back at M99.' })
  subprograms?: boolean;
  /** What its memory holds of one program, thousands of bytes; any size where left out. */
  @IsOptional()
  @Parameter({
    group: 'Controller',
    label: 'Largest program, kB',
    help: 'Longer ones are split where the tool goes aside out of everything; 0 for any size.',
    unit: 'number',
    min: 0,
    max: 1_000_000,
    absent: 0,
  })
  mostKilobytes?: number;
  /** Which arcs it runs; the others are written as short straights. All of them where left out. */
  @IsOptional()
  @Choice({
    group: 'Moves',
    label: 'Arcs',
    help: 'It runs all arcs, level ones only (no helices), or none: the others are written as short straights.',
    choices: ARCS,
    absent: 'all',
  })
  arcs?: (typeof ARCS)[number];
  /** How far such a straight may be off its arc, mm. */
  @IsOptional()
  @Parameter({
    group: 'Moves',
    label: 'Straights off their arc by',
    help: 'At most, where arcs are written as straights.',
    unit: 'length',
    min: 0.0005,
    max: 0.1,
    absent: CHORD,
    matters: (c: Controller) => (c.arcs ?? 'all') !== 'all',
  })
  chord?: number;
  /** Seconds to wait after starting the spindle where the control does not wait by itself; 0 for none. */
  @Parameter({
    group: 'Tools',
    label: 'Wait for the spindle',
    help: 'After starting it, where the control does not wait by itself; 0 for none.',
    unit: 'seconds',
    min: 0,
    max: 60,
  })
  spindleDwell!: number;
  @Nested(() => CommentStyle) comment!: CommentStyle;
  @Nested(() => Wrapping) frame!: Wrapping;
  @Nested(() => Decimals) decimals!: Decimals;
  @Nested(() => LineNumbers) lineNumbers!: LineNumbers;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(6) @Matches(/^G5[4-9]$/, { each: true }) workOffsets!: string[];
  @Nested(() => CycleWords) cycles!: CycleWords;
  @Nested(() => CoolantWords) coolant!: CoolantWords;
  /** Move to a safe height in machine coordinates before tool changes and at the end. */
  @TextLines() retreat!: string[];
  @Nested(() => UnitWords) units!: UnitWords;
  /** Safe modal state at the start. */
  @TextLines() safeStart!: string[];
}
