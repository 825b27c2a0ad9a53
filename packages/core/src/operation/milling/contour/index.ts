import { area } from '../../../geometry/plane/clip';
import { Finding, finding } from '../../../quantity/finding';
import { suggestBite } from '../../../cutting/bite';
import { suggestEntry, suggestFinish } from '../../../cutting/entries';
import { Feature } from '../../../part/plate/feature';
import { regionOf } from '../../../part/plate/model';
import { instancesOf } from '../../../part/plate/shapes';
import { cutsWalls } from '../../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../../checks';
import { wallBottom } from '../../depth';
import { layersBetween, evenLayer } from '../../layers';
import { finishBite, finishesAlone, leftFor } from '../finish';
import { OperationKind, Plan, PlanContext } from '../../operation';
import { ContourParams, Side, WORKS } from './params';
import { ContourPlanner, isOpening } from './planner';
import { previewContour } from './preview';
import { stretchOf } from './stretch';

export type { ContourParams } from './params';

const isOutline = ({ meaning }: Feature) => meaning === 'outline';
/** On the scrap side a part must not fall loose before its openings are cut. */
const inOrder = (targets: Feature[], side: Side): Feature[] =>
  side === 'scrap side' ? [...targets].sort((a, b) => Number(isOpening(b)) - Number(isOpening(a))) : targets;

/** A side that does not go with the lines chosen: closed ones have an inside, open ones a left and a right. */
function sideFindings(params: ContourParams, { operation, targets }: PlanContext): Finding[] {
  const wrong = targets.find((t) =>
    instancesOf(t).some((c) =>
      (c.closed ? ['left', 'right'] : ['outside', 'inside', 'scrap side']).includes(params.side),
    ),
  );
  if (!wrong) return [];
  const closed = instancesOf(wrong)[0].closed;
  return [
    finding(
      'side-unclear',
      { feature: wrong.name, isClosed: closed, side: params.side },
      { operation: operation.id, feature: wrong.id, field: 'params.side' },
    ),
  ];
}

function plan(params: ContourParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, contour.suits), ...targetFindings(context, contour.works)];
  findings.push(...sideFindings(params, context));
  const { stretch } = context.operation;
  const cut = stretch && stretchOf(context.targets, stretch);
  if (stretch && !cut?.chain.vertices.length)
    findings.push(finding('no-stretch', {}, { operation: context.operation.id, field: 'stretch' }));
  const planner = new ContourPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of cut ? [cut.feature] : inOrder(context.targets, params.side)) {
    if (!contour.works.includes(feature.meaning)) continue;
    const closed = instancesOf(feature).every((c) => c.closed);
    if (closed && area(regionOf(feature)) < 1e-3) {
      findings.push(
        finding(
          'nothing-to-run-around',
          { feature: feature.name },
          {
            operation: context.operation.id,
            feature: feature.id,
          },
        ),
      );
      continue;
    }
    const bottom = wallBottom(feature, context, params.breakthrough);
    const depth = context.top - bottom;
    const isAtOnce = finishesAlone(params) && params.finishAt === 'full depth';
    const layer = isAtOnce ? 0 : depth / Math.max(1, layersBetween(context.top, bottom, params.layer).length);
    const reach = reachFindings(context, depth, layer);
    if (
      params.finish &&
      params.finishAt === 'full depth' &&
      depth > context.tool.fluteLength &&
      !reach.some((f) => f.level === 'stop')
    ) {
      findings.push(finding('finish-deep', { depth }, { operation: context.operation.id, field: 'params.finishAt' }));
    }
    if (bottom < context.bottom - 0.5)
      findings.push(
        finding(
          'deeper-than-stock',
          { operation: context.operation.name, below: context.bottom - bottom },
          { operation: context.operation.id, feature: feature.id, field: 'params.breakthrough' },
        ),
      );
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) planner.cut(feature, bottom);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

const COMPENSATED = { 'worked out': undefined, 'wear in the control': 'wear', 'all in the control': 'radius' } as const;

/** The side a contour starts from: what the first of its lines lets it mean. */
function sideFor(targets: Feature[]): Side {
  const [first] = targets;
  if (first && instancesOf(first).some((c) => !c.closed)) return 'left';
  return first?.meaning === 'pocket' || first?.meaning === 'hole' ? 'inside' : 'outside';
}

export const contour: OperationKind<ContourParams> = {
  kind: 'contour',
  title: 'Contour a wall',
  verb: (p) => (finishesAlone(p) ? 'Finish' : 'Contour'),
  process: 'milling',
  stage: ({ onOutside }) => (onOutside ? 'outside' : 'finish'),
  startsWith: (fitting) => fitting.filter(isOutline),
  frees: (targets) => targets.some(isOutline),
  compensates: ({ compensation }) => COMPENSATED[compensation],
  preview: {
    shows: ['side', 'direction', 'tabs', 'tabCount', 'tabPlaces', 'tabWidth', 'startAt', 'start', 'corners', 'passes'],
    of: previewContour,
  },
  works: WORKS,
  takesHeights: 'start and end',
  takesBegins: true,
  takesStretch: true,
  suits: cutsWalls,
  Params: ContourParams,
  usesEarlier: () => true,
  biting: 'wide',
  defaults: ({ tool, material, machine, targets, boldness }) => {
    const bite = suggestBite(tool, material, machine, boldness);
    return {
      side: sideFor(targets),
      direction: 'climb',
      layer: Math.max(0.5, bite.ap / 2),
      passes: 1,
      stepover: bite.ae,
      wallAllowance: 0,
      breakthrough: 0.2,
      descent: 'ramp',
      rampAngle: Math.min(2, suggestEntry(tool, material).angle),
      finish: true,
      finishStock: suggestFinish(tool).allowance,
      finishAt: 'full depth',
      spring: false,
      leadForm: 'arc',
      lead: Math.round(tool.diameter * 2.5) / 10,
      leadAngle: 90,
      corners: 'rolled',
      startAt: 'longest straight',
      start: 0,
      extendStart: 0,
      extendEnd: 0,
      tabs: 'none',
      tabCount: 4,
      tabWidth: 4,
      tabHeight: 1.5,
      tabPlaces: '',
      compensation: 'worked out',
    };
  },
  bite: (p, tool, deep) => {
    const depth = deep === undefined ? undefined : deep + p.breakthrough;
    if (finishesAlone(p)) return finishBite(p, depth, p.finishAt === 'each layer' ? p.layer : tool.fluteLength);
    return {
      ae: p.passes > 1 ? p.stepover : tool.diameter,
      ap: evenLayer(depth, p.layer),
      peakAe: tool.diameter,
      leaves: leftFor(p),
    };
  },
  plan,
};
