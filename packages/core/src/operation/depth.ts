import { Feature } from '../part/plate/feature';
import { PlanContext } from './operation';

/** How deep the wall of a feature goes, as Z; right through it goes `breakthrough` mm below the part; where an end was asked for, to that. */
export function wallBottom(
  feature: Feature,
  { model, end }: Pick<PlanContext, 'model' | 'end'>,
  breakthrough: number,
): number {
  const asked = end?.(feature.id);
  if (asked !== undefined) return asked;
  const { thickness, floors } = model;
  if (feature.through || feature.meaning === 'outline') return -thickness - breakthrough;
  if (feature.meaning !== 'boss') return -feature.depth;
  const around = floors.filter((f) => f.z < -feature.depth).map((f) => f.z);
  return around.length ? Math.max(...around) : -thickness;
}
