import { Axes } from './frame';

const AXES = ['x', 'y', 'z'] as const;

/**
 * The way of a rapid on a machine whose axes each run at full speed until they are there: a corner where each but the last
 * arrives, then the end. Axes are taken to be equally fast.
 * @param from where it starts, mm; a place that is not known makes it straight
 * @param to where it ends, mm
 */
export function bentWay(from: Axes, to: Axes): Axes[] {
  const far = AXES.map((a) => Math.abs(to[a] - from[a]));
  if (far.some(Number.isNaN)) return [to];
  const corners = [...new Set(far)].filter((d) => d > 0).sort((a, b) => a - b);
  const along = (a: 'x' | 'y' | 'z', d: number) =>
    Math.abs(to[a] - from[a]) <= d ? to[a] : from[a] + Math.sign(to[a] - from[a]) * d;
  return corners.length === 0 ? [to] : corners.map((d) => ({ x: along('x', d), y: along('y', d), z: along('z', d) }));
}
