import { ListOf, Nested, OneOf } from '../quantity/nested';
import {
  ArrayMaxSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
} from 'class-validator';
import { GRIPS, WorkGrip } from '../cutting/boldness';
import { PARTS, Part } from '../part/plate/feature';
import { Lean } from '../part/plate/leaning';
import { UPS, Up } from '../part/plate/turn';
import type { LengthUnit } from '../quantity/units';
import { Controller } from '../shop/controller';
import { Bar } from '../shop/bar';
import { Machine } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { Comparison } from './comparison';
import { Copies } from './copies';
import { JobFile } from '../quantity/files';
import { Holding } from './holding';
import { Operation } from './operation';
import { Stations } from './stations';

/** Of job files, and of everything else that is stored. */
export const FORMAT_VERSION = 6;

export const LIES = ['upright', 'along X', 'along Y'] as const;

/** The raw piece: the part's box grown by so much on each side, or a round bar or tube about the part's middle. */
export class StockSpec {
  /** `as left`: what the setup before leaves, turned as this one is. */
  @IsIn(['box', 'round', 'tube', 'casting', 'as left']) shape!: 'box' | 'round' | 'tube' | 'casting' | 'as left';
  @IsNumber() @Min(0) @Max(1000) left!: number;
  @IsNumber() @Min(0) @Max(1000) right!: number;
  @IsNumber() @Min(0) @Max(1000) front!: number;
  @IsNumber() @Min(0) @Max(1000) back!: number;
  @IsNumber() @Min(0) @Max(1000) top!: number;
  @IsNumber() @Min(0) @Max(1000) bottom!: number;
  /** Bar diameter, for round stock and tubes. */
  @IsNumber() @Min(0.1) @Max(5000) diameter!: number;
  /** Inside diameter of a tube, mm. */
  @IsOptional() @IsNumber() @Min(0) @Max(5000) bore?: number;
  /** Radius of a bar's rounded edges, mm; 0 where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) corner?: number;
  /** The mesh of a casting (STL). Its middle lies over the part’s, its highest point as far above the part as `top` says. */
  @IsOptional() @Nested(() => JobFile) casting?: JobFile;
  /** How a bar stands; upright where left out. A round bar that lies has the part in its middle. */
  @IsOptional() @IsIn([...LIES]) lies?: (typeof LIES)[number];
  /** The bar or plate of the shop it is sawn off. */
  @IsOptional() @Nested(() => Bar) bar?: Bar;
}

export const ZERO_POINTS = ['front left', 'front right', 'back left', 'back right', 'centre'] as const;

export const ZERO_ON = ['stock', 'part', 'holding', 'feature'] as const;

/** Where the work zero is: on the box round the stock, the part or what holds it (of a vise its fixed jaw), or in the middle of a feature. */
export class Zero {
  @IsIn([...ZERO_ON]) on!: (typeof ZERO_ON)[number];
  /** Which holding, or which feature; its first place. */
  @IsOptional() @IsString() @Length(1, 40) of?: string;
  @IsIn([...ZERO_POINTS]) point!: (typeof ZERO_POINTS)[number];
  @IsIn(['top', 'bottom']) height!: 'top' | 'bottom';
}

/** A box that holds the work: a vise jaw or a clamp. Corner and size in part coordinates, Z 0 at the part's top. */
export class Fixture {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsNumber() @Min(-20000) @Max(20000) x!: number;
  @IsNumber() @Min(-20000) @Max(20000) y!: number;
  @IsNumber() @Min(-20000) @Max(20000) z!: number;
  @IsNumber() @Min(0.1) @Max(20000) width!: number;
  @IsNumber() @Min(0.1) @Max(20000) depth!: number;
  @IsNumber() @Min(0.1) @Max(20000) height!: number;
}

/** A place on the table from its middle, mm. */
export class OnTable {
  @IsNumber() @Min(-10000) @Max(10000) x!: number;
  @IsNumber() @Min(-10000) @Max(10000) y!: number;
}

/** One grip of the work and the route cut in it. */
export class Setup {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  /** How the part lies; with its top up where left out. */
  @IsOptional() @IsIn([...UPS]) up?: Up;
  /** On a sine plate, with its top up as drawn. */
  @IsOptional() @Nested(() => Lean) lean?: Lean;
  @Nested(() => StockSpec) stock!: StockSpec;
  @Nested(() => Zero) zero!: Zero;
  @Matches(/^G5[4-9]$/) workOffset!: string;
  /** The number of its program at the control; by the place of the setup where left out. */
  @IsOptional() @IsInt() @Min(1) @Max(9999) programNumber?: number;
  /** What its program is called, its file too; by job and setup where left out. */
  @IsOptional() @IsString() @Length(1, 60) programTitle?: string;
  /** Rapids run this far above the stock, mm. */
  @IsNumber() @Min(0.5) @Max(500) clearance!: number;
  /** Underside of the stock above the table, mm. */
  @IsNumber() @Min(0) @Max(2000) riser!: number;
  /** How far the middle of the stock stands from the middle of the table; in its middle where left out. */
  @IsOptional() @Nested(() => OnTable) onTable?: OnTable;
  /** How firmly the work is held; fairly where left out. */
  @IsOptional() @IsIn([...GRIPS]) grip?: WorkGrip;
  /** Boxes in the way. */
  @ListOf(() => Fixture, 50) fixtures!: Fixture[];
  /** What holds the work. */
  @IsOptional() @ListOf(() => Holding, 20) holding?: Holding[];
  /** Many parts from one blank. */
  @IsOptional() @Nested(() => Copies) copies?: Copies;
  /** The same work in several vises at once. */
  @IsOptional() @Nested(() => Stations) stations?: Stations;
  /** Minutes until the first part can be cut, once a batch. */
  @IsOptional() @IsNumber() @Min(0) @Max(10000) setUpMinutes?: number;
  /** Minutes from the end of a run to the start of the next: out, clean, in, clamp. */
  @IsOptional() @IsNumber() @Min(0) @Max(10000) reloadMinutes?: number;
  @ListOf(() => Operation, 500) operations!: Operation[];
}

export class Output {
  @IsBoolean() lineNumbers!: boolean;
  @IsIn(['mm', 'inch']) unit!: LengthUnit;
  /** Whether each tool states all modes anew, so that the program can be begun at it; not where left out. */
  @IsOptional() @IsBoolean() restarts?: boolean;
  /** Whether what is cut again elsewhere stands in a subprogram that is called; not where left out. */
  @IsOptional() @IsBoolean() subprograms?: boolean;
}

/** What the shop reckons with beside its machines, tools and bars; not known where left out. */
export class Prices {
  /** Of a kilowatt-hour. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) energy?: number;
  /** Share of the parts that are spoiled. */
  @IsOptional() @IsNumber() @Min(0) @Max(0.9) scrap?: number;
  /** Minutes to change an edge; three where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(120) edgeMinutes?: number;
}

/** The whole job: everything a program depends on, so that the same file gives the same program anywhere. Lengths in mm. */
export class Job {
  @Equals(FORMAT_VERSION) formatVersion!: number;
  @IsString() @Length(1, 120) name!: string;
  /** The unit people see and type; the file is always in mm. */
  @IsIn(['mm', 'inch']) unit!: LengthUnit;
  @IsString() @Length(0, 4000) note!: string;
  /** The number the customer knows the part by. */
  @IsOptional() @IsString() @Length(0, 60) customerNumber?: string;
  /** Words to find it by. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @Length(1, 30, { each: true })
  tags?: string[];
  @Nested(() => Material) material!: Material;
  @Nested(() => Machine) machine!: Machine;
  @IsString() @Length(1, 40) controllerId!: string;
  /** The dialect itself, where the shop has made it its own; else the shipped one of that id. */
  @IsOptional() @Nested(() => Controller) controller?: Controller;
  @ListOf(() => Tool, 400) tools!: Tool[];
  @OneOf(PARTS, 'kind') part!: Part;
  @ListOf(() => Setup, 20, 1) setups!: Setup[];
  /** How boldly speeds are suggested: 0 first cut on an unknown machine, 0.5 settled, 1 pushing. */
  @IsNumber() @Min(0) @Max(1) boldness!: number;
  /** What sizes without limits may be off by either way, mm; 0.1 where left out. */
  @IsOptional() @IsNumber() @Min(0.001) @Max(10) tolerance?: number;
  @Nested(() => Output) output!: Output;
  /** How many parts are wanted; one where left out. */
  @IsOptional() @IsInt() @Min(1) @Max(1000000) batch?: number;
  @IsOptional() @Nested(() => Prices) prices?: Prices;
  /** Ways to do some of its operations, to be held against each other. */
  @IsOptional() @ListOf(() => Comparison, 50) comparisons?: Comparison[];
}
