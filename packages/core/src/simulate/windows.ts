import { holderLength, holderWidth } from '../shop/holder';
import { Budget, withinBudget } from '../quantity/budget';
import { Tool, isAxial, isBeam, profileHeight } from '../shop/tool';
import { MOVE } from '../path/motions';
import { Finding, finding } from '../quantity/finding';
import { Contacts } from './contacts';
import { Course } from './course';
import { Grid } from '../stock/height/field';
import { CHORD, CHORD_WORK, MOST_WORK, Prover, SLOPED, STRETCH_WORK } from './prover';
import { HeightStock } from '../stock/height/height-stock';
import { Cutter } from '../stock/height/sweep';
import { Tiles, Window } from '../stock/height/tiles';
import { drive } from './drive';
import { Told } from './told';

/** Cells of this size are fine enough, mm. */
const FINE = 0.1;
/** Cells of all windows together. */
const MOST_CELLS = 4_000_000;
/** Shank and holder are looked for this often along a motion, mm. */
const STEP = 0.5;
/** A cutter that is not so many cells wide at this height may pass between the middles of cells. */
const NARROW = { cells: 3, height: 0.05 };

/** Whether a tool may make cuts so narrow that a grid does not show them. */
function isNarrow(tool: Tool, cell: number): boolean {
  const reach = (NARROW.cells * cell) / 2;
  return tool.diameter / 2 <= reach || profileHeight(tool, reach) > NARROW.height;
}

/** Looks closer where it matters: cuts parts of a proved piece once more on finer grids; can be run in steps. */
export class Windows {
  private readonly tiles: Tiles;
  /** Whether each window is to be looked into. */
  private readonly isWanted: Uint8Array;
  /** Motions that reach each window. */
  private readonly reaching: number[][];
  private readonly budget = new Budget(MOST_WORK);
  /** Motion at which the budget was met: windows from there on stay as coarse as the whole. */
  endsAt: number | undefined;
  private at = 0;
  private sorted = 0;
  private opened = 0;

  constructor(private readonly prover: Prover) {
    this.tiles = new Tiles(prover.field);
    this.isWanted = new Uint8Array(this.tiles.count);
    this.reaching = Array.from(this.isWanted, () => []);
  }

  /** Whether the grid of the whole is fine enough everywhere. */
  get isFine(): boolean {
    return Math.round(this.prover.stock.grain / FINE) < 2;
  }

  get done(): boolean {
    return this.isFine || this.endsAt !== undefined || this.opened >= this.isWanted.length;
  }

  /** Share of the windows looked into, 0..1. */
  get progress(): number {
    return this.opened / this.isWanted.length;
  }

  /** Size of their cells, mm; that of the whole where there are none. */
  get cell(): number {
    return this.prover.stock.grain / this.times;
  }

  private get times(): number {
    const cells = Tiles.cells(this.isWanted.reduce((sum, is) => sum + is, 0));
    const most = cells ? Math.floor(Math.sqrt(MOST_CELLS / cells)) : 1;
    return Math.max(1, Math.min(most, Math.round(this.prover.stock.grain / FINE)));
  }

  /** Asks for a closer look at these cells of the whole; narrow cuts, rapids and shanks in the metal are looked at anyway. */
  want(cells: Uint8Array): void {
    cells.forEach((is, i) => {
      if (is) this.isWanted[this.tiles.of(i)] = 1;
    });
  }

  /** Sorts up to `most` further motions by the windows they reach; when all are, cuts the next window. */
  advance(most: number): Window | undefined {
    if (this.sort(most)) return undefined;
    while (!this.done && !this.isWanted[this.opened]) this.opened++;
    return this.done ? undefined : this.window(this.opened++);
  }

  /** A part of the piece, or all of it, on another grid. */
  on(grid: Grid, budget = new Budget(MOST_WORK)): Pick<Window, 'field' | 'owner'> {
    this.sort(Infinity);
    const { input, contacts } = this.prover;
    const stock = HeightStock.on(grid, input.stock, input.left);
    const seen = new Contacts(input, stock, new Told(input.motions));
    withinBudget(
      () => this.cut(grid, stock, budget, seen),
      () => void (this.endsAt = this.at),
    );
    contacts.told.add(seen.told);
    return { field: stock.field, owner: stock.owner };
  }

  /** The piece on another grid, or a part of one, as it was before a motion. */
  before(motion: number, grid: Grid, budget: Budget): HeightStock {
    this.sort(Infinity);
    const { input } = this.prover;
    const stock = HeightStock.on(grid, input.stock, input.left);
    this.cut(grid, stock, budget, undefined, motion);
    return stock;
  }

  /** Cuts what reaches a grid, up to a motion. */
  private cut(grid: Grid, stock: HeightStock, budget: Budget, seen?: Contacts, until = Infinity): void {
    const { input, cutters } = this.prover;
    for (const i of this.reachingInto(grid)) {
      if (i >= until) return;
      this.at = i;
      this.motion(i, cutters.get(input.motions.tool[i])!, stock, seen, budget);
    }
  }

  /** Told where not every window could be looked into. */
  findings(): Finding[] {
    if (this.endsAt === undefined) return [];
    return [finding('look-too-long', {}, { line: this.prover.input.motions.line[this.endsAt], motion: this.endsAt })];
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
    this.tiles.eachIn(course.bounds(reach), (tile) => {
      this.reaching[tile].push(i);
      if (isTold) this.isWanted[tile] = 1;
    });
  }

  /** Motions that reach a grid, in their order. */
  private reachingInto(grid: Grid): number[] {
    const lists: number[][] = [];
    this.tiles.eachUnder(grid, (tile) => lists.push(this.reaching[tile]));
    return lists.length === 1 ? lists[0] : [...new Set(lists.flat())].sort((a, b) => a - b);
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
    const isTold = beside > radius || motions.type[i] === MOVE.rapid || isNarrow(tool, this.prover.stock.grain);
    return { reach: Math.max(radius, beside), isTold };
  }

  private window(tile: number): Window | undefined {
    const { grid, ...place } = this.tiles.finer(tile, this.times);
    const found = this.on(grid, this.budget);
    return this.endsAt === undefined ? { ...found, ...place } : undefined;
  }

  /** Cuts what a motion reaches of a grid. */
  private motion(i: number, cutter: Cutter, part: HeightStock, seen: Contacts | undefined, budget: Budget): void {
    const { motions, zero, tools, stock } = this.prover.input;
    const { minX, minY, maxX, maxY } = part.bounds;
    const tool = tools.get(motions.tool[i])!;
    const course = Course.of(motions, i, zero)!;
    if (course.length < 1e-9) return;
    const { reach, isTold } = this.closeness(i, tool, stock.top - Math.min(course.from.z, course.to.z));
    const chords = course.chords(CHORD * (course.isSloped ? SLOPED : 1));
    const n = Math.max(chords, reach > cutter.radius ? Math.ceil(course.length / STEP) : 1);
    budget.spend(n * CHORD_WORK);
    drive(part, cutter, i, n, (k) => (k === 0 ? course.from : course.at(k / n)), {
      passesBy: (a, b) =>
        Math.max(a.x, b.x) + reach < minX ||
        Math.min(a.x, b.x) - reach > maxX ||
        Math.max(a.y, b.y) + reach < minY ||
        Math.min(a.y, b.y) - reach > maxY,
      bite: ({ depth, cells }, at) => {
        budget.spend(STRETCH_WORK + cells);
        if (isTold) seen?.touch(i, tool, at, depth);
      },
    });
  }
}
