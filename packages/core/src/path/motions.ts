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

const COLUMNS = {
  type: Uint8Array,
  line: Uint32Array,
  x: Float64Array,
  y: Float64Array,
  z: Float64Array,
  cx: Float64Array,
  cy: Float64Array,
  feed: Float64Array,
  rpm: Float64Array,
  tool: Uint16Array,
  seconds: Float64Array,
} as const;

type Columns = { [K in keyof typeof COLUMNS]: InstanceType<(typeof COLUMNS)[K]> };
export type Motion = { [K in keyof typeof COLUMNS]: number };

const names = Object.keys(COLUMNS) as (keyof Columns)[];

function make(size: number): Columns {
  return Object.fromEntries(names.map((n) => [n, new COLUMNS[n](size)])) as unknown as Columns;
}

/** Collects motions; doubles its room when full. */
export class MotionList {
  private columns = make(1024);
  private size = 1024;
  count = 0;

  push(motion: Motion): void {
    if (this.count === this.size) this.grow();
    for (const name of names) this.columns[name][this.count] = motion[name];
    this.count++;
  }

  private grow(): void {
    const next = make(this.size * 2);
    for (const name of names) next[name].set(this.columns[name] as never);
    this.columns = next;
    this.size *= 2;
  }

  build(): Motions {
    const cut = Object.fromEntries(names.map((n) => [n, this.columns[n].slice(0, this.count)])) as unknown as Columns;
    return { count: this.count, ...cut };
  }
}

/** A path as motions of one tool, on no line of any program. */
export function motionsOf({ count, kind, x, y, z, cx, cy, feed }: Path): Motions {
  const none = make(count);
  // The four kinds of moves are numbered alike.
  return { ...none, count, type: kind, x, y, z, cx, cy, feed };
}
