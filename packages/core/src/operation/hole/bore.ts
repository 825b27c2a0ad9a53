import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { Hole } from '../../part/plate/model';
import { holeBottom, offBy, isOpened, notOpened, planCycle } from './holes';
import { HOP, ThroughParams } from './hole-params';
import { OperationKind, PlanContext } from '../operation';

export class BoreParams extends ThroughParams {
  @Choice({
    label: 'Way out',
    help: 'Out at the feed leaves no mark but takes as long again; stop and lift is quick and may leave a scratch.',
    choices: ['feed out', 'stop and lift'],
  })
  out!: 'feed out' | 'stop and lift';
  @Parameter({
    label: 'Wait',
    help: 'Seconds at the bottom, to round it off.',
    unit: 'count',
    min: 0,
    max: 20,
    step: 1,
  })
  dwell!: number;
}

function faults(hole: Hole, z: number, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  if (Math.abs(hole.diameter - tool.diameter) > offBy(hole))
    return [
      finding(
        'head-not-set',
        { tool: tool.name, set: tool.diameter, at: hole.centre, wanted: hole.diameter },
        { operation: operation.id, tool: tool.id, field: 'toolId', at: hole.centre },
      ),
    ];
  return isOpened(hole, z, context) ? [] : [notOpened(hole, context)];
}

/** Straight down with a boring head that is set to the size of the hole. */
export const bore: OperationKind<BoreParams> = {
  kind: 'bore',
  title: 'Bore with a boring head',
  verb: 'Bore',
  process: 'hole',
  stage: 'mouths',
  works: ['hole'],
  takesHeights: 'start and end',
  suits: (tool) => tool.kind === 'boring-head',
  Params: BoreParams,
  usesEarlier: () => true,
  usesFixtures: true,
  defaults: () => ({ hop: HOP, breakthrough: 0.3, out: 'feed out', dwell: 0 }),
  bite: (_, tool) => ({ ae: Math.min(0.5, tool.diameter / 20), ap: tool.diameter / 2, peakAe: tool.diameter }),
  plan: (params, context) =>
    planCycle(bore, context, {
      cycle: { kind: params.out === 'feed out' ? 'ream' : 'bore', dwell: params.dwell },
      hop: params.hop,
      bottom: (hole) => holeBottom(hole, params.breakthrough, context),
      faults: (hole, z) => faults(hole, z, context),
    }),
};
