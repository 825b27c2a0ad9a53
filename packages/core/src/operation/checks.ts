import { Point } from '../geometry/plane/point';
import { Finding, finding } from '../quantity/finding';
import { Tool, kindLabel } from '../shop/tool';
import { aroundFloor } from '../part/plate/around-floor';
import { PlanContext } from './operation';

/**
 * Whether flutes and stick-out reach the depth of a cut, measured from the metal's top; lengths mm.
 * @param wall how high the walls are that the tool runs along there
 */
export function reachFindings(
  { operation, tool }: Pick<PlanContext, 'operation' | 'tool'>,
  depth: number,
  layer: number,
  wall = depth,
): Finding[] {
  const place = { operation: operation.id, tool: tool.id };
  if (depth > tool.stickOut) {
    return [
      finding(
        'too-deep-for-stick-out',
        { operation: operation.name, depth, tool: tool.name, stickOut: tool.stickOut, least: depth + 2 },
        place,
      ),
    ];
  }
  if (layer > tool.fluteLength) {
    return [
      finding(
        'layer-too-deep',
        { operation: operation.name, layer, tool: tool.name, fluteLength: tool.fluteLength },
        place,
      ),
    ];
  }
  if (wall > tool.fluteLength && tool.shankDiameter >= tool.diameter) {
    const found = { operation: operation.name, depth: wall, fluteLength: tool.fluteLength };
    return [finding('shank-beside-wall', found, place)];
  }
  return [];
}

/** How much of a depth is wall where a pocket is cut; all of it for what has no floor. */
export function wallBeside({ model, top }: Pick<PlanContext, 'model' | 'top'>, feature: string, depth: number): number {
  const { region, wall } = aroundFloor(model, feature);
  return region.length > 0 ? Math.min(depth, wall + Math.max(0, top)) : depth;
}

/** A tool whose geometry cannot do the operation. */
export function toolFindings(
  { operation, tool }: Pick<PlanContext, 'operation' | 'tool'>,
  suits: (tool: Tool) => boolean,
): Finding[] {
  return suits(tool)
    ? []
    : [
        finding(
          'wrong-tool',
          { operation: operation.name, tool: tool.name, kind: kindLabel(tool) },
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
      finding(
        'no-target',
        { operation: operation.name, meanings: meanings.join(', ') },
        {
          operation: operation.id,
          field: 'targets',
        },
      ),
    ];
  }
  return targets
    .filter((t) => !meanings.includes(t.meaning))
    .map((t) =>
      finding(
        'left-out',
        { feature: t.name, meaning: t.meaning, operation: operation.name },
        { operation: operation.id, feature: t.id },
      ),
    );
}

/** A tool with an open centre that would have to go straight down into metal. */
export const cannotPlunge = ({ operation, tool }: Pick<PlanContext, 'operation' | 'tool'>, at: Point): Finding =>
  finding('cannot-plunge', { tool: tool.name }, { operation: operation.id, tool: tool.id, at: { x: at.x, y: at.y } });
