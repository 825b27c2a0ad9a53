/** What a proved setup leaves for a later one. */
import { Bounds } from '../geometry/plane/point';
import { placesOfCopies } from '../document/copies';
import { Job, Setup } from '../document/job';
import { bodyAs } from '../part/plate/side';
import { Body, Turn, back, isFlat } from '../part/plate/turn';
import { Grid, HeightField, cellMiddle, copyField, setPile, volumeOf } from '../stock/height/field';
import { Piece } from '../stock/height/height-stock';
import { dropFar, dropLoose, resampled, tiled, turnedField, turnedGrid } from '../stock/height/turned';
import { Ground, turnOf } from './ground';

/** What a proved setup leaves, as it lies in a later one; pieces that came loose are gone. */
export function leavings(job: Job, from: Ground, to: Setup, piece: Piece): Piece {
  const { model, stock, setup } = from;
  const about = bodyAs(job.part, from.setup.up ?? 'top');
  const turn = turnOf(from.setup, to);
  const field = copyField(piece.field);
  const held = dropLoose(field, model.outline, stock.bottom);
  const all = { field, held, about, turn, floor: stock.bottom };
  return tiled(onward(piece, all, firstOf(job, setup)), placesOfCopies(to), stock.bottom);
}

/** The place of the first of many parts on its blank, sawn off half way to the next; all of it where there is but one. */
function firstOf(job: Job, { up = 'top', copies }: Setup): Bounds | undefined {
  if (!copies || copies.columns * copies.rows === 1) return undefined;
  const { x, y, size } = bodyAs(job.part, up);
  const half = (count: number, pitch: number, wide: number) => (count > 1 ? (pitch - wide) / 2 : FAR);
  const [right, back] = [half(copies.columns, copies.dx, size[0]), half(copies.rows, copies.dy, size[1])];
  return { minX: -FAR, minY: -FAR, maxX: x + size[0] / 2 + right, maxY: y + size[1] / 2 + back };
}

/** Farther than any piece reaches, mm. */
const FAR = 1e6;

/** Takes away what lies beyond a place. */
function cropped(field: HeightField, within: Bounds | undefined): HeightField {
  if (!within) return field;
  for (let i = 0; i < field.height.length; i++) {
    const { x, y } = cellMiddle(field, i);
    if (x > within.maxX || y > within.maxY || x < within.minX || y < within.minY) setPile(field, i, []);
  }
  return field;
}

/** A piece as it goes on into the next setup. */
function onward(
  piece: Piece,
  all: { field: HeightField; held: Uint8Array; about: Body; turn: Turn; floor: number },
  within: Bounds | undefined,
): Piece {
  const { field, held, about, turn, floor } = all;
  const turned = turnedField(cropped(field, within), turn, about, floor);
  if (!isFlat(turn)) return setUpright(field, turned, floor);
  const on = (grid: Grid) => {
    const part = piece.on(turnedGrid(grid, back(turn), about));
    dropFar(part, field, held);
    return turnedField(cropped(part, within), turn, about, floor);
  };
  return { field: turned, on, upright: piece.upright };
}

/** A piece with another side up, and how well it is known then. */
function setUpright(before: HeightField, field: HeightField, floor: number): Piece {
  const [was, is] = [volumeOf(before, floor), volumeOf(field, floor)];
  return {
    field,
    on: (grid) => resampled(field, grid),
    upright: { within: before.cell, volume: was > 0 ? is / was - 1 : 0 },
  };
}
