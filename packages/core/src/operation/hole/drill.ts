import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { pointLength, suggestPeck } from '../../cutting/holes';
import { Hole } from '../../part/plate/model';
import { CycleKind } from '../../shop/controller';
import { formOf, makesHoles, profileHeight, startsHoles } from '../../shop/tool';
import { holeBottom, offBy, breakthroughFor, planCycle, targetHoles } from './holes';
import { HOP, ThroughParams } from './hole-params';
import { openingsOf } from './openings';
import { OperationKind, PlanContext } from '../operation';

type Method = 'straight' | 'peck' | 'chip-break' | 'spot';

export class DrillParams extends ThroughParams {
  @Choice({
    label: 'Method',
    help: 'Straight down, pecks with full retract, short chip-breaking pecks, or a spot to a diameter.',
    choices: ['straight', 'peck', 'chip-break', 'spot'],
  })
  method!: Method;
  @Parameter({
    label: 'Peck',
    help: 'Depth of one peck.',
    unit: 'length',
    min: 0.05,
    max: 100,
    step: 0.5,
    matters: (p: DrillParams) => p.method === 'peck' || p.method === 'chip-break',
  })
  peck!: number;
  @Parameter({
    label: 'Each peck less by',
    help: 'Pecks get shorter the deeper they go; 0 keeps them equal. Shorter pecks are written out, not left to the control.',
    unit: 'share',
    min: 0,
    max: 0.5,
    step: 0.05,
    matters: (p: DrillParams) => p.method === 'peck' || p.method === 'chip-break',
  })
  lessen!: number;
  @Parameter({
    label: 'Spot to',
    help: 'Diameter of the spot at the surface.',
    unit: 'length',
    min: 0.1,
    max: 50,
    step: 0.5,
    matters: (p: DrillParams) => p.method === 'spot',
  })
  spotDiameter!: number;
  @Parameter({
    label: 'Wait',
    help: 'Seconds at the bottom, to clean it up.',
    unit: 'count',
    min: 0,
    max: 20,
    step: 1,
    matters: (p: DrillParams) => p.method === 'spot',
  })
  dwell!: number;
}

/** Spots stay inside their hole by this share of its diameter. */
const SPOT_SHARE = 0.95;

const CYCLES: Record<Method, CycleKind> = { straight: 'drill', peck: 'peck', 'chip-break': 'chip-break', spot: 'spot' };

/** Z of the tip at the bottom of a hole: the full diameter reaches the asked depth, the point beyond it, where it is not asked the other way. */
function bottomOf(hole: Hole, params: DrillParams, context: PlanContext): number {
  const { tool, top, operation } = context;
  if (params.method === 'spot')
    return context.end?.(hole.feature) ?? top - profileHeight(tool, Math.min(params.spotDiameter, tool.diameter) / 2);
  const point = formOf(tool) === 'drill' && tool.pointAngle < 180 ? pointLength(tool.diameter, tool.pointAngle) : 0;
  return holeBottom(hole, params.breakthrough, context) - (operation.heights?.reach === 'tip' ? 0 : point);
}

const opens = (hole: Hole, { targets }: Pick<PlanContext, 'targets'>) =>
  targets.some((t) => t.id === hole.feature && t.meaning === 'pocket');

/** The holes it works on, and one in every pocket that it opens for a mill. */
const holesFor = (context: Pick<PlanContext, 'model' | 'targets' | 'tool'>): Hole[] => [
  ...targetHoles(context),
  ...context.targets
    .filter((t) => t.meaning === 'pocket')
    .flatMap((pocket) => openingsOf(pocket, context.model, context.tool)),
];

function sizeFindings(hole: Hole, params: DrillParams, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  const place = { operation: operation.id, tool: tool.id, field: 'toolId', at: hole.centre };
  if (params.method === 'spot') {
    const spot = { spotDiameter: params.spotDiameter, tool: tool.name };
    // A pilot has a point of its own, which marks smaller than it.
    if (params.spotDiameter <= tool.tipDiameter && !tool.pilotLength)
      return [finding('spot-narrow', { ...spot, pilot: tool.tipDiameter }, { ...place, field: 'params.spotDiameter' })];
    return params.spotDiameter > tool.diameter
      ? [finding('spot-too-wide', spot, { ...place, field: 'params.spotDiameter' })]
      : [];
  }
  if (hole.diameter < tool.diameter - offBy(hole)) {
    return [finding('drill-too-large', { tool: tool.name, diameter: hole.diameter, at: hole.centre }, place)];
  }
  if (opens(hole, context))
    return hole.depth > 0 ? [] : [finding('pocket-shallow', { tool: tool.name, at: hole.centre }, place)];
  return hole.diameter > tool.diameter + offBy(hole)
    ? [
        finding(
          'hole-larger',
          { tool: tool.name, left: hole.diameter - tool.diameter, diameter: hole.diameter, at: hole.centre },
          place,
        ),
      ]
    : [];
}

export const drill: OperationKind<DrillParams> = {
  kind: 'drill',
  title: 'Drill holes',
  verb: ({ method }) => (method === 'spot' ? 'Spot' : 'Drill'),
  process: 'hole',
  stage: 'holes',
  rank: ({ method }) => (method === 'spot' ? 0 : 1),
  startsWith: (fitting) => fitting.filter((f) => f.meaning === 'hole'),
  works: ['hole', 'pocket'],
  takesHeights: 'start and end',
  suits: makesHoles,
  Params: DrillParams,
  usesFixtures: true,
  defaults: ({ tool, material, model, targets }) => {
    const holes = holesFor({ model, targets, tool });
    const deepest = Math.max(0, ...holes.map((h) => h.depth));
    const spot = Math.min(tool.diameter, ...holes.map((h) => SPOT_SHARE * h.diameter));
    const pecking = suggestPeck(tool.diameter, deepest, material.longChips, tool.throughCoolant);
    const method: Method = startsHoles(tool) ? 'spot' : pecking.method;
    return {
      method,
      peck: pecking.peck || Math.round(tool.diameter * 10) / 10,
      lessen: 0,
      spotDiameter: Math.max(0.1, Math.floor(spot * 10 + 1e-9) / 10),
      dwell: 0,
      breakthrough: breakthroughFor(holes),
      hop: HOP,
    };
  },
  bite: (_, tool) => ({ ae: tool.diameter, ap: tool.diameter, peakAe: tool.diameter }),
  plan: (params, context) => {
    const { method } = params;
    const pecks = method === 'peck' || method === 'chip-break';
    return planCycle(drill, context, {
      cycle: {
        kind: CYCLES[method],
        peck: pecks ? params.peck : 0,
        lessen: pecks ? params.lessen : 0,
        dwell: method === 'spot' ? params.dwell : 0,
      },
      holes: holesFor(context),
      hop: params.hop,
      bottom: (hole) => bottomOf(hole, params, context),
      faults: (hole) => sizeFindings(hole, params, context),
      chips: method !== 'spot',
    });
  },
};
