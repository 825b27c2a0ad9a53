import { chordCount } from '../geometry/plane/chain';
import { Bounds, boundsOf, growBounds } from '../geometry/plane/point';
import { Vec3 } from '../geometry/space/vec3';
import { MOVE, Motions } from '../path/motions';
import { sweepOf } from '../path/path';
import { maths } from '../quantity/maths';

/** Points of an arc looked at for the room it takes. */
const ARC_POINTS = 12;

/** The way a tool's tip takes in one motion, part coordinates: a line, an arc or a helix. */
export class Course {
  readonly length: number;
  readonly isSloped: boolean;
  private readonly sweep: number = 0;
  private readonly radius: number = 0;
  private readonly start: number = 0;

  private constructor(
    readonly from: Vec3,
    readonly to: Vec3,
    readonly isArc: boolean,
    private readonly centre: { x: number; y: number },
    type: number,
  ) {
    const drop = to.z - from.z;
    this.isSloped = Math.abs(drop) > 1e-9;
    if (isArc) {
      this.sweep = sweepOf(type, from.x, from.y, to.x, to.y, centre.x, centre.y);
      this.radius = maths.hypot(from.x - centre.x, from.y - centre.y);
      this.start = maths.atan2(from.y - centre.y, from.x - centre.x);
    }
    this.length = maths.hypot(isArc ? this.radius * this.sweep : maths.hypot(to.x - from.x, to.y - from.y), drop);
  }

  /** The course of a motion; undefined where it goes nobody knows where, or stands still by its kind. */
  static of(m: Motions, i: number, zero: Vec3): Course | undefined {
    if (i === 0 || m.type[i] >= MOVE.dwell) return undefined;
    const to = { x: m.x[i] + zero.x, y: m.y[i] + zero.y, z: m.z[i] + zero.z };
    if (Number.isNaN(to.x) || Number.isNaN(to.y)) return undefined;
    const [x, y] = [m.x[i - 1] + zero.x, m.y[i - 1] + zero.y];
    const from = { x: Number.isNaN(x) ? to.x : x, y: Number.isNaN(y) ? to.y : y, z: m.z[i - 1] + zero.z };
    const isArc = m.type[i] === MOVE.arcCw || m.type[i] === MOVE.arcCcw;
    return new Course(from, to, isArc, { x: m.cx[i] + zero.x, y: m.cy[i] + zero.y }, m.type[i]);
  }

  /** How far it goes round, in turns; 0 for a line. */
  get turns(): number {
    return Math.abs(this.sweep) / (2 * Math.PI);
  }

  /** The tip a share of the way along, 0..1. */
  at(t: number): Vec3 {
    const { from, to, centre, radius } = this;
    if (t === 1) return to;
    const z = from.z + (to.z - from.z) * t;
    if (!this.isArc) return { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z };
    const angle = this.start + this.sweep * t;
    return { x: centre.x + radius * maths.cos(angle), y: centre.y + radius * maths.sin(angle), z };
  }

  /** Room it takes from above, with so much all round, mm. */
  bounds(around: number): Bounds {
    const points = this.isArc
      ? Array.from({ length: ARC_POINTS + 1 }, (_, k) => this.at(k / ARC_POINTS))
      : [this.from, this.to];
    // An arc bulges no further beyond its points than this.
    const more = around + (this.isArc ? this.radius * (1 - maths.cos(this.sweep / (2 * ARC_POINTS))) : 0);
    return growBounds(boundsOf(points), more);
  }

  /** How many chords stay within `tolerance` of a share of it; one for a line. */
  chords(tolerance: number, share = 1): number {
    return this.isArc ? chordCount(this.radius, this.sweep * share, tolerance) : 1;
  }
}
