import { Bounds } from '../../geometry/plane/point';
import { Grid, HeightField } from './field';

/** A part of a piece on a finer grid, as a program leaves it. */
export interface Window {
  field: HeightField;
  /** Last motion that cut each cell, −1 for none. */
  owner: Int32Array;
  /** Where it lies on the grid of the whole, and how many of its cells lie along one of those. */
  column: number;
  row: number;
  columns: number;
  rows: number;
  times: number;
}

/** Cells of the whole a tile is wide. */
const WIDE = 16;

/** A grid divided into square tiles, so that some can be looked at closer. */
export class Tiles {
  private readonly across: number;
  readonly count: number;

  constructor(private readonly grid: Grid) {
    this.across = Math.ceil(grid.nx / WIDE);
    this.count = this.across * Math.ceil(grid.ny / WIDE);
  }

  /** How many cells so many tiles have. */
  static cells(tiles: number): number {
    return tiles * WIDE * WIDE;
  }

  /** The tile a cell lies in. */
  of(cell: number): number {
    const { nx } = this.grid;
    return Math.floor(cell / nx / WIDE) * this.across + Math.floor((cell % nx) / WIDE);
  }

  /** Calls `visit` for every tile that a box touches. */
  eachIn({ minX, minY, maxX, maxY }: Bounds, visit: (tile: number) => void): void {
    const { x0, y0, cell } = this.grid;
    const wide = WIDE * cell;
    const down = this.count / this.across;
    const right = Math.min(this.across - 1, Math.floor((maxX - x0) / wide));
    const last = Math.min(down - 1, Math.floor((maxY - y0) / wide));
    for (let row = Math.max(0, Math.floor((minY - y0) / wide)); row <= last; row++)
      for (let column = Math.max(0, Math.floor((minX - x0) / wide)); column <= right; column++)
        visit(row * this.across + column);
  }

  /** Calls `visit` for every tile under the middles of a grid's cells. */
  eachUnder({ x0, y0, cell, nx, ny }: Grid, visit: (tile: number) => void): void {
    const half = cell / 2;
    this.eachIn({ minX: x0 + half, minY: y0 + half, maxX: x0 + nx * cell - half, maxY: y0 + ny * cell - half }, visit);
  }

  /** Where a tile lies on the grid, and its own grid with cells so many times as fine. */
  finer(tile: number, times: number): Omit<Window, 'field' | 'owner'> & { grid: Grid } {
    const { x0, y0, cell, nx, ny } = this.grid;
    const [column, row] = [(tile % this.across) * WIDE, Math.floor(tile / this.across) * WIDE];
    const [columns, rows] = [Math.min(WIDE, nx - column), Math.min(WIDE, ny - row)];
    const grid = {
      x0: x0 + column * cell,
      y0: y0 + row * cell,
      cell: cell / times,
      nx: columns * times,
      ny: rows * times,
    };
    return { grid, column, row, columns, rows, times };
  }
}
