import { fitArcs } from '../../geometry/plane/arcfit';
import { Chain, chainLength, reversed, splitAlong, startedOnLongest } from '../../geometry/plane/chain';
import { Region, area, contains, distanceToBoundary, islands, offset } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { Feature } from '../../part/plate/feature';
import { regionOf } from '../../part/plate/model';
import { isBeam } from '../../shop/tool';
import { targetFindings, toolFindings } from '../checks';
import { leadFor } from '../milling/leads';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { spread } from '../milling/tabs';

export class CutOutParams {
  @Parameter({
    label: 'Pierce',
    help: 'Time the beam stands before it moves off, until it is through.',
    unit: 'seconds',
    min: 0,
    max: 60,
    step: 0.1,
  })
  pierce!: number;
  @Choice({
    label: 'Lead',
    help: 'How it comes from where it pierces, in the scrap, onto the line.',
    choices: ['arc', 'line'],
  })
  leadForm!: 'arc' | 'line';
  @Parameter({
    label: 'Lead size',
    help: 'Radius of the arc or length of the straight; smaller where there is less room.',
    unit: 'length',
    min: 0.1,
    max: 50,
    step: 0.5,
  })
  lead!: number;
  @Parameter({
    label: 'Micro-joints',
    help: 'How many uncut bridges hold each piece in the sheet.',
    unit: 'count',
    min: 0,
    max: 50,
    step: 1,
  })
  joints!: number;
  @Parameter({
    label: 'Joint width',
    help: 'Of each bridge, after the kerf has taken its part.',
    unit: 'length',
    min: 0.05,
    max: 20,
    step: 0.1,
    matters: (p: CutOutParams) => p.joints > 0,
  })
  jointWidth!: number;
  @Choice({
    label: 'Joints on',
    help: 'The outside alone, or every line.',
    choices: ['the outside', 'every line'],
    matters: (p: CutOutParams) => p.joints > 0,
  })
  jointsOn!: 'the outside' | 'every line';
}

const FIT = 0.002;

/** A closed line to be cut, and the side its scrap is on. */
interface Line {
  feature: Feature;
  region: Region;
  scrapInside: boolean;
}

/** Everything to be cut out, what lies inside before what it lies in. */
function linesOf(targets: Feature[], works: Feature['meaning'][]): Line[] {
  return targets
    .filter((t) => works.includes(t.meaning))
    .flatMap((feature) =>
      islands(regionOf(feature)).map((region) => ({
        feature,
        region,
        scrapInside: feature.meaning === 'hole' || feature.meaning === 'pocket',
      })),
    )
    .sort((a, b) => Number(b.scrapInside) - Number(a.scrapInside) || area(a.region) - area(b.region));
}

class CutOutPlanner {
  readonly path: PathBuilder;
  readonly findings: Finding[] = [];

  constructor(
    private readonly params: CutOutParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
  }

  cut({ feature, region, scrapInside }: Line): void {
    const { params, context } = this;
    const kerf = context.tool.diameter;
    const place = { operation: context.operation.id, feature: feature.id };
    const rings = offset(region, scrapInside ? -kerf / 2 : kerf / 2);
    if (rings.length === 0) {
      this.findings.push(finding('narrower-than-kerf', { feature: feature.name, kerf }, { ...place, field: 'toolId' }));
      return;
    }
    const isScrap = (p: Point) =>
      contains(region, p) === scrapInside && distanceToBoundary(region, p) >= kerf / 2 - FIT;
    for (const ring of rings) {
      const fitted = fitArcs(ring, FIT);
      const chain = startedOnLongest(scrapInside ? fitted : reversed(fitted));
      const form = { form: params.leadForm, size: params.lead, angle: params.leadForm === 'arc' ? 90 : 45 };
      const lead = leadFor(chain, form, 'left', isScrap);
      if (!lead)
        this.findings.push(
          finding(
            'pierced-on-line',
            { feature: feature.name },
            {
              ...place,
              field: 'params.lead',
            },
          ),
        );
      const jointed = params.joints > 0 && (params.jointsOn === 'every line' || !scrapInside);
      this.follow(lead?.on, jointed ? this.between(chain, place) : [chain]);
    }
  }

  /** The stretches between micro-joints; the whole line where they leave nothing to cut. */
  private between(chain: Chain, place: { operation: string; feature: string }): Chain[] {
    const { joints, jointWidth } = this.params;
    const length = chainLength(chain);
    const gap = (jointWidth + this.context.tool.diameter) / length;
    if (joints * gap >= 1) {
      this.findings.push(
        finding('joints-too-wide', { joints, jointWidth, length }, { ...place, field: 'params.jointWidth' }),
      );
      return [chain];
    }
    const cuts = spread(joints).flatMap((middle) => [middle - gap / 2, middle + gap / 2]);
    return [0, ...cuts, 1].flatMap((_, i, all) => (i % 2 === 0 ? [splitAlong(chain, all[i], all[i + 1])] : []));
  }

  /** The beam is on while it is down: it pierces where it goes down and goes out where it comes up. */
  private follow(on: Chain | undefined, stretches: Chain[]): void {
    const { path, context } = this;
    const { feed } = context.operation.speeds;
    const low = context.bottom;
    stretches.forEach((stretch, i) => {
      const lead = i === 0 ? on : undefined;
      const [start] = (lead ?? stretch).vertices;
      path.rapid(start.x, start.y, context.clearance).line(start.x, start.y, low, feed, 'entry');
      if (lead) path.follow(lead, low, feed, 'lead');
      path.follow(stretch, low, feed, 'cut').rapid(path.x, path.y, context.clearance);
    });
  }
}

function plan(params: CutOutParams, context: PlanContext): Plan {
  const { tool, operation, model } = context;
  const findings = [...toolFindings(context, cutOut.suits), ...targetFindings(context, cutOut.works)];
  const planner = new CutOutPlanner(params, context);
  if (model.thickness > tool.fluteLength)
    findings.push(
      finding(
        'too-thick',
        { thickness: model.thickness, tool: tool.name, fluteLength: tool.fluteLength },
        { operation: operation.id, field: 'toolId' },
      ),
    );
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  for (const line of linesOf(context.targets, cutOut.works)) planner.cut(line);
  return { path: planner.path.build(), findings: [...findings, ...planner.findings], pierce: params.pierce };
}

/** Cuts sheet right through with a jet, a laser or a plasma: on the scrap side by half the kerf, inside before outside. */
export const cutOut: OperationKind<CutOutParams> = {
  kind: 'cut-out',
  title: 'Cut out with a beam',
  verb: 'Cut out',
  process: 'beam',
  stage: 'outside',
  works: ['outline', 'pocket', 'hole', 'boss'],
  suits: isBeam,
  Params: CutOutParams,
  defaults: ({ tool, model }) => ({
    pierce: 0.5,
    leadForm: 'arc',
    lead: Math.max(1, 2 * tool.diameter, Math.round(model.thickness) / 2),
    joints: 0,
    jointWidth: 0.5,
    jointsOn: 'the outside',
  }),
  bite: (_, tool) => ({ ae: tool.diameter, ap: tool.fluteLength, peakAe: tool.diameter }),
  adds: (_, { targets, tool }) => ({
    freed: linesOf(targets, cutOut.works)
      .filter((l) => l.scrapInside)
      .map((l) => ({ region: l.region, kerf: tool.diameter })),
  }),
  plan,
};
