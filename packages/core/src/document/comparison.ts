import { ArrayMaxSize, ArrayMinSize, IsArray, IsOptional, IsString, Length } from 'class-validator';
import { ListOf } from '../quantity/nested';
import { Tool } from '../shop/tool';
import { Operation } from './operation';

/** Candidates a comparison may have. */
export const MOST_CANDIDATES = 12;

/** One way to do some operations of a setup. */
export class Candidate {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  /** What runs in their place; they as they are in the route where left out. */
  @IsOptional() @ListOf(() => Operation, 20, 1) operations?: Operation[];
  /** Tools of these that the job does not have. */
  @IsOptional() @ListOf(() => Tool, 20) tools?: Tool[];
}

/** Ways to do some operations of a setup, to be held against each other. Kept as they were asked; figures are worked out anew. */
export class Comparison {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 40) setup!: string;
  /** The operations candidates stand in for. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(50)
  @IsString({ each: true })
  @Length(1, 40, { each: true })
  operations!: string[];
  @ListOf(() => Candidate, MOST_CANDIDATES, 1) candidates!: Candidate[];
}
