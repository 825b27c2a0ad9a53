import { Boundary } from '../../../geometry/plane/boundary';
import { Region, area, difference, intersection, islands, offset, union } from '../../../geometry/plane/clip';
import { boundsOf, growBounds } from '../../../geometry/plane/point';
import { FULL_WIDTH_LAYER } from '../../../cutting/entries';
import { Finding, finding } from '../../../quantity/finding';
import { radians } from '../../../quantity/units';
import { isAxial, profileTop } from '../../../shop/tool';
import { helixDown, rampDown, plungeFeedOf } from '../../entry';
import { finishWalls } from '../finish';
import { Level } from '../../levels';
import { PlanContext } from '../../operation';
import { PathBuilder } from '../../../path/path';
import { metalLeft } from '../rest';
import { cornersLeft, roundAbout, tooNarrow } from '../room';
import { EntryHole, SteadyClearing, Stretch } from '../steady/clearing';
import { FeedRule, followPass } from '../steady/moves';
import { ClearParams } from './params';
import { levelRapid } from '../../../machine/axes';
import { maths } from '../../../quantity/maths';

/** How far the cutter may run out over an open side beyond its radius, mm. */
export const OUT = 0.5;
/** Room for the cutter around the stock, in diameters. */
const AROUND = 2;
const COARSE = 0.005;
/** Metal an entry hole may leave over a floor besides its point, mm. */
const OVER_FLOOR = 0.5;

export class ClearPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];
  private readonly radius: number;
  private readonly rule: FeedRule;
  /** The plan of the layer before, used again where the next is the same. */
  private last?: { level: Level; stock: Region; clearing: SteadyClearing };
  private done = 0;
  /** Features in which at least one layer had something to cut. */
  private readonly cutSomething = new Set<Level['feature']>();

  constructor(
    private readonly params: ClearParams,
    private readonly context: PlanContext,
    /** How many areas there are to plan. */
    private readonly areas: number,
  ) {
    this.path = new PathBuilder(context.budget);
    const { tool, operation, machine } = context;
    this.radius = tool.diameter / 2;
    this.rule = {
      feed: operation.speeds.feed,
      most: machine.maxFeed,
      angle: maths.acos(1 - params.stepover / this.radius),
      raise: params.raise,
    };
  }

  /** Where the cutter's body may be: over what is wanted, a little beyond it over open sides, and from there outside the stock. */
  private allowed({ wanted, keep }: Level, near: Region): Region {
    const { stock, tool } = this.context;
    const { minX, minY, maxX, maxY } = growBounds(boundsOf(stock.flat()), AROUND * tool.diameter);
    const world: Region = [
      [
        { x: minX, y: minY },
        { x: maxX, y: minY },
        { x: maxX, y: maxY },
        { x: minX, y: maxY },
      ],
    ];
    const room = union(near, difference(world, stock));
    return islands(difference(room, keep))
      .filter((one) => area(intersection(one, wanted)) > 0)
      .flat();
  }

  private stockAt(level: Level, near: Region): Region {
    const { stock, earlier } = this.context;
    if (this.params.from !== 'what is left') return stock;
    return metalLeft(stock, earlier, level.z, near, this.radius, undefined, level.from);
  }

  clear(level: Level): void {
    const { context, radius } = this;
    const near = roundAbout(level.wanted, radius + OUT, level.keep);
    const allowed = this.allowed(level, near);
    const inside = intersection(level.wanted, offset(offset(allowed, -(radius + this.leave), COARSE), radius, COARSE));
    if (area(inside) < 1e-3) {
      this.findings.push(tooNarrow(context, level.feature, level.wanted, this.leave));
      return;
    }
    const stock = this.stockAt(level, near);
    const known = this.last?.level.wanted === level.wanted && JSON.stringify(this.last.stock) === JSON.stringify(stock);
    const clearing = known ? this.last!.clearing : this.plan(level, allowed, stock);
    this.last = { level, stock, clearing };
    this.write(clearing.stretches, level);
  }

  private plan(level: Level, allowed: Region, stock: Region): SteadyClearing {
    const { params, context, radius } = this;
    const clearing = new SteadyClearing({
      allowed,
      stock,
      radius,
      bite: params.stepover,
      firstBite: params.careful ? params.stepover * params.firstBite : params.stepover,
      turn: params.turn,
      allowance: this.leave,
      helix: params.helix,
      both: params.direction === 'both ways',
      conventional: params.direction === 'conventional',
      linkFeed: this.linkFeed,
      rapid: levelRapid(context.machine.axes),
      retract: context.clearance - level.z,
      patience: params.keepDown,
      longestLink: params.keepDown > 0 ? params.longestBack : 0,
      holes: this.entryHoles(level),
      stopped: context.stopped,
      told: (share) => this.tell(share),
    });
    clearing.run();
    this.done++;
    this.report(level, clearing);
    return clearing;
  }

  /** Features in whose layers nothing was left to cut. */
  idle(levels: Level[]): void {
    const [{ feature }] = levels;
    const { operation, tool } = this.context;
    if (this.params.finish || this.cutSomething.has(feature) || this.findings.some((f) => f.level === 'stop')) return;
    const place = { operation: operation.id, feature: feature.id };
    this.findings.push(finding('nothing-left', { feature: feature.name, tool: tool.name }, place));
  }

  private tell(share: number): void {
    this.context.told?.(Math.min(1, (this.done + share) / this.areas));
  }

  /** Drilled holes that end in this level's last bit: a point's length above its floor, or below it; those from the other side come out above it. */
  private entryHoles({ z, from }: Level): EntryHole[] {
    const found: EntryHole[] = [];
    for (const { tool, path, below } of this.context.earlier) {
      if (!isAxial(tool)) continue;
      const point = profileTop(tool);
      for (let i = 0; i < path.count; i++) {
        const [x, y, tip] = [path.x[i], path.y[i], path.z[i]];
        const deep = below ? this.context.bottom : tip + point;
        if (below ? tip - point < from : deep > z + point + OVER_FLOOR) continue;
        if (!found.some((h) => h.x === x && h.y === y)) found.push({ x, y, radius: tool.diameter / 2, deep });
      }
    }
    return found;
  }

  /** Metal the clearing leaves on the walls. */
  private get leave(): number {
    const { wallAllowance, finish, finishStock } = this.params;
    return wallAllowance + (finish ? finishStock : 0);
  }

  /** Laps along every wall of a level that has been cleared. */
  finish({ feature, wanted, keep, z }: Level): void {
    const { params, context, radius } = this;
    const walls = new Boundary(keep);
    const at = (leave: number) => {
      const free = difference(roundAbout(wanted, radius + 2 * OUT, keep), offset(keep, radius + leave));
      const rings = islands(free)
        .flat()
        .filter((ring) => ring.some((p) => walls.distance(p.x, p.y) > -(radius + leave + OUT / 2)));
      return { free, rings };
    };
    const conventional = params.direction === 'conventional';
    const along = { feature, allowance: params.wallAllowance, floor: z, conventional, at };
    this.findings.push(...finishWalls(this.path, context, params, along));
  }

  private get linkFeed(): number {
    return Math.min(this.params.linkFeed, this.context.machine.maxFeed);
  }

  private report({ feature, wanted }: Level, clearing: SteadyClearing): void {
    const { params, context } = this;
    const place = { operation: context.operation.id, feature: feature.id };
    const touched = offset(clearing.reachable, this.leave + 2 * COARSE, COARSE);
    if (params.from === 'all of the stock') this.findings.push(...cornersLeft(context, feature, wanted, touched));
    // A lap along the walls takes thin metal beside them with it.
    const beside = params.finish ? params.wallAllowance + this.radius / 4 : 0;
    const left = clearing.leftStanding(0.1, beside);
    if (left.at && left.area > 0.2) {
      this.findings.push(
        finding('left-standing', { area: left.area, feature: feature.name, near: left.at }, { ...place, at: left.at }),
      );
    }
    if (clearing.stretches.some((s) => s.kind === 'pass')) this.cutSomething.add(feature);
    if (clearing.stretches.some((s) => s.kind === 'plunge') && !context.tool.centreCutting) {
      this.findings.push(
        finding(
          'no-room-to-enter',
          { tool: context.tool.name, feature: feature.name },
          { ...place, tool: context.tool.id },
        ),
      );
    }
  }

  private write(stretches: Stretch[], { z, from }: Level): void {
    const { path, params, context } = this;
    let down = false;
    for (const s of stretches) {
      switch (s.kind) {
        case 'helix':
        case 'ramp':
        case 'plunge':
          this.enter(s, from, z);
          down = true;
          break;
        case 'link':
          path.line(path.x, path.y, z + params.lift, this.linkFeed, 'link');
          path.follow(s.chain, z + params.lift, this.linkFeed, 'link');
          path.line(path.x, path.y, z, this.linkFeed, 'link');
          break;
        case 'retract':
          down = false;
          break;
        case 'pass': {
          const [start] = s.pass.poses;
          if (!down) this.approach(start.x, start.y, (s.beside ? from : z) + context.approach);
          path.line(start.x, start.y, z, context.operation.speeds.entryFeed, 'lead');
          const gentle = params.careful && s.first;
          const rule = gentle ? { ...this.rule, feed: this.rule.feed * params.firstFeed, raise: false } : this.rule;
          followPass(path, s.pass, z, this.radius, rule);
          down = true;
        }
      }
    }
    path.rapid(path.x, path.y, context.clearance);
  }

  private approach(x: number, y: number, z: number): void {
    const { path, context } = this;
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    if (this.params.feedOver && !Number.isNaN(path.x)) path.line(x, y, context.clearance, this.linkFeed, 'link');
    path.rapid(x, y, context.clearance).rapid(x, y, z);
  }

  private enter(s: Extract<Stretch, { kind: 'helix' | 'ramp' | 'plunge' }>, from: number, z: number): void {
    const { path, params, context } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const angle = radians(params.entryAngle);
    if (s.kind === 'plunge') {
      this.approach(s.x, s.y, Math.min(from, s.deep ?? from) + context.approach);
      path.line(s.x, s.y, z, plungeFeedOf(context), 'entry');
      return;
    }
    const start = s.kind === 'helix' ? { x: s.x + s.radius, y: s.y } : s.chain.vertices[0];
    this.approach(start.x, start.y, from + context.approach);
    path.line(start.x, start.y, from + context.approach / 2, feed, 'lead');
    if (s.kind === 'helix')
      helixDown(path, s, from + context.approach / 2, z, angle, params.direction === 'conventional', entryFeed);
    else {
      const most = FULL_WIDTH_LAYER * context.tool.diameter;
      rampDown(path, s.chain, from + context.approach / 2, z, angle, entryFeed, most);
      path.follow(s.chain, z, entryFeed, 'entry');
    }
  }
}
