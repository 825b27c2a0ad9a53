import { Region } from '../geometry/clip';
import { Turn } from '../part/side';
import { middleOf } from '../judge/allowed';
import { Grid, HeightField, eachInside, makePiles, pileOf, setPile } from '../simulate/field';

/** Where a piece is turned: the middle of the part, and how thick that is, mm. */
export interface TurnedAbout {
  x: number;
  y: number;
  thickness: number;
}

/** A grid as it lies when the piece is turned; turned twice it lies as before. */
export const turnedGrid = ({ x0, y0, cell, nx, ny }: Grid, turn: Turn, about: TurnedAbout): Grid => ({
  x0: turn.x ? 2 * about.x - x0 - nx * cell : x0,
  y0: turn.y ? 2 * about.y - y0 - ny * cell : y0,
  cell,
  nx,
  ny,
});

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
      const at = (turn.y ? ny - 1 - j : j) * nx + (turn.x ? nx - 1 - i : i);
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
    const { x, y } = middleOf(field, i);
    const [column, row] = [cellOf(x, whole.x0), cellOf(y, whole.y0)];
    if (!around.some((di) => around.some((dj) => isHeld(column + di, row + dj)))) setPile(field, i, []);
  }
}
