import polylabel from 'polylabel';
import { fitArcs } from '../../geometry/arcfit';
import { Chain, chainLength, flatten, reversed, startedNear } from '../../geometry/chain';
import { Region, area, contains, difference, distanceToBoundary, islands, offset } from '../../geometry/clip';
import { Point, distance } from '../../geometry/point';
import { Finding, care, stop } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { formatNumber, radians } from '../../quantity/units';
import { suggestBite } from '../../cutting/bite';
import { suggestEntry, suggestFinish } from '../../cutting/entries';
import { solidAt } from '../../part/model';
import { cutsWalls } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { helixDown, rampDown } from '../entry';
import { finishLaps } from '../finish';
import { layersBetween } from '../layers';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../path';
import { cornersLeft, tooNarrow } from '../room';

export class PocketParams {
  @Parameter({
    label: 'Bite',
    help: 'Distance from one pass to the next, sideways.',
    unit: 'length',
    min: 0.02,
    max: 100,
    step: 0.1,
  })
  stepover!: number;
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; layers come out equal.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
  })
  layer!: number;
  @Choice({ label: 'Entry', help: 'How the cutter gets down into solid metal.', choices: ['helix', 'ramp', 'plunge'] })
  entry!: 'helix' | 'ramp' | 'plunge';
  @Parameter({
    label: 'Entry angle',
    help: 'Slope of the helix or ramp.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    matters: (p: PocketParams) => p.entry !== 'plunge',
  })
  entryAngle!: number;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Leave on walls',
    help: 'Metal left on the walls when all is done.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  wallAllowance!: number;
  @Parameter({
    label: 'Leave on the floor',
    help: 'Metal left on the floor.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  floorAllowance!: number;
  @Toggle({ label: 'Finish the walls', help: 'One more lap along the walls at full depth, after the clearing.' })
  finish!: boolean;
  @Parameter({
    label: 'For the finish',
    help: 'Metal the clearing leaves for the finish lap.',
    unit: 'length',
    min: 0.01,
    max: 5,
    step: 0.05,
    matters: (p: PocketParams) => p.finish,
  })
  finishStock!: number;
}

const GAP = 1;
/** Rings are rebuilt from chords as true arcs within this, mm. */
const FIT = 0.002;
const OUTSIDE = 0.5;
/** Precision of what does not touch a wall: inner rings, and what is left in corners, mm. */
const COARSE = 0.005;

/** A piece of what is to be cleared, with the rings inside it; leaves are where the cutter goes down. */
interface Nest {
  region: Region;
  inner: Nest[];
}

function nest(region: Region, stepover: number): Nest[] {
  return islands(region)
    .filter((island) => area(island) > 1e-4)
    .map((island) => ({ region: island, inner: nest(offset(island, -stepover, COARSE), stepover) }));
}

class PocketPlanner {
  readonly path = new PathBuilder();
  readonly findings: Finding[] = [];
  private readonly radius: number;
  private readonly clockwise: boolean;

  constructor(
    private readonly params: PocketParams,
    private readonly context: PlanContext,
  ) {
    this.radius = context.tool.diameter / 2;
    this.clockwise = params.direction === 'conventional';
  }

  /** Where the cutter's centre may go to clear `pocket` without touching what must stay. */
  private centres(pocket: Region, solid: Region, leave: number): Region {
    return difference(offset(pocket, this.radius + OUTSIDE + 0.5), offset(solid, this.radius + leave));
  }

  private chain(ring: Point[]): Chain {
    const chain = fitArcs(ring, FIT);
    return this.clockwise ? reversed(chain) : chain;
  }

  clear(feature: { id: string; name: string }, pocket: Region, floor: number): void {
    const { params, context } = this;
    const bottom = floor + params.floorAllowance;
    const solid = solidAt(context.model, floor);
    const wall = params.wallAllowance + (params.finish ? params.finishStock : 0);
    const free = this.centres(pocket, solid, wall);
    if (free.length === 0 || area(free) < 1e-3) {
      this.findings.push(tooNarrow(context, feature, pocket, params.wallAllowance));
      return;
    }
    const reached = offset(free, this.radius + wall + 2 * COARSE, COARSE);
    this.findings.push(...cornersLeft(context, feature, pocket, reached));
    const stepover = this.stepover();
    const nests = nest(free, stepover);
    let from = context.top;
    for (const z of layersBetween(context.top, bottom, params.layer)) {
      for (const piece of nests) this.cutNest(piece, free, from, z);
      this.retract();
      from = z;
    }
    if (params.finish) {
      const centres = this.centres(pocket, solid, params.wallAllowance);
      const rings = islands(centres).flat();
      this.findings.push(...finishLaps(this.path, context, feature, centres, rings, bottom, this.clockwise));
    }
  }

  /** A stepover over half the diameter leaves posts in corners and middles, so it is held there. */
  private stepover(): number {
    const { params, context } = this;
    if (params.stepover <= this.radius) return params.stepover;
    this.findings.push(
      care(
        'bite-too-wide',
        `A bite of ${formatNumber(params.stepover, 2)} mm would leave posts between the passes; ${formatNumber(this.radius, 2)} mm is used`,
        'Ask for half the diameter or less',
        { operation: context.operation.id, field: 'params.stepover' },
      ),
    );
    return this.radius;
  }

  private retract(): void {
    if (this.path.z < this.context.clearance) this.path.rapid(this.path.x, this.path.y, this.context.clearance);
  }

  private cutNest(piece: Nest, free: Region, from: number, z: number): void {
    for (const inner of piece.inner) this.cutNest(inner, free, from, z);
    const entering = piece.inner.length === 0;
    piece.region.forEach((ring, i) => {
      const chain = this.chain(ring);
      if (entering && i === 0) this.enter(piece, chain, free, from, z);
      else this.join(startedNear(chain, this.path), free, from, z);
    });
  }

  /** From ring to ring: straight through cleared metal where that stays clear of walls, else up and over. */
  private join(chain: Chain, free: Region, from: number, z: number): void {
    const { feed } = this.context.operation.speeds;
    const start = chain.vertices[0];
    const near = distance(this.path, start) < 4 * this.radius && this.path.z === z;
    if (near && this.clearLine(this.path, start, free)) this.path.line(start.x, start.y, z, feed, 'link');
    else this.descendAt(chain, from, z);
    this.path.follow(chain, z, feed, 'cut');
  }

  /** Down at a ring's start: into air, or along the ring itself where metal may stand there. */
  private descendAt(chain: Chain, from: number, z: number): void {
    const { entryFeed } = this.context.operation.speeds;
    const start = chain.vertices[0];
    this.approach(start, from);
    if (this.inAir(start)) this.path.line(start.x, start.y, z, entryFeed, 'lead');
    else rampDown(this.path, chain, from + GAP / 2, z, radians(this.params.entryAngle), entryFeed);
  }

  private approach(p: Point, from: number): void {
    this.retract();
    this.path.rapid(p.x, p.y, this.context.clearance).rapid(p.x, p.y, from + GAP);
    this.path.line(p.x, p.y, from + GAP / 2, this.context.operation.speeds.feed, 'lead');
  }

  private clearLine(a: Point, b: Point, free: Region): boolean {
    const steps = Math.max(2, Math.ceil(distance(a, b) / (this.radius / 2)));
    for (let i = 1; i < steps; i++) {
      const p = { x: a.x + ((b.x - a.x) * i) / steps, y: a.y + ((b.y - a.y) * i) / steps };
      if (!contains(free, p) && distanceToBoundary(free, p) > 0.005) return false;
    }
    return true;
  }

  private inAir(p: Point): boolean {
    const { stock } = this.context;
    return !contains(stock, p) && distanceToBoundary(stock, p) > this.radius + OUTSIDE / 2;
  }

  /** Goes down where a nest is innermost, then cuts its ring. */
  private enter(piece: Nest, chain: Chain, free: Region, from: number, z: number): void {
    const { feed, entryFeed } = this.context.operation.speeds;
    const open = flatten(chain, 0.05).find((p) => this.inAir(p));
    if (open) {
      const started = startedNear(chain, open);
      this.approach(started.vertices[0], from);
      this.path
        .line(started.vertices[0].x, started.vertices[0].y, z, entryFeed, 'lead')
        .follow(started, z, feed, 'cut');
      return;
    }
    const pole = polylabel(
      piece.region.map((r) => r.map((p) => [p.x, p.y])),
      0.01,
    );
    const centre = { x: pole[0], y: pole[1] };
    const room = Math.min(distanceToBoundary(free, centre), 0.8 * this.radius);
    if (this.params.entry === 'helix' && room >= 0.25 * this.radius) {
      const right = { x: centre.x + room, y: centre.y };
      this.approach(right, from);
      helixDown(
        this.path,
        { ...centre, radius: room },
        from + GAP / 2,
        z,
        radians(this.params.entryAngle),
        this.clockwise,
        entryFeed,
      );
      const started = startedNear(chain, right);
      this.path.line(started.vertices[0].x, started.vertices[0].y, z, feed, 'cut').follow(started, z, feed, 'cut');
      return;
    }
    if (this.params.entry !== 'plunge' && chainLength(chain) > this.radius / 2) {
      this.approach(chain.vertices[0], from);
      rampDown(this.path, chain, from + GAP / 2, z, radians(this.params.entryAngle), entryFeed);
      this.path.follow(chain, z, feed, 'cut');
      return;
    }
    this.plunge(chain, from, z);
  }

  private plunge(chain: Chain, from: number, z: number): void {
    const { tool, operation } = this.context;
    const start = chain.vertices[0];
    if (!tool.centreCutting) {
      this.findings.push(
        stop(
          'cannot-plunge',
          `${tool.name} does not cut to its centre, so it cannot go straight down`,
          'Enter by a helix or a ramp, or choose a centre-cutting tool',
          { operation: operation.id, tool: tool.id, at: { x: start.x, y: start.y } },
        ),
      );
      return;
    }
    this.approach(start, from);
    this.path
      .line(start.x, start.y, z, operation.speeds.entryFeed, 'entry')
      .follow(chain, z, operation.speeds.feed, 'cut');
  }
}

function plan(params: PocketParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, pocket.suits), ...targetFindings(context, pocket.works)];
  const planner = new PocketPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of context.targets) {
    const floor = context.model.floors.find((f) => f.feature === feature.id);
    if (!floor || feature.meaning !== 'pocket') continue;
    const depth = context.top - floor.z;
    const layers = layersBetween(context.top, floor.z + params.floorAllowance, params.layer);
    const reach = reachFindings(context, depth, depth / Math.max(1, layers.length));
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) planner.clear(feature, floor.region, floor.z);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

export const pocket: OperationKind<PocketParams> = {
  kind: 'pocket',
  title: 'Clear a pocket',
  verb: 'Clear',
  works: ['pocket'],
  suits: cutsWalls,
  Params: PocketParams,
  defaults: ({ tool, material, machine }) => {
    const bite = suggestBite(tool, material, machine);
    return {
      stepover: bite.ae,
      layer: bite.ap,
      entry: 'helix',
      entryAngle: suggestEntry(tool, material).angle,
      direction: 'climb',
      wallAllowance: 0,
      floorAllowance: 0,
      finish: true,
      finishStock: suggestFinish(tool).allowance,
    };
  },
  bite: (p, tool) => ({ ae: p.stepover, ap: p.layer, peakAe: tool.diameter }),
  plan,
};
