import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { radians } from '../../quantity/units';
import { suggestEntry } from '../../cutting/entries';
import { Hole } from '../../part/plate/model';
import { cutsWalls } from '../../shop/tool';
import { boreOut, helixBite } from './radii';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { SAME_SIZE, isOpened, planCycle, targetHoles } from './holes';
import { HOP, HoleParams } from './hole-params';
import { OperationKind, Plan, PlanContext } from '../operation';
import { shortTour } from '../ordering';
import { PathBuilder } from '../../path/path';

export class CounterboreParams extends HoleParams {
  @Parameter({
    label: 'Angle',
    help: 'Slope of the helix, where the mouth is wider than the cutter.',
    unit: 'angle',
    min: 0.1,
    max: 30,
    step: 0.5,
  })
  angle!: number;
  @Parameter({
    label: 'Bite',
    help: 'How much wider each helix is than the one before.',
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
    label: 'Wait',
    help: 'Seconds at the bottom, where the cutter is as wide as the mouth and goes straight down.',
    unit: 'count',
    min: 0,
    max: 20,
    step: 1,
  })
  dwell!: number;
}

type Mouth = Hole & { counterbore: NonNullable<Hole['counterbore']> };

function faults(hole: Hole, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  const place = { operation: operation.id, feature: hole.feature, tool: tool.id, at: hole.centre };
  const { counterbore } = hole;
  if (!counterbore)
    return [
      finding(
        'no-counterbore',
        { at: hole.centre },
        {
          ...place,
          field: 'targets',
        },
      ),
    ];
  const over = tool.diameter - counterbore.diameter;
  if (over > SAME_SIZE)
    return [
      finding(
        'counterbore-narrow',
        { tool: tool.name, over, at: hole.centre, diameter: counterbore.diameter },
        { ...place, field: 'toolId' },
      ),
    ];
  if (over > -SAME_SIZE && !tool.centreCutting && !isOpened(hole, -counterbore.depth, context))
    return [finding('counterbore-not-drilled', { tool: tool.name, at: hole.centre }, place)];
  return [];
}

function plan(params: CounterboreParams, context: PlanContext): Plan {
  const { tool } = context;
  const holes = targetHoles(context);
  const wide = holes.some((h) => h.counterbore && h.counterbore.diameter - tool.diameter > SAME_SIZE);
  if (!wide)
    return planCycle(counterbore, context, {
      cycle: { kind: 'spot', dwell: params.dwell },
      hop: params.hop,
      bottom: (hole) => -(hole.counterbore?.depth ?? 0),
      faults: (hole) => faults(hole, context),
    });
  const findings = [...toolFindings(context, counterbore.suits), ...targetFindings(context, counterbore.works)];
  const path = new PathBuilder(context.budget);
  if (findings.some((f) => f.level === 'stop')) return { path: path.build(), findings };
  for (const hole of shortTour(holes.map((h) => ({ ...h, ...h.centre })))) {
    const found = faults(hole, context);
    const { counterbore: mouth } = hole as Mouth;
    if (mouth) found.push(...reachFindings(context, context.top + mouth.depth, 0));
    findings.push(...found);
    if (found.some((f) => f.level === 'stop')) continue;
    boreOut(path, context, { ...hole.centre, radius: (mouth.diameter - tool.diameter) / 2 }, -mouth.depth, {
      angle: radians(params.angle),
      stepover: params.stepover,
      conventional: params.direction === 'conventional',
    });
  }
  return { path: path.build(), findings };
}

/** The flat-bottomed mouth for the head of a screw: straight down where the cutter has its width, else on helices. */
export const counterbore: OperationKind<CounterboreParams> = {
  kind: 'counterbore',
  title: 'Counterbore holes',
  verb: 'Counterbore',
  process: 'milling',
  stage: 'mouths',
  leavesSizes: true,
  works: ['hole'],
  takesHeights: 'start',
  suits: (tool) => cutsWalls(tool) && tool.cornerRadius === 0,
  Params: CounterboreParams,
  usesEarlier: () => true,
  usesFixtures: true,
  defaults: ({ tool, material }) => ({
    angle: suggestEntry(tool, material).angle,
    stepover: Math.round(tool.diameter * 20) / 100,
    direction: 'climb',
    dwell: 1,
    hop: HOP,
  }),
  bite: (p, tool) => helixBite(tool, radians(p.angle)),
  plan,
};
