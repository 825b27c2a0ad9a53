import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
} from 'class-validator';
import { ListOf } from '../quantity/nested';
import { Tool } from '../shop/tool';
import { Operation } from './operation';

/** Candidates a comparison may have. */
export const MOST_CANDIDATES = 12;

/** Operations of a way: as many as a route has. */
const MOST_COMPARED = 500;

/** One way to do some operations of a setup. */
export class Candidate {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  /** What runs in their place; they as they are in the route where left out. */
  @IsOptional() @ListOf(() => Operation, MOST_COMPARED, 1) operations?: Operation[];
  /** Tools of these that the job does not have. */
  @IsOptional() @ListOf(() => Tool, MOST_COMPARED) tools?: Tool[];
  /** How boldly its own speeds are suggested; as boldly as the job where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(1) boldness?: number;
  /** What is spent on it once, however many parts are made: a tool, a fixture. In money; nothing where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e9) spend?: number;
}

/** Ways to do some operations of a setup, to be held against each other. Kept as they were asked; figures are worked out anew. */
export class Comparison {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 40) setup!: string;
  /** The operations candidates stand in for. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_COMPARED)
  @IsString({ each: true })
  @Length(1, 40, { each: true })
  operations!: string[];
  @ListOf(() => Candidate, MOST_CANDIDATES, 1) candidates!: Candidate[];
  /** It is all of the setup that is compared, whatever was in it when it began. */
  @IsOptional() @IsBoolean() route?: boolean;
  /** It runs while nobody watches: ways that want watching are not counted. */
  @IsOptional() @IsBoolean() unattended?: boolean;
  /** Something later takes the marks off its walls, as a tumbler does: coarser walls are allowed. */
  @IsOptional() @IsBoolean() smoothedLater?: boolean;
}
