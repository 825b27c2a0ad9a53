/** Where a part is hard on cutters: its tightest inside corner, its thinnest wall and floor, its deepest reach. */
import { Chain, arcOf, pieces } from '../../geometry/plane/chain';
import { Region, area, contains, difference, intersection, offset, thinned } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { aroundFloor } from './around-floor';
import { Feature, Part } from './feature';
import { PartModel, metalAt, modelOf, solidAt } from './model';
import { instancesOf } from './shapes';
import { seenFrom } from './side';
import { FACES, FACE_UPS, Face } from './turn';

/** The hardest places of a part; what there is none of is left out. */
export interface Tight {
  /** Radius of an inside corner, mm; 0 where it is sharp. */
  corner?: { radius: number; feature: string };
  /** Thickness of metal between two walls that face away from each other, mm. */
  wall?: { thickness: number; side: Face; at: Point };
  /** Thickness of metal between a level and the one below it on the other side, mm, and the feature that leaves it. */
  floor?: { thickness: number; feature: string };
  /** How far a mill has to reach down, mm, and the widest one that turns in every corner there. */
  reach?: { depth: number; diameter: number; feature: string };
}

/** Outlines are looked at with corners this near a straight left out, mm. */
const COARSE = 5e-4;
/** Nearer than this a wall is itself, mm. */
const HAIR = 1e-3;
/** Round holes are looked at by their chords: a wall is known to so much, mm. */
const KNOWN = 0.01;
/** Walls are looked at every so many mm. */
const STEP = 2;
/** Walls that face so far away from each other have a thickness between them. */
const OPPOSITE = -0.8;
/** So near beside what is deeper there is no wall, mm. */
const BESIDE = 0.02;
/** Turns that are smaller run on, rad. */
const RUNS_ON = 0.05;

/**
 * Radii of the corners of a pocket a mill has to turn in.
 * @param isWithin whether there is a wall at a place: not beyond the part, nor beside what is deeper
 */
function cornersOf(chain: Chain, isWithin: (p: Point) => boolean): number[] {
  const all = [...pieces(chain)];
  if (all.every((p) => p.bulge > 0)) return isWithin(all[0].a) ? [arcOf(all[0].a, all[0].b, all[0].bulge).radius] : [];
  return all.flatMap(({ a, b, bulge }, i) => {
    if (bulge > 0) return isWithin(a) || isWithin(b) ? [arcOf(a, b, bulge).radius] : [];
    const next = all[(i + 1) % all.length];
    if (bulge !== 0 || next.bulge !== 0 || !isWithin(b)) return [];
    const [u, v] = [direction(a, b), direction(next.a, next.b)];
    return u.x * v.y - u.y * v.x > RUNS_ON ? [0] : [];
  });
}

const direction = (a: Point, b: Point): Point => {
  const long = distance(a, b) || 1;
  return { x: (b.x - a.x) / long, y: (b.y - a.y) / long };
};

interface Edge {
  a: Point;
  b: Point;
  along: Point;
  long: number;
}

/** Edges of metal, which lies to their left. */
const edgesOf = (region: Region): Edge[] =>
  region.flatMap((ring) =>
    ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length];
      return { a, b, along: direction(a, b), long: distance(a, b) };
    }),
  );

/** The least way through metal straight from a wall to one that faces away. */
function thinnestOf(region: Region): { thickness: number; at: Point } | undefined {
  const edges = edgesOf(thinned(region, COARSE));
  let best: { thickness: number; at: Point } | undefined;
  for (const { a, along, long } of edges) {
    const n = Math.max(1, Math.ceil(long / STEP));
    for (let k = 0; k < n; k++) {
      const s = (long * (k + 0.5)) / n;
      const at = { x: a.x + along.x * s, y: a.y + along.y * s };
      const thickness = through(at, along, edges, best?.thickness ?? Infinity);
      if (thickness !== undefined) best = { thickness, at };
    }
  }
  return best && { ...best, thickness: Math.round(best.thickness / KNOWN) * KNOWN };
}

/** How far it is from a place on a wall to the next wall, where that is nearer than the nearest so far and faces away. */
function through(at: Point, along: Point, edges: Edge[], nearest: number): number | undefined {
  const inwards = { x: -along.y, y: along.x };
  let met = nearest;
  let isWall = false;
  for (const e of edges) {
    const across = e.along.x * inwards.y - e.along.y * inwards.x;
    if (Math.abs(across) < 1e-9) continue;
    const [dx, dy] = [at.x - e.a.x, at.y - e.a.y];
    const s = (dx * inwards.y - dy * inwards.x) / across;
    const t = (dx * e.along.y - dy * e.along.x) / across;
    if (s < 0 || s > e.long || t < HAIR || t >= met) continue;
    met = t;
    isWall = e.along.x * along.x + e.along.y * along.y < OPPOSITE;
  }
  return isWall ? met : undefined;
}

/** The hardest places of what a part shows to one side. */
function tightOn(model: PartModel, features: Feature[], side: Face): Tight[] {
  const pockets = features.filter((f) => f.meaning === 'pocket');
  const found = pockets.map((feature): Tight => {
    const [chain] = instancesOf(feature);
    const { wall, open } = aroundFloor(model, feature.id);
    const free = offset(open, BESIDE);
    const hasWall = (p: Point) => contains(model.outline, p) && !contains(free, p);
    const radii = chain?.closed ? cornersOf(chain, hasWall) : [];
    if (radii.length === 0) return {};
    const radius = Math.min(...radii);
    const depth = feature.through ? model.thickness : wall;
    const reach = radius > 0 && depth > 0 ? { depth, diameter: 2 * radius, feature: feature.id } : undefined;
    return { corner: { radius, feature: feature.id }, reach };
  });
  const heights = [...new Set(model.floors.map((f) => f.z))];
  const walls = heights.map((z): Tight => {
    const thin = thinnestOf(metalAt(model, z));
    return thin ? { wall: { ...thin, side } } : {};
  });
  return [...found, ...walls];
}

/** Levels so near are one, mm. */
const SAME_LEVEL = 1e-3;
/** Less of a floor is none, mm². */
const LEAST_FLOOR = 0.5;

interface Level {
  z: number;
  region: Region;
  feature?: string;
}

/** What of a part lies at each height seen from one side, its top included; what goes through is none. */
function levelsOf(model: PartModel): Level[] {
  const floors = model.floors.filter((f) => f.z > -model.thickness + SAME_LEVEL);
  const own = floors.map(({ z, feature, region }) => {
    const level = difference(solidAt(model, z - SAME_LEVEL), solidAt(model, z));
    return { z, feature, region: intersection(level, region) };
  });
  return [{ z: 0, region: solidAt(model, -SAME_LEVEL) }, ...own];
}

/** The least metal between what is cut from above and what is cut from below. */
function thinnestFloor(part: Part): Tight['floor'] {
  const under = part.features.filter((f) => f.meaning === 'outline' || f.side === 'underside');
  const above = levelsOf(modelOf({ ...part, features: part.features.filter((f) => f.side === undefined) }));
  const below = levelsOf(modelOf({ ...part, features: under.map((f) => ({ ...f, side: undefined })) }));
  let best: Tight['floor'];
  for (const a of above)
    for (const b of below) {
      const thickness = part.thickness + a.z + b.z;
      const feature = a.feature ?? b.feature;
      if (!feature || thickness < SAME_LEVEL || thickness >= (best?.thickness ?? Infinity)) continue;
      if (area(intersection(a.region, b.region)) > LEAST_FLOOR) best = { thickness, feature };
    }
  return best;
}

/** The hardest places of a part, from all of its sides. */
export function tightestOf(part: Part): Tight {
  const all = FACES.flatMap((side) => {
    const own = part.features.filter((f) => (f.side ?? 'top') === side);
    if (own.length === 0) return [];
    const seen = side === 'top' ? part : seenFrom(part, FACE_UPS[side]);
    const features = seen.features.filter((f) => own.some((o) => o.id === f.id));
    return tightOn(modelOf(seen), features, side);
  });
  const least = <T>(picked: (t: Tight) => T | undefined, by: (v: T) => number): T | undefined =>
    all.flatMap((t) => picked(t) ?? []).reduce<T | undefined>((a, b) => (a && by(a) <= by(b) ? a : b), undefined);
  return {
    floor: thinnestFloor(part),
    corner: least(
      (t) => t.corner,
      (c) => c.radius,
    ),
    wall: least(
      (t) => t.wall,
      (w) => w.thickness,
    ),
    reach: least(
      (t) => t.reach,
      (r) => -r.depth / r.diameter,
    ),
  };
}
