import { DIRECTIONS, type Angle, type Segments } from './terms';

/** More lines than this nobody tells apart while he waits. */
const MOST = 4000;

type Vec = [number, number, number];
const cross = ([a, b, c]: Vec, [d, e, f]: Vec): Vec => [b * f - c * e, c * d - a * f, a * e - b * d];
const unit = (v: Vec): Vec => {
  const length = Math.hypot(...v);
  return [v[0] / length, v[1] / length, v[2] / length];
};

/** Edges as they are seen from a side, as a path for SVG with the box it needs: x to the right, y down, mm. */
export function outlineOf(
  { positions }: Segments,
  angle: Angle,
): { path: string; box: [number, number, number, number] } {
  const view = unit(DIRECTIONS[angle].map((v) => -v) as Vec);
  const right = unit(cross(view, [0, 0, 1]));
  const up = cross(right, view);
  const on = (axis: Vec, i: number) => axis[0] * positions[i] + axis[1] * positions[i + 1] + axis[2] * positions[i + 2];
  const every = Math.max(1, Math.ceil(positions.length / 6 / MOST));
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  const at = (i: number) => {
    const [x, y] = [on(right, i), -on(up, i)];
    [x, y].forEach((v, k) => ([low[k], high[k]] = [Math.min(low[k], v), Math.max(high[k], v)]));
    return `${x.toFixed(2)} ${y.toFixed(2)}`;
  };
  let path = '';
  for (let i = 0; i + 5 < positions.length; i += 6 * every) path += `M${at(i)}L${at(i + 3)}`;
  if (!path) return { path, box: [0, 0, 1, 1] };
  return { path, box: [low[0], low[1], Math.max(1e-3, high[0] - low[0]), Math.max(1e-3, high[1] - low[1])] };
}
