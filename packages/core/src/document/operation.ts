import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
} from 'class-validator';
import { Repeat } from '../part/plate/repeat';
import { ListOf, Nested } from '../quantity/nested';
import { Heights } from './heights';
import { COOLANTS, Coolant } from '../machine/machine';

/** Speed and feeds of one operation. */
export class Speeds {
  @IsInt() @Min(1) @Max(200_000) rpm!: number;
  /** mm/min. */
  @IsNumber() @Min(0.1) @Max(200_000) feed!: number;
  /** mm/min for plunges, ramps and helices. */
  @IsNumber() @Min(0.1) @Max(200_000) entryFeed!: number;
}

/** Feeds of an operation that are asked for apart from the rest, mm/min; each as it comes where left out. */
export class Feeds {
  /** Leading in and out. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(200_000) lead?: number;
  /** Straight down. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(200_000) plunge?: number;
  /** The deepest layer. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(200_000) last?: number;
}

export const STOPS = ['planned', 'optional', 'tool change', 'remark'] as const;

/** Where the program waits for somebody before an operation: always, or where the control’s optional stop is on; where the tool is changed anew though it stays the same; or not at all, and only says something. */
export class Pause {
  @IsIn([...STOPS]) stop!: (typeof STOPS)[number];
  /** What is to be done then, for whoever stands at the machine. */
  @IsString() @Length(0, 80) note!: string;
  /** How long that takes, minutes; counted in the time of the program. */
  @IsOptional() @IsNumber() @Min(0) @Max(600) minutes?: number;
}

/** A place on the part as it lies in the setup, mm. */
export class Spot {
  @IsNumber() @Min(-20_000) @Max(20_000) x!: number;
  @IsNumber() @Min(-20_000) @Max(20_000) y!: number;
}

/** A part of a closed line: counterclockwise from the place on it nearest to one point to that nearest to another. */
export class Stretch {
  @Nested(() => Spot) from!: Spot;
  @Nested(() => Spot) to!: Spot;
  /** How much longer it is made at its ends, straight on; held back where below zero, mm. */
  @IsNumber() @Min(-1000) @Max(1000) before!: number;
  @IsNumber() @Min(-1000) @Max(1000) after!: number;
}

export const WITHIN = ['inside', 'on', 'outside'] as const;

/** A closed line an operation stays within: with all of its cutter, with its middle, or with the cutter just beyond it. */
export class Within {
  @IsString() @Length(1, 40) feature!: string;
  @IsIn([...WITHIN]) cutter!: (typeof WITHIN)[number];
}

/** What closed lines enclose, that an operation keeps away from. */
export class KeepAway {
  @IsString() @Length(1, 40) feature!: string;
  /** How far around it no metal is touched, mm. */
  @IsNumber() @Min(0) @Max(1000) by!: number;
}

/** Places of a feature's pattern an operation leaves alone. */
export class LeftAlone {
  @IsString() @Length(1, 40) feature!: string;
  /** Counted from 1. */
  @IsArray() @ArrayMaxSize(2000) @IsInt({ each: true }) @Min(1, { each: true }) places!: number[];
}

/** One step of the route. `params` belong to the kind; its own class validates them. */
export class Operation {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 40) kind!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsBoolean() on!: boolean;
  @IsString() @Length(1, 40) toolId!: string;
  /** Features of the part it works on; empty where it works on the whole. */
  @IsArray() @IsString({ each: true }) targets!: string[];
  /** Of patterns not all places. */
  @IsOptional() @ListOf(() => LeftAlone, 200) leaves?: LeftAlone[];
  @Nested(() => Speeds) speeds!: Speeds;
  @IsIn([...COOLANTS]) coolant!: Coolant;
  /** How far its tool may bend, mm; by what it leaves or by the tolerance where left out. */
  @IsOptional() @IsNumber() @Min(0.001) @Max(2) bend?: number;
  @IsObject() params!: Record<string, unknown>;
  /** Where it begins, ends and goes back to, where that is not what its features and its setup say. */
  @IsOptional() @Nested(() => Heights) heights?: Heights;
  @IsOptional() @Nested(() => Feeds) feeds?: Feeds;
  @IsOptional() @Nested(() => Within) within?: Within;
  @IsOptional() @ListOf(() => KeepAway, 100) keepAway?: KeepAway[];
  /** Along a part of its line only. */
  @IsOptional() @Nested(() => Stretch) stretch?: Stretch;
  /** Where laps begin: each at the place on it nearest to the nearest of these. */
  @IsOptional() @ListOf(() => Spot, 200) begins?: Spot[];
  /** Done on copies of its features too. */
  @IsOptional() @Nested(() => Repeat) repeat?: Repeat;
  /** The program stops before it, with the tool up, spindle and coolant off. */
  @IsOptional() @Nested(() => Pause) before?: Pause;
  /** Why it is in the route, where the route was proposed. */
  @IsOptional() @IsString() @Length(0, 400) reason?: string;
}
