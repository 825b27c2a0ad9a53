import { Earlier } from '../operation/earlier';
import { Bounds } from '../geometry/plane/point';
import { hashOf, keyOfNumbers } from '../quantity/hash';
import { maths } from '../quantity/maths';
import { bodyAs } from '../part/plate/side';
import { Body, Turn, isFlat, turnPoint, turnsOver } from '../part/plate/turn';
import { ARC_CCW, ARC_CW, LINE, Path, RAPID, sweepOf } from '../path/path';
import { Job, Setup } from '../document/job';
import { turnOf } from './ground';

/** What a job's planned operations cut, for whoever comes after them. */
export const cutBy = ({ tools }: Job, planned: { operation: { toolId: string }; plan: { path: Path } }[]): Earlier[] =>
  planned.flatMap(({ operation: { toolId }, plan: { path } }) => {
    const tool = tools.find((t) => t.id === toolId);
    return tool ? [{ tool, path }] : [];
  });

const KEYS = new WeakMap<Path, string>();

/** A key of what was cut: the same way of the same tool is the same, whatever it was planned from. */
export function keyOfRan({ path, tool, below }: Earlier): string {
  const { x, y, z, cx, cy, kind } = path;
  const known = KEYS.get(path) ?? keyOfNumbers([x, y, z, cx, cy, kind]);
  KEYS.set(path, known);
  return hashOf([known, tool, below]);
}

/**
 * Whether what ran before may have cut within an area, seen from above.
 * @param top of the stock, mm: above it nothing is cut
 */
export function metIn({ path, tool, below }: Earlier, area: Bounds, top: number): boolean {
  const { x, y, z, cx, cy, kind, count } = path;
  const more = tool.diameter / 2;
  const [minX, maxX, minY, maxY] = [area.minX - more, area.maxX + more, area.minY - more, area.maxY + more];
  for (let i = 1; i < count; i++) {
    if (!below && kind[i] === RAPID && z[i] > top && z[i - 1] > top) continue;
    // An arc stays as near to its chord as its middle does, or, where it is more than half round, to its diameter.
    const sweep = kind[i] > LINE ? Math.abs(sweepOf(kind[i], x[i - 1], y[i - 1], x[i], y[i], cx[i], cy[i])) : 0;
    const r = sweep > 0 ? maths.hypot(x[i] - cx[i], y[i] - cy[i]) : 0;
    const out = sweep > Math.PI ? 2 * r : r * (1 - maths.cos(sweep / 2));
    const [ax, bx] = [Math.min(x[i - 1], x[i]) - out, Math.max(x[i - 1], x[i]) + out];
    const [ay, by] = [Math.min(y[i - 1], y[i]) - out, Math.max(y[i - 1], y[i]) + out];
    // What has no place yet is anywhere.
    if (!(ax > maxX || bx < minX || ay > maxY || by < minY)) return true;
  }
  return false;
}

/** What ran in one setup as it lies in another; nothing of it can be met again where another side is up. */
export function turnedEarlier(job: Job, from: Setup, to: Setup, earlier: Earlier[]): Earlier[] {
  const turn = turnOf(from, to);
  if (!isFlat(turn)) return [];
  const body = bodyAs(job.part, from.up ?? 'top');
  return earlier.map(({ tool, path, below }) => ({
    tool,
    path: turnedPath(path, turn, body),
    below: (below ?? false) !== turnsOver(turn),
  }));
}

function turnedPath(path: Path, turn: Turn, body: Body): Path {
  const isOver = turnsOver(turn);
  const turned = { ...path, ...places(path.x, path.y) };
  const centres = places(path.cx, path.cy);
  // Turned over, a path runs round the other way.
  const kind = isOver ? path.kind.map((k) => (k === ARC_CW ? ARC_CCW : k === ARC_CCW ? ARC_CW : k)) : path.kind;
  const z = isOver ? path.z.map((v) => -body.size[2] - v) : path.z;
  return { ...turned, cx: centres.x, cy: centres.y, kind, z };

  function places(xs: Float64Array, ys: Float64Array) {
    const [x, y] = [new Float64Array(xs.length), new Float64Array(ys.length)];
    for (let i = 0; i < xs.length; i++) {
      const p = turnPoint(turn, { x: xs[i], y: ys[i] }, body);
      [x[i], y[i]] = [p.x, p.y];
    }
    return { x, y };
  }
}
