import { IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { Nested } from '../quantity/nested';
import { Choice, Parameter, Toggle, Words } from '../quantity/parameter';

/** A range from careful to bold. */
export class Range {
  @Parameter({ label: 'from', help: 'Careful end.', unit: 'number', min: 0, max: 5000 })
  from!: number;
  @Parameter({ label: 'to', help: 'Bold end.', unit: 'number', min: 0, max: 5000 })
  to!: number;
}

/** m/min by cutting material. */
export class SpeedRanges {
  @Nested(() => Range) carbide!: Range;
  @Nested(() => Range) hss!: Range;
}

/** How hot edges get in it. */
export const HEATS = ['hot', 'cool'] as const;
export const WETS = ['flood', 'air', 'dry'] as const;

/** A work material with its starting values; every number is a start, the tool maker's data and the shop's rules decide. */
export class Material {
  @IsString() @Length(1, 40) id!: string;
  @Words({ group: 'Material', label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @Words({ group: 'Material', label: 'Group', help: 'What it cuts like.', min: 1, max: 40 })
  group!: string;
  @Words({ group: 'Material', label: 'Hardness', help: 'As delivered, with its scale: “95 HB”.', min: 0, max: 40 })
  hardness!: string;
  @IsOptional()
  @Parameter({
    group: 'Material',
    label: 'Figures are for, HB',
    help: 'Brinell hardness its figures are for: a harder bar is cut slower. 0 where it is not known.',
    unit: 'number',
    min: 0,
    max: 800,
    step: 5,
    absent: 0,
  })
  brinell?: number;
  /** HB of the bar a job is cut from; as its figures are for where left out. */
  @IsOptional() @IsNumber() @Min(5) @Max(800) atHand?: number;
  @IsOptional()
  @Parameter({
    group: 'Material',
    label: 'Density, g/cm³',
    help: 'What a cubic centimetre of it weighs: from it follows what a blank weighs and costs. 0 where it is not known.',
    unit: 'number',
    min: 0,
    max: 25,
    step: 0.05,
    absent: 0,
  })
  density?: number;
  @IsOptional()
  @Choice({
    group: 'Cut',
    label: 'Edges run',
    help: 'Where they run hot, carbide wants a coating of nitride; not counted where neither is chosen.',
    choices: HEATS,
  })
  heat?: (typeof HEATS)[number];
  @IsOptional()
  @Choice({
    group: 'Cut',
    label: 'Best cut with',
    help: 'What carbide mills want; holes want flood wherever they are not cut dry.',
    choices: WETS,
  })
  coolant?: (typeof WETS)[number];
  @IsOptional()
  @Toggle({
    group: 'Cut',
    label: 'Hardens under work',
    help: 'Edges that rub harden it: no thin chips, no dwelling.',
    absent: false,
  })
  workHardens?: boolean;
  @Parameter({
    group: 'Force',
    label: 'Specific force kc1.1',
    help: 'Cutting force for a chip 1 mm thick and 1 mm wide.',
    unit: 'pressure',
    min: 10,
    max: 6000,
    step: 10,
  })
  kc11!: number;
  @Parameter({
    group: 'Force',
    label: 'Rise mc',
    help: 'Exponent by which the force rises for thinner chips.',
    unit: 'number',
    min: 0,
    max: 0.6,
    step: 0.01,
  })
  mc!: number;
  @Nested(() => SpeedRanges) millingSpeed!: SpeedRanges;
  @Nested(() => SpeedRanges) drillingSpeed!: SpeedRanges;
  /** m/min. */
  @Nested(() => Range) tappingSpeed!: Range;
  /** Chip load as a percentage of the cutter diameter at half-width engagement. */
  @Nested(() => Range) chipShare!: Range;
  /** Drill feed per turn as a percentage of the drill diameter. */
  @Nested(() => Range) drillShare!: Range;
  @Parameter({
    group: 'Cut',
    label: 'First layer',
    help: 'Depth of a first layer as a multiple of the cutter diameter, on a stiff machine.',
    unit: 'share',
    min: 0.01,
    max: 5,
    step: 0.1,
  })
  depthShare!: number;
  @Parameter({
    group: 'Cut',
    label: 'Most flutes',
    help: 'More than this and the chips of a wide cut have no room.',
    unit: 'count',
    min: 1,
    max: 12,
    step: 1,
  })
  mostFlutes!: number;
  @Toggle({ group: 'Cut', label: 'Long chips', help: 'Drills start to peck earlier.' })
  longChips!: boolean;
  @Toggle({ group: 'Cut', label: 'Ductile', help: 'Soft enough to press threads with a forming tap.' })
  ductile!: boolean;
  @Words({ group: 'Notes', label: 'Chips', help: 'What good chips look like.', min: 0, max: 300 })
  chips!: string;
  @IsString() @Length(0, 200) origin!: string;
  @IsOptional()
  @Words({ group: 'Notes', label: 'Caution', help: 'What can hurt someone.', min: 0, max: 300 })
  caution?: string;
}
