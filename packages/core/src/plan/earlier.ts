import { Earlier } from '../operation/earlier';
import { bodyAs } from '../part/plate/side';
import { Body, Turn, isFlat, turnPoint, turnsOver } from '../part/plate/turn';
import { ARC_CCW, ARC_CW, Path } from '../path/path';
import { Job, Setup } from '../document/job';
import { turnOf } from './ground';

/** What a job's planned operations cut, for whoever comes after them. */
export const cutBy = ({ tools }: Job, planned: { operation: { toolId: string }; plan: { path: Path } }[]): Earlier[] =>
  planned.flatMap(({ operation: { toolId }, plan: { path } }) => {
    const tool = tools.find((t) => t.id === toolId);
    return tool ? [{ tool, path }] : [];
  });

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
