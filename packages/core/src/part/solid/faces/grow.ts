/** Faces of a mesh whose file knows none: flats first, then what bends softly, taken apart into plain surfaces where it is made of few. */
import { Triangles } from '../../../geometry/space/triangles';
import { Vec3, dot, lengthOf, minus, times, vec } from '../../../geometry/space/vec3';
import { maths } from '../../../quantity/maths';
import { radians } from '../../../quantity/units';
import { Fit, Sampled, distanceTo, fitTo, isChordOf } from './fit';

/** Bends below this run on, above it they are edges. */
const SOFT = maths.cos(radians(25));
/** Triangles of one flat look the same way. */
const FLAT = maths.cos(radians(1.8));
/** A flat is a strip of a curved face when so much of its rim bends softly to others of its size. */
const STRIP_RIM = 0.3;
/** What is of its size: at least so large a share of it. */
const OF_ITS_SIZE = 1 / 3;
/** A soft patch is taken apart into at most so many plain surfaces, which cover so much of it; else it is free. */
const MOST_PIECES = 24;
const COVERED = 0.98;
/** Places in a patch that are on no plain surface, until it is taken for free. */
const MOST_MISSES = 12;
/** A piece of a soft patch has at least so many facets. */
const LEAST_FACETS = 6;
/** How much more a surface must take in than a plainer one. */
const PLAINER = 1.5;
/** Facets a plain surface is sought through. */
const LOOKED_AT = [6, 12, 30, 80];

class Growing {
  readonly of: Int32Array;
  private readonly normals: Float64Array;
  private readonly size: Float64Array;

  constructor(
    private readonly mesh: Triangles,
    private readonly areas: Float64Array,
    private readonly against: Int32Array,
    private readonly tolerance: number,
  ) {
    const count = against.length / 3;
    this.of = new Int32Array(count).fill(-1);
    this.normals = new Float64Array(areas.length);
    this.size = new Float64Array(count);
    for (let t = 0; t < count; t++) {
      const length = maths.hypot(areas[3 * t], areas[3 * t + 1], areas[3 * t + 2]);
      this.size[t] = length / 2;
      for (let k = 0; k < 3; k++) this.normals[3 * t + k] = length > 0 ? areas[3 * t + k] / length : 0;
    }
  }

  private facing(t: number, s: number): number {
    const n = this.normals;
    return n[3 * t] * n[3 * s] + n[3 * t + 1] * n[3 * s + 1] + n[3 * t + 2] * n[3 * s + 2];
  }

  private corner(e: number): Vec3 {
    const p = 3 * this.mesh.corners[e];
    return vec(this.mesh.points[p], this.mesh.points[p + 1], this.mesh.points[p + 2]);
  }

  /** Grows from a seed over edges as long as the next triangle may be taken. */
  private grow(seed: number, name: number, mayTake: (t: number, from: number) => boolean): number[] {
    const taken = [seed];
    this.of[seed] = name;
    for (let i = 0; i < taken.length; i++)
      for (let e = 3 * taken[i]; e < 3 * taken[i] + 3; e++) {
        const next = this.against[e] < 0 ? -1 : Math.floor(this.against[e] / 3);
        if (next < 0 || this.of[next] >= 0 || !mayTake(next, taken[i])) continue;
        this.of[next] = name;
        taken.push(next);
      }
    return taken;
  }

  /** Flats, from the largest triangle on; all corners lie in the plane of the first. */
  flats(): number[][] {
    const bySize = Array.from(this.size.keys()).sort((a, b) => this.size[b] - this.size[a] || a - b);
    const flats: number[][] = [];
    for (const seed of bySize) {
      if (this.of[seed] >= 0) continue;
      const n = vec(this.normals[3 * seed], this.normals[3 * seed + 1], this.normals[3 * seed + 2]);
      const height = dot(n, this.corner(3 * seed));
      flats.push(
        this.grow(seed, flats.length, (t) => {
          if (this.facing(t, seed) < FLAT && this.size[t] > 1e-9) return false;
          for (let e = 3 * t; e < 3 * t + 3; e++)
            if (Math.abs(dot(n, this.corner(e)) - height) > this.tolerance) return false;
          return true;
        }),
      );
    }
    return flats;
  }

  private edgeLength(e: number): number {
    return lengthOf(minus(this.corner(e), this.corner(e - (e % 3) + ((e + 1) % 3))));
  }

  /** Which flats are strips of curved faces. */
  strips(flats: number[][]): boolean[] {
    const size = flats.map((f) => f.reduce((s, t) => s + this.size[t], 0));
    return flats.map((flat, name) => {
      let [rim, soft] = [0, 0];
      for (const t of flat)
        for (let e = 3 * t; e < 3 * t + 3; e++) {
          const next = this.against[e] < 0 ? -1 : Math.floor(this.against[e] / 3);
          if (next >= 0 && this.of[next] === name) continue;
          const length = this.edgeLength(e);
          rim += length;
          if (next < 0 || this.facing(t, next) < SOFT) continue;
          if (size[this.of[next]] >= OF_ITS_SIZE * size[name]) soft += length;
        }
      return soft > STRIP_RIM * rim;
    });
  }

  /** Lets go of triangles, so that they can be taken anew. */
  free(triangles: number[]): void {
    for (const t of triangles) this.of[t] = -1;
  }

  /** What bends softly from a seed on, within what is free. */
  patch(seed: number, name: number): number[] {
    return this.grow(seed, name, (t, from) => this.facing(t, from) > SOFT || this.size[t] < 1e-9);
  }

  sampled(triangles: number[]): Sampled {
    const corners = new Map<number, Vec3>();
    const facets = triangles.map((t) => {
      const three = [0, 1, 2].map((k) => this.corner(3 * t + k));
      three.forEach((p, k) => corners.set(this.mesh.corners[3 * t + k], p));
      const sum = three.reduce((s, p) => vec(s.x + p.x, s.y + p.y, s.z + p.z), vec(0, 0, 0));
      const area = vec(this.areas[3 * t], this.areas[3 * t + 1], this.areas[3 * t + 2]);
      return { at: times(sum, 1 / 3), area };
    });
    return { corners: [...corners.values()], facets };
  }

  /** Triangles about a seed, those across the longest edges first: along the strips of a curved face, not across them. */
  private near(seed: number, isIn: (t: number) => boolean, most: number): number[] {
    const found = [seed];
    const seen = new Set(found);
    const rim: { t: number; length: number }[] = [];
    const look = (t: number) => {
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const next = this.against[e] < 0 ? -1 : Math.floor(this.against[e] / 3);
        if (next >= 0 && !seen.has(next) && isIn(next)) rim.push({ t: next, length: this.edgeLength(e) });
      }
    };
    look(seed);
    while (found.length < most && rim.length > 0) {
      const best = rim.reduce((b, r, i) => (r.length > rim[b].length ? i : b), 0);
      const [{ t }] = rim.splice(best, 1);
      if (seen.has(t)) continue;
      seen.add(t);
      found.push(t);
      look(t);
    }
    return found;
  }

  /** All triangles that hang together with a seed and lie on a surface. */
  private lyingOn(fit: Fit, seed: number, isIn: (t: number) => boolean): number[] {
    const found = [seed];
    const seen = new Set(found);
    for (let i = 0; i < found.length; i++)
      for (let e = 3 * found[i]; e < 3 * found[i] + 3; e++) {
        const next = this.against[e] < 0 ? -1 : Math.floor(this.against[e] / 3);
        if (next < 0 || seen.has(next) || !isIn(next) || !this.liesOn(fit, next)) continue;
        seen.add(next);
        found.push(next);
      }
    return found;
  }

  /** The largest plain surface a seed is part of. */
  private pieceAt(seed: number, isIn: (t: number) => boolean): number[] {
    let best: number[] = [];
    let size = 0;
    for (const most of LOOKED_AT) {
      const near = this.near(seed, isIn, most);
      if (near.length < most) break;
      const fit = fitTo(this.sampled(near), this.tolerance);
      if (fit.kind === 'free' || fit.kind === 'plane') continue;
      const piece = this.lyingOn(fit, seed, isIn);
      // The plainer surface is tried first and stays, unless another takes in far more.
      const its = piece.reduce((s, t) => s + this.size[t], 0);
      if (its > PLAINER * size) [best, size] = [piece, its];
    }
    return best;
  }

  private liesOn(fit: Fit, t: number): boolean {
    return isChordOf(
      fit,
      [0, 1, 2].map((k) => this.corner(3 * t + k)),
      this.tolerance,
    );
  }

  /**
   * A soft patch as plain surfaces, each grown from where a few facets lie on one; undefined where it takes too many, or they
   * leave too much.
   */
  apart(patch: number[]): number[][] | undefined {
    const left = new Set(patch);
    const total = patch.reduce((s, t) => s + this.size[t], 0);
    const pieces: number[][] = [];
    const seeds = [...patch].sort((a, b) => this.size[b] - this.size[a] || a - b);
    let misses = 0;
    for (const seed of seeds) {
      if (!left.has(seed)) continue;
      if (pieces.length >= MOST_PIECES || misses > MOST_MISSES) break;
      const piece = this.pieceAt(seed, (t) => left.has(t));
      if (piece.length < LEAST_FACETS) {
        misses++;
        continue;
      }
      for (const t of piece) left.delete(t);
      pieces.push(piece);
    }
    const rest = [...left].reduce((s, t) => s + this.size[t], 0);
    if (pieces.length < 2 || rest > (1 - COVERED) * total) return undefined;
    return this.withRest(pieces, left);
  }

  /** What is left over goes to the piece beside it that it lies nearest to. */
  private withRest(pieces: number[][], left: Set<number>): number[][] {
    const fits = pieces.map((piece) => fitTo(this.sampled(piece), this.tolerance));
    const of = new Map<number, number>();
    pieces.forEach((piece, i) => piece.forEach((t) => of.set(t, i)));
    const off = (t: number, i: number) =>
      Math.max(...[0, 1, 2].map((k) => Math.abs(distanceTo(fits[i], this.corner(3 * t + k)))));
    for (let isMoving = true; isMoving && left.size > 0;) {
      isMoving = false;
      for (const t of left) {
        const beside = [3 * t, 3 * t + 1, 3 * t + 2].flatMap((e) =>
          this.against[e] < 0 ? [] : (of.get(Math.floor(this.against[e] / 3)) ?? []),
        );
        if (beside.length === 0) continue;
        const nearest = beside.reduce((best, i) => (off(t, i) < off(t, best) ? i : best));
        of.set(t, nearest);
        pieces[nearest].push(t);
        left.delete(t);
        isMoving = true;
      }
    }
    if (left.size > 0) pieces.push([...left]);
    return pieces;
  }
}

/** Patches larger than this are not looked at for plain surfaces, triangles. */
const LARGEST_APART = 60_000;

/**
 * The face of each triangle of a mesh.
 * @param tolerance how far corners may lie from the surface of their face, mm
 */
export function grownFaces(mesh: Triangles, areas: Float64Array, against: Int32Array, tolerance: number): Int32Array {
  const growing = new Growing(mesh, areas, against, tolerance);
  const flats = growing.flats();
  const strips = growing.strips(flats);
  let name = flats.length;
  const soft = flats.filter((_, i) => strips[i]);
  soft.forEach((flat) => growing.free(flat));
  for (const flat of soft) {
    for (const seed of flat) {
      if (growing.of[seed] >= 0) continue;
      const patch = growing.patch(seed, name++);
      if (patch.length > LARGEST_APART || fitTo(growing.sampled(patch), tolerance).kind !== 'free') continue;
      for (const piece of growing.apart(patch) ?? []) {
        for (const t of piece) growing.of[t] = name;
        name++;
      }
    }
  }
  return growing.of;
}
