import { fitArcs } from '../../geometry/plane/arcfit';
import { Chain, chainLength, flatten, pointAtShare, reversed, startedNear } from '../../geometry/plane/chain';
import { Region, bandAlong, contains, distanceToBoundary, islands, offset } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { radians } from '../../quantity/units';
import { suggestBite, suggestSteadyBite } from '../../cutting/bite';
import { suggestEntry } from '../../cutting/entries';
import { Feature } from '../../part/plate/feature';
import { centreLinesOf } from '../../part/plate/shapes';
import { cutsWalls } from '../../shop/tool';
import { cannotPlunge, reachFindings, targetFindings, toolFindings } from '../checks';
import { wallBottom } from '../depth';
import { helixDown, plungeFeedOf } from '../entry';
import { finishBite, finishCompensates, FinishParams, finishDefaults, finishesAlone, finishWalls } from './finish';
import { layersBetween, evenLayer } from '../layers';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { followStations } from './tabs';
import { maths } from '../../quantity/maths';

export class SlotParams extends FinishParams {
  @Choice({
    label: 'Method',
    help: 'Layers ramped to and fro at full width, all the depth in one pass, or loops that keep the bite small in a slot wider than the cutter.',
    choices: ['layers', 'full depth', 'looping'],
  })
  method!: 'layers' | 'full depth' | 'looping';
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; layers come out equal. Loops fall back on layers where they have no room.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
    matters: (p: SlotParams) => p.method !== 'full depth',
  })
  layer!: number;
  @Parameter({
    label: 'Loop step',
    help: 'How far each loop goes on: the bite of the loop.',
    unit: 'length',
    min: 0.02,
    max: 50,
    step: 0.1,
    matters: (p: SlotParams) => p.method === 'looping',
  })
  stepover!: number;
  @Parameter({
    label: 'Entry angle',
    help: 'Slope of the ramp or helix down.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
  })
  entryAngle!: number;
  @Choice({
    label: 'Direction',
    help: 'Of loops and laps along the walls; at full width one wall is climb and one conventional.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Width of lines',
    help: 'Of grooves along drawn lines; 0 makes them as wide as the cutter. Slots have their own width.',
    unit: 'length',
    min: 0,
    max: 200,
    step: 0.5,
  })
  width!: number;
  @Parameter({
    label: 'Break through',
    help: 'How far below the part it goes where it cuts right through.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
}

const CHORD = 0.002;
/** Widths this near the cutter's are the cutter's, mm. */
const SAME = 0.01;
/** Loops need this share of the cutter's diameter beside it. */
const LOOP_ROOM = 0.1;
/** Laps along the walls clear a slot up to this many cutter widths. */
const WIDEST = 2;

const widthOf = (feature: Feature, params: SlotParams, diameter: number) =>
  feature.shape.type === 'slot' ? feature.shape.width : params.width || diameter;

class SlotPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];
  private readonly radius: number;

  constructor(
    private readonly params: SlotParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
    this.radius = context.tool.diameter / 2;
  }

  private get clockwise(): boolean {
    return this.params.direction === 'conventional';
  }

  cut(feature: Feature, bottom: number): void {
    const { params, context } = this;
    const { diameter } = context.tool;
    const width = widthOf(feature, params, diameter);
    const place = { operation: context.operation.id, feature: feature.id, tool: context.tool.id };
    if (width < diameter - SAME) {
      this.findings.push(
        finding(
          'slot-narrow',
          { feature: feature.name, width, tool: context.tool.name, over: diameter - width },
          { ...place, field: 'toolId' },
        ),
      );
      return;
    }
    if (finishesAlone(params)) {
      for (const line of centreLinesOf(feature)) this.finish(feature, line, width, bottom);
      return;
    }
    const leave = params.finish && width > diameter + SAME ? params.finishStock : 0;
    const side = Math.max(0, (width - diameter) / 2 - leave);
    const loops = params.method === 'looping' && side >= LOOP_ROOM * diameter;
    if (params.method === 'looping' && !loops) this.findings.push(this.noLoops(feature, width));
    if (!loops && width > WIDEST * diameter) {
      this.findings.push(
        finding(
          'slot-wide',
          { feature: feature.name, width, least: width / WIDEST },
          { ...place, field: 'params.method' },
        ),
      );
      return;
    }
    for (const line of centreLinesOf(feature)) {
      if (loops) this.loop(line, side, bottom);
      else this.layers(line, side, bottom);
      this.finish(feature, line, width, bottom);
    }
  }

  private noLoops(feature: Feature, width: number): Finding {
    const { tool, operation } = this.context;
    return finding(
      'no-room-for-loops',
      { feature: feature.name, width, tool: tool.name, most: width / 1.3 },
      { operation: operation.id, feature: feature.id, field: 'toolId' },
    );
  }

  private approach(p: Point, from: number): void {
    const { path, context } = this;
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    path.rapid(p.x, p.y, context.clearance).rapid(p.x, p.y, from + context.approach);
    path.line(p.x, p.y, from + context.approach / 2, context.operation.speeds.feed, 'lead');
  }

  private inAir(p: Point): boolean {
    const { stock } = this.context;
    return !contains(stock, p) && distanceToBoundary(stock, p) > this.radius;
  }

  /** Ramped to and fro along the middle, each layer ending with a level pass, then once round where the slot is wider. */
  private layers(line: Chain, side: number, bottom: number): void {
    const { params, context, path } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const levels = params.method === 'full depth' ? [bottom] : layersBetween(context.top, bottom, params.layer);
    const start = line.vertices[0];
    let from = context.top;
    const length = chainLength(line);
    for (const z of levels) {
      let way = line;
      this.approach(start, from);
      const open = this.inAir(start);
      if (open) path.line(start.x, start.y, z, entryFeed, 'lead');
      else if (length < this.radius / 10) this.plunge(start, z);
      else {
        const top = from + context.approach / 2;
        const passes = Math.max(1, Math.ceil((top - z) / (length * maths.tan(radians(params.entryAngle))) - 1e-9));
        for (let n = 0; n < passes; n++) {
          const level = (k: number) => top - ((top - z) * k) / passes;
          const stations = [
            { s: 0, z: level(n) },
            { s: length, z: level(n + 1) },
          ];
          followStations(path, way, stations, { feed: entryFeed, entryFeed, down: plungeFeedOf(context) }, 'entry');
          way = reversed(way);
        }
      }
      path.follow(way, z, feed, 'cut');
      if (side > SAME) this.round(line, side, z);
      from = z;
    }
  }

  private plunge(at: Point, z: number): void {
    const { path, context } = this;
    path.line(at.x, at.y, z, plungeFeedOf(context), 'entry');
    if (!context.tool.centreCutting) this.findings.push(cannotPlunge(context, at));
  }

  /** Once round beside the middle line. */
  private round(line: Chain, side: number, z: number): void {
    const { path, context } = this;
    const { feed } = context.operation.speeds;
    const band = bandAlong(flatten(line, CHORD), side);
    for (const [ring] of islands(band)) {
      const fitted = fitArcs(ring, CHORD);
      const lap = startedNear(this.clockwise ? reversed(fitted) : fitted, path);
      path.line(lap.vertices[0].x, lap.vertices[0].y, z, feed, 'cut');
      const begun = path.count;
      path.follow(lap, z, feed, 'cut').slowInside(begun, this.clockwise ? 'right' : 'left', this.radius - side / 2);
    }
  }

  /** D-shaped loops forward along the middle, all the depth at once: the front half of each bites, the way back is free. */
  private loop(line: Chain, side: number, bottom: number): void {
    const { params, context, path } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const length = chainLength(line);
    const start = line.vertices[0];
    const at = (s: number) => pointAtShare(line, length > 0 ? s / length : 0);
    this.approach({ x: start.x + side, y: start.y }, context.top);
    const centre = { x: start.x, y: start.y, radius: side };
    const angle = radians(params.entryAngle);
    helixDown(path, centre, context.top + context.approach / 2, bottom, angle, this.clockwise, entryFeed);
    const count = Math.ceil(length / params.stepover);
    for (let i = 1; i <= count; i++) {
      const here = at((length * i) / count);
      const before = at((length * (i - 0.5)) / count);
      const heading = maths.atan2(here.y - before.y, here.x - before.x);
      const turn = this.clockwise ? -1 : 1;
      const [right, left] = [-1, 1].map((s) => ({
        x: here.x + side * maths.cos(heading + (s * turn * Math.PI) / 2),
        y: here.y + side * maths.sin(heading + (s * turn * Math.PI) / 2),
      }));
      path.line(right.x, right.y, bottom, feed, 'link');
      path.arc(here.x, here.y, left.x, left.y, bottom, this.clockwise, feed, 'cut');
    }
  }

  private finish(feature: Feature, line: Chain, width: number, bottom: number): void {
    const { params, context, path, clockwise } = this;
    if (path.z < context.clearance) path.rapid(path.x, path.y, context.clearance);
    if (!params.finish || width <= context.tool.diameter + SAME) return;
    const slot: Region = bandAlong(flatten(line, CHORD), width / 2);
    const at = (leave: number) => {
      const free = offset(slot, -(this.radius + leave));
      return { free, rings: islands(free).map((i) => i[0]) };
    };
    const walls = { feature, allowance: 0, floor: bottom, conventional: clockwise, at };
    this.findings.push(...finishWalls(path, context, params, walls));
  }
}

function plan(params: SlotParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, slot.suits), ...targetFindings(context, slot.works)];
  const planner = new SlotPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of context.targets) {
    if (!slot.works.includes(feature.meaning)) continue;
    if (centreLinesOf(feature).length === 0) {
      findings.push(
        finding(
          'not-a-slot',
          { feature: feature.name },
          {
            operation: context.operation.id,
            feature: feature.id,
            field: 'targets',
          },
        ),
      );
      continue;
    }
    const bottom = wallBottom(feature, context, params.breakthrough);
    const depth = context.top - bottom;
    const count = params.method === 'layers' ? layersBetween(context.top, bottom, params.layer).length : 1;
    const reach = reachFindings(context, depth, depth / Math.max(1, count));
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) planner.cut(feature, bottom);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

/** Slots, and grooves along open lines: at full width in layers or at once, or by loops. */
export const slot: OperationKind<SlotParams> = {
  kind: 'slot',
  title: 'Cut a slot',
  verb: (p) => (finishesAlone(p) ? 'Finish' : 'Slot'),
  process: 'milling',
  stage: 'rough',
  works: ['pocket', 'line'],
  compensates: finishCompensates,
  takesHeights: 'start and end',
  suits: cutsWalls,
  Params: SlotParams,
  defaults: ({ tool, material, machine, boldness }) => ({
    method: 'layers',
    layer: Math.max(0.1, suggestBite(tool, material, machine, boldness).ap / 2),
    stepover: suggestSteadyBite(tool, material, machine, boldness).ae,
    entryAngle: Math.min(3, suggestEntry(tool, material).angle),
    direction: 'climb',
    width: 0,
    breakthrough: 0.2,
    ...finishDefaults(tool),
  }),
  bite: (p, tool, deep) => {
    if (finishesAlone(p)) return finishBite({ ...p, wallAllowance: 0 }, deep, tool.fluteLength);
    if (p.method === 'looping') return { ae: p.stepover, ap: tool.fluteLength / 2, peakAe: 2 * p.stepover };
    return {
      ae: tool.diameter,
      ap: p.method === 'layers' ? evenLayer(deep, p.layer) : tool.diameter,
      peakAe: tool.diameter,
    };
  },
  adds: (params, { targets, tool }) => ({
    marks: targets
      .filter((t) => t.meaning === 'line')
      .map((t) => ({
        lines: centreLinesOf(t).map((c) => flatten(c, CHORD)),
        z: -t.depth,
        profile: { ...tool, diameter: widthOf(t, params, tool.diameter) },
      })),
  }),
  plan,
};
