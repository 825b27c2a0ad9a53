import { Boundary } from '../../../geometry/plane/boundary';
import { Region } from '../../../geometry/plane/clip';
import { Bounds } from '../../../geometry/plane/point';
import { maths } from '../../../quantity/maths';

/** Heading samples over the leading half of the cutter. */
const SAMPLES = 48;
const COS = Float64Array.from({ length: SAMPLES + 1 }, (_, k) => maths.cos(-Math.PI / 2 + (k * Math.PI) / SAMPLES));
const SIN = Float64Array.from({ length: SAMPLES + 1 }, (_, k) => maths.sin(-Math.PI / 2 + (k * Math.PI) / SAMPLES));
const STEP = Math.PI / SAMPLES;
/** How far from its edge the depth of metal is still told apart, in cells. */
const BAND = 3;
/** Metal beside a pass is looked for so far beyond the rim at most, mm; it is there where it is so deep, as a share of that. */
const BEYOND = 0.05;
export const TOUCHES = 0.4;

/** Cells as they were before they were changed, in order. */
class Journal {
  count = 0;
  at = new Int32Array(1 << 14);
  was = new Float32Array(1 << 14);

  /** Makes room for so many more. */
  reserve(more: number): void {
    if (this.count + more <= this.at.length) return;
    const [{ at, was }, size] = [this, 2 * (this.count + more)];
    this.at = new Int32Array(size);
    this.was = new Float32Array(size);
    this.at.set(at);
    this.was.set(was);
  }
}

/**
 * Metal of one layer seen from above, as a distance field: how deep a point lies inside the metal that is left, mm, positive
 * in metal, cut off at three cells. Everything the cutter has passed over is taken away as it goes.
 */
export class Metal {
  readonly nx: number;
  readonly ny: number;
  readonly depth: Float32Array;
  private readonly inverse: number;
  private readonly cap: number;
  /** From a sample of the rim whose depth is cut off, so many on lies the first that may be on the other side. */
  private readonly skip: number;
  /** Metal beside the cutter is looked for so far beyond its rim, mm. */
  readonly beyond: number;
  /** Thinner than this cannot be told from the reading's own error, mm. */
  private readonly error: number;
  private readonly journal = new Journal();

  /**
   * @param stock where metal stands at first
   * @param box what the field covers
   * @param cell size of a cell, mm; the error of a reading is about cell² / (8·radius)
   * @param radius of the cutter, mm
   */
  constructor(
    stock: Region,
    readonly box: Bounds,
    readonly cell: number,
    readonly radius: number,
  ) {
    this.nx = Math.ceil((box.maxX - box.minX) / cell) + 2;
    this.ny = Math.ceil((box.maxY - box.minY) / cell) + 2;
    this.inverse = 1 / cell;
    this.cap = BAND * cell;
    this.skip = 1 + Math.floor(this.cap / (radius * STEP));
    this.error = (cell * cell) / (4 * radius);
    this.beyond = Math.min(cell / 2, BEYOND);
    this.depth = new Float32Array(this.nx * this.ny).fill(-this.cap);
    this.fill(stock);
  }

  private fill(stock: Region): void {
    const { nx, ny, box, cell, depth, cap } = this;
    const boundary = new Boundary(stock);
    // Where the boundary is farther than a cell's reach, whole stretches of a row share one answer.
    for (let j = 0; j < ny; j++) {
      const y = box.minY + j * cell;
      for (let i = 0; i < nx;) {
        const d = boundary.distance(box.minX + i * cell, y);
        const same = Math.max(1, Math.min(nx - i, Math.floor((Math.abs(d) - cap) / cell)));
        depth.fill(Math.max(-cap, Math.min(cap, d)), j * nx + i, j * nx + i + same);
        i += same;
      }
    }
  }

  /** Depth of a point inside the metal, mm; negative in the open. */
  at(x: number, y: number): number {
    const u = (x - this.box.minX) * this.inverse;
    const v = (y - this.box.minY) * this.inverse;
    if (!(u >= 0 && v >= 0 && u < this.nx - 1 && v < this.ny - 1)) return -this.cap;
    const i = u | 0;
    const j = v | 0;
    const s = u - i;
    const t = v - j;
    const k = j * this.nx + i;
    const { depth, nx } = this;
    const low = depth[k] + (depth[k + 1] - depth[k]) * s;
    const high = depth[k + nx] + (depth[k + nx + 1] - depth[k + nx]) * s;
    return low + (high - low) * t;
  }

  /**
   * Engaged angle of the leading half of the cutter, radians: the sum of what lies in metal.
   * @param c cosine of the heading
   * @param s sine of the heading
   */
  engaged(x: number, y: number, c: number, s: number): number {
    const { cap, skip } = this;
    const full = cap - this.error;
    let sum = 0;
    let before = this.onRim(x, y, c, s, 0);
    for (let k = 0; k < SAMPLES;) {
      // A depth that is cut off says that the samples within its reach are on the same side.
      const step = before < -cap || before >= full ? Math.min(skip, SAMPLES - k) : 1;
      const now = this.onRim(x, y, c, s, k + step);
      k += step;
      if (now > 0 === before > 0) {
        if (now > 0) sum += step;
      } else {
        if (step > 1) {
          if (before > 0) sum += step - 1;
          before = this.onRim(x, y, c, s, k - 1);
        }
        const t = this.edge(x, y, c, s, k - 1, before, now);
        sum += now > 0 ? 1 - t : t;
      }
      before = now;
    }
    return sum * STEP;
  }

  /** How wide the metal before the cutter is across its way, mm: what it takes away is this wide, wherever on the rim it lies. */
  across(x: number, y: number, c: number, s: number): number {
    const { cap, skip, radius } = this;
    const full = cap - this.error;
    let sum = 0;
    let before = this.onRim(x, y, c, s, 0);
    for (let k = 0; k < SAMPLES;) {
      const next = k + (before < -cap || before >= full ? Math.min(skip, SAMPLES - k) : 1);
      const now = this.onRim(x, y, c, s, next);
      if (before > 0) sum += Math.abs(SIN[next - 1] - SIN[k]);
      const last = Math.abs(SIN[next] - SIN[next - 1]);
      const [low, high] = before < now ? [before, now] : [now, before];
      if (high > 0) sum += low > 0 ? last : (last * high) / (high - low);
      [k, before] = [next, now];
    }
    return sum * radius;
  }

  /** Depth at a sample of the leading rim, less the reading's own error. */
  private onRim(x: number, y: number, c: number, s: number, k: number): number {
    const R = this.radius;
    return this.at(x + R * (c * COS[k] - s * SIN[k]), y + R * (s * COS[k] + c * SIN[k])) - this.error;
  }

  /** Where between two samples of the rim the metal begins or ends, as a share of the way: cut off depths alone would mislead. */
  private edge(x: number, y: number, c: number, s: number, k: number, before: number, now: number): number {
    const t = before / (before - now);
    // A small turn on from a sample: its series to the fifth order is exact to a billionth.
    const a = t * STEP;
    const a2 = a * a;
    const turn = 1 - a2 * (0.5 - a2 / 24);
    const aside = a * (1 - a2 * (1 / 6 - a2 / 120));
    const ca = COS[k] * turn - SIN[k] * aside;
    const sa = SIN[k] * turn + COS[k] * aside;
    const middle = this.at(x + this.radius * (c * ca - s * sa), y + this.radius * (s * ca + c * sa)) - this.error;
    return middle > 0 === before > 0 ? t + ((1 - t) * middle) / (middle - now) : (t * before) / (before - middle);
  }

  /** Whether a stretch of a circle about a point lies in the open, from one direction counterclockwise to another, radians. */
  isOpen(x: number, y: number, r: number, from: number, to: number): boolean {
    const n = Math.max(1, Math.ceil(((to - from) * r) / (this.cell * BAND)));
    const c = maths.cos((to - from) / n);
    const s = maths.sin((to - from) / n);
    let dx = r * maths.cos(from);
    let dy = r * maths.sin(from);
    for (let k = 0; k <= n; k++) {
      if (this.at(x + dx, y + dy) > -this.cell) return false;
      const turned = dx * c - dy * s;
      dy = dx * s + dy * c;
      dx = turned;
    }
    return true;
  }

  /** Deepest metal on the whole rim of the cutter standing at a point, mm; 0 or less where there is none. */
  rim(x: number, y: number): number {
    const R = this.radius;
    let most = -Infinity;
    for (let k = 0; k < SAMPLES; k++) {
      const ahead = this.at(x + R * COS[k], y + R * SIN[k]);
      const behind = this.at(x - R * COS[k], y - R * SIN[k]);
      if (ahead > most) most = ahead;
      if (behind > most) most = behind;
    }
    return most;
  }

  /** Deepest metal on the whole rim and inside the cutter standing at a point, mm; 0 or less where it stands free. */
  under(x: number, y: number): number {
    const R = this.radius;
    let most = -Infinity;
    for (let k = 0; k <= SAMPLES; k++) {
      for (let side = -1; side <= 1; side += 2) {
        for (let ring = 1; ring > 0.1; ring -= 0.3) {
          const d = this.at(x + side * ring * R * COS[k], y + side * ring * R * SIN[k]);
          if (d > most) most = d;
        }
      }
    }
    return most;
  }

  /** Direction in which metal within a boundary stands deepest just beyond the rim of the cutter at a point, radians; undefined where it touches none. */
  touched(x: number, y: number, within: Boundary): number | undefined {
    const R = this.radius + this.beyond;
    let most = this.beyond * TOUCHES;
    let found: number | undefined;
    for (let k = 0; k < 2 * SAMPLES; k++) {
      const a = k * STEP;
      const [px, py] = [x + R * maths.cos(a), y + R * maths.sin(a)];
      const depth = this.at(px, py);
      if (depth > most && within.isDeeper(px, py, this.beyond * TOUCHES)) [most, found] = [depth, a];
    }
    return found;
  }

  /** From now on what is taken away can be put back. */
  remember(): void {
    this.journal.count = 0;
  }

  /** How many cells were changed since `remember`. */
  get taken(): number {
    return this.journal.count;
  }

  /** Puts back what was taken away since `remember`, but for the first so many cells. */
  putBack(but = 0): void {
    const { at, was, count } = this.journal;
    for (let k = count - 1; k >= but; k--) this.depth[at[k]] = was[k];
    this.journal.count = but;
  }

  /** Takes away what a cutter of radius `R` passes over on a straight line; where it starts it must have been. */
  take(ax: number, ay: number, bx: number, by: number, R = this.radius): void {
    const { box, cell, nx, ny, depth, cap, journal } = this;
    const reach = R + cap;
    const inner = R - cap - cell;
    const dx = bx - ax;
    const dy = by - ay;
    const l2 = dx * dx + dy * dy;
    const scale = l2 > 0 ? 1 / l2 : 0;
    const j0 = Math.max(0, Math.ceil((Math.min(ay, by) - reach - box.minY) / cell));
    const j1 = Math.min(ny - 1, Math.floor((Math.max(ay, by) + reach - box.minY) / cell));
    const lowX = Math.min(ax, bx);
    const highX = Math.max(ax, bx);
    for (let j = j0; j <= j1; j++) {
      const y = box.minY + j * cell;
      const py = y - ay;
      const k0 = j * nx;
      // What the reach covers of this row: the wider of both ends, and all between them where they lie apart in y.
      const wide = Math.sqrt(Math.max(0, reach * reach - Math.min(py * py, (y - by) * (y - by))));
      const between = (y - ay) * (y - by) < 0 ? reach : wide;
      const i0 = Math.max(0, Math.ceil((lowX - between - box.minX) / cell));
      const i1 = Math.min(nx - 1, Math.floor((highX + between - box.minX) / cell));
      // The middle of where the cutter stood before is empty already.
      const h2 = l2 > 0 && inner > 0 ? inner * inner - py * py : -1;
      const h = h2 > 0 ? Math.sqrt(h2) : -1;
      const skipFrom = h > 0 ? Math.ceil((ax - h - box.minX) / cell) : nx;
      const skipTo = h > 0 ? Math.floor((ax + h - box.minX) / cell) : -1;
      // Behind the start nothing is nearer than the start itself, where the cutter has been.
      const cut = dx === 0 ? 0 : (ax - (py * dy) / dx - box.minX) / cell;
      if (dx === 0 && py * dy < 0) continue;
      const from = dx > 0 ? Math.max(i0, Math.ceil(cut)) : i0;
      const to = dx < 0 ? Math.min(i1, Math.floor(cut)) : i1;
      journal.reserve(to - from + 1);
      const { at, was: before } = journal;
      let { count } = journal;
      for (let i = from; i <= to; i++) {
        if (i >= skipFrom && i <= skipTo) {
          i = skipTo;
          continue;
        }
        const was = depth[k0 + i];
        if (was <= -cap) continue;
        const px = box.minX + i * cell - ax;
        let t = (px * dx + py * dy) * scale;
        t = t < 0 ? 0 : t > 1 ? 1 : t;
        const ex = px - t * dx;
        const ey = py - t * dy;
        const d2 = ex * ex + ey * ey;
        if (d2 >= (R + was) * (R + was)) continue;
        const d = Math.max(-cap, Math.sqrt(d2) - R);
        if (d >= was) continue;
        at[count] = k0 + i;
        before[count++] = was;
        depth[k0 + i] = d;
      }
      journal.count = count;
    }
  }
}
