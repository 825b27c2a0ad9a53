/** Where features come to lie: on zero, and once more on the opposite side. */
import { chainBounds } from '../../geometry/plane/chain';
import { Bounds, EMPTY_BOUNDS, isEmpty, joinBounds } from '../../geometry/plane/point';
import { freshId } from '../../quantity/ids';
import { Feature, Part, elsewhere, isBeside, sideOf } from './feature';
import { mirrored, moved } from './placed';
import { instancesOf } from './shapes';
import { middleOn } from './side';

/** A corner so near to zero lies on it, mm. */
const ON_ZERO = 1e-6;

const boundsOf = (features: Feature[]): Bounds =>
  features.flatMap(instancesOf).map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);

/**
 * Features moved together so that the front left corner of the part’s outside, of all of them where none is, lies on zero; those on faces
 * beside it move with it as they are.
 */
export function onZero(features: Feature[]): Feature[] {
  const above = features.filter((f) => !isBeside(f));
  const outlines = above.filter((f) => f.meaning === 'outline');
  const b = boundsOf(outlines.length ? outlines : above);
  return isEmpty(b) ? features : features.map((f) => (isBeside(f) ? f : moved(f, { x: -b.minX, y: -b.minY })));
}

const placeOf = ({ x, y, turn, pattern, side, shape }: Feature) => JSON.stringify([x, y, turn, pattern, side, shape]);

/** A feature as it was changed; an outside whose corner lay on zero keeps it there when its shape changes. */
export function landed(before: Feature, after: Feature): Feature {
  if (after.from || after.ends) return placeOf(before) === placeOf(after) ? after : elsewhere(after);
  if (after.meaning !== 'outline' || isBeside(after) || before.shape === after.shape) return after;
  const { minX, minY } = boundsOf([before]);
  return Math.abs(minX) < ON_ZERO && Math.abs(minY) < ON_ZERO ? onZero([after])[0] : after;
}

export const OPPOSITES = ['left and right', 'front and back', 'half a turn'] as const;
export type Opposite = (typeof OPPOSITES)[number];

/** A feature once more on the opposite side of the part’s middle, or of that of its face: as in a mirror, or half a turn on. */
export function oppositeOf(part: Part, feature: Feature, how: Opposite): Feature {
  const { x, y } = middleOn(part, sideOf(feature));
  const across = how === 'front and back' ? feature : mirrored(feature, 'left and right', x);
  const image = how === 'left and right' ? across : mirrored(across, 'front and back', y);
  const id = freshId(
    'f',
    part.features.map((f) => f.id),
  );
  return { ...elsewhere(image), id, name: `${feature.name}, ${how}`.slice(0, 80) };
}
