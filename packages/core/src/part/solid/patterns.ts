/** Equal things that stand in a row, in rows and columns, or round a circle. */
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { Pattern, SINGLE } from '../plate/feature';
import { tidy } from './rings';

/** Places may be off by so much, mm. */
const OFF = 2e-3;

/** A pattern and the places it has: the first is where its feature stands. */
export interface Arranged {
  pattern: Pattern;
  /** Which of the places, in its own order. */
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
  if (n < 3) return undefined;
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

/** The one pattern all places of equal things make; each alone where they make none. */
export function arranged(places: Point[]): Arranged[] {
  if (places.length > 1) {
    const whole = asGrid(places) ?? asCircle(places) ?? asLine(places);
    if (whole) return [whole];
  }
  return places.map((_, k) => ({ pattern: SINGLE, members: [k] }));
}
