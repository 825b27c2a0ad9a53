/** Where features stand: the places of their patterns, moved, turned and as in a mirror. */
import { Point } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { ChainVertex, Feature, Pattern, SINGLE } from './feature';
import { mirroredLean } from './leaning';

export const MIRRORS = ['none', 'left and right', 'front and back'] as const;
export type Mirror = (typeof MIRRORS)[number];

/** Where a copy of a pattern stands: an offset, or a turn about the pattern's centre, or as in mirrors that stand there. */
export interface Placement {
  dx: number;
  dy: number;
  /** Degrees. */
  turn: number;
  mirrors: Exclude<Mirror, 'none'>[];
}

const IN_PLACE: Placement = { dx: 0, dy: 0, turn: 0, mirrors: [] };

/** Where each copy of a pattern stands; the first is what is drawn. */
export function placements({ type, count, rows, dx, dy }: Pattern): Placement[] {
  const n = Array.from({ length: count }, (_, i) => i);
  const stepped = (i: number, j: number): Placement => ({ ...IN_PLACE, dx: i * dx, dy: j * dy });
  if (type === 'line') return n.map((i) => stepped(i, i));
  if (type === 'grid') return Array.from({ length: rows }, (_, j) => n.map((i) => stepped(i, j))).flat();
  if (type === 'circle') return n.map((i) => ({ ...IN_PLACE, turn: (360 * i) / count }));
  if (type === 'mirror') {
    const sides: Placement['mirrors'][] = count > 1 ? [[], ['left and right']] : [[]];
    const ends: Placement['mirrors'][] = rows > 1 ? [[], ['front and back']] : [[]];
    return ends.flatMap((end) => sides.map((side) => ({ ...IN_PLACE, mirrors: [...side, ...end] })));
  }
  return [IN_PLACE];
}

const within = (turn: number) => (turn > 180 ? turn - 360 : turn < -180 ? turn + 360 : turn);

/** A feature at a place of a pattern. */
export function placed(feature: Feature, pattern: Pattern, { dx, dy, turn, mirrors }: Placement): Feature {
  if (mirrors.length > 0)
    return mirrors.reduce(
      (f, mirror) => mirrored(f, mirror, mirror === 'left and right' ? pattern.centreX : pattern.centreY),
      feature,
    );
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
export const singles = (feature: Feature): Feature[] =>
  placements(feature.pattern).map((p) => ({ ...placed(feature, feature.pattern, p), pattern: SINGLE }));

/** A feature moved, and with it the centre its copies go around, or its mirrors. */
export function moved(feature: Feature, { x, y }: Point): Feature {
  const { pattern } = feature;
  const centre = { centreX: pattern.centreX + x, centreY: pattern.centreY + y };
  return {
    ...feature,
    x: feature.x + x,
    y: feature.y + y,
    pattern: pattern.type === 'circle' || pattern.type === 'mirror' ? { ...pattern, ...centre } : pattern,
  };
}

/** Left for right; all shapes but drawn ones are the same in that mirror. */
export const flipped = (vertices: ChainVertex[]) => vertices.map((v) => ({ x: -v.x, y: v.y, bulge: -v.bulge }));

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
  const counts = p.type === 'grid' || p.type === 'mirror' ? { count: p.rows, rows: p.count } : {};
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
