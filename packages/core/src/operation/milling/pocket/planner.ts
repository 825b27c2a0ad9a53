import polylabel from 'polylabel';
import { fitArcs, fitOpenArcs } from '../../../geometry/plane/arcfit';
import { Chain, chainLength, flatten, reversed, startedNear } from '../../../geometry/plane/chain';
import {
  Region,
  area,
  contains,
  difference,
  distanceToBoundary,
  islands,
  offset,
  union,
} from '../../../geometry/plane/clip';
import { Point, distance, distanceToSegment } from '../../../geometry/plane/point';
import { Budget } from '../../../quantity/budget';
import { Finding } from '../../../quantity/finding';
import { radians } from '../../../quantity/units';
import { solidAt } from '../../../part/plate/model';
import { keptAway } from '../../bounds';
import { cannotPlunge } from '../../checks';
import { helixDown, rampDown, plungeFeedOf } from '../../entry';
import { finishesAlone, finishWalls } from '../finish';
import { layersBetween } from '../../layers';
import { LAP_STEPS, PlanContext } from '../../operation';
import { PathBuilder } from '../../../path/path';
import { cornersLeft, roundAbout, tooNarrow } from '../room';
import { rowsAcross, staysInside, zigzagRuns } from '../rows';
import { PocketParams } from './params';

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

/** @param smooth radius of corners of all but the outermost rings, mm; no more than a step leaves nothing in them */
function nest(region: Region, stepover: number, smooth: number, budget: Budget): Nest[] {
  const inside = (island: Region) => {
    budget.spend(LAP_STEPS);
    const inner = offset(island, -stepover, COARSE);
    const eased = smooth > 0 ? offset(offset(inner, -smooth, COARSE), smooth, COARSE) : inner;
    return area(eased) > 1e-4 ? eased : inner;
  };
  const pieces = (of: Region): Nest[] =>
    islands(of)
      .filter((island) => area(island) > 1e-4)
      .map((island) => ({ region: island, inner: [] }));
  const outermost = pieces(region);
  const open = [...outermost];
  for (let piece = open.pop(); piece; piece = open.pop()) {
    piece.inner = pieces(inside(piece.region));
    open.push(...piece.inner);
  }
  return outermost;
}

/** Whether a piece is one ring inside the other to its middle, as a spiral wants it. */
const isSimple = (piece: Nest): boolean =>
  piece.region.length === 1 && piece.inner.length <= 1 && piece.inner.every(isSimple);

/** The point of a ring nearest to p. */
function nearestOn(ring: Point[], p: Point): Point {
  let best = { d: Infinity, at: ring[0] };
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const { distance: d, at } = distanceToSegment(p, a, b);
    if (d < best.d) best = { d, at: { x: a.x + (b.x - a.x) * at, y: a.y + (b.y - a.y) * at } };
  });
  return best.at;
}

const rowsOnly = ({ pattern }: PocketParams) => pattern === 'zigzag' || pattern === 'one way';

/** What is to be done in one feature: its layers in their order, and the finish of its walls. */
export interface PocketWork {
  layers: { z: number; cut(): void }[];
  finish(): void;
}

export class PocketPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];
  private readonly radius: number;
  private readonly clockwise: boolean;
  /** From one pass to the next, mm. */
  private bite = 0;

  constructor(
    private readonly params: PocketParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    this.radius = context.tool.diameter / 2;
    this.clockwise = params.direction === 'conventional';
  }

  /** Where the cutter's centre may go to clear `pocket` without touching what must stay. */
  private centres(pocket: Region, solid: Region, leave: number): Region {
    return difference(roundAbout(pocket, this.radius + OUTSIDE + 0.5, solid), offset(solid, this.radius + leave));
  }

  private chain(ring: Point[]): Chain {
    const chain = fitArcs(ring, FIT);
    return this.clockwise ? reversed(chain) : chain;
  }

  /**
   * @param floor height of what is kept beside it
   * @param bottom how deep it goes
   */
  work(feature: { id: string; name: string }, pocket: Region, floor: number, bottom: number): PocketWork | undefined {
    const { params, context } = this;
    const away = keptAway(context);
    const solid = away.length ? union([...solidAt(context.model, floor), ...away]) : solidAt(context.model, floor);
    const wall = params.wallAllowance + (params.finish ? params.finishStock : 0);
    const free = this.centres(pocket, solid, wall);
    if (free.length === 0 || area(free) < 1e-3) {
      this.findings.push(tooNarrow(context, feature, pocket, params.wallAllowance));
      return undefined;
    }
    const reached = offset(free, this.radius + wall + 2 * COARSE, COARSE);
    this.findings.push(...cornersLeft(context, feature, away.length ? difference(pocket, away) : pocket, reached));
    const finish = () => {
      const at = (leave: number) => {
        const centres = this.centres(pocket, solid, leave);
        return { free: centres, rings: islands(centres).flat() };
      };
      const walls = { feature, allowance: params.wallAllowance, floor: bottom, conventional: this.clockwise, at };
      this.findings.push(...finishWalls(this.path, context, params, walls));
    };
    if (finishesAlone(params)) return { layers: [], finish };
    this.bite = params.stepover;
    const smooth = rowsOnly(params) ? 0 : Math.min(params.smooth, this.bite);
    const nests = nest(free, this.bite, smooth, context.budget);
    const levels = layersBetween(context.top, bottom, params.layer, params.lastLayer);
    const cut = (pieces: Nest[], z: number, i: number) => {
      for (const piece of pieces) this.cutPiece(piece, free, i > 0 ? levels[i - 1] : context.top, z);
      this.retract();
    };
    const byRegion = params.order === 'by region' ? nests.map((piece) => [piece]) : [nests];
    const layers = byRegion.flatMap((pieces) => levels.map((z, i) => ({ z, cut: () => cut(pieces, z, i) })));
    return { layers, finish };
  }

  private retract(): void {
    if (this.path.z < this.context.clearance) this.path.rapid(this.path.x, this.path.y, this.context.clearance);
  }

  private cutPiece(piece: Nest, free: Region, from: number, z: number): void {
    const { pattern } = this.params;
    if (pattern === 'zigzag' || pattern === 'one way') this.cutRows(piece, from, z);
    else if (pattern === 'outside in') this.cutInwards(piece, free, from, z);
    else if (pattern === 'spiral' && isSimple(piece)) this.cutSpiral(piece, free, from, z);
    else this.cutNest(piece, free, from, z);
  }

  /** Rings from the wall inwards; the first is entered on a ramp. */
  private cutInwards(piece: Nest, free: Region, from: number, z: number): void {
    for (const ring of piece.region) {
      const chain = this.chain(ring);
      this.join(Number.isNaN(this.path.x) ? chain : startedNear(chain, this.path), free, from, z);
    }
    for (const inner of piece.inner) this.cutInwards(inner, free, from, z);
  }

  /** Once round the wall, then rows across what it encloses; their ends lie where the lap has been. */
  private cutRows(piece: Nest, from: number, z: number): void {
    const { path, params, context } = this;
    const { feed } = context.operation.speeds;
    const { region } = piece;
    for (const ring of region) this.join(this.chain(ring), region, from, z);
    const rows = rowsAcross(region, this.bite, params.rowAngle, context.budget);
    const inside = offset(region, COARSE);
    const clear = (a: Point, b: Point) =>
      distance(a, b) < 4 * this.radius && staysInside(inside, a, b, this.radius / 4);
    const runs =
      params.pattern === 'zigzag'
        ? zigzagRuns(rows, clear)
        : rows.flat().map(({ a, b }) => (this.clockwise ? [a, b] : [b, a]));
    const over = context.top + context.approach;
    for (const run of runs) {
      path.rapid(path.x, path.y, over).rapid(run[0].x, run[0].y, over);
      path.line(run[0].x, run[0].y, z, feed, 'lead');
      for (const p of run.slice(1)) path.line(p.x, p.y, z, feed, 'cut');
    }
  }

  /** From the innermost ring outwards without a step from ring to ring, then once round the wall. */
  private cutSpiral(piece: Nest, free: Region, from: number, z: number): void {
    const { path, context } = this;
    const { feed } = context.operation.speeds;
    const rings: Nest[] = [];
    for (let n: Nest | undefined = piece; n; n = n.inner[0]) rings.unshift(n);
    const [core] = rings;
    this.enter(core, this.chain(core.region[0]), free, from, z);
    for (let k = 1; k < rings.length; k++) {
      const around = flatten(startedNear(this.chain(rings[k].region[0]), path), COARSE);
      const run = [...around, around[0]].map((p, i) => {
        const q = nearestOn(rings[k - 1].region[0], p);
        const t = i / around.length;
        return { x: q.x + (p.x - q.x) * t, y: q.y + (p.y - q.y) * t };
      });
      const spiral = fitOpenArcs([{ x: path.x, y: path.y }, ...run], COARSE);
      path.follow(spiral, z, feed, 'cut');
    }
    path.follow(startedNear(this.chain(piece.region[0]), path), z, feed, 'cut');
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

  /** Down at a ring's start: into air, or where metal may stand there along the ring itself, straight where it is to plunge. */
  private descendAt(chain: Chain, from: number, z: number): void {
    const { operation, tool } = this.context;
    const { entryFeed } = operation.speeds;
    const start = chain.vertices[0];
    this.approach(start, from);
    if (this.inAir(start)) this.path.line(start.x, start.y, z, entryFeed, 'lead');
    else if (this.params.entry === 'plunge') {
      if (!tool.centreCutting) this.findings.push(cannotPlunge(this.context, start));
      this.path.line(start.x, start.y, z, plungeFeedOf(this.context), 'entry');
    } else rampDown(this.path, chain, from + this.context.approach / 2, z, radians(this.params.entryAngle), entryFeed);
  }

  private approach(p: Point, from: number): void {
    this.retract();
    this.path.rapid(p.x, p.y, this.context.clearance).rapid(p.x, p.y, from + this.context.approach);
    this.path.line(p.x, p.y, from + this.context.approach / 2, this.context.operation.speeds.feed, 'lead');
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
        from + this.context.approach / 2,
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
      rampDown(this.path, chain, from + this.context.approach / 2, z, radians(this.params.entryAngle), entryFeed);
      this.path.follow(chain, z, feed, 'cut');
      return;
    }
    this.plunge(chain, from, z);
  }

  private plunge(chain: Chain, from: number, z: number): void {
    const { tool, operation } = this.context;
    const start = chain.vertices[0];
    if (!tool.centreCutting) {
      this.findings.push(cannotPlunge(this.context, start));
      return;
    }
    this.approach(start, from);
    this.path
      .line(start.x, start.y, z, plungeFeedOf(this.context), 'entry')
      .follow(chain, z, operation.speeds.feed, 'cut');
  }
}
