import { ListOf, Nested, OneOf } from '../../quantity/nested';
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
import { JobFile } from '../../quantity/files';
import { MODEL_UNITS, ModelUnit } from '../solid/read/model';
import { Lean } from './leaning';
import { FACES, Face } from './turn';

const FAR = 20_000;

export class ChainVertex {
  @IsNumber() @Min(-FAR) @Max(FAR) x!: number;
  @IsNumber() @Min(-FAR) @Max(FAR) y!: number;
  @IsNumber() @Min(-1e6) @Max(1e6) bulge!: number;
}

export class RectangleShape {
  @Equals('rectangle') type!: 'rectangle';
  @IsNumber() @Min(0.01) @Max(FAR) width!: number;
  @IsNumber() @Min(0.01) @Max(FAR) height!: number;
  @IsNumber() @Min(0) @Max(FAR) radius!: number;
}

export class RoundShape {
  @Equals('round') type!: 'round';
  @IsNumber() @Min(0.01) @Max(FAR) diameter!: number;
}

/** Two half circles joined by straights; `length` over all. */
export class SlotShape {
  @Equals('slot') type!: 'slot';
  @IsNumber() @Min(0.01) @Max(FAR) length!: number;
  @IsNumber() @Min(0.01) @Max(FAR) width!: number;
}

/** A regular polygon, given across its flats (even count) or by its inner circle. */
export class PolygonShape {
  @Equals('polygon') type!: 'polygon';
  @IsInt() @Min(3) @Max(60) sides!: number;
  @IsNumber() @Min(0.01) @Max(FAR) across!: number;
}

/** Corners of one drawn chain. */
export const MOST_VERTICES = 50_000;

/** Straights and arcs from a drawing. */
export class ChainShape {
  @Equals('chain') type!: 'chain';
  @ListOf(() => ChainVertex, MOST_VERTICES, 1)
  vertices!: ChainVertex[];
  @IsBoolean() closed!: boolean;
}

/** Words in single lines, for engraving. */
export class TextShape {
  @Equals('text') type!: 'text';
  @IsString() @Length(1, 200) text!: string;
  /** Of capitals, mm. */
  @IsNumber() @Min(0.1) @Max(1000) height!: number;
}

export type Shape = RectangleShape | RoundShape | SlotShape | PolygonShape | ChainShape | TextShape;

export const SHAPES = [
  { name: 'rectangle', value: RectangleShape },
  { name: 'round', value: RoundShape },
  { name: 'slot', value: SlotShape },
  { name: 'polygon', value: PolygonShape },
  { name: 'chain', value: ChainShape },
  { name: 'text', value: TextShape },
];

/** How often a feature stands in the part. */
export class Pattern {
  @IsIn(['single', 'line', 'grid', 'circle', 'mirror']) type!: 'single' | 'line' | 'grid' | 'circle' | 'mirror';
  /** Copies along the line or around the circle; columns of a grid; 2 where a mirror shows it left and right. */
  @IsInt() @Min(1) @Max(500) count!: number;
  /** Rows of a grid; 2 where a mirror shows it front and back. */
  @IsInt() @Min(1) @Max(500) rows!: number;
  @IsNumber() @Min(-FAR) @Max(FAR) dx!: number;
  @IsNumber() @Min(-FAR) @Max(FAR) dy!: number;
  /** Centre the copies go around, or where the mirrors stand, part coordinates. */
  @IsNumber() @Min(-FAR) @Max(FAR) centreX!: number;
  @IsNumber() @Min(-FAR) @Max(FAR) centreY!: number;
}

/** How the top edge of a feature is broken: a chamfer or a rounding. */
export class EdgeForm {
  @IsIn(['chamfer', 'round']) form!: 'chamfer' | 'round';
  /** Width of the chamfer seen from above, or the radius, mm. */
  @IsNumber() @Min(0.01) @Max(100) size!: number;
  /** Included angle of the chamfer, degrees; 90 leaves it as wide as it is high. */
  @IsNumber() @Min(20) @Max(150) angle!: number;
}

/** A wider, flat-bottomed mouth of a hole, for the head of a screw. */
export class Counterbore {
  @IsNumber() @Min(0.1) @Max(500) diameter!: number;
  @IsNumber() @Min(0.01) @Max(500) depth!: number;
}

/** Sizes of a feature that may carry limits. */
export const LIMITED = ['diameter', 'width', 'height', 'length', 'across', 'depth'] as const;
export type Limited = (typeof LIMITED)[number];

/** What one size may be off by, mm from its nominal value, with the fit that says so where there is one. */
export class SizeLimits {
  @IsIn([...LIMITED]) size!: Limited;
  @IsNumber() @Min(-10) @Max(10) upper!: number;
  @IsNumber() @Min(-10) @Max(10) lower!: number;
  @IsOptional() @Matches(/^[A-Za-z]{1,2}\d{1,2}$/) fit?: string;
}

export const MEANINGS = ['outline', 'notch', 'pocket', 'boss', 'hole', 'edge', 'line', 'ignore'] as const;
export type Meaning = (typeof MEANINGS)[number];

/** One outline on the part and what it means. Depths are measured down from the side it is cut from, mm. */
export class Feature {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsIn([...MEANINGS]) meaning!: Meaning;
  @OneOf(SHAPES)
  shape!: Shape;
  /** Where the shape's centre stands; a drawn chain is moved by this much. */
  @IsNumber() @Min(-FAR) @Max(FAR) x!: number;
  @IsNumber() @Min(-FAR) @Max(FAR) y!: number;
  /** Degrees, counterclockwise. */
  @IsNumber() @Min(-360) @Max(360) turn!: number;
  @Nested(() => Pattern) pattern!: Pattern;
  /** Floor of a pocket or hole; for a boss the depth of its top. */
  @IsNumber() @Min(0) @Max(2000) depth!: number;
  @IsBoolean() through!: boolean;
  /** Depth the mouth of a hole found in a solid lies at, mm; at the side it is cut from where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(2000) from?: number;
  /** Depth at which a through hole found in a solid comes out into the open, mm; at the opposite side where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(2000) ends?: number;
  /** Limits of its sizes; paths aim at their middle. */
  @IsOptional() @ListOf(() => SizeLimits, 6) limits?: SizeLimits[];
  /** Roughness its walls may have, µm Ra. */
  @IsOptional() @IsNumber() @Min(0.05) @Max(50) finish?: number;
  /** Thread in a hole or around a round boss, by its name: M5, 5/8-18, G1/2. */
  @IsOptional() @IsString() @Length(1, 40) thread?: string;
  /** The wider mouth of a hole. */
  @IsOptional() @Nested(() => Counterbore) counterbore?: Counterbore;
  /** How its top edge is broken. */
  @IsOptional() @Nested(() => EdgeForm) edge?: EdgeForm;
  /** Radius that rounds the corners of a notch’s mouth, mm; sharp where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) mouth?: number;
  /** Radius between the walls of a pocket found in a solid and its floor, mm; sharp where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(1000) foot?: number;
  /** How far the walls of a pocket found in a solid stand from upright, the pocket widening upwards, degrees; upright where left out. */
  @IsOptional() @IsNumber() @Min(0) @Max(60) taper?: number;
  /** The side it is cut from, where that is not the top. On a face beside the part X and Y count from its lower left corner. */
  @IsOptional() @IsIn(FACES.slice(1)) side?: Exclude<Face, 'top'>;
  /** How its axis leans from that of the top, where it is cut on a sine plate; its place is where the axis meets the top. */
  @IsOptional() @Nested(() => Lean) lean?: Lean;
  /** Faces of the solid it was found in. */
  @IsOptional() @IsArray() @ArrayMaxSize(5000) @IsInt({ each: true }) @Min(0, { each: true }) faces?: number[];
  /** Whether somebody told it from the faces of the solid, and it was not found. */
  @IsOptional() @IsBoolean() told?: boolean;
  /** Layer of the drawing it came from; empty for shapes. */
  @IsString() @Length(0, 255) layer!: string;
}

/** How far down from its side a hole or a pocket ends, mm. */
export const endsAt = (
  { through, depth, ends }: Pick<Feature, 'through' | 'depth' | 'ends'>,
  thickness: number,
): number => (through ? (ends ?? thickness) : depth);

/** Without what is known of where it stands: it stands elsewhere now. */
export const elsewhere = (feature: Feature): Feature => ({ ...feature, from: undefined, ends: undefined });

/** The face a feature is cut from. */
export const sideOf = ({ side }: Pick<Feature, 'side'>): Face => side ?? 'top';

/** Whether it is cut from beside the part. */
export const isBeside = ({ side }: Pick<Feature, 'side'>): boolean => side !== undefined && side !== 'underside';

/** What every part has: how thick it is from its top to its underside, mm, and what is cut into it from its six sides. */
class Featured {
  @IsNumber() @Min(0.05) @Max(2000) thickness!: number;
  @ListOf(() => Feature, 2000) features!: Feature[];
}

/** A plate of one thickness with features cut into it from its six sides. */
export class Plate extends Featured {
  @Equals('plate') kind!: 'plate';
}

/** How a solid was taken from its file. */
export class Taken {
  /** Which of its bodies, the largest first. */
  @IsInt() @Min(0) @Max(1000) body!: number;
  /** The unit its lengths were taken as. */
  @IsIn(MODEL_UNITS) unit!: ModelUnit;
  /** The side of the model that is the top of the part. */
  @IsIn(FACES) up!: Face;
}

export const LEFT_WHYS = ['undercut', 'along', 'slope', 'round', 'free', 'flat'] as const;
/** Why a face of a solid is made by no feature: no side comes to it, or only along its whole length from its two ends, it slopes, is rounded, of free form, or level and not understood. */
export type LeftWhy = (typeof LEFT_WHYS)[number];

/** A face of a solid that belonged to no feature when it was taken in. */
export class LeftFace {
  @IsInt() @Min(0) @Max(10_000_000) face!: number;
  @IsIn([...LEFT_WHYS]) why!: LeftWhy;
  /** mm². */
  @IsNumber() @Min(0) @Max(1e9) area!: number;
}

/** A solid from a file: what was found in it, and its surface, which the proof compares with. */
export class Solid extends Featured {
  @Equals('solid') kind!: 'solid';
  /** Its surface in the part’s own place, binary PLY. */
  @Nested(() => JobFile) surface!: JobFile;
  /** The file it came in. */
  @IsOptional() @Nested(() => JobFile) source?: JobFile;
  @Nested(() => Taken) taken!: Taken;
  /** Faces that no feature was found to make. */
  @IsOptional() @ListOf(() => LeftFace, 100_000) left?: LeftFace[];
}

export const PARTS = [
  { name: 'plate', value: Plate },
  { name: 'solid', value: Solid },
];

export const SINGLE: Pattern = { type: 'single', count: 1, rows: 1, dx: 0, dy: 0, centreX: 0, centreY: 0 };

/** The wanted part. */
export type Part = Plate | Solid;
