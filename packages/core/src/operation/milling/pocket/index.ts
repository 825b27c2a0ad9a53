import { suggestBite } from '../../../cutting/bite';
import { suggestEntry } from '../../../cutting/entries';
import { Finding, finding } from '../../../quantity/finding';
import { cutsWalls } from '../../../shop/tool';
import { reachFindings, targetFindings, toolFindings, wallBeside } from '../../checks';
import { finishBite, finishCompensates, finishDefaults, finishesAlone, leftFor } from '../finish';
import { wantedAt } from '../../levels';
import { layersBetween, evenLayer } from '../../layers';
import { OperationKind, Plan, PlanContext } from '../../operation';
import { PocketParams } from './params';
import { PocketPlanner, PocketWork } from './planner';

/** Widest bite of passes beside each other, as a share of the diameter: wider ones leave posts in corners and ridges. */
const WIDEST = 0.5;

function biteFindings({ stepover }: PocketParams, { tool, operation }: PlanContext): Finding[] {
  const most = WIDEST * tool.diameter;
  const place = { operation: operation.id, field: 'params.stepover' };
  return stepover > most + 1e-9 ? [finding('posts-between', { stepover, most, tool: tool.name }, place)] : [];
}

/** Cuts feature by feature, each finished at once, or all of them layer by layer, finished after that. */
function inOrder(works: PocketWork[], { order, finish }: PocketParams): void {
  const together = order === 'by layer' ? [works] : works.map((w) => [w]);
  for (const some of together) {
    const layers = some.flatMap((w) => w.layers);
    if (order === 'by layer') layers.sort((a, b) => b.z - a.z);
    for (const layer of layers) layer.cut();
    if (finish) for (const work of some) work.finish();
  }
}

function plan(params: PocketParams, context: PlanContext): Plan {
  const findings = [
    ...toolFindings(context, pocket.suits),
    ...targetFindings(context, pocket.works),
    ...(finishesAlone(params) ? [] : biteFindings(params, context)),
  ];
  const planner = new PocketPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  const works: PocketWork[] = [];
  for (const feature of context.targets) {
    const floor = context.model.floors.find((f) => f.feature === feature.id);
    if (!floor || feature.meaning !== 'pocket') continue;
    const end = context.end?.(feature.id);
    const bottom = end ?? floor.z + params.floorAllowance;
    const depth = context.top - (end ?? floor.z);
    const layers = finishesAlone(params) ? [] : layersBetween(context.top, bottom, params.layer, params.lastLayer);
    const layer = layers.length ? depth / layers.length : 0;
    const reach = reachFindings(context, depth, layer, wallBeside(context, feature.id, depth));
    findings.push(...reach);
    if (reach.some((f) => f.level === 'stop')) continue;
    const z = Math.max(end ?? floor.z, floor.z);
    const work = planner.work(feature, end === undefined ? floor.region : wantedAt(feature, context, z), z, bottom);
    if (work) works.push(work);
  }
  inOrder(works, params);
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

export const pocket: OperationKind<PocketParams> = {
  kind: 'pocket',
  title: 'Clear a pocket',
  verb: (p) => (finishesAlone(p) ? 'Finish' : 'Clear'),
  process: 'milling',
  stage: 'rough',
  works: ['pocket'],
  compensates: finishCompensates,
  takesHeights: 'start and end',
  takesBegins: true,
  takesBounds: true,
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
  bite: (p, tool, deep) =>
    finishesAlone(p)
      ? finishBite(p, deep, tool.fluteLength)
      : { ae: p.stepover, ap: evenLayer(deep, p.layer), peakAe: tool.diameter, leaves: leftFor(p) },
  plan,
};
