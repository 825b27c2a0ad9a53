import { Region } from '../../geometry/plane/clip';
import { Bounds } from '../../geometry/plane/point';

/** Square cells, part coordinates, mm. */
export interface Grid {
  x0: number;
  y0: number;
  cell: number;
  nx: number;
  ny: number;
}

/** Heights on a grid; a cell's height counts at its centre. */
export interface HeightField extends Grid {
  height: Float32Array;
  /** What lies below the topmost metal, where the piece has been cut from other sides before. */
  below?: Below;
}

/** The lower faces of a field: each cell is a pile of metal and air. */
export interface Below {
  /** Underside of the topmost metal of each cell. */
  low: Float32Array;
  /** Further metal of a cell from above: top, underside, top, underside. */
  more: Map<number, number[]>;
}

/** Metal thinner than this is what a height of 32 bits may be off by, mm. */
const SLIVER = 1e-4;

/** Where nothing stands. */
export const NOTHING = -1e6;

/** An empty field that covers `bounds`. */
export function makeField(bounds: Bounds, cell: number): HeightField {
  const nx = Math.max(1, Math.ceil((bounds.maxX - bounds.minX) / cell - 1e-6));
  const ny = Math.max(1, Math.ceil((bounds.maxY - bounds.minY) / cell - 1e-6));
  return emptyField({ x0: bounds.minX, y0: bounds.minY, cell, nx, ny });
}

/** A field on which nothing stands. */
export function emptyField({ x0, y0, cell, nx, ny }: Grid): HeightField {
  return { x0, y0, cell, nx, ny, height: new Float32Array(nx * ny).fill(NOTHING) };
}

/** Finest cell, mm, not below `finest`, that keeps a field within `most` cells. */
export function cellFor(bounds: Bounds, most: number, finest: number): number {
  const size = (bounds.maxX - bounds.minX) * (bounds.maxY - bounds.minY);
  return Math.max(finest, Math.sqrt(size / most));
}

/** Calls `visit` with the index of every cell whose centre lies inside the region. */
export function eachInside(field: Grid, region: Region, visit: (index: number) => void): void {
  const { x0, y0, cell, nx, ny } = field;
  const rows: number[][] = Array.from({ length: ny }, () => []);
  for (const ring of region) {
    for (let i = 0; i < ring.length; i++) {
      const a = ring[i];
      const b = ring[(i + 1) % ring.length];
      const [low, high] = a.y < b.y ? [a, b] : [b, a];
      const first = Math.max(0, Math.ceil((low.y - y0) / cell - 0.5));
      const last = Math.min(ny - 1, Math.ceil((high.y - y0) / cell - 0.5) - 1);
      for (let row = first; row <= last; row++) {
        const y = y0 + (row + 0.5) * cell;
        rows[row].push(low.x + ((y - low.y) / (high.y - low.y)) * (high.x - low.x));
      }
    }
  }
  rows.forEach((crossings, row) => {
    crossings.sort((p, q) => p - q);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const first = Math.max(0, Math.ceil((crossings[k] - x0) / cell - 0.5));
      const last = Math.min(nx - 1, Math.ceil((crossings[k + 1] - x0) / cell - 0.5) - 1);
      for (let i = first; i <= last; i++) visit(row * nx + i);
    }
  });
}

/** Metal of a cell from above: top, underside, top, underside; `floor` is the underside where nothing is known below. */
export function pileOf({ height, below }: HeightField, i: number, floor: number): number[] {
  if (height[i] <= NOTHING) return [];
  if (!below) return height[i] > floor + SLIVER ? [height[i], floor] : [];
  return [height[i], below.low[i], ...(below.more.get(i) ?? [])];
}

/** Puts a pile into a cell. */
export function setPile({ height, below }: HeightField, i: number, pile: number[]): void {
  height[i] = pile.length ? pile[0] : NOTHING;
  if (!below) return;
  below.low[i] = pile.length ? pile[1] : NOTHING;
  if (pile.length > 2) below.more.set(i, pile.slice(2));
  else below.more.delete(i);
}

/** A field that can hold piles, empty. */
export function makePiles(grid: Grid): HeightField & { below: Below } {
  const field = emptyField(grid);
  return { ...field, below: { low: field.height.slice(), more: new Map() } };
}

/** A copy that can be cut by itself; both share piles, which nobody changes. */
export function copyField(field: HeightField): HeightField {
  const { height, below } = field;
  return {
    ...field,
    height: height.slice(),
    below: below && { low: below.low.slice(), more: new Map(below.more) },
  };
}

/**
 * The same piece with cells of another size, mm: each is what stood at its middle.
 * @param floor underside where nothing is known below
 */
export function regridded(field: HeightField, cell: number, floor: number): HeightField {
  const nx = Math.max(1, Math.ceil((field.nx * field.cell) / cell - 1e-6));
  const ny = Math.max(1, Math.ceil((field.ny * field.cell) / cell - 1e-6));
  const next = makePiles({ x0: field.x0, y0: field.y0, cell, nx, ny });
  const at = (k: number, most: number) => Math.min(most - 1, Math.floor(((k + 0.5) * cell) / field.cell));
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++)
      setPile(next, j * nx + i, pileOf(field, at(j, field.ny) * field.nx + at(i, field.nx), floor));
  }
  return next;
}

/** Volume of all metal, mm³; `floor` is the underside where nothing is known below. */
export function volumeOf(field: HeightField, floor: number): number {
  let sum = 0;
  for (let i = 0; i < field.height.length; i++) {
    const pile = pileOf(field, i, floor);
    for (let k = 0; k < pile.length; k += 2) sum += pile[k] - pile[k + 1];
  }
  return sum * field.cell * field.cell;
}

/** Volume above a floor, mm³. */
export function volumeAbove(field: HeightField, floor: number): number {
  let sum = 0;
  for (const h of field.height) if (h > floor) sum += h - floor;
  return sum * field.cell * field.cell;
}

/** Middle of a cell, part coordinates. */
export const cellMiddle = (grid: Grid, index: number) => ({
  x: grid.x0 + ((index % grid.nx) + 0.5) * grid.cell,
  y: grid.y0 + (Math.floor(index / grid.nx) + 0.5) * grid.cell,
});
