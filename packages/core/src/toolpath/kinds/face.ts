import { boundsOf } from '../../geometry/point';
import { stop } from '../../quantity/finding';
import { Choice, Parameter } from '../../quantity/parameter';
import { suggestBite } from '../../cutting/bite';
import { cutsFloors } from '../../shop/tool';
import { reachFindings, toolFindings } from '../checks';
import { layersBetween } from '../layers';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../path';

export class FaceParams {
  @Parameter({
    label: 'Stepover',
    help: 'How far one pass lies beside the next.',
    unit: 'length',
    min: 0.05,
    max: 150,
    step: 1,
  })
  stepover!: number;
  @Parameter({ label: 'Layer', help: 'Most metal taken off in one go.', unit: 'length', min: 0.01, max: 50, step: 0.1 })
  layer!: number;
  @Parameter({
    label: 'Leave',
    help: 'Metal left on the top for a later pass.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  leave!: number;
  @Parameter({
    label: 'Past the edge',
    help: 'How far the cutter runs clear of the stock at each end.',
    unit: 'length',
    min: 0,
    max: 100,
    step: 0.5,
  })
  overrun!: number;
  @Choice({ label: 'Passes', help: 'To and fro, or always the same way (climb).', choices: ['both ways', 'one way'] })
  passes!: 'both ways' | 'one way';
}

const GAP = 2;

function passRows(minimum: number, maximum: number, radius: number, stepover: number): number[] {
  const first = minimum - radius + stepover;
  const last = maximum - radius + Math.min(stepover, radius) * 0.5;
  const count = Math.max(1, Math.ceil((last - first) / stepover - 1e-9) + 1);
  return Array.from({ length: count }, (_, i) =>
    count === 1 ? (minimum + maximum) / 2 : first + ((last - first) * i) / (count - 1),
  );
}

function plan(params: FaceParams, context: PlanContext): Plan {
  const { tool, operation, stock, top, clearance } = context;
  const box = boundsOf(stock.flat());
  const layers = layersBetween(top, params.leave, params.layer);
  const findings = [
    ...toolFindings(context, face.suits),
    ...reachFindings(context, top - params.leave, (top - params.leave) / Math.max(1, layers.length)),
  ];
  const path = new PathBuilder();
  if (params.stepover > tool.diameter) {
    findings.push(
      stop(
        'stepover-too-wide',
        `A stepover of ${params.stepover} mm leaves ridges: the cutter is ${tool.diameter} mm wide`,
        'Step over less than the cutter diameter',
        { operation: operation.id, field: 'params.stepover' },
      ),
    );
  }
  if (findings.some((f) => f.level === 'stop')) return { path: path.build(), findings };

  const along = box.maxX - box.minX >= box.maxY - box.minY;
  const [a0, a1] = along ? [box.minX, box.maxX] : [box.minY, box.maxY];
  const [b0, b1] = along ? [box.minY, box.maxY] : [box.minX, box.maxX];
  const reach = tool.diameter / 2 + params.overrun;
  const rows = passRows(b0, b1, tool.diameter / 2, params.stepover);
  const at = (a: number, b: number): [number, number] => (along ? [a, b] : [b, a]);
  // Climb with metal on the right: along X the passes start at the right and climb upwards in Y; along Y, at the bottom.
  const [start, end] = along ? [a1 + reach, a0 - reach] : [a0 - reach, a1 + reach];
  const { feed } = operation.speeds;
  for (const z of layers) {
    rows.forEach((b, i) => {
      const forward = params.passes === 'one way' || i % 2 === 0;
      const [from, to] = forward ? [start, end] : [end, start];
      const [x0, y0] = at(from, b);
      if (i === 0 || params.passes === 'one way') {
        if (i > 0 || path.z < clearance) path.rapid(path.x, path.y, clearance);
        path
          .rapid(x0, y0, clearance)
          .rapid(x0, y0, z + GAP)
          .line(x0, y0, z, operation.speeds.entryFeed, 'entry');
      } else path.line(x0, y0, z, feed, 'link');
      const [x1, y1] = at(to, b);
      path.line(x1, y1, z, feed, 'cut');
    });
    path.rapid(path.x, path.y, clearance);
  }
  return { path: path.build(), findings, lowersTo: params.leave };
}

export const face: OperationKind<FaceParams> = {
  kind: 'face',
  title: 'Face the top',
  verb: 'Face',
  works: [],
  suits: (tool) => cutsFloors(tool) && tool.cornerRadius < tool.diameter / 2,
  Params: FaceParams,
  defaults: ({ tool, material, machine }) => {
    const bite = suggestBite(tool, material, machine);
    return {
      stepover: Math.round(tool.diameter * 0.7 * 10) / 10,
      layer: Math.max(0.1, Math.min(bite.ap, 1)),
      leave: 0,
      overrun: 2,
      passes: 'both ways',
    };
  },
  bite: (p) => ({ ae: p.stepover, ap: p.layer, peakAe: p.stepover }),
  plan,
};
