import { Bounds } from '../geometry/plane/point';
import { holderLength, holderWidth } from '../shop/holder';
import { Tool, isAxial, isBeam, profileHeight } from '../shop/tool';
import { MOVE } from '../path/motions';
import { Contacts } from './contacts';
import { Course } from './course';
import { Grid, HeightField } from '../stock/height/field';
import { CHORD, Prover, SLOPED } from './prover';
import { stockOn } from '../stock/height/stock';
import { HeightStock } from '../stock/height/height-stock';
import { Cutter } from '../stock/height/sweep';
import { drive } from './drive';
import { Told } from './told';

/** Cells of the whole a window is wide. */
const WIDE = 16;
/** Cells of this size are fine enough, mm. */
const FINE = 0.1;
/** Cells of all windows together. */
const MOST_CELLS = 4_000_000;
/** Shank and holder are looked for this often along a motion, mm. */
const STEP = 0.5;
/** A cutter that is not so many cells wide at this height may pass between the middles of cells. */
const NARROW = { cells: 3, height: 0.05 };

/** A part of a piece on a finer grid, as the program leaves it. */
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

/** Whether a tool may make cuts so narrow that a grid does not show them. */
function isNarrow(tool: Tool, cell: number): boolean {
  const reach = (NARROW.cells * cell) / 2;
  return tool.diameter / 2 <= reach || profileHeight(tool, reach) > NARROW.height;
}

/** Looks closer where it matters: cuts parts of a proved piece once more on finer grids; can be run in steps. */
export class Windows {
  private readonly across: number;
  /** Whether each window is to be looked into. */
  private readonly isWanted: Uint8Array;
  /** Motions that reach each window. */
  private readonly reaching: number[][];
  private sorted = 0;
  private opened = 0;

  constructor(private readonly prover: Prover) {
    const { nx, ny } = prover.field;
    this.across = Math.ceil(nx / WIDE);
    this.isWanted = new Uint8Array(this.across * Math.ceil(ny / WIDE));
    this.reaching = Array.from(this.isWanted, () => []);
  }

  /** Whether the grid of the whole is fine enough everywhere. */
  get isFine(): boolean {
    return Math.round(this.prover.field.cell / FINE) < 2;
  }

  get done(): boolean {
    return this.isFine || this.opened >= this.isWanted.length;
  }

  /** Share of the windows looked into, 0..1. */
  get progress(): number {
    return this.opened / this.isWanted.length;
  }

  /** Size of their cells, mm; that of the whole where there are none. */
  get cell(): number {
    return this.prover.field.cell / this.times;
  }

  private get times(): number {
    const cells = this.isWanted.reduce((sum, is) => sum + is, 0) * WIDE * WIDE;
    const most = cells ? Math.floor(Math.sqrt(MOST_CELLS / cells)) : 1;
    return Math.max(1, Math.min(most, Math.round(this.prover.field.cell / FINE)));
  }

  /** Asks for a closer look at these cells of the whole; narrow cuts, rapids and shanks in the metal are looked at anyway. */
  want(cells: Uint8Array): void {
    const { nx } = this.prover.field;
    cells.forEach((is, i) => {
      if (is) this.isWanted[Math.floor(i / nx / WIDE) * this.across + Math.floor((i % nx) / WIDE)] = 1;
    });
  }

  /** Sorts up to `most` further motions by the windows they reach; when all are, cuts the next window. */
  advance(most: number): Window | undefined {
    if (this.sort(most)) return undefined;
    while (!this.done && !this.isWanted[this.opened]) this.opened++;
    return this.done ? undefined : this.window(this.opened++);
  }

  /** A part of the piece, or all of it, on another grid. */
  on(grid: Grid): Pick<Window, 'field' | 'owner'> {
    this.sort(Infinity);
    const { input, contacts, cutters } = this.prover;
    const field = input.left?.on(grid) ?? stockOn(input.stock, grid);
    const stock = new HeightStock(field, input.stock.bottom);
    const seen = new Contacts(input, field, new Told(input.motions));
    for (const i of this.reachingInto(grid)) this.motion(i, cutters.get(input.motions.tool[i])!, stock, seen);
    contacts.told.add(seen.told);
    return { field, owner: stock.owner };
  }

  /** Sorts further motions by the windows they reach; whether there were any. */
  private sort(most: number): boolean {
    const end = Math.min(this.prover.input.motions.count, this.sorted + most);
    if (this.sorted >= end) return false;
    while (this.sorted < end) this.sortOne(this.sorted++);
    return true;
  }

  private sortOne(i: number): void {
    const { motions, zero, tools, stock } = this.prover.input;
    const tool = tools.get(motions.tool[i]);
    const course = Course.of(motions, i, zero);
    const depth = course ? stock.top - Math.min(course.from.z, course.to.z) : 0;
    if (!tool || !course || depth <= 0) return;
    const { reach, isTold } = this.closeness(i, tool, depth);
    this.eachTile(course.bounds(reach), (tile) => {
      this.reaching[tile].push(i);
      if (isTold) this.isWanted[tile] = 1;
    });
  }

  /** Motions that reach a grid, in their order. */
  private reachingInto({ x0, y0, cell, nx, ny }: Grid): number[] {
    const lists: number[][] = [];
    const [maxX, maxY] = [x0 + (nx - 0.5) * cell, y0 + (ny - 0.5) * cell];
    this.eachTile({ minX: x0 + cell / 2, minY: y0 + cell / 2, maxX, maxY }, (tile) => lists.push(this.reaching[tile]));
    return lists.length === 1 ? lists[0] : [...new Set(lists.flat())].sort((a, b) => a - b);
  }

  /** Calls `visit` for every window that a box touches. */
  private eachTile({ minX, minY, maxX, maxY }: Bounds, visit: (tile: number) => void): void {
    const { x0, y0, cell } = this.prover.field;
    const wide = WIDE * cell;
    const down = this.isWanted.length / this.across;
    const right = Math.min(this.across - 1, Math.floor((maxX - x0) / wide));
    const last = Math.min(down - 1, Math.floor((maxY - y0) / wide));
    for (let row = Math.max(0, Math.floor((minY - y0) / wide)); row <= last; row++)
      for (let column = Math.max(0, Math.floor((minX - x0) / wide)); column <= right; column++)
        visit(row * this.across + column);
  }

  /** How far a motion reaches so deep below the top of the stock, mm, and whether what it touches is looked at closer. */
  private closeness(i: number, tool: Tool, depth: number): { reach: number; isTold: boolean } {
    const { motions, machine } = this.prover.input;
    const nose = tool.stickOut + holderLength(tool.holder);
    const beside = isBeam(tool)
      ? 0
      : Math.max(
          depth > tool.fluteLength && !isAxial(tool) ? tool.shankDiameter / 2 : 0,
          depth > tool.stickOut ? holderWidth(tool.holder) / 2 : 0,
          depth > nose ? (machine.noseDiameter ?? 0) / 2 : 0,
        );
    const radius = tool.diameter / 2;
    const isTold = beside > radius || motions.type[i] === MOVE.rapid || isNarrow(tool, this.prover.field.cell);
    return { reach: Math.max(radius, beside), isTold };
  }

  private window(tile: number): Window {
    const { x0, y0, cell, nx, ny } = this.prover.field;
    const [column, row] = [(tile % this.across) * WIDE, Math.floor(tile / this.across) * WIDE];
    const [columns, rows] = [Math.min(WIDE, nx - column), Math.min(WIDE, ny - row)];
    const { times } = this;
    const cut = this.on({
      x0: x0 + column * cell,
      y0: y0 + row * cell,
      cell: cell / times,
      nx: columns * times,
      ny: rows * times,
    });
    return { ...cut, column, row, columns, rows, times };
  }

  /** Cuts what a motion reaches of a grid. */
  private motion(i: number, cutter: Cutter, part: HeightStock, contacts: Contacts): void {
    const { motions, zero, tools, stock } = this.prover.input;
    const { x0, y0, cell, nx, ny } = part.field;
    const tool = tools.get(motions.tool[i])!;
    const course = Course.of(motions, i, zero)!;
    if (course.length < 1e-9) return;
    const { reach, isTold } = this.closeness(i, tool, stock.top - Math.min(course.from.z, course.to.z));
    const chords = course.chords(CHORD * (course.isSloped ? SLOPED : 1));
    const n = Math.max(chords, reach > cutter.radius ? Math.ceil(course.length / STEP) : 1);
    drive(part, cutter, i, n, (k) => (k === 0 ? course.from : course.at(k / n)), {
      passesBy: (a, b) =>
        Math.max(a.x, b.x) + reach < x0 ||
        Math.min(a.x, b.x) - reach > x0 + nx * cell ||
        Math.max(a.y, b.y) + reach < y0 ||
        Math.min(a.y, b.y) - reach > y0 + ny * cell,
      bite: isTold ? ({ depth }, at) => contacts.touch(i, tool, at, depth) : undefined,
    });
  }
}
