import { Chain, pointAtShare } from '../../../geometry/plane/chain';
import { Point } from '../../../geometry/plane/point';
import { instancesOf } from '../../../part/plate/shapes';
import { PlanContext } from '../../operation';
import { tabShares } from '../tabs';
import { ContourParams, WORKS } from './params';
import { ContourPlanner, isInside } from './planner';

/** What a contour will run along, known before it is planned: its walls, laps in their direction, and where tabs stand. */
export interface ContourPreview {
  walls: Chain[];
  /** Whether the metal kept lies inside the walls, outside them, or neither is kept. */
  keeps: 'inside' | 'outside' | 'nothing';
  laps: { chain: Chain; tabs: Point[] }[];
}

export function previewContour(params: ContourParams, context: Pick<PlanContext, 'tool' | 'targets'>): ContourPreview {
  const planner = new ContourPlanner(params, context as PlanContext);
  const targets = context.targets.filter((t) => WORKS.includes(t.meaning));
  const walls = targets.flatMap(instancesOf);
  const tabs = params.tabs === 'none' ? [] : tabShares(params);
  const laps = targets
    .flatMap((t) => planner.lapsOf(t))
    .map((chain) => ({ chain, tabs: tabs.map((share) => pointAtShare(chain, share)) }));
  const [first] = targets;
  const isClosed = !!first && walls.every((w) => w.closed) && params.side !== 'on the line';
  return { walls, laps, keeps: !isClosed ? 'nothing' : isInside(first, params.side) ? 'outside' : 'inside' };
}
