import { Boundary } from '../../../geometry/plane/boundary';
import { distance } from '../../../geometry/plane/point';
import { Metal, TOUCHES } from './metal';
import { Pass, Pose, Side } from './walker';
import { maths } from '../../../quantity/maths';

/** A stretch of an earlier pass that still has metal beside it. */
export interface Run {
  first: number;
  last: number;
  /** mm. */
  length: number;
}

/** Share of a radius that is given up beside a start that was tried. */
const SKIP = 0.15;

/** Where earlier passes went, and which of those places still have metal beside them that can be reached. */
export class Frontier {
  private readonly poses: Pose[] = [];
  private readonly side: Side[] = [];
  private readonly track: number[] = [];
  private live: number[] = [];
  private tracks = 0;
  private readonly outside = new Set<number>();
  private readonly tried = new Set<number>();

  constructor(
    private readonly metal: Metal,
    private readonly reachable: Boundary,
  ) {}

  pose(i: number): Pose {
    return this.poses[i];
  }

  sideOf(i: number): Side {
    return this.side[i];
  }

  /** Whether a pose lies along the outside of the stock, where nothing has been cut yet. */
  isOutside(i: number): boolean {
    return this.outside.has(this.track[i]);
  }

  add(pass: Pick<Pass, 'poses' | 'side'>, outside = false): void {
    this.tracks++;
    if (outside) this.outside.add(this.tracks);
    for (const pose of pass.poses) {
      this.live.push(this.poses.length);
      this.poses.push(pose);
      this.side.push(pass.side);
      this.track.push(this.tracks);
    }
  }

  /** A start that was tried is not offered again, nor its near neighbours in the run. */
  giveUp(run: Run, from: number): void {
    const { x, y } = this.poses[from];
    const step = from === run.first ? 1 : -1;
    for (let i = from; i >= run.first && i <= run.last; i += step) {
      if (maths.hypot(this.poses[i].x - x, this.poses[i].y - y) > this.metal.radius * SKIP) break;
      this.tried.add(i);
    }
  }

  /** Offers every start again. */
  forgive(): void {
    this.tried.clear();
  }

  private hasMetal(i: number): boolean {
    const { x, y, heading } = this.poses[i];
    const { beyond, radius } = this.metal;
    const reach = (radius + beyond) * this.side[i];
    const px = x + maths.sin(heading) * reach;
    const py = y - maths.cos(heading) * reach;
    return this.metal.at(px, py) > beyond * TOUCHES && this.reachable.isDeeper(px, py, beyond * TOUCHES);
  }

  /** The runs as they are now. */
  runs(): Run[] {
    this.live = this.live.filter((i) => this.hasMetal(i));
    const found: Run[] = [];
    let run: Run | undefined;
    for (const i of this.live) {
      if (this.tried.has(i)) continue;
      if (run && i - run.last <= 2 && this.track[i] === this.track[run.last]) {
        run.length += distance(this.poses[i], this.poses[run.last]);
        run.last = i;
      } else {
        run = { first: i, last: i, length: 0 };
        found.push(run);
      }
    }
    return found;
  }
}
