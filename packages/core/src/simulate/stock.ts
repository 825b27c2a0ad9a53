import { Region } from '../geometry/clip';
import { boundsOf } from '../geometry/point';
import { HeightField, cellFor, copyField, eachInside, makeField, regridded } from './field';

/** The raw piece: an outline with a flat top and underside, part coordinates. */
export interface StockModel {
  region: Region;
  top: number;
  bottom: number;
}

const MOST_CELLS = 700_000;
const FINEST = 0.05;

/**
 * A height field of the stock; `cell` mm, or chosen so that it stays within memory.
 * @param left what an earlier setup left, in the place of a fresh piece
 */
export function stockField(stock: StockModel, cell?: number, left?: HeightField): HeightField {
  if (left) return cell && Math.abs(cell - left.cell) > 1e-9 ? regridded(left, cell, stock.bottom) : copyField(left);
  const bounds = boundsOf(stock.region.flat());
  const field = makeField(bounds, cell ?? Math.max(0.1, cellFor(bounds, MOST_CELLS, FINEST)));
  eachInside(field, stock.region, (i) => {
    field.height[i] = stock.top;
  });
  return field;
}
