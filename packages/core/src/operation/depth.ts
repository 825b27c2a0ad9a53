import { Feature } from '../part/plate/feature';
import { PlanContext } from './operation';

/** How deep the wall of a feature goes, as Z; right through it goes `breakthrough` mm below the part. */
export function wallBottom(feature: Feature, { model }: Pick<PlanContext, 'model'>, breakthrough: number): number {
  const { thickness, floors } = model;
  if (feature.through || feature.meaning === 'outline') return -thickness - breakthrough;
  if (feature.meaning !== 'boss') return -feature.depth;
  const around = floors.filter((f) => f.z < -feature.depth).map((f) => f.z);
  return around.length ? Math.max(...around) : -thickness;
}
