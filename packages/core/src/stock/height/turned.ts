import { Region } from '../../geometry/plane/clip';
import { boundsOf } from '../../geometry/plane/point';
import { Turn, turnPoint } from '../../part/plate/side';
import { Grid, HeightField, cellMiddle, eachInside, makePiles, pileOf, setPile } from './field';

/** Where a piece is turned: the middle of the part, and how thick that is, mm. */
export interface TurnedAbout {
  x: number;
  y: number;
  thickness: number;
}

/** A grid as it lies when the piece is turned. */
export function turnedGrid({ x0, y0, cell, nx, ny }: Grid, turn: Turn, about: TurnedAbout): Grid {
  const corners = [
    { x: x0, y: y0 },
    { x: x0 + nx * cell, y: y0 + ny * cell },
  ].map((p) => turnPoint(turn, p, about));
  const { minX, minY } = boundsOf(corners);
  return { x0: minX, y0: minY, cell, nx: turn.swap ? ny : nx, ny: turn.swap ? nx : ny };
}

/**
 * What a setup left as it lies in the next.
 * @param floor underside of the metal where nothing is known below
 */
export function turnedField(field: HeightField, turn: Turn, about: TurnedAbout, floor: number): HeightField {
  const { nx, ny } = field;
  const next = makePiles(turnedGrid(field, turn, about));
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const pile = pileOf(field, j * nx + i, floor);
      const [u, v] = turn.swap ? [j, i] : [i, j];
      const at = (turn.y ? next.ny - 1 - v : v) * next.nx + (turn.x ? next.nx - 1 - u : u);
      setPile(next, at, turn.z ? pile.reverse().map((z) => -about.thickness - z) : pile);
    }
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
