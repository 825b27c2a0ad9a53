/** What a solid has to be cut, seen from above: pockets with their floors, islands and open sides, steps, holes, bosses, the outside. */
import { Chain } from '../../geometry/plane/chain';
import {
  Region,
  Ring,
  area,
  contains,
  difference,
  intersection,
  islands,
  offsetSharp,
  ringArea,
  union,
} from '../../geometry/plane/clip';
import { Point, distance, distanceToSegment } from '../../geometry/plane/point';
import { Vec3, vec } from '../../geometry/space/vec3';
import { maths } from '../../quantity/maths';
import { Counterbore, EdgeForm, Meaning } from '../plate/feature';
import { Faces } from './faces/faces';
import { isReached, reachedFromAbove } from './reach';
import { Standing, Upright, chainOf, shapeOf, tidy } from './rings';
import { Tops } from './tops';

/** Something that was found, as the solid lies. */
export interface Found extends Standing {
  meaning: Extract<Meaning, 'outline' | 'pocket' | 'boss' | 'hole'>;
  /** Of its floor below the top of the solid, of a boss its top, mm. */
  depth: number;
  through: boolean;
  counterbore?: Counterbore;
  edge?: EdgeForm;
  /** Included angle of the point a blind hole ends in, degrees. */
  point?: number;
  /** Radius at the foot of its walls, mm. */
  foot?: number;
  /** Whether it is open to the side somewhere. */
  isOpen?: boolean;
  /** Faces it is made of. */
  faces: number[];
}

/** Normals this upright belong to flats, others this level to walls. */
const UPRIGHT = 0.99999;
const LEVEL = 1e-4;
/** Heights so near are one, mm. */
const SAME_HEIGHT = 1e-3;
/** Sections are taken so far above a floor, mm. */
const ABOVE = 4e-4;
/** Regions smaller than this are none, mm². */
const LEAST_AREA = 0.01;
/** A pocket runs so far out over an open side, mm. */
const OVER_SIDE = 1;
/** A blind round recess with a level floor that is wider than this is a pocket, mm. */
const WIDEST_DRILLED = 16;
/** A through one that is wider is one too, mm. */
const WIDEST_BORED = 40;
/** A cylinder that goes round so far is a hole, degrees. */
const ALL_ROUND = 300;
/** Places round a hole where it is looked into. */
const LOOKED_INTO = 8;

/** A flat that looks up. */
interface Flat {
  face: number;
  z: number;
  /** A place on it. */
  at: Point;
}

/** Looks at a solid as it lies. */
export class Looked {
  readonly uprights: Upright[];
  readonly flats: Flat[];
  private readonly silhouette: Region;
  /** The same without its openings. */
  private readonly filled: Region;

  constructor(
    readonly solid: Faces,
    readonly tops: Tops,
  ) {
    const { faces } = solid;
    this.uprights = faces.flatMap(({ fit }) =>
      fit.kind === 'cylinder' && Math.abs(fit.axis.z) > UPRIGHT ? [uprightOf(fit)] : [],
    );
    this.flats = faces.flatMap((f, face) => {
      if (f.fit.kind !== 'plane' || f.fit.normal.z < UPRIGHT || f.area < LEAST_AREA) return [];
      const { at, normal } = f.fit;
      const z = tidy((at.x * normal.x + at.y * normal.y + at.z * normal.z) / normal.z);
      return [{ face, z, at: this.middleOf(face) }];
    });
    this.silhouette = this.tops.above(-Infinity);
    this.filled = islands(this.silhouette).map(([ring]) => ring);
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

  private open(z: number): Region[] {
    return islands(difference(this.filled, this.tops.above(z))).filter((r) => area(r) > LEAST_AREA);
  }

  private standing(ring: Ring): Standing {
    const chain: Chain = chainOf(ringArea(ring) < 0 ? [...ring].reverse() : ring, this.uprights);
    return shapeOf(chain, this.uprights);
  }

  /** The outside, by its outermost lines. */
  outside(): Found[] {
    return this.filled.map((ring) => ({
      ...this.standing(ring),
      ...{ meaning: 'outline', depth: 0, through: true, faces: this.wallsAlong(ring) },
    }));
  }

  /** How the walls of a floor are rounded at their foot, mm. */
  private footOf(face: number): number {
    const { faces } = this.solid;
    let foot = 0;
    for (const [other, bend] of faces[face].meets) {
      const { fit, isHollow } = faces[other];
      if (!isHollow || Math.abs(bend) > 0.35) continue;
      if (isFillet(fit) && 'radius' in fit) foot = Math.max(foot, fit.radius);
    }
    return tidy(foot);
  }

  /** Faces that rise from a floor, over rounded feet too. */
  private wallsOf(face: number): number[] {
    const { faces } = this.solid;
    const found = new Set<number>();
    const from = [face];
    // From a rounded foot one goes on to the wall, from a wall no further.
    for (let i = 0; i < from.length; i++)
      for (const [other, bend] of faces[from[i]].meets) {
        if (found.has(other) || other === face || bend > 0.35) continue;
        const isFoot = isFillet(faces[other].fit);
        if (!isFoot && !this.isWall(other)) continue;
        found.add(other);
        if (isFoot) from.push(other);
      }
    return [...found];
  }

  /** Holes that are open above. */
  holes(): Found[] {
    const { faces } = this.solid;
    const axes: { x: number; y: number; faces: number[] }[] = [];
    faces.forEach(({ fit, isHollow }, i) => {
      if (!isHollow || (fit.kind !== 'cylinder' && fit.kind !== 'cone') || Math.abs(fit.axis.z) < 1 - 4e-7) return;
      const { x, y } = onAxis(fit);
      const known = axes.find((a) => Math.abs(a.x - x) < 2e-3 && Math.abs(a.y - y) < 2e-3);
      if (known) known.faces.push(i);
      else axes.push({ x, y, faces: [i] });
    });
    return axes.flatMap((axis) => this.holeAt(axis));
  }

  /** Heights between which a face lies. */
  private span(face: number): [number, number] {
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

  private holeAt({ x, y, faces: on }: { x: number; y: number; faces: number[] }): Found[] {
    const { faces } = this.solid;
    const bores: { radius: number; low: number; high: number; turn: number; faces: number[] }[] = [];
    for (const i of on) {
      const { fit, turn } = faces[i];
      if (fit.kind !== 'cylinder') continue;
      const [low, high] = this.span(i);
      const known = bores.find((b) => Math.abs(b.radius - fit.radius) < 1e-3);
      if (known) {
        known.turn = Math.max(
          known.turn,
          Math.min(360, known.low < high && low < known.high ? known.turn + turn : turn),
        );
        known.low = Math.min(known.low, low);
        known.high = Math.max(known.high, high);
        known.faces.push(i);
      } else bores.push({ radius: fit.radius, low, high, turn, faces: [i] });
    }
    const whole = bores.filter((b) => b.turn > ALL_ROUND).sort((a, b) => b.high - a.high || b.radius - a.radius);
    // From the top down, each narrower than what is above it, and nothing over its mouth.
    const seen = whole.filter((b) => this.isFree({ x, y }, b.radius, b.high));
    const narrow = seen.reduce<(typeof seen)[number] | undefined>(
      (best, b) => (!best || (b.radius < best.radius - 1e-3 && b.high <= best.high + 1e-6) ? b : best),
      undefined,
    );
    if (!narrow) return [];
    const through = this.tops.at(x, y) === -Infinity;
    const cones = on.flatMap((i) => {
      const { fit } = faces[i];
      if (fit.kind !== 'cone') return [];
      const [low, high] = this.span(i);
      return [{ face: i, low, high, half: Math.abs(fit.slope), isNarrowing: fit.slope * fit.axis.z > 0 }];
    });
    const point = cones.find((c) => Math.abs(c.high - narrow.low) < 2e-3 && c.isNarrowing);
    const sink = cones.find((c) => Math.abs(c.low - narrow.high) < 2e-3 && c.isNarrowing);
    if (!through && !point && 2 * narrow.radius > WIDEST_DRILLED) return [];
    if (through && 2 * narrow.radius > WIDEST_BORED) return [];
    const wider = seen
      .filter((b) => b.radius > narrow.radius + 1e-3 && b.low >= narrow.high - 2e-3 && b.low < narrow.high + 2e-3)
      .find((b) => b.radius < 4 * narrow.radius);
    const found: Found = {
      ...{ meaning: 'hole', shape: { type: 'round', diameter: tidy(2 * narrow.radius) }, turn: 0 },
      ...{ x: tidy(x), y: tidy(y), depth: through ? this.thickness : tidy(-narrow.low), through },
      faces: [
        ...narrow.faces,
        ...(wider?.faces ?? []),
        ...[point, sink].flatMap((c) => c?.face ?? []),
        ...this.levelBeside(narrow.faces, narrow.low),
        ...(wider ? this.levelBeside(wider.faces, wider.low) : []),
      ],
    };
    if (point) found.point = tidy((2 * point.half * 180) / Math.PI);
    if (wider) found.counterbore = { diameter: tidy(2 * wider.radius), depth: tidy(-wider.low) };
    if (sink) {
      const size = tidy((sink.high - sink.low) * maths.tan(sink.half));
      found.edge = { form: 'chamfer', size, angle: tidy((2 * sink.half * 180) / Math.PI) };
    }
    return [found];
  }

  /** Level faces that walls end in at a height. */
  private levelBeside(walls: number[], z: number): number[] {
    const { faces } = this.solid;
    const beside = new Set(walls.flatMap((i) => [...faces[i].meets.keys()]));
    return this.flats.flatMap((f) => (beside.has(f.face) && Math.abs(f.z - z) < 2e-3 ? [f.face] : []));
  }

  get thickness(): number {
    return tidy(this.tops.box.max.z - this.tops.box.min.z);
  }

  /** Whether nothing stands over a round opening. */
  private isFree(at: Point, radius: number, z: number): boolean {
    for (let k = 0; k < LOOKED_INTO; k++) {
      const angle = (2 * Math.PI * (k + 0.31)) / LOOKED_INTO;
      const r = 0.9 * radius;
      if (this.tops.at(at.x + r * maths.cos(angle), at.y + r * maths.sin(angle)) > z - 1e-3) return false;
    }
    return true;
  }

  /** The heights flats lie at below the top, each once, from above. */
  private heights(): number[] {
    const below = this.flats.map((f) => f.z).filter((z) => z < -SAME_HEIGHT);
    return below.sort((a, b) => b - a).filter((z, i, all) => i === 0 || all[i - 1] - z > SAME_HEIGHT);
  }

  /** Pockets, steps and through openings, and what stands in them. */
  levels(holes: Found[]): Found[] {
    const levels = this.heights().flatMap((z) => this.atLevel(z, holes));
    const openings = islands(this.silhouette).flatMap(([, ...inner]) => inner);
    const through = openings
      .map((ring) => ({ ring, standing: this.standing(ring) }))
      .filter(({ standing }) => !holes.some((h) => isSameRound(h, standing)))
      .map(({ ring, standing }): Found => ({
        ...standing,
        ...{ meaning: 'pocket', depth: this.thickness, through: true },
        faces: this.wallsAlong(ring),
      }));
    const found = [...levels, ...through].filter((f, i, all) => !isCovered(f, i, all));
    return [...found, ...this.windows([...found, ...holes, ...this.outside()])];
  }

  private isWall(face: number): boolean {
    const { fit } = this.solid.faces[face];
    return (
      (fit.kind === 'plane' && Math.abs(fit.normal.z) < LEVEL) ||
      (fit.kind === 'cylinder' && Math.abs(fit.axis.z) > UPRIGHT)
    );
  }

  /** Openings into a hollow: walls that end in the air, with no floor of their own. */
  private windows(known: Found[]): Found[] {
    const taken = new Set(known.flatMap((f) => f.faces));
    const shares = reachedFromAbove(this.solid, this.tops);
    const found: Found[] = [];
    this.solid.faces.forEach(({ triangles }, face) => {
      if (taken.has(face) || !this.isWall(face) || !isReached(shares[face])) return;
      const [low, high] = this.span(face);
      const beside = besideOf(this.solid, triangles[0]);
      const open = this.open((low + high) / 2).find((r) => contains(r, beside));
      // What is as open further down has its floor there.
      if (!open || this.tops.at(beside.x, beside.y) > low - SAME_HEIGHT || open.length > 1) return;
      const faces = this.wallsAlong(open[0]).filter((i) => Math.abs(this.span(i)[0] - low) < SAME_HEIGHT);
      if (!faces.includes(face)) return;
      faces.forEach((i) => taken.add(i));
      found.push({ ...this.standing(open[0]), meaning: 'pocket', depth: tidy(-low), through: false, faces });
    });
    return found;
  }

  /** Upright faces a ring runs along. */
  private wallsAlong(ring: Ring): number[] {
    const { faces, mesh } = this.solid;
    const p = mesh.points;
    const isNear = (c: number) =>
      ring.some((q) => Math.abs(q.x - p[3 * c]) < 1e-3 && Math.abs(q.y - p[3 * c + 1]) < 1e-3);
    const runsAlong = (t: number) => [0, 1, 2].every((k) => isNear(mesh.corners[3 * t + k]));
    return faces.flatMap(({ triangles }, i) => (this.isWall(i) && triangles.some(runsAlong) ? [i] : []));
  }

  private atLevel(z: number, holes: Found[]): Found[] {
    const flats = this.flats.filter((f) => Math.abs(f.z - z) <= SAME_HEIGHT);
    const found: Found[] = [];
    const done = new Set<number>();
    const feet = [...new Set(flats.map((f) => this.footOf(f.face)))].sort((a, b) => b - a);
    for (const foot of feet)
      for (const open of this.open(z + foot + ABOVE)) {
        const its = flats.filter((f) => !done.has(f.face) && this.footOf(f.face) === foot && this.lies(f, open));
        if (its.length === 0) continue;
        its.forEach((f) => done.add(f.face));
        const standing = this.standing(open[0]);
        if (holes.some((h) => its.every((f) => isMouthOrEnd(h, f, open, standing)))) continue;
        found.push(...this.pocket(z, foot, open, its, holes));
      }
    return found;
  }

  /** Whether a flat can be seen in an opening. */
  private lies(flat: Flat, open: Region): boolean {
    return contains(open, flat.at) && this.tops.at(flat.at.x, flat.at.y) < flat.z + SAME_HEIGHT;
  }

  private pocket(z: number, foot: number, whole: Region, flats: Flat[], holes: Found[]): Found[] {
    const { own, beyond } = this.ownPart(z, whole, flats);
    if (!isWalled(own, whole)) return [];
    const walls = [...new Set(flats.flatMap((f) => this.wallsOf(f.face)))];
    const open = this.carriedOver(own, beyond);
    const pocket: Found = {
      ...(open?.standing ?? this.standing(own[0])),
      ...{ meaning: 'pocket', depth: tidy(-z), through: false, faces: [...flats.map((f) => f.face), ...walls] },
    };
    if (foot > 0) pocket.foot = foot;
    if (open) pocket.isOpen = true;
    const stands = (open?.region ?? own).slice(1).map((ring) => this.boss(ring, z, holes));
    return [pocket, ...stands];
  }

  /**
   * An opening without what is deeper and runs up to its side: beside a step the next lower one is another. What is deeper within its
   * floor stays. And where it may be run out over: beside the solid, and there.
   */
  private ownPart(z: number, whole: Region, flats: Flat[]): { own: Region; beyond: Region } {
    const next = this.heights().find((h) => h < z - SAME_HEIGHT);
    const outside = difference(offsetSharp(whole, OVER_SIDE), this.filled);
    const asWhole = { own: whole, beyond: outside };
    if (next === undefined) return asWhole;
    const [rim] = whole;
    const lower = islands(intersection(this.openBelow((z + next) / 2), whole)).filter(
      (r) => area(r) > LEAST_AREA && r[0].some((p) => rim.some((a, i) => isOnLine(p, a, rim[(i + 1) % rim.length]))),
    );
    const aside = lower.flat();
    if (aside.length === 0) return asWhole;
    const own = islands(difference(whole, aside)).find((r) => flats.some((f) => contains(r, f.at)));
    return own ? { own, beyond: union(outside, aside) } : asWhole;
  }

  private openBelow(z: number): Region {
    return difference(this.filled, this.tops.above(z));
  }

  /** A region that is open to the side, carried over it a little; undefined where it is closed. */
  private carriedOver(own: Region, beyond: Region): { region: Region; standing?: Standing } | undefined {
    if (area(beyond) < LEAST_AREA) return undefined;
    const near = intersection(offsetSharp(own, OVER_SIDE), beyond);
    const region = islands(union(own, near)).find((r) => contains(r, inside(own)));
    if (!region || area(region) < area(own) + LEAST_AREA) return undefined;
    const plain = this.plainlyOver(own, beyond);
    return { region, standing: plain ?? this.standing(region[0]) };
  }

  /** A plain shape carried over its open sides: all of the outside, or a rectangle. */
  private plainlyOver([ring, ...inner]: Region, beyond: Region): Standing | undefined {
    const { shape, ...at } = this.standing(ring);
    if (this.filled.some((r) => Math.abs(ringArea(r) - ringArea(ring)) < LEAST_AREA)) {
      const by = 2 * OVER_SIDE;
      if (shape.type === 'round') return { ...at, shape: { ...shape, diameter: tidy(shape.diameter + by) } };
      if (shape.type !== 'rectangle') return undefined;
      const radius = shape.radius > 0 ? shape.radius + OVER_SIDE : 0;
      const [width, height] = [tidy(shape.width + by), tidy(shape.height + by)];
      return { ...at, shape: { ...shape, width, height, radius } };
    }
    if (inner.length > 0 || shape.type !== 'rectangle' || shape.radius > 0 || at.turn !== 0) return undefined;
    const [x0, x1] = [at.x - shape.width / 2, at.x + shape.width / 2];
    const [y0, y1] = [at.y - shape.height / 2, at.y + shape.height / 2];
    const isOpen = (x: number, y: number) => contains(beyond, { x, y });
    const half = OVER_SIDE / 2;
    const [left, right] = [isOpen(x0 - half, at.y) ? OVER_SIDE : 0, isOpen(x1 + half, at.y) ? OVER_SIDE : 0];
    const [front, back] = [isOpen(at.x, y0 - half) ? OVER_SIDE : 0, isOpen(at.x, y1 + half) ? OVER_SIDE : 0];
    return {
      shape: { ...shape, width: tidy(shape.width + left + right), height: tidy(shape.height + front + back) },
      x: tidy(at.x + (right - left) / 2),
      y: tidy(at.y + (back - front) / 2),
      turn: 0,
    };
  }

  /** What stands in a pocket: up to the lowest flat on it, or as high as it goes. */
  private boss(ring: Ring, z: number, holes: Found[]): Found {
    const outer = ringArea(ring) < 0 ? [...ring].reverse() : ring;
    const on = this.flats.filter(
      (f) => f.z > z + SAME_HEIGHT && contains([outer], f.at) && this.isSeen(f) && !holes.some((h) => isIn(h, f.at)),
    );
    const top = on.length > 0 ? Math.min(...on.map((f) => f.z)) : this.highestIn(outer);
    return {
      ...this.standing(outer),
      ...{ meaning: 'boss', depth: tidy(Math.max(0, -top)), through: false },
      faces: on.filter((f) => f.z === top).map((f) => f.face),
    };
  }

  private isSeen({ at, z }: Flat): boolean {
    return this.tops.at(at.x, at.y) < z + SAME_HEIGHT;
  }

  private highestIn(ring: Ring): number {
    const { points } = this.solid.mesh;
    let top = -Infinity;
    for (let i = 0; i < points.length; i += 3)
      if (points[i + 2] > top && contains([ring], { x: points[i], y: points[i + 1] })) top = points[i + 2];
    return top === -Infinity ? 0 : top;
  }
}

/** Whether a surface may round the foot of an upright wall. */
const isFillet = (fit: Faces['faces'][number]['fit']): boolean =>
  (fit.kind === 'cylinder' && Math.abs(fit.axis.z) < LEVEL) || (fit.kind === 'ring' && Math.abs(fit.axis.z) > UPRIGHT);

/** A place within a region. */
function inside(region: Region): Point {
  const [ring] = region;
  const n = ring.length;
  for (let i = 0; i < n; i++) {
    const [a, b] = [ring[i], ring[(i + 1) % n]];
    const length = distance(a, b);
    if (length < 1e-3) continue;
    const p = {
      x: (a.x + b.x) / 2 - (0.02 * (b.y - a.y)) / length,
      y: (a.y + b.y) / 2 + (0.02 * (b.x - a.x)) / length,
    };
    if (contains(region, p)) return p;
  }
  return ring[0];
}

/** Just beside a wall, in the air. */
function besideOf({ mesh: { points, corners } }: Faces, t: number): Point {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * corners[3 * t + k]);
  const at = (k: number) => (points[a + k] + points[b + k] + points[c + k]) / 3;
  const [ux, uy, uz] = [0, 1, 2].map((k) => points[b + k] - points[a + k]);
  const [vx, vy, vz] = [0, 1, 2].map((k) => points[c + k] - points[a + k]);
  const [nx, ny] = [uy * vz - uz * vy, uz * vx - ux * vz];
  const length = maths.hypot(nx, ny) || 1;
  return { x: at(0) + (0.02 * nx) / length, y: at(1) + (0.02 * ny) / length };
}

/** Whether a floor has a wall or an outer side anywhere; what is all round beside something deeper is the top of what stands there. */
const isWalled = (own: Region, whole: Region): boolean =>
  own === whole ||
  own.some((ring) =>
    ring.some((p) => whole.some((rim) => rim.some((a, i) => isOnLine(p, a, rim[(i + 1) % rim.length])))),
  );

/** Whether a place lies on a piece of a line. */
const isOnLine = (p: Point, a: Point, b: Point): boolean => distanceToSegment(p, a, b).distance < 1e-3;

/** Where an upright axis stands. */
function onAxis({ at, axis }: { at: Vec3; axis: Vec3 }): Point {
  const by = at.z / axis.z;
  return { x: at.x - by * axis.x, y: at.y - by * axis.y };
}

const uprightOf = (fit: { at: Vec3; axis: Vec3; radius: number }): Upright => ({ ...onAxis(fit), radius: fit.radius });

/** Whether a place lies in the mouth of a hole. */
const isIn = ({ x, y, shape, counterbore }: Found, p: Point): boolean =>
  shape.type === 'round' && distance({ x, y }, p) < Math.max(shape.diameter, counterbore?.diameter ?? 0) / 2;

const isSameRound = (hole: Found, { shape, x, y }: Standing): boolean =>
  shape.type === 'round' &&
  hole.shape.type === 'round' &&
  Math.abs(shape.diameter - hole.shape.diameter) < 2e-3 &&
  distance(hole, { x, y }) < 2e-3;

/** Whether an opening is only what a hole already is: its floor, or the shoulder of its mouth. */
function isMouthOrEnd(hole: Found, flat: Flat, open: Region, standing: Standing): boolean {
  if (open.length > 1 || standing.shape.type !== 'round' || distance(hole, standing) > 2e-3) return false;
  if (!hole.through && Math.abs(-flat.z - hole.depth) < SAME_HEIGHT) return isSameRound(hole, standing);
  const { counterbore } = hole;
  return (
    counterbore !== undefined &&
    Math.abs(counterbore.depth + flat.z) < SAME_HEIGHT &&
    Math.abs(counterbore.diameter - standing.shape.diameter) < 2e-3
  );
}

const isSame = (a: Found, b: Found): boolean =>
  Math.abs(a.x - b.x) < 2e-3 && Math.abs(a.y - b.y) < 2e-3 && JSON.stringify(a.shape) === JSON.stringify(b.shape);

/** Of pockets with one outline the deepest says it all, of bosses the highest. */
const isCovered = (f: Found, i: number, all: Found[]): boolean =>
  all.some((g, j) => {
    if (j === i || g.meaning !== f.meaning || !isSame(f, g)) return false;
    const deeper = f.meaning === 'pocket' ? g.depth - f.depth : f.depth - g.depth;
    return deeper > SAME_HEIGHT || (Math.abs(deeper) <= SAME_HEIGHT && j < i);
  });

/** Everything found from one side, as the solid lies: the outside first. */
export function recognised(solid: Faces, tops = new Tops(solid.mesh, solid.against)): Found[] {
  const looked = new Looked(solid, tops);
  const holes = looked.holes();
  return [...looked.outside(), ...looked.levels(holes), ...holes];
}
