import { Gauge, gaugesOf } from '../cutting/gauges';
import { Departure, departure } from '../cutting/departure';
import { Alternatives, Lift, lifts } from '../cutting/lift';
import { suggest } from '../cutting/suggest';
import { Suggestion } from '../cutting/suggestion';
import { Path, RAPID, TAGS, sweepOf } from '../path/path';
import { Operation } from '../document/operation';
import { isBeam } from '../shop/tool';
import { kindOf } from '../operation/registry';
import { biteIn, situationOf } from './situation';
import { Job } from '../document/job';

/** What an operation's values mean for the cut, worked out at once while someone types. */
export interface Insight {
  gauges: Gauge[];
  suggestion: Suggestion;
  departure: Departure;
}

const setupWith = (job: Job, { id }: Operation) =>
  job.setups.find((s) => s.operations.some((o) => o.id === id)) ?? job.setups[0];

/** Gauges and suggestion of an operation; undefined where its tool or kind is missing. */
export function insightOf(job: Job, operation: Operation): Insight | undefined {
  const kind = kindOf(operation.kind);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  if (!kind || !tool || isBeam(tool)) return undefined;
  const setup = setupWith(job, operation);
  const bite = biteIn(job, setup, kind, tool, operation);
  const { rpm, feed } = operation.speeds;
  const situation = situationOf(job, tool, bite);
  const suggestion = suggest(situation);
  return {
    gauges: gaugesOf({ tool, material: job.material, machine: job.machine, rpm, feed, ...bite }, job.unit),
    suggestion,
    departure: departure(situation, suggestion, operation.speeds),
  };
}

/** What would let an operation run faster, with what the shop has. */
export function liftsOf(job: Job, operation: Operation, shop: Alternatives): Lift[] {
  const kind = kindOf(operation.kind);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  if (!kind || !tool || isBeam(tool)) return [];
  return lifts(situationOf(job, tool, biteIn(job, setupWith(job, operation), kind, tool, operation)), shop);
}

/** Lengths of a path by what they are for, mm; enough to estimate its time at other feeds at once. */
export interface PathLengths {
  cut: number;
  entry: number;
  rapid: number;
}

export function pathLengths(path: Path): PathLengths {
  const lengths: PathLengths = { cut: 0, entry: 0, rapid: 0 };
  for (let i = 1; i < path.count; i++) {
    const [x0, y0, x1, y1] = [path.x[i - 1], path.y[i - 1], path.x[i], path.y[i]];
    const arc = path.kind[i] > 1;
    const flat = arc
      ? Math.hypot(x1 - path.cx[i], y1 - path.cy[i]) *
        Math.abs(sweepOf(path.kind[i], x0, y0, x1, y1, path.cx[i], path.cy[i]))
      : Math.hypot(x1 - x0, y1 - y0);
    const length = Math.hypot(flat, path.z[i] - path.z[i - 1]);
    if (path.kind[i] === RAPID) lengths.rapid += length;
    else if (TAGS[path.tag[i]] === 'entry') lengths.entry += length;
    else lengths.cut += length;
  }
  return lengths;
}

/** Minutes without acceleration: an estimate until the proof has run. */
export const estimateMinutes = (lengths: PathLengths, operation: Operation, rapid: number): number =>
  lengths.cut / operation.speeds.feed + lengths.entry / operation.speeds.entryFeed + lengths.rapid / rapid;
