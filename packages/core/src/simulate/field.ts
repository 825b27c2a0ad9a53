import { Region } from '../geometry/clip';
import { Bounds } from '../geometry/point';

/** Heights on a square grid, part coordinates, mm; a cell's height counts at its centre. */
export interface HeightField {
  x0: number;
  y0: number;
  cell: number;
  nx: number;
  ny: number;
  height: Float32Array;
}

/** Where nothing stands. */
export const NOTHING = -1e6;

/** An empty field that covers `bounds`. */
export function makeField(bounds: Bounds, cell: number): HeightField {
  const nx = Math.max(1, Math.ceil((bounds.maxX - bounds.minX) / cell - 1e-6));
  const ny = Math.max(1, Math.ceil((bounds.maxY - bounds.minY) / cell - 1e-6));
  return { x0: bounds.minX, y0: bounds.minY, cell, nx, ny, height: new Float32Array(nx * ny).fill(NOTHING) };
}

/** Finest cell, mm, not below `finest`, that keeps a field within `most` cells. */
export function cellFor(bounds: Bounds, most: number, finest: number): number {
  const size = (bounds.maxX - bounds.minX) * (bounds.maxY - bounds.minY);
  return Math.max(finest, Math.sqrt(size / most));
}

/** Calls `visit` with the index of every cell whose centre lies inside the region. */
export function eachInside(field: HeightField, region: Region, visit: (index: number) => void): void {
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

/** Volume above a floor, mm³. */
export function volumeAbove(field: HeightField, floor: number): number {
  let sum = 0;
  for (const h of field.height) if (h > floor) sum += h - floor;
  return sum * field.cell * field.cell;
}
