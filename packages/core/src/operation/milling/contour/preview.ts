import { pointAtShare } from '../../../geometry/plane/chain';
import { instancesOf } from '../../../part/plate/shapes';
import { LapPreview, PlanContext } from '../../operation';
import { tabShares } from '../tabs';
import { ContourParams, WORKS } from './params';
import { ContourPlanner, isInside } from './planner';

/** What a contour will run along. */
export function previewContour(
  params: ContourParams,
  context: Pick<PlanContext, 'tool' | 'targets' | 'operation'>,
): LapPreview {
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
