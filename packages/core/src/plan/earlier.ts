import { Earlier } from '../operation/earlier';
import { Turn, middleOf, turnPoint } from '../part/plate/side';
import { ARC_CCW, ARC_CW, Path } from '../path/path';
import { Job, Setup } from '../document/job';
import { turnOf } from './ground';

/** What a job's planned operations cut, for whoever comes after them. */
export const cutBy = ({ tools }: Job, planned: { operation: { toolId: string }; plan: { path: Path } }[]): Earlier[] =>
  planned.flatMap(({ operation: { toolId }, plan: { path } }) => {
    const tool = tools.find((t) => t.id === toolId);
    return tool ? [{ tool, path }] : [];
  });

/** What ran in one setup as it lies in another. */
export function turnedEarlier(job: Job, from: Setup, to: Setup, earlier: Earlier[]): Earlier[] {
  const turn = turnOf(from, to);
  const middle = middleOf(job.part);
  return earlier.map(({ tool, path, below }) => ({
    tool,
    path: turnedPath(path, turn, middle, job.part.thickness),
    below: (below ?? false) !== turn.z,
  }));
}

function turnedPath(path: Path, turn: Turn, middle: { x: number; y: number }, thickness: number): Path {
  const turned = { ...path, ...places(path.x, path.y) };
  const centres = places(path.cx, path.cy);
  // Turned over, a path runs round the other way.
  const kind = turn.z ? path.kind.map((k) => (k === ARC_CW ? ARC_CCW : k === ARC_CCW ? ARC_CW : k)) : path.kind;
  const z = turn.z ? path.z.map((v) => -thickness - v) : path.z;
  return { ...turned, cx: centres.x, cy: centres.y, kind, z };

  function places(xs: Float64Array, ys: Float64Array) {
    const [x, y] = [new Float64Array(xs.length), new Float64Array(ys.length)];
    for (let i = 0; i < xs.length; i++) {
      const p = turnPoint(turn, { x: xs[i], y: ys[i] }, middle);
      [x[i], y[i]] = [p.x, p.y];
    }
    return { x, y };
  }
}
