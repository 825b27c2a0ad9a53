import { Grid, HeightField, pileOf } from './field';
import { Allowed, deviation, isWanted } from './wanted';
import { WrongKind, kindOf } from './judged';
import { maths } from '../../quantity/maths';

/** A cut through a piece along X or Y. */
export interface CrossSection {
  along: 'x' | 'y';
  /** First sample and distance to the next, mm. */
  from: number;
  step: number;
  /** Metal of every sample from above: top, underside, top, underside. */
  piles: number[][];
  /** Height every sample should have; undefined where any is right. */
  wanted: (number | undefined)[];
}

/** What stands at a point of a piece. */
export interface Probe {
  x: number;
  y: number;
  /** Height of the topmost metal; undefined where there is none. */
  z?: number;
  /** Height it should have; undefined where any is right. */
  wanted?: number;
  /** How far it is off, mm: above 0 metal is left, below 0 the part is cut into. */
  by: number;
  /** To the nearest metal that stands higher, mm; undefined where none does. */
  wall?: number;
  /** What is wrong there, where anything is. */
  kind?: WrongKind;
  /** Motion that cut it last, −1 where none did. */
  motion: number;
  sections: CrossSection[];
}

/** Steps lower than this are no walls, mm. */
const STEP = 0.1;
/** More samples than this nobody can tell apart. */
const MOST_SAMPLES = 400;

/** A piece that can be probed. */
export interface Probed {
  field: HeightField;
  /** Last motion that cut each cell, −1 for none. */
  owner: Int32Array;
  allowed?: Allowed;
  /** Underside where nothing is known below. */
  floor: number;
}

/** A grid round a point on which distances are exact to a twentieth of a millimetre, and how far it reaches, mm. */
const [CLOSE, REACH] = [0.05, 6];
export const gridAround = (x: number, y: number): Grid => {
  const n = (2 * REACH) / CLOSE;
  return { x0: x - REACH, y0: y - REACH, cell: CLOSE, nx: n, ny: n };
};

/**
 * Probes a piece at a point, part coordinates; undefined beside its grid.
 * @param closer what lies round the point on its own finer grid, where that is known
 */
export function probeAt(of: Probed, x: number, y: number, closer: Probed = of): Probe | undefined {
  const { field } = of;
  const [i, j] = [Math.floor((x - field.x0) / field.cell), Math.floor((y - field.y0) / field.cell)];
  if (i < 0 || j < 0 || i >= field.nx || j >= field.ny) return undefined;
  const near = closer.field;
  const index = Math.floor((y - near.y0) / near.cell) * near.nx + Math.floor((x - near.x0) / near.cell);
  const [z] = pileOf(near, index, of.floor);
  const by = closer.allowed ? deviation(closer.allowed, index, near.height[index], closer.owner[index]) : 0;
  return {
    x,
    y,
    z,
    wanted: wantedAt(closer.allowed, index),
    by,
    kind: by === 0 ? undefined : kindOf(by, closer.owner[index]),
    wall: z === undefined ? undefined : (wallFrom(near, x, y, z, REACH) ?? wallFrom(field, x, y, z)),
    motion: closer.owner[index],
    sections: [sectionOf(of, 'x', j), sectionOf(of, 'y', i)],
  };
}

const wantedAt = (allowed: Allowed | undefined, i: number) =>
  allowed && isWanted(allowed.high[i]) ? allowed.high[i] : undefined;

/** Distance to the nearest cell that stands higher than a step above `z`, if not beyond `reach`. */
function wallFrom(field: HeightField, x: number, y: number, z: number, reach = Infinity): number | undefined {
  const { x0, y0, cell, nx, ny, height } = field;
  let nearest = reach;
  for (let j = 0; j < ny; j++) {
    const dy = Math.max(0, Math.abs(y0 + (j + 0.5) * cell - y) - cell / 2);
    if (dy >= nearest) continue;
    for (let i = 0; i < nx; i++) {
      if (height[j * nx + i] <= z + STEP) continue;
      const d = maths.hypot(Math.max(0, Math.abs(x0 + (i + 0.5) * cell - x) - cell / 2), dy);
      if (d < nearest) nearest = d;
    }
  }
  return nearest < reach ? nearest : undefined;
}

function sectionOf({ field, allowed, floor }: Probed, along: 'x' | 'y', at: number): CrossSection {
  const { nx, ny, cell } = field;
  const count = along === 'x' ? nx : ny;
  const every = Math.ceil(count / MOST_SAMPLES);
  const cells = Array.from({ length: Math.ceil(count / every) }, (_, k) =>
    along === 'x' ? at * nx + k * every : k * every * nx + at,
  );
  return {
    along,
    from: (along === 'x' ? field.x0 : field.y0) + cell / 2,
    step: cell * every,
    piles: cells.map((i) => pileOf(field, i, floor)),
    wanted: cells.map((i) => wantedAt(allowed, i)),
  };
}
