import { Nested } from '../quantity/nested';
import { IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';

/** A range from careful to bold. */
export class Range {
  @IsNumber() @Min(0) @Max(5000) from!: number;
  @IsNumber() @Min(0) @Max(5000) to!: number;
}

/** m/min by cutting material. */
export class SpeedRanges {
  @Nested(() => Range) carbide!: Range;
  @Nested(() => Range) hss!: Range;
}

/** A work material with its starting values; every number is a start, the tool maker's data and the shop's rules decide. */
export class Material {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsString() @Length(1, 40) group!: string;
  /** Specific cutting force at 1 mm chip thickness, N/mm². */
  @IsNumber() @Min(10) @Max(6000) kc11!: number;
  /** Exponent of its rise for thinner chips. */
  @IsNumber() @Min(0) @Max(0.6) mc!: number;
  @Nested(() => SpeedRanges) millingSpeed!: SpeedRanges;
  @Nested(() => SpeedRanges) drillingSpeed!: SpeedRanges;
  /** Chip load as a percentage of the cutter diameter at half-width engagement. */
  @Nested(() => Range) chipShare!: Range;
  /** Drill feed per turn as a percentage of the drill diameter. */
  @Nested(() => Range) drillShare!: Range;
  /** Depth of a first layer as a multiple of the cutter diameter on a stiff machine. */
  @IsNumber() @Min(0.01) @Max(5) depthShare!: number;
  @IsString() @Length(0, 200) origin!: string;
  @IsOptional() @IsString() @Length(0, 300) caution?: string;
}
