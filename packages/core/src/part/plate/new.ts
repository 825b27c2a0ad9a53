import { freshId } from '../../quantity/ids';
import { Feature, Meaning, SINGLE, Shape } from './feature';

/** A shape with numbers as a feature, ready to be added to a part. */
export function newFeature(
  features: Feature[],
  meaning: Meaning,
  name: string,
  shape: Shape,
  more: Partial<Feature> = {},
): Feature {
  return {
    id: freshId(
      'f',
      features.map((f) => f.id),
    ),
    name,
    meaning,
    shape,
    x: 0,
    y: 0,
    turn: 0,
    pattern: { ...SINGLE },
    depth: meaning === 'boss' ? 0 : 5,
    through: meaning === 'outline' || meaning === 'hole',
    layer: '',
    ...more,
  };
}
