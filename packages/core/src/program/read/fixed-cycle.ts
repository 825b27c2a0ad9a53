import { CycleKind } from '../../shop/controller';
import { expandCycle } from '../../operation/cycle';
import { Path } from '../../path/path';
import { Finding, finding } from '../../quantity/finding';
import { Word } from './words';

/** A drilling cycle as a program gives it: what a line leaves out stays as it was. Lengths mm, times s. */
export class FixedCycle {
  /** Bottom of the hole, and the height where feed begins. */
  z = NaN;
  r = NaN;
  /** Depth of a peck; wait at the bottom. */
  private q = 0;
  p = 0;

  constructor(
    private readonly kind: CycleKind,
    /** Height at which it was called. */
    readonly initial: number,
  ) {}

  /** Takes what a line says of it; incremental heights are counted from where they start. */
  take(words: Word[], absolute: boolean, scale: number): void {
    const given = (letter: string) => words.find((w) => w.letter === letter);
    const [r, z, q, p] = ['R', 'Z', 'Q', 'P'].map(given);
    if (r) this.r = (absolute ? 0 : this.initial) + r.value * scale;
    if (z) this.z = (absolute ? 0 : this.r) + z.value * scale;
    if (q) this.q = Math.abs(q.value * scale);
    if (p) this.p = p.hasPoint ? p.value : p.value / 1000;
  }

  get isWhole(): boolean {
    return !Number.isNaN(this.z) && !Number.isNaN(this.r);
  }

  /** What speaks against its figures. */
  get fault(): Finding | undefined {
    if (this.z >= this.r) return finding('cycle-upside-down', { z: this.z, r: this.r });
    const pecks = this.kind === 'peck' || this.kind === 'chip-break';
    return pecks && this.q <= 0 ? finding('cycle-without-peck', {}) : undefined;
  }

  /** The moves of one hole, from a height down and back up to another. */
  hole(x: number, y: number, from: number, hop: number, feed: number): Path {
    return expandCycle({
      kind: this.kind,
      holes: [{ x, y, z: this.z, hop }],
      start: this.r,
      clearance: Math.max(from, this.r),
      peck: this.q,
      lessen: 0,
      dwell: 0,
      feed,
      stops: 'none',
    });
  }
}
