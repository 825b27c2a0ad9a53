/** Heights of equal layers from `top` down to `bottom`, none thicker than `most` mm; the last is exactly `bottom`, and `last` mm thick where that is asked. */
export function layersBetween(top: number, bottom: number, most: number, last = 0): number[] {
  const depth = top - bottom;
  if (depth <= 1e-9) return [];
  if (last > 0 && depth > last + 1e-9) return [...layersBetween(top, bottom + last, most), bottom];
  const count = Math.max(1, Math.ceil(depth / most - 1e-9));
  return Array.from({ length: count }, (_, i) => (i === count - 1 ? bottom : top - (depth * (i + 1)) / count));
}

/** Thickness of layers that come out equal, none thicker than `most`; `most` where it is not known how far they go down, mm. */
export const evenLayer = (deep: number | undefined, most: number) =>
  deep !== undefined && deep > 0 ? deep / Math.max(1, Math.ceil(deep / most - 1e-9)) : most;

/** A value of operations that clear floors: the thickness of a last layer of its own. */
export const LAST_LAYER = {
  label: 'Last layer',
  help: 'Thickness of a last layer of its own, for a better floor; 0 for none.',
  unit: 'length' as const,
  min: 0,
  max: 20,
  step: 0.1,
  absent: 0,
};
