import { Bounds } from '../geometry/plane/point';
import { StockSpec } from './job';

export const STOCK_AXES = ['X', 'Y', 'Z'] as const;
export type StockAxis = (typeof STOCK_AXES)[number];

const SIDES = { X: ['left', 'right'], Y: ['front', 'back'], Z: ['top', 'bottom'] } as const;

/** What a part measures along an axis, mm. */
export const partSize = (axis: StockAxis, { minX, maxX, minY, maxY }: Bounds, thickness: number) =>
  axis === 'X' ? maxX - minX : axis === 'Y' ? maxY - minY : thickness;

/** What a block measures over all, mm. */
export function stockSize(stock: StockSpec, axis: StockAxis, part: Bounds, thickness: number): number {
  const [a, b] = SIDES[axis];
  return partSize(axis, part, thickness) + stock[a] + stock[b];
}

/**
 * A block that measures so much over all, mm: it is more than the part on both sides alike; above the part by what it was, as far as that
 * goes, and below by the rest. Never smaller than the part.
 */
export function withStockSize(
  stock: StockSpec,
  axis: StockAxis,
  size: number,
  part: Bounds,
  thickness: number,
): StockSpec {
  const more = Math.max(0, size - partSize(axis, part, thickness));
  const [a, b] = SIDES[axis];
  const first = axis === 'Z' ? Math.min(stock.top, more) : more / 2;
  return { ...stock, [a]: first, [b]: more - first };
}
