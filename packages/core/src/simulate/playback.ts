import { Course } from './course';
import { HeightField } from '../stock/height/field';
import type { ProveInput } from './input';
import { HeightSnapshot, HeightStock } from '../stock/height/height-stock';
import { Cutter, cutterOf } from '../stock/height/sweep';
import { drive } from './drive';

interface Snapshot {
  motion: number;
  stock: HeightSnapshot;
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
  private readonly stock: HeightStock;
  private readonly fresh: HeightSnapshot;
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
    this.stock = HeightStock.of(input.stock, cell, input.left);
    this.fresh = this.stock.snapshot();
    for (const [number, tool] of input.tools) this.cutters.set(number, cutterOf(tool));
    this.ends = new Float64Array(seconds.length);
    let sum = 0;
    seconds.forEach((s, i) => (this.ends[i] = sum += s));
  }

  /** Last motion that cut each cell, −1 for none. */
  get owner(): Int32Array {
    return this.stock.owner;
  }

  get field(): HeightField {
    return this.stock.field;
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
    this.stock.restore(best?.stock ?? this.fresh);
    this.done = best ? best.motion : 1;
    this.part = 0;
  }

  private remember(): void {
    const every = Math.max(1, Math.ceil(this.input.motions.count / SNAPSHOTS));
    const last = this.snapshots[this.snapshots.length - 1]?.motion ?? 0;
    if (this.done - last >= every) this.snapshots.push({ motion: this.done, stock: this.stock.snapshot() });
  }

  private stroke(i: number, from: number, to: number): void {
    const { motions, zero } = this.input;
    const cutter = this.cutters.get(motions.tool[i]);
    const course = Course.of(motions, i, zero);
    if (!cutter || !course || to <= from) return;
    const n = course.chords(CHORD, to - from);
    drive(this.stock, cutter, i, n, (k) => course.at(from + ((to - from) * k) / n));
  }

  private moment(motion: number, part: number): Moment {
    const { motions: m, zero } = this.input;
    const stands = { x: m.x[motion] + zero.x, y: m.y[motion] + zero.y, z: m.z[motion] + zero.z };
    const at = Course.of(m, motion, zero)?.at(part) ?? stands;
    return { motion, ...at, tool: m.tool[motion], line: m.line[motion] };
  }
}
