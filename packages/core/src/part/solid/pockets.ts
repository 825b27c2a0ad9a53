/** Pockets, steps, openings and windows of a solid, and what stands in them: what is open above each of its flats. */
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
  offset,
  union,
} from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { Feature, SINGLE } from '../plate/feature';
import { modelOf, regionOf, surfaceAt } from '../plate/model';
import { Faces } from './faces/faces';
import { Found, NEAR, SAME_HEIGHT, isSameRound } from './found';
import { Flat, LEAST_AREA, Looked, isOnLine } from './looked';
import { isReached } from './reach';
import { Standing, tidy } from './rings';

/** Sections are taken so far above a floor, mm. */
const ABOVE = 4e-4;
/** A pocket runs so far out over an open side, mm. */
const OVER_SIDE = 1;
/** What is cut off right through is at most so many times as deep as it is wide. */
const SLENDER = 6;
/** Flats that are mended one by one. */
const MOST_MENDED = 60;

/** An opening without what is deeper beside it. */
interface Parts {
  own: Region[];
  /** Where it may be run out over. */
  beyond: Region;
  lower: Region[];
  /** Whether another side clears what is deeper. */
  isAir: boolean;
}

/** Goes through the levels of a solid. */
class Levels {
  private readonly heights: number[];

  constructor(
    private readonly looked: Looked,
    private readonly holes: Found[],
  ) {
    this.heights = looked.heights();
  }

  /** What is cut off the box round a part right through it, as it is seen from beside: a fork, a flank; not what is deeper than cutters are long. */
  cutOffs(): Found[] {
    const { filled, thickness } = this.looked;
    return islands(difference([this.looked.box], filled)).flatMap((own): Found[] => {
      const faces = this.looked.wallsAlong(own[0]);
      const open = this.carriedOver(own, difference(offsetSharp(own, OVER_SIDE), filled));
      if (faces.length === 0 || !open || offset(open.region, -thickness / SLENDER / 2).length === 0) return [];
      return [{ ...open.standing, meaning: 'pocket', depth: thickness, through: true, isOpen: true, faces }];
    });
  }

  /** Pockets, steps and through openings, and what stands in them. */
  levels(): Found[] {
    const { holes } = this;
    const levels = this.heights.flatMap((z) => this.atLevel(z));
    const openings = islands(this.looked.silhouette).flatMap(([, ...inner]) => inner);
    const through = openings
      .map((ring) => ({ ring, standing: this.looked.standing(ring) }))
      .filter(({ standing }) => !holes.some((h) => isSameRound(h, standing)))
      .map(({ ring, standing }): Found => ({
        ...standing,
        ...{ meaning: 'pocket', depth: this.looked.thickness, through: true },
        faces: this.looked.wallsAlong(ring),
      }))
      // What leans, or is of free form, lets light through too.
      .filter(({ faces }) => faces.length > 0);
    const found = this.asHighAs([...levels, ...through].filter((f, i, all) => !isCovered(f, i, all)));
    return [...found, ...this.windows([...found, ...holes, ...this.looked.outside()])];
  }

  /** What was found, and more of it for every flat that it does not leave at its own height: that is a pocket, or stands, by itself. */
  private asHighAs(found: Found[]): Found[] {
    const { flats, thickness } = this.looked;
    const all = [...found];
    const modelled = () => modelOf({ kind: 'plate', thickness, features: all.map(asFeature) });
    let model = modelled();
    let left = MOST_MENDED;
    for (const flat of flats) {
      const { at, z } = flat;
      if (!this.looked.isSeen(flat) || this.holes.some((h) => isIn(h, at))) continue;
      const said = surfaceAt(model, at);
      if (Math.abs(said - z) <= SAME_HEIGHT || left-- <= 0) continue;
      const level = difference(this.looked.openBelow(z + ABOVE), this.looked.openBelow(z - ABOVE));
      const own = islands(level).find((r) => contains(r, at));
      if (!own) continue;
      const meaning = said > z ? 'pocket' : 'boss';
      all.push({ ...this.looked.standing(own[0]), meaning, depth: tidy(-z), through: false, faces: [flat.face] });
      model = modelled();
    }
    return all;
  }

  /** Openings into a hollow: walls that end in the air, with no floor of their own. */
  private windows(known: Found[]): Found[] {
    const taken = new Set(known.flatMap((f) => f.faces));
    const found: Found[] = [];
    this.looked.solid.faces.forEach(({ triangles }, face) => {
      if (taken.has(face) || !this.looked.isWall(face) || !isReached(this.looked.shares[face])) return;
      const [low, high] = this.looked.span(face);
      const beside = besideOf(this.looked.solid, triangles[0]);
      const open = this.looked.open((low + high) / 2).find((r) => contains(r, beside));
      // What is as open further down has its floor there.
      if (!open || this.looked.tops.at(beside.x, beside.y) > low - SAME_HEIGHT || open.length > 1) return;
      const faces = this.looked.wallsAlong(open[0]).filter((i) => Math.abs(this.looked.span(i)[0] - low) < SAME_HEIGHT);
      if (!faces.includes(face)) return;
      faces.forEach((i) => taken.add(i));
      found.push({ ...this.looked.standing(open[0]), meaning: 'pocket', depth: tidy(-low), through: false, faces });
    });
    return found;
  }

  private atLevel(z: number): Found[] {
    const flats = this.looked.flats.filter((f) => Math.abs(f.z - z) <= SAME_HEIGHT);
    const found: Found[] = [];
    const done = new Set<number>();
    const feet = [...new Set(flats.map((f) => this.looked.footOf(f.face)))].sort((a, b) => b - a);
    for (const foot of feet)
      for (const open of this.looked.open(z + foot + ABOVE)) {
        const its = flats.filter((f) => !done.has(f.face) && this.looked.footOf(f.face) === foot && this.lies(f, open));
        if (its.length === 0) continue;
        its.forEach((f) => done.add(f.face));
        const standing = this.looked.standing(open[0]);
        if (this.holes.some((h) => its.every((f) => isMouthOrEnd(h, f, open, standing)))) continue;
        found.push(...this.pockets(z, foot, open, its));
      }
    return found;
  }

  /** Whether a flat can be seen in an opening. */
  private lies(flat: Flat, open: Region): boolean {
    return contains(open, flat.at) && this.looked.tops.at(flat.at.x, flat.at.y) < flat.z + SAME_HEIGHT;
  }

  /** What an opening over some flats of one height is: usually one pocket; several where something deeper runs right across it. */
  private pockets(z: number, foot: number, whole: Region, flats: Flat[]): Found[] {
    const parts = this.ownParts(z, whole);
    return parts.own.flatMap((region) => {
      const its = flats.filter((f) => contains(region, f.at));
      return its.length > 0 && !standsAmid(region, parts.lower) ? this.pocket(z, foot, region, parts, its) : [];
    });
  }

  private pocket(z: number, foot: number, own: Region, { beyond, isAir }: Parts, flats: Flat[]): Found[] {
    const walls = this.wallsRound(own[0], [...new Set(flats.flatMap((f) => this.looked.wallsOf(f.face)))]);
    const open = this.carriedOver(own, beyond, isAir);
    const pocket: Found = {
      ...(open?.standing ?? this.looked.standing(own[0], z)),
      ...{ meaning: 'pocket', depth: tidy(-z), through: false, faces: [...flats.map((f) => f.face), ...walls] },
    };
    if (foot > 0) pocket.foot = foot;
    const taper = this.looked.taperOf(flats[0].face);
    if (taper > 0.01) pocket.taper = taper;
    if (open) pocket.isOpen = true;
    // What is deeper in its middle does not stand.
    const islandsIn = (open?.region ?? own).slice(1).filter((ring) => this.standsIn(ring, z));
    return [pocket, ...islandsIn.map((ring) => this.boss(ring, z))];
  }

  /** Of the walls that rise from a floor those somebody sees from above; where an overhang hides some, it is the overhang's edge that bounds the floor. */
  private wallsRound(rim: Ring, rising: number[]): number[] {
    const seen = rising.filter((i) => this.looked.shares[i] > 0);
    return seen.length === rising.length ? rising : [...new Set([...seen, ...this.looked.wallsAlong(rim)])];
  }

  /**
   * An opening without what is deeper and runs up to its side: beside a step the next lower one is another. What is deeper within its
   * floor stays. And where it may be run out over: beside the solid, and there.
   */
  private ownParts(z: number, whole: Region): Parts {
    const next = this.heights.find((h) => h < z - SAME_HEIGHT);
    const outside = difference(offsetSharp(whole, OVER_SIDE), this.looked.filled);
    const asWhole = { own: [whole], beyond: outside, lower: [], isAir: false };
    if (next === undefined) return asWhole;
    const lower = islands(intersection(this.looked.openBelow((z + next) / 2), whole)).filter(
      (r) => area(r) > LEAST_AREA && runsAlong(r[0], whole[0]),
    );
    const aside = lower.flat();
    if (aside.length === 0) return asWhole;
    const isAir = this.looked.flats.every(
      (f) => f.z > next + SAME_HEIGHT || !contains(aside, f.at) || this.looked.isMade(f),
    );
    return { own: islands(difference(whole, aside)), beyond: union(outside, aside), lower, isAir };
  }

  /** A region that is open to the side, carried over it a little, or through what another side clears; undefined where it is closed. */
  private carriedOver(own: Region, beyond: Region, isAir = false): { region: Region; standing: Standing } | undefined {
    if (area(beyond) < LEAST_AREA) return undefined;
    const near = intersection(offsetSharp(own, OVER_SIDE), beyond);
    const region = islands(union(own, near)).find((r) => contains(r, inside(own)));
    if (!region || area(region) < area(own) + LEAST_AREA) return undefined;
    const plain = this.plainlyOver(own, beyond, isAir);
    return { region, standing: plain ?? this.looked.standing(region[0]) };
  }

  /** A plain shape carried over its open sides: all of the outside, or a rectangle. */
  private plainlyOver([ring, ...inner]: Region, beyond: Region, isAir: boolean): Standing | undefined {
    const { shape, ...at } = this.looked.standing(ring);
    if (this.looked.filled.some((r) => Math.abs(ringArea(r) - ringArea(ring)) < LEAST_AREA)) {
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
    const ends = [0.01, 0.5, 0.99].map((k) => ({ x: x0 + k * (x1 - x0), y: y0 + k * (y1 - y0) }));
    const over = (to: (away: number) => Point[]): number => {
      if (!contains(beyond, to(OVER_SIDE / 2)[1])) return 0;
      let far = OVER_SIDE;
      while (isAir && to(far + OVER_SIDE / 2).every((p) => contains(beyond, p))) far += OVER_SIDE;
      return far;
    };
    const [left, right] = [
      over((d) => ends.map(({ y }) => ({ x: x0 - d, y }))),
      over((d) => ends.map(({ y }) => ({ x: x1 + d, y }))),
    ];
    const [front, back] = [
      over((d) => ends.map(({ x }) => ({ x, y: y0 - d }))),
      over((d) => ends.map(({ x }) => ({ x, y: y1 + d }))),
    ];
    return {
      shape: { ...shape, width: tidy(shape.width + left + right), height: tidy(shape.height + front + back) },
      x: tidy(at.x + (right - left) / 2),
      y: tidy(at.y + (back - front) / 2),
      turn: 0,
    };
  }

  private standsIn(ring: Ring, z: number): boolean {
    const { x, y } = inside([ringArea(ring) < 0 ? [...ring].reverse() : ring]);
    return this.looked.tops.at(x, y) > z + SAME_HEIGHT;
  }

  /** What stands in a pocket: up to the lowest flat on it, or as high as it goes. */
  private boss(ring: Ring, z: number): Found {
    const outer = ringArea(ring) < 0 ? [...ring].reverse() : ring;
    const on = this.looked.flats.filter(
      (f) =>
        f.z > z + SAME_HEIGHT &&
        contains([outer], f.at) &&
        this.looked.isSeen(f) &&
        !this.holes.some((h) => isIn(h, f.at)),
    );
    const top = on.length > 0 ? Math.min(...on.map((f) => f.z)) : this.looked.highestIn(outer);
    return {
      ...this.looked.standing(outer),
      ...{ meaning: 'boss', depth: tidy(Math.max(0, -top)), through: false },
      faces: on.filter((f) => f.z === top).map((f) => f.face),
    };
  }
}

/** As a feature of a plate. */
const asFeature = ({ meaning, shape, x, y, turn, depth, through }: Found, i: number): Feature => ({
  ...{ id: `${i}`, name: '', meaning, shape, x, y, turn, pattern: SINGLE, depth, through, layer: '' },
});

/** What the wall of something found encloses. */
export const regionOfFound = (found: Found): Region => regionOf(asFeature(found, 0));

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
export function besideOf({ mesh: { points, corners } }: Faces, t: number): Point {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * corners[3 * t + k]);
  const at = (k: number) => (points[a + k] + points[b + k] + points[c + k]) / 3;
  const [ux, uy, uz] = [0, 1, 2].map((k) => points[b + k] - points[a + k]);
  const [vx, vy, vz] = [0, 1, 2].map((k) => points[c + k] - points[a + k]);
  const [nx, ny] = [uy * vz - uz * vy, uz * vx - ux * vz];
  const length = maths.hypot(nx, ny) || 1;
  return { x: at(0) + (0.02 * nx) / length, y: at(1) + (0.02 * ny) / length };
}

/** Whether a floor stands in the middle of something deeper: there it is the top of what stands in that. */
function standsAmid(own: Region, lower: Region[]): boolean {
  const at = inside(own);
  return lower.some(([, ...inner]) => inner.some((ring) => contains([[...ring].reverse()], at)));
}

/** Whether a ring shares more than single places with another. */
const runsAlong = (ring: Ring, rim: Ring): boolean =>
  ring.some((p, k) => {
    const q = ring[(k + 1) % ring.length];
    const mid = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
    return rim.some((a, i) => isOnLine(mid, a, rim[(i + 1) % rim.length]));
  });

/** Whether a place lies in the mouth of a hole. */
const isIn = ({ x, y, shape, counterbore }: Found, p: Point): boolean =>
  shape.type === 'round' && distance({ x, y }, p) < Math.max(shape.diameter, counterbore?.diameter ?? 0) / 2;

/** Whether an opening is only what a hole already is: its floor, or the shoulder of its mouth. */
function isMouthOrEnd(hole: Found, flat: Flat, open: Region, standing: Standing): boolean {
  if (open.length > 1 || standing.shape.type !== 'round' || distance(hole, standing) > NEAR) return false;
  if (!hole.through && Math.abs(-flat.z - hole.depth) < SAME_HEIGHT) return isSameRound(hole, standing);
  const { counterbore } = hole;
  return (
    counterbore !== undefined &&
    Math.abs(counterbore.depth + flat.z) < SAME_HEIGHT &&
    Math.abs(counterbore.diameter - standing.shape.diameter) < NEAR
  );
}

const isSame = (a: Found, b: Found): boolean =>
  Math.abs(a.x - b.x) < NEAR && Math.abs(a.y - b.y) < NEAR && JSON.stringify(a.shape) === JSON.stringify(b.shape);

/** Of pockets with one outline the deepest says it all, of bosses the highest. */
const isCovered = (f: Found, i: number, all: Found[]): boolean =>
  all.some((g, j) => {
    if (j === i || g.meaning !== f.meaning || !isSame(f, g)) return false;
    const deeper = f.meaning === 'pocket' ? g.depth - f.depth : f.depth - g.depth;
    return deeper > SAME_HEIGHT || (Math.abs(deeper) <= SAME_HEIGHT && j < i);
  });

/**
 * Pockets, steps and openings, and what stands in them.
 * @param isBeside whether the part is seen from beside its outside: what is cut off there is told too
 */
export function levelsOf(looked: Looked, holes: Found[], isBeside: boolean): Found[] {
  const levels = new Levels(looked, holes);
  return [...levels.levels(), ...(isBeside ? levels.cutOffs() : [])];
}
