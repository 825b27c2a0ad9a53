import { Budget } from '../quantity/budget';
import { arcOf, Chain, pieces } from '../geometry/plane/chain';
import { arcFeed } from '../cutting/milling';
import { maths } from '../quantity/maths';

/** What a move is for. */
export const TAGS = ['rapid', 'entry', 'cut', 'lead', 'link'] as const;
export type Tag = (typeof TAGS)[number];

/** 0 rapid, 1 straight at feed, 2 clockwise arc, 3 counterclockwise arc (about Z, with Z moving evenly). */
export const RAPID = 0;
export const LINE = 1;
export const ARC_CW = 2;
export const ARC_CCW = 3;

/** Moves as flat arrays, one entry a move; coordinates in mm, part coordinates, feed in mm/min. */
export interface Path {
  count: number;
  kind: Uint8Array;
  tag: Uint8Array;
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
  /** Centre of an arc. */
  cx: Float64Array;
  cy: Float64Array;
  feed: Float64Array;
  /** Cutter compensation in the control: at which move it is switched, to which side, and by how much; 0 leaves it the wear alone. */
  compensation: { move: number; to: Compensation; radius: number }[];
}

/** Side of the path the cutter stands on, as the control moves it aside. */
export type Compensation = 'left' | 'right' | 'off';

const EQUAL = 1e-7;

/** Collects moves; starts at an unknown place, so the first move must be a rapid. */
export class PathBuilder {
  private readonly rows: number[][] = [];
  private readonly compensation: Path['compensation'] = [];
  x = NaN;
  y = NaN;
  z = NaN;

  /** @param budget spent by a step for every move */
  constructor(private readonly budget?: Budget) {}

  get count(): number {
    return this.rows.length;
  }

  private push(kind: number, tag: Tag, x: number, y: number, z: number, cx: number, cy: number, feed: number) {
    this.budget?.spend();
    this.rows.push([kind, TAGS.indexOf(tag), x, y, z, cx, cy, feed]);
    this.x = x;
    this.y = y;
    this.z = z;
  }

  private here(x: number, y: number, z: number) {
    return Math.abs(x - this.x) < EQUAL && Math.abs(y - this.y) < EQUAL && Math.abs(z - this.z) < EQUAL;
  }

  /** Nothing happens where it would go up from nowhere. */
  rapid(x: number, y: number, z: number): this {
    if (!Number.isNaN(x) && !this.here(x, y, z)) this.push(RAPID, 'rapid', x, y, z, 0, 0, 0);
    return this;
  }

  line(x: number, y: number, z: number, feed: number, tag: Tag): this {
    if (!this.here(x, y, z)) this.push(LINE, tag, x, y, z, 0, 0, feed);
    return this;
  }

  arc(cx: number, cy: number, x: number, y: number, z: number, clockwise: boolean, feed: number, tag: Tag): this {
    this.push(clockwise ? ARC_CW : ARC_CCW, tag, x, y, z, cx, cy, feed);
    return this;
  }

  /** Follows a chain from its first point, which must be where the tool is, ending at height z. */
  follow(chain: Chain, z: number, feed: number, tag: Tag): this {
    for (const { a, b, bulge } of pieces(chain)) {
      if (bulge === 0) {
        this.line(b.x, b.y, z, feed, tag);
      } else {
        const { centre } = arcOf(a, b, bulge);
        this.arc(centre.x, centre.y, b.x, b.y, z, bulge < 0, feed, tag);
      }
    }
    return this;
  }

  /**
   * Slows what was cut on arcs since a move: those that turn away from a wall lie in its inside corners, where a cutter would take more
   * metal a minute than along a straight. Reckoned to the middle of the metal, it takes as much as there.
   * @param side the side of the way the wall is not on
   * @param beyond from the middle of the cutter to the middle of the metal it takes, mm: its radius less half its bite
   */
  slowInside(since: number, side: 'left' | 'right', beyond: number): this {
    for (const row of this.rows.slice(since)) {
      const [kind, tag, x, y, , cx, cy, feed] = row;
      if (TAGS[tag] !== 'cut' || kind !== (side === 'left' ? ARC_CCW : ARC_CW)) continue;
      row[7] = arcFeed(feed, maths.hypot(x - cx, y - cy) + beyond, beyond, 'inside');
    }
    return this;
  }

  /** Switches compensation in the control with the next move, which must be a straight at feed. */
  compensate(to: Compensation, radius = 0): this {
    this.compensation.push({ move: this.rows.length, to, radius });
    return this;
  }

  build(): Path {
    const { rows, compensation } = this;
    const count = rows.length;
    const [kind, tag] = [new Uint8Array(count), new Uint8Array(count)];
    const [x, y, z, cx, cy, feed] = Array.from({ length: 6 }, () => new Float64Array(count));
    rows.forEach((row, i) => {
      kind[i] = row[0];
      tag[i] = row[1];
      x[i] = row[2];
      y[i] = row[3];
      z[i] = row[4];
      cx[i] = row[5];
      cy[i] = row[6];
      feed[i] = row[7];
    });
    return { count, kind, tag, x, y, z, cx, cy, feed, compensation };
  }
}

/** Sweep of an arc move in radians, positive counterclockwise, a closed one a full turn. */
export function sweepOf(kind: number, x0: number, y0: number, x1: number, y1: number, cx: number, cy: number): number {
  const a0 = maths.atan2(y0 - cy, x0 - cx);
  const a1 = maths.atan2(y1 - cy, x1 - cx);
  let sweep = a1 - a0;
  if (kind === ARC_CCW) {
    if (sweep <= 1e-9) sweep += 2 * Math.PI;
    return sweep > 2 * Math.PI + 1e-9 ? sweep - 2 * Math.PI : sweep;
  }
  if (sweep >= -1e-9) sweep -= 2 * Math.PI;
  return sweep < -2 * Math.PI - 1e-9 ? sweep + 2 * Math.PI : sweep;
}
