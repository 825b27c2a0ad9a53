import { Machine } from '../shop/machine';
import { MOVE, Motions } from '../program/motions';
import { sweepOf } from '../toolpath/path';

export interface ClockSettings {
  /** mm/min. */
  rapid: number;
  /** Largest cutting feed, mm/min. */
  maxFeed: number;
  /** mm/s². */
  acceleration: number;
  /** Path tolerance at corners, mm. */
  tolerance: number;
  toolChangeSeconds: number;
}

/** What the clock needs to know of a machine. */
export const clockSettings = (machine: Machine): ClockSettings => ({
  rapid: machine.rapid,
  maxFeed: machine.maxFeed,
  acceleration: machine.acceleration,
  tolerance: machine.pathTolerance,
  toolChangeSeconds: machine.toolChangeSeconds,
});

export interface Clock {
  /** Seconds each motion takes. */
  seconds: Float64Array;
  /** Minutes by kind. */
  cut: number;
  rapid: number;
  toolChange: number;
  dwell: number;
  total: number;
}

/** Time, s, of a move of `length` mm from speed v0 to v1 with at most v (mm/s) and acceleration a (mm/s²): a trapezoid. */
export function trapezoid(length: number, v0: number, v1: number, v: number, a: number): number {
  if (length <= 0) return 0;
  const peak = Math.min(v, Math.sqrt(Math.max(0, a * length + (v0 * v0 + v1 * v1) / 2)));
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

interface Shape {
  length: number;
  /** Unit tangents at start and end. */
  start: [number, number, number];
  end: [number, number, number];
  limit: number;
}

/** Length, tangents and speed limit of every motion. */
function shapes(m: Motions, settings: ClockSettings): Shape[] {
  const out: Shape[] = new Array(m.count);
  for (let i = 0; i < m.count; i++) out[i] = shapeOf(m, i, settings);
  return out;
}

const STILL: Shape = { length: 0, start: [0, 0, 0], end: [0, 0, 0], limit: 0 };

function shapeOf(m: Motions, i: number, settings: ClockSettings): Shape {
  const type = m.type[i];
  if (type >= MOVE.dwell || i === 0) return STILL;
  const [x0, y0, z0] = [m.x[i - 1], m.y[i - 1], m.z[i - 1]];
  const [dx, dy, dz] = [Number.isNaN(x0) ? 0 : m.x[i] - x0, Number.isNaN(y0) ? 0 : m.y[i] - y0, m.z[i] - z0];
  const limit = (type === MOVE.rapid ? settings.rapid : Math.min(m.feed[i], settings.maxFeed)) / 60;
  if (type === MOVE.rapid || type === MOVE.line) {
    const length = Math.hypot(dx, dy, dz);
    if (!(length > 0) || limit <= 0) return STILL;
    const t: Shape['start'] = [dx / length, dy / length, dz / length];
    return { length, start: t, end: t, limit };
  }
  const [cx, cy] = [m.cx[i], m.cy[i]];
  const sweep = sweepOf(type, x0, y0, m.x[i], m.y[i], cx, cy);
  const radius = Math.hypot(x0 - cx, y0 - cy);
  const flat = radius * Math.abs(sweep);
  const length = Math.hypot(flat, dz);
  if (!(length > 0) || limit <= 0) return STILL;
  const s = Math.sign(sweep) * (flat / length);
  const tangent = (x: number, y: number): Shape['start'] => [
    (-(y - cy) / radius) * s,
    ((x - cx) / radius) * s,
    dz / length,
  ];
  return {
    length,
    start: tangent(x0, y0),
    end: tangent(m.x[i], m.y[i]),
    limit: Math.min(limit, Math.sqrt(settings.acceleration * radius) * 1),
  };
}

/**
 * Cycle time of a program: trapezoids with look-ahead over all moves, corners taken at the speed the machine's path
 * tolerance allows, stops at dwells, tool changes and between rapids and cuts.
 */
export function clock(m: Motions, settings: ClockSettings): Clock {
  const a = settings.acceleration;
  const list = shapes(m, settings);
  const entry = entrySpeeds(m, list, settings);
  const result: Clock = { seconds: new Float64Array(m.count), cut: 0, rapid: 0, toolChange: 0, dwell: 0, total: 0 };
  for (let i = 0; i < m.count; i++) {
    const type = m.type[i];
    let s: number;
    if (type === MOVE.toolChange) result.toolChange += s = settings.toolChangeSeconds;
    else if (type === MOVE.dwell) result.dwell += s = m.seconds[i];
    else {
      s = trapezoid(list[i].length, entry[i], entry[i + 1], list[i].limit, a);
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
function entrySpeeds(m: Motions, list: Shape[], { acceleration: a, tolerance }: ClockSettings): Float64Array {
  const v = new Float64Array(m.count + 1);
  let before = -1;
  for (let i = 0; i < m.count; i++) {
    if (list[i].length === 0) {
      if (m.type[i] >= MOVE.dwell) before = -1;
      continue;
    }
    if (before >= 0 && (m.type[before] === MOVE.rapid) === (m.type[i] === MOVE.rapid)) {
      const [p, q] = [list[before].end, list[i].start];
      const turn = p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
      v[i] = Math.min(list[before].limit, list[i].limit, cornerSpeed(turn, tolerance, a));
    }
    before = i;
  }
  for (let i = m.count - 1; i >= 0; i--) {
    if (list[i].length === 0) v[i] = Math.min(v[i] || v[i + 1], v[i + 1]);
    else v[i] = Math.min(v[i], Math.sqrt(v[i + 1] * v[i + 1] + 2 * a * list[i].length));
  }
  for (let i = 0; i < m.count; i++) {
    if (list[i].length > 0) v[i + 1] = Math.min(v[i + 1], Math.sqrt(v[i] * v[i] + 2 * a * list[i].length));
  }
  return v;
}
