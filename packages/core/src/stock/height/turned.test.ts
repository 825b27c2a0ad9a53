import fc from 'fast-check';
import { UPS, turnBetween, turnPoint } from '../../part/plate/side';
import { HeightField, makePiles, pileOf, setPile, volumeOf } from './field';
import { dropFar, dropLoose, turnedField, turnedGrid } from './turned';

const FLOOR = -20;
const about = { x: 6, y: 4, thickness: 10 };
const up = fc.constantFrom(...UPS);

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
      const below = turn.z ? -about.thickness - FLOOR - 40 : FLOOR;
      expect(volumeOf(turned, below)).toBeCloseTo(volumeOf(field, FLOOR), 6);
      for (let i = 0; i < 35; i++) {
        const { x, y } = turnPoint(turn, middle(field, i), about);
        const column = Math.floor((x - turned.x0) / turned.cell);
        const at = Math.floor((y - turned.y0) / turned.cell) * turned.nx + column;
        const was = pileOf(field, i, FLOOR);
        expect(pileOf(turned, at, below)).toEqual(turn.z ? was.reverse().map((z) => -10 - z) : was);
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
