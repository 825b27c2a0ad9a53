/** Where a tip is on its way. */
import { MOVE, Motions, maths, sweepOf } from '@tidypath/core';

export interface Place {
  x: number;
  y: number;
  z: number;
}

export const ORIGIN: Place = { x: 0, y: 0, z: 0 };

/** The end of a motion. */
export const endOf = (m: Motions, i: number): Place => ({ x: m.x[i], y: m.y[i], z: m.z[i] });

/** The tip a share of the way along a motion, 0..1, as its coordinates count. */
export function placeOn(m: Motions, i: number, share: number): Place {
  const to = endOf(m, i);
  if (i === 0 || share >= 1 || m.type[i] >= MOVE.dwell) return to;
  const from = endOf(m, i - 1);
  const z = from.z + (to.z - from.z) * share;
  if (m.type[i] !== MOVE.arcCw && m.type[i] !== MOVE.arcCcw) {
    const along = (a: number, b: number) => (Number.isNaN(a) ? b : a + (b - a) * share);
    return { x: along(from.x, to.x), y: along(from.y, to.y), z };
  }
  const [cx, cy] = [m.cx[i], m.cy[i]];
  const sweep = sweepOf(m.type[i], from.x, from.y, to.x, to.y, cx, cy);
  const radius = maths.hypot(from.x - cx, from.y - cy);
  const angle = maths.atan2(from.y - cy, from.x - cx) + sweep * share;
  return { x: cx + radius * maths.cos(angle), y: cy + radius * maths.sin(angle), z };
}

/** The axis a motion moves most, and which way. */
export function mainAxis(m: Motions, i: number): { axis: keyof Place; way: 1 | -1 } {
  const [a, b] = [endOf(m, Math.max(0, i - 1)), endOf(m, i)];
  const axes = (['x', 'y', 'z'] as const).map((axis) => ({ axis, by: b[axis] - a[axis] || 0 }));
  const { axis, by } = axes.reduce((most, one) => (Math.abs(one.by) > Math.abs(most.by) ? one : most));
  return { axis, way: by < 0 ? -1 : 1 };
}
