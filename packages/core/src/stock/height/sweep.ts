import { Profile, profileHeight } from '../../shop/tool';
import { HeightField, NOTHING } from './field';
import { Kernel } from './kernel';

/** What one sweep took away. */
export interface Bite {
  /** mm³. */
  volume: number;
  /** Thickest metal taken anywhere, mm. */
  depth: number;
  /** Cells it passed over. */
  cells: number;
}

const NONE: Bite = { volume: 0, depth: 0, cells: 1 };

/** A tool's cutting profile prepared for sweeping: its radius, and height over the tip by squared distance. */
export interface Cutter {
  radius: number;
  flat: boolean;
  /** Height above the tip at r² = i/(length−2)·R²; the last stands twice. */
  table: Float32Array;
}

const TABLE = 4096;
/** Metal thinner than this does not stand, mm. */
const SKIN = 0.001;

/** What a second pass over the same place seems to take, mm: heights are kept to single precision. */
const DUST = 1e-5;

/** Share of a tool's area in which no rounding puts a cell beside it. */
const SURE = 1 - 1e-6;
const NOWHERE = [0, -1] as const;

/** Height of a profile between two entries of its table. */
function heightAt(table: Float32Array, index: number): number {
  const k = index | 0;
  return table[k] + (table[k + 1] - table[k]) * (index - k);
}

/** Prepares a tool for sweeping. */
export function cutterOf(tool: Profile): Cutter {
  const radius = tool.diameter / 2;
  const table = Float32Array.from({ length: TABLE + 1 }, (_, i) =>
    profileHeight(tool, Math.sqrt(Math.min(1, i / (TABLE - 1))) * radius),
  );
  return { radius, flat: table[TABLE - 1] === 0, table };
}

/**
 * Cuts a field with a tool moving in straight lines. Flat tools are exact at cell centres; shaped tools are exact on level
 * moves, and on slopes take the least of samples a fraction of a cell apart.
 */
export class Sweeper {
  /** Last mark that lowered each cell, −1 for none. */
  readonly owner: Int32Array;
  private readonly deepest: Float32Array;
  private readonly kernel: Kernel;
  /** Where the last sweep ended, and with what: the disc under it is cut already. */
  private ended = { cutter: undefined as Cutter | undefined, x: 0, y: 0, z: 0 };

  /**
   * @param field its heights move to where the kernel works on them
   * @param floor underside of the stock: nothing is taken below it
   */
  constructor(
    readonly field: HeightField,
    readonly floor: number,
  ) {
    this.kernel = new Kernel(field.height);
    field.height = this.kernel.height;
    this.owner = this.kernel.owner;
    this.deepest = this.kernel.deepest;
  }

  /** Sweeps from one tip position to another; `mark` is remembered as the owner of every cell it lowers. */
  sweep(cutter: Cutter, ax: number, ay: number, az: number, bx: number, by: number, bz: number, mark: number): Bite {
    const { field } = this;
    const R = cutter.radius;
    const dx = bx - ax;
    const dy = by - ay;
    const length2 = dx * dx + dy * dy;
    // Below the stock a slope takes what a level move takes.
    const isUnder = cutter.flat && !field.below && Math.max(az, bz) <= this.floor;
    const level = isUnder || Math.abs(bz - az) < 1e-9 || length2 < 1e-18;
    const z = isUnder ? this.floor : length2 < 1e-18 ? Math.min(az, bz) : az;
    const flatZ = field.below ? z : Math.max(z, this.floor);
    const first = Math.max(0, Math.ceil((Math.min(ay, by) - R - field.y0) / field.cell - 0.5));
    const last = Math.min(field.ny - 1, Math.floor((Math.max(ay, by) + R - field.y0) / field.cell - 0.5));
    if (length2 < 1e-18 && this.wentUntil(cutter, ax, ay, z)) return NONE;
    this.deepest[0] = 0;
    let cells = 1;
    const goesOn = level && cutter.flat && this.wentUntil(cutter, ax, ay, z);
    let sum = 0;
    for (let row = first; row <= last; row++) {
      const y = field.y0 + (row + 0.5) * field.cell;
      const span = this.span(y, R, ax, ay, bx, by, dx, dy, length2);
      if (!span) continue;
      const from = Math.max(0, Math.ceil((span[0] - field.x0) / field.cell - 0.5));
      const to = Math.min(field.nx - 1, Math.floor((span[1] - field.x0) / field.cell - 0.5));
      if (from > to) continue;
      const base = row * field.nx;
      cells += to - from + 1;
      if (goesOn) sum += this.beyondStart(base, from, to, y, R, ax, ay, flatZ, mark);
      else if (level && cutter.flat) sum += this.lowerRow(base + from, base + to, flatZ, mark);
      else if (level) sum += this.shapedRow(cutter, base, from, to, y, ax, ay, dx, dy, length2, z, mark);
      else sum += this.slopedRow(cutter, base, from, to, y, ax, ay, az, dx, dy, bz - az, length2, mark);
    }
    // A shaped tool on a slope is exact only in samples.
    this.ended = { cutter: level || cutter.flat ? cutter : undefined, x: bx, y: by, z: level ? z : bz };
    return { volume: sum * field.cell * field.cell, depth: this.deepest[0], cells };
  }

  /** Whether the last sweep ended here, no higher. */
  private wentUntil(cutter: Cutter, x: number, y: number, z: number): boolean {
    const { ended } = this;
    return ended.cutter === cutter && ended.x === x && ended.y === y && ended.z <= z;
  }

  /** A row of a sweep that goes on from the last one: what stood under its start is gone already. */
  private beyondStart(
    base: number,
    from: number,
    to: number,
    y: number,
    R: number,
    ax: number,
    ay: number,
    z: number,
    mark: number,
  ): number {
    const { field } = this;
    const h2 = R * R - (y - ay) * (y - ay);
    if (h2 <= 0) return this.lowerRow(base + from, base + to, z, mark);
    const h = Math.sqrt(h2);
    const gone = Math.max(from, Math.ceil((ax - h - field.x0) / field.cell - 0.5));
    const until = Math.min(to, Math.floor((ax + h - field.x0) / field.cell - 0.5));
    if (gone > until) return this.lowerRow(base + from, base + to, z, mark);
    return this.lowerRow(base + from, base + gone - 1, z, mark) + this.lowerRow(base + until + 1, base + to, z, mark);
  }

  /** Lowers cells of a row to a level. */
  private lowerRow(from: number, to: number, z: number, mark: number): number {
    if (!this.field.below) return this.kernel.lowerRow(from, to, z, mark);
    const level = Math.fround(z);
    let sum = 0;
    for (let i = from; i <= to; i++) if (this.field.height[i] > level) sum += this.lower(i, level, mark);
    return sum;
  }

  /** Forgets where the last sweep ended: the field was changed otherwise. */
  restart(): void {
    this.ended.cutter = undefined;
  }

  private readonly pair: [number, number] = [0, 0];

  /** The x-interval of a row inside the swept capsule. */
  private span(
    y: number,
    R: number,
    ax: number,
    ay: number,
    bx: number,
    by: number,
    dx: number,
    dy: number,
    length2: number,
  ): [number, number] | undefined {
    let low = Infinity;
    let high = -Infinity;
    const ha = R * R - (y - ay) * (y - ay);
    if (ha >= 0) {
      const h = Math.sqrt(ha);
      low = ax - h;
      high = ax + h;
    }
    const hb = R * R - (y - by) * (y - by);
    if (hb >= 0) {
      const h = Math.sqrt(hb);
      if (bx - h < low) low = bx - h;
      if (bx + h > high) high = bx + h;
    }
    if (length2 > 1e-18 && Math.abs(dy) > 1e-12) {
      const length = Math.sqrt(length2);
      const nx = (-dy / length) * R;
      const ny = (dx / length) * R;
      for (let side = -1; side <= 1; side += 2) {
        const t = (y - ay - side * ny) / dy;
        if (t < 0 || t > 1) continue;
        const x = ax + t * dx + side * nx;
        if (x < low) low = x;
        if (x > high) high = x;
      }
    }
    if (low > high) return undefined;
    this.pair[0] = low;
    this.pair[1] = high;
    return this.pair;
  }

  private lower(i: number, tip: number, mark: number): number {
    const { height, below } = this.field;
    if (below && height[i] > tip && tip < below.low[i] + SKIN) return this.breakThrough(i, tip, mark);
    const z = tip < this.floor && !below ? this.floor : tip;
    const over = height[i] - z;
    if (over <= DUST) return 0;
    if (over > this.deepest[0]) this.deepest[0] = over;
    height[i] = z;
    this.owner[i] = mark;
    return over;
  }

  /** Cuts through the topmost metal of a cell into what lies below it; returns the thickness taken. */
  private breakThrough(i: number, z: number, mark: number): number {
    const { height } = this.field;
    const { low, more } = this.field.below!;
    // Copies of a field share its piles: what is left of one is another.
    const pile = more.get(i) ?? [];
    let gone = 0;
    let taken = 0;
    while (height[i] > z) {
      if (z >= low[i] + SKIN) {
        taken += height[i] - z;
        height[i] = z;
        break;
      }
      taken += height[i] - low[i];
      height[i] = pile[gone++] ?? NOTHING;
      low[i] = pile[gone++] ?? NOTHING;
      if (height[i] <= NOTHING) break;
    }
    if (gone >= pile.length) more.delete(i);
    else if (gone > 0) more.set(i, pile.slice(gone));
    this.owner[i] = mark;
    if (taken > this.deepest[0]) this.deepest[0] = taken;
    return taken;
  }

  /** A level move of a shaped tool: the nearest point of the line decides. */
  private shapedRow(
    cutter: Cutter,
    base: number,
    from: number,
    to: number,
    y: number,
    ax: number,
    ay: number,
    dx: number,
    dy: number,
    length2: number,
    z: number,
    mark: number,
  ): number {
    const { x0, cell, height } = this.field;
    const scale = (TABLE - 1) / (cutter.radius * cutter.radius);
    let sum = 0;
    for (let i = from; i <= to; i++) {
      if (height[base + i] <= z) continue;
      const px = x0 + (i + 0.5) * cell - ax;
      const py = y - ay;
      let t = length2 > 0 ? (px * dx + py * dy) / length2 : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const ex = px - t * dx;
      const ey = py - t * dy;
      const index = (ex * ex + ey * ey) * scale;
      if (index <= TABLE - 1) sum += this.lower(base + i, z + heightAt(cutter.table, index), mark);
    }
    return sum;
  }

  /** A sloped move: the stretch of it that covers a cell is found exactly; a flat tool is lowest at one of its ends. */
  private slopedRow(
    cutter: Cutter,
    base: number,
    from: number,
    to: number,
    y: number,
    ax: number,
    ay: number,
    az: number,
    dx: number,
    dy: number,
    dz: number,
    length2: number,
    mark: number,
  ): number {
    const { x0, cell, height, below } = this.field;
    const R2 = cutter.radius * cutter.radius;
    const lowest = az + Math.min(0, dz);
    const bottom = below ? lowest : Math.max(lowest, Math.fround(this.floor));
    const scale = (TABLE - 1) / R2;
    const samples = cutter.flat
      ? 0
      : Math.max(2, Math.ceil((2 * Math.min(cutter.radius, Math.sqrt(length2))) / (cell * 0.5)));
    const [still, until] = cutter.flat ? this.under(cutter, dz < 0 ? ax + dx : ax, dz < 0 ? ay + dy : ay, y) : NOWHERE;
    let sum = 0;
    for (let i = from; i <= to; i++) {
      if (height[base + i] <= bottom) continue;
      if (i >= still && i <= until) {
        const last = Math.min(to, until);
        sum += this.lowerRow(base + i, base + last, below ? lowest : Math.max(lowest, this.floor), mark);
        i = last;
        continue;
      }
      const px = x0 + (i + 0.5) * cell - ax;
      const py = y - ay;
      const along = (px * dx + py * dy) / length2;
      const off2 = px * px + py * py - along * along * length2;
      if (off2 > R2) continue;
      if (!cutter.flat) {
        // No lower than the profile where the axis comes nearest, at the lower end.
        const past = along < 0 ? along : along > 1 ? along - 1 : 0;
        const near2 = off2 + past * past * length2;
        if (near2 > R2 || height[base + i] <= lowest + heightAt(cutter.table, near2 * scale)) continue;
      }
      const half = Math.sqrt((R2 - off2) / length2);
      const t0 = Math.max(0, along - half);
      const t1 = Math.min(1, along + half);
      if (t0 > t1) continue;
      const z = cutter.flat
        ? az + dz * (dz < 0 ? t1 : t0)
        : this.lowestShaped(cutter, t0, t1, samples, px, py, dx, dy, az, dz);
      sum += this.lower(base + i, z, mark);
    }
    return sum;
  }

  /** The cells of a row that surely lie under a tool at a place. */
  private under({ radius }: Cutter, x: number, y: number, row: number): readonly [number, number] {
    const { x0, cell } = this.field;
    const half2 = radius * radius * SURE - (row - y) * (row - y);
    if (half2 <= 0) return NOWHERE;
    const half = Math.sqrt(half2);
    return [Math.ceil((x - half - x0) / cell - 0.5), Math.floor((x + half - x0) / cell - 0.5)];
  }

  private lowestShaped(
    cutter: Cutter,
    t0: number,
    t1: number,
    samples: number,
    px: number,
    py: number,
    dx: number,
    dy: number,
    az: number,
    dz: number,
  ): number {
    const scale = (TABLE - 1) / (cutter.radius * cutter.radius);
    let least = Infinity;
    for (let k = 0; k <= samples; k++) {
      const t = t0 + ((t1 - t0) * k) / samples;
      const ex = px - t * dx;
      const ey = py - t * dy;
      const z = az + dz * t + heightAt(cutter.table, Math.min(TABLE - 1, (ex * ex + ey * ey) * scale));
      if (z < least) least = z;
    }
    return least;
  }
}
