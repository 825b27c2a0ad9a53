import { Region } from '../../geometry/plane/clip';
import { Bounds, Point, boundsOf } from '../../geometry/plane/point';
import { Mesh, meshField } from './mesh';
import {
  Grid,
  HeightField,
  cellFor,
  copyField,
  eachInside,
  emptyField,
  makeField,
  makePiles,
  regridded,
  setPile,
} from './field';

/** A bar that lies along X or Y: its section is a rectangle with rounded edges, a circle at most, with a bore where it is a tube. */
export interface Lying {
  axis: 'x' | 'y';
  /** Its middle across, and in height, part coordinates. */
  middle: { across: number; z: number };
  width: number;
  height: number;
  /** Radius of its edges, at most half of width and height. */
  corner: number;
  /** Diameter, 0 for none. */
  bore: number;
}

/** The raw piece: an outline with a flat top and underside, part coordinates; or a bar or a casting that lies within them. */
export interface StockModel {
  region: Region;
  top: number;
  bottom: number;
  lying?: Lying;
  /** A casting: its mesh, and how far that is moved, mm. */
  casting?: { mesh: Mesh; by: [number, number, number] };
}

const MOST_CELLS = 700_000;
const FINEST = 0.05;

/** Metal of a lying bar `off` from its middle: top, underside, top, underside. */
function sectionPile({ middle, width, height, corner, bore }: Lying, off: number): number[] {
  const away = Math.abs(off);
  if (away >= width / 2) return [];
  const into = Math.max(0, away - (width / 2 - corner));
  const half = height / 2 - corner + Math.sqrt(corner * corner - into * into);
  const inner2 = (bore * bore) / 4 - away * away;
  const hole = inner2 > 0 ? Math.sqrt(inner2) : 0;
  const { z } = middle;
  return hole > 0 ? [z + half, z + hole, z - hole, z - half] : [z + half, z - half];
}

function lyingField(lying: Lying, empty: HeightField): HeightField {
  const field = makePiles(empty);
  const { x0, y0, cell, nx, ny } = field;
  const across = (p: Point) => (lying.axis === 'x' ? p.y : p.x) - lying.middle.across;
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const middle = { x: x0 + (i + 0.5) * cell, y: y0 + (j + 0.5) * cell };
      setPile(field, j * nx + i, sectionPile(lying, across(middle)));
    }
  }
  return field;
}

/** The cell of a field within memory, mm. */
export const cellOf = (bounds: Bounds): number => Math.max(0.1, cellFor(bounds, MOST_CELLS, FINEST));

/**
 * A height field of the stock; `cell` mm, or chosen so that it stays within memory.
 * @param left what an earlier setup left, in the place of a fresh piece
 */
export function stockField(stock: StockModel, cell?: number, left?: HeightField): HeightField {
  if (left) return cell && Math.abs(cell - left.cell) > 1e-9 ? regridded(left, cell, stock.bottom) : copyField(left);
  const bounds = boundsOf(stock.region.flat());
  return stockOn(stock, makeField(bounds, cell ?? cellOf(bounds)));
}

/** The stock on a grid of its own, or on a part of one. */
export function stockOn(stock: StockModel, grid: Grid): HeightField {
  const field = emptyField(grid);
  if (stock.lying) return lyingField(stock.lying, field);
  if (stock.casting) return meshField(stock.casting.mesh, stock.casting.by, field);
  eachInside(field, stock.region, (i) => {
    field.height[i] = stock.top;
  });
  return field;
}
