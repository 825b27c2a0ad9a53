/** What is seen, heard and felt of a cut, told by taps: each word means the same at the real machine and at the simulated one. */
import { IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Max, MaxLength, Min } from 'class-validator';
import { formatTime } from '../quantity/units';

/** What is seen of a chip; each with what it says. */
export const CHIP_COLOURS = {
  cool: 'bright, cool to the touch',
  bright: 'bright',
  'pale straw': 'pale straw',
  straw: 'straw',
  brown: 'brown',
  blue: 'blue',
  'dark blue': 'dark blue',
  grey: 'grey, with sparks',
  'white sparks': 'white sparks',
  warm: 'bright, warm',
  hot: 'bright, hot',
  smears: 'dull, it smears',
  welds: 'torn, it welds to the edge',
} as const;
export type ChipColour = keyof typeof CHIP_COLOURS;
const COLOURS = Object.keys(CHIP_COLOURS) as ChipColour[];

export const CHIP_SHAPES = ['chips', 'dust', 'strings', 'packed'] as const;
export type ChipShape = (typeof CHIP_SHAPES)[number];

export const SOUNDS = ['quiet', 'hums', 'screams'] as const;
export const FINISHES = ['clean', 'chatter marks', 'torn', 'burrs'] as const;
/** Why an edge was changed after a run. */
export const EDGE_ENDS = ['in good time', 'worn', 'broken'] as const;
export type EdgeEnd = (typeof EDGE_ENDS)[number];

/** What was seen of an operation in a run; left out where nobody looked. */
export class Seen {
  /** Id of the operation. */
  @IsString() @Length(1, 40) operation!: string;
  /** How long it took, s. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e6) seconds?: number;
  /** Most of the spindle's power, share. */
  @IsOptional() @IsNumber() @Min(0) @Max(5) load?: number;
  @IsOptional() @IsIn(COLOURS) colour?: ChipColour;
  @IsOptional() @IsIn(CHIP_SHAPES) shape?: ChipShape;
  @IsOptional() @IsIn(SOUNDS) sound?: (typeof SOUNDS)[number];
  /** Hz of what screamed. */
  @IsOptional() @IsNumber() @Min(20) @Max(20_000) chatter?: number;
  @IsOptional() @IsIn(FINISHES) finish?: (typeof FINISHES)[number];
  /** Its tool got a new edge after the run. */
  @IsOptional() @IsIn(EDGE_ENDS) edge?: EdgeEnd;
  /** Line of the program a remark is about. */
  @IsOptional() @IsInt() @Min(1) @Max(10_000_000) line?: number;
  @IsOptional() @IsString() @MaxLength(200) remark?: string;
}

/** More than this share of the spindle is no good cut. */
const HEAVY = 1;
const BAD_FINISH: Seen['finish'][] = ['chatter marks', 'torn'];
const BAD_COLOUR: Seen['colour'][] = ['grey', 'white sparks', 'smears', 'welds'];

/** Whether a cut that looked so is one to run again. */
export const isGoodCut = ({
  load = 0,
  sound,
  chatter,
  finish,
  colour,
  shape,
  edge,
}: Omit<Seen, 'operation'>): boolean =>
  chatter === undefined &&
  sound !== 'screams' &&
  load <= HEAVY &&
  !BAD_FINISH.includes(finish) &&
  !BAD_COLOUR.includes(colour) &&
  shape !== 'packed' &&
  edge !== 'broken';

/** Whether anything was said of how it cut. */
export const isTold = ({ load, colour, shape, sound, chatter, finish }: Omit<Seen, 'operation'>): boolean =>
  [load, colour, shape, sound, chatter, finish].some((v) => v !== undefined);

const heard = ({ sound, chatter }: Omit<Seen, 'operation'>): string | undefined =>
  chatter === undefined ? sound : `chatters at ${Math.round(chatter)} Hz`;

/** "47 % of the spindle, quiet, chips bright, finish clean"; empty where nothing was told. */
export function seenText(seen: Omit<Seen, 'operation'>): string {
  const { seconds, load, colour, shape, finish, edge, line, remark } = seen;
  const chips = [shape === 'chips' ? undefined : shape, colour && CHIP_COLOURS[colour]].filter(Boolean).join(', ');
  return [
    seconds === undefined ? undefined : formatTime(seconds / 60),
    load === undefined ? undefined : `${Math.round(100 * load)} % of the spindle`,
    heard(seen),
    chips && `chips ${chips}`,
    finish && `finish ${finish}`,
    edge && (edge === 'in good time' ? 'edge changed in good time' : `edge ${edge}`),
    [line && `line ${line}`, remark].filter(Boolean).join(': '),
  ]
    .filter(Boolean)
    .join(', ');
}
