import { fitArcs } from '../../geometry/arcfit';
import { Chain, reversed, startedAtShare, startedOnLongest } from '../../geometry/chain';
import { Region, area, contains, distanceToBoundary, islands, offset } from '../../geometry/clip';
import { Point } from '../../geometry/point';
import { Finding, note, stop } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { formatNumber, radians } from '../../quantity/units';
import { suggestBite } from '../../cutting/bite';
import { suggestEntry, suggestFinish } from '../../cutting/entries';
import { Feature } from '../../part/feature';
import { regionOf } from '../../part/model';
import { cutsWalls } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { rampDown } from '../entry';
import { layersBetween } from '../layers';
import { followWithLead, leadFor } from '../leads';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../path';

export class ContourParams {
  @Choice({ label: 'Side', help: 'The side of the line the cutter runs on.', choices: ['outside', 'inside'] })
  side!: 'outside' | 'inside';
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
    help: 'Slope of the ramp along the wall.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    matters: (p: ContourParams) => p.descent === 'ramp',
  })
  rampAngle!: number;
  @Toggle({ label: 'Finish pass', help: 'One more lap at full depth, after all layers.' })
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
  @Parameter({
    label: 'Lead radius',
    help: 'Quarter circle onto the wall and off it.',
    unit: 'length',
    min: 0.1,
    max: 100,
    step: 0.5,
  })
  lead!: number;
  @Choice({
    label: 'Start',
    help: 'Where a lap begins: the middle of the longest straight, or a chosen share of the way round.',
    choices: ['longest straight', 'chosen'],
  })
  startAt!: 'longest straight' | 'chosen';
  @Parameter({
    label: 'Way round',
    help: 'Share of the way round where a lap begins.',
    unit: 'share',
    min: 0,
    max: 1,
    step: 0.05,
    matters: (p: ContourParams) => p.startAt === 'chosen',
  })
  start!: number;
}

const GAP = 1;
const FIT = 0.002;

class ContourPlanner {
  readonly path = new PathBuilder();
  readonly findings: Finding[] = [];
  private readonly radius: number;

  constructor(
    private readonly params: ContourParams,
    private readonly context: PlanContext,
  ) {
    this.radius = context.tool.diameter / 2;
  }

  private get side(): 'left' | 'right' {
    return this.params.direction === 'climb' ? 'left' : 'right';
  }

  /** The laps around a region at a distance from its wall, in the direction asked for, started where asked. */
  private laps(region: Region, leave: number): Chain[] {
    const by = this.radius + leave;
    const inside = this.params.side === 'inside';
    return islands(offset(region, inside ? -by : by))
      .map((island) => island[0])
      .map((ring) => {
        const chain = fitArcs(ring, FIT);
        const climb = inside ? chain : reversed(chain);
        const turned = this.params.direction === 'climb' ? climb : reversed(climb);
        return this.params.startAt === 'chosen' ? startedAtShare(turned, this.params.start) : startedOnLongest(turned);
      });
  }

  cut(feature: Feature, bottom: number): void {
    const { params, context } = this;
    const region = regionOf(feature);
    const leave = params.wallAllowance + (params.finish ? params.finishStock : 0);
    const laps = this.laps(region, leave);
    if (laps.length === 0) {
      this.findings.push(
        stop(
          'contour-too-small',
          `${context.tool.name} does not fit inside “${feature.name}”`,
          'Choose a smaller tool',
          { operation: context.operation.id, feature: feature.id, field: 'toolId' },
        ),
      );
      return;
    }
    for (const lap of laps) this.layers(lap, region, leave, bottom);
    if (params.finish)
      for (const lap of this.laps(region, params.wallAllowance))
        this.lap(lap, region, params.wallAllowance, context.top, bottom, false);
  }

  private layers(lap: Chain, region: Region, leave: number, bottom: number): void {
    let from = this.context.top;
    for (const z of layersBetween(this.context.top, bottom, this.params.layer)) {
      this.lap(lap, region, leave, from, z, true);
      from = z;
    }
  }

  /** Whether the centre may stand at p without touching the wall. */
  private freeOf(region: Region, leave: number) {
    const inside = this.params.side === 'inside';
    return (p: Point) => contains(region, p) === inside && distanceToBoundary(region, p) >= this.radius + leave - 0.002;
  }

  private inAir(p: Point): boolean {
    const { stock } = this.context;
    return !contains(stock, p) && distanceToBoundary(stock, p) > this.radius + 0.2;
  }

  private lap(lap: Chain, region: Region, leave: number, from: number, z: number, solid: boolean): void {
    const { path, context, params } = this;
    const { feed, entryFeed } = context.operation.speeds;
    const lead = leadFor(lap, params.lead, this.side, this.freeOf(region, leave));
    if (!lead)
      this.findings.push(
        note(
          'no-lead',
          'There is no room to lead onto the wall; the lap starts on it',
          'Choose another start, a smaller lead or a smaller tool',
          { operation: context.operation.id, field: 'params.lead' },
        ),
      );
    const at = lead?.from ?? lap.vertices[0];
    path.rapid(at.x, at.y, context.clearance);
    const open = this.inAir(at) || !solid;
    const ramped = !open && params.descent === 'ramp';
    path.rapid(at.x, at.y, from + GAP);
    if (ramped) {
      const start = lap.vertices[0];
      path.line(at.x, at.y, from + GAP / 2, feed, 'lead').line(start.x, start.y, from + GAP / 2, feed, 'lead');
      rampDown(path, lap, from + GAP / 2, z, radians(params.rampAngle), entryFeed);
      path.follow(lap, z, feed, 'cut');
      if (lead) path.arc(lead.centre.x, lead.centre.y, lead.to.x, lead.to.y, z, lead.clockwise, feed, 'lead');
    } else {
      path.line(at.x, at.y, z, entryFeed, open ? 'lead' : 'entry');
      if (lead) followWithLead(path, lap, lead, z, feed);
      else path.follow(lap, z, feed, 'cut');
    }
    path.rapid(path.x, path.y, context.clearance);
  }
}

/** How deep a feature's wall goes, as Z. */
function bottomOf(feature: Feature, context: PlanContext, breakthrough: number): number {
  const { thickness, floors } = context.model;
  if (feature.through || feature.meaning === 'outline') return -thickness - breakthrough;
  if (feature.meaning !== 'boss') return -feature.depth;
  const around = floors.filter((f) => f.z < -feature.depth).map((f) => f.z);
  return around.length ? Math.max(...around) : -thickness;
}

function plan(params: ContourParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, contour.suits), ...targetFindings(context, contour.works)];
  const planner = new ContourPlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const feature of context.targets) {
    if (!contour.works.includes(feature.meaning)) continue;
    if (area(regionOf(feature)) < 1e-3) {
      findings.push(
        stop('no-area', `“${feature.name}” encloses no area to run around`, 'Close the outline', {
          operation: context.operation.id,
          feature: feature.id,
        }),
      );
      continue;
    }
    const bottom = bottomOf(feature, context, params.breakthrough);
    const depth = context.top - bottom;
    const layer = depth / Math.max(1, layersBetween(context.top, bottom, params.layer).length);
    const reach = reachFindings(context, depth, layer);
    if (params.finish && depth > context.tool.fluteLength && !reach.some((f) => f.level === 'stop')) {
      findings.push(
        note(
          'finish-deep',
          `The finish lap is ${formatNumber(depth, 1)} mm deep, more than the flutes; the upper part was cut before`,
          'Check the proof for rubbing',
          { operation: context.operation.id },
        ),
      );
    }
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) planner.cut(feature, bottom);
  }
  return { path: planner.path.build(), findings: [...findings, ...planner.findings] };
}

export const contour: OperationKind<ContourParams> = {
  kind: 'contour',
  title: 'Contour a wall',
  verb: 'Contour',
  works: ['outline', 'pocket', 'boss', 'hole', 'edge'],
  suits: cutsWalls,
  Params: ContourParams,
  defaults: ({ tool, material, machine, targets }) => {
    const bite = suggestBite(tool, material, machine);
    const inside = targets[0]?.meaning === 'pocket' || targets[0]?.meaning === 'hole';
    return {
      side: inside ? 'inside' : 'outside',
      direction: 'climb',
      layer: Math.max(0.5, bite.ap / 2),
      wallAllowance: 0,
      breakthrough: 0.2,
      descent: 'ramp',
      rampAngle: Math.min(2, suggestEntry(tool, material).angle),
      finish: true,
      finishStock: suggestFinish(tool).allowance,
      lead: Math.round(tool.diameter * 2.5) / 10,
      startAt: 'longest straight',
      start: 0,
    };
  },
  bite: (p, tool) => ({ ae: tool.diameter, ap: p.layer, peakAe: tool.diameter }),
  plan,
};
