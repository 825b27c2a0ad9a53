/** How a plate is sculpted out of its blank, as steps a kernel of solids can take: to look at it, and to save it as STL. */
import { asCircle, circle, flatten } from '../../geometry/plane/chain';
import { Region, ringArea, union } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { Vec3, minus, vec } from '../../geometry/space/vec3';
import { maths } from '../../quantity/maths';
import { Edge, edgeHeight } from './edges';
import { Feature, Part } from './feature';
import { ringsOf } from './heights';
import { leaningPart } from './lean';
import { Lean, leaningPlace, leansAlike } from './leaning';
import { modelOf } from './model';
import { instancesOf } from './shapes';
import { bodyAs, bodyOf, facesOf, seenFrom } from './side';
import { FACE_UPS, Face, turnBetween, turnPlace } from './turn';

/** A prism that takes metal away, or leaves what others would take. */
export interface SculptStep {
  region: Region;
  from: number;
  to: number;
  takes: boolean;
  /** What it makes. */
  feature?: string;
}

/** An edge that is broken: rows of places across its wall, carried on along it; each row starts and ends beside the part. */
export interface SculptedEdge {
  rows: Vec3[][];
  isClosed: boolean;
  feature: string;
}

/** What is sculpted from one side, in order, then its edges; `columns` carry a place there to the part: three directions and where zero comes to lie. */
export interface SculptedSide {
  steps: SculptStep[];
  edges: SculptedEdge[];
  columns: [Vec3, Vec3, Vec3, Vec3];
}

/** A blank and what is sculpted from its sides. */
export interface Sculpting {
  blank: SculptStep;
  sides: SculptedSide[];
}

/** Above the top, so that nothing stays as a skin, mm. */
const OVER = 1;
/** Straights a rounded edge is made of. */
const ROUND_STEPS = 8;
/** Walls that would lie in each other are so far apart, mm. */
const APART = 0.01;

const round = (x: number, y: number, radius: number): Region => [flatten(circle(x, y, radius), 0.005)];

/** Pockets and bosses, the larger first: what is smaller stands in what is larger. */
function levels(features: Feature[], bottom: number): SculptStep[] {
  const size = (region: Region) => Math.max(...region.map((ring) => Math.abs(ringArea(ring))));
  return features
    .filter((f) => f.meaning === 'pocket' || f.meaning === 'boss')
    .map((f) => ({ f, region: ringsOf(f) }))
    .filter(({ region }) => region.length > 0)
    .sort((a, b) => size(b.region) - size(a.region))
    .map(({ f, region }) =>
      f.meaning === 'pocket'
        ? { region, from: f.through ? bottom : -f.depth, to: OVER, takes: true, feature: f.id }
        : { region, from: bottom, to: -f.depth, takes: false, feature: f.id },
    );
}

const holes = (features: Feature[], bottom: number): SculptStep[] =>
  features
    .filter((f) => f.meaning === 'hole')
    .flatMap((f) =>
      instancesOf(f).flatMap((chain): SculptStep[] => {
        const found = asCircle(chain);
        if (!found) return [];
        const { x, y } = found.centre;
        const from = f.through ? bottom : -f.depth;
        const hole = { region: round(x, y, found.radius), from, to: OVER, takes: true, feature: f.id };
        const { counterbore } = f;
        const mouth = counterbore && {
          ...hole,
          region: round(x, y, counterbore.diameter / 2),
          from: -counterbore.depth,
        };
        return mouth ? [hole, mouth] : [hole];
      }),
    );

/** Where a ring of straights goes into what lies beside it: half way between its pieces, as far as keeps both at one distance. */
function intoFrom(ring: Point[], isClosed: boolean, k: number): Point {
  const n = ring.length;
  const beside = (a: Point, b: Point): Point => {
    const long = distance(a, b) || 1;
    return { x: (b.y - a.y) / long, y: -(b.x - a.x) / long };
  };
  const before = isClosed || k > 0 ? beside(ring[(k + n - 1) % n], ring[k]) : undefined;
  const after = isClosed || k < n - 1 ? beside(ring[k], ring[(k + 1) % n]) : undefined;
  const [a, b] = [before ?? after!, after ?? before!];
  const share = 1 / Math.max(0.2, 1 + a.x * b.x + a.y * b.y);
  return { x: (a.x + b.x) * share, y: (a.y + b.y) * share };
}

/** Bends below this are a curve drawn in straights, as a cosine. */
const CURVED = 0.98;

/** A ring through the middles of its straights where it is a curve, through its corners elsewhere: what crosses its wall there shares no corner with it. */
function betweenCorners(ring: Point[]): Point[] {
  const n = ring.length;
  const isSharp = ring.map((p, k) => {
    const [a, b] = [ring[(k + n - 1) % n], ring[(k + 1) % n]];
    const cos = ((p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y)) / (distance(a, p) * distance(p, b) || 1);
    return cos < CURVED;
  });
  return ring.flatMap((p, k) => {
    const next = ring[(k + 1) % n];
    const middle = { x: (p.x + next.x) / 2, y: (p.y + next.y) / 2 };
    return [...(isSharp[k] ? [p] : []), ...(isSharp[k] && isSharp[(k + 1) % n] ? [] : [middle])];
  });
}

/** The line of a broken edge across its wall: how far into the metal, and how high. */
function profileOf(edge: Edge): [number, number][] {
  const { form } = edge;
  const steps = form.form === 'round' ? ROUND_STEPS : 1;
  const slope = Array.from({ length: steps + 1 }, (_, k): [number, number] => {
    const into = form.size * (1 - maths.cos((k * Math.PI) / 2 / steps));
    return form.form === 'round' ? [into, edgeHeight(edge, into)] : [k * form.size, edgeHeight(edge, k * form.size)];
  });
  // Drawn on at both ends, so that it crosses wall and top and lies in neither.
  const on = ([x, z]: [number, number], [u, w]: [number, number]): [number, number] => {
    const by = APART / maths.hypot(u - x, w - z);
    return [x - by * (u - x), z - by * (w - z)];
  };
  const [first, last] = [on(slope[0], slope[1]), on(slope[steps], slope[steps - 1])];
  return [first, ...slope.slice(1, -1), last, [first[0], last[1]]];
}

/** A broken edge: its profile carried along its wall. */
function broken(edge: Edge): SculptedEdge[] {
  const { line, region, metalInside, feature } = edge;
  const profile = profileOf(edge);
  const runs = line ? [line] : region.map(betweenCorners);
  return runs.map((run) => {
    // The metal is at the right of a line, and inside or outside of a region.
    const sign = line || !metalInside ? 1 : -1;
    const rows = run.map((p, k) => {
      const into = intoFrom(run, !line, k);
      return profile.map(([d, z]) => vec(p.x + sign * d * into.x, p.y + sign * d * into.y, z));
    });
    return { rows, isClosed: !line, feature };
  });
}

const sculptedFrom = ({ features }: Part, bottom: number): SculptStep[] => [
  ...levels(features, bottom),
  ...holes(features, bottom),
];

/** Three directions and the zero of a place that is carried to another. */
function columnsOf(place: (p: Vec3) => Vec3): SculptedSide['columns'] {
  const zero = place(vec(0, 0, 0));
  const along = (x: number, y: number, z: number) => minus(place(vec(x, y, z)), zero);
  return [along(1, 0, 0), along(0, 1, 0), along(0, 0, 1), zero];
}

/** The turn back: directions are at right angles, so that it is their rows. */
function turnedBack([a, b, c, zero]: SculptedSide['columns']): SculptedSide['columns'] {
  const rows = (['x', 'y', 'z'] as const).map((k) => vec(a[k], b[k], c[k])) as [Vec3, Vec3, Vec3];
  const at = (['x', 'y', 'z'] as const).map((k) => -(rows[0][k] * zero.x + rows[1][k] * zero.y + rows[2][k] * zero.z));
  return [...rows, vec(at[0], at[1], at[2])];
}

/**
 * The steps that sculpt a plate: from its blank, then side by side, then what leans. Engraved lines, threads and the points of drills are
 * not in it.
 */
export function sculptingOf(part: Part): Sculpting {
  const body = bodyOf(part);
  const outside = seenFrom(part, 'top').features.filter((f) => f.meaning === 'outline');
  const outline = union(outside.flatMap(ringsOf));
  const side = (face: Face): SculptedSide => {
    const lying = bodyAs(part, FACE_UPS[face]);
    const turn = turnBetween(FACE_UPS[face], 'top');
    const seen = seenFrom(part, FACE_UPS[face]);
    const steps = sculptedFrom(seen, -lying.size[2] - OVER);
    const { edges } = modelOf(seen);
    return { steps, edges: edges.flatMap(broken), columns: columnsOf((p) => turnPlace(turn, p, lying)) };
  };
  const leans = part.features
    .flatMap(({ lean }) => lean ?? [])
    .filter((l, i, all) => all.findIndex((m) => leansAlike(l, m)) === i);
  const leaning = (lean: Lean): SculptedSide => {
    const seen = leaningPart(part, lean);
    return {
      steps: sculptedFrom(seen, -seen.thickness - OVER),
      edges: [],
      columns: turnedBack(columnsOf((p) => leaningPlace(lean, p, body))),
    };
  };
  const isBelow = part.features.some((f) => f.side === 'underside');
  const faces: Face[] = ['top', ...(isBelow ? (['underside'] as const) : []), ...facesOf(part)];
  return {
    blank: { region: outline, from: -part.thickness, to: 0, takes: false, feature: outside[0]?.id },
    sides: [...faces.map(side), ...leans.map(leaning)].filter((s) => s.steps.length + s.edges.length > 0),
  };
}
