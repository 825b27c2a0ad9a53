import { mirroredLean } from './leaning';
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { Nested } from '../../quantity/nested';
import { hashOf } from '../../quantity/hash';
import { Point } from '../../geometry/plane/point';
import { ChainVertex, Feature, Pattern, SINGLE } from './feature';
import { placements } from './shapes';
import { maths } from '../../quantity/maths';

export const MIRRORS = ['none', 'left and right', 'front and back'] as const;
export type Mirror = (typeof MIRRORS)[number];

const FAR = 20_000;

/** How often an operation is done: its features stand in a pattern, and all of them once more as in a mirror. */
export class Repeat {
  @Nested(() => Pattern) pattern!: Pattern;
  @IsIn([...MIRRORS]) mirror!: Mirror;
  /** Where the mirror stands: its X between left and right, its Y between front and back, mm. */
  @IsNumber() @Min(-FAR) @Max(FAR) at!: number;
  /** Places of the pattern that are left alone, counted from 1, which is what is drawn; with their images. */
  @IsOptional() @IsArray() @ArrayMaxSize(2000) @IsInt({ each: true }) @Min(1, { each: true }) without?: number[];
}

export const ONCE: Repeat = { pattern: SINGLE, mirror: 'none', at: 0 };

const named = (feature: Feature, of: Feature): Feature => {
  const { x, y, turn, shape } = feature;
  const place = [x, y, turn].map((v) => Number(v.toFixed(6)));
  return { ...feature, id: `${of.id}@${hashOf({ place, shape })}`, name: `${of.name} again`.slice(0, 80) };
};

const within = (turn: number) => (turn > 180 ? turn - 360 : turn < -180 ? turn + 360 : turn);

/** A feature moved, or turned about the centre of a pattern. */
function placed(feature: Feature, pattern: Pattern, { dx, dy, turn }: ReturnType<typeof placements>[number]): Feature {
  if (turn === 0) return { ...feature, x: feature.x + dx, y: feature.y + dy };
  const [cos, sin] = [maths.cos((turn * Math.PI) / 180), maths.sin((turn * Math.PI) / 180)];
  const [u, v] = [feature.x - pattern.centreX, feature.y - pattern.centreY];
  return {
    ...feature,
    x: pattern.centreX + u * cos - v * sin,
    y: pattern.centreY + u * sin + v * cos,
    turn: within(feature.turn + turn),
  };
}

/** Each place of a feature's own pattern as a feature of its own. */
const singles = (feature: Feature): Feature[] =>
  placements(feature.pattern).map((p) => ({ ...placed(feature, feature.pattern, p), pattern: SINGLE }));

/** The places of a feature's own pattern as features with names and ids of their own, in the order they are counted. */
export const placesOf = (feature: Feature): Feature[] => singles(feature).map((f) => named(f, feature));

/** A feature moved, and the centre its copies go around with it. */
export function moved(feature: Feature, { x, y }: Point): Feature {
  const { pattern } = feature;
  const centre = { centreX: pattern.centreX + x, centreY: pattern.centreY + y };
  return {
    ...feature,
    x: feature.x + x,
    y: feature.y + y,
    pattern: pattern.type === 'circle' ? { ...pattern, ...centre } : pattern,
  };
}

/** Left for right; all shapes but drawn ones are the same in that mirror. */
const flipped = (vertices: ChainVertex[]) => vertices.map((v) => ({ x: -v.x, y: v.y, bulge: -v.bulge }));

/** A pattern as in a mirror: the same places, gone through the other way. */
function mirroredPattern(p: Pattern, across: boolean, at: number): Pattern {
  return across
    ? { ...p, dx: 0 - p.dx, centreX: 2 * at - p.centreX }
    : { ...p, dy: 0 - p.dy, centreY: 2 * at - p.centreY };
}

/** A feature as in a mirror; words stay readable. */
export function mirrored(feature: Feature, mirror: Mirror, at: number): Feature {
  const { shape, x, y, turn } = feature;
  const across = mirror === 'left and right';
  const pattern = feature.pattern.type === 'single' ? feature.pattern : mirroredPattern(feature.pattern, across, at);
  const lean = feature.lean && mirroredLean(feature.lean, across ? 'x' : 'y');
  const place = { pattern, ...(lean && { lean }), ...(across ? { x: 2 * at - x, y } : { x, y: 2 * at - y }) };
  if (shape.type === 'text') return { ...feature, ...place, turn: within(-turn) };
  const flat = shape.type === 'chain' ? { ...shape, vertices: flipped(shape.vertices) } : shape;
  return { ...feature, ...place, shape: flat, turn: within(across ? -turn : 180 - turn) };
}

/** A pattern turned a quarter to the left: columns become rows. */
function patternLeft(p: Pattern, about: Point): Pattern {
  const centre = { centreX: about.x - (p.centreY - about.y), centreY: about.y + (p.centreX - about.x) };
  const counts = p.type === 'grid' ? { count: p.rows, rows: p.count } : {};
  return { ...p, ...centre, ...counts, dx: 0 - p.dy, dy: p.dx };
}

/** A feature turned a quarter to the left about a point. */
export function turnedLeft(feature: Feature, about: Point): Feature {
  const { x, y, turn, pattern } = feature;
  return {
    ...feature,
    x: about.x - (y - about.y),
    y: about.y + (x - about.x),
    turn: within(turn + 90),
    pattern: pattern.type === 'single' ? pattern : patternLeft(pattern, about),
  };
}

/** Everything a feature becomes under a repeat: itself, then its copies, each a feature of its own; without those left alone. */
export function repeated(feature: Feature, { pattern, mirror, at, without = [] }: Repeat): Feature[] {
  const isKept = (i: number) => !without.includes(i + 1);
  const own = singles(feature);
  const copies = placements(pattern).flatMap((p, i) => (i && isKept(i) ? own.map((f) => placed(f, pattern, p)) : []));
  const drawn = isKept(0) ? [feature] : [];
  const all = isKept(0) ? [...own, ...copies] : copies;
  const images = mirror === 'none' ? [] : all.map((f) => mirrored(f, mirror, at));
  // Copies stand where the solid has no faces of its own.
  return [...drawn, ...[...copies, ...images].map((f) => named({ ...f, faces: undefined }, feature))];
}
