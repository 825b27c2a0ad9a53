/** The middle lines of a region: where a circle within it touches the edge in two places that lie well apart. */
import Delaunator from 'delaunator';
import { Boundary } from './boundary';
import { Region, Ring } from './clip';
import { Point, distance } from './point';

/** A place on a middle line, and how far the edge is from it, mm. */
export interface MiddlePoint extends Point {
  clearance: number;
}

/** A place on the edge. */
interface Site extends Point {
  ring: number;
  /** How far along its ring it lies, mm. */
  along: number;
}

/** Places that touch the same circle are apart where they are as far from each other as from its middle: 60° seen from there. */
const APART = 1;
/** Neighbours along the edge, in spacings. */
const NEIGHBOURS = 1.5;
/** Places nearer than this are one, mm. */
const SAME = 1e-4;

function sitesOf(ring: Ring, index: number, spacing: number): { sites: Site[]; length: number } {
  const sites: Site[] = [];
  let along = 0;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const length = distance(a, b);
    const count = Math.max(1, Math.ceil(length / spacing));
    for (let k = 0; k < count; k++) {
      const t = k / count;
      sites.push({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, ring: index, along: along + length * t });
    }
    along += length;
  });
  return { sites, length: along };
}

function circumcentre(a: Point, b: Point, c: Point): Point | undefined {
  const [bx, by, cx, cy] = [b.x - a.x, b.y - a.y, c.x - a.x, c.y - a.y];
  const d = 2 * (bx * cy - by * cx);
  if (Math.abs(d) < 1e-12) return undefined;
  const [bl, cl] = [bx * bx + by * by, cx * cx + cy * cy];
  return { x: a.x + (cy * bl - by * cl) / d, y: a.y + (bx * cl - cx * bl) / d };
}

/** Runs of places that are joined one to the next, ended where three meet or one is last. */
function runsThrough(joined: Map<number, number[]>): number[][] {
  const used = new Set<string>();
  const key = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);
  const runs: number[][] = [];
  const walk = (from: number, to: number) => {
    const run = [from];
    let [before, here] = [from, to];
    for (;;) {
      used.add(key(before, here));
      run.push(here);
      const next = joined.get(here)!.filter((n) => !used.has(key(here, n)));
      if (joined.get(here)!.length !== 2 || next.length !== 1) break;
      [before, here] = [here, next[0]];
    }
    runs.push(run);
  };
  const nodes = [...joined].sort(([, a], [, b]) => Number(a.length === 2) - Number(b.length === 2));
  for (const [node, others] of nodes) for (const other of others) if (!used.has(key(node, other))) walk(node, other);
  return runs;
}

/**
 * The middle lines of a region, each in order along it.
 * @param spacing of the places on the edge that are looked at, mm: what is finer is not seen
 */
export function middleLines(region: Region, spacing: number): MiddlePoint[][] {
  const rings = region.map((ring, i) => sitesOf(ring, i, spacing));
  const sites = rings.flatMap((r) => r.sites);
  if (sites.length < 3) return [];
  const { triangles, halfedges } = new Delaunator(Float64Array.from(sites.flatMap(({ x, y }) => [x, y])));
  const edge = new Boundary(region);
  const corners = (t: number) => [0, 1, 2].map((k) => sites[triangles[3 * t + k]]);
  const middles = Array.from({ length: triangles.length / 3 }, (_, t): MiddlePoint | undefined => {
    const [a, b, c] = corners(t);
    const middle = circumcentre(a, b, c);
    const clearance = middle ? edge.distance(middle.x, middle.y) : -1;
    return middle && clearance > SAME ? { ...middle, clearance } : undefined;
  });
  const joined = new Map<number, number[]>();
  const join = (from: number, to: number) => joined.set(from, [...(joined.get(from) ?? []), to]);
  halfedges.forEach((opposite, e) => {
    if (opposite < e) return;
    const [s, t] = [Math.floor(e / 3), Math.floor(opposite / 3)];
    const [m, n] = [middles[s], middles[t]];
    if (!m || !n) return;
    const [a, b] = [sites[triangles[e]], sites[triangles[e % 3 === 2 ? e - 2 : e + 1]]];
    const way = Math.abs(a.along - b.along);
    const round = a.ring === b.ring ? Math.min(way, rings[a.ring].length - way) : Infinity;
    if (round < NEIGHBOURS * spacing || distance(a, b) < APART * Math.max(m.clearance, n.clearance)) return;
    join(s, t);
    join(t, s);
  });
  return runsThrough(joined).map((run) => {
    const points = run.map((t) => middles[t]!);
    return points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > SAME);
  });
}

/** A run of places without those that lie within a tolerance of the straight between their neighbours, clearance included. */
export function straightened(points: MiddlePoint[], tolerance: number): MiddlePoint[] {
  if (points.length < 3) return points;
  const [first, last] = [points[0], points[points.length - 1]];
  const whole = distance(first, last);
  let [worst, at] = [tolerance, -1];
  points.forEach((p, i) => {
    const t =
      whole > 0
        ? Math.min(
            1,
            Math.max(
              0,
              ((p.x - first.x) * (last.x - first.x) + (p.y - first.y) * (last.y - first.y)) / (whole * whole),
            ),
          )
        : 0;
    const on = { x: first.x + (last.x - first.x) * t, y: first.y + (last.y - first.y) * t };
    const off = distance(p, on) + Math.abs(p.clearance - first.clearance - (last.clearance - first.clearance) * t);
    if (off > worst) [worst, at] = [off, i];
  });
  if (at < 0) return [first, last];
  return [
    ...straightened(points.slice(0, at + 1), tolerance).slice(0, -1),
    ...straightened(points.slice(at), tolerance),
  ];
}
