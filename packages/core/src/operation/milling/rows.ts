import { Region, contains } from '../../geometry/plane/clip';
import { Point, boundsOf } from '../../geometry/plane/point';
import { Budget } from '../../quantity/budget';
import { radians } from '../../quantity/units';
import { maths } from '../../quantity/maths';

/** A straight stretch inside an area, in the direction of its row. */
export interface Stretch {
  a: Point;
  b: Point;
}

const rotate = (p: Point, cos: number, sin: number): Point => ({ x: p.x * cos - p.y * sin, y: p.x * sin + p.y * cos });

/** A row counts as so many moves: each is held against every edge, and ordered among the others. */
const ROW_STEPS = 50;
/** Shortest stretch worth cutting, mm. */
const SHORT = 0.01;

/**
 * Parallel rows across a region, `stepover` mm apart or a little less so that they come out even, at an angle to X in degrees; each row
 * as its stretches inside the region, from low to high.
 */
export function rowsAcross(region: Region, stepover: number, angle: number, budget?: Budget): Stretch[][] {
  const [cos, sin] = [maths.cos(radians(angle)), maths.sin(radians(angle))];
  const turned = region.map((ring) => ring.map((p) => rotate(p, cos, -sin)));
  const box = boundsOf(turned.flat());
  const height = box.maxY - box.minY;
  const count = Math.max(1, Math.ceil(height / stepover - 1e-9));
  budget?.spend(count * ROW_STEPS);
  return Array.from({ length: count }, (_, k) => {
    const y = box.minY + (height * (k + 0.5)) / count;
    const crossings: number[] = [];
    for (const ring of turned)
      ring.forEach((p, i) => {
        const q = ring[(i + 1) % ring.length];
        if (p.y > y !== q.y > y) crossings.push(p.x + ((y - p.y) / (q.y - p.y)) * (q.x - p.x));
      });
    crossings.sort((a, b) => a - b);
    const stretches: Stretch[] = [];
    for (let i = 0; i + 1 < crossings.length; i += 2)
      if (crossings[i + 1] - crossings[i] > SHORT)
        stretches.push({
          a: rotate({ x: crossings[i], y }, cos, sin),
          b: rotate({ x: crossings[i + 1], y }, cos, sin),
        });
    return stretches;
  });
}

/**
 * Orders the stretches of rows into runs that can be cut to and fro without lifting: each next stretch lies in the next row and can
 * be reached straight through the region.
 * @param clear whether a straight between two points stays inside
 */
export function zigzagRuns(rows: Stretch[][], clear: (a: Point, b: Point) => boolean): Point[][] {
  const left = rows.map((row) => [...row]);
  const runs: Point[][] = [];
  for (;;) {
    let row = left.findIndex((r) => r.length > 0);
    if (row < 0) return runs;
    const first = left[row].shift()!;
    const run = [first.a, first.b];
    let forward = false;
    while (++row < left.length) {
      const here = run[run.length - 1];
      const next = left[row].findIndex((s) => clear(here, forward ? s.a : s.b));
      if (next < 0) break;
      const [{ a, b }] = left[row].splice(next, 1);
      run.push(...(forward ? [a, b] : [b, a]));
      forward = !forward;
    }
    runs.push(run);
  }
}

/** Whether a straight stays inside a region, looked at every `step` mm. */
export function staysInside(region: Region, a: Point, b: Point, step: number): boolean {
  const n = Math.max(2, Math.ceil(maths.hypot(b.x - a.x, b.y - a.y) / step));
  for (let i = 1; i < n; i++)
    if (!contains(region, { x: a.x + ((b.x - a.x) * i) / n, y: a.y + ((b.y - a.y) * i) / n })) return false;
  return true;
}
