/** A solid looked at from above: its flats, its upright walls, what is open above a height. */
import { Chain } from '../../geometry/plane/chain';
import { Region, Ring, area, contains, difference, islands, ringArea } from '../../geometry/plane/clip';
import { Point, distanceToSegment } from '../../geometry/plane/point';
import { areaVectors } from '../../geometry/space/triangles';
import { Vec3, vec } from '../../geometry/space/vec3';
import { maths } from '../../quantity/maths';
import { Faces } from './faces/faces';
import { Found, SAME_HEIGHT } from './found';
import { isReached, reachedFromAbove } from './reach';
import { Standing, Upright, chainOf, shapeOf, tidy } from './rings';
import { Tops } from './tops';

/** Normals this upright belong to flats, others this level to walls. */
export const UPRIGHT = 0.99999;
const LEVEL = 1e-4;
/** Area of a facet that is none, mm². */
const DUST = 1e-9;
/** Regions smaller than this are none, mm². */
export const LEAST_AREA = 0.01;
/** Flats that levels are taken from. */
const MOST_FLATS = 400;
/** Rings with more sides are of free form. */
const MOST_SIDES = 500;
/** Faces that bend less than this run on into each other, rad. */
const RUNS_ON = 0.35;

/** A flat that looks up. */
export interface Flat {
  face: number;
  z: number;
  /** A place on it. */
  at: Point;
}

/** Places found by where they lie, mm. */
class PlacesNear {
  private readonly cells = new Set<number>();

  constructor(places: Point[]) {
    for (const { x, y } of places)
      for (let i = -1; i <= 1; i++)
        for (let j = -1; j <= 1; j++) this.cells.add(this.cell(Math.round(x / CELL) + i, Math.round(y / CELL) + j));
  }

  private cell(i: number, j: number): number {
    return i * 1e8 + j;
  }

  has(x: number, y: number): boolean {
    return this.cells.has(this.cell(Math.round(x / CELL), Math.round(y / CELL)));
  }
}

/** Corners of a ring and of a wall that lie so near each other are one, mm. */
const CELL = 1e-3;

/** Looks at a solid as it lies. */
export class Looked {
  readonly uprights: Upright[];
  readonly flats: Flat[];
  readonly silhouette: Region;
  /** The same without its openings. */
  readonly filled: Region;

  /** @param made faces that another side makes */
  constructor(
    readonly solid: Faces,
    readonly tops: Tops,
    private readonly made: ReadonlySet<number> = new Set(),
  ) {
    const { faces } = solid;
    this.uprights = uprightsOf(solid);
    this.flats = faces.flatMap((f, face) => {
      if (f.fit.kind !== 'plane' || f.fit.normal.z < UPRIGHT || f.area < LEAST_AREA) return [];
      if (made.has(face) && this.isFarWall(face)) return [];
      const { at, normal } = f.fit;
      const z = tidy((at.x * normal.x + at.y * normal.y + at.z * normal.z) / normal.z);
      return [{ face, z, at: this.middleOf(face) }];
    });
    this.silhouette = this.tops.above(-Infinity);
    this.filled = islands(this.silhouette).map(([ring]) => ring);
  }

  private known?: number[];

  /** For each face, how much of it nothing stands over: 0 to 1. */
  get shares(): number[] {
    return (this.known ??= reachedFromAbove(this.solid, this.tops));
  }

  /** Whether another side makes a flat. */
  isMade({ face }: Flat): boolean {
    return this.made.has(face);
  }

  /** Whether a flat is seen through an opening in what stands before it: none of the walls it ends in is seen whole. */
  private isFarWall(face: number): boolean {
    const walls = this.wallsOf(face);
    return walls.length > 0 && walls.every((i) => !isReached(this.shares[i]));
  }

  /** Middle of the largest triangle of a face. */
  private middleOf(face: number): Vec3 {
    const { mesh, faces } = this.solid;
    let best = vec(0, 0, 0);
    let most = -1;
    for (const t of faces[face].triangles) {
      const [a, b, c] = [0, 1, 2].map((k) => 3 * mesh.corners[3 * t + k]);
      const p = mesh.points;
      const size = Math.abs((p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[c] - p[a]) * (p[b + 1] - p[a + 1]));
      if (size <= most) continue;
      most = size;
      best = vec((p[a] + p[b] + p[c]) / 3, (p[a + 1] + p[b + 1] + p[c + 1]) / 3, (p[a + 2] + p[b + 2] + p[c + 2]) / 3);
    }
    return best;
  }

  /** The box round the solid. */
  get box(): Ring {
    const { min, max } = this.tops.box;
    return [
      { x: min.x, y: min.y },
      { x: max.x, y: min.y },
      { x: max.x, y: max.y },
      { x: min.x, y: max.y },
    ];
  }

  open(z: number): Region[] {
    return islands(difference(this.filled, this.tops.above(z))).filter((r) => area(r) > LEAST_AREA);
  }

  openBelow(z: number): Region {
    return difference(this.filled, this.tops.above(z));
  }

  /** The plainest shape of a ring; of one at a height, with corners that are parts of cones too. */
  standing(ring: Ring, z?: number): Standing {
    const rounds = z === undefined ? this.uprights : [...this.uprights, ...conesAt(this.solid, z)];
    const chain: Chain = chainOf(ringArea(ring) < 0 ? [...ring].reverse() : ring, rounds);
    return shapeOf(chain, rounds);
  }

  /** The outside, by its outermost lines. */
  outside(): Found[] {
    return this.filled.map((ring) => ({
      ...this.standing(ring),
      ...{ meaning: 'outline', depth: 0, through: true, faces: this.wallsAlong(ring) },
    }));
  }

  /** How the walls of a floor are rounded at their foot, mm. */
  footOf(face: number): number {
    const { faces } = this.solid;
    let foot = 0;
    for (const [other, bend] of faces[face].meets) {
      const { fit, isHollow } = faces[other];
      if (!isHollow || Math.abs(bend) > RUNS_ON) continue;
      if (isFillet(fit) && 'radius' in fit) foot = Math.max(foot, fit.radius);
    }
    return tidy(foot);
  }

  /** How far the walls that rise from a floor stand from upright, degrees: 0 where one is upright, or they do not lean alike. */
  taperOf(face: number): number {
    const { faces } = this.solid;
    const leans = [...faces[face].meets].flatMap(([other, bend]) => {
      const { fit } = faces[other];
      if (bend > -RUNS_ON) return [];
      if (fit.kind === 'plane') return [maths.asin(fit.normal.z)];
      return fit.kind === 'cone' && Math.abs(fit.axis.z) > UPRIGHT ? [Math.abs(fit.slope)] : [0];
    });
    const [least, most] = [Math.min(...leans), Math.max(...leans)];
    return leans.length > 0 && most - least < 1e-3 ? tidy((most * 180) / Math.PI) : 0;
  }

  /** Faces that rise from a floor, over rounded feet too. */
  wallsOf(face: number): number[] {
    const { faces } = this.solid;
    const found = new Set<number>();
    const from = [face];
    // From a rounded foot one goes on to the wall, from a wall no further.
    for (let i = 0; i < from.length; i++)
      for (const [other, bend] of faces[from[i]].meets) {
        if (found.has(other) || other === face || bend > RUNS_ON) continue;
        const isFoot = isFillet(faces[other].fit);
        if (!isFoot && !this.isWall(other)) continue;
        found.add(other);
        if (isFoot) from.push(other);
      }
    return [...found];
  }

  /** Heights between which a face lies. */
  span(face: number): [number, number] {
    const { mesh, faces } = this.solid;
    let [low, high] = [Infinity, -Infinity];
    for (const t of faces[face].triangles)
      for (let k = 0; k < 3; k++) {
        const z = mesh.points[3 * mesh.corners[3 * t + k] + 2];
        if (z < low) low = z;
        if (z > high) high = z;
      }
    return [low, high];
  }

  /** Level faces that walls end in at a height. */
  levelBeside(walls: number[], z: number): number[] {
    const { faces } = this.solid;
    const beside = new Set(walls.flatMap((i) => [...faces[i].meets.keys()]));
    return this.flats.flatMap((f) => (beside.has(f.face) && Math.abs(f.z - z) < 2e-3 ? [f.face] : []));
  }

  get thickness(): number {
    return tidy(this.tops.box.max.z - this.tops.box.min.z);
  }

  /**
   * The heights flats lie at below the top, each once, from above. Where there are so many that nobody could work by them, as in what was
   * built up in thin layers, those of the largest.
   */
  heights(): number[] {
    const below = this.flats.filter((f) => f.z < -SAME_HEIGHT);
    const largest = [...below].sort((a, b) => this.solid.faces[b.face].area - this.solid.faces[a.face].area);
    const heights = largest.slice(0, MOST_FLATS).map((f) => f.z);
    return heights.sort((a, b) => b - a).filter((z, i, all) => i === 0 || all[i - 1] - z > SAME_HEIGHT);
  }

  isWall(face: number): boolean {
    const { fit } = this.solid.faces[face];
    if (fit.kind === 'plane') return Math.abs(fit.normal.z) < LEVEL;
    if (fit.kind === 'cylinder') return Math.abs(fit.axis.z) > UPRIGHT;
    return fit.kind === 'free' && this.standsUpright(face);
  }

  private readonly upright = new Map<number, boolean>();
  private areas?: Float64Array;

  /** Whether all of a face of free form stands upright, as round a cam. */
  private standsUpright(face: number): boolean {
    const a = (this.areas ??= areaVectors(this.solid.mesh));
    const isLevel = (t: number) => Math.abs(a[3 * t + 2]) <= LEVEL * maths.hypot(a[3 * t], a[3 * t + 1]) + DUST;
    if (!this.upright.has(face)) this.upright.set(face, this.solid.faces[face].triangles.every(isLevel));
    return this.upright.get(face)!;
  }

  /** Upright faces a ring runs along. */
  wallsAlong(ring: Ring): number[] {
    const { faces, mesh } = this.solid;
    const p = mesh.points;
    const places = new PlacesNear(ring);
    const runsAlong = (t: number) =>
      [0, 1, 2].every((k) => {
        const c = 3 * mesh.corners[3 * t + k];
        return places.has(p[c], p[c + 1]);
      });
    // A flat wall that is not cut off square has corners where the ring has none; that of free form has a corner everywhere.
    const liesOn = (i: number) => {
      if (faces[i].fit.kind !== 'plane' || ring.length > MOST_SIDES) return false;
      const middle = this.middleOf(i);
      return ring.some((a, k) => isOnLine(middle, a, ring[(k + 1) % ring.length]));
    };
    return faces.flatMap(({ triangles }, i) => (this.isWall(i) && (triangles.some(runsAlong) || liesOn(i)) ? [i] : []));
  }

  isSeen({ at, z }: Flat): boolean {
    return this.tops.at(at.x, at.y) < z + SAME_HEIGHT;
  }

  highestIn(ring: Ring): number {
    const { points } = this.solid.mesh;
    let top = -Infinity;
    for (let i = 0; i < points.length; i += 3)
      if (points[i + 2] > top && contains([ring], { x: points[i], y: points[i + 1] })) top = points[i + 2];
    return top === -Infinity ? 0 : top;
  }
}

/** Whether a place lies on a piece of a line. */
export const isOnLine = (p: Point, a: Point, b: Point): boolean => distanceToSegment(p, a, b).distance < 1e-3;

/** Whether a surface may round the foot of an upright wall. */
const isFillet = (fit: Faces['faces'][number]['fit']): boolean =>
  (fit.kind === 'cylinder' && Math.abs(fit.axis.z) < LEVEL) || (fit.kind === 'ring' && Math.abs(fit.axis.z) > UPRIGHT);

/** Where an upright axis stands. */
export function onAxis({ at, axis }: { at: Vec3; axis: Vec3 }): Point {
  const by = at.z / axis.z;
  return { x: at.x - by * axis.x, y: at.y - by * axis.y };
}

/** The cylinders that stand upright. */
export const uprightsOf = ({ faces }: Faces): Upright[] =>
  faces.flatMap(({ fit }) => (fit.kind === 'cylinder' && Math.abs(fit.axis.z) > UPRIGHT ? [uprightOf(fit)] : []));

/** Where the cones that stand upright cut a height. */
const conesAt = ({ faces }: Faces, z: number): Upright[] =>
  faces.flatMap(({ fit }) => {
    if (fit.kind !== 'cone' || Math.abs(fit.axis.z) < UPRIGHT) return [];
    const radius = fit.radius + ((z - fit.at.z) / fit.axis.z) * maths.tan(fit.slope);
    return radius > 0 ? [{ ...onAxis(fit), radius }] : [];
  });

const uprightOf = (fit: { at: Vec3; axis: Vec3; radius: number }): Upright => ({ ...onAxis(fit), radius: fit.radius });
