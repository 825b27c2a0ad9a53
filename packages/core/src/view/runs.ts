import type { Vec3 } from '../geometry/space/vec3';
import { MOVE, Motions } from '../path/motions';
import type { Samples } from '../simulate/samples';
import type { PathRun } from './terms';

/** More pieces than this nobody can tell apart on a screen; several are drawn as one. */
const MOST_PIECES = 30_000;

/** The proved path as straight pieces in program order: cuts with their engagement, rapids apart. */
export function runsOf(samples: Samples, m: Motions, zero: Vec3): { cut: PathRun; rapid: PathRun } {
  const point = (i: number) => [m.x[i] + zero.x, m.y[i] + zero.y, m.z[i] + zero.z];
  const cut: PathRun = {
    positions: new Float32Array(samples.count * 6),
    engagement: new Float32Array(samples.count),
    line: new Uint32Array(samples.count),
  };
  const every = Math.ceil(samples.count / MOST_PIECES);
  /** Whether a rapid, or anything else that cuts nothing, lies before it. */
  const begins = (i: number) => i === 0 || i === samples.count || samples.motion[i] - samples.motion[i - 1] > 1;
  let n = 0;
  let here: number[] = [];
  for (let i = 0; i < samples.count; i++) {
    const motion = samples.motion[i];
    if (begins(i) || (every === 1 && samples.motion[i - 1] !== motion)) here = point(motion - 1);
    if (every > 1 && i % every && samples.rate[i] > 0 && !begins(i + 1)) continue;
    const next = [samples.x[i], samples.y[i], samples.z[i]];
    if (here.every(Number.isFinite)) {
      cut.positions.set(here, n * 6);
      cut.positions.set(next, n * 6 + 3);
      cut.engagement![n] = samples.engagement[i];
      cut.line[n++] = m.line[motion];
    }
    here = next;
  }
  const whole: PathRun = {
    positions: cut.positions.slice(0, n * 6),
    engagement: cut.engagement!.slice(0, n),
    line: cut.line.slice(0, n),
  };
  return { cut: whole, rapid: rapidsOf(m, point) };
}

function rapidsOf(m: Motions, point: (i: number) => number[]): PathRun {
  const positions: number[] = [];
  const line: number[] = [];
  for (let i = 1; i < m.count; i++) {
    if (m.type[i] !== MOVE.rapid) continue;
    const six = [...point(i - 1), ...point(i)];
    if (!six.every(Number.isFinite)) continue;
    positions.push(...six);
    line.push(m.line[i]);
  }
  return { positions: Float32Array.from(positions), line: Uint32Array.from(line) };
}
