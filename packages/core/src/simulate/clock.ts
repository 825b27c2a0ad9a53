import { Axes, accelerationAlong, levelAcceleration, rapidAlong } from '../machine/axes';
import { Machine } from '../machine/machine';
import { MOVE, Motions } from '../path/motions';
import { sweepOf } from '../path/path';
import { maths } from '../quantity/maths';

export interface ClockSettings {
  /** Largest cutting feed, mm/min. */
  maxFeed: number;
  /** How fast each axis runs, and gets there. */
  axes: Axes;
  /** Path tolerance at corners, mm. */
  tolerance: number;
  toolChangeSeconds: number;
  /** Share by which moves take longer than computed. */
  extraTime?: number;
}

/** What the clock needs to know of a machine. */
export const clockSettings = (machine: Machine): ClockSettings => ({
  maxFeed: machine.maxFeed,
  axes: machine.axes,
  tolerance: machine.pathTolerance,
  toolChangeSeconds: machine.toolChangeSeconds,
  extraTime: machine.extraTime,
});

export interface Clock {
  /** Seconds each motion takes. */
  seconds: Float64Array;
  /** Fastest speed each reaches, mm/s; 0 where it does not move. */
  fastest: Float64Array;
  /** Minutes by kind. */
  cut: number;
  rapid: number;
  toolChange: number;
  dwell: number;
  total: number;
  /** Minutes somebody works by hand meanwhile, on top of the total. */
  hand?: number;
}

/** Minutes of a program in all, what is done by hand meanwhile included. */
export const wholeTime = ({ total, hand = 0 }: Pick<Clock, 'total' | 'hand'>): number => total + hand;

/** Fastest speed, mm/s, of a move of `length` mm from speed v0 to v1 with at most v (mm/s) and acceleration a (mm/s²). */
const fastestOf = (length: number, v0: number, v1: number, v: number, a: number) =>
  length <= 0 ? 0 : Math.min(v, Math.sqrt(Math.max(0, a * length + (v0 * v0 + v1 * v1) / 2)));

/** Time, s, of a move of `length` mm from speed v0 to v1 with at most v (mm/s) and acceleration a (mm/s²): a trapezoid. */
export function trapezoid(length: number, v0: number, v1: number, v: number, a: number): number {
  if (length <= 0) return 0;
  const peak = fastestOf(length, v0, v1, v, a);
  const up = (peak * peak - v0 * v0) / (2 * a);
  const down = (peak * peak - v1 * v1) / (2 * a);
  const even = Math.max(0, length - up - down);
  return Math.max(0, (peak - v0) / a) + Math.max(0, (peak - v1) / a) + (even > 0 ? even / peak : 0);
}

/** Fastest speed, mm/s, round a corner of deviation angle θ with path tolerance δ: v² = a·δ·cos(θ/2)/(1 − cos(θ/2)). */
export function cornerSpeed(cosTurn: number, tolerance: number, acceleration: number): number {
  const half = Math.sqrt(Math.max(0, (1 + cosTurn) / 2));
  if (half > 0.999999) return Infinity;
  return Math.sqrt((acceleration * tolerance * half) / (1 - half));
}

/** Length, speed limit, acceleration, and unit tangents at start and end of every motion, in columns; one that goes nowhere has no length. */
class Shapes {
  readonly length: Float64Array;
  readonly limit: Float64Array;
  /** mm/s² along each. */
  readonly acceleration: Float64Array;
  /** x, y, z at the start, then at the end. */
  private readonly tangents: Float64Array;

  constructor(
    m: Motions,
    private readonly settings: ClockSettings,
  ) {
    this.length = new Float64Array(m.count);
    this.limit = new Float64Array(m.count);
    this.acceleration = new Float64Array(m.count);
    this.tangents = new Float64Array(m.count * 6);
    for (let i = 1; i < m.count; i++) {
      const type = m.type[i];
      if (type >= MOVE.dwell) continue;
      const limit = type === MOVE.rapid ? Infinity : Math.min(m.feed[i], settings.maxFeed) / 60;
      if (!(limit > 0)) continue;
      if (type === MOVE.rapid || type === MOVE.line) this.setLine(m, i, limit);
      else this.setArc(m, i, limit);
    }
  }

  private setLine(m: Motions, i: number, limit: number): void {
    const dx = Number.isNaN(m.x[i - 1]) ? 0 : m.x[i] - m.x[i - 1];
    const dy = Number.isNaN(m.y[i - 1]) ? 0 : m.y[i] - m.y[i - 1];
    const dz = m.z[i] - m.z[i - 1];
    const length = maths.hypot(dx, dy, dz);
    if (!(length > 0)) return;
    const { axes } = this.settings;
    const [ux, uy, uz] = [dx / length, dy / length, dz / length];
    this.length[i] = length;
    this.limit[i] = Math.min(limit, rapidAlong(axes, ux, uy, uz) / 60);
    this.acceleration[i] = accelerationAlong(axes, ux, uy, uz);
    for (let k = 0; k < 6; k += 3) this.setTangent(i, k, ux, uy, uz);
  }

  private setArc(m: Motions, i: number, limit: number): void {
    const [x0, y0, cx, cy] = [m.x[i - 1], m.y[i - 1], m.cx[i], m.cy[i]];
    const dz = m.z[i] - m.z[i - 1];
    const sweep = sweepOf(m.type[i], x0, y0, m.x[i], m.y[i], cx, cy);
    const radius = maths.hypot(x0 - cx, y0 - cy);
    const flat = radius * Math.abs(sweep);
    const length = maths.hypot(flat, dz);
    if (!(length > 0)) return;
    this.length[i] = length;
    const acceleration = levelAcceleration(this.settings.axes);
    this.limit[i] = Math.min(limit, Math.sqrt(acceleration * radius));
    this.acceleration[i] = acceleration;
    const s = (Math.sign(sweep) * flat) / length / radius;
    this.setTangent(i, 0, (cy - y0) * s, (x0 - cx) * s, dz / length);
    this.setTangent(i, 3, (cy - m.y[i]) * s, (m.x[i] - cx) * s, dz / length);
  }

  private setTangent(i: number, k: number, x: number, y: number, z: number): void {
    const at = i * 6 + k;
    this.tangents[at] = x;
    this.tangents[at + 1] = y;
    this.tangents[at + 2] = z;
  }

  /** Cosine of the turn from the end of one motion to the start of another. */
  turn(i: number, j: number): number {
    const t = this.tangents;
    const [p, q] = [i * 6 + 3, j * 6];
    return t[p] * t[q] + t[p + 1] * t[q + 1] + t[p + 2] * t[q + 2];
  }
}

/**
 * Cycle time of a program: trapezoids with look-ahead over all moves, corners taken at the speed the machine's path
 * tolerance allows, stops at dwells, tool changes and between rapids and cuts; moves take longer by the share the machine is
 * known to need.
 */
export function clock(m: Motions, settings: ClockSettings): Clock {
  const slower = 1 + (settings.extraTime ?? 0);
  const shapes = new Shapes(m, settings);
  const entry = entrySpeeds(m, shapes, settings);
  const none = { cut: 0, rapid: 0, toolChange: 0, dwell: 0, total: 0 };
  const result: Clock = { seconds: new Float64Array(m.count), fastest: new Float64Array(m.count), ...none };
  for (let i = 0; i < m.count; i++) {
    const type = m.type[i];
    let s: number;
    if (type === MOVE.toolChange) result.toolChange += s = settings.toolChangeSeconds;
    else if (type === MOVE.dwell) result.dwell += s = m.seconds[i];
    else {
      const { length, limit, acceleration } = shapes;
      s = slower * trapezoid(length[i], entry[i], entry[i + 1], limit[i], acceleration[i]);
      result.fastest[i] = fastestOf(length[i], entry[i], entry[i + 1], limit[i], acceleration[i]);
      if (type === MOVE.rapid) result.rapid += s;
      else result.cut += s;
    }
    result.seconds[i] = s;
  }
  result.cut /= 60;
  result.rapid /= 60;
  result.toolChange /= 60;
  result.dwell /= 60;
  result.total = result.cut + result.rapid + result.toolChange + result.dwell;
  return result;
}

/** Speed at the start of each motion (one more entry for the end), after passes backwards and forwards. */
function entrySpeeds(m: Motions, shapes: Shapes, { tolerance }: ClockSettings): Float64Array {
  const { length, limit, acceleration: a } = shapes;
  const v = new Float64Array(m.count + 1);
  let before = -1;
  for (let i = 0; i < m.count; i++) {
    if (length[i] === 0) {
      if (m.type[i] >= MOVE.dwell) before = -1;
      continue;
    }
    if (before >= 0 && (m.type[before] === MOVE.rapid) === (m.type[i] === MOVE.rapid)) {
      v[i] = Math.min(
        limit[before],
        limit[i],
        cornerSpeed(shapes.turn(before, i), tolerance, Math.min(a[before], a[i])),
      );
    }
    before = i;
  }
  for (let i = m.count - 1; i >= 0; i--) {
    if (length[i] === 0) v[i] = Math.min(v[i] || v[i + 1], v[i + 1]);
    else v[i] = Math.min(v[i], Math.sqrt(v[i + 1] * v[i + 1] + 2 * a[i] * length[i]));
  }
  for (let i = 0; i < m.count; i++) {
    if (length[i] > 0) v[i + 1] = Math.min(v[i + 1], Math.sqrt(v[i] * v[i] + 2 * a[i] * length[i]));
  }
  return v;
}
