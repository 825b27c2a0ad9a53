/** Edges of a solid that are broken: chamfers and roundings between a level face and the upright walls below it. */
import { fitOpenArcs } from '../../geometry/plane/arcfit';
import { Region, distanceToBoundary, ringArea } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { EdgeForm } from '../plate/feature';
import { Found, SAME_HEIGHT } from './found';
import { Looked, UPRIGHT } from './looked';
import { regionOfFound } from './pockets';
import { tidy } from './rings';

/** Wider ones are faces of their own, mm. */
const WIDEST = 5;
/** Narrower ones are dust, mm. */
const NARROWEST = 0.02;
/** Included angles a chamfer may have, degrees. */
const ANGLES = [20, 150] as const;
/** Corners so near a height lie at it, mm. */
const AT = 2e-3;
/** A rim may run so far from the chords of the wall it is on, mm. */
const ALONG = 8e-3;
/** Radii and widths that differ less are one, mm. */
const SAME_SIZE = 5e-3;

/** A face between a level one above and upright ones below. */
interface Strip {
  face: number;
  form: EdgeForm;
  low: number;
  high: number;
}

/** What an edge was broken to, and where: closed round something, or open. */
interface Rim extends Omit<Strip, 'face'> {
  faces: number[];
  /** Along the wall, the metal at its left. */
  points: Point[];
  isClosed: boolean;
}

const degrees = (rad: number) => (rad * 180) / Math.PI;

/** What a face would make of an edge, by its surface alone. */
function formOf({ solid, tops }: Looked, face: number, drop: number): EdgeForm | undefined {
  const { fit, isHollow, triangles } = solid.faces[face];
  if (drop < NARROWEST || drop > 4 * WIDEST || !triangles.every((t) => tops.up[t])) return undefined;
  if (fit.kind === 'plane' || fit.kind === 'cone') {
    const half =
      fit.kind === 'plane'
        ? maths.atan2(fit.normal.z, maths.hypot(fit.normal.x, fit.normal.y))
        : Math.abs(fit.axis.z) > UPRIGHT
          ? Math.abs(fit.slope)
          : 0;
    const angle = tidy(degrees(2 * half));
    if (angle < ANGLES[0] || angle > ANGLES[1]) return undefined;
    return { form: 'chamfer', size: tidy(drop * maths.tan(half)), angle };
  }
  const lies =
    (fit.kind === 'cylinder' && Math.abs(fit.axis.z) < 1e-4) || (fit.kind === 'ring' && Math.abs(fit.axis.z) > UPRIGHT);
  const isWhole = lies && !isHollow && Math.abs(fit.radius - drop) < SAME_SIZE;
  return isWhole ? { form: 'round', size: tidy(fit.radius), angle: 90 } : undefined;
}

function stripsOf(looked: Looked): Strip[] {
  const { faces } = looked.solid;
  const flats = new Map(looked.flats.map((f) => [f.face, f.z]));
  return faces.flatMap(({ meets }, face): Strip[] => {
    if (flats.has(face) || looked.isWall(face)) return [];
    const beside = [...meets.keys()];
    const [low, high] = looked.span(face);
    const isUnderFlat = beside.some((f) => Math.abs((flats.get(f) ?? Infinity) - high) < AT);
    if (!isUnderFlat || !beside.some((f) => looked.isWall(f) && looked.span(f)[0] < low - AT)) return [];
    const form = formOf(looked, face, high - low);
    return form && form.size >= NARROWEST && form.size <= WIDEST ? [{ face, form, low, high }] : [];
  });
}

const isAlike = (a: Strip, b: Strip): boolean =>
  a.form.form === b.form.form &&
  Math.abs(a.form.size - b.form.size) < SAME_SIZE &&
  Math.abs(a.form.angle - b.form.angle) < 0.2 &&
  Math.abs(a.low - b.low) < AT &&
  Math.abs(a.high - b.high) < AT;

/** The lower rims of strips that are alike, run together where they meet. */
function rimsOf({ solid: { mesh, faces, of, against } }: Looked, strips: Strip[]): Rim[] {
  const [{ form, low, high }] = strips;
  const next = new Map<number, { to: number; face: number }>();
  const at = (p: number): Point => ({ x: mesh.points[3 * p], y: mesh.points[3 * p + 1] });
  const isLow = (p: number) => Math.abs(mesh.points[3 * p + 2] - low) < AT;
  for (const { face } of strips)
    for (const t of faces[face].triangles)
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const [p, q] = [mesh.corners[e], mesh.corners[3 * t + ((e + 1) % 3)]];
        const other = against[e] < 0 ? face : of[Math.floor(against[e] / 3)];
        if (other !== face && isLow(p) && isLow(q) && distance(at(p), at(q)) > 1e-6) next.set(p, { to: q, face });
      }
  const reached = new Set([...next.values()].map((e) => e.to));
  const starts = [...next.keys()].sort((a, b) => Number(reached.has(a)) - Number(reached.has(b)));
  return starts.flatMap((start): Rim[] => {
    const run = [start];
    const made = new Set<number>();
    for (let p = start; ; p = run[run.length - 1]) {
      const edge = next.get(p);
      if (!edge) break;
      next.delete(p);
      made.add(edge.face);
      run.push(edge.to);
    }
    if (run.length < 2) return [];
    const isClosed = run[0] === run[run.length - 1];
    return [{ form, low, high, faces: [...made], points: (isClosed ? run.slice(1) : run).map(at), isClosed }];
  });
}

/** Whether a closed rim runs round the wall of something found, at its mouth or its top. */
function isRound({ points, high }: Rim, found: Found, region: Region): boolean {
  const isInside = ringArea(points) > 0;
  const { meaning, depth } = found;
  if (isInside !== (meaning === 'outline' || meaning === 'boss')) return false;
  if (isInside && Math.abs(high + (meaning === 'boss' ? depth : 0)) > SAME_HEIGHT) return false;
  return points.every((p) => distanceToBoundary(region, p) < ALONG);
}

/** An edge that belongs to nothing else: round something of which only a part is cut from here, or along a stretch of it. */
function alone(looked: Looked, { form, faces, points, isClosed }: Rim): Found {
  const line = () => {
    const { vertices } = fitOpenArcs(points, AT);
    return { vertices: vertices.map((v) => ({ ...v, x: tidy(v.x), y: tidy(v.y) })), closed: false };
  };
  const standing = isClosed
    ? looked.standing(points)
    : { shape: { type: 'chain' as const, ...line() }, x: 0, y: 0, turn: 0 };
  return { ...standing, meaning: 'edge', depth: 0, through: false, edge: form, faces };
}

/**
 * What was found with its edges as they are broken, and the broken edges that belong to none of it.
 * @param found seen from the same side
 */
export function withBroken(looked: Looked, found: Found[]): Found[] {
  const groups: Strip[][] = [];
  for (const strip of stripsOf(looked)) {
    const group = groups.find(([first]) => isAlike(first, strip));
    if (group) group.push(strip);
    else groups.push([strip]);
  }
  const all = [...found];
  for (const rim of groups.flatMap((strips) => rimsOf(looked, strips))) {
    const k = rim.isClosed ? all.findIndex((f) => f.meaning !== 'edge' && isRound(rim, f, regionOfFound(f))) : -1;
    if (k < 0) all.push(alone(looked, rim));
    else if (!all[k].edge)
      all[k] = { ...all[k], edge: rim.form, rim: rim.faces, faces: [...all[k].faces, ...rim.faces] };
  }
  return all;
}
