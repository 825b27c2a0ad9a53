import { finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { radians } from '../../quantity/units';
import { Edge, edgeDrop } from '../../part/plate/edges';
import { Tool, coneOf, flankAngle, formOf, hasFreeCone } from '../../shop/tool';
import { targetFindings, toolFindings } from '../checks';
import {
  AFTER_WALLS,
  EDGED,
  EdgeParams,
  edgeCompensates,
  edgeStage,
  drawnEdges,
  followEdges,
  givenEdges,
  noEdge,
  notEdges,
} from './edge-path';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { maths } from '../../quantity/maths';

export class ChamferParams extends EdgeParams {
  @Choice({
    label: 'Size',
    help: 'The chamfers the part shows, or one width for every edge chosen: deburring.',
    choices: ['as drawn', 'one width'],
  })
  size!: 'as drawn' | 'one width';
  @Parameter({
    label: 'Width',
    help: 'Of the chamfer, seen from above.',
    unit: 'length',
    min: 0.02,
    max: 20,
    step: 0.1,
    matters: (p: ChamferParams) => p.size === 'one width',
  })
  width!: number;
  @Parameter({
    label: 'Tip below',
    help: 'How far the tip hangs below the chamfer, so that the flank cuts and not the weak point.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  tipOffset!: number;
}

type Asked = Pick<PlanContext, 'model' | 'targets' | 'tool'>;

const edgesFor = (params: ChamferParams, { tool, ...context }: Asked): Edge[] =>
  params.size === 'as drawn'
    ? drawnEdges(context, 'chamfer')
    : givenEdges(context, { form: 'chamfer', size: params.width, angle: coneOf(tool).angle });

/** Radius of a cone at a height above its tip, mm. */
function coneRadius(tool: Tool, height: number): number {
  const { tip, angle } = coneOf(tool);
  return tip / 2 + height * maths.tan(radians(angle) / 2);
}

function edgeFindings(edge: Edge, params: ChamferParams, { tool, operation }: PlanContext) {
  const place = { operation: operation.id, feature: edge.feature, tool: tool.id };
  const { angle } = coneOf(tool);
  if (Math.abs(edge.form.angle - angle) > 0.5)
    return [
      finding(
        'other-angle',
        { angle: edge.form.angle, tool: tool.name, pointAngle: angle },
        { ...place, field: 'toolId' },
      ),
    ];
  const over = coneRadius(tool, params.tipOffset) + edge.form.size - tool.diameter / 2;
  if (over > 1e-6 || edgeDrop(edge.form) + params.tipOffset > tool.fluteLength)
    return [
      finding(
        'chamfer-too-wide',
        { size: edge.form.size, tipOffset: params.tipOffset, past: Math.max(over, 0), tool: tool.name },
        { ...place, field: 'params.tipOffset' },
      ),
    ];
  return [];
}

function plan(params: ChamferParams, context: PlanContext): Plan {
  const path = new PathBuilder(context.budget);
  const findings = [...toolFindings(context, chamfer.suits), ...targetFindings(context, chamfer.works)];
  if (findings.some((f) => f.level === 'stop')) return { path: path.build(), findings };
  const edges = edgesFor(params, context);
  findings.push(...notEdges(context, edges, params.size === 'as drawn'));
  if (edges.length === 0 && findings.length === 0) findings.push(noEdge(context, 'no-chamfer'));
  const good = edges.filter((edge) => {
    const found = edgeFindings(edge, params, context);
    if (found.length && !findings.some((f) => f.code === found[0].code)) findings.push(...found);
    return found.length === 0;
  });
  const flank = { wall: coneRadius(context.tool, params.tipOffset), below: params.tipOffset };
  findings.push(...followEdges(path, context, good, params, flank));
  return { path: path.build(), findings };
}

/** Breaks edges with any tool that has the flank for it, drawn chamfers or one width all round. */
export const chamfer: OperationKind<ChamferParams> = {
  kind: 'chamfer',
  title: 'Chamfer or deburr edges',
  verb: 'Chamfer',
  process: 'milling',
  compensates: edgeCompensates,
  stage: edgeStage,
  leavesSizes: true,
  rank: () => AFTER_WALLS,
  works: EDGED,
  suits: (tool) => (['cone', 'thread'].includes(formOf(tool)) || hasFreeCone(tool)) && flankAngle(tool) !== undefined,
  Params: ChamferParams,
  defaults: ({ tool, model, targets }) => {
    const drawn = drawnEdges({ model, targets }, 'chamfer');
    const width = Math.max(0.2, ...drawn.map((e) => e.form.size));
    const { tip, angle } = coneOf(tool);
    const room = tool.diameter / 2 - tip / 2 - width;
    return {
      size: drawn.length ? 'as drawn' : 'one width',
      width: 0.2,
      tipOffset: Math.max(0, Math.round(Math.min(1, room / 2 / maths.tan(radians(angle) / 2)) * 10) / 10),
      direction: 'climb',
      passes: 1,
      lead: Math.max(0.5, Math.round(tool.diameter) / 10),
    };
  },
  bite: (p, tool) => {
    const width = p.size === 'one width' ? p.width : tool.diameter / 8;
    return { ae: width, ap: width / maths.tan(radians(coneOf(tool).angle) / 2), peakAe: width };
  },
  adds: (params, asked) => ({ edges: params.size === 'as drawn' ? [] : edgesFor(params, asked) }),
  plan,
};
