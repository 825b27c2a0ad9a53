import { Feature, Limited, Part, Shape, SizeLimits } from './feature';

/** The limits of one size of a feature, where it has any. */
export const limitsOf = ({ limits }: Feature, size: Limited): SizeLimits | undefined =>
  limits?.find((l) => l.size === size);

/** How far either way the middle of its limits a size may be, mm; 0 where it has none. */
export const halfWidth = (feature: Feature, size: Limited): number => {
  const limits = limitsOf(feature, size);
  return limits ? (limits.upper - limits.lower) / 2 : 0;
};

const known = new WeakMap<Part, Part>();

/** The part with every size in the middle of its limits: what paths aim at, and what the proof wants. */
export function aimedPart(part: Part): Part {
  if (!part.features.some((f) => f.limits?.length)) return part;
  if (!known.has(part)) known.set(part, { ...part, features: part.features.map(aimed) });
  return known.get(part)!;
}

/** Sizes moved to the middle of their limits, which then lie evenly about them. */
function aimed(feature: Feature): Feature {
  const { limits } = feature;
  if (!limits?.length) return feature;
  const middle = (size: Limited) => {
    const found = limitsOf(feature, size);
    return found ? (found.upper + found.lower) / 2 : 0;
  };
  const shape = { ...feature.shape } as Shape & Partial<Record<Limited, number>>;
  for (const { size } of limits) if (size !== 'depth' && shape[size] !== undefined) shape[size] += middle(size);
  const even = limits.map(({ size }) => ({ size, upper: halfWidth(feature, size), lower: -halfWidth(feature, size) }));
  return { ...feature, shape, depth: feature.depth + middle('depth'), limits: even };
}
