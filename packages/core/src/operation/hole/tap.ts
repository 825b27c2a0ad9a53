import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { formingDrill, tapPercent } from '../../cutting/threads';
import { Hole } from '../../part/plate/model';
import { Tool, formOf } from '../../shop/tool';
import { isOpened, notOpened, planCycle } from './holes';
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

/** Length of the tap's tip whose threads are not yet full, mm: as the tool says, else cutting taps 3 threads, forming taps 2. General workshop rule. */
export const leadOf = ({ kind, pitch, lead }: Pick<Tool, 'kind' | 'pitch' | 'lead'>) =>
  (lead || (kind === 'forming-tap' ? 2 : 3)) * pitch;

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
      : [finding('forming-hole', { diameter: hole.diameter, at: hole.centre, tool: tool.name, wanted }, place)];
  }
  const percent = tapPercent(tool.diameter, tool.pitch, hole.diameter);
  if (percent > HEIGHTS.most || percent < 0)
    return [finding('tap-hole', { diameter: hole.diameter, at: hole.centre, percent, tool: tool.name }, place)];
  return percent < HEIGHTS.least
    ? [finding('tap-thin', { diameter: hole.diameter, at: hole.centre, percent }, place)]
    : [];
}

function faults(hole: Hole, z: number, params: TapParams, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  const place = { operation: operation.id, tool: tool.id, feature: hole.feature, at: hole.centre };
  if (!hole.thread)
    return [
      finding(
        'no-thread',
        { at: hole.centre },
        {
          ...place,
          field: 'targets',
        },
      ),
    ];
  if (Math.abs(hole.thread.major - tool.diameter) > 0.01 || Math.abs(hole.thread.pitch - tool.pitch) > 1e-3)
    return [
      finding(
        'other-thread',
        { tool: tool.name, thread: hole.thread.name, major: hole.thread.major, pitch: hole.thread.pitch },
        { ...place, field: 'toolId' },
      ),
    ];
  const found = sizeFindings(hole, context);
  if (params.threadDepth > -z - leadOf(tool) + 1e-6)
    found.push(
      finding(
        'tap-too-deep',
        { threadDepth: params.threadDepth, at: hole.centre, room: Math.max(0, -z - leadOf(tool)) },
        { ...place, field: 'params.threadDepth' },
      ),
    );
  const deep = context.top - z;
  if (deep > tool.fluteLength + 1e-6 && tool.shankDiameter > hole.diameter)
    found.push(
      finding(
        'tap-short',
        { tool: tool.name, flutes: tool.fluteLength, at: hole.centre, deep },
        { ...place, field: 'toolId' },
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
        finding(
          'tap-feed',
          { rpm: operation.speeds.rpm, tool: tool.name, wanted, feed: operation.speeds.feed },
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
  leavesSizes: true,
  works: ['hole'],
  takesHeights: 'start',
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
