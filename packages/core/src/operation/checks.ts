import { Point } from '../geometry/plane/point';
import { Finding, care, note, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { Tool, kindLabel } from '../shop/tool';
import { PlanContext } from './operation';

const mm = (v: number) => `${formatNumber(v, 2)} mm`;

/** Whether flutes and stick-out reach the depth of a cut, measured from the metal's top; lengths mm. */
export function reachFindings(
  { operation, tool }: Pick<PlanContext, 'operation' | 'tool'>,
  depth: number,
  layer: number,
): Finding[] {
  const place = { operation: operation.id, tool: tool.id };
  if (depth > tool.stickOut) {
    return [
      stop(
        'too-deep-for-stick-out',
        `“${operation.name}” goes ${mm(depth)} deep; ${tool.name} sticks out ${mm(tool.stickOut)}, so its holder would hit`,
        `Let it stick out at least ${mm(depth + 2)}, or take a longer tool`,
        place,
      ),
    ];
  }
  if (layer > tool.fluteLength) {
    return [
      stop(
        'layer-too-deep',
        `A layer of “${operation.name}” is ${mm(layer)} thick; the flutes of ${tool.name} are ${mm(tool.fluteLength)} long`,
        `Cut in layers of ${mm(tool.fluteLength)} or less, or take a tool with longer flutes`,
        place,
      ),
    ];
  }
  if (depth > tool.fluteLength && tool.shankDiameter >= tool.diameter) {
    return [
      care(
        'shank-beside-wall',
        `“${operation.name}” goes ${mm(depth)} deep with flutes of ${mm(tool.fluteLength)}: the shank runs beside the wall`,
        'Take a tool with longer flutes or a relieved shank',
        place,
      ),
    ];
  }
  return [];
}

/** A tool whose geometry cannot do the operation. */
export function toolFindings(
  { operation, tool }: Pick<PlanContext, 'operation' | 'tool'>,
  suits: (tool: Tool) => boolean,
): Finding[] {
  return suits(tool)
    ? []
    : [
        stop(
          'wrong-tool',
          `“${operation.name}” cannot be done with ${tool.name}, a ${kindLabel(tool)}`,
          'Choose another tool from the rack',
          { operation: operation.id, tool: tool.id, field: 'toolId' },
        ),
      ];
}

/** No feature of the right meaning is chosen. */
export function targetFindings(
  { operation, targets }: Pick<PlanContext, 'operation' | 'targets'>,
  meanings: string[],
): Finding[] {
  if (targets.length === 0) {
    return [
      stop('no-target', `“${operation.name}” has nothing to work on`, `Choose a feature: ${meanings.join(', ')}`, {
        operation: operation.id,
        field: 'targets',
      }),
    ];
  }
  return targets
    .filter((t) => !meanings.includes(t.meaning))
    .map((t) =>
      note(
        'left-out',
        `“${t.name}” is a ${t.meaning}, so “${operation.name}” leaves it out`,
        `Change its meaning on the Part stage, or take it off this operation`,
        { operation: operation.id, feature: t.id },
      ),
    );
}

/** A tool with an open centre that would have to go straight down into metal. */
export const cannotPlunge = ({ operation, tool }: Pick<PlanContext, 'operation' | 'tool'>, at: Point): Finding =>
  stop(
    'cannot-plunge',
    `${tool.name} does not cut to its centre, so it cannot go straight down`,
    'Enter by a helix or a ramp, start in the open, or choose a centre-cutting tool',
    { operation: operation.id, tool: tool.id, at: { x: at.x, y: at.y } },
  );
