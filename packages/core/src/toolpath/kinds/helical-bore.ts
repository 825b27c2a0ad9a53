import { Finding, note, stop } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { formatNumber, radians } from '../../quantity/units';
import { suggestEntry, suggestFinish } from '../../cutting/entries';
import { Hole } from '../../part/model';
import { cutsWalls } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { helixDown } from '../entry';
import { OperationKind, Plan, PlanContext } from '../operation';
import { shortTour } from '../ordering';
import { PathBuilder } from '../path';

export class HelicalBoreParams {
  @Parameter({
    label: 'Angle',
    help: 'Slope of the helix.',
    unit: 'angle',
    min: 0.1,
    max: 30,
    step: 0.5,
  })
  angle!: number;
  @Parameter({
    label: 'Bite',
    help: 'How much wider each helix is than the one before, where the hole is wider than one helix clears.',
    unit: 'length',
    min: 0.05,
    max: 100,
    step: 0.5,
  })
  stepover!: number;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Leave on the wall',
    help: 'Metal left on the wall when all is done; for a reamer or a boring head.',
    unit: 'length',
    min: 0,
    max: 10,
    step: 0.05,
  })
  wallAllowance!: number;
  @Parameter({
    label: 'Break through',
    help: 'How far below the part it goes in a through hole.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
  @Toggle({ label: 'Finish turns', help: 'A last, steep helix that takes a light bite down the whole wall.' })
  finish!: boolean;
  @Parameter({
    label: 'For the finish',
    help: 'Metal left for the finish turns.',
    unit: 'length',
    min: 0.01,
    max: 5,
    step: 0.05,
    matters: (p: HelicalBoreParams) => p.finish,
  })
  finishStock!: number;
  @Toggle({
    label: 'Spring turns',
    help: 'The finish once more at the same size, for what the cutter bent away.',
    matters: (p: HelicalBoreParams) => p.finish,
  })
  spring!: boolean;
}

const GAP = 1;
/** A helix this wide, as a share of the cutter's radius, leaves no post in its middle. */
const NO_POST = 0.9;
/** Share of the flutes a finishing turn may drop. */
const FLUTE_SHARE = 0.8;
/** Slower than this share of the feed the centre is never fed. */
const LEAST_SHARE = 0.1;

/** Radii of the helices, mm: the first leaves no post, each further one bites at most `stepover`. */
export function boreRadii(final: number, cutter: number, stepover: number): number[] {
  const first = Math.min(final, cutter * NO_POST);
  const count = Math.ceil((final - first) / stepover - 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => (i === count ? final : first + ((final - first) * i) / count));
}

class BorePlanner {
  readonly path = new PathBuilder();

  constructor(
    private readonly params: HelicalBoreParams,
    private readonly context: PlanContext,
  ) {}

  /** Centre feed at a path radius, so that the edge at the wall moves at the asked feed: vf · path / wall. */
  private feedAt(radius: number): number {
    const { tool, operation } = this.context;
    return operation.speeds.feed * Math.max(LEAST_SHARE, radius / (radius + tool.diameter / 2));
  }

  bore(hole: Hole, bottom: number): void {
    const { params, context } = this;
    const { tool, top } = context;
    const final = (hole.diameter - tool.diameter) / 2 - params.wallAllowance;
    const rough = params.finish ? Math.max(0.01, final - params.finishStock) : final;
    for (const radius of boreRadii(rough, tool.diameter / 2, params.stepover))
      this.turn(hole, radius, top + GAP / 2, bottom, radians(params.angle));
    if (params.finish) {
      const drop = Math.min(top - bottom, tool.fluteLength * FLUTE_SHARE);
      const steep = Math.atan(drop / (2 * Math.PI * final));
      for (let n = params.spring ? 2 : 1; n > 0; n--) this.turn(hole, final, top + GAP / 2, bottom, steep);
    }
    this.path.rapid(this.path.x, this.path.y, context.clearance);
  }

  /** One helix down and a level turn, then back to the middle and up. */
  private turn({ centre }: Hole, radius: number, from: number, z: number, angle: number): void {
    const { path, context, params } = this;
    const x = centre.x + radius;
    if (path.z >= context.clearance || Number.isNaN(path.z)) path.rapid(centre.x, centre.y, context.clearance);
    path.rapid(centre.x, centre.y, from + GAP / 2);
    path.line(centre.x, centre.y, from, context.operation.speeds.feed, 'lead');
    path.line(x, centre.y, from, context.operation.speeds.feed, 'lead');
    const at = { ...centre, radius };
    helixDown(path, at, from, z, angle, params.direction === 'conventional', this.feedAt(radius), 'cut');
    path.line(centre.x, centre.y, z, context.operation.speeds.feed, 'lead');
    path.rapid(centre.x, centre.y, from + GAP / 2);
  }
}

/** Holes this cutter cannot make, with what to do. */
function sizeFindings(hole: Hole, params: HelicalBoreParams, { tool, operation }: PlanContext): Finding[] {
  const room = hole.diameter - 2 * params.wallAllowance - tool.diameter;
  if (room >= tool.diameter * 0.05) return [];
  return [
    stop(
      'bore-too-small',
      `${tool.name} leaves no room for a helix in a hole of ${formatNumber(hole.diameter, 3)} mm at X ${formatNumber(hole.centre.x, 2)} Y ${formatNumber(hole.centre.y, 2)}`,
      `Choose a cutter of ${formatNumber(hole.diameter * 0.7, 1)} mm or less, or drill it`,
      { operation: operation.id, tool: tool.id, field: 'toolId', at: hole.centre },
    ),
  ];
}

function plan(params: HelicalBoreParams, context: PlanContext): Plan {
  const { operation, tool, top, model } = context;
  const ids = new Set(context.targets.map((t) => t.id));
  const holes = model.holes.filter((h) => ids.has(h.feature));
  const findings = [...toolFindings(context, helicalBore.suits), ...targetFindings(context, helicalBore.works)];
  const planner = new BorePlanner(params, context);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const hole of shortTour(holes.map((h) => ({ ...h, ...h.centre })))) {
    const bottom = hole.through ? -hole.depth - params.breakthrough : -hole.depth;
    const depth = top - bottom;
    const found = [...sizeFindings(hole, params, context), ...reachFindings(context, depth, 0)];
    findings.push(...found);
    if (!found.some((f) => f.level === 'stop')) planner.bore(hole, bottom);
  }
  if (!tool.centreCutting && holes.length > 0)
    findings.push(
      note(
        'open-centre',
        `${tool.name} does not cut to its centre: keep the slope shallow`,
        'A centre-cutting tool bears a steeper helix',
        { operation: operation.id, tool: tool.id, field: 'params.angle' },
      ),
    );
  return { path: planner.path.build(), findings };
}

export const helicalBore: OperationKind<HelicalBoreParams> = {
  kind: 'helical-bore',
  title: 'Bore on a helix',
  verb: 'Bore',
  works: ['hole'],
  suits: (tool) => cutsWalls(tool) && tool.cornerRadius < tool.diameter / 2,
  Params: HelicalBoreParams,
  defaults: ({ tool, material }) => ({
    angle: suggestEntry(tool, material).angle,
    stepover: Math.round(tool.diameter * 20) / 100,
    direction: 'climb',
    wallAllowance: 0,
    breakthrough: 0.5,
    finish: true,
    finishStock: suggestFinish(tool).allowance,
    spring: false,
  }),
  bite: (p, tool) => {
    const drop = Math.PI * tool.diameter * NO_POST * Math.tan(radians(p.angle));
    return { ae: tool.diameter, ap: Math.min(tool.fluteLength, drop), peakAe: tool.diameter };
  },
  plan,
};
