import type { Path } from './path';

/** What a program makes the machine do, in order: flat arrays that grow. Lengths mm in work coordinates, feeds mm/min. */

export const MOVE = { rapid: 0, line: 1, arcCw: 2, arcCcw: 3, dwell: 4, toolChange: 5 } as const;

export interface Motions {
  count: number;
  type: Uint8Array;
  /** Program line, from 1. */
  line: Uint32Array;
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
  cx: Float64Array;
  cy: Float64Array;
  feed: Float64Array;
  rpm: Float64Array;
  tool: Uint16Array;
  /** Length of a dwell. */
  seconds: Float64Array;
}

type Columns = Omit<Motions, 'count'>;
export type Motion = { [K in keyof Columns]: number };

const make = (size: number): Columns => ({
  type: new Uint8Array(size),
  line: new Uint32Array(size),
  x: new Float64Array(size),
  y: new Float64Array(size),
  z: new Float64Array(size),
  cx: new Float64Array(size),
  cy: new Float64Array(size),
  feed: new Float64Array(size),
  rpm: new Float64Array(size),
  tool: new Uint16Array(size),
  seconds: new Float64Array(size),
});
const NAMES = Object.keys(make(0)) as (keyof Columns)[];

/** Collects motions; doubles its room when full. */
export class MotionList {
  private columns = make(1024);
  private size = 1024;
  count = 0;

  push(motion: Motion): void {
    if (this.count === this.size) this.grow();
    const { columns, count: i } = this;
    // Name by name: long programs have millions of motions.
    columns.type[i] = motion.type;
    columns.line[i] = motion.line;
    columns.x[i] = motion.x;
    columns.y[i] = motion.y;
    columns.z[i] = motion.z;
    columns.cx[i] = motion.cx;
    columns.cy[i] = motion.cy;
    columns.feed[i] = motion.feed;
    columns.rpm[i] = motion.rpm;
    columns.tool[i] = motion.tool;
    columns.seconds[i] = motion.seconds;
    this.count++;
  }

  private grow(): void {
    const next = make(this.size * 2);
    for (const name of NAMES) next[name].set(this.columns[name]);
    this.columns = next;
    this.size *= 2;
  }

  build(): Motions {
    const cut = Object.fromEntries(NAMES.map((n) => [n, this.columns[n].slice(0, this.count)])) as unknown as Columns;
    return { count: this.count, ...cut };
  }
}

/** A path as motions of one tool, on no line of any program. */
export function motionsOf({ count, kind, x, y, z, cx, cy, feed }: Path): Motions {
  const none = make(count);
  // The four kinds of moves are numbered alike.
  return { ...none, count, type: kind, x, y, z, cx, cy, feed };
}
