import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { radians } from '../../quantity/units';
import { suggestEntry, suggestFinish } from '../../cutting/entries';
import { Hole, wallOf } from '../../part/plate/model';
import { cutsWalls } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { BoreWork, boreOut, helixBite } from './radii';
import { holeBottom, breakthroughFor, targetHoles } from './holes';
import { OperationKind, Plan, PlanContext } from '../operation';
import { shortTour } from '../ordering';
import { PathBuilder } from '../../path/path';

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

/** Holes this cutter cannot make, with what to do. */
function sizeFindings(hole: Hole, params: HelicalBoreParams, { tool, operation }: PlanContext): Finding[] {
  const room = hole.diameter - 2 * params.wallAllowance - tool.diameter;
  if (room >= tool.diameter * 0.05) return [];
  return [
    finding(
      'bore-too-small',
      { tool: tool.name, diameter: hole.diameter, at: hole.centre, most: hole.diameter * 0.7 },
      { operation: operation.id, tool: tool.id, field: 'toolId', at: hole.centre },
    ),
  ];
}

function plan(params: HelicalBoreParams, context: PlanContext): Plan {
  const { operation, tool, top } = context;
  const holes = targetHoles(context);
  const findings = [...toolFindings(context, helicalBore.suits), ...targetFindings(context, helicalBore.works)];
  const path = new PathBuilder(context.budget);
  if (findings.some((f) => f.level === 'stop')) return { path: path.build(), findings };
  const work: BoreWork = {
    angle: radians(params.angle),
    stepover: params.stepover,
    conventional: params.direction === 'conventional',
    finish: params.finish ? { stock: params.finishStock, turns: params.spring ? 2 : 1 } : undefined,
  };
  for (const hole of shortTour(holes.map((h) => ({ ...h, ...h.centre })))) {
    const bottom = holeBottom(hole, params.breakthrough, context);
    const depth = top - bottom;
    const wall = Math.min(depth, depth - hole.depth + wallOf(hole, context.model));
    const found = [...sizeFindings(hole, params, context), ...reachFindings(context, depth, 0, wall)];
    findings.push(...found);
    const radius = (hole.diameter - tool.diameter) / 2 - params.wallAllowance;
    if (!found.some((f) => f.level === 'stop')) boreOut(path, context, { ...hole.centre, radius }, bottom, work);
  }
  if (!tool.centreCutting && holes.length > 0)
    findings.push(
      finding('open-centre', { tool: tool.name }, { operation: operation.id, tool: tool.id, field: 'params.angle' }),
    );
  return { path: path.build(), findings };
}

export const helicalBore: OperationKind<HelicalBoreParams> = {
  kind: 'helical-bore',
  title: 'Bore on a helix',
  verb: 'Bore',
  process: 'milling',
  stage: 'holes',
  works: ['hole'],
  takesHeights: 'start and end',
  suits: (tool) => cutsWalls(tool) && tool.cornerRadius < tool.diameter / 2,
  Params: HelicalBoreParams,
  defaults: ({ tool, material, model, targets }) => ({
    angle: suggestEntry(tool, material).angle,
    stepover: Math.round(tool.diameter * 20) / 100,
    direction: 'climb',
    wallAllowance: 0,
    breakthrough: breakthroughFor(targetHoles({ model, targets })),
    finish: true,
    finishStock: suggestFinish(tool).allowance,
    spring: false,
  }),
  bite: (p, tool) => helixBite(tool, radians(p.angle)),
  plan,
};
