/** A solid looked at from above: how high its surface stands over a place, and what stands above a height. */
import { Region, union } from '../../geometry/plane/clip';
import { Bounds, Point } from '../../geometry/plane/point';
import { Box3, Triangles, areaVectors, boxRound, countOf } from '../../geometry/space/triangles';

/** Triangles whose normals rise less than this are walls. */
const WALL = 1e-6;

/** The faces of a solid that look up, found by place. */
export class Tops {
  readonly box: Box3;
  /** Triangles that look up. */
  readonly up: Uint8Array;
  private readonly cell: number;
  private readonly nx: number;
  private readonly ny: number;
  private readonly start: Int32Array;
  private readonly items: Int32Array;

  constructor(
    readonly mesh: Triangles,
    private readonly against: Int32Array,
    private readonly areas = areaVectors(mesh),
  ) {
    this.box = boxRound(mesh);
    const count = countOf(mesh);
    this.seen = new Int32Array(count);
    this.up = new Uint8Array(count);
    for (let t = 0; t < count; t++) {
      const [x, y, z] = [areas[3 * t], areas[3 * t + 1], areas[3 * t + 2]];
      if (z > WALL * Math.sqrt(x * x + y * y + z * z)) this.up[t] = 1;
    }
    const { min, max } = this.box;
    const [wide, deep] = [Math.max(1e-6, max.x - min.x), Math.max(1e-6, max.y - min.y)];
    this.cell = Math.sqrt((wide * deep) / Math.max(16, count)) * 1.5;
    this.nx = Math.min(2000, Math.ceil(wide / this.cell));
    this.ny = Math.min(2000, Math.ceil(deep / this.cell));
    this.cell = Math.max(wide / this.nx, deep / this.ny, this.cell);
    const counts = new Int32Array(this.nx * this.ny + 1);
    this.eachCell((c) => counts[c + 1]++);
    for (let c = 0; c < this.nx * this.ny; c++) counts[c + 1] += counts[c];
    this.start = counts.slice();
    this.items = new Int32Array(counts[this.nx * this.ny]);
    this.eachCell((c, t) => (this.items[counts[c]++] = t));
  }

  private eachCell(visit: (cell: number, t: number) => void): void {
    const { points, corners } = this.mesh;
    const { min } = this.box;
    const clamp = (v: number, n: number) => Math.max(0, Math.min(n - 1, v));
    for (let t = 0; t < this.up.length; t++) {
      if (!this.up[t]) continue;
      const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
      const column = (x: number) => clamp(Math.floor((x - min.x) / this.cell), this.nx);
      const row = (y: number) => clamp(Math.floor((y - min.y) / this.cell), this.ny);
      const [i0, i1] = [
        column(Math.min(points[a], points[b], points[c])),
        column(Math.max(points[a], points[b], points[c])),
      ];
      const [j0, j1] = [
        row(Math.min(points[a + 1], points[b + 1], points[c + 1])),
        row(Math.max(points[a + 1], points[b + 1], points[c + 1])),
      ];
      for (let j = j0; j <= j1; j++) for (let i = i0; i <= i1; i++) visit(j * this.nx + i, t);
    }
  }

  /** Height of a triangle over a place; undefined beside it. */
  private heightOver(t: number, x: number, y: number): number | undefined {
    const { points: p, corners } = this.mesh;
    const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
    const [bx, by, cx, cy] = [p[b] - p[a], p[b + 1] - p[a + 1], p[c] - p[a], p[c + 1] - p[a + 1]];
    const area = bx * cy - cx * by;
    if (!(area > 0)) return undefined;
    const [dx, dy] = [x - p[a], y - p[a + 1]];
    const u = (dx * cy - cx * dy) / area;
    const v = (bx * dy - dx * by) / area;
    if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9) return undefined;
    return p[a + 2] + u * (p[b + 2] - p[a + 2]) + v * (p[c + 2] - p[a + 2]);
  }

  private cellAt(x: number, y: number): number {
    const { min } = this.box;
    const i = Math.floor((x - min.x) / this.cell);
    const j = Math.floor((y - min.y) / this.cell);
    if (i < 0 || j < 0 || i > this.nx || j > this.ny) return -1;
    return Math.min(j, this.ny - 1) * this.nx + Math.min(i, this.nx - 1);
  }

  /** Z of the highest surface over a place; −∞ beside the solid. */
  at(x: number, y: number): number {
    return this.heightAt(this.over(x, y), x, y);
  }

  /** Z of a triangle over a place it lies under; −∞ for none. */
  heightAt(t: number, x: number, y: number): number {
    return (t < 0 ? undefined : this.heightOver(t, x, y)) ?? -Infinity;
  }

  /** The triangle whose surface is the highest over a place; −1 where there is none. */
  over(x: number, y: number): number {
    const c = this.cellAt(x, y);
    let [top, best] = [-Infinity, -1];
    if (c < 0) return best;
    for (let k = this.start[c]; k < this.start[c + 1]; k++) {
      const z = this.heightOver(this.items[k], x, y);
      if (z !== undefined && z > top) [top, best] = [z, this.items[k]];
    }
    return best;
  }

  /** Rise over run of a triangle. */
  slopeOf(t: number): number {
    const [x, y, z] = [this.areas[3 * t], this.areas[3 * t + 1], this.areas[3 * t + 2]];
    return Math.sqrt(x * x + y * y) / z;
  }

  /** Whether a place is over the box of the solid, or so near. */
  isNear(x: number, y: number, by: number): boolean {
    const { min, max } = this.box;
    return x > min.x - by && x < max.x + by && y > min.y - by && y < max.y + by;
  }

  private readonly seen: Int32Array;
  private round = 0;

  /** Calls `visit` with each triangle that looks up and may lie over a box. */
  within({ minX, minY, maxX, maxY }: Bounds, visit: (t: number) => void): void {
    const { min } = this.box;
    const clamp = (v: number, n: number) => Math.max(0, Math.min(n - 1, Math.floor(v)));
    const [i0, i1] = [clamp((minX - min.x) / this.cell, this.nx), clamp((maxX - min.x) / this.cell, this.nx)];
    const [j0, j1] = [clamp((minY - min.y) / this.cell, this.ny), clamp((maxY - min.y) / this.cell, this.ny)];
    this.round++;
    for (let j = j0; j <= j1; j++)
      for (let i = i0; i <= i1; i++) {
        const c = j * this.nx + i;
        for (let k = this.start[c]; k < this.start[c + 1]; k++) {
          const t = this.items[k];
          if (this.seen[t] === this.round) continue;
          this.seen[t] = this.round;
          visit(t);
        }
      }
  }

  private readonly known = new Map<number, Region>();

  /**
   * What of the solid stands above a height, seen from above. The triangles that look up cover it, each place as often as metal lies over
   * it; what their rims enclose is the same.
   */
  above(z: number): Region {
    if (!this.known.has(z)) this.known.set(z, union(this.rimsAbove(z)));
    return this.known.get(z)!;
  }

  private rimsAbove(z: number): Region {
    const { corners, points } = this.mesh;
    const next = new Map<number, { to: number; from: Point }[]>();
    const count = points.length / 3;
    const isAbove = (p: number) => points[3 * p + 2] > z;
    const add = (from: number, to: number, at: Point) => {
      const known = next.get(from);
      if (known) known.push({ to, from: at });
      else next.set(from, [{ to, from: at }]);
    };
    const corner = (p: number): Point => ({ x: points[3 * p], y: points[3 * p + 1] });
    const crossed = (e: number): { name: number; at: Point } => {
      const [p, q] = [corners[e], corners[e - (e % 3) + ((e + 1) % 3)]];
      const [low, high] = points[3 * p + 2] < points[3 * q + 2] ? [p, q] : [q, p];
      const share = (z - points[3 * low + 2]) / (points[3 * high + 2] - points[3 * low + 2]);
      const at = {
        x: points[3 * low] + share * (points[3 * high] - points[3 * low]),
        y: points[3 * low + 1] + share * (points[3 * high + 1] - points[3 * low + 1]),
      };
      const other = this.against[e];
      return { name: count + (other >= 0 ? Math.min(e, other) : e), at };
    };
    for (let t = 0; t < this.up.length; t++) {
      if (!this.up[t]) continue;
      let [enters, leaves] = [-1, -1];
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const [p, q] = [corners[e], corners[3 * t + ((e + 1) % 3)]];
        const [from, to] = [isAbove(p), isAbove(q)];
        if (from && !to) leaves = e;
        if (!from && to) enters = e;
        if (!from && !to) continue;
        const other = this.against[e];
        if (other >= 0 && this.up[Math.floor(other / 3)]) continue;
        const start = from ? { name: p, at: corner(p) } : crossed(e);
        add(start.name, to ? q : crossed(e).name, start.at);
      }
      if (leaves >= 0 && enters >= 0) {
        const start = crossed(leaves);
        add(start.name, crossed(enters).name, start.at);
      }
    }
    return chained(next);
  }
}

/** Directed edges joined into rings; every corner is left as often as it is reached. */
export function chained(next: Map<number, { to: number; from: Point }[]>): Region {
  const rings: Region = [];
  for (const [first, edges] of next) {
    while (edges.length > 0) {
      const ring: Point[] = [];
      for (let at = first; ;) {
        const edge = next.get(at)?.pop();
        if (!edge) break;
        ring.push(edge.from);
        at = edge.to;
      }
      if (ring.length > 2) rings.push(ring);
    }
  }
  return rings;
}
