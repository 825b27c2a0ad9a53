import { IsOptional } from 'class-validator';
import polylabel from 'polylabel';
import { fitArcs } from '../../geometry/plane/arcfit';
import { reversed, startedNear, startedOnLongest } from '../../geometry/plane/chain';
import { Region, area, distanceToBoundary, intersection, islands, offset } from '../../geometry/plane/clip';
import { Bounds, Point, boundsOf } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { suggestBite } from '../../cutting/bite';
import { cutsFloors } from '../../shop/tool';
import { reachFindings, toolFindings } from '../checks';
import { LAST_LAYER, layersBetween, evenLayer } from '../layers';
import { leadFor, quarter } from './leads';
import { LAP_STEPS, OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { maths } from '../../quantity/maths';

export class FaceParams {
  @Parameter({
    label: 'Stepover',
    help: 'How far one pass lies beside the next.',
    unit: 'length',
    min: 0.05,
    max: 150,
    step: 1,
  })
  stepover!: number;
  @Parameter({ label: 'Layer', help: 'Most metal taken off in one go.', unit: 'length', min: 0.01, max: 50, step: 0.1 })
  layer!: number;
  @IsOptional()
  @Parameter(LAST_LAYER)
  lastLayer?: number;
  @IsOptional()
  @Choice({
    label: 'Along',
    help: 'Which way the straight passes run.',
    choices: ['the longer side', 'X', 'Y'],
    absent: 'the longer side',
    matters: (p: FaceParams) => p.passes !== 'spiral',
  })
  along?: 'the longer side' | 'X' | 'Y';
  @IsOptional()
  @Choice({
    label: 'Begins at',
    help: 'The side of the stock the first straight pass takes; the others follow it across.',
    choices: ['front or left', 'back or right'],
    absent: 'front or left',
    matters: (p: FaceParams) => p.passes !== 'spiral',
  })
  side?: 'front or left' | 'back or right';
  @Parameter({
    label: 'Leave',
    help: 'Metal left on the top for a later pass.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  leave!: number;
  @Parameter({
    label: 'Past the edge',
    help: 'How far the cutter runs clear of the stock at each end.',
    unit: 'length',
    min: 0,
    max: 100,
    step: 0.5,
  })
  overrun!: number;
  @Choice({
    label: 'Passes',
    help: 'To and fro, always the same way (climb), or one spiral from the edge to the middle (climb).',
    choices: ['both ways', 'one way', 'spiral'],
  })
  passes!: 'both ways' | 'one way' | 'spiral';
  @Toggle({
    label: 'Rolled in',
    help: 'It comes onto the metal on an arc, so that the chip is thin where the teeth leave it.',
    matters: (p: FaceParams) => p.passes !== 'spiral',
  })
  rolledIn!: boolean;
}

const FIT = 0.01;
/** What is left inside the last lap of a spiral must be narrower than the cutter by this share. */
const COVERED = 0.95;

function passRows(minimum: number, maximum: number, radius: number, stepover: number): number[] {
  const first = minimum - radius + stepover;
  const last = maximum - radius + Math.min(stepover, radius) * 0.5;
  const count = Math.max(1, Math.ceil((last - first) / stepover - 1e-9) + 1);
  return Array.from({ length: count }, (_, i) =>
    count === 1 ? (minimum + maximum) / 2 : first + ((last - first) * i) / (count - 1),
  );
}

class FacePlanner {
  readonly path: PathBuilder;
  private readonly radius: number;
  private readonly box: Bounds;
  /** Whether the passes run along X. */
  private readonly along: boolean;

  constructor(
    private readonly params: FaceParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    this.radius = context.tool.diameter / 2;
    this.box = boundsOf(context.stock.flat());
    const isWide = this.box.maxX - this.box.minX >= this.box.maxY - this.box.minY;
    const { along = 'the longer side' } = params;
    this.along = along === 'the longer side' ? isWide : along === 'X';
  }

  /** Ends of the stock under a pass, in the direction of the passes: less for round stock than for all of it. */
  private extent(b: number): [number, number] {
    const { box, along, radius, context } = this;
    const far = 1e5;
    const [low, high] = [b - radius, b + radius];
    const band = along
      ? [
          { x: -far, y: low },
          { x: far, y: low },
          { x: far, y: high },
          { x: -far, y: high },
        ]
      : [
          { x: low, y: -far },
          { x: high, y: -far },
          { x: high, y: far },
          { x: low, y: far },
        ];
    const under = intersection(context.stock, [band]).flat();
    const reached = under.length ? boundsOf(under) : box;
    return along ? [reached.minX, reached.maxX] : [reached.minY, reached.maxY];
  }

  layer(z: number): void {
    if (this.params.passes === 'spiral') this.spiral(z);
    else this.rows(z);
    this.path.rapid(this.path.x, this.path.y, this.context.clearance);
  }

  private rows(z: number): void {
    const { params, context, path, box, along, radius } = this;
    const { feed } = context.operation.speeds;
    const [b0, b1] = along ? [box.minY, box.maxY] : [box.minX, box.maxX];
    const oneWay = params.passes === 'one way';
    const isOther = params.side === 'back or right';
    passRows(b0, b1, radius, params.stepover).forEach((row, i) => {
      const b = isOther ? b0 + b1 - row : row;
      const [least, most] = this.extent(b);
      const reach = radius + params.overrun;
      // Climb with metal on the right: along X the passes start at the right and climb upwards in Y; along Y, at the bottom.
      // From the other side everything is turned by half a turn.
      const [start, end] = along !== isOther ? [most + reach, least - reach] : [least - reach, most + reach];
      const forward = oneWay || i % 2 === 0;
      const [from, to] = (forward ? [start, end] : [end, start]).map((a) => this.at(a, b));
      if (i === 0 || oneWay) this.comeDown(from, to, z);
      else path.line(from.x, from.y, z, feed, 'link');
      path.line(to.x, to.y, z, feed, 'cut');
    });
  }

  private at = (a: number, b: number): Point => (this.along ? { x: a, y: b } : { x: b, y: a });

  /** Down beside the stock, and onto the pass straight or on a clockwise arc that ends where the stock begins. */
  private comeDown(from: Point, to: Point, z: number): void {
    const { path, params, context, radius } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const length = maths.hypot(to.x - from.x, to.y - from.y);
    const d = { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
    const r = radius + params.overrun;
    const onto = { x: from.x + d.x * r, y: from.y + d.y * r };
    const centre = { x: onto.x + d.y * r, y: onto.y - d.x * r };
    const start = params.rolledIn ? { x: centre.x - d.x * r, y: centre.y - d.y * r } : from;
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    path.rapid(start.x, start.y, context.clearance).rapid(start.x, start.y, z + context.approach);
    path.line(start.x, start.y, z, entryFeed, 'entry');
    if (params.rolledIn) path.arc(centre.x, centre.y, onto.x, onto.y, z, true, feed, 'cut');
  }

  /** Laps of the stock's outline from the edge inwards, joined by straights; the last reaches the middle. */
  private spiral(z: number): void {
    const { path, params, context, radius } = this;
    const { feed } = context.operation.speeds;
    const laps: Region[] = [];
    let by = radius - params.stepover;
    for (let lap = offset(context.stock, by, FIT); area(lap) > 1e-3; lap = offset(context.stock, by, FIT)) {
      context.budget.spend(LAP_STEPS);
      laps.push(lap);
      by -= params.stepover;
    }
    const rest = offset(context.stock, by + params.stepover - COVERED * radius, FIT);
    if (area(rest) > 1e-3) laps.push(rest);
    laps.forEach((lap, i) => {
      for (const [ring] of islands(lap)) {
        const clockwise = reversed(fitArcs(ring, FIT));
        const chain = i === 0 ? startedOnLongest(clockwise) : startedNear(clockwise, path);
        const [first] = chain.vertices;
        if (i === 0) {
          const free = (p: Point) => distanceToBoundary(context.stock, p) > 0;
          const lead = leadFor(chain, quarter(params.stepover + params.overrun + context.approach), 'left', free);
          const from = lead?.on.vertices[0] ?? first;
          if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
          path.rapid(from.x, from.y, context.clearance).rapid(from.x, from.y, z + context.approach);
          path.line(from.x, from.y, z, context.operation.speeds.entryFeed, 'entry');
          if (lead) path.follow(lead.on, z, feed, 'lead');
        } else path.line(first.x, first.y, z, feed, 'cut');
        path.follow(chain, z, feed, 'cut');
      }
    });
    const middle = polylabel(
      laps[laps.length - 1].map((r) => r.map((p) => [p.x, p.y])),
      0.1,
    );
    path.line(middle[0], middle[1], z, feed, 'cut');
  }
}

function plan(params: FaceParams, context: PlanContext): Plan {
  const { tool, operation, top } = context;
  const layers = layersBetween(top, params.leave, params.layer, params.lastLayer);
  const findings: Finding[] = [
    ...toolFindings(context, face.suits),
    ...reachFindings(context, top - params.leave, (top - params.leave) / Math.max(1, layers.length)),
  ];
  const planner = new FacePlanner(params, context);
  if (params.stepover > tool.diameter) {
    findings.push(
      finding(
        'stepover-too-wide',
        { stepover: params.stepover, diameter: tool.diameter },
        { operation: operation.id, field: 'params.stepover' },
      ),
    );
  }
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const z of layers) planner.layer(z);
  return { path: planner.path.build(), findings, lowersTo: params.leave };
}

export const face: OperationKind<FaceParams> = {
  kind: 'face',
  title: 'Face the top',
  verb: 'Face',
  process: 'milling',
  stage: 'face',
  lowersTop: true,
  works: [],
  takesHeights: 'start',
  approach: 2,
  suits: (tool) => cutsFloors(tool) && tool.cornerRadius < tool.diameter / 2,
  Params: FaceParams,
  biting: 'wide',
  defaults: ({ tool, material, machine, boldness }) => {
    const bite = suggestBite(tool, material, machine, boldness);
    return {
      stepover: Math.round(tool.diameter * 0.7 * 10) / 10,
      layer: Math.max(0.1, Math.min(bite.ap, 1)),
      leave: 0,
      overrun: 2,
      passes: 'both ways',
      rolledIn: false,
    };
  },
  // A spiral that is not rolled in turns into metal at its start and at its corners.
  bite: (p, tool, deep) => ({
    ae: p.stepover,
    ap: evenLayer(deep === undefined ? undefined : deep - p.leave, p.layer),
    peakAe: p.passes === 'spiral' && !p.rolledIn ? tool.diameter : p.stepover,
  }),
  plan,
};
