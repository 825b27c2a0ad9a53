import { IsIn, IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { Nested } from '../quantity/nested';
import { LengthUnit, formatLength } from '../quantity/units';

/** What a height is measured from: the piece as it lies, what stands of it when the operation begins, or a feature. */
export const LEVELS = ['stock top', 'part top', 'underside', 'what is left', 'top', 'floor'] as const;
export type LevelName = (typeof LEVELS)[number];

export const REACHES = ['full diameter', 'tip'] as const;

/** A height by what it means. */
export class Height {
  @IsIn([...LEVELS]) at!: LevelName;
  /** The feature whose top or floor it is; each the operation works on by its own where left out. */
  @IsOptional() @IsString() @Length(1, 40) feature?: string;
  /** So much above it; below it where negative, mm. */
  @IsNumber() @Min(-1000) @Max(1000) offset!: number;
}

/** Where an operation begins and ends, where that is not what its features say. */
export class Heights {
  /** Where the metal to cut begins. */
  @IsOptional() @Nested(() => Height) start?: Height;
  /** Where it ends. */
  @IsOptional() @Nested(() => Height) end?: Height;
  /** What of a drill reaches the end: its full diameter, the point going beyond, or its tip. */
  @IsOptional() @IsIn([...REACHES]) reach?: (typeof REACHES)[number];
  /** Where the tool is free to go aside: above it nothing is in the way. */
  @IsOptional() @Nested(() => Height) retract?: Height;
  /** How far above the metal the tool is fed from, mm. */
  @IsOptional() @IsNumber() @Min(0.1) @Max(100) approach?: number;
}

/**
 * A height in words: “floor of Well + 0.3 mm”.
 * @param featureName name of the feature it is measured from, where it names one; undefined where that is gone
 */
export function heightText({ at, feature, offset }: Height, featureName: string | undefined, unit: LengthUnit): string {
  const own = at === 'top' || at === 'floor' ? `its ${at}` : at;
  const from = feature === undefined ? own : `${at} of ${featureName ?? 'something that is gone'}`;
  if (offset === 0) return from;
  return `${from} ${offset > 0 ? '+' : '−'} ${formatLength(Math.abs(offset), unit)}`;
}
