import { IsOptional } from 'class-validator';
import { fitArcs, fitOpenArcs } from '../../geometry/plane/arcfit';
import { reversed, startedOnLongest } from '../../geometry/plane/chain';
import {
  Region,
  contains,
  difference,
  distanceToBoundary,
  intersection,
  islands,
  offset,
  offsetOpen,
} from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { Feature } from '../../part/plate/feature';
import { Edge, edgeDrop } from '../../part/plate/edges';
import { edgesOf, solidAt } from '../../part/plate/model';
import { followWithLead, leadFor, quarter, wearing } from './leads';
import { InRoute, PlanContext, Stage } from '../operation';
import { PathBuilder } from '../../path/path';

/** Values every operation that runs along edges has. */
export class EdgeParams {
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better edge; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Passes',
    help: 'How many times it runs round, each deeper than the one before.',
    unit: 'count',
    min: 1,
    max: 10,
    step: 1,
  })
  passes!: number;
  @Parameter({
    label: 'Lead radius',
    help: 'Quarter circle onto the edge and off it.',
    unit: 'length',
    min: 0.1,
    max: 50,
    step: 0.5,
  })
  lead!: number;
  @IsOptional()
  @Toggle({
    label: 'Wear in the control',
    help: 'It runs compensated: the control takes up the wear of the cutter from its diameter offset, 0 for a new one.',
    absent: false,
  })
  wear?: boolean;
}

/** What the control compensates along an edge. */
export const edgeCompensates = ({ wear }: EdgeParams) => (wear ? ('wear' as const) : undefined);

/** How a tool meets an edge, mm: its radius where it touches the wall below the edge, and how far its tip hangs below that. */
export interface Flank {
  wall: number;
  below: number;
}

const FIT = 0.002;
const HAIR = 0.01;

/** Metal near an edge that is not its own wall and stands higher than the tip. */
function obstacles(edge: Edge, tip: number, { model, targets }: PlanContext): Region {
  if (targets.find((t) => t.id === edge.feature)?.meaning === 'hole') return [];
  const solid = solidAt(model, tip);
  return edge.metalInside
    ? difference(solid, offset(edge.region, HAIR))
    : intersection(solid, offset(edge.region, -HAIR));
}

/** The tool does not come to an edge: says by how much. */
function tooTight(edge: Edge, { operation, tool, targets }: PlanContext, flank: Flank): Finding {
  const name = targets.find((t) => t.id === edge.feature)?.name ?? '';
  return finding(
    'edge-too-tight',
    { tool: tool.name, room: 2 * flank.wall, feature: name },
    { operation: operation.id, feature: edge.feature, field: 'toolId' },
  );
}

/**
 * Runs along broken edges at the height that leaves them as asked.
 * @param flank how the tool meets an edge
 */
export function followEdges(
  path: PathBuilder,
  context: PlanContext,
  edges: Edge[],
  params: EdgeParams,
  flank: Flank,
): Finding[] {
  const findings: Finding[] = [];
  const { operation, model } = context;
  for (const edge of edges) {
    const tip = edge.top - edgeDrop(edge.form) - flank.below;
    const place = { operation: operation.id, feature: edge.feature };
    const hole = model.holes.find((h) => h.feature === edge.feature && !h.through);
    if (hole && -tip > hole.depth) findings.push(finding('edge-hits-floor', {}, place));
    const runs = runsBeside(edge, flank.wall);
    if (runs.length === 0) findings.push(tooTight(edge, context, flank));
    const blocked = obstacles(edge, tip, context);
    const room = flank.wall + edge.form.size;
    const isBlocked = (p: Point) => contains(blocked, p) || distanceToBoundary(blocked, p) < room - HAIR;
    for (const run of runs) {
      const near = run.find(isBlocked);
      if (near) findings.push(finding('edge-left-out', { tool: context.tool.name, near }, { ...place, at: near }));
      else if (!lap(path, context, edge, run, params, flank, isBlocked) && params.wear)
        findings.push(finding('no-lead-for-compensation', {}, { ...place, field: 'params.lead' }));
    }
  }
  return findings;
}

/** Where the middle of the tool runs: round a closed edge, along an open one. */
const runsBeside = ({ region, line, metalInside }: Edge, wall: number): Point[][] =>
  line
    ? [offsetOpen(line, wall, 'left')].filter((run) => run.length > 1)
    : islands(offset(region, metalInside ? wall : -wall)).map((i) => i[0]);

/** A run drawn on straight at both ends, as far as there is room: best until nothing of the tool is over the edge any more. */
function drawnOn(run: Point[], by: number[], isBlocked: (p: Point) => boolean): Point[] {
  const beyond = (end: Point, before: Point): Point[] => {
    const long = distance(end, before) || 1;
    const along = (d: number) => ({
      x: end.x + (d * (end.x - before.x)) / long,
      y: end.y + (d * (end.y - before.y)) / long,
    });
    return by
      .map(along)
      .filter((p) => !isBlocked(p))
      .slice(0, 1);
  };
  return [...beyond(run[0], run[1]), ...run, ...beyond(run[run.length - 1], run[run.length - 2])];
}

/** @returns whether there was room to lead onto it */
function lap(
  path: PathBuilder,
  { operation, approach, clearance }: PlanContext,
  edge: Edge,
  run: Point[],
  params: EdgeParams,
  flank: Flank,
  isBlocked: (p: Point) => boolean,
): boolean {
  const fitted = edge.line
    ? fitOpenArcs(drawnOn(run, [params.lead + flank.wall + edge.form.size, params.lead], isBlocked), FIT)
    : fitArcs(run, FIT);
  const climb = edge.metalInside && !edge.line ? reversed(fitted) : fitted;
  const conventional = params.direction === 'conventional';
  const along = conventional ? reversed(climb) : climb;
  const chain = edge.line ? along : startedOnLongest(along);
  const isFree = (p: Point) =>
    contains(edge.region, p) !== edge.metalInside && distanceToBoundary(edge.region, p) >= flank.wall - 0.002;
  const side = conventional ? 'right' : 'left';
  const lead = edge.line
    ? undefined
    : leadFor(chain, params.wear ? wearing(params.lead) : quarter(params.lead), side, isFree);
  const at = lead?.on.vertices[0] ?? chain.vertices[0];
  const { feed, entryFeed } = operation.speeds;
  path.rapid(at.x, at.y, clearance).rapid(at.x, at.y, edge.top + approach);
  for (let n = 1; n <= params.passes; n++) {
    const z = edge.top - (edgeDrop(edge.form) * n) / params.passes - flank.below;
    if (n > 1) path.rapid(path.x, path.y, edge.top + approach).rapid(at.x, at.y, edge.top + approach);
    path.line(at.x, at.y, z, lead ? feed : entryFeed, lead ? 'lead' : 'entry');
    if (lead) followWithLead(path, chain, lead, z, feed, params.wear ? side : undefined);
    else path.follow(chain, z, feed, 'cut');
  }
  path.rapid(path.x, path.y, clearance);
  return lead !== undefined;
}

/** The drawn edges of what an operation works on. */
export const drawnEdges = ({ model, targets }: Pick<PlanContext, 'model' | 'targets'>, form: Edge['form']['form']) =>
  model.edges.filter((e) => e.form.form === form && targets.some((t) => t.id === e.feature));

/** Edges of a form given by the operation, around all it works on. */
export const givenEdges = ({ model, targets }: Pick<PlanContext, 'model' | 'targets'>, form: Edge['form']): Edge[] =>
  targets.flatMap((t) => edgesOf(model, t, form));

/** Meanings whose edges can be broken. */
export const EDGED: Feature['meaning'][] = ['outline', 'pocket', 'boss', 'hole', 'edge'];

/** Lines chosen as edges along which there is none: open ones, and those that lie on a level. */
export const notEdges = ({ operation, targets }: PlanContext, edges: Edge[], asDrawn: boolean): Finding[] =>
  targets
    .filter((t) => t.meaning === 'edge' && !(asDrawn && !t.edge) && !edges.some((e) => e.feature === t.id))
    .map((t) => finding('edge-nowhere', { feature: t.name }, { operation: operation.id, feature: t.id }));

/** None of the targets shows an edge of this form. */
export const noEdge = ({ operation }: PlanContext, code: 'no-chamfer' | 'no-rounding'): Finding =>
  finding(code, { operation: operation.name }, { operation: operation.id, field: 'params.size' });

/** An edge is broken when its wall is finished: after it in its stage. */
export const AFTER_WALLS = 2;
export const edgeStage = ({ onOutside }: InRoute): Stage => (onOutside ? 'outside' : 'edges');
