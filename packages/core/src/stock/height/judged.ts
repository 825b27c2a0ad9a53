import { Boundary } from '../../geometry/plane/boundary';
import { Region, offset } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Vec3 } from '../../geometry/space/vec3';
import { Grid, HeightField, cellMiddle, eachInside } from './field';
import { Window } from './tiles';
import { Allowed, deviation } from './wanted';

/** How a piece is not as wanted, the worst first: cut into, never there, or left standing. */
export const KINDS = ['cut', 'missing', 'left'] as const;
export type WrongKind = (typeof KINDS)[number];

/** What is wrong with a cell that is off by so much, last cut by `owner`. */
export const kindOf = (by: number, owner: number): WrongKind => (by > 0 ? 'left' : owner < 0 ? 'missing' : 'cut');

/** A piece judged cell by cell; where it was looked at closer, each cell holds the worst that was found in it. */
export interface Judged {
  grid: Grid;
  /** How far it is off, mm: above 0 metal is left, below 0 it lacks; 0 where it is right. */
  off: Float32Array;
  /** Of metal left or lacking, mm³. */
  volume: Float32Array;
  /** Height of the metal there, mm. */
  z: Float32Array;
  /** Last motion that cut there, −1 for none. */
  owner: Int32Array;
  /** How many spots a cell is wide, and the one of each that is worst, counted from 1 row by row; 0 where only its middle was looked at. */
  spots: number;
  spot: Uint16Array;
}

/** Where a cell is worst. */
export function spotOf({ grid, spots, spot }: Judged, i: number): Point {
  if (spot[i] === 0) return cellMiddle(grid, i);
  const [across, along] = [(spot[i] - 1) % spots, Math.floor((spot[i] - 1) / spots)];
  return {
    x: grid.x0 + ((i % grid.nx) + (across + 0.5) / spots) * grid.cell,
    y: grid.y0 + (Math.floor(i / grid.nx) + (along + 0.5) / spots) * grid.cell,
  };
}

/** Cells that are wrong in the same way, by the worst of them. */
export class Wrong {
  private index = -1;
  /** How far it is off there, mm, always above 0. */
  by = 0;
  /** Of all of them, mm³. */
  volume = 0;

  constructor(private readonly judged: Judged) {}

  add(i: number): void {
    const by = Math.abs(this.judged.off[i]);
    this.volume += this.judged.volume[i];
    if (by > this.by) [this.by, this.index] = [by, i];
  }

  get at(): Vec3 {
    return { ...spotOf(this.judged, this.index), z: this.judged.z[this.index] };
  }

  /** Motion that cut last where it is worst, −1 for none. */
  get motion(): number {
    return this.judged.owner[this.index];
  }
}

function addTo<K>(all: Map<K, Wrong>, key: K, judged: Judged, i: number): void {
  const known = all.get(key) ?? new Wrong(judged);
  all.set(key, known);
  known.add(i);
}

/** Gathers what is wrong by a key made from how far it is off, mm, and by which motion; where there is none it is left out. */
export function gathered<K>(judged: Judged, keyOf: (off: number, motion: number) => K | undefined): Map<K, Wrong> {
  const all = new Map<K, Wrong>();
  judged.off.forEach((off, i) => {
    const key = off === 0 ? undefined : keyOf(off, judged.owner[i]);
    if (key !== undefined) addTo(all, key, judged, i);
  });
  return all;
}

/** Metal left in regions, each cell counted in the first it lies in; by feature. */
export function leftIn(judged: Judged, regions: { feature: string; region: Region }[]): Map<string, Wrong> {
  const counted = new Uint8Array(judged.off.length);
  const all = new Map<string, Wrong>();
  for (const { feature, region } of regions.filter((r) => r.region.length)) {
    const boundary = new Boundary(region);
    eachInside(judged.grid, offset(region, judged.grid.cell), (i) => {
      if (counted[i] || judged.off[i] <= 0) return;
      const { x, y } = spotOf(judged, i);
      if (boundary.distance(x, y) < 0) return;
      counted[i] = 1;
      addTo(all, feature, judged, i);
    });
  }
  return all;
}

/** Judges a piece on its own grid. */
export function judge(field: HeightField, owner: Int32Array, allowed: Allowed): Judged {
  const off = field.height.map((h, i) => deviation(allowed, i, h, owner[i]));
  const volume = off.map((by) => Math.abs(by) * field.cell * field.cell);
  return {
    grid: field,
    off,
    volume,
    z: field.height.slice(),
    owner: owner.slice(),
    spots: 1,
    spot: new Uint16Array(off.length),
  };
}

/** The worst of what was judged in each cell of a coarser grid, mm: what cuts into the part before what is left. */
export function worstOn(judged: Judged, grid: Grid): Float32Array {
  const worst = new Float32Array(grid.nx * grid.ny);
  judged.off.forEach((off, i) => {
    if (off === 0) return;
    const { x, y } = spotOf(judged, i);
    const [column, row] = [Math.floor((x - grid.x0) / grid.cell), Math.floor((y - grid.y0) / grid.cell)];
    if (column < 0 || row < 0 || column >= grid.nx || row >= grid.ny) return;
    const known = worst[row * grid.nx + column];
    const isWorse = off < 0 ? off < known : known >= 0 && off > known;
    if (isWorse) worst[row * grid.nx + column] = off;
  });
  return worst;
}

/** The cells at which what is wanted goes up or down: the walls and edges of the part. */
export function walls({ nx, ny }: Grid, { low, high }: Allowed): Uint8Array {
  const are = new Uint8Array(nx * ny);
  const meet = (i: number, k: number) => {
    if (low[i] !== low[k] || high[i] !== high[k]) are[i] = are[k] = 1;
  };
  for (let i = 0; i < are.length; i++) {
    const [isLast, isTop] = [i % nx === nx - 1, i + nx >= are.length];
    if (!isLast) meet(i, i + 1);
    if (!isTop) meet(i, i + nx);
    if (!isLast && !isTop) meet(i, i + nx + 1);
    if (!isTop && i % nx > 0) meet(i, i + nx - 1);
  }
  return are;
}

/**
 * Puts what a closer look shows in the place of what was judged before.
 * @param allowed what is wanted on the window's grid
 */
export function lookCloser(judged: Judged, window: Window, allowed: Allowed): void {
  const { field, columns, rows, times } = window;
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++)
      closerCell(
        judged,
        (window.row + j) * judged.grid.nx + window.column + i,
        window,
        allowed,
        j * times * field.nx + i * times,
      );
  judged.spots = times;
}

/** A cell of the whole, by the cells of a window that lie in it from `start` on. */
function closerCell(
  judged: Judged,
  at: number,
  { field, owner, times }: Window,
  allowed: Allowed,
  start: number,
): void {
  let [rank, by, sum] = [KINDS.length as number, 0, 0];
  for (let k = 0; k < times * times; k++) {
    const i = start + Math.floor(k / times) * field.nx + (k % times);
    const off = deviation(allowed, i, field.height[i], owner[i]);
    if (off === 0) continue;
    const its = KINDS.indexOf(kindOf(off, owner[i]));
    if (its > rank) continue;
    if (its < rank) [rank, by, sum] = [its, 0, 0];
    sum += Math.abs(off);
    if (Math.abs(off) <= Math.abs(by)) continue;
    by = off;
    judged.spot[at] = k + 1;
    judged.z[at] = field.height[i];
    judged.owner[at] = owner[i];
  }
  judged.off[at] = by;
  judged.volume[at] = sum * field.cell * field.cell;
}
