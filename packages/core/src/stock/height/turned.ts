import { Region } from '../../geometry/plane/clip';
import { Point, boundsOf } from '../../geometry/plane/point';
import { Body, Turn, isFlat, turnPlace, turnPoint, turnsOver } from '../../part/plate/turn';
import type { Piece } from './height-stock';
import { Grid, HeightField, NOTHING, cellMiddle, eachInside, makePiles, pileOf, setPile } from './field';

/** A grid as it lies when the piece is turned flat. */
export function turnedGrid({ x0, y0, cell, nx, ny }: Grid, turn: Turn, about: Body): Grid {
  const corners = [
    { x: x0, y: y0 },
    { x: x0 + nx * cell, y: y0 + ny * cell },
  ].map((p) => turnPoint(turn, p, about));
  const { minX, minY } = boundsOf(corners);
  const swap = turn.takes[0] === 1;
  return { x0: minX, y0: minY, cell, nx: swap ? ny : nx, ny: swap ? nx : ny };
}

/**
 * What a setup left as it lies in the next.
 * @param about the box of the part as it lay
 * @param floor underside of the metal where nothing is known below
 */
export function turnedField(field: HeightField, turn: Turn, about: Body, floor: number): HeightField {
  if (!isFlat(turn)) return uprightField(field, turn, about, floor);
  const { nx, ny } = field;
  const [isOver, thickness] = [turnsOver(turn), about.size[2]];
  const next = makePiles(turnedGrid(field, turn, about));
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const pile = pileOf(field, j * nx + i, floor);
      const [u, v] = turn.takes[0] === 1 ? [j, i] : [i, j];
      const at = (turn.flips[1] ? next.ny - 1 - v : v) * next.nx + (turn.flips[0] ? next.nx - 1 - u : u);
      setPile(next, at, isOver ? pile.reverse().map((z) => -thickness - z) : pile);
    }
  }
  return next;
}

/** Cells of a piece set upright are as large as they may be for so many of them to fill its height. */
function uprightCell({ cell, height }: HeightField, floor: number): { cell: number; rows: number } {
  const top = height.reduce((most, h) => Math.max(most, h), floor);
  const rows = Math.max(1, Math.ceil((top - floor) / cell - 1e-6));
  return { cell: top > floor ? (top - floor) / rows : cell, rows };
}

/**
 * What a setup left when the next has another side up: the metal is cut into cubes, and piled up again along what is up now. Walls are
 * then known to half a cell.
 */
function uprightField(field: HeightField, turn: Turn, about: Body, floor: number): HeightField {
  const { cell, rows } = uprightCell(field, floor);
  // Along `deep` the piles stand now, along `wide` lay what is beside it, and heights are beside it the other way.
  const deep = turn.takes[2] as 0 | 1;
  const start = [field.x0, field.y0];
  const cells = [field.nx, field.ny];
  const [deepCells, wide] = [cells[deep], deep === 0 ? 1 : 0];
  const columns = Math.max(1, Math.round((cells[wide] * field.cell) / cell));
  const isSwapped = turn.takes[0] === 2;
  const corner = (along: number, up: number, z: number) =>
    turnPlace(turn, deep === 0 ? { x: up, y: along, z } : { x: along, y: up, z }, about);
  const ends = [
    corner(start[wide], start[deep], floor),
    corner(start[wide] + columns * cell, start[deep] + deepCells * field.cell, floor + rows * cell),
  ];
  const { minX: x0, minY: y0 } = boundsOf(ends);
  const next = makePiles({ x0, y0, cell, nx: isSwapped ? rows : columns, ny: isSwapped ? columns : rows });
  const [deepest, highest] = [Math.min(ends[0].z, ends[1].z), Math.max(ends[0].z, ends[1].z)];
  const heightAt = (k: number) => (turn.flips[2] ? highest - k * field.cell : deepest + k * field.cell);
  const rowOf = (z: number) => Math.min(rows, Math.max(0, Math.ceil((z - floor) / cell - 0.5)));
  for (let c = 0; c < columns; c++) {
    const at = Math.min(cells[wide] - 1, Math.floor(((c + 0.5) * cell) / field.cell));
    const pileAt = (k: number) => pileOf(field, deep === 0 ? at * field.nx + k : k * field.nx + at, floor);
    endsAlong((k) => pileAt(k).map(rowOf).reverse(), deepCells, rows).forEach((ends, r) => {
      const [u, v] = isSwapped ? [r, c] : [c, r];
      const cellAt = (turn.flips[1] ? next.ny - 1 - v : v) * next.nx + (turn.flips[0] ? next.nx - 1 - u : u);
      const pile = ends.map(heightAt);
      setPile(next, cellAt, turn.flips[2] ? pile : pile.reverse());
    });
  }
  return next;
}

/**
 * Where the metal of each row begins and ends along a line of piles.
 * @param pileAt rows between which a pile has metal, rising
 */
function endsAlong(pileAt: (k: number) => number[], count: number, rows: number): number[][] {
  const ends = Array.from({ length: rows }, (): number[] => []);
  let before: number[] = [];
  for (let k = 0; k <= count; k++) {
    const now = k < count ? pileAt(k) : [];
    // Between each two of all their ends one has metal and the other has none.
    const differ = isSame(now, before) ? [] : [...before, ...now].sort(rising);
    for (let p = 0; p < differ.length; p += 2) for (let r = differ[p]; r < differ[p + 1]; r++) ends[r].push(k);
    before = now;
  }
  return ends;
}

const rising = (a: number, b: number) => a - b;
const isSame = (a: number[], b: number[]) => a.length === b.length && a.every((v, i) => v === b[i]);

/**
 * The same piece in many places, each as far from the first as is said.
 * @param floor underside of the metal where nothing is known below
 */
export function tiled(piece: Piece, places: Point[], floor: number): Piece {
  if (places.length === 1) return piece;
  const { field } = piece;
  const shifted = ({ x, y }: Point, { x0, y0, ...grid }: Grid): Grid => ({ ...grid, x0: x0 - x, y0: y0 - y });
  const over = (grid: Grid, of: (own: Grid) => HeightField) => {
    const next = makePiles(grid);
    for (const place of places) {
      const own = of(shifted(place, grid));
      for (let i = 0; i < own.height.length; i++) {
        const pile = pileOf(own, i, floor);
        if (pile.length > 0) setPile(next, i, pile);
      }
    }
    return next;
  };
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  const cells = (of: number[]) => Math.ceil((Math.max(...of) - Math.min(...of)) / field.cell);
  const whole = {
    x0: field.x0 + Math.min(...xs),
    y0: field.y0 + Math.min(...ys),
    cell: field.cell,
    nx: field.nx + cells(xs),
    ny: field.ny + cells(ys),
  };
  return {
    ...piece,
    field: over(whole, (own) => resampled(field, own)),
    on: (grid) => over(grid, (own) => piece.on(own)),
  };
}

/** A piece of piles on another grid: each cell what stood at its middle; none where nothing is known. */
export function resampled(field: HeightField, grid: Grid): HeightField {
  const next = makePiles(grid);
  for (let i = 0; i < next.height.length; i++) {
    const { x, y } = cellMiddle(next, i);
    const [column, row] = [Math.floor((x - field.x0) / field.cell), Math.floor((y - field.y0) / field.cell)];
    if (column < 0 || row < 0 || column >= field.nx || row >= field.ny) next.height[i] = NOTHING;
    else setPile(next, i, pileOf(field, row * field.nx + column, NOTHING));
  }
  return next;
}

/**
 * Takes away pieces that have come loose: whatever does not hang together with the part.
 * @param part where the part lies
 * @returns which cells still hold metal
 */
export function dropLoose(field: HeightField, part: Region, floor: number): Uint8Array {
  const { nx, ny, height } = field;
  const held = new Uint8Array(nx * ny);
  const queue: number[] = [];
  const hold = (i: number) => {
    if (held[i] || pileOf(field, i, floor).length === 0) return;
    held[i] = 1;
    queue.push(i);
  };
  eachInside(field, part, hold);
  for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
    const x = i % nx;
    if (x > 0) hold(i - 1);
    if (x < nx - 1) hold(i + 1);
    if (i >= nx) hold(i - nx);
    if (i < nx * (ny - 1)) hold(i + nx);
  }
  for (let i = 0; i < height.length; i++) if (!held[i]) setPile(field, i, []);
  return held;
}

/** Takes away metal of a part of the piece that is more than a cell of the whole from metal which that still holds. */
export function dropFar(field: HeightField, whole: Grid, held: Uint8Array): void {
  const cellOf = (place: number, from: number) => Math.floor((place - from) / whole.cell);
  const isHeld = (column: number, row: number) =>
    column >= 0 && column < whole.nx && row >= 0 && row < whole.ny && held[row * whole.nx + column] === 1;
  const around = [-1, 0, 1];
  for (let i = 0; i < field.height.length; i++) {
    const { x, y } = cellMiddle(field, i);
    const [column, row] = [cellOf(x, whole.x0), cellOf(y, whole.y0)];
    if (!around.some((di) => around.some((dj) => isHeld(column + di, row + dj)))) setPile(field, i, []);
  }
}
