import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';

export const TOOL_KINDS = ['flat', 'bull', 'ball', 'face', 'drill', 'spot', 'chamfer'] as const;
export type ToolKind = (typeof TOOL_KINDS)[number];

export const CUTTING_MATERIALS = ['carbide', 'hss'] as const;
export type CuttingMaterial = (typeof CUTTING_MATERIALS)[number];

/** A tool as it stands in its holder. Lengths in mm from the tip, angles in degrees. */
export class Tool {
  @IsString() @Length(1, 40) id!: string;
  /** Pocket number in the rack; length and diameter offsets carry the same number. */
  @IsInt() @Min(1) @Max(999) number!: number;
  @IsString() @Length(1, 80) name!: string;
  @IsIn([...TOOL_KINDS]) kind!: ToolKind;
  @IsNumber() @Min(0.05) @Max(200) diameter!: number;
  /** Radius of the corner between flank and end; half the diameter for a ball. */
  @IsNumber() @Min(0) @Max(100) cornerRadius!: number;
  /** Included angle of the point; 180 where the end is flat. */
  @IsNumber() @Min(10) @Max(180) pointAngle!: number;
  @IsInt() @Min(1) @Max(20) flutes!: number;
  @IsNumber() @Min(0.1) @Max(400) fluteLength!: number;
  /** From the holder's face to the tip. */
  @IsNumber() @Min(1) @Max(600) stickOut!: number;
  @IsNumber() @Min(0.1) @Max(200) shankDiameter!: number;
  @IsIn([...CUTTING_MATERIALS]) material!: CuttingMaterial;
  /** Whether its end cuts to the middle, so that it may go straight down. */
  @IsBoolean() centreCutting!: boolean;
  @IsNumber() @Min(1) @Max(300) holderDiameter!: number;
  @IsNumber() @Min(1) @Max(400) holderLength!: number;
  @IsOptional() @IsString() @Length(0, 200) note?: string;
}

/** True for tools that cut a hole by their point and are fed along their axis only. */
export const isDrill = (tool: Pick<Tool, 'kind'>) => tool.kind === 'drill' || tool.kind === 'spot';

/**
 * Height of the cutting profile above the tip, mm, at a distance `r` mm from the axis (0 to D/2).
 * Flat: 0. Bull and ball: the corner arc. Drill, spot and chamfer: the point's cone.
 */
export function profileHeight(
  tool: Pick<Tool, 'diameter' | 'cornerRadius' | 'pointAngle' | 'kind'>,
  r: number,
): number {
  const radius = tool.diameter / 2;
  if (tool.pointAngle < 180) return Math.min(r, radius) / Math.tan((tool.pointAngle * Math.PI) / 360);
  const corner = Math.min(tool.cornerRadius, radius);
  const inner = radius - corner;
  if (r <= inner) return 0;
  const into = Math.min(r, radius) - inner;
  return corner - Math.sqrt(Math.max(0, corner * corner - into * into));
}

/** Length of the point of a drill, mm: D/2 / tan(half the point angle). Textbook geometry. */
export const tipLength = (tool: Pick<Tool, 'diameter' | 'pointAngle'>) =>
  tool.pointAngle >= 180 ? 0 : tool.diameter / 2 / Math.tan((tool.pointAngle * Math.PI) / 360);
