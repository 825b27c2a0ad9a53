import { Boundary } from '../../../geometry/plane/boundary';
import { Metal } from './metal';
import { maths } from '../../../quantity/maths';

/** 1 with the metal on the right of the way (climb), −1 with it on the left (conventional). */
export type Side = 1 | -1;

/** Where the cutter's centre is and where it is heading, radians. */
export interface Pose {
  x: number;
  y: number;
  heading: number;
}

/** One unbroken stretch in metal: poses, and on the way to each the engaged angle, radians, and how wide the metal before the cutter is, mm. */
export interface Pass {
  side: Side;
  poses: Pose[];
  engaged: number[];
  across: number[];
}

/** A step: its curvature, positive out of the metal, and the engaged angle at its end, radians. */
interface Step {
  k: number;
  bite: number;
}

/** What holds for every step. */
export interface Rules {
  /** Least distance of the centre from what must stay, mm. */
  wall: number;
  /** Smallest radius of the path, mm. */
  turn: number;
}

/** Angles of the way out at which the bite is looked at, radians: dense at first. */
const WAY_OUT = [6, 12, 20, 29, 40, 53, 67, 83, 101, 121, 145, 170].map((a) => {
  const turn = (a * Math.PI) / 180;
  return { cos: maths.cos(turn), sin: maths.sin(turn) };
});
/** How far round the rim's envelope is looked at, radians: behind on the wall side lies what this pass has cut itself. */
const ALL_ROUND = Math.PI * 1.9;
const CUT_BEHIND = Math.PI * 1.75;
/** On the way out the bite must stay below this share of the asked one: turning so tightly, it is told low. */
const OUT_LESS = 0.88;
/** Until it has gone this share of the cutter's radius, the bite of a pass may still be growing. */
const YOUNG = 0.5;
/** A pass is given up when the bite gets this much larger than asked; it should not happen. */
const GIVE_UP = 1.22;
/** A pass ends where the bite stays below this share of the asked one. */
const HAIR = 0.1;
/** A pass goes on without metal for this share of the cutter's radius: what it meets later has starts of its own. */
const IDLE = 0.25;
/** Radii with which a path arrives at a wall where there is room, as shares of the cutter's. */
const SOFT = [1, 0.3];
/** A step that turns more than this, radians, or bites this much more half way, is made of shorter ones. */
const BENT = 0.3;
const HALF_WAY = 1.03;
const SHORTER = 5;
const CLOSE = 0.004;
const MOST_STEPS = 200_000;
/** Room for rounding at walls, mm. */
const EXACT = 1e-6;
/** A start whose way out is not quite clear may come this much nearer to a wall, mm. */
const ROUGH = 0.002;

/**
 * Walks a cutter through metal so that its engaged angle stays at the asked value. Each step is an arc whose curvature is solved
 * for the bite at its end, and it is taken only if from there the tightest turn out of the metal stays clear of walls and of
 * heavier bites; by induction there is always a way on.
 */
export class Walker {
  private stride = 0;
  private readonly tightest: number;
  /** Radii with which the path may arrive at a wall, the gentlest first. */
  private readonly arrivals: number[];
  private slope = 0;
  /** Length walked in this pass, mm. */
  private gone = 0;
  /** Engaged angle to hold, radians. */
  private angle = 0;
  private x = 0;
  private y = 0;
  private heading = 0;
  private cos = 1;
  private sin = 0;
  private side: Side = 1;
  /** Where the step under trial would end. */
  private tx = 0;
  private ty = 0;
  private th = 0;
  private tcos = 1;
  private tsin = 0;

  constructor(
    private readonly metal: Metal,
    private readonly walls: Boundary,
    private readonly rules: Rules,
  ) {
    this.tightest = 1 / rules.turn;
    this.arrivals = [...SOFT.map((share) => share * metal.radius).filter((r) => r > rules.turn), rules.turn];
  }

  /** Centre of the tightest turn out of the metal. */
  outCentre(pose: Pose, side: Side): { x: number; y: number } {
    const r = this.rules.turn * side;
    return { x: pose.x - maths.sin(pose.heading) * r, y: pose.y + maths.cos(pose.heading) * r };
  }

  private setOut(x: number, y: number, heading: number): void {
    [this.x, this.y, this.heading] = [x, y, heading];
    this.cos = maths.cos(heading);
    this.sin = maths.sin(heading);
  }

  private try(curvature: number, stride: number): void {
    const k = curvature * this.side;
    const turn = k * stride;
    this.th = this.heading + turn;
    const c = maths.cos(turn);
    const s = maths.sin(turn);
    this.tcos = this.cos * c - this.sin * s;
    this.tsin = this.sin * c + this.cos * s;
    if (Math.abs(turn) < 1e-7) {
      this.tx = this.x + stride * this.cos;
      this.ty = this.y + stride * this.sin;
      return;
    }
    this.tx = this.x + (this.tsin - this.sin) / k;
    this.ty = this.y - (this.tcos - this.cos) / k;
  }

  private bite(curvature: number, stride: number): number {
    this.try(curvature, stride);
    return this.metal.engaged(this.tx, this.ty, this.tcos, this.tsin);
  }

  /** Whether from the tried end a turn of radius `r` out of the metal keeps clear of the walls. */
  private hasRoom(r: number): boolean {
    const out = r * this.side;
    const { tx, ty, tcos, tsin, rules } = this;
    return this.walls.isDeeper(tx - tsin * out, ty + tcos * out, rules.wall + r - EXACT);
  }

  /** Whether a step keeps clear of the walls: from its middle and from its end there is a way out of radius `r`. */
  private clearOfWalls(k: number, stride: number, r: number): boolean {
    this.try(k, stride / 2);
    if (!this.hasRoom(r)) return false;
    this.try(k, stride);
    return this.hasRoom(r);
  }

  /** Whether the bite nowhere grows too large on the way out from the tried end. */
  private clearOfMetal(): boolean {
    const { turn } = this.rules;
    const { side, metal, angle } = this;
    const cx = this.tx - this.tsin * turn * side;
    const cy = this.ty + this.tcos * turn * side;
    // Usually nothing stands ahead of what is being cut; then the rim's envelope tells it at once. While a pass is young the
    // bite still grows, and what grows is not ahead.
    const from = this.th - (Math.PI / 2) * side;
    const ahead = from + (angle + 0.6) * side;
    const behind = from + (this.gone > metal.radius ? CUT_BEHIND : ALL_ROUND) * side;
    const grown = this.gone > YOUNG * metal.radius;
    if (grown && metal.isOpen(cx, cy, metal.radius + turn, Math.min(ahead, behind), Math.max(ahead, behind)))
      return true;
    const most = angle * OUT_LESS;
    for (const { cos, sin } of WAY_OUT) {
      const c = this.tcos * cos - this.tsin * sin * side;
      const s = this.tsin * cos + this.tcos * sin * side;
      if (metal.engaged(cx + s * turn * side, cy - c * turn * side, c, s) > most) return false;
    }
    return true;
  }

  /** The curvature (positive: out of the metal) whose step ends with the asked bite. */
  private solve(guess: number, stride: number): { k: number; bite: number } {
    const { angle } = this;
    const limit = (k: number) => Math.max(-this.tightest, Math.min(this.tightest, k));
    const slope = stride + stride * stride * this.slope;
    let k0 = guess;
    let e0 = this.bite(k0, stride) - angle;
    if (Math.abs(e0) < CLOSE * angle) return { k: k0, bite: e0 + angle };
    let k1 = limit(k0 + e0 / slope);
    let e1 = e0;
    for (let round = 0; round < 4 && k1 !== k0; round++) {
      e1 = this.bite(k1, stride) - angle;
      if (Math.abs(e1) < CLOSE * angle) return { k: k1, bite: e1 + angle };
      const steep = (e1 - e0) / (k1 - k0);
      const next = limit(k1 - e1 / (steep < -0.2 * slope ? steep : -slope));
      k0 = k1;
      e0 = e1;
      k1 = next;
    }
    return { k: k1, bite: this.bite(k1, stride) };
  }

  /** The least curvature from `k` upwards whose step keeps a way out of radius `r` clear of the walls; undefined when none does. */
  private awayFromWalls(k: number, stride: number, r: number): number | undefined {
    if (this.clearOfWalls(k, stride, r)) return k;
    if (!this.clearOfWalls(this.tightest, stride, r)) return undefined;
    let bad = k;
    let good = this.tightest;
    for (let i = 0; i < 10; i++) {
      const middle = (bad + good) / 2;
      if (this.clearOfWalls(middle, stride, r)) good = middle;
      else bad = middle;
    }
    return good;
  }

  /** Arriving at a wall tangentially where there is room for it, else by the tightest turn. */
  private besideWalls(k: number, stride: number): number | undefined {
    for (const r of this.arrivals) {
      const found = this.awayFromWalls(k, stride, r);
      if (found !== undefined) return found;
    }
    this.try(this.tightest, stride);
    return this.walls.isDeeper(this.tx, this.ty, this.rules.wall - ROUGH) ? this.tightest : undefined;
  }

  private awayFromMetal(k: number, stride: number): number {
    this.try(k, stride);
    if (this.clearOfMetal()) return k;
    let bad = k;
    let good = this.tightest;
    for (let i = 0; i < 6; i++) {
      const middle = (bad + good) / 2;
      this.try(middle, stride);
      if (this.clearOfMetal()) good = middle;
      else bad = middle;
    }
    return good;
  }

  /** The next step of one length: its curvature, and the bite at its end. */
  private step(guess: number, stride: number): Step | undefined {
    const wanted = this.solve(guess, stride);
    const free = this.besideWalls(wanted.k, stride);
    if (free === undefined) return undefined;
    const k = this.awayFromMetal(free, stride);
    return { k, bite: k === wanted.k ? wanted.bite : this.bite(k, stride) };
  }

  /** A step of full length, where shorter ones would not hold the bite better: it is not bent, nor turned by a wall, nor bites more half way. */
  private longStep(guess: number): Step | undefined {
    const { stride, angle } = this;
    const wanted = this.solve(guess, stride);
    const isBent = (k: number) => Math.abs(k) * stride > BENT;
    if (isBent(wanted.k) || this.besideWalls(wanted.k, stride) !== wanted.k) return undefined;
    const k = this.awayFromMetal(wanted.k, stride);
    if (isBent(k) || this.bite(k, stride / 2) > HALF_WAY * angle) return undefined;
    return { k, bite: k === wanted.k ? wanted.bite : this.bite(k, stride) };
  }

  /**
   * Walks from a pose that stands free until it meets no more metal, taking away what it cuts.
   * @param angle engaged angle to hold, radians
   * @returns nothing when it meets no metal at all
   */
  walk(start: Pose, side: Side, angle: number): Pass | undefined {
    const { metal } = this;
    this.angle = angle;
    this.stride = metal.radius * Math.min(0.1, 0.22 * angle);
    this.slope = 1 / (2 * metal.radius * maths.sin(Math.min(angle, Math.PI - 0.3)));
    this.setOut(start.x, start.y, start.heading);
    this.side = side;
    this.gone = 0;
    const pass: Pass = { side, poses: [start], engaged: [0], across: [0] };
    const patience = IDLE * metal.radius;
    let idle = 0;
    let last = 0;
    let kept = metal.taken;
    let k = 0;
    for (let n = 0; n < MOST_STEPS; n++) {
      const bent = Math.abs(k) * this.stride > BENT;
      const long = bent ? undefined : this.longStep(k);
      const stride = long ? this.stride : this.stride / SHORTER;
      const step = long ?? this.step(k, stride);
      if (!step || step.bite > GIVE_UP * angle) break;
      k = step.k;
      this.gone += stride;
      this.advance(pass, k, stride, step.bite);
      if (step.bite > 0) [last, kept] = [pass.poses.length, metal.taken];
      idle = step.bite > HAIR * angle ? 0 : idle + stride;
      if (idle > patience) break;
    }
    // Where it met nothing it does not go: what may stand there unseen, thinner than a cell, still stands.
    metal.putBack(kept);
    if (last === 0) return undefined;
    pass.poses.length = last;
    pass.engaged.length = last;
    pass.across.length = last;
    return pass;
  }

  /** Takes the step, told in chords of at most 0.05 rad and cut in chords of at most 0.15 rad. */
  private advance(pass: Pass, k: number, stride: number, bite: number): void {
    const turn = Math.abs(k) * stride;
    const cuts = Math.max(1, Math.ceil(turn / 0.15));
    const chords = cuts * Math.max(1, Math.ceil(turn / cuts / 0.05));
    let from = pass.poses[pass.poses.length - 1];
    this.try(k, stride);
    const across = this.metal.across(this.tx, this.ty, this.tcos, this.tsin);
    for (let i = 1; i <= chords; i++) {
      this.try(k, (stride * i) / chords);
      const pose = { x: this.tx, y: this.ty, heading: this.th };
      pass.poses.push(pose);
      pass.engaged.push(bite);
      pass.across.push(across);
      if ((i * cuts) % chords === 0) {
        this.metal.take(from.x, from.y, pose.x, pose.y);
        from = pose;
      }
    }
    this.setOut(this.tx, this.ty, this.th);
  }
}
