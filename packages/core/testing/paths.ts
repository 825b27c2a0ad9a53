/** Measures of paths for tests. */
import { Path, RAPID, TAGS, sweepOf } from '../src/path/path';

/** Length of a path at its cutting feed, mm. */
export function cutLength(path: Path): number {
  let sum = 0;
  for (let i = 1; i < path.count; i++) {
    if (path.kind[i] === RAPID || TAGS[path.tag[i]] === 'entry') continue;
    const [x0, y0, x1, y1, cx, cy] = [path.x[i - 1], path.y[i - 1], path.x[i], path.y[i], path.cx[i], path.cy[i]];
    const sweep = path.kind[i] > 1 ? sweepOf(path.kind[i], x0, y0, x1, y1, cx, cy) : 0;
    const flat = path.kind[i] > 1 ? Math.hypot(x1 - cx, y1 - cy) * Math.abs(sweep) : Math.hypot(x1 - x0, y1 - y0);
    sum += Math.hypot(flat, path.z[i] - path.z[i - 1]);
  }
  return sum;
}
