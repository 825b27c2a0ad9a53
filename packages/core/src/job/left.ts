import { Region } from '../geometry/clip';
import { Turn } from '../part/side';
import { HeightField, eachInside, makePiles, pileOf, setPile } from '../simulate/field';

/** Where a piece is turned: the middle of the part, and how thick that is, mm. */
export interface TurnedAbout {
  x: number;
  y: number;
  thickness: number;
}

/**
 * What a setup left as it lies in the next.
 * @param floor underside of the metal where nothing is known below
 */
export function turnedField(field: HeightField, turn: Turn, about: TurnedAbout, floor: number): HeightField {
  const { nx, ny, cell } = field;
  const next = makePiles({
    ...field,
    x0: turn.x ? 2 * about.x - field.x0 - nx * cell : field.x0,
    y0: turn.y ? 2 * about.y - field.y0 - ny * cell : field.y0,
  });
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
 */
export function dropLoose(field: HeightField, part: Region, floor: number): void {
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
}
