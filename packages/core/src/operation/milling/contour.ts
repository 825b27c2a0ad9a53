import { Chain, chainLength, pointAtShare } from '../../geometry/plane/chain';
import { area, contains, distanceToBoundary, intersection, offset } from '../../geometry/plane/clip';
import { distance, Point } from '../../geometry/plane/point';
import { Finding, care, note, stop } from '../../quantity/finding';
import { Choice, Parameter, Toggle, Words } from '../../quantity/parameter';
import { degrees, formatNumber, radians } from '../../quantity/units';
import { suggestBite } from '../../cutting/bite';
import { suggestEntry, suggestFinish } from '../../cutting/entries';
import { Feature } from '../../part/plate/feature';
import { regionOf } from '../../part/plate/model';
import { instancesOf } from '../../part/plate/shapes';
import { cutsWalls } from '../../shop/tool';
import { cannotPlunge, reachFindings, targetFindings, toolFindings } from '../checks';
import { wallBottom } from '../depth';
import { Corners, extended } from './laps';
import { layersBetween } from '../layers';
import { LeadForm, leadFor } from './leads';
import { LAP_STEPS, OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { metalLeft } from './rest';
import { Tabs, followStations, stationsOver, tabFindings, tabShares } from './tabs';
import { Wall, closedWall, openWall } from './walls';

type Side = 'outside' | 'inside' | 'scrap side' | 'left' | 'right' | 'on the line';

const isOpenSide = (p: ContourParams) => ['left', 'right', 'on the line'].includes(p.side);
const isBeside = (p: ContourParams) => p.side !== 'on the line';
const canStartAnywhere = (p: ContourParams) => p.side !== 'left' && p.side !== 'right';

export class ContourParams {
  @Choice({
    label: 'Side',
    help: 'The side of the line the cutter runs on: outside or inside of closed ones, left, right or on it of open ones.',
    choices: ['outside', 'inside', 'scrap side', 'left', 'right', 'on the line'],
  })
  side!: Side;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; layers come out equal.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
  })
  layer!: number;
  @Parameter({
    label: 'Sideways passes',
    help: 'Laps beside each other, the widest first, where more stands beside the wall than one lap takes.',
    unit: 'count',
    min: 1,
    max: 40,
    step: 1,
  })
  passes!: number;
  @Parameter({
    label: 'Stepover',
    help: 'From one sideways pass to the next.',
    unit: 'length',
    min: 0.05,
    max: 100,
    step: 0.5,
    matters: (p: ContourParams) => p.passes > 1,
  })
  stepover!: number;
  @Parameter({
    label: 'Leave on the wall',
    help: 'Metal left on the wall when all is done.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  wallAllowance!: number;
  @Parameter({
    label: 'Break through',
    help: 'How far below the part it goes where it cuts right through.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
  @Choice({ label: 'Descent', help: 'How the cutter gets down to each layer.', choices: ['ramp', 'plunge'] })
  descent!: 'ramp' | 'plunge';
  @Parameter({
    label: 'Ramp angle',
    help: 'Slope of the ramp along the wall; on a round wall it is a helix.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    matters: (p: ContourParams) => p.descent === 'ramp',
  })
  rampAngle!: number;
  @Toggle({ label: 'Finish pass', help: 'One more lap with a light bite, after all layers.' })
  finish!: boolean;
  @Parameter({
    label: 'For the finish',
    help: 'Metal the layers leave for the finish lap.',
    unit: 'length',
    min: 0.01,
    max: 5,
    step: 0.05,
    matters: (p: ContourParams) => p.finish,
  })
  finishStock!: number;
  @Choice({
    label: 'Finish at',
    help: 'One lap at full depth leaves no steps; a lap a layer bends the cutter less.',
    choices: ['full depth', 'each layer'],
    matters: (p: ContourParams) => p.finish,
  })
  finishAt!: 'full depth' | 'each layer';
  @Toggle({
    label: 'Spring pass',
    help: 'The finish lap once more at the same size, for what the cutter bent away.',
    matters: (p: ContourParams) => p.finish,
  })
  spring!: boolean;
  @Choice({
    label: 'Lead',
    help: 'How it comes onto the wall: an arc that touches it, a straight at an angle, or the wall’s own line drawn longer.',
    choices: ['arc', 'line', 'tangent'],
    matters: isBeside,
  })
  leadForm!: LeadForm['form'];
  @Parameter({
    label: 'Lead size',
    help: 'Radius of the arc, or length of the straight.',
    unit: 'length',
    min: 0.1,
    max: 100,
    step: 0.5,
    matters: isBeside,
  })
  lead!: number;
  @Parameter({
    label: 'Lead angle',
    help: 'Sweep of the arc, or angle of the straight to the wall.',
    unit: 'angle',
    min: 10,
    max: 180,
    step: 15,
    matters: (p: ContourParams) => isBeside(p) && p.leadForm !== 'tangent',
  })
  leadAngle!: number;
  @Choice({
    label: 'Corners',
    help: 'Outside corners: rolled about, drawn out to a point, or passed and looped back, which leaves them sharpest.',
    choices: ['rolled', 'sharp', 'looped'],
    matters: (p: ContourParams) => p.side === 'outside' || p.side === 'scrap side',
  })
  corners!: Corners;
  @Choice({
    label: 'Start',
    help: 'Where a lap begins: the middle of the longest straight, or a chosen share of the way round.',
    choices: ['longest straight', 'chosen'],
    matters: canStartAnywhere,
  })
  startAt!: 'longest straight' | 'chosen';
  @Parameter({
    label: 'Way round',
    help: 'Share of the way round where a lap begins.',
    unit: 'share',
    min: 0,
    max: 1,
    step: 0.05,
    matters: (p: ContourParams) => canStartAnywhere(p) && p.startAt === 'chosen',
  })
  start!: number;
  @Parameter({
    label: 'Longer at the start',
    help: 'How far an open line is drawn on before its start; below zero holds it back.',
    unit: 'length',
    min: -100,
    max: 100,
    step: 1,
    matters: isOpenSide,
  })
  extendStart!: number;
  @Parameter({
    label: 'Longer at the end',
    help: 'How far an open line is drawn on past its end; below zero holds it back.',
    unit: 'length',
    min: -100,
    max: 100,
    step: 1,
    matters: isOpenSide,
  })
  extendEnd!: number;
  @Choice({
    label: 'Tabs',
    help: 'Bridges that hold the part in its frame: with upright ends, or ramped, which is kinder to the cutter.',
    choices: ['none', 'rectangular', 'ramped'],
  })
  tabs!: 'none' | Tabs['shape'];
  @Parameter({
    label: 'How many tabs',
    help: 'Spread evenly round each line.',
    unit: 'count',
    min: 1,
    max: 60,
    step: 1,
    matters: (p: ContourParams) => p.tabs !== 'none' && p.tabPlaces.trim() === '',
  })
  tabCount!: number;
  @Parameter({
    label: 'Tab width',
    help: 'Of the bridge itself.',
    unit: 'length',
    min: 0.2,
    max: 100,
    step: 0.5,
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabWidth!: number;
  @Parameter({
    label: 'Tab height',
    help: 'Up from the underside of the part.',
    unit: 'length',
    min: 0.1,
    max: 100,
    step: 0.5,
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabHeight!: number;
  @Words({
    label: 'Tab places',
    help: 'Each in percent of the way round, such as 10 40 75; empty spreads them evenly. Drag a tab to move it.',
    min: 0,
    max: 200,
    words: { '': 'spread evenly' },
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabPlaces!: string;
  @Choice({
    label: 'Compensation',
    help: 'Worked out here; or the wear of the cutter taken up in the control from its diameter offset (0 for a new one); or all of its radius.',
    choices: ['worked out', 'wear in the control', 'all in the control'],
    matters: isBeside,
  })
  compensation!: 'worked out' | 'wear in the control' | 'all in the control';
}

const GAP = 1;
/** Straight before and after a lead on which the control takes up its compensation, mm. */
const TAKE_UP = 2;
const LONGER = 1.2;
/** Nearer to the stock than this beside its radius the cutter is not clear of it, mm. */
const BESIDE = 0.2;
/** Share of the cutter's face that may touch metal and still counts as clear: the grid's own error. */
const TOUCH = 0.01;

class ContourPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];
  private readonly radius: number;

  constructor(
    private readonly params: ContourParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    this.radius = context.tool.diameter / 2;
  }

  /** The side of the path the wall is not on. */
  private get side(): 'left' | 'right' {
    return this.params.direction === 'climb' ? 'left' : 'right';
  }

  /** The last laps along a feature. */
  lapsOf(feature: Feature): Chain[] {
    return this.walls(feature).flatMap((w) => w.laps(this.params.wallAllowance));
  }

  /** The lines of a feature as walls: all its closed copies together, each open one by itself. */
  private walls(feature: Feature): Wall[] {
    const { params, radius } = this;
    const open = instancesOf(feature).filter((c) => !c.closed);
    const region = regionOf(feature);
    const run = { ...params, radius };
    return [
      ...(region.length ? [closedWall(region, isInside(feature, params.side), run)] : []),
      ...open.map((c) => openWall(extended(c, params.extendStart, params.extendEnd), c, run)),
    ];
  }

  cut(feature: Feature, bottom: number): void {
    const { params, context } = this;
    const leave = params.wallAllowance + (params.finish ? params.finishStock : 0);
    const levels = layersBetween(context.top, bottom, params.layer);
    for (const wall of this.walls(feature)) {
      if (wall.laps(leave).length === 0) {
        this.findings.push(this.noRoom(feature));
        continue;
      }
      levels.forEach((z, i) => {
        const from = i ? levels[i - 1] : context.top;
        for (let k = params.passes - 1; k >= 0; k--)
          for (const lap of wall.laps(leave + k * params.stepover))
            this.lap(lap, wall, leave + k * params.stepover, from, z, k === params.passes - 1 ? 0 : params.stepover);
      });
      if (params.finish) this.finish(wall, levels, bottom);
    }
  }

  private noRoom(feature: Feature): Finding {
    const { tool, operation } = this.context;
    return stop(
      'contour-too-small',
      `${tool.name} does not fit along “${feature.name}”`,
      'Choose a smaller tool, or hold the ends back less',
      { operation: operation.id, feature: feature.id, field: 'toolId' },
    );
  }

  private finish(wall: Wall, levels: number[], bottom: number): void {
    const { params, context } = this;
    const depths = params.finishAt === 'each layer' ? levels : [bottom];
    for (const z of depths)
      for (const lap of wall.laps(params.wallAllowance))
        for (let n = params.spring ? 2 : 1; n > 0; n--)
          this.lap(lap, wall, params.wallAllowance, context.top, z, params.finishStock);
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
    const left = metalLeft(stock, [...earlier, { tool, path: own }], z, around, this.radius / 4, this.context.budget);
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
    const slant: LeadForm = { form: 'line', size: length, angle: degrees(Math.asin(room / length)) };
    let off: Chain | undefined;
    for (const form of room > 0 ? [asked, slant] : [asked]) {
      const lead = leadFor(lap, form, this.side, (p) => wall.isFree(p, leave));
      if (lead && this.isClear(lead.on.vertices[0], z)) return lead;
      off ??= lead?.off;
    }
    if ((!off || compensates) && !this.findings.some((f) => f.code === 'no-lead'))
      this.findings.push(
        (compensates ? stop : note)(
          'no-lead',
          `There is no room to lead onto the wall; the lap starts on it${compensates ? ', where the control cannot take up its compensation' : ''}`,
          'Choose another start, a smaller lead or a smaller tool',
          { operation: context.operation.id, field: 'params.lead' },
        ),
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
        stop(
          'lead-too-short',
          `The control switches its compensation on a straight longer than the radius of the cutter, ${formatNumber(this.inControl, 2)} mm; the lead has ${formatNumber(a.bulge === 0 ? distance(a, b) : 0, 2)} mm`,
          'Make the lead longer, or lead on by an arc',
          { operation: this.context.operation.id, field: 'params.lead' },
        ),
      );
  }

  /** Only what leaves the wall as it stays is worth the control's care. */
  private compensatesAt(leave: number): boolean {
    const { compensation, side, wallAllowance } = this.params;
    return compensation !== 'worked out' && side !== 'on the line' && leave === wallAllowance;
  }

  /** @param room how far beside this lap metal is gone already, mm */
  private lap(lap: Chain, wall: Wall, leave: number, from: number, z: number, room: number): void {
    const { path, context, params } = this;
    const feeds = context.operation.speeds;
    // Whether a lead is clear is looked for along all that was cut before it.
    context.budget.spend(LAP_STEPS + Math.ceil(path.count / 8));
    const { on, off } = this.ways(lap, wall, leave, z, room);
    const over = (a: number, b: number) =>
      stationsOver(chainLength(lap), a, b, this.tabsFor(lap, z), context.tool.diameter);
    const at = on?.vertices[0] ?? lap.vertices[0];
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    path.rapid(at.x, at.y, context.clearance).rapid(at.x, at.y, from + GAP);
    if (on) {
      path.line(at.x, at.y, z, feeds.feed, 'lead');
      if (this.compensatesAt(leave)) {
        this.checkLead(on);
        path.compensate(this.side, this.inControl);
      }
      path.follow(on, z, feeds.feed, 'lead');
    } else if (params.descent === 'ramp' && lap.closed) {
      const top = from + GAP / 2;
      path.line(at.x, at.y, top, feeds.feed, 'lead');
      const drop = chainLength(lap) * Math.tan(radians(params.rampAngle));
      const laps = Math.max(1, Math.ceil((top - z) / drop - 1e-9));
      const level = (n: number) => top - ((top - z) * n) / laps;
      for (let n = 0; n < laps; n++)
        followStations(
          path,
          lap,
          over(level(n), level(n + 1)),
          { feed: feeds.entryFeed, entryFeed: feeds.entryFeed },
          'entry',
        );
    } else {
      path.line(at.x, at.y, z, feeds.entryFeed, 'entry');
      if (!context.tool.centreCutting && !this.findings.some((f) => f.code === 'cannot-plunge'))
        this.findings.push(cannotPlunge(context, at));
    }
    followStations(path, lap, over(z, z), feeds, 'cut');
    if (off) this.goesOff(off, path.z, this.compensatesAt(leave));
    path.rapid(path.x, path.y, context.clearance);
  }

  private goesOff({ vertices }: Chain, z: number, compensated: boolean): void {
    const { feed } = this.context.operation.speeds;
    const last = vertices.length - 1;
    if (!compensated) this.path.follow({ closed: false, vertices }, z, feed, 'lead');
    else {
      this.path.follow({ closed: false, vertices: vertices.slice(0, last) }, z, feed, 'lead');
      this.path.compensate('off').line(vertices[last].x, vertices[last].y, z, feed, 'lead');
    }
  }
}

const isOutline = ({ meaning }: Feature) => meaning === 'outline';
const isOpening = ({ meaning }: Feature) => meaning === 'pocket' || meaning === 'hole';

/** Whether the cutter runs inside a closed line: there the scrap is what falls out of an opening. */
const isInside = (feature: Feature, side: Side) => side === 'inside' || (side === 'scrap side' && isOpening(feature));

/** On the scrap side a part must not fall loose before its openings are cut. */
const inOrder = (targets: Feature[], side: Side): Feature[] =>
  side === 'scrap side' ? [...targets].sort((a, b) => Number(isOpening(b)) - Number(isOpening(a))) : targets;

/** What a contour will run along, known before it is planned: its walls, laps in their direction, and where tabs stand. */
export interface ContourPreview {
  walls: Chain[];
  /** Whether the metal kept lies inside the walls, outside them, or neither is kept. */
  keeps: 'inside' | 'outside' | 'nothing';
  laps: { chain: Chain; tabs: Point[] }[];
}

export function previewContour(params: ContourParams, context: Pick<PlanContext, 'tool' | 'targets'>): ContourPreview {
  const planner = new ContourPlanner(params, context as PlanContext);
  const targets = context.targets.filter((t) => contour.works.includes(t.meaning));
  const walls = targets.flatMap(instancesOf);
  const tabs = params.tabs === 'none' ? [] : tabShares(params);
  const laps = targets
    .flatMap((t) => planner.lapsOf(t))
    .map((chain) => ({ chain, tabs: tabs.map((share) => pointAtShare(chain, share)) }));
  const [first] = targets;
  const isClosed = !!first && walls.every((w) => w.closed) && params.side !== 'on the line';
  return { walls, laps, keeps: !isClosed ? 'nothing' : isInside(first, params.side) ? 'outside' : 'inside' };
}

/** A side that does not go with the lines chosen: closed ones have an inside, open ones a left and a right. */
function sideFindings(params: ContourParams, { operation, targets }: PlanContext): Finding[] {
  const wrong = targets.find((t) =>
    instancesOf(t).some((c) =>
      (c.closed ? ['left', 'right'] : ['outside', 'inside', 'scrap side']).includes(params.side),
    ),
  );
  if (!wrong) return [];
  const closed = instancesOf(wrong)[0].closed;
  return [
    stop(
      'side-unclear',
      `“${wrong.name}” is ${closed ? 'closed: it has an inside and an outside' : 'open: it has a left and a right'}, so “${params.side}” means nothing for it`,
      closed ? 'Choose outside or inside' : 'Choose left, right or on the line',
      { operation: operation.id, feature: wrong.id, field: 'params.side' },
    ),
  ];
}

function plan(params: ContourParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, contour.suits), ...targetFindings(context, contour.works)];
  findings.push(...sideFindings(params, context));
  const planner = new ContourPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of inOrder(context.targets, params.side)) {
    if (!contour.works.includes(feature.meaning)) continue;
    const closed = instancesOf(feature).every((c) => c.closed);
    if (closed && area(regionOf(feature)) < 1e-3) {
      findings.push(
        stop('no-area', `“${feature.name}” encloses no area to run around`, 'Close the outline', {
          operation: context.operation.id,
          feature: feature.id,
        }),
      );
      continue;
    }
    const bottom = wallBottom(feature, context, params.breakthrough);
    const depth = context.top - bottom;
    const layer = depth / Math.max(1, layersBetween(context.top, bottom, params.layer).length);
    const reach = reachFindings(context, depth, layer);
    if (
      params.finish &&
      params.finishAt === 'full depth' &&
      depth > context.tool.fluteLength &&
      !reach.some((f) => f.level === 'stop')
    ) {
      findings.push(
        note(
          'finish-deep',
          `The finish lap is ${formatNumber(depth, 1)} mm deep, more than the flutes; the upper part was cut before`,
          'Finish at each layer, or check the proof for rubbing',
          { operation: context.operation.id, field: 'params.finishAt' },
        ),
      );
    }
    if (bottom < context.bottom - 0.5)
      findings.push(
        care(
          'deeper-than-stock',
          `“${context.operation.name}” goes ${formatNumber(context.bottom - bottom, 1)} mm below the stock`,
          'Break through less, or make sure nothing is beneath it',
          { operation: context.operation.id, feature: feature.id, field: 'params.breakthrough' },
        ),
      );
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) planner.cut(feature, bottom);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

const COMPENSATED = { 'worked out': undefined, 'wear in the control': 'wear', 'all in the control': 'radius' } as const;

/** The side a contour starts from: what the first of its lines lets it mean. */
function sideFor(targets: Feature[]): Side {
  const [first] = targets;
  if (first && instancesOf(first).some((c) => !c.closed)) return 'left';
  return first?.meaning === 'pocket' || first?.meaning === 'hole' ? 'inside' : 'outside';
}

export const contour: OperationKind<ContourParams> = {
  kind: 'contour',
  title: 'Contour a wall',
  verb: 'Contour',
  process: 'milling',
  stage: ({ onOutside }) => (onOutside ? 'outside' : 'finish'),
  startsWith: (fitting) => fitting.filter(isOutline),
  frees: (targets) => targets.some(isOutline),
  compensates: ({ compensation }) => COMPENSATED[compensation],
  works: ['outline', 'pocket', 'boss', 'hole', 'edge', 'line'],
  suits: cutsWalls,
  Params: ContourParams,
  usesEarlier: () => true,
  defaults: ({ tool, material, machine, targets }) => {
    const bite = suggestBite(tool, material, machine);
    return {
      side: sideFor(targets),
      direction: 'climb',
      layer: Math.max(0.5, bite.ap / 2),
      passes: 1,
      stepover: bite.ae,
      wallAllowance: 0,
      breakthrough: 0.2,
      descent: 'ramp',
      rampAngle: Math.min(2, suggestEntry(tool, material).angle),
      finish: true,
      finishStock: suggestFinish(tool).allowance,
      finishAt: 'full depth',
      spring: false,
      leadForm: 'arc',
      lead: Math.round(tool.diameter * 2.5) / 10,
      leadAngle: 90,
      corners: 'rolled',
      startAt: 'longest straight',
      start: 0,
      extendStart: 0,
      extendEnd: 0,
      tabs: 'none',
      tabCount: 4,
      tabWidth: 4,
      tabHeight: 1.5,
      tabPlaces: '',
      compensation: 'worked out',
    };
  },
  bite: (p, tool) => ({ ae: p.passes > 1 ? p.stepover : tool.diameter, ap: p.layer, peakAe: tool.diameter }),
  plan,
};
