import { Finding, note, stop } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { formatNumber } from '../../quantity/units';
import { pointLength, suggestPeck } from '../../cutting/holes';
import { Hole } from '../../part/model';
import { CycleKind } from '../../shop/controller';
import { formOf, makesHoles, startsHoles } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { expandCycle } from '../cycle';
import { DrillCycle, OperationKind, Plan, PlanContext } from '../operation';
import { shortTour } from '../ordering';
import { PathBuilder } from '../path';

type Method = 'straight' | 'peck' | 'chip-break' | 'spot';

export class DrillParams {
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
  @Parameter({
    label: 'Break through',
    help: 'How far the full diameter goes below the part in a through hole.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
    matters: (p: DrillParams) => p.method !== 'spot',
  })
  breakthrough!: number;
}

const CYCLES: Record<Method, CycleKind> = { straight: 'drill', peck: 'peck', 'chip-break': 'chip-break', spot: 'spot' };
const GAP = 1;
const FIT = 0.02;

/** Z of the tip at the bottom of a hole: the full diameter reaches the asked depth, the point beyond it. */
function bottomOf(hole: Hole, params: DrillParams, context: PlanContext): number {
  const { tool } = context;
  if (params.method === 'spot')
    return context.top - pointLength(Math.min(params.spotDiameter, tool.diameter), tool.pointAngle);
  const point = formOf(tool) === 'drill' && tool.pointAngle < 180 ? pointLength(tool.diameter, tool.pointAngle) : 0;
  return hole.through ? -hole.depth - params.breakthrough - point : -hole.depth - point;
}

function sizeFindings(holes: Hole[], params: DrillParams, { tool, operation }: PlanContext): Finding[] {
  const place = { operation: operation.id, tool: tool.id, field: 'toolId' };
  if (params.method === 'spot') {
    return params.spotDiameter > tool.diameter
      ? [
          stop(
            'spot-too-wide',
            `A spot of ${formatNumber(params.spotDiameter, 2)} mm is wider than ${tool.name}`,
            'Ask for a smaller spot or take a larger tool',
            { ...place, field: 'params.spotDiameter' },
          ),
        ]
      : [];
  }
  const small = holes.find((h) => h.diameter < tool.diameter - FIT);
  if (small) {
    return [
      stop(
        'drill-too-large',
        `${tool.name} is larger than a hole of ${formatNumber(small.diameter, 3)} mm at X ${formatNumber(small.centre.x, 2)} Y ${formatNumber(small.centre.y, 2)}`,
        'Choose a smaller drill',
        { ...place, at: small.centre },
      ),
    ];
  }
  const large = holes.find((h) => h.diameter > tool.diameter + FIT);
  return large
    ? [
        note(
          'hole-larger',
          `${tool.name} leaves ${formatNumber(large.diameter - tool.diameter, 3)} mm in a hole of ${formatNumber(large.diameter, 3)} mm`,
          'Bore, tap or mill it to size afterwards',
          { ...place, at: large.centre },
        ),
      ]
    : [];
}

function plan(params: DrillParams, context: PlanContext): Plan {
  const empty = new PathBuilder().build();
  const ids = new Set(context.targets.map((t) => t.id));
  const holes = context.model.holes.filter((h) => ids.has(h.feature));
  const findings = [...toolFindings(context, drill.suits), ...targetFindings(context, drill.works)];
  if (!findings.some((f) => f.level === 'stop')) findings.push(...sizeFindings(holes, params, context));
  if (findings.some((f) => f.level === 'stop') || holes.length === 0) return { path: empty, findings };
  const bottoms = holes.map((h) => ({ x: h.centre.x, y: h.centre.y, z: bottomOf(h, params, context) }));
  const depth = context.top - Math.min(...bottoms.map((b) => b.z));
  findings.push(...reachFindings(context, depth, params.method === 'spot' ? 0 : depth));
  if (findings.some((f) => f.level === 'stop')) return { path: empty, findings };
  const pecks = params.method === 'peck' || params.method === 'chip-break';
  const cycle: DrillCycle = {
    kind: CYCLES[params.method],
    holes: shortTour(bottoms),
    start: context.top + GAP,
    clearance: context.clearance,
    peck: pecks ? params.peck : 0,
    dwell: params.method === 'spot' ? params.dwell : 0,
    feed: context.operation.speeds.feed,
  };
  return { path: expandCycle(cycle), cycle, findings };
}

export const drill: OperationKind<DrillParams> = {
  kind: 'drill',
  title: 'Drill holes',
  verb: 'Drill',
  works: ['hole'],
  suits: makesHoles,
  Params: DrillParams,
  defaults: ({ tool, material, model, targets }) => {
    const deepest = Math.max(
      0,
      ...model.holes.filter((h) => targets.some((t) => t.id === h.feature)).map((h) => h.depth),
    );
    const pecking = suggestPeck(tool.diameter, deepest, material.longChips, tool.throughCoolant);
    const method: Method = startsHoles(tool) ? 'spot' : pecking.method;
    return {
      method,
      peck: pecking.peck || Math.round(tool.diameter * 10) / 10,
      spotDiameter: Math.round(tool.diameter * 6) / 10,
      dwell: 0,
      breakthrough: 0.5,
    };
  },
  bite: (_, tool) => ({ ae: tool.diameter, ap: tool.diameter, peakAe: tool.diameter }),
  plan,
};
