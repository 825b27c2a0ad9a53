import fc from 'fast-check';
import {
  Body,
  UPS,
  isFlat,
  isOnSide,
  turnBetween,
  turnPlace,
  turnPoint,
  turnedBody,
  turnsOver,
} from '../../part/plate/turn';
import { HeightField, emptyField, makePiles, pileOf, setPile, volumeOf } from './field';
import { dropFar, dropLoose, resampled, turnedField, turnedGrid } from './turned';

const FLOOR = -20;
const about: Body = { x: 6, y: 4, size: [20, 14, 10] };
const up = fc.constantFrom(...UPS.filter((u) => !isOnSide(u)));

/** A piece of 7 x 5 cells of 2 mm whose piles depend on a number: whole, thinned from either side, parted by a slot, or gone. */
function piece(seed: number): HeightField {
  const field = makePiles({ x0: -1, y0: -2, cell: 2, nx: 7, ny: 5 });
  for (let i = 0; i < 35; i++) {
    const kind = (i * 7 + seed) % 5;
    const lift = ((i * 3 + seed) % 4) * 0.5;
    setPile(field, i, [[1, FLOOR], [-3 - lift, FLOOR], [1 - lift, -14], [1, -6 + lift, -12, FLOOR], []][kind]);
  }
  return field;
}

const middle = ({ x0, y0, cell, nx }: HeightField, i: number) => ({
  x: x0 + ((i % nx) + 0.5) * cell,
  y: y0 + (Math.floor(i / nx) + 0.5) * cell,
});

test('a piece turned any way keeps its metal, each pile at its place and the right way up', () => {
  fc.assert(
    fc.property(up, up, fc.integer({ min: 0, max: 40 }), (from, to, seed) => {
      const field = piece(seed);
      const turn = turnBetween(from, to);
      const turned = turnedField(field, turn, about, FLOOR);
      const below = turnsOver(turn) ? -10 - FLOOR - 40 : FLOOR;
      expect(volumeOf(turned, below)).toBeCloseTo(volumeOf(field, FLOOR), 6);
      for (let i = 0; i < 35; i++) {
        const { x, y } = turnPoint(turn, middle(field, i), about);
        const column = Math.floor((x - turned.x0) / turned.cell);
        const at = Math.floor((y - turned.y0) / turned.cell) * turned.nx + column;
        const was = pileOf(field, i, FLOOR);
        expect(pileOf(turned, at, below)).toEqual(turnsOver(turn) ? was.reverse().map((z) => -10 - z) : was);
      }
    }),
    { numRuns: 120, seed: 11 },
  );
});

test('turned there and back it is as it was, its grid too', () => {
  fc.assert(
    fc.property(up, up, fc.integer({ min: 0, max: 40 }), (from, to, seed) => {
      const field = piece(seed);
      const there = turnedField(field, turnBetween(from, to), about, FLOOR);
      const again = turnedField(there, turnBetween(to, from), about, FLOOR);
      expect(turnedGrid(there, turnBetween(to, from), about)).toMatchObject({ nx: 7, ny: 5, x0: -1, y0: -2 });
      for (let i = 0; i < 35; i++) expect(pileOf(again, i, FLOOR)).toEqual(pileOf(field, i, FLOOR));
    }),
    { numRuns: 60, seed: 12 },
  );
});

/** A block of 30.3 x 21.7 x 9 with a step, a pocket that has a roof, and a bore; whether metal is at a place is known exactly. */
const STEPPED: Body = { x: 15.15, y: 10.85, size: [30.3, 21.7, 9] };
function isMetal({ x, y, z }: { x: number; y: number; z: number }): boolean {
  if (x < 0 || x > 30.3 || y < 0 || y > 21.7 || z < -9 || z > 0) return false;
  if (x > 20 && z > -3.1) return false;
  if (x > 4 && x < 12 && y > 5 && y < 15 && z < -2.4 && z > -6.2) return false;
  return (x - 15) ** 2 + (y - 16) ** 2 > 9;
}

function stepped(cell: number): HeightField {
  const field = makePiles(emptyField({ x0: 0, y0: 0, cell, nx: Math.ceil(30.3 / cell), ny: Math.ceil(21.7 / cell) }));
  for (let i = 0; i < field.height.length; i++) {
    const { x, y } = middle(field, i);
    const levels = [0, -2.4, -3.1, -6.2, -9];
    const solid = levels.slice(1).map((z, k) => isMetal({ x, y, z: (z + levels[k]) / 2 }));
    const pile = levels.filter((_, k) => (solid[k - 1] ?? false) !== (solid[k] ?? false));
    setPile(field, i, pile);
  }
  return field;
}

test('set on any other side a piece keeps its volume within 0.5 %, and its walls within a cell', () => {
  const cell = 0.15;
  const field = stepped(cell);
  const was = volumeOf(field, -9);
  for (const to of UPS) {
    const turn = turnBetween('top', to);
    if (isFlat(turn)) continue;
    const set = turnedField(field, turn, STEPPED, -9);
    expect(Math.abs(volumeOf(set, NaN) / was - 1)).toBeLessThan(0.005);
    const coarse = resampled(set, { ...set, cell: 2 * set.cell, nx: Math.ceil(set.nx / 2), ny: Math.ceil(set.ny / 2) });
    expect(Math.abs(volumeOf(coarse, NaN) / was - 1)).toBeLessThan(0.03);
    const there = (p: { x: number; y: number; z: number }) => {
      const { x, y, z } = turnPlace(turn, p, STEPPED);
      const [i, j] = [Math.floor((x - set.x0) / set.cell), Math.floor((y - set.y0) / set.cell)];
      const pile = i < 0 || j < 0 || i >= set.nx || j >= set.ny ? [] : pileOf(set, j * set.nx + i, NaN);
      return pile.some((top, k) => k % 2 === 0 && top > z && pile[k + 1] < z);
    };
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 31, noNaN: true }),
        fc.double({ min: -1, max: 23, noNaN: true }),
        fc.double({ min: -10, max: 1, noNaN: true }),
        (x, y, z) => {
          const around = [-cell, 0, cell].flatMap((a) =>
            [-cell, 0, cell].flatMap((b) => [-cell, 0, cell].map((c) => isMetal({ x: x + a, y: y + b, z: z + c }))),
          );
          fc.pre(around.every((m) => m === around[0]));
          expect(there({ x, y, z })).toBe(around[0]);
        },
      ),
      { numRuns: 300, seed: 5 },
    );
    // Set back as it lay, it is as it was but for the same.
    const again = turnedField(set, turnBetween(to, 'top'), turnedBody(turn, STEPPED), Math.min(...[0, -40]));
    expect(Math.abs(volumeOf(again, NaN) / was - 1)).toBeLessThan(0.01);
  }
});

/** Two blocks with a gap of one column between them; the part lies in the left one. */
function parted() {
  const field = makePiles({ x0: 0, y0: 0, cell: 1, nx: 9, ny: 4 });
  for (let i = 0; i < 36; i++) setPile(field, i, i % 9 === 5 ? [] : [0, FLOOR]);
  const part = [
    [
      { x: 1, y: 1 },
      { x: 3, y: 1 },
      { x: 3, y: 3 },
      { x: 1, y: 3 },
    ],
  ];
  return { field, part };
}

test('what no longer hangs together with the part falls away', () => {
  const { field, part } = parted();
  const held = dropLoose(field, part, FLOOR);
  expect(volumeOf(field, FLOOR)).toBeCloseTo(5 * 4 * 20, 6);
  expect([...held].filter(Boolean)).toHaveLength(20);
});

test('a bridge holds both', () => {
  const { field, part } = parted();
  setPile(field, 14, [-2, -3]);
  dropLoose(field, part, FLOOR);
  expect(volumeOf(field, FLOOR)).toBeCloseTo(8 * 4 * 20 + 1, 6);
});

test('of a closer look only what lies beside held metal stays', () => {
  const { field: whole, part } = parted();
  const held = dropLoose(whole, part, FLOOR);
  const close = makePiles({ x0: 3, y0: 1, cell: 0.25, nx: 24, ny: 4 });
  for (let i = 0; i < 96; i++) setPile(close, i, [0, FLOOR]);
  dropFar(close, whole, held);
  // Held as far as 5 mm, and a cell of the whole beyond.
  const kept = [...Array(96).keys()].filter((i) => pileOf(close, i, FLOOR).length > 0);
  expect(Math.max(...kept.map((i) => middle(close, i).x))).toBeCloseTo(5.875, 9);
  expect(kept).toHaveLength(12 * 4);
});
