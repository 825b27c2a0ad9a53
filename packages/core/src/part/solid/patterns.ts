/** Equal things that stand in a row, in rows and columns, round a circle, or as in a mirror. */
import { pieces, splitPiece, transform } from '../../geometry/plane/chain';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { radians } from '../../quantity/units';
import { Pattern, SINGLE } from '../plate/feature';
import { Placement, placements } from '../plate/placed';
import { linesOf } from '../plate/shapes';
import { Standing, tidy } from './rings';

/** Places may be off by so much, mm. */
const OFF = 2e-3;

/** A pattern and the things it has: the first is where its feature stands. */
export interface Arranged {
  pattern: Pattern;
  /** Which of the things, in its own order. */
  members: number[];
}

const near = (a: number, b: number) => Math.abs(a - b) < OFF;

/** The values that occur, each once, if they are evenly spaced. */
function steps(values: number[]): { first: number; step: number; count: number } | undefined {
  const sorted = [...values].sort((a, b) => a - b).filter((v, i, all) => i === 0 || !near(v, all[i - 1]));
  const step = sorted.length > 1 ? (sorted[sorted.length - 1] - sorted[0]) / (sorted.length - 1) : 0;
  return sorted.every((v, i) => near(v, sorted[0] + i * step))
    ? { first: sorted[0], step, count: sorted.length }
    : undefined;
}

function asGrid(places: Point[]): Arranged | undefined {
  const [columns, rows] = [steps(places.map((p) => p.x)), steps(places.map((p) => p.y))];
  if (!columns || !rows || columns.count * rows.count !== places.length) return undefined;
  const members: number[] = [];
  for (let j = 0; j < rows.count; j++)
    for (let i = 0; i < columns.count; i++) {
      const at = { x: columns.first + i * columns.step, y: rows.first + j * rows.step };
      const k = places.findIndex((p) => distance(p, at) < 2 * OFF);
      if (k < 0) return undefined;
      members.push(k);
    }
  const [dx, dy] = [tidy(columns.step), tidy(rows.step)];
  if (rows.count === 1) return { members, pattern: { ...SINGLE, type: 'line', count: columns.count, dx, dy: 0 } };
  if (columns.count === 1) return { members, pattern: { ...SINGLE, type: 'line', count: rows.count, dx: 0, dy } };
  return { members, pattern: { ...SINGLE, type: 'grid', count: columns.count, rows: rows.count, dx, dy } };
}

function asLine(places: Point[]): Arranged | undefined {
  const members = [...places.keys()].sort((a, b) => places[a].x - places[b].x || places[a].y - places[b].y);
  const [first, last] = [places[members[0]], places[members[members.length - 1]]];
  const n = places.length - 1;
  const step = { x: (last.x - first.x) / n, y: (last.y - first.y) / n };
  const isEven = members.every(
    (k, i) => distance(places[k], { x: first.x + i * step.x, y: first.y + i * step.y }) < 2 * OFF,
  );
  if (!isEven || places.length < 2) return undefined;
  return { members, pattern: { ...SINGLE, type: 'line', count: places.length, dx: tidy(step.x), dy: tidy(step.y) } };
}

function asCircle(places: Point[]): Arranged | undefined {
  const n = places.length;
  const centre = { x: places.reduce((s, p) => s + p.x, 0) / n, y: places.reduce((s, p) => s + p.y, 0) / n };
  const radius = distance(places[0], centre);
  if (radius < 1 || !places.every((p) => near(distance(p, centre), radius))) return undefined;
  const angle = (p: Point) => maths.atan2(p.y - centre.y, p.x - centre.x);
  const members = [...places.keys()].sort((a, b) => angle(places[a]) - angle(places[b]));
  const isEven = members.every((k, i) => {
    const at = angle(places[members[0]]) + (2 * Math.PI * i) / n;
    return (
      distance(places[k], { x: centre.x + radius * maths.cos(at), y: centre.y + radius * maths.sin(at) }) < 2 * OFF
    );
  });
  if (!isEven) return undefined;
  const pattern: Pattern = { ...SINGLE, type: 'circle', count: n, centreX: tidy(centre.x), centreY: tidy(centre.y) };
  return { members, pattern };
}

/** What tells where something stands and how it is turned: of something round its middle, else its corners and the middles between them. */
function marksOf(thing: Standing): Point[] {
  if (thing.shape.type === 'round') return [{ x: thing.x, y: thing.y }];
  const at = { turn: thing.turn, dx: thing.x, dy: thing.y };
  return linesOf(thing.shape).flatMap((line) =>
    [...pieces(transform(line, at))].flatMap(({ a, b, bulge }) => [a, splitPiece(a, b, bulge, 0.5).at, b]),
  );
}

const middleOf = (marks: Point[]): Point => ({
  x: marks.reduce((sum, p) => sum + p.x, 0) / marks.length,
  y: marks.reduce((sum, p) => sum + p.y, 0) / marks.length,
});

/** Whether two things are one and the same, but for how they stand: perhaps as in a mirror. */
export function isAlike(a: Standing, b: Standing): boolean {
  if (a.shape.type !== 'chain' || b.shape.type !== 'chain') return JSON.stringify(a.shape) === JSON.stringify(b.shape);
  const [own, others] = [a, b].map((thing) => {
    const marks = marksOf(thing);
    const middle = middleOf(marks);
    return marks.map((p) => distance(p, middle)).sort((x, y) => x - y);
  });
  return own.length === others.length && own.every((far, i) => Math.abs(far - others[i]) < 2 * OFF);
}

/** A mark of the first thing of a pattern as it is at another place. */
function shownAt({ x, y }: Point, { centreX, centreY }: Pattern, { dx, dy, turn, mirrors }: Placement): Point {
  const [cos, sin] = [maths.cos(radians(turn)), maths.sin(radians(turn))];
  const [u, v] = [x - centreX, y - centreY];
  const turned = { x: centreX + u * cos - v * sin + dx, y: centreY + u * sin + v * cos + dy };
  return mirrors.reduce(
    (p, mirror) => (mirror === 'left and right' ? { x: 2 * centreX - p.x, y: p.y } : { x: p.x, y: 2 * centreY - p.y }),
    turned,
  );
}

const isSame = (a: Point[], b: Point[]): boolean =>
  a.length === b.length && a.every((p) => b.some((q) => distance(p, q) < 2 * OFF));

/** Which thing stands at a place of a pattern that begins with one; −1 where none does. */
const standingAt = (marks: Point[][], first: number, pattern: Pattern, place: Placement): number => {
  const shown = marks[first].map((p) => shownAt(p, pattern, place));
  return marks.findIndex((other) => isSame(shown, other));
};

/** Whether a pattern shows its first thing at the place of each of its others. */
const isShown = (marks: Point[][], { pattern, members }: Arranged): boolean =>
  placements(pattern).every((place, i) => standingAt(marks, members[0], pattern, place) === members[i]);

/** The pattern of a thing and of what it is in mirrors that stand there. */
function orbit(marks: Point[][], k: number, mirrors: Pattern): Arranged | undefined {
  const alone = { ...mirrors, count: 1, rows: 1 };
  const image = (more: Partial<Pattern>) => {
    const [, place] = placements({ ...alone, ...more });
    return place ? standingAt(marks, k, mirrors, place) : k;
  };
  const [beside, behind] = [image({ count: mirrors.count }), image({ rows: mirrors.rows })];
  if (beside < 0 || behind < 0) return undefined;
  const pattern = { ...mirrors, count: beside === k ? 1 : 2, rows: behind === k || behind === beside ? 1 : 2 };
  const members = placements(pattern).map((place) => standingAt(marks, k, pattern, place));
  return { pattern: members.length > 1 ? pattern : SINGLE, members };
}

/** Things that all have their images in mirrors amid them: left and right, front and back, or both. */
function asMirrors(marks: Point[][]): Arranged[] | undefined {
  const middles = marks.map(middleOf);
  const amid = (values: number[]) => tidy((Math.min(...values) + Math.max(...values)) / 2);
  const [centreX, centreY] = [amid(middles.map((p) => p.x)), amid(middles.map((p) => p.y))];
  for (const [count, rows] of [
    [2, 2],
    [2, 1],
    [1, 2],
  ]) {
    const mirrors: Pattern = { ...SINGLE, type: 'mirror', count, rows, centreX, centreY };
    const orbits = marks.map((_, k) => orbit(marks, k, mirrors));
    const isWhole = orbits.every((o) => o && !o.members.includes(-1));
    if (isWhole && orbits.some((o) => o!.members.length > 1))
      return orbits.flatMap((o, k) => (Math.min(...o!.members) === k ? [o!] : []));
  }
  return undefined;
}

/** The patterns that things make which are alike: one of all of them, or images in mirrors; each alone where they make none. */
export function arranged(things: Standing[]): Arranged[] {
  if (things.length > 1) {
    const marks = things.map(marksOf);
    const places = marks.map(middleOf);
    const whole = [asGrid, asLine, asCircle].map((as) => as(places)).find((found) => found && isShown(marks, found));
    const found = whole ? [whole] : asMirrors(marks);
    if (found) return found;
  }
  return things.map((_, k) => ({ pattern: SINGLE, members: [k] }));
}
