import { plungeFeedOf } from '../../entry';
import { Chain, chainLength, reversed } from '../../../geometry/plane/chain';
import { area, contains, difference, distanceToBoundary, intersection, offset } from '../../../geometry/plane/clip';
import { distance, Point } from '../../../geometry/plane/point';
import { Finding, finding } from '../../../quantity/finding';
import { degrees, radians } from '../../../quantity/units';
import { Stretch } from '../../../document/operation';
import { Feature } from '../../../part/plate/feature';
import { regionOf, solidAt } from '../../../part/plate/model';
import { instancesOf } from '../../../part/plate/shapes';
import { cannotPlunge } from '../../checks';
import { finishesAlone, finishesConventionally, leftFor } from '../finish';
import { extended } from '../laps';
import { layersBetween } from '../../layers';
import { LeadForm, TAKE_UP, leadFor, leaveCompensated } from '../leads';
import { LAP_STEPS, PlanContext } from '../../operation';
import { PathBuilder } from '../../../path/path';
import { metalLeft } from '../rest';
import { cornersLeft, insideCorners } from '../room';
import { Tabs, followStations, stationsOver, tabFindings, tabShares } from '../tabs';
import { Wall, closedWall, openWall } from '../walls';
import { ContourParams, Side } from './params';
import { stretchOf } from './stretch';
import { maths } from '../../../quantity/maths';

export const isOpening = ({ meaning }: Feature) => meaning === 'pocket' || meaning === 'hole';

/** Whether the cutter runs inside a closed line: there the scrap is what falls out of an opening. */
export const isInside = (feature: Feature, side: Side) =>
  side === 'inside' || (side === 'scrap side' && isOpening(feature));

const LONGER = 1.2;
/** Nearer than this is the same, mm: what flattening and clipping may be off by. */
const JUST = 0.01;
/** Nearer to the stock than this beside its radius the cutter is not clear of it, mm. */
const BESIDE = 0.2;
/** Share of the cutter's face that may touch metal and still counts as clear: the grid's own error. */
const TOUCH = 0.01;

export class ContourPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];
  private readonly radius: number;
  /** Metal of the part beside the feature that is cut: no lead may reach into it. */
  private others: (p: Point) => boolean = () => true;
  /** That of the laps being worked out. */
  private direction: 'climb' | 'conventional';

  constructor(
    private readonly params: ContourParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    this.radius = context.tool.diameter / 2;
    this.direction = params.direction;
  }

  /** The side of the path the wall is not on. */
  private get side(): 'left' | 'right' {
    return this.direction === 'climb' ? 'left' : 'right';
  }

  /** The last laps along a feature. */
  lapsOf(feature: Feature): Chain[] {
    return this.walls(feature).flatMap((w) => w.laps(this.params.wallAllowance));
  }

  /** The lines of a feature as walls: all its closed copies together, each open one by itself. */
  private walls(feature: Feature): Wall[] {
    const { params, radius } = this;
    const { stretch } = this.context.operation;
    if (stretch) return this.stretched(feature, stretch);
    const open = instancesOf(feature).filter((c) => !c.closed);
    const region = regionOf(feature);
    const { begins } = this.context.operation;
    const run = { ...params, direction: this.direction, radius, begins };
    return [
      ...(region.length ? [closedWall(region, isInside(feature, params.side), run)] : []),
      ...open.map((c) => openWall(extended(c, params.extendStart, params.extendEnd), c, run)),
    ];
  }

  /** The part of a closed line that is asked for, where it is one of this feature. */
  private stretched(feature: Feature, stretch: Stretch): Wall[] {
    const { params, radius, context } = this;
    const cut = stretchOf(context.targets, stretch);
    if (cut?.feature.id !== feature.id || cut.chain.vertices.length === 0) return [];
    const inside = isInside(feature, params.side);
    // Counterclockwise, what the line encloses lies to its left.
    const side = params.side === 'on the line' ? params.side : inside ? 'left' : 'right';
    const whole = extended(cut.chain, stretch.before, stretch.after);
    const { isFree } = closedWall(regionOf(feature), inside, { ...params, radius });
    return [{ ...openWall(whole, cut.chain, { ...params, direction: this.direction, radius, side }), isFree }];
  }

  cut(feature: Feature, bottom: number): void {
    const { params, context } = this;
    const leave = leftFor(params);
    const levels = layersBetween(context.top, bottom, params.layer);
    this.others = this.besides(feature, bottom);
    const walls = this.walls(feature);
    const finishing = this.finishing(feature, walls);
    this.findings.push(...this.cornersLeft(feature));
    for (const [n, wall] of walls.entries()) {
      if (wall.laps(leave).length === 0) {
        this.findings.push(this.noRoom(feature));
        continue;
      }
      if (finishesAlone(params)) {
        this.finish(finishing[n], levels, bottom);
        continue;
      }
      levels.forEach((z, i) => {
        const from = i ? levels[i - 1] : context.top;
        for (let k = params.passes - 1; k >= 0; k--)
          for (const lap of wall.laps(leave + k * params.stepover))
            this.lap(lap, wall, leave + k * params.stepover, from, z, k === params.passes - 1 ? 0 : params.stepover);
      });
      if (params.finish) this.finish(finishing[n], levels, bottom);
    }
  }

  /** Inside corners of an outside that are tighter than the cutter. */
  private cornersLeft(feature: Feature): Finding[] {
    const { params, context, radius } = this;
    const isRound = !context.operation.stretch && params.side !== 'on the line' && !isInside(feature, params.side);
    if (!isRound) return [];
    return cornersLeft(context, feature, insideCorners(regionOf(feature), radius), []);
  }

  /** Whether the cutter stands clear of all the part has beside the wall of a feature, where that is metal or room all round. */
  private besides(feature: Feature, bottom: number): (p: Point) => boolean {
    const { model } = this.context;
    const own = regionOf(feature);
    const solid = solidAt(model, Math.max(bottom, -model.thickness) + JUST);
    const inside = isInside(feature, this.params.side);
    const others = inside ? intersection(solid, own) : difference(solid, offset(own, JUST));
    const isEnclosed = feature.meaning === 'outline' || feature.meaning === 'boss';
    if (own.length === 0 || isEnclosed === inside || area(others) < JUST) return () => true;
    return (p) => !contains(others, p) && distanceToBoundary(others, p) > this.radius - JUST;
  }

  /** The walls as the finish runs along them. */
  private finishing(feature: Feature, roughed: Wall[]): Wall[] {
    if (this.finishDirection === this.direction) return roughed;
    this.direction = this.finishDirection;
    const walls = this.walls(feature);
    this.direction = this.params.direction;
    return walls;
  }

  private get finishDirection(): 'climb' | 'conventional' {
    const { finishDirection, direction } = this.params;
    return finishesConventionally(finishDirection, direction === 'conventional') ? 'conventional' : 'climb';
  }

  private noRoom(feature: Feature): Finding {
    const { tool, operation } = this.context;
    return finding(
      'contour-too-small',
      { tool: tool.name, feature: feature.name },
      { operation: operation.id, feature: feature.id, field: 'toolId' },
    );
  }

  private finish(wall: Wall, levels: number[], bottom: number): void {
    const { params, context } = this;
    const depths = params.finishAt === 'each layer' ? levels : [bottom];
    this.direction = this.finishDirection;
    for (const z of depths)
      for (const lap of wall.laps(params.wallAllowance))
        for (let n = params.spring ? 2 : 1; n > 0; n--)
          this.lap(lap, wall, params.wallAllowance, context.top, z, params.finishStock);
    this.direction = params.direction;
  }

  private tabsFor(lap: Chain, z: number): Tabs | undefined {
    const { params, context } = this;
    if (params.tabs === 'none') return undefined;
    const top = -context.model.thickness + params.tabHeight;
    if (z >= top - 1e-6) return undefined;
    const tabs: Tabs = {
      at: tabShares(params),
      width: params.tabWidth,
      top,
      shape: params.tabs,
    };
    for (const found of tabFindings(lap, tabs, params.tabPlaces, context))
      if (!this.findings.some((f) => f.code === found.code)) this.findings.push(found);
    return tabs;
  }

  /** Whether the cutter stands clear of all metal at p, down to z: off the stock, or where something was cut before. */
  private isClear(p: Point, z: number): boolean {
    const { stock, earlier, tool } = this.context;
    if (!contains(stock, p) && distanceToBoundary(stock, p) > this.radius + BESIDE) return true;
    const own = this.path.build();
    const around = offset([[p, { x: p.x + 0.01, y: p.y }, { x: p.x, y: p.y + 0.01 }]], this.radius, 0.05);
    const { budget, stockTop } = this.context;
    const left = metalLeft(stock, [...earlier, { tool, path: own }], z, around, this.radius / 4, budget, stockTop);
    return area(intersection(left, around)) < TOUCH * area(around);
  }

  /**
   * The ways onto a lap and off it. Where the asked lead would start in metal, a slant from where the lap before ran; where that
   * does too, the lap is started on.
   * @param room how far beside this lap metal is gone already, mm
   */
  private ways(lap: Chain, wall: Wall, leave: number, z: number, room: number): { on?: Chain; off?: Chain } {
    const { params, context } = this;
    if (params.side === 'on the line') return {};
    const compensates = this.compensatesAt(leave);
    const straight = compensates && params.leadForm === 'arc' ? this.takeUp : undefined;
    const asked: LeadForm = { form: params.leadForm, size: params.lead, angle: params.leadAngle, straight };
    const length = Math.max(params.lead, 2 * room, compensates ? this.takeUp : 0);
    const slant: LeadForm = { form: 'line', size: length, angle: degrees(maths.asin(room / length)) };
    let off: Chain | undefined;
    for (const form of room > 0 ? [asked, slant] : [asked]) {
      const lead = leadFor(lap, form, this.side, (p) => wall.isFree(p, leave) && this.others(p));
      if (lead && this.isClear(lead.on.vertices[0], z)) return lead;
      off ??= lead?.off;
    }
    if ((!off || compensates) && !this.findings.some((f) => f.code.startsWith('no-lead')))
      this.findings.push(
        compensates
          ? finding('no-lead-for-compensation', {}, { operation: context.operation.id, field: 'params.lead' })
          : finding('no-lead', {}, { operation: context.operation.id, field: 'params.lead' }),
      );
    return { off };
  }

  /** Radius the control is left to move the cutter by, mm. */
  private get inControl(): number {
    return this.params.compensation === 'all in the control' ? this.radius : 0;
  }

  /** Length of a straight on which compensation is switched: longer than what the control moves the cutter by. */
  private get takeUp(): number {
    return Math.max(TAKE_UP, LONGER * this.inControl);
  }

  private checkLead({ vertices: [a, b] }: Chain): void {
    const short = a.bulge !== 0 || distance(a, b) <= this.inControl;
    if (short && !this.findings.some((f) => f.code === 'lead-too-short'))
      this.findings.push(
        finding(
          'lead-too-short',
          { radius: this.inControl, lead: a.bulge === 0 ? distance(a, b) : 0 },
          { operation: this.context.operation.id, field: 'params.lead' },
        ),
      );
  }

  /** Only what leaves the wall as it stays is worth the control's care. */
  private compensatesAt(leave: number): boolean {
    const { compensation, side, wallAllowance } = this.params;
    return compensation !== 'worked out' && side !== 'on the line' && leave === wallAllowance;
  }

  /** Down along an open lap, there and back as often as it takes, ending where the lap begins. */
  private rampAlong(lap: Chain, top: number, z: number): void {
    const { path, params, context } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const feeds = { feed: entryFeed, entryFeed, down: plungeFeedOf(context) };
    const length = chainLength(lap);
    path.line(lap.vertices[0].x, lap.vertices[0].y, top, feed, 'lead');
    const ways = 2 * Math.max(1, Math.ceil((top - z) / (2 * length * maths.tan(radians(params.rampAngle))) - 1e-9));
    const level = (n: number) => top - ((top - z) * n) / ways;
    for (let n = 0; n < ways; n++) {
      const stations = [
        { s: 0, z: level(n) },
        { s: length, z: level(n + 1) },
      ];
      followStations(path, n % 2 ? reversed(lap) : lap, stations, feeds, 'entry');
    }
  }

  /** @param room how far beside this lap metal is gone already, mm */
  private lap(lap: Chain, wall: Wall, leave: number, from: number, z: number, room: number): void {
    const { path, context, params } = this;
    const feeds = context.operation.speeds;
    const down = plungeFeedOf(context);
    // Whether a lead is clear is looked for along all that was cut before it.
    context.budget.spend(LAP_STEPS + Math.ceil(path.count / 8));
    const { on, off } = this.ways(lap, wall, leave, z, room);
    const over = (a: number, b: number) =>
      stationsOver(chainLength(lap), a, b, this.tabsFor(lap, z), context.tool.diameter);
    const at = on?.vertices[0] ?? lap.vertices[0];
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    path.rapid(at.x, at.y, context.clearance).rapid(at.x, at.y, from + context.approach);
    if (on) {
      path.line(at.x, at.y, z, feeds.feed, 'lead');
      if (this.compensatesAt(leave)) {
        this.checkLead(on);
        path.compensate(this.side, this.inControl);
      }
      path.follow(on, z, feeds.feed, 'lead');
    } else if (params.descent === 'ramp' && lap.closed) {
      const top = from + context.approach / 2;
      path.line(at.x, at.y, top, feeds.feed, 'lead');
      const drop = chainLength(lap) * maths.tan(radians(params.rampAngle));
      const laps = Math.max(1, Math.ceil((top - z) / drop - 1e-9));
      const level = (n: number) => top - ((top - z) * n) / laps;
      for (let n = 0; n < laps; n++)
        followStations(
          path,
          lap,
          over(level(n), level(n + 1)),
          { feed: feeds.entryFeed, entryFeed: feeds.entryFeed, down },
          'entry',
        );
    } else if (params.descent === 'ramp' && !this.tabsFor(lap, z)) this.rampAlong(lap, from + context.approach / 2, z);
    else {
      path.line(at.x, at.y, z, down, 'entry');
      if (!context.tool.centreCutting && !this.findings.some((f) => f.code === 'cannot-plunge'))
        this.findings.push(cannotPlunge(context, at));
    }
    const begun = path.count;
    followStations(path, lap, over(z, z), { ...feeds, down }, 'cut');
    // Where nothing is gone beside it, it cuts as wide as it is: in a corner too.
    if (room > 0 && params.side !== 'on the line') path.slowInside(begun, this.side, this.radius - room / 2);
    if (off && this.compensatesAt(leave)) leaveCompensated(path, off, path.z, feeds.feed);
    else if (off) path.follow(off, path.z, feeds.feed, 'lead');
    path.rapid(path.x, path.y, context.clearance);
  }
}
