import { contours } from 'd3-contour';
import { Region } from '../../geometry/plane/clip';
import { Bounds } from '../../geometry/plane/point';
import { Vec3 } from '../../geometry/space/vec3';
import type { Stock } from '../stock';
import { Below, Grid, HeightField, NOTHING, copyField, pileOf, volumeOf } from './field';
import { stockStl } from './stl';
import { StockModel, cellOf, stockField, stockOn } from './stock';
import { Bite, Cutter, Sweeper } from './sweep';
import { maths } from '../../quantity/maths';

/** A field of heights as it was. */
export interface HeightSnapshot {
  height: Float32Array;
  below?: Below;
  owner: Int32Array;
}

/** A piece as it was left: on the grid it was proved on, and on any other. */
export interface Piece {
  field: HeightField;
  on(grid: Grid): HeightField;
  /** Where it was set on another side since it was cut: to how much its walls are known, mm, and by which share its volume changed. */
  upright?: { within: number; volume: number };
}

/**
 * A fresh piece of stock.
 * @param within what is to be shown with it on grids of the same cell, where none is asked for
 */
export const pieceOf = (stock: StockModel, within: Bounds, cell = cellOf(within)): Piece => ({
  field: stockField(stock, cell),
  on: (grid) => stockOn(stock, grid),
});

/** Bodies wider than so many cells are looked at every few cells only, so many across. */
const [WIDE, ACROSS] = [8, 24];

/** Stock as a field of heights, with piles where there is air below metal. */
export class HeightStock implements Stock<HeightSnapshot> {
  private readonly sweeper: Sweeper;
  readonly bounds: Bounds;

  /**
   * @param field its heights move to where they are cut
   * @param floor underside of the stock: nothing is taken below it
   */
  constructor(
    readonly field: HeightField,
    readonly floor: number,
  ) {
    this.sweeper = new Sweeper(field, floor);
    const { x0, y0, cell, nx, ny } = field;
    this.bounds = { minX: x0, minY: y0, maxX: x0 + nx * cell, maxY: y0 + ny * cell };
  }

  /** A raw piece, or what an earlier setup left of one; `cell` mm, or chosen so that it stays within memory. */
  static of(model: StockModel, cell?: number, left?: Piece): HeightStock {
    return new HeightStock(stockField(model, cell, left?.field), model.bottom);
  }

  /** The same on another grid: a part of it, finer. */
  static on(grid: Grid, model: StockModel, left?: Piece): HeightStock {
    return new HeightStock(left?.on(grid) ?? stockOn(model, grid), model.bottom);
  }

  /** Last mark that cut each cell, −1 for none. */
  get owner(): Int32Array {
    return this.sweeper.owner;
  }

  get grain(): number {
    return this.field.cell;
  }

  get memory(): number {
    return this.field.height.length * (this.field.below ? 12 : 8);
  }

  cut(cutter: Cutter, from: Vec3, to: Vec3, mark: number): Bite {
    return this.sweeper.sweep(cutter, from.x, from.y, from.z, to.x, to.y, to.z, mark);
  }

  facesAt(x: number, y: number): number[] {
    const { x0, y0, cell, nx, ny } = this.field;
    const [column, row] = [Math.floor((x - x0) / cell), Math.floor((y - y0) / cell)];
    return column < 0 || row < 0 || column >= nx || row >= ny ? [] : pileOf(this.field, row * nx + column, this.floor);
  }

  into(at: Vec3, radius: number, bottom: number, least: number, rise?: (r: number) => number): number {
    const { x0, y0, cell, nx, ny, height } = this.field;
    const column = (x: number) => (x - x0) / cell;
    const row = (y: number) => (y - y0) / cell;
    const step = radius > WIDE * cell ? Math.max(1, Math.floor(radius / (ACROSS * cell))) : 1;
    const [i0, i1] = [
      Math.max(0, Math.floor(column(at.x - radius))),
      Math.min(nx - 1, Math.ceil(column(at.x + radius))),
    ];
    const [j0, j1] = [Math.max(0, Math.floor(row(at.y - radius))), Math.min(ny - 1, Math.ceil(row(at.y + radius)))];
    let most = 0;
    for (let j = j0; j <= j1; j += step) {
      for (let i = i0; i <= i1; i += step) {
        const excess = height[j * nx + i] - bottom;
        if (excess <= Math.max(most, least)) continue;
        const r = maths.hypot(x0 + (i + 0.5) * cell - at.x, y0 + (j + 0.5) * cell - at.y);
        if (r >= radius) continue;
        const into = rise ? excess - rise(r) : excess;
        if (into > Math.max(most, least)) most = into;
      }
    }
    return most;
  }

  section(z: number): Region {
    const { x0, y0, cell, nx, ny, height } = this.field;
    const isMetal = (i: number) => {
      if (height[i] <= NOTHING || height[i] < z) return 0;
      const pile = pileOf(this.field, i, this.floor);
      for (let k = 0; k < pile.length; k += 2) if (pile[k] >= z && pile[k + 1] < z) return 1;
      return 0;
    };
    const [shape] = contours().size([nx, ny]).thresholds([0.5])(Array.from(height, (_, i) => isMetal(i)));
    // Rows count upwards here, so its rings run the other way round.
    return shape.coordinates.flat().map((ring) =>
      ring
        .slice(1)
        .map(([u, v]) => ({ x: x0 + u * cell, y: y0 + v * cell }))
        .reverse(),
    );
  }

  volume(): number {
    return volumeOf(this.field, this.floor);
  }

  mesh(): Uint8Array {
    return stockStl(this.field, this.floor);
  }

  snapshot(): HeightSnapshot {
    const { height, below } = copyField(this.field);
    return { height, below, owner: this.owner.slice() };
  }

  restore(then: HeightSnapshot): void {
    const { height, below } = copyField({ ...this.field, height: then.height, below: then.below });
    this.field.height.set(height);
    this.field.below = below;
    this.owner.set(then.owner);
    this.sweeper.restart();
  }
}
