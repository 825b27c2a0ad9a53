import { Boundary } from '../../../geometry/plane/boundary';
import { Chain } from '../../../geometry/plane/chain';
import { Region, area, intersection, islands, offset, ringArea } from '../../../geometry/plane/clip';
import { Bounds, Point, boundsOf, distance, growBounds } from '../../../geometry/plane/point';
import type { Waiting } from '../../operation';
import { Frontier, Run } from './frontier';
import { smoothLink } from './links';
import { Metal } from './metal';
import { Pass, Pose, Side, Walker } from './walker';
import { maths } from '../../../quantity/maths';

/** What steady-load clearing of one layer is planned from; lengths mm, times minutes. */
export interface SteadyInput extends Waiting {
  /** Where the cutter's body may be. */
  allowed: Region;
  /** Where metal stands. */
  stock: Region;
  radius: number;
  /** Sideways bite to hold. */
  bite: number;
  /** Smallest path radius. */
  turn: number;
  /** Metal to leave on walls. */
  allowance: number;
  /** Cut to and fro, not only climbing. */
  both: boolean;
  /** Conventional instead of climb, where not both. */
  conventional: boolean;
  /** Bite of the first lap along the outside of the stock. */
  firstBite: number;
  /** Radius of an entry helix at most, as a share of the cutter's. */
  helix: number;
  /** Feed with the tool down, rapid, and how far a retract goes up and down again. */
  linkFeed: number;
  rapid: number;
  retract: number;
  /** How many times longer keeping the tool down may take than a retract. */
  patience: number;
  /** Longest way back with the tool down. */
  longestLink: number;
  /** Holes wide enough to go down through; `deep` is how far they are open. */
  holes?: EntryHole[];
}

/** A drilled hole an entry may use. */
export interface EntryHole {
  x: number;
  y: number;
  radius: number;
  deep: number;
}

/** What the cutter does, in order. */
export type Stretch =
  | { kind: 'helix'; x: number; y: number; radius: number }
  | { kind: 'ramp'; chain: Chain }
  | { kind: 'plunge'; x: number; y: number; deep?: number }
  /** `beside` metal it is come down to slowly. */
  | { kind: 'pass'; pass: Pass; first: boolean; beside: boolean }
  | { kind: 'link'; chain: Chain }
  | { kind: 'retract' };

const degrees = (d: number) => (d * Math.PI) / 180;
/** How far a start is backed off along the way out: at a wall, so that the pass comes in along it; and elsewhere. */
const BACK_AT_WALL = degrees(130);
const BACK = degrees(57);
const BACK_STEPS = 10;
/** Shares of that which are tried one after the other while metal is left. */
const CLOSER = [0.6, 0.2];
/** Less metal than this is not worth another try, mm². */
const SPECK = 0.05;
/** Cutting beside metal that no pass looks at has to take this share of it, to be tried once more. */
const WORTH_ANOTHER = 0.01;
/** Metal that no pass looks at is started on from beside it, from each of these directions that is free, radians. */
const TOUCH_FROM = Array.from({ length: 12 }, (_, k) => degrees(30 * k));
/** Thinner metal than this may be brushed by a link or a start, mm. */
const THIN = 0.006;
/** Nearer to metal than this no cutter comes down in a rapid, mm. */
const APART = 0.1;
/** More metal than this where the centre may go, in squares of the radius, calls for an entry of its own; in a small room this share of it. */
const STILL_FULL = 0.02;
const STILL_FULL_OF_ROOM = 0.25;
/** A small room is looked at in so many steps across. */
const ACROSS_ROOM = 8;
/** A pass must be worth this share of a radius at full bite. */
const WORTH = 0.02;
/** Minutes a run is held back by, less the longer it is up to so many radii, so that nobody digs private holes. */
const SHORT = 0.005;
const SHORT_UP_TO = 4;
/** Least radius of an entry helix, as a share of the cutter's: less would be a plunge. */
const HELIX_LEAST = 0.2;
/** Precision of what is only compared with, mm. */
const COARSE = 0.005;
/** Cells to a radius: with fewer, what stands between two earlier passes is read too thin. */
const FINE = 25;
/** Cells are no larger than this, so that links see thin slivers, mm. */
const COARSEST = 0.25;
const MOST_CELLS = 6e6;
const MOST_PASSES = 50_000;
/** Runs whose links are worked out before one is chosen. */
const CANDIDATES = 4;

interface Choice {
  run: Run;
  side: Side;
  start: Pose;
  link?: Chain;
  cost: number;
}

/** Clears one layer so that the engaged angle stays at the asked value. */
export class SteadyClearing {
  readonly stretches: Stretch[] = [];
  /** Where its centre may be and turn; each is entered if it must be, those that are no more than a hair left out. */
  private readonly rooms: Region[];
  /** All of them; undefined where none is. */
  private readonly wide: Boundary | undefined;
  /** Where this cutter with this smallest radius can take metal away. */
  readonly reachable: Region;
  private readonly metal: Metal;
  private readonly walls: Boundary;
  private readonly reach: Boundary;
  private readonly frontier: Frontier;
  private readonly walker: Walker;
  private readonly wall: number;
  private readonly angle: number;
  private at: Pose | undefined;
  /** Share of the usual back-off of a start. */
  private closer = 1;
  /** Places beside metal that were offered with it. */
  private readonly offered = new Set<string>();
  /** Metal that can be cut, and that was, mm². */
  private readonly toClear: number;
  private cleared = 0;

  constructor(private readonly input: SteadyInput) {
    const { allowed, stock, radius, bite, turn, allowance } = input;
    this.wall = radius + allowance;
    this.angle = maths.acos(1 - bite / radius);
    const box: Bounds = growBounds(boundsOf([...allowed.flat(), ...stock.flat()]), radius / 4);
    const size = (box.maxX - box.minX) * (box.maxY - box.minY);
    const cell = Math.max(Math.min(radius / FINE, bite / 2, COARSEST), Math.sqrt(size / MOST_CELLS));
    this.metal = new Metal(stock, box, cell, radius);
    this.walls = new Boundary(allowed);
    this.rooms = islands(offset(allowed, -(this.wall + turn))).filter((room) => area(room) > this.hair);
    this.wide = this.rooms.length > 0 ? new Boundary(this.rooms.flat()) : undefined;
    this.reachable = offset(offset(allowed, -(this.wall + turn), COARSE), radius + turn, COARSE);
    this.reach = new Boundary(this.reachable);
    this.toClear = area(intersection(stock, this.reachable));
    this.frontier = new Frontier(this.metal, this.reach);
    this.walker = new Walker(this.metal, this.walls, { wall: this.wall, turn });
  }

  /** Of a room, or of metal in one, mm². */
  private get hair(): number {
    return STILL_FULL * maths.pow(this.input.radius, 2);
  }

  private get side(): Side {
    return this.input.conventional ? -1 : 1;
  }

  /** Clears everything that can be reached: from open sides first, then from an entry in each room that is still closed. */
  run(): void {
    this.addOpenSides();
    this.cutAll();
    for (const room of this.rooms) {
      // Still so full of metal that it must be entered anew.
      const size = area(room);
      const step = Math.min(2 * this.metal.cell, Math.sqrt(size) / ACROSS_ROOM);
      const most = Math.min(this.hair, STILL_FULL_OF_ROOM * size);
      const full = (uncut: Point[]) => uncut.length * maths.pow(step, 2) > most;
      let before = -Infinity;
      for (let uncut = this.uncut(room, step); full(uncut); uncut = this.uncut(room, step)) {
        if (this.input.stopped?.() || this.stretches.length <= before + 1) break;
        before = this.stretches.length;
        this.enter(room, uncut);
        this.cutAll();
      }
    }
    this.cutRest();
  }

  /** Places in a room where metal stands, a grid of so many mm. */
  private uncut(room: Region, step: number): Point[] {
    const box = boundsOf(room.flat());
    const inside = new Boundary(room);
    const found: Point[] = [];
    for (let y = box.minY; y <= box.maxY; y += step) {
      for (let x = box.minX; x <= box.maxX; x += step) {
        if (this.metal.at(x, y) > 0 && inside.isDeeper(x, y, 0)) found.push({ x, y });
      }
    }
    return found;
  }

  /** Where metal can be reached from outside, the outline of the stock is the first frontier. */
  private addOpenSides(): void {
    const { stock, radius } = this.input;
    for (const ring of offset(stock, radius)) {
      const way = this.side > 0 ? [...ring].reverse() : ring;
      let poses: Pose[] = [];
      for (let i = 0; i <= way.length; i++) {
        const a = way[i % way.length];
        const b = way[(i + 1) % way.length];
        const length = maths.hypot(b.x - a.x, b.y - a.y);
        const heading = maths.atan2(b.y - a.y, b.x - a.x);
        const n = i === way.length ? 1 : Math.max(1, Math.ceil(length / (radius / 10)));
        for (let k = 0; k < n; k++) {
          const pose = { x: a.x + ((b.x - a.x) * k) / n, y: a.y + ((b.y - a.y) * k) / n, heading };
          if (this.walls.isDeeper(pose.x, pose.y, this.wall)) poses.push(pose);
          else poses = this.addOpen(poses);
        }
      }
      this.addOpen(poses);
    }
  }

  private addOpen(poses: Pose[]): Pose[] {
    if (poses.length > 1) this.frontier.add({ side: this.side, poses }, true);
    return [];
  }

  /** A way down into a closed room: a helix where it is widest, else a ramp round it, else straight down. */
  private enter(room: Region, uncut: Point[]): void {
    const hole = this.holeIn(room);
    if (hole) return this.enterThrough(hole);
    const place = this.roomiest(uncut);
    const radius = Math.min(this.input.helix * this.input.radius, this.walls.distance(place.x, place.y) - this.wall);
    if (radius >= HELIX_LEAST * this.input.radius) {
      this.stretches.push({ kind: 'helix', ...place, radius });
      this.enterAlong(circlePoses(place, radius, this.side));
      return;
    }
    const [outer] = room;
    const around = this.side > 0 ? outer : [...outer].reverse();
    const poses = ringPoses(around, this.input.radius / 10);
    if (
      Math.sqrt(Math.abs(ringArea(outer))) > this.input.radius / 4 ||
      (around.length > 2 && ringLength(around) > this.input.radius)
    ) {
      this.stretches.push({ kind: 'ramp', chain: { closed: true, vertices: around.map((p) => ({ ...p, bulge: 0 })) } });
      this.enterAlong(poses);
    } else {
      this.stretches.push({ kind: 'plunge', x: poses[0].x, y: poses[0].y });
      this.enterAlong(poses.slice(0, 2));
    }
  }

  /** A drilled hole in a room in which the cutter can turn. */
  private holeIn(room: Region): EntryHole | undefined {
    const { radius, turn, holes } = this.input;
    const inside = new Boundary(room);
    return holes?.find((h) => h.radius - radius >= turn && inside.isDeeper(h.x, h.y, 0) && this.metal.at(h.x, h.y) > 0);
  }

  /** Down the middle of a hole, then out from a turn inside it. */
  private enterThrough({ x, y, radius, deep }: EntryHole): void {
    this.stretches.push({ kind: 'plunge', x, y, deep });
    this.metal.take(x, y, x, y, radius);
    this.enterAlong(circlePoses({ x, y }, radius - this.input.radius, this.side));
    this.at = { x, y, heading: 0 };
  }

  private enterAlong(poses: Pose[]): void {
    this.cleared += area(offset([poses], this.input.radius, COARSE));
    for (const [i, p] of poses.entries()) {
      const before = poses[Math.max(0, i - 1)];
      this.metal.take(p.x, p.y, p.x, p.y);
      this.metal.take(before.x, before.y, p.x, p.y);
    }
    this.frontier.add({ side: this.side, poses });
    this.at = poses[poses.length - 1];
  }

  /** The middle of where the walls are farthest away. */
  private roomiest(places: Point[]): Point {
    const spots = places.map(({ x, y }) => ({ x, y, d: this.walls.distance(x, y) }));
    const most = spots.reduce((max, s) => Math.max(max, s.d), 0);
    const wide = spots.filter((s) => s.d > Math.min(0.95 * most, this.wall + 3 * this.input.radius));
    const mx = wide.reduce((sum, s) => sum + s.x, 0) / wide.length;
    const my = wide.reduce((sum, s) => sum + s.y, 0) / wide.length;
    const { x, y } = wide.reduce((a, b) => (maths.hypot(b.x - mx, b.y - my) < maths.hypot(a.x - mx, a.y - my) ? b : a));
    return { x, y };
  }

  private isFree = (x: number, y: number): boolean =>
    this.walls.isDeeper(x, y, this.wall - 0.001) && this.metal.rim(x, y) <= THIN;

  /** Backed off along the way out from a pose of an earlier pass, so that the new pass rolls in. */
  private startOf(pose: Pose, side: Side): Pose | undefined {
    const { turn, radius } = this.input;
    const c = this.walker.outCentre(pose, side);
    const atWall = !this.walls.isDeeper(pose.x, pose.y, this.wall + turn + radius * 0.1);
    const most = (atWall ? BACK_AT_WALL : BACK) * this.closer;
    for (let k = BACK_STEPS; k >= 0; k--) {
      const heading = pose.heading - (most * k * side) / BACK_STEPS;
      const q = { x: c.x + maths.sin(heading) * turn * side, y: c.y - maths.cos(heading) * turn * side, heading };
      if (!this.walls.isDeeper(q.x, q.y, this.wall - 1e-4)) continue;
      if (this.metal.under(q.x, q.y) > THIN) continue;
      if (this.metal.engaged(q.x, q.y, maths.cos(heading), maths.sin(heading)) <= this.angle) return q;
    }
    return undefined;
  }

  /** Time of a retract over a distance, minutes. */
  private retractTime(d: number): number {
    return (2 * this.input.retract + d) / this.input.rapid;
  }

  /** Time to get to a run, not knowing yet whether the way is clear. */
  private estimate(run: Run, from: number): number {
    const p = this.frontier.pose(from);
    const d = this.at ? maths.hypot(p.x - this.at.x, p.y - this.at.y) : 0;
    return Math.min(d / this.input.linkFeed, this.retractTime(d)) + this.penalty(run);
  }

  private penalty(run: Run): number {
    return SHORT * Math.max(0, 1 - run.length / (SHORT_UP_TO * this.input.radius));
  }

  /** Both ends of every run where cutting to and fro, else the upstream end. */
  private candidates(): { run: Run; from: number; side: Side; cost: number }[] {
    const found = [];
    for (const run of this.frontier.runs()) {
      const side = this.frontier.sideOf(run.first);
      const ends: [number, Side][] = [[run.first, side]];
      if (this.input.both) ends.push([run.last, -side as Side]);
      for (const [from, s] of ends) found.push({ run, from, side: s, cost: this.estimate(run, from) });
    }
    return found.sort((a, b) => a.cost - b.cost);
  }

  /** The start that is reached soonest; runs without any start are given up. */
  private choose(): Choice | undefined {
    let best: Choice | undefined;
    let looked = 0;
    for (const { run, from, side, cost } of this.candidates()) {
      if (looked >= CANDIDATES || (best && cost >= best.cost)) break;
      const known = this.frontier.pose(from);
      const forward = side === this.frontier.sideOf(from);
      const start = this.startOf(forward ? known : { ...known, heading: known.heading + Math.PI }, side);
      if (!start) {
        this.frontier.giveUp(run, from);
        continue;
      }
      looked++;
      const link = this.linkTo(start);
      const choice = { run, side, start, link: link.chain, cost: link.time + this.penalty(run) };
      if (!best || choice.cost < best.cost) best = choice;
    }
    return best;
  }

  private linkTo(start: Pose): { chain?: Chain; time: number } {
    if (!this.at) return { time: 0 };
    const { radius, turn, linkFeed, patience, longestLink } = this.input;
    const over = this.retractTime(maths.hypot(start.x - this.at.x, start.y - this.at.y));
    const longest = Math.min(longestLink, over * patience * linkFeed);
    const link = smoothLink(this.at, start, [radius, radius / 2, radius / 4, turn], longest, this.isFree);
    return link ? { chain: link.chain, time: link.length / linkFeed } : { time: over };
  }

  private cutAll(): void {
    for (let n = 0; n < MOST_PASSES && !this.input.stopped?.(); n++) {
      const choice = this.choose();
      if (choice) this.cut(choice);
      else if (this.candidates().length === 0) return;
    }
  }

  /** When every start has been tried: on with starts that are backed off less, and beside metal that no pass looks at, while that is worth it. */
  private cutRest(): void {
    for (const share of CLOSER) {
      this.closer = share;
      this.frontier.forgive();
      this.offered.clear();
      for (let before = Infinity; !this.input.stopped?.();) {
        const left = [...this.standing(THIN)].sort((p, q) => this.metal.at(q.x, q.y) - this.metal.at(p.x, p.y));
        if (left.length * maths.pow(this.metal.cell, 2) < SPECK) return;
        if (left.length > (1 - WORTH_ANOTHER) * before) break;
        before = left.length;
        const looked: (Point & { near: number })[] = [];
        for (const p of left) {
          if (looked.some((l) => distance(l, p) < l.near)) continue;
          looked.push({ ...p, near: this.input.radius / (this.addTouching(p) ? 4 : 10) });
        }
        this.cutAll();
      }
    }
  }

  /** Places beside metal that no pass looks at, from which the cutter can start on it; whether there are any. */
  private addTouching(p: Point): boolean {
    const found = TOUCH_FROM.flatMap((from) => this.touching(p, from) ?? []);
    for (const pose of found) {
      const key = [pose.x, pose.y].map((v) => v.toFixed(2)).join();
      if (!this.offered.has(key)) this.frontier.add({ side: this.side, poses: [pose, pose] });
      this.offered.add(key);
    }
    return found.length > 0;
  }

  /** Where a cutter that comes towards a place from a direction first touches metal, heading along it; undefined where it may not be. */
  private touching(p: Point, from: number): Pose | undefined {
    const { metal, walls, wall } = this;
    const [dx, dy] = [maths.cos(from), maths.sin(from)];
    let under = 0;
    // As deep as it still lies under the cutter, as far at least it has to go.
    for (
      let away = metal.radius + metal.at(p.x, p.y);
      away < 3 * metal.radius;
      away += Math.max(under, metal.cell / 8)
    ) {
      const [x, y] = [p.x + away * dx, p.y + away * dy];
      under = metal.under(x, y);
      if (under > THIN) continue;
      if (!walls.isDeeper(x, y, wall)) return undefined;
      const touched = metal.touched(x, y, this.reach);
      return touched === undefined ? undefined : { x, y, heading: touched + (Math.PI / 2) * this.side };
    }
    return undefined;
  }

  private cut({ run, side, start, link }: Choice): void {
    this.metal.remember();
    const beside = this.metal.under(start.x, start.y) > -APART;
    const first = this.frontier.isOutside(run.first);
    const bite = first ? this.input.firstBite : this.input.bite;
    const pass = this.walker.walk(start, side, maths.acos(1 - bite / this.input.radius));
    this.frontier.giveUp(run, side === this.frontier.sideOf(run.first) ? run.first : run.last);
    if (!pass || !this.isWorth(pass)) return this.metal.putBack();
    if (link) this.stretches.push({ kind: 'link', chain: link });
    else if (this.stretches.length) this.stretches.push({ kind: 'retract' });
    this.stretches.push({ kind: 'pass', pass, first, beside });
    this.frontier.add(pass);
    this.at = pass.poses[pass.poses.length - 1];
    this.tell(pass);
  }

  /** Says how much of the metal is cut: along a pass, its bite by its length. */
  private tell({ poses, engaged }: Pass): void {
    const { radius, told } = this.input;
    for (let i = 1; i < poses.length; i++)
      this.cleared += radius * (1 - maths.cos(engaged[i])) * distance(poses[i], poses[i - 1]);
    told?.(Math.min(1, this.cleared / this.toClear));
  }

  /** Whether a pass takes away more than hairs. */
  private isWorth({ poses, engaged }: Pass): boolean {
    const least = WORTH * this.closer * this.angle * this.input.radius;
    let sum = 0;
    for (let i = 1; i < poses.length && sum <= least; i++) sum += engaged[i] * distance(poses[i], poses[i - 1]);
    return sum > least;
  }

  /** Places where metal that could be reached stands deeper than `hair` mm: beside a room, not where it is as wide as the cutter to the hair. */
  private *standing(hair: number): Generator<Point> {
    const { metal, reach } = this;
    if (!this.wide) return;
    const farthest = -(this.input.radius + this.input.turn + APART);
    for (let j = 0; j < metal.ny; j++) {
      const y = metal.box.minY + j * metal.cell;
      for (let i = 0; i < metal.nx; i++) {
        if (metal.depth[j * metal.nx + i] <= hair) continue;
        const x = metal.box.minX + i * metal.cell;
        const short = hair - reach.distance(x, y);
        if (short > 0) {
          // As far as it falls short, no cell of the row lies deeper.
          i += Math.max(0, Math.ceil(short / metal.cell - 0.001) - 1);
        } else if (this.wide.isDeeper(x, y, farthest)) yield { x, y };
      }
    }
  }

  /**
   * Area of metal that could be reached and still stands deeper than `hair` mm, mm², and where the first of it is.
   * @param beside metal no farther from a wall than this is not counted, mm
   */
  leftStanding(hair: number, beside = 0): { area: number; at?: Point } {
    const found = [...this.standing(hair)].filter(({ x, y }) => this.walls.isDeeper(x, y, beside));
    return { area: found.length * maths.pow(this.metal.cell, 2), at: found[0] };
  }
}

const ringLength = (ring: Point[]) =>
  ring.reduce(
    (sum, p, i) => sum + maths.hypot(p.x - ring[(i + 1) % ring.length].x, p.y - ring[(i + 1) % ring.length].y),
    0,
  );

/** A full turn about a place from its right, metal outside. */
function circlePoses({ x, y }: Point, r: number, side: Side): Pose[] {
  const n = 72;
  return Array.from({ length: n + 1 }, (_, k) => {
    const a = (side * 2 * Math.PI * k) / n;
    return { x: x + r * maths.cos(a), y: y + r * maths.sin(a), heading: a + (side * Math.PI) / 2 };
  });
}

/** Once round a ring, from its first point back to it. */
function ringPoses(ring: Point[], step: number): Pose[] {
  const poses: Pose[] = [];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const heading = maths.atan2(b.y - a.y, b.x - a.x);
    const n = Math.max(1, Math.ceil(maths.hypot(b.x - a.x, b.y - a.y) / step));
    for (let k = 0; k < n; k++) poses.push({ x: a.x + ((b.x - a.x) * k) / n, y: a.y + ((b.y - a.y) * k) / n, heading });
  });
  return [...poses, { ...poses[0] }];
}
