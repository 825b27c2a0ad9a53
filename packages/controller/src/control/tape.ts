/**
 * What the machine really does: the motions of a program in the order they run here, each where what was entered puts it. A register
 * shorter than its tool sends the tip lower; a zero that is off moves everything.
 */
import { MOVE, MotionList, Motions } from '@tidypath/core';
import type { Place } from './place';

/** A leg of a program as it runs: from one motion up to another, with what is entered then. */
export interface Leg {
  from: number;
  /** Up to this motion, not with it. */
  to: number;
  /** Zero as entered against the true one, mm. */
  zero: Place;
  /** Length registers against the tool's true length, mm, by the number the program calls; 0 where none is said. */
  lengths: Readonly<Record<number, number>>;
  /** What stands in the spindle where another tool was asked for; 0 is none, or one that broke off. */
  spindle: Readonly<Record<number, number>>;
  /** Steps that were lost, mm. */
  lost: Place;
  /** How high above the part it is tried, mm. */
  lift: number;
}

/** Motions as they run, and which of the program's each is; −1 for one the control adds on its way back into a program. */
export interface Tape {
  motions: Motions;
  source: Int32Array;
}

const COLUMNS = ['type', 'line', 'x', 'y', 'z', 'cx', 'cy', 'feed', 'rpm', 'tool', 'seconds'] as const;
type Row = Record<(typeof COLUMNS)[number], number>;
const rowOf = (m: Motions, i: number) => Object.fromEntries(COLUMNS.map((c) => [c, m[c][i]])) as Row;

/** Home is where it is, whatever is entered. */
const AT_HOME = 1e-6;

/** A motion where a leg puts it. */
function placed(row: Row, { zero, lengths, spindle, lost, lift }: Leg, homeZ: number): Row {
  const [dx, dy] = [zero.x + lost.x, zero.y + lost.y];
  const dz = row.z >= homeZ - AT_HOME ? 0 : zero.z + lost.z + lift + (lengths[row.tool] ?? 0);
  return {
    ...row,
    x: row.x + dx,
    y: row.y + dy,
    z: row.z + dz,
    cx: row.cx + dx,
    cy: row.cy + dy,
    tool: spindle[row.tool] ?? row.tool,
  };
}

/** The way back into a program: up, the tool it wants, over the place, and down to it. */
function approach(from: Row | undefined, to: Row, homeZ: number): Row[] {
  const rapid = { ...to, type: MOVE.rapid, feed: 0, cx: 0, cy: 0, seconds: 0 };
  const change = from?.tool === to.tool ? [] : [{ ...rapid, type: MOVE.toolChange, z: homeZ }];
  const up = from ? [{ ...rapid, tool: from.tool, rpm: from.rpm, x: from.x, y: from.y, z: homeZ }] : [];
  return [...up, ...change, { ...rapid, z: homeZ }, rapid];
}

/** The legs of a program one after the other, as the machine runs them. @param homeZ height of the tip with the spindle at home */
export function tapeOf(program: Motions, legs: readonly Leg[], homeZ: number): Tape {
  const list = new MotionList();
  const source: number[] = [];
  let last: Row | undefined;
  const put = (row: Row, from: number) => {
    list.push(row);
    source.push(from);
    last = row;
  };
  legs.forEach((leg, k) => {
    const goesOn = k > 0 && legs[k - 1].to === leg.from;
    if (!goesOn && leg.from > 0) {
      const start = placed(rowOf(program, leg.from - 1), leg, homeZ);
      for (const row of approach(last, { ...start, rpm: program.rpm[leg.from] }, homeZ)) put(row, -1);
    }
    for (let i = leg.from; i < leg.to; i++) put(placed(rowOf(program, i), leg, homeZ), i);
  });
  return { motions: list.build(), source: Int32Array.from(source) };
}
