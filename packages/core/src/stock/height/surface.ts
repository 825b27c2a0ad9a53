/** A solid laid on a grid: what is right there is its own surface. */
import { Region, contains } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { ANYTHING, GOUGE, LEFT } from '../../part/plate/heights';
import { Tops } from '../../part/solid/tops';
import { Grid, cellMiddle, eachInside } from './field';
import type { Allowed } from './wanted';

/** What a solid asks of a piece. */
export interface SurfaceRule {
  tops: Tops;
  /** By triangle, whether its heights are to be reached in this setup. */
  asked: Uint8Array;
  /** Where through openings are cut: within the outside. */
  inside: Region;
  /** Underside of the part. */
  floor: number;
  /** Where it stands: each place it is moved to. */
  places: Point[];
}

/** Directions beside a cell in which the surface is looked at. */
const ROUND = Array.from({ length: 8 }, (_, k) => ({
  x: maths.cos((Math.PI * k) / 4),
  y: maths.sin((Math.PI * k) / 4),
}));
/** Steps between neighbours steeper than this are walls, mm a cell and mm. */
const STEEP = 1.5;
const STEP = 0.02;
/** Slopes count so far, as a wall is told by looking beside it. */
const STEEPEST = 3;

/** Heights of a surface at the middles of cells, and the triangle each belongs to; −1 where there is none. */
function raster(tops: Tops, place: Point, grid: Grid): { top: Float32Array; owner: Int32Array } {
  const { x0, y0, cell, nx, ny } = grid;
  const top = new Float32Array(nx * ny).fill(-ANYTHING);
  const owner = new Int32Array(nx * ny).fill(-1);
  const { points: p, corners } = tops.mesh;
  const window = {
    minX: x0 - place.x,
    minY: y0 - place.y,
    maxX: x0 + nx * cell - place.x,
    maxY: y0 + ny * cell - place.y,
  };
  tops.within(window, (t) => {
    const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
    const column = (x: number) => (x + place.x - x0) / cell - 0.5;
    const row = (y: number) => (y + place.y - y0) / cell - 0.5;
    const [ax, ay] = [column(p[a]), row(p[a + 1])];
    const [ux, uy, vx, vy] = [column(p[b]) - ax, row(p[b + 1]) - ay, column(p[c]) - ax, row(p[c + 1]) - ay];
    const area = ux * vy - vx * uy;
    if (!(area > 0)) return;
    const first = Math.max(0, Math.ceil(ay + Math.min(0, uy, vy)));
    const last = Math.min(ny - 1, Math.floor(ay + Math.max(0, uy, vy)));
    const from = Math.max(0, Math.ceil(ax + Math.min(0, ux, vx)));
    const to = Math.min(nx - 1, Math.floor(ax + Math.max(0, ux, vx)));
    for (let j = first; j <= last; j++)
      for (let i = from; i <= to; i++) {
        const [dx, dy] = [i - ax, j - ay];
        const u = (dx * vy - vx * dy) / area;
        const v = (ux * dy - dx * uy) / area;
        if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9) continue;
        const z = p[a + 2] + u * (p[b + 2] - p[a + 2]) + v * (p[c + 2] - p[a + 2]);
        const at = j * nx + i;
        if (z <= top[at]) continue;
        top[at] = z;
        owner[at] = t;
      }
  });
  return { top, owner };
}

/** Whether a wall may pass by a cell. */
function isByWall(top: Float32Array, { nx, ny, cell }: Grid, i: number): boolean {
  const [x, y] = [i % nx, Math.floor(i / nx)];
  const most = STEP + STEEP * cell;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const [u, v] = [x + dx, y + dy];
      if (u < 0 || v < 0 || u >= nx || v >= ny) return true;
      if (Math.abs(top[v * nx + u] - top[i]) > most) return true;
    }
  return false;
}

/** Lays a solid on a grid, at one of its places. */
function layAt(rule: SurfaceRule, place: Point, grid: Grid, allowed: Allowed): void {
  const { tops, asked, floor } = rule;
  const { top, owner } = raster(tops, place, grid);
  const inside = new Uint8Array(top.length);
  const region = rule.inside.map((ring) => ring.map((q) => ({ x: q.x + place.x, y: q.y + place.y })));
  eachInside(grid, region, (i) => (inside[i] = 1));
  const wantedAt = (z: number, t: number, isIn: boolean): number =>
    t >= 0 ? (asked[t] ? z : ANYTHING) : isIn ? floor : ANYTHING;
  for (let i = 0; i < top.length; i++) {
    if (isByWall(top, grid, i)) {
      const { x, y } = cellMiddle(grid, i);
      const [px, py] = [x - place.x, y - place.y];
      let low = owner[i] >= 0 ? top[i] : -ANYTHING;
      let high = wantedAt(top[i], owner[i], inside[i] === 1);
      if (owner[i] < 0 && !inside[i] && !tops.isNear(px, py, LEFT)) continue;
      for (const d of ROUND) {
        const near = tops.at(px + GOUGE * d.x, py + GOUGE * d.y);
        low = Math.min(low, near === -Infinity ? -ANYTHING : near);
        const [qx, qy] = [px + LEFT * d.x, py + LEFT * d.y];
        const t = tops.over(qx, qy);
        const isIn = t < 0 && contains(rule.inside, { x: qx, y: qy });
        high = Math.max(high, wantedAt(tops.heightAt(t, qx, qy), t, isIn));
      }
      allowed.low[i] = low;
      allowed.high[i] = high;
      continue;
    }
    if (owner[i] < 0) {
      if (inside[i]) allowed.high[i] = floor;
      continue;
    }
    const slope = tops.slopeOf(owner[i]);
    const lean = Math.min(STEEPEST, slope);
    allowed.low[i] = top[i] - GOUGE * lean;
    allowed.high[i] = asked[owner[i]] ? top[i] + LEFT * lean : ANYTHING;
    if (slope > 1e-3) (allowed.rise ??= new Float32Array(top.length).fill(1))[i] = 1 / Math.sqrt(1 + slope * slope);
  }
}

/** Lays a solid on a grid wherever it stands. */
export const laySurface = (rule: SurfaceRule, grid: Grid, allowed: Allowed): void =>
  rule.places.forEach((place) => layAt(rule, place, grid, allowed));
