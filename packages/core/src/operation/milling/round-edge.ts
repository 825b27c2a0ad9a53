import { finding } from '../../quantity/finding';
import { Choice } from '../../quantity/parameter';
import { Edge } from '../../part/plate/edges';
import { formOf } from '../../shop/tool';
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

export class RoundEdgeParams extends EdgeParams {
  @Choice({
    label: 'Edges',
    help: 'Those the part shows rounded, or every edge chosen, with the radius of the tool.',
    choices: ['as drawn', 'all chosen'],
  })
  size!: 'as drawn' | 'all chosen';
}

type Asked = Pick<PlanContext, 'model' | 'targets' | 'tool'>;

const edgesFor = (params: RoundEdgeParams, { tool, ...context }: Asked): Edge[] =>
  params.size === 'as drawn'
    ? drawnEdges(context, 'round')
    : givenEdges(context, { form: 'round', size: tool.cornerRadius, angle: 90 });

function plan(params: RoundEdgeParams, context: PlanContext): Plan {
  const { tool, operation } = context;
  const path = new PathBuilder(context.budget);
  const findings = [...toolFindings(context, roundEdge.suits), ...targetFindings(context, roundEdge.works)];
  if (findings.some((f) => f.level === 'stop')) return { path: path.build(), findings };
  const edges = edgesFor(params, context);
  findings.push(...notEdges(context, edges, params.size === 'as drawn'));
  if (edges.length === 0 && findings.length === 0) findings.push(noEdge(context, 'no-rounding'));
  const other = edges.find((e) => Math.abs(e.form.size - tool.cornerRadius) > 0.005);
  if (other)
    findings.push(
      finding(
        'other-radius',
        { size: other.form.size, tool: tool.name, cornerRadius: tool.cornerRadius },
        { operation: operation.id, feature: other.feature, tool: tool.id, field: 'toolId' },
      ),
    );
  const good = edges.filter((e) => Math.abs(e.form.size - tool.cornerRadius) <= 0.005);
  const flank = { wall: tool.diameter / 2 - tool.cornerRadius, below: 0 };
  findings.push(...followEdges(path, context, good, params, flank));
  return { path: path.build(), findings };
}

/** Rounds edges with a corner-rounding mill. */
export const roundEdge: OperationKind<RoundEdgeParams> = {
  kind: 'round-edge',
  title: 'Round edges',
  verb: 'Round',
  process: 'milling',
  compensates: edgeCompensates,
  stage: edgeStage,
  leavesSizes: true,
  rank: () => AFTER_WALLS,
  works: EDGED,
  suits: (tool) => formOf(tool) === 'rounding',
  Params: RoundEdgeParams,
  defaults: ({ tool, model, targets }) => ({
    size: drawnEdges({ model, targets }, 'round').length ? 'as drawn' : 'all chosen',
    direction: 'climb',
    passes: 1,
    lead: Math.max(0.5, Math.round(tool.diameter) / 10),
  }),
  bite: (_, tool) => ({ ae: tool.cornerRadius, ap: tool.cornerRadius, peakAe: tool.cornerRadius }),
  adds: (params, asked) => ({ edges: params.size === 'as drawn' ? [] : edgesFor(params, asked) }),
  plan,
};
