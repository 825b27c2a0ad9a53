import { Chain, flatten, reversed, startedAtShare, startedOnLongest } from '../../geometry/plane/chain';
import { Region, contains, distanceToBoundary } from '../../geometry/plane/clip';
import { Point, distanceToSegment } from '../../geometry/plane/point';
import { Corners, begunAt, closedLaps, openLap } from './laps';

/** Share of the cutter's radius a loop goes past a corner. */
const LOOP = 0.5;
/** Nearer to the wall than it should be by less than this is rounding, mm. */
const SLACK = 0.002;
/** Chords a line is measured to, mm: their error is well within that. */
const CHORDS = 0.001;

/** A line to run along: where its laps lie at a distance from the wall, and where the cutter's middle may be. */
export interface Wall {
  laps(leave: number): Chain[];
  isFree(p: Point, leave: number): boolean;
}

/** How a cutter runs along a wall. */
export interface Run {
  /** Of the cutter, mm. */
  radius: number;
  side: string;
  direction: 'climb' | 'conventional';
  corners: Corners;
  startAt: 'longest straight' | 'chosen';
  /** Share of the way round where a lap begins, where it is chosen. */
  start: number;
  /** Places laps begin at, where they are picked. */
  begins?: Point[];
}

/** A closed lap begun where it is to be. */
function begun(lap: Chain, { startAt, start, begins }: Run): Chain {
  if (begins?.length) return begunAt(lap, begins);
  return startAt === 'chosen' ? startedAtShare(lap, start) : startedOnLongest(lap);
}

const isOn = (run: Run) => run.side === 'on the line';

/** Closed lines together, run along outside or inside, or on them. */
export function closedWall(region: Region, inside: boolean, run: Run): Wall {
  const { radius, direction, corners } = run;
  const on = isOn(run);
  const laps = (leave: number) =>
    closedLaps(region, on ? 0 : (inside ? -1 : 1) * (radius + leave), inside || on ? 'rolled' : corners, LOOP * radius)
      .map((lap) => (inside === (direction === 'climb') ? lap : reversed(lap)))
      .map((lap) => begun(lap, run));
  const isFree = (p: Point, leave: number) =>
    on || (contains(region, p) === inside && distanceToBoundary(region, p) >= radius + leave - SLACK);
  return { laps, isFree };
}

/**
 * An open line, run along on one of its sides or on it.
 * @param whole as long as it is to be run along
 * @param drawn as long as it is
 */
export function openWall(whole: Chain, drawn: Chain, run: Run): Wall {
  const { radius, direction } = run;
  const on = isOn(run);
  const side = run.side === 'right' ? 'right' : 'left';
  const forward = on ? direction === 'climb' : (side === 'left') === (direction === 'climb');
  const points = flatten(drawn, CHORDS);
  const laps = (leave: number) => {
    const lap = whole.vertices.length > 1 ? openLap(whole, on ? 0 : radius + leave, side) : undefined;
    return lap ? [forward ? lap : reversed(lap)] : [];
  };
  const isFree = (p: Point, leave: number) =>
    on || points.every((q, i) => i === 0 || distanceToSegment(p, points[i - 1], q).distance >= radius + leave - SLACK);
  return { laps, isFree };
}
