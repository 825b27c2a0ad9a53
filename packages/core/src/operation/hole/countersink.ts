import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { Edge } from '../../part/plate/edges';
import { Hole, edgesOf } from '../../part/plate/model';
import { Tool, flankAngle, formOf, profileHeight } from '../../shop/tool';
import { SAME_SIZE, planCycle } from './holes';
import { HOP, HoleParams } from './hole-params';
import { OperationKind, PlanContext } from '../operation';

export class CountersinkParams extends HoleParams {
  @Choice({
    label: 'Size',
    help: 'The chamfer the part shows on the hole, or a diameter given here.',
    choices: ['as drawn', 'to a diameter'],
  })
  size!: 'as drawn' | 'to a diameter';
  @Parameter({
    label: 'Diameter',
    help: 'At the surface.',
    unit: 'length',
    min: 0.2,
    max: 100,
    step: 0.5,
    matters: (p: CountersinkParams) => p.size === 'to a diameter',
  })
  diameter!: number;
  @Parameter({
    label: 'Wait',
    help: 'Seconds at the bottom, to clean it up.',
    unit: 'count',
    min: 0,
    max: 20,
    step: 1,
  })
  dwell!: number;
}

const mouthOf = (hole: Hole) => hole.counterbore?.diameter ?? hole.diameter;

/** Diameter of the countersink at the surface; undefined where neither the part nor the operation gives one. */
function wantedDiameter(hole: Hole, params: CountersinkParams, edges: Edge[]): number | undefined {
  if (params.size === 'to a diameter') return params.diameter;
  const edge = edges.find((e) => e.feature === hole.feature && e.form.form === 'chamfer');
  return edge && mouthOf(hole) + 2 * edge.form.size;
}

function faults(hole: Hole, params: CountersinkParams, { tool, operation, model }: PlanContext): Finding[] {
  const place = { operation: operation.id, feature: hole.feature, tool: tool.id, at: hole.centre };
  const wanted = wantedDiameter(hole, params, model.edges);
  if (wanted === undefined) return [finding('no-countersink', { at: hole.centre }, { ...place, field: 'params.size' })];
  if (wanted <= mouthOf(hole) + SAME_SIZE)
    return [
      finding(
        'countersink-small',
        { wanted, at: hole.centre },
        {
          ...place,
          field: 'params.diameter',
        },
      ),
    ];
  if (wanted > tool.diameter + 1e-6 || tool.tipDiameter > mouthOf(hole))
    return [
      finding(
        'countersink-reach',
        { wanted, at: hole.centre, tool: tool.name, tipDiameter: tool.tipDiameter, diameter: tool.diameter },
        { ...place, field: 'toolId' },
      ),
    ];
  const drawn = params.size === 'as drawn' && model.edges.find((e) => e.feature === hole.feature);
  if (drawn && Math.abs(drawn.form.angle - tool.pointAngle) > 0.5)
    return [
      finding(
        'countersink-angle',
        { at: hole.centre, angle: drawn.form.angle, tool: tool.name, pointAngle: tool.pointAngle },
        { ...place, field: 'toolId' },
      ),
    ];
  return [];
}

const isCone = (tool: Tool) => ['cone', 'drill'].includes(formOf(tool)) && flankAngle(tool) !== undefined;

/** Straight down with a cone until its flank has the asked diameter at the surface. */
export const countersink: OperationKind<CountersinkParams> = {
  kind: 'countersink',
  title: 'Countersink holes',
  verb: 'Countersink',
  process: 'hole',
  stage: 'mouths',
  leavesSizes: true,
  works: ['hole'],
  suits: isCone,
  Params: CountersinkParams,
  usesFixtures: true,
  defaults: ({ model, targets, tool }) => {
    const ids = targets.map((t) => t.id);
    const widest = Math.max(1, ...model.holes.filter((h) => ids.includes(h.feature)).map(mouthOf));
    return {
      size: model.edges.some((e) => ids.includes(e.feature)) ? 'as drawn' : 'to a diameter',
      diameter: Math.min(tool.diameter, Math.round((widest + Math.max(0.4, widest * 0.1)) * 10) / 10),
      dwell: 0,
      hop: HOP,
    };
  },
  bite: (p, tool) => ({
    ae: Math.min(p.diameter, tool.diameter) / 4,
    ap: tool.diameter / 4,
    peakAe: tool.diameter / 2,
  }),
  adds: (params, { model, targets, tool }) => ({
    edges:
      params.size === 'as drawn'
        ? []
        : targets.flatMap((feature) =>
            model.holes
              .filter((h) => h.feature === feature.id)
              .slice(0, 1)
              .flatMap((h) => {
                const size = (params.diameter - mouthOf(h)) / 2;
                return size > 0 ? edgesOf(model, feature, { form: 'chamfer', size, angle: tool.pointAngle }) : [];
              }),
          ),
  }),
  plan: (params, context) =>
    planCycle(countersink, context, {
      cycle: { kind: 'spot', dwell: params.dwell },
      hop: params.hop,
      bottom: (hole) => {
        const surface = context.model.edges.find((e) => e.feature === hole.feature)?.top ?? 0;
        return surface - profileHeight(context.tool, (wantedDiameter(hole, params, context.model.edges) ?? 0) / 2);
      },
      faults: (hole) => faults(hole, params, context),
    }),
};
