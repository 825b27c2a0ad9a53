import { Finding, finding } from '../../quantity/finding';
import { reamAllowance } from '../../cutting/holes';
import { Hole } from '../../part/plate/model';
import { holeBottom, offBy, isOpened, notOpened, planCycle } from './holes';
import { HOP, ThroughParams } from './hole-params';
import { OperationKind, PlanContext } from '../operation';

export class ReamParams extends ThroughParams {}

function faults(hole: Hole, z: number, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  if (Math.abs(hole.diameter - tool.diameter) > offBy(hole))
    return [
      finding(
        'ream-other-size',
        { tool: tool.name, makes: tool.diameter, at: hole.centre, wanted: hole.diameter },
        { operation: operation.id, tool: tool.id, field: 'toolId', at: hole.centre },
      ),
    ];
  return isOpened(hole, z, context) ? [] : [notOpened(hole, context)];
}

/** In and out at the feed: what a reamer cut it must not drag over at a rapid. */
export const ream: OperationKind<ReamParams> = {
  kind: 'ream',
  title: 'Ream holes to size',
  verb: 'Ream',
  process: 'hole',
  stage: 'mouths',
  works: ['hole'],
  takesHeights: 'start and end',
  suits: (tool) => tool.kind === 'reamer',
  Params: ReamParams,
  usesEarlier: () => true,
  usesFixtures: true,
  defaults: () => ({ hop: HOP, breakthrough: 0.3 }),
  bite: (_, tool) => ({ ae: reamAllowance(tool.diameter) / 2, ap: tool.diameter, peakAe: tool.diameter }),
  plan: (params, context) =>
    planCycle(ream, context, {
      cycle: { kind: 'ream' },
      hop: params.hop,
      bottom: (hole) => holeBottom(hole, params.breakthrough, context),
      faults: (hole, z) => faults(hole, z, context),
    }),
};
