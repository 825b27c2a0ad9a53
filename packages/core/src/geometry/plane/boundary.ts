import { Region } from './clip';
import { boundsOf } from './point';
import { maths } from '../../quantity/maths';

/** A square of the plane and the edges that may be nearest to a point in it. */
interface Cell {
  x: number;
  y: number;
  half: number;
  /** Signed distance of its middle. */
  away: number;
  edges: Int32Array;
  quarters?: Cell[];
}

const FEW = 6;
const DEEPEST = 9;

/**
 * Exact signed distance to the boundary of a region, positive inside. Squares of the plane remember which edges can be
 * nearest; they are divided where and when somebody asks.
 */
export class Boundary {
  private readonly root: Cell;
  /** Start, end and left normal of each edge; the summed normals of both edges that meet at its start. */
  private readonly ax: Float64Array;
  private readonly ay: Float64Array;
  private readonly dx: Float64Array;
  private readonly dy: Float64Array;
  private readonly inverse: Float64Array;
  private readonly vx: Float64Array;
  private readonly vy: Float64Array;
  private readonly next: Int32Array;
  private readonly scratch: Float64Array;

  constructor(region: Region) {
    const rings = region
      .map((ring) =>
        ring.filter(
          (p, i) => maths.hypot(p.x - ring[(i + 1) % ring.length].x, p.y - ring[(i + 1) % ring.length].y) > 1e-9,
        ),
      )
      .filter((ring) => ring.length > 1);
    const n = rings.reduce((sum, ring) => sum + ring.length, 0);
    const column = () => new Float64Array(n);
    [this.ax, this.ay, this.dx, this.dy] = [column(), column(), column(), column()];
    [this.inverse, this.vx, this.vy] = [column(), column(), column()];
    this.next = new Int32Array(n);
    let first = 0;
    for (const ring of rings) {
      ring.forEach((p, k) => this.setEdge(first + k, p, ring[(k + 1) % ring.length], first + ((k + 1) % ring.length)));
      first += ring.length;
    }
    for (let e = 0; e < n; e++) this.addNormals(e);
    const box = n ? boundsOf(rings.flat()) : { minX: 0, minY: 0, maxX: 1, maxY: 1 };
    const half = Math.max(box.maxX - box.minX, box.maxY - box.minY) * 0.75 + 1;
    this.scratch = column();
    const all = Int32Array.from({ length: n }, (_, i) => i);
    this.root = this.square((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2, half, all);
  }

  private setEdge(e: number, a: { x: number; y: number }, b: { x: number; y: number }, next: number): void {
    this.ax[e] = a.x;
    this.ay[e] = a.y;
    this.dx[e] = b.x - a.x;
    this.dy[e] = b.y - a.y;
    this.inverse[e] = 1 / (maths.pow(this.dx[e], 2) + maths.pow(this.dy[e], 2));
    this.next[e] = next;
  }

  private addNormals(e: number): void {
    const scale = Math.sqrt(this.inverse[e]);
    const after = this.next[e];
    for (const v of [e, after]) {
      this.vx[v] -= this.dy[e] * scale;
      this.vy[v] += this.dx[e] * scale;
    }
  }

  private squared(e: number, x: number, y: number): number {
    const px = x - this.ax[e];
    const py = y - this.ay[e];
    let t = (px * this.dx[e] + py * this.dy[e]) * this.inverse[e];
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const ex = px - t * this.dx[e];
    const ey = py - t * this.dy[e];
    return ex * ex + ey * ey;
  }

  /** A square with the edges of `among` that may be nearest to one of its points. */
  private square(x: number, y: number, half: number, among: Int32Array): Cell {
    const { scratch } = this;
    let least = Infinity;
    let nearest = -1;
    for (let k = 0; k < among.length; k++) {
      const d = (scratch[k] = this.squared(among[k], x, y));
      if (d < least) {
        least = d;
        nearest = among[k];
      }
    }
    const most = maths.pow(Math.sqrt(least) + 2 * half * Math.SQRT2 + 1e-9, 2);
    let count = 0;
    for (let k = 0; k < among.length; k++) if (scratch[k] <= most) count++;
    const edges = new Int32Array(count);
    count = 0;
    for (let k = 0; k < among.length; k++) if (scratch[k] <= most) edges[count++] = among[k];
    const away = Math.sqrt(least);
    return { x, y, half, edges, away: nearest >= 0 && this.isInside(nearest, x, y) ? away : -away };
  }

  private divide({ x, y, half, edges }: Cell): Cell[] {
    const h = half / 2;
    return [
      this.square(x - h, y - h, h, edges),
      this.square(x + h, y - h, h, edges),
      this.square(x - h, y + h, h, edges),
      this.square(x + h, y + h, h, edges),
    ];
  }

  /** The square inside a square that holds a point. */
  private into(cell: Cell, x: number, y: number): Cell {
    cell.quarters ??= this.divide(cell);
    return cell.quarters[(x < cell.x ? 0 : 1) + (y < cell.y ? 0 : 2)];
  }

  private isWithin(x: number, y: number): boolean {
    const { root } = this;
    return Math.abs(x - root.x) <= root.half && Math.abs(y - root.y) <= root.half;
  }

  /** Least distance to the boundary, mm, positive inside the region and negative outside. */
  distance(x: number, y: number): number {
    let cell = this.root;
    if (this.isWithin(x, y))
      for (let depth = 0; depth < DEEPEST && cell.edges.length > FEW; depth++) cell = this.into(cell, x, y);
    return this.nearest(cell.edges, x, y);
  }

  /** Whether a point lies at least so deep inside, mm: what `distance` tells, sooner where the answer is plain. */
  isDeeper(x: number, y: number, least: number): boolean {
    let cell = this.root;
    if (this.isWithin(x, y)) {
      for (let depth = 0; depth < DEEPEST && cell.edges.length > FEW; depth++) {
        const off = Math.abs(x - cell.x) + Math.abs(y - cell.y);
        if (cell.away - off >= least) return true;
        if (cell.away + off < least) return false;
        cell = this.into(cell, x, y);
      }
    }
    return this.nearest(cell.edges, x, y) >= least;
  }

  private nearest(edges: Int32Array, x: number, y: number): number {
    let best = Infinity;
    let nearest = -1;
    for (let k = 0; k < edges.length; k++) {
      const d = this.squared(edges[k], x, y);
      if (d < best) {
        best = d;
        nearest = edges[k];
      }
    }
    if (nearest < 0) return -Infinity;
    return this.isInside(nearest, x, y) ? Math.sqrt(best) : -Math.sqrt(best);
  }

  /** By the nearest edge's side, or at a corner by the sum of both normals. */
  private isInside(e: number, x: number, y: number): boolean {
    const px = x - this.ax[e];
    const py = y - this.ay[e];
    const t = (px * this.dx[e] + py * this.dy[e]) * this.inverse[e];
    if (t > 0 && t < 1) return this.dx[e] * py - this.dy[e] * px > 0;
    const v = t <= 0 ? e : this.next[e];
    return (x - this.ax[v]) * this.vx[v] + (y - this.ay[v]) * this.vy[v] > 0;
  }
}
