import { Region, difference, offset, union } from '../geometry/plane/clip';
import { boundsOf, growBounds } from '../geometry/plane/point';
import { regionOf } from '../part/plate/model';
import { Finding, finding } from '../quantity/finding';
import type { PlanContext } from './operation';

/** Wider than any stock by so much nothing is cut, mm. */
const FAR = 200;
/** How far the cutter reaches past the line it stays within, in its radii. */
const PAST = { inside: 0, on: 1, outside: 2 };

const regionNamed = (id: string, { features }: Pick<PlanContext, 'features'>): Region => {
  const feature = features.find((f) => f.id === id);
  return feature ? regionOf(feature) : [];
};

/** What an operation is told to leave alone: all beyond the line it stays within, and what it keeps away from. */
export function keptAway(context: Pick<PlanContext, 'operation' | 'features' | 'stock' | 'tool'>): Region {
  const { within, keepAway = [] } = context.operation;
  const zones = keepAway.map(({ feature, by }) => offset(regionNamed(feature, context), by));
  if (!within) return zones.length ? union(zones.flat()) : [];
  const allowed = offset(regionNamed(within.feature, context), (PAST[within.cutter] * context.tool.diameter) / 2);
  const { minX, minY, maxX, maxY } = growBounds(boundsOf([...context.stock, ...allowed].flat()), FAR);
  const all = [
    [
      { x: minX, y: minY },
      { x: maxX, y: minY },
      { x: maxX, y: maxY },
      { x: minX, y: maxY },
    ],
  ];
  return union([...difference(all, allowed), ...zones.flat()]);
}

/** Lines that are gone, or enclose nothing. */
export function boundFindings(context: Pick<PlanContext, 'operation' | 'features'>): Finding[] {
  const { within, keepAway = [], id } = context.operation;
  const asked: [string, string][] = [
    ...(within ? [[within.feature, 'within'] as [string, string]] : []),
    ...keepAway.map(({ feature }): [string, string] => [feature, 'keepAway']),
  ];
  return asked
    .filter(([feature]) => regionNamed(feature, context).length === 0)
    .map(([feature, field]) => finding('bound-gone', { feature }, { operation: id, field }));
}
