import { IsOptional } from 'class-validator';
import { flatten, reversed, startedNear, Chain } from '../../geometry/plane/chain';
import { Region, area, offset } from '../../geometry/plane/clip';
import { withRoundCorners } from '../../geometry/plane/trim';
import { Point, distance } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { Feature } from '../../part/plate/feature';
import { surfaceAt } from '../../part/plate/model';
import { instancesOf } from '../../part/plate/shapes';
import { Tool, formOf, plunges, profileHeight, profileTop, hasFreeCone } from '../../shop/tool';
import { targetFindings, toolFindings } from '../checks';
import { layersBetween } from '../layers';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { Asked, Stroke, carved, carvingOf, enclosed, widthAt } from './carving';
import { rowsAcross } from './rows';
import { maths } from '../../quantity/maths';

export class EngraveParams {
  @Choice({
    label: 'What',
    help: 'The lines themselves, what closed lines enclose carved out to sharp corners by a cone, or a chequer of crossing grooves inside them.',
    choices: ['the lines', 'what they enclose', 'a chequer'],
  })
  what!: 'the lines' | 'what they enclose' | 'a chequer';
  @Choice({
    label: 'Given by',
    help: 'How deep the tip goes, or how wide the groove becomes at the surface.',
    choices: ['depth', 'width'],
    matters: (p: EngraveParams) => p.what !== 'what they enclose',
  })
  by!: 'depth' | 'width';
  @Parameter({
    label: 'Depth',
    help: 'Of the tip below the surface; when carving, the deepest it may go.',
    unit: 'length',
    min: 0.005,
    max: 50,
    step: 0.05,
    matters: (p: EngraveParams) => p.by === 'depth' || p.what === 'what they enclose',
  })
  depth!: number;
  @Parameter({
    label: 'Width',
    help: 'Of the groove at the surface.',
    unit: 'length',
    min: 0.01,
    max: 50,
    step: 0.05,
    matters: (p: EngraveParams) => p.by === 'width' && p.what !== 'what they enclose',
  })
  width!: number;
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one go.',
    unit: 'length',
    min: 0.005,
    max: 50,
    step: 0.05,
    matters: (p: EngraveParams) => p.what !== 'what they enclose',
  })
  layer!: number;
  @Parameter({
    label: 'Step',
    help: 'From one carving lap to the next, sideways.',
    unit: 'length',
    min: 0.01,
    max: 2,
    step: 0.05,
    matters: (p: EngraveParams) => p.what === 'what they enclose',
  })
  step!: number;
  @Parameter({
    label: 'Pitch',
    help: 'From groove to groove of the chequer.',
    unit: 'length',
    min: 0.1,
    max: 50,
    step: 0.1,
    matters: (p: EngraveParams) => p.what === 'a chequer',
  })
  pitch!: number;
  @Parameter({
    label: 'Groove angle',
    help: 'Of the grooves to X; the others cross them the other way.',
    unit: 'angle',
    min: 5,
    max: 85,
    step: 5,
    matters: (p: EngraveParams) => p.what === 'a chequer',
  })
  angle!: number;
  @IsOptional()
  @Choice({
    label: 'Corners',
    help: 'Of lines and letters: as they are drawn, or rounded by half the width of the groove, so that its inner edge is as sharp as its outer.',
    choices: ['as drawn', 'rounded'],
    absent: 'as drawn',
    matters: (p: EngraveParams) => p.what === 'the lines',
  })
  corners?: 'as drawn' | 'rounded';
}

/** Fields of grooves are held back, and lines flattened, within these, mm. */
const FIT = 0.002;
const CHORD = 0.001;

const tipDepth = (params: EngraveParams, tool: Tool) =>
  params.by === 'width' ? profileHeight(tool, params.width / 2) : params.depth;

/** Crossing rows inside a region, held back so that their ends stay inside. */
function chequered(region: Region, surface: number, params: EngraveParams, { tool, budget }: Asked): Stroke[] {
  const depth = tipDepth(params, tool);
  const half = params.by === 'width' ? params.width / 2 : widthAt(tool, depth) / 2;
  const field = offset(region, -half, FIT);
  return [params.angle, -params.angle].flatMap((angle) =>
    rowsAcross(field, params.pitch, angle, budget).flatMap((row) =>
      row.map(({ a, b }) => ({
        chain: { closed: false, vertices: [a, b].map((p) => ({ ...p, bulge: 0 })) },
        surface,
        z: surface - depth,
      })),
    ),
  );
}

function strokesOf(feature: Feature, params: EngraveParams, asked: Asked): Stroke[] {
  const { model, tool } = asked;
  const chains = instancesOf(feature);
  const surfaceOf = (c: Chain) => surfaceAt(model, c.vertices[0]);
  const half = widthAt(tool, tipDepth(params, tool)) / 2;
  const drawn = (chain: Chain) => (params.corners === 'rounded' ? withRoundCorners(chain, half) : chain);
  if (params.what === 'the lines')
    return chains
      .map(drawn)
      .map((chain) => ({ chain, surface: surfaceOf(chain), z: surfaceOf(chain) - tipDepth(params, tool) }));
  if (!chains.some((c) => c.closed)) return [];
  const surface = surfaceOf(chains[0]);
  const make = params.what === 'a chequer' ? chequered : carved;
  return make(enclosed(feature), surface, params, asked);
}

/** Strokes in a short order: each time the one that begins, ends or passes nearest, the carving ones as they come. */
function inOrder(strokes: Stroke[], from: Point): Stroke[] {
  const left = [...strokes];
  const order: Stroke[] = [];
  let here = from;
  while (left.length) {
    let best = { i: 0, d: Infinity, chain: left[0].chain };
    left.forEach(({ chain }, i) => {
      const start = chain.vertices[0];
      const end = chain.vertices[chain.vertices.length - 1];
      const ways = chain.closed
        ? [startedNear(chain, here)]
        : [chain, ...(distance(here, end) < distance(here, start) ? [reversed(chain)] : [])];
      for (const way of ways) {
        const d = distance(here, way.vertices[0]);
        if (d < best.d) best = { i, d, chain: way };
      }
    });
    const [next] = left.splice(best.i, 1);
    const isTurned = best.chain !== next.chain && !best.chain.closed;
    order.push({
      ...next,
      chain: best.chain,
      heights: isTurned ? next.heights && [...next.heights].reverse() : next.heights,
    });
    here = best.chain.closed ? best.chain.vertices[0] : best.chain.vertices[best.chain.vertices.length - 1];
  }
  return order;
}

class EngravePlanner {
  readonly path: PathBuilder;
  /** Height of the way from stroke to stroke. */
  private readonly hop: number;

  constructor(
    private readonly params: EngraveParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    const { top, approach, clearance, fixtures } = context;
    this.hop = fixtures.every((f) => f.maxZ <= top) ? top + approach : clearance;
  }

  cut(strokes: Stroke[]): void {
    const from = Number.isNaN(this.path.x) ? { x: 0, y: 0 } : this.path;
    if (this.params.what !== 'what they enclose') for (const stroke of inOrder(strokes, from)) this.stroke(stroke);
    else {
      for (const stroke of strokes.filter((s) => !s.heights)) this.stroke(stroke);
      for (const stroke of inOrder(
        strokes.filter((s) => s.heights),
        this.path,
      ))
        this.along(stroke);
    }
  }

  /** Along a line on which the tip goes up and down. */
  private along({ chain, surface, heights = [] }: Stroke): void {
    const { path, context } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const [start, ...others] = chain.vertices;
    path.rapid(path.x, path.y, this.hop).rapid(start.x, start.y, this.hop);
    path.line(start.x, start.y, surface + context.approach / 2, feed, 'lead');
    path.line(start.x, start.y, heights[0], entryFeed, 'entry');
    others.forEach((p, i) => path.line(p.x, p.y, heights[i + 1], feed, 'cut'));
  }

  private stroke({ chain, surface, z }: Stroke): void {
    const { path, context, params } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const [start] = chain.vertices;
    const near = path.z < this.hop && distance(path, start) < 2 * params.step && params.what === 'what they enclose';
    if (near) path.line(start.x, start.y, path.z, feed, 'cut');
    else {
      path.rapid(path.x, path.y, this.hop).rapid(start.x, start.y, this.hop);
      path.line(start.x, start.y, surface + context.approach / 2, feed, 'lead');
    }
    const layers = params.what === 'what they enclose' ? [z] : layersBetween(surface, z, params.layer);
    let way = chain;
    for (const level of layers) {
      const at = way.vertices[0];
      path.line(at.x, at.y, level, entryFeed, 'entry').follow(way, level, feed, 'cut');
      if (!way.closed) way = reversed(way);
    }
  }
}

function findingsFor(feature: Feature, strokes: Stroke[], params: EngraveParams, context: PlanContext): Finding[] {
  const { tool, operation, model } = context;
  const place = { operation: operation.id, feature: feature.id };
  if (strokes.length === 0)
    return [finding('nothing-enclosed', { feature: feature.name }, { ...place, field: 'params.what' })];
  const depth = Math.max(...strokes.map((s) => s.surface - s.z));
  const lowest = Math.min(...strokes.map((s) => s.z));
  if (params.by === 'width' && params.what !== 'what they enclose' && params.width > tool.diameter + 1e-6)
    return [
      finding(
        'groove-too-wide',
        { tool: tool.name, width: params.width, diameter: tool.diameter },
        { ...place, field: 'params.width' },
      ),
    ];
  if (depth > tool.fluteLength)
    return [
      finding(
        'engraving-too-deep',
        { operation: operation.name, depth, tool: tool.name, fluteLength: tool.fluteLength },
        { ...place, field: 'params.depth' },
      ),
    ];
  const findings: Finding[] = [];
  if (-lowest >= model.thickness)
    findings.push(
      finding(
        'engraved-through',
        { feature: feature.name },
        {
          ...place,
          field: 'params.depth',
        },
      ),
    );
  const reach = tool.diameter / 2;
  if (
    params.what === 'what they enclose' &&
    params.depth > profileTop(tool) &&
    area(offset(enclosed(feature), -reach)) > 0
  )
    findings.push(
      finding(
        'wider-than-cone',
        { feature: feature.name, tool: tool.name, deepest: profileTop(tool) },
        { ...place, field: 'params.depth' },
      ),
    );
  return findings;
}

function plan(params: EngraveParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, engrave.suits), ...targetFindings(context, engrave.works)];
  const planner = new EngravePlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of context.targets) {
    if (!engrave.works.includes(feature.meaning)) continue;
    const strokes = strokesOf(feature, params, context);
    // Each is held against all that are left.
    context.budget.spend(Math.ceil(maths.pow(strokes.length, 2) / 100));
    const found = findingsFor(feature, strokes, params, context);
    findings.push(...found);
    if (found.some((f) => f.level === 'stop')) continue;
    if (Number.isNaN(planner.path.x)) {
      const [{ x, y }] = strokes[0].chain.vertices;
      planner.path.rapid(x, y, context.clearance);
    }
    planner.cut(strokes);
  }
  if (planner.path.z < context.clearance) planner.path.rapid(planner.path.x, planner.path.y, context.clearance);
  return { path: planner.path.build(), findings };
}

/** Engraves and traces lines and lettering, carves what closed lines enclose, and cuts chequer fields. */
export const engrave: OperationKind<EngraveParams> = {
  kind: 'engrave',
  title: 'Engrave lines or lettering',
  verb: 'Engrave',
  process: 'milling',
  stage: 'marks',
  leavesSizes: true,
  works: ['line'],
  usesFixtures: true,
  suits: (tool) => (['mill', 'cone', 'taper'].includes(formOf(tool)) && plunges(tool)) || hasFreeCone(tool),
  Params: EngraveParams,
  defaults: ({ tool }) => ({
    what: 'the lines',
    by: 'depth',
    depth: 0.2,
    width: Math.max(0.4, tool.tipDiameter),
    layer: 0.2,
    step: 0.1,
    pitch: 2,
    angle: 30,
  }),
  bite: (p, tool) => {
    const depth = p.what === 'what they enclose' ? p.depth : Math.min(p.layer, tipDepth(p, tool));
    const width = Math.max(tool.tipDiameter, widthAt(tool, depth));
    return { ae: p.what === 'what they enclose' ? p.step : width, ap: depth, peakAe: width };
  },
  adds: (params, asked) => ({
    carvings:
      params.what === 'what they enclose'
        ? asked.targets.filter((t) => t.meaning === 'line').map((t) => carvingOf(t, params, asked))
        : [],
    marks: (params.what === 'what they enclose' ? [] : asked.targets)
      .filter((t) => t.meaning === 'line')
      .flatMap((t) => strokesOf(t, params, asked))
      .map(({ chain, z }) => ({
        lines: [[...flatten(chain, CHORD), ...(chain.closed ? [chain.vertices[0]] : [])]],
        z,
        profile: asked.tool,
      })),
  }),
  plan,
};
