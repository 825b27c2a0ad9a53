/** The faces of a solid: which triangles belong together, and what surface they lie on. */
import { Triangles, areaVectors, edgesAgainst } from '../../../geometry/space/triangles';
import { Vec3, cross, dot, lengthOf, minus, plus, squareTo, times, unit, vec } from '../../../geometry/space/vec3';
import { maths } from '../../../quantity/maths';
import { Fit, ON_SURFACE, Sampled, fitTo, isChordOf } from './fit';
import { grownFaces } from './grow';

/** A face of a solid. */
export interface ModelFace {
  fit: Fit;
  /** mm². */
  area: number;
  /** Its triangles. */
  triangles: number[];
  /** Faces it meets, with what the bend between is: above 0 where the metal stands out, below where it is hollow, about 0 where they run into each other, rad. */
  meets: Map<number, number>;
  /** Whether its metal lies outside a curved surface, as round a hole. */
  isHollow: boolean;
  /** How far it goes round its axis, degrees. */
  turn: number;
}

export interface Faces {
  mesh: Triangles;
  faces: ModelFace[];
  /** The face of each triangle. */
  of: Int32Array;
  against: Int32Array;
}

const cornerAt = ({ points }: Triangles, p: number): Vec3 => vec(points[3 * p], points[3 * p + 1], points[3 * p + 2]);

/** Corners and facets of some triangles. */
export function sampledFrom(mesh: Triangles, areas: Float64Array, triangles: number[]): Sampled {
  const seen = new Set<number>();
  const corners: Vec3[] = [];
  const facets: Sampled['facets'] = [];
  for (const t of triangles) {
    let sum = vec(0, 0, 0);
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const p = mesh.corners[e];
      const at = cornerAt(mesh, p);
      sum = plus(sum, at);
      if (seen.has(p)) continue;
      seen.add(p);
      corners.push(at);
    }
    facets.push({ at: times(sum, 1 / 3), area: vec(areas[3 * t], areas[3 * t + 1], areas[3 * t + 2]) });
  }
  return { corners, facets };
}

/** How far a face goes round its axis, degrees: all round less the widest gap, which is none where a chord spans it. */
function turnOf(fit: Fit, { corners, facets }: Sampled): number {
  if (fit.kind !== 'cylinder' && fit.kind !== 'cone' && fit.kind !== 'ring') return 0;
  const [u, v] = squareTo(fit.axis);
  const angles = (places: Vec3[]) =>
    places.map((p) => maths.atan2(dot(minus(p, fit.at), v), dot(minus(p, fit.at), u))).sort((a, b) => a - b);
  const widest = (sorted: number[]) =>
    sorted.reduce(
      (most, a, i) => Math.max(most, (i + 1 < sorted.length ? sorted[i + 1] : sorted[0] + 2 * Math.PI) - a),
      0,
    );
  // Between two corners of one facet nothing is missing: middles of facets fill the gap their corners leave.
  const [gap, filled] = [widest(angles(corners)), widest(angles([...corners, ...facets.map((f) => f.at)]))];
  const missing = filled < 0.75 * gap ? 0 : gap;
  return 360 - (missing * 180) / Math.PI;
}

/** Whether the normals of a curved face look to its axis or middle. */
function looksInwards(fit: Fit, { facets }: Sampled): boolean {
  if (fit.kind === 'plane' || fit.kind === 'free') return false;
  let sum = 0;
  for (const { at, area } of facets) {
    const from = minus(at, fit.at);
    if (fit.kind === 'ball') sum += dot(area, from);
    else {
      const out = minus(from, times(fit.axis, dot(from, fit.axis)));
      const towards = fit.kind === 'ring' ? minus(from, times(unit(out), fit.ring)) : out;
      sum += dot(area, towards);
    }
  }
  return sum < 0;
}

/** Bends below this may lie within one curved face, rad. */
const SOFT = 0.45;
/** What lies beside a free face belongs to it when it is no larger than this share, and of few triangles. */
const SLIVER = 0.01;
const FEW = 8;
const DUST = 1e-4;

/**
 * Small faces whose corners all lie on the curved surface of a larger one beside them belong to it: slivers along where curved faces cut
 * each other, and halves of one cylinder. Only for meshes: what a file calls a face stays one.
 */
function joinedFaces({ mesh, faces, of }: Faces): Int32Array {
  const into = new Int32Array(faces.length).map((_, i) => i);
  const root = (f: number): number => (into[f] === f ? f : (into[f] = root(into[f])));
  const bySize = [...faces.keys()].sort((a, b) => faces[a].area - faces[b].area || a - b);
  const lies = (f: number, fit: Fit) =>
    fit.kind !== 'plane' &&
    fit.kind !== 'free' &&
    faces[f].triangles.every((t) =>
      isChordOf(
        fit,
        [0, 1, 2].map((k) => cornerAt(mesh, mesh.corners[3 * t + k])),
        2 * ON_SURFACE,
      ),
    );
  const isSliver = (f: number, g: number) =>
    faces[g].fit.kind === 'free' && (faces[f].triangles.length <= FEW ? SLIVER : DUST) * faces[g].area > faces[f].area;
  const hostOf = (f: number) =>
    [...faces[f].meets]
      .filter(([, bend]) => Math.abs(bend) < SOFT)
      .map(([g]) => root(g))
      .filter((g) => g !== f && faces[g].area > faces[f].area)
      .sort((a, b) => faces[b].area - faces[a].area)
      .find((g) => isSliver(f, g) || lies(f, faces[g].fit));
  // Some touch their host only through others that belong to it.
  for (let isJoining = true; isJoining;) {
    isJoining = false;
    for (const f of bySize) {
      const host = into[f] === f ? hostOf(f) : undefined;
      if (host === undefined) continue;
      into[f] = host;
      isJoining = true;
    }
  }
  return of.map((f) => root(f));
}

/** Numbers of faces without gaps, in the order in which they first occur. */
function renumbered(of: Int32Array): { of: Int32Array; count: number } {
  const name = new Map<number, number>();
  const out = of.map((f) => {
    if (!name.has(f)) name.set(f, name.size);
    return name.get(f)!;
  });
  return { of: out, count: name.size };
}

/** Bends between faces along their common edges, the mean by length. */
function meetings(mesh: Triangles, areas: Float64Array, against: Int32Array, of: Int32Array, faces: ModelFace[]): void {
  const sums = faces.map(() => new Map<number, { bend: number; length: number }>());
  for (let e = 0; e < against.length; e++) {
    const other = against[e];
    if (other < 0) continue;
    const [t, s] = [Math.floor(e / 3), Math.floor(other / 3)];
    if (of[t] === of[s]) continue;
    const a = cornerAt(mesh, mesh.corners[e]);
    const b = cornerAt(mesh, mesh.corners[3 * t + ((e + 1) % 3)]);
    const edge = minus(b, a);
    const length = lengthOf(edge);
    const [n, m] = [t, s].map((k) => unit(vec(areas[3 * k], areas[3 * k + 1], areas[3 * k + 2])));
    const turned = cross(n, m);
    const bend = maths.atan2(dot(turned, unit(edge)), dot(n, m));
    const sum = sums[of[t]].get(of[s]) ?? { bend: 0, length: 0 };
    sums[of[t]].set(of[s], { bend: sum.bend + bend * length, length: sum.length + length });
  }
  sums.forEach((met, f) => {
    for (const [other, { bend, length }] of met) faces[f].meets.set(other, length > 0 ? bend / length : 0);
  });
}

/**
 * The faces of a solid, fitted. Where its file knows them they are taken; else they are grown.
 * @param tolerance how far corners may lie from the surface of their face, mm
 */
export function facesOfSolid(mesh: Triangles, tolerance = ON_SURFACE): Faces {
  const against = edgesAgainst(mesh);
  const areas = areaVectors(mesh);
  const known = mesh.face?.every((f) => f >= 0) ? mesh.face : undefined;
  if (known) return fitted(mesh, areas, against, known, tolerance);
  const grown = fitted(mesh, areas, against, grownFaces(mesh, areas, against, tolerance), tolerance);
  const joined = joinedFaces(grown);
  return joined.every((f, t) => f === grown.of[t]) ? grown : fitted(mesh, areas, against, joined, tolerance);
}

function fitted(
  mesh: Triangles,
  areas: Float64Array,
  against: Int32Array,
  named: Int32Array,
  tolerance: number,
): Faces {
  const { of, count } = renumbered(named);
  const members: number[][] = Array.from({ length: count }, () => []);
  of.forEach((f, t) => members[f].push(t));
  const faces = members.map((triangles): ModelFace => {
    const sampled = sampledFrom(mesh, areas, triangles);
    const fit = fitTo(sampled, tolerance);
    return {
      fit,
      area: sampled.facets.reduce((s, f) => s + lengthOf(f.area) / 2, 0),
      triangles,
      meets: new Map(),
      isHollow: looksInwards(fit, sampled),
      turn: turnOf(fit, sampled),
    };
  });
  meetings(mesh, areas, against, of, faces);
  return { mesh, faces, of, against };
}
