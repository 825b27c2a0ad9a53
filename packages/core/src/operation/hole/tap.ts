import { Finding, care, stop } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { formatNumber } from '../../quantity/units';
import { formingDrill, tapPercent } from '../../cutting/threads';
import { Hole } from '../../part/plate/model';
import { Tool, formOf } from '../../shop/tool';
import { isOpened, notOpened, placeOf, planCycle } from './holes';
import { HOP, ThroughParams } from './hole-params';
import { OperationKind, PlanContext } from '../operation';

export class TapParams extends ThroughParams {
  @Parameter({
    label: 'Full thread',
    help: 'Depth of full thread from the top; 0 takes all a hole gives. A blind hole keeps room for the tap’s lead.',
    unit: 'length',
    min: 0,
    max: 400,
    step: 0.5,
  })
  threadDepth!: number;
  @Choice({
    label: 'Stop',
    help: 'The program waits for your hand, to blow the hole out and brush on lubricant.',
    choices: ['none', 'before the first', 'before each'],
  })
  stops!: 'none' | 'before the first' | 'before each';
}

/** Threads of the tap's tip that are not yet full: cutting taps for stock use 3, forming taps 2. General workshop rule. */
export const leadOf = (tool: Pick<Tool, 'kind' | 'pitch'>) => (tool.kind === 'forming-tap' ? 2 : 3) * tool.pitch;

/** Room a tap leaves above the bottom of a blind hole, in pitches. */
const BOTTOM_ROOM = 1;
/** Thread heights between which a cutting tap works and the thread holds, percent. General workshop rule. */
const HEIGHTS = { least: 55, most: 88 };

/** Z of the tip: the asked full thread and the lead beyond it, or all the hole gives. */
function bottomOf(hole: Hole, params: TapParams, tool: Tool): number {
  const lead = leadOf(tool);
  const all = hole.through
    ? hole.depth + params.breakthrough + lead
    : hole.depth - Math.min(BOTTOM_ROOM * tool.pitch, hole.depth / 4);
  return -(params.threadDepth > 0 ? Math.min(all, params.threadDepth + lead) : all);
}

/** Whether the drilled hole suits the tap: neither so tight that it breaks nor so wide that it does not hold. */
function sizeFindings(hole: Hole, { tool, operation }: PlanContext): Finding[] {
  const place = { operation: operation.id, feature: hole.feature, at: hole.centre };
  if (tool.kind === 'forming-tap') {
    const wanted = formingDrill(tool.diameter, tool.pitch, 65);
    return Math.abs(hole.diameter - wanted) <= 0.06 * tool.pitch
      ? []
      : [
          stop(
            'forming-hole',
            `A hole of ${formatNumber(hole.diameter, 2)} mm at ${placeOf(hole)} does not suit ${tool.name}: it presses the thread and wants ${formatNumber(wanted, 2)} mm`,
            `Drill ${formatNumber(wanted, 2)} mm, or take a cutting tap`,
            place,
          ),
        ];
  }
  const percent = tapPercent(tool.diameter, tool.pitch, hole.diameter);
  const words = `A hole of ${formatNumber(hole.diameter, 2)} mm at ${placeOf(hole)} leaves ${formatNumber(percent, 0)} % of the thread’s height`;
  if (percent > HEIGHTS.most || percent < 0)
    return [stop('tap-hole', `${words}: ${tool.name} would break`, 'Drill it to the tap’s size', place)];
  return percent < HEIGHTS.least
    ? [care('tap-thin', `${words}: it holds little`, 'Drill it smaller, or make a larger thread', place)]
    : [];
}

function faults(hole: Hole, z: number, params: TapParams, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  const place = { operation: operation.id, tool: tool.id, feature: hole.feature, at: hole.centre };
  if (!hole.thread)
    return [
      stop('no-thread', `The hole at ${placeOf(hole)} has no thread`, 'Name its thread on the Part stage, as M5', {
        ...place,
        field: 'targets',
      }),
    ];
  if (Math.abs(hole.thread.major - tool.diameter) > 0.01 || Math.abs(hole.thread.pitch - tool.pitch) > 1e-3)
    return [
      stop(
        'other-thread',
        `${tool.name} does not make ${hole.thread.name} (${formatNumber(hole.thread.major, 2)} x ${formatNumber(hole.thread.pitch, 3)} mm)`,
        'Choose the tap of that thread',
        { ...place, field: 'toolId' },
      ),
    ];
  const found = sizeFindings(hole, context);
  if (params.threadDepth > -z - leadOf(tool) + 1e-6)
    found.push(
      stop(
        'tap-too-deep',
        `${formatNumber(params.threadDepth, 2)} mm of full thread do not fit in the hole at ${placeOf(hole)}: with the tap’s lead it gives ${formatNumber(Math.max(0, -z - leadOf(tool)), 2)} mm`,
        'Make the hole deeper or the thread shorter',
        { ...place, field: 'params.threadDepth' },
      ),
    );
  if (!isOpened(hole, z, context)) found.push(notOpened(hole, context));
  return found;
}

/** A tap's feed is its pitch times its speed, and nothing else. */
function feedFindings({ tool, operation }: PlanContext): Finding[] {
  const wanted = operation.speeds.rpm * tool.pitch;
  return Math.abs(operation.speeds.feed - wanted) <= 0.001 * wanted + 0.05
    ? []
    : [
        stop(
          'tap-feed',
          `At ${operation.speeds.rpm} rpm ${tool.name} moves ${formatNumber(wanted, 1)} mm/min, not ${formatNumber(operation.speeds.feed, 1)}: it would tear the thread`,
          `Set the feed to ${formatNumber(wanted, 1)} mm/min`,
          { operation: operation.id, tool: tool.id, field: 'speeds.feed' },
        ),
      ];
}

/** Rigid tapping, right and left hand: down and out again in step with the spindle. */
export const tap: OperationKind<TapParams> = {
  kind: 'tap',
  title: 'Tap threads',
  verb: 'Tap',
  process: 'hole',
  stage: 'threads',
  works: ['hole'],
  suits: (tool) => formOf(tool) === 'tap',
  Params: TapParams,
  usesEarlier: () => true,
  usesFixtures: true,
  defaults: () => ({ hop: HOP, breakthrough: 0.5, threadDepth: 0, stops: 'none' }),
  bite: (_, tool) => ({ ae: 0.6134 * tool.pitch, ap: tool.diameter, peakAe: tool.diameter }),
  plan: (params, context) => {
    const wrong = formOf(context.tool) === 'tap' ? feedFindings(context) : [];
    const plan = planCycle(tap, context, {
      cycle: { kind: context.tool.leftHand ? 'tap-left' : 'tap', stops: params.stops },
      hop: params.hop,
      bottom: (hole) => bottomOf(hole, params, context.tool),
      faults: (hole, z) => faults(hole, z, params, context),
    });
    return { ...plan, findings: [...wrong, ...plan.findings] };
  },
};
