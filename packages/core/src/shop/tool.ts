import { ListOf, Nested } from '../quantity/nested';
import { IsIn, IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import type { LengthUnit } from '../quantity/units';
import { Choice, Parameter, Toggle, Words } from '../quantity/parameter';
import { Holder } from './holder';
import { maths } from '../quantity/maths';

/**
 * What the numbers of a tool describe. `mill`: a cylinder with a flat, bull or ball end. `cone`: a cone from the tip's
 * diameter up. `taper`: a ball tip on a cone. `rounding`: a hollow corner. `drill`: a point fed along the axis. `bore`: sizes a
 * hole that is there. `beam`: a jet, a laser or a plasma as wide as its kerf. `tap`: cuts or presses a thread along the axis. `thread`: mills a thread around the axis.
 */
export type Form = 'beam' | 'mill' | 'cone' | 'taper' | 'rounding' | 'drill' | 'bore' | 'tap' | 'thread';

interface Trade {
  label: string;
  form: Form;
}

/** What the trade calls its tools. What a tool can do follows from its numbers, never from this name. */
export const TRADES = {
  flat: { label: 'end mill', form: 'mill' },
  bull: { label: 'bull mill', form: 'mill' },
  ball: { label: 'ball mill', form: 'mill' },
  roughing: { label: 'roughing mill', form: 'mill' },
  insert: { label: 'insert mill', form: 'mill' },
  head: { label: 'exchangeable-head mill', form: 'mill' },
  'single-flute': { label: 'single-flute cutter', form: 'mill' },
  fly: { label: 'fly cutter', form: 'mill' },
  face: { label: 'face mill', form: 'mill' },
  'high-feed': { label: 'high-feed mill', form: 'cone' },
  chamfer: { label: 'chamfer mill', form: 'cone' },
  engraving: { label: 'engraving cutter', form: 'cone' },
  'taper-ball': { label: 'tapered ball mill', form: 'taper' },
  rounding: { label: 'corner-rounding mill', form: 'rounding' },
  spot: { label: 'spot drill', form: 'drill' },
  'centre-drill': { label: 'centre drill', form: 'drill' },
  drill: { label: 'twist drill', form: 'drill' },
  'stub-drill': { label: 'stub drill', form: 'drill' },
  'coolant-drill': { label: 'through-coolant drill', form: 'drill' },
  reamer: { label: 'reamer', form: 'bore' },
  'boring-head': { label: 'boring head', form: 'bore' },
  tap: { label: 'cutting tap', form: 'tap' },
  'forming-tap': { label: 'forming tap', form: 'tap' },
  'thread-mill': { label: 'single-point thread mill', form: 'thread' },
  beam: { label: 'beam', form: 'beam' },
  'thread-comb': { label: 'multi-form thread mill', form: 'thread' },
} as const satisfies Record<string, Trade>;

export type ToolKind = keyof typeof TRADES;
export const TOOL_KINDS = Object.keys(TRADES) as ToolKind[];
const KIND_WORDS = Object.fromEntries(TOOL_KINDS.map((k) => [k, TRADES[k].label]));

/** Form of a tool; a kind nobody knows counts as a mill until the check refuses it. */
export const formOf = (tool: { kind: ToolKind }): Form => TRADES[tool.kind]?.form ?? 'mill';
export const kindLabel = (tool: { kind: ToolKind }): string => TRADES[tool.kind].label;

export const CUTTING_MATERIALS = ['carbide', 'hss'] as const;
export type CuttingMaterial = (typeof CUTTING_MATERIALS)[number];
export const COATINGS = ['none', 'nitride', 'hard carbon', 'diamond'] as const;

/** The shop's own speed and chip for one material, found by trial; they stand before any range. */
export class OwnData {
  @IsString() @Length(1, 40) materialId!: string;
  /** m/min. */
  @IsNumber() @Min(0.5) @Max(5000) surfaceSpeed!: number;
  /** Largest chip a tooth, mm; for a drill the feed per tooth. */
  @IsNumber() @Min(0.0005) @Max(5) chip!: number;
  @IsString() @Length(0, 200) note!: string;
}

/** How long its edges really last in one material, as the log of the shop has it. */
export class EdgesLast {
  @IsString() @Length(1, 40) materialId!: string;
  /** Of the life on its card. */
  @IsNumber() @Min(0.02) @Max(50) factor!: number;
  @IsString() @Length(0, 200) note!: string;
}

const of = (...forms: Form[]) => ({ always: true, matters: (t: { kind: ToolKind }) => forms.includes(formOf(t)) });

/** A tool as it stands in its holder. Lengths in mm from the tip, angles in degrees. */
export class Tool {
  @IsString() @Length(1, 40) id!: string;
  /** Unit its lengths are written in; mm where left out. Kept are mm. */
  @IsOptional() @IsIn(['mm', 'inch']) unit?: LengthUnit;
  @Choice({
    group: 'Tool',
    label: 'Kind',
    help: 'What the trade calls it; what it can do follows from its numbers.',
    choices: TOOL_KINDS,
    words: KIND_WORDS,
  })
  kind!: ToolKind;
  @Words({ group: 'Tool', label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @Parameter({
    group: 'Tool',
    label: 'Pocket',
    help: 'Its place in the tool rack; its offsets carry the same number unless you say otherwise.',
    unit: 'count',
    min: 1,
    max: 999,
    step: 1,
  })
  number!: number;

  @Parameter({
    group: 'Cutting end',
    label: 'Diameter',
    help: 'Over the cutting edges; of a tap, the thread’s major diameter.',
    unit: 'length',
    min: 0.05,
    max: 200,
    step: 0.5,
  })
  diameter!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Tip diameter',
    help: 'Flat or pilot at the very tip; 0 for a sharp point.',
    unit: 'length',
    min: 0,
    max: 200,
    step: 0.1,
    ...of('cone', 'rounding', 'drill'),
  })
  tipDiameter!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Corner radius',
    help: 'Between flank and end; half the diameter for a ball; the radius a corner-rounding mill leaves.',
    unit: 'length',
    min: 0,
    max: 100,
    step: 0.1,
    ...of('mill', 'taper', 'rounding'),
  })
  cornerRadius!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Point angle',
    help: 'Included angle of the cone or point.',
    unit: 'angle',
    min: 1,
    max: 180,
    step: 1,
    ...of('cone', 'taper', 'drill'),
  })
  pointAngle!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Flutes',
    help: 'Cutting teeth around it.',
    unit: 'count',
    min: 1,
    max: 20,
    step: 1,
  })
  flutes!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Helix',
    help: 'Angle of the flutes to the axis; it sets how hard the cut pulls on the grip.',
    unit: 'angle',
    min: 0,
    max: 60,
    step: 1,
    ...of('mill', 'taper'),
  })
  helix!: number;
  @Parameter({
    group: 'Cutting end',
    label: 'Pitch',
    help: 'Of the thread it makes.',
    unit: 'length',
    min: 0.1,
    max: 12,
    step: 0.05,
    ...of('tap', 'thread'),
  })
  pitch!: number;
  @IsOptional()
  @Parameter({
    group: 'Cutting end',
    label: 'Lead, in threads',
    help: 'Threads of its tip that are not yet full; 0 for the usual, 3, and 2 of a forming tap.',
    unit: 'number',
    min: 0,
    max: 12,
    step: 0.5,
    absent: 0,
    ...of('tap'),
  })
  lead?: number;
  /** Of a centre drill: how far its pilot, with a drill's point, stands out of its cone; where left out the pilot is a flat. */
  @IsOptional()
  @Parameter({
    group: 'Cutting end',
    label: 'Pilot length',
    help: 'From the tip to where the cone begins; 0 where the tip is a flat.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.1,
    absent: 0,
    always: true,
    matters: (t: { kind: ToolKind }) => t.kind === 'centre-drill',
  })
  pilotLength?: number;
  @Toggle({ group: 'Cutting end', label: 'Left hand', help: 'It makes a left-hand thread.', ...of('tap') })
  leftHand!: boolean;
  @IsOptional()
  @Toggle({
    group: 'Cutting end',
    label: 'Splits chips',
    help: 'Notches break the chip along its flutes, so that deep bites find room.',
    absent: false,
    ...of('mill'),
  })
  splitsChips?: boolean;
  @Toggle({
    group: 'Cutting end',
    label: 'Cuts to the centre',
    help: 'Its end cuts to the middle, so that it may go straight down.',
    ...of('mill', 'cone', 'taper', 'rounding'),
  })
  centreCutting!: boolean;

  @Parameter({
    group: 'Length',
    label: 'Flute length',
    help: 'How deep its edges reach.',
    unit: 'length',
    min: 0.1,
    max: 400,
    step: 1,
  })
  fluteLength!: number;
  @Parameter({
    group: 'Length',
    label: 'Stick-out',
    help: 'From the holder’s nose to the tip.',
    unit: 'length',
    min: 1,
    max: 600,
    step: 1,
  })
  stickOut!: number;
  @Parameter({
    group: 'Length',
    label: 'Overall length',
    help: 'Of the tool alone.',
    unit: 'length',
    min: 1,
    max: 800,
    step: 1,
  })
  overallLength!: number;
  @Parameter({
    group: 'Length',
    label: 'Shank diameter',
    help: 'Above the flutes.',
    unit: 'length',
    min: 0.1,
    max: 200,
    step: 0.5,
  })
  shankDiameter!: number;

  @Choice({
    group: 'Substance',
    label: 'Cutting material',
    help: 'What its edges are made of.',
    choices: CUTTING_MATERIALS,
    words: { hss: 'HSS' },
  })
  material!: CuttingMaterial;
  @Choice({
    group: 'Substance',
    label: 'Coating',
    help: 'Carbide’s speeds are for nitride where edges run hot, for bare edges elsewhere; a speed found by trial goes under Own data.',
    choices: COATINGS,
  })
  coating!: (typeof COATINGS)[number];
  @IsOptional()
  @Parameter({
    group: 'Substance',
    label: 'Thickest chip',
    help: 'What its edges carry, as its maker says; 0 takes twice the boldest of the material.',
    unit: 'length',
    min: 0,
    max: 5,
    step: 0.01,
    absent: 0,
  })
  mostChip?: number;
  @IsOptional()
  @Parameter({
    group: 'Substance',
    label: 'Edge rounding',
    help: 'Radius of its edges: thinner chips rub. 0 takes 0.005 mm where it is bare, 0.01 mm where it is coated.',
    unit: 'length',
    min: 0,
    max: 0.2,
    step: 0.001,
    absent: 0,
  })
  edgeRadius?: number;
  @Toggle({
    group: 'Substance',
    label: 'Coolant through it',
    help: 'Coolant comes out at the tip: drills need no pecks.',
  })
  throughCoolant!: boolean;
  @Parameter({
    group: 'Substance',
    label: 'Edges',
    help: 'Cutting edges it has before it is thrown away: corners of an insert times inserts count once each.',
    unit: 'count',
    min: 1,
    max: 100,
    step: 1,
  })
  edges!: number;
  @Parameter({
    group: 'Substance',
    label: 'Price of an edge',
    help: 'What one set of edges costs.',
    unit: 'money',
    min: 0,
    max: 10000,
    step: 1,
  })
  edgePrice!: number;
  @Parameter({
    group: 'Substance',
    label: 'Edge life',
    help: 'Time in cut before an edge is worn.',
    unit: 'minutes',
    min: 1,
    max: 10000,
    step: 5,
  })
  edgeLife!: number;

  @Parameter({
    group: 'Offsets',
    label: 'Length offset',
    help: 'Register of its length; 0 takes the pocket number.',
    unit: 'count',
    min: 0,
    max: 999,
    step: 1,
  })
  lengthOffset!: number;
  @Parameter({
    group: 'Offsets',
    label: 'Diameter offset',
    help: 'Register of its diameter; 0 takes the pocket number.',
    unit: 'count',
    min: 0,
    max: 999,
    step: 1,
  })
  diameterOffset!: number;

  @Nested(() => Holder) holder!: Holder;
  @ListOf(() => OwnData, 60) ownData!: OwnData[];
  @IsOptional() @ListOf(() => EdgesLast, 60) lasts?: EdgesLast[];
  @IsOptional() @IsString() @Length(0, 200) note?: string;
}

/** The numbers that make the outline of a tool's cutting end. */
export type Profile = Pick<
  Tool,
  'kind' | 'diameter' | 'tipDiameter' | 'cornerRadius' | 'pointAngle' | 'pitch' | 'pilotLength'
>;

/** Included angle of a pilot's point, degrees. ISO 866. */
const PILOT_POINT = 118;

const half = (degrees: number) => (degrees * Math.PI) / 360;

/** Register of a tool's length: the one it names, else its pocket's. */
export const lengthOffsetOf = (tool: Pick<Tool, 'lengthOffset' | 'number'>) => tool.lengthOffset || tool.number;

/** Register of a tool's diameter: the one it names, else its pocket's. */
export const diameterOffsetOf = (tool: Pick<Tool, 'diameterOffset' | 'number'>) => tool.diameterOffset || tool.number;

/** A jet, a laser or a plasma: its diameter is the kerf, its flute length the thickest sheet it cuts. */
export const isBeam = (tool: Pick<Tool, 'kind'>) => formOf(tool) === 'beam';

/** True for tools that are fed along their axis only. */
export const isAxial = (tool: Pick<Tool, 'kind'>) => ['drill', 'bore', 'tap'].includes(formOf(tool));

/** Height of a thread's groove as a share of its pitch, 60° form. ISO 68. */
const GROOVE = 0.6134;

/** The cone of a tool's end: its included angle, degrees, and the diameter it starts from, mm. A thread mill's is the lower flank of its tooth. */
export const coneOf = (tool: Profile) =>
  formOf(tool) === 'thread'
    ? { angle: 120, tip: Math.max(0, tool.diameter - 2 * GROOVE * tool.pitch) }
    : { angle: tool.pointAngle, tip: tool.tipDiameter };

/** Half angle of a flank that can break an edge, degrees from the axis; undefined where the tool has none. Geometry. */
export function flankAngle(tool: Profile): number | undefined {
  const form = formOf(tool);
  if (form === 'thread') return 60;
  if ((form === 'cone' || form === 'drill' || form === 'taper') && tool.pointAngle < 150) return tool.pointAngle / 2;
  return undefined;
}

/** Whether a tool can mill sideways with a cylindrical flank. */
export const cutsWalls = (tool: Pick<Tool, 'kind'>) => formOf(tool) === 'mill';

/** Made for level faces, over the whole width of their cutters: neither goes down into a pocket nor along a wall. */
export const onlyFaces = (tool: Pick<Tool, 'kind'>) => tool.kind === 'face' || tool.kind === 'fly';

/** Whether its flutes leave a smooth wall: those of a roughing mill are notched. */
export const finishesWalls = (tool: Pick<Tool, 'kind'>) => cutsWalls(tool) && tool.kind !== 'roughing';

/** Whether a tool's end can leave a level floor, alone or by passes: flat, bull or ball ends, and shallow cones. */
export const cutsFloors = (tool: Profile) =>
  formOf(tool) === 'mill' || (formOf(tool) === 'cone' && tool.pointAngle >= 150);

/** Whether a tool can go straight down into solid metal and leave a hole of its own diameter. */
export const makesHoles = (tool: Pick<Tool, 'kind' | 'centreCutting'>) =>
  formOf(tool) === 'drill' || (formOf(tool) === 'mill' && tool.centreCutting);

/** Whether a tool starts holes rather than making them: a short cone on a wider body. */
export const startsHoles = (tool: Pick<Tool, 'kind' | 'fluteLength' | 'diameter'>) =>
  formOf(tool) === 'drill' && tool.fluteLength <= 1.5 * tool.diameter;

/** Whether its cone breaks edges: not where a pilot stands out of it, that would go beside them. */
export const hasFreeCone = (tool: Pick<Tool, 'kind' | 'fluteLength' | 'diameter' | 'pilotLength'>) =>
  startsHoles(tool) && !tool.pilotLength;

/** Whether it goes straight down under its own feed: drills do, mills when they cut to the centre. */
export const plunges = (tool: Pick<Tool, 'kind' | 'centreCutting'>) => isAxial(tool) || tool.centreCutting;

/**
 * Height of the cutting profile above the tip, mm, at a distance `r` mm from the axis (0 to D/2). Mills: the corner arc. Cones and
 * drills: flat tip, or a pilot with its point, then the cone; thread mills: the lower flank of their tooth. Tapered balls: the ball, then the cone touching it. Corner-rounding: the hollow arc.
 */
export function profileHeight(tool: Profile, r: number): number {
  const radius = tool.diameter / 2;
  const at = Math.min(r, radius);
  switch (formOf(tool)) {
    case 'cone':
    case 'drill':
    case 'thread': {
      const { tip, angle } = coneOf(tool);
      const { pilotLength = 0 } = tool;
      if (pilotLength > 0 && at <= tip / 2) return at / maths.tan(half(PILOT_POINT));
      return pilotLength + Math.max(0, at - tip / 2) / maths.tan(half(angle));
    }
    case 'taper':
      return taperHeight(tool.cornerRadius, half(tool.pointAngle), at);
    case 'rounding': {
      const inner = Math.max(0, radius - tool.cornerRadius);
      return at <= inner ? 0 : Math.sqrt(Math.max(0, maths.pow(tool.cornerRadius, 2) - maths.pow(radius - at, 2)));
    }
    default:
      return cornerHeight(Math.min(tool.cornerRadius, radius), radius, at);
  }
}

function cornerHeight(corner: number, radius: number, r: number): number {
  const into = r - (radius - corner);
  return into <= 0 ? 0 : corner - Math.sqrt(Math.max(0, corner * corner - into * into));
}

/** A ball of radius R on a cone of half angle α: they touch at R·cos α from the axis. */
function taperHeight(ball: number, alpha: number, r: number): number {
  const touch = ball * maths.cos(alpha);
  if (r <= touch) return ball - Math.sqrt(Math.max(0, ball * ball - r * r));
  return ball - ball * maths.sin(alpha) + (r - touch) / maths.tan(alpha);
}

/** Height of the profile where the tool reaches its full diameter, mm; 0 for a square end. */
export const profileTop = (tool: Profile) => profileHeight(tool, tool.diameter / 2);

/** Radii nearer than this are drawn as one, mm. */
const HAIR = 1e-6;

/** Outline of the cutting end, tip to flute end: radius and height, mm, fine enough to draw. */
export function profileOutline(tool: Profile & Pick<Tool, 'fluteLength'>, steps = 24): { r: number; z: number }[] {
  const radius = tool.diameter / 2;
  const level = Array.from({ length: steps + 1 }, (_, i) => (radius * i) / steps);
  // The foot of a pilot and the cone over it lie at one radius.
  const foot = tool.pilotLength ? [tool.tipDiameter / 2, tool.tipDiameter / 2 + HAIR] : [];
  const points = [...level, ...foot].sort((a, b) => a - b).map((r) => ({ r, z: profileHeight(tool, r) }));
  return [...points, { r: radius, z: Math.max(tool.fluteLength, profileTop(tool)) }];
}
