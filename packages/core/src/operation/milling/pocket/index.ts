import { suggestBite } from '../../../cutting/bite';
import { suggestEntry } from '../../../cutting/entries';
import { Finding, finding } from '../../../quantity/finding';
import { cutsWalls } from '../../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../../checks';
import { finishDefaults, leftFor } from '../finish';
import { wantedAt } from '../../levels';
import { layersBetween, evenLayer } from '../../layers';
import { OperationKind, Plan, PlanContext } from '../../operation';
import { PocketParams } from './params';
import { PocketPlanner } from './planner';

/** Widest bite of passes beside each other, as a share of the diameter: wider ones leave posts in corners and ridges. */
const WIDEST = 0.5;

function biteFindings({ stepover }: PocketParams, { tool, operation }: PlanContext): Finding[] {
  const most = WIDEST * tool.diameter;
  const place = { operation: operation.id, field: 'params.stepover' };
  return stepover > most + 1e-9 ? [finding('posts-between', { stepover, most, tool: tool.name }, place)] : [];
}

function plan(params: PocketParams, context: PlanContext): Plan {
  const findings = [
    ...toolFindings(context, pocket.suits),
    ...targetFindings(context, pocket.works),
    ...biteFindings(params, context),
  ];
  const planner = new PocketPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of context.targets) {
    const floor = context.model.floors.find((f) => f.feature === feature.id);
    if (!floor || feature.meaning !== 'pocket') continue;
    const end = context.end?.(feature.id);
    const bottom = end ?? floor.z + params.floorAllowance;
    const depth = context.top - (end ?? floor.z);
    const layers = layersBetween(context.top, bottom, params.layer);
    const reach = reachFindings(context, depth, depth / Math.max(1, layers.length));
    findings.push(...reach);
    if (reach.some((f) => f.level === 'stop')) continue;
    if (end === undefined) planner.clear(feature, floor.region, floor.z, bottom);
    else planner.clear(feature, wantedAt(feature, context, Math.max(end, floor.z)), Math.max(end, floor.z), bottom);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

export const pocket: OperationKind<PocketParams> = {
  kind: 'pocket',
  title: 'Clear a pocket',
  verb: 'Clear',
  process: 'milling',
  stage: 'rough',
  works: ['pocket'],
  takesHeights: 'start and end',
  suits: cutsWalls,
  Params: PocketParams,
  biting: 'wide',
  defaults: ({ tool, material, machine, boldness }) => {
    const bite = suggestBite(tool, material, machine, boldness);
    return {
      stepover: Math.min(bite.ae, WIDEST * tool.diameter),
      layer: bite.ap,
      entry: 'helix',
      entryAngle: suggestEntry(tool, material).angle,
      direction: 'climb',
      wallAllowance: 0,
      floorAllowance: 0,
      pattern: 'inside out',
      rowAngle: 0,
      smooth: 0,
      ...finishDefaults(tool),
    };
  },
  bite: (p, tool, deep) => ({
    ae: p.stepover,
    ap: evenLayer(deep, p.layer),
    peakAe: tool.diameter,
    leaves: leftFor(p),
  }),
  plan,
};
