import { chordCount } from '../geometry/chain';
import { MOVE, Motions } from '../program/motions';
import { sweepOf } from '../toolpath/path';
import { Below, HeightField, copyField } from './field';
import type { ProveInput } from './input';
import { stockField } from './stock';
import { Cutter, Sweeper, cutterOf } from './sweep';

interface Snapshot {
  motion: number;
  height: Float32Array;
  below?: Below;
  owner: Int32Array;
}

export interface Moment {
  /** Motion under way. */
  motion: number;
  x: number;
  y: number;
  z: number;
  tool: number;
  line: number;
}

const SNAPSHOTS = 16;
const CHORD = 0.01;

/** The stock at any moment of a program, forwards and backwards, on a grid coarse enough to follow a finger. */
export class Playback {
  readonly field: HeightField;
  private readonly sweeper: Sweeper;
  private readonly fresh: Omit<Snapshot, 'motion'>;
  private readonly cutters = new Map<number, Cutter>();
  private readonly ends: Float64Array;
  private readonly snapshots: Snapshot[] = [];
  /** Motions cut whole, and how far into the next one. */
  private done = 1;
  private part = 0;

  constructor(
    private readonly input: ProveInput,
    seconds: Float64Array,
    cell: number,
  ) {
    this.field = stockField(input.stock, cell, input.left);
    this.sweeper = new Sweeper(this.field, input.stock.bottom);
    this.fresh = { ...copyField(this.field), owner: this.owner.slice() };
    for (const [number, tool] of input.tools) this.cutters.set(number, cutterOf(tool));
    this.ends = new Float64Array(seconds.length);
    let sum = 0;
    seconds.forEach((s, i) => (this.ends[i] = sum += s));
  }

  /** Last motion that cut each cell, −1 for none. */
  get owner(): Int32Array {
    return this.sweeper.owner;
  }

  /** Whether everything has been cut. */
  get isAtEnd(): boolean {
    return this.done >= this.ends.length - 1 && this.part === 1;
  }

  /** Motion under way at a time, s, and how far into it (0..1). */
  private at(time: number): { motion: number; part: number } {
    let low = 0;
    let high = this.ends.length - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.ends[middle] <= time) low = middle + 1;
      else high = middle;
    }
    const start = low > 0 ? this.ends[low - 1] : 0;
    const span = this.ends[low] - start;
    return { motion: low, part: time >= this.ends[this.ends.length - 1] || span <= 0 ? 1 : (time - start) / span };
  }

  /** Cuts or rewinds to a time, s; `field` then shows the stock of that moment. */
  seek(time: number): Moment {
    const goal = this.at(time);
    if (goal.motion < this.done || (goal.motion === this.done && goal.part < this.part)) this.rewind(goal.motion);
    while (this.done < goal.motion) {
      this.stroke(this.done, this.part, 1);
      this.part = 0;
      this.done++;
      this.remember();
    }
    if (goal.motion >= 1 && goal.part > this.part && goal.motion === this.done) {
      this.stroke(goal.motion, this.part, goal.part);
      this.part = goal.part;
    }
    return this.moment(goal.motion, goal.part);
  }

  private rewind(motion: number): void {
    const best = this.snapshots.filter((s) => s.motion <= motion).pop();
    const { owner, ...then } = best ?? this.fresh;
    const { height, below } = copyField({ ...this.field, ...then });
    this.field.height.set(height);
    this.owner.set(owner);
    this.field.below = below;
    this.sweeper.restart();
    this.done = best ? best.motion : 1;
    this.part = 0;
  }

  private remember(): void {
    const every = Math.max(1, Math.ceil(this.input.motions.count / SNAPSHOTS));
    const last = this.snapshots[this.snapshots.length - 1]?.motion ?? 0;
    if (this.done - last >= every) {
      const { height, below } = copyField(this.field);
      this.snapshots.push({ motion: this.done, height, below, owner: this.owner.slice() });
    }
  }

  private stroke(i: number, from: number, to: number): void {
    const { motions: m } = this.input;
    const cutter = this.cutters.get(m.tool[i]);
    if (!cutter || m.type[i] >= MOVE.dwell || to <= from) return;
    const n = this.chords(m, i, to - from);
    let a = this.point(i, from);
    for (let k = 1; k <= n; k++) {
      const b = this.point(i, from + ((to - from) * k) / n);
      if (!Number.isNaN(a.x + a.y + b.x + b.y)) this.sweeper.sweep(cutter, a.x, a.y, a.z, b.x, b.y, b.z, i);
      a = b;
    }
  }

  private chords(m: Motions, i: number, share: number): number {
    if (m.type[i] < MOVE.arcCw) return 1;
    const sweep = sweepOf(m.type[i], m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], m.cx[i], m.cy[i]);
    return chordCount(Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]), sweep * share, CHORD);
  }

  /** Tip position a share of the way along a motion, part coordinates. */
  private point(i: number, t: number): { x: number; y: number; z: number } {
    const { motions: m, zero } = this.input;
    const j = Math.max(0, i - 1);
    const z = m.z[j] + (m.z[i] - m.z[j]) * t + zero.z;
    if (t < 1 && (m.type[i] === MOVE.arcCw || m.type[i] === MOVE.arcCcw)) {
      const sweep = sweepOf(m.type[i], m.x[j], m.y[j], m.x[i], m.y[i], m.cx[i], m.cy[i]);
      const radius = Math.hypot(m.x[j] - m.cx[i], m.y[j] - m.cy[i]);
      const angle = Math.atan2(m.y[j] - m.cy[i], m.x[j] - m.cx[i]) + sweep * t;
      return { x: m.cx[i] + radius * Math.cos(angle) + zero.x, y: m.cy[i] + radius * Math.sin(angle) + zero.y, z };
    }
    const x0 = Number.isNaN(m.x[j]) ? m.x[i] : m.x[j];
    const y0 = Number.isNaN(m.y[j]) ? m.y[i] : m.y[j];
    return { x: x0 + (m.x[i] - x0) * t + zero.x, y: y0 + (m.y[i] - y0) * t + zero.y, z };
  }

  private moment(motion: number, part: number): Moment {
    const { motions: m } = this.input;
    return { motion, ...this.point(motion, part), tool: m.tool[motion], line: m.line[motion] };
  }
}
