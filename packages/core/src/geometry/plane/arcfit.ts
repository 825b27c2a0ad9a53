import { Chain, Vertex } from './chain';
import { Ring } from './clip';
import { Point, distance } from './point';
import { maths } from '../../quantity/maths';

interface Circle {
  x: number;
  y: number;
  r: number;
}

function through(a: Point, b: Point, c: Point): Circle | undefined {
  const bx = b.x - a.x;
  const by = b.y - a.y;
  const cx = c.x - a.x;
  const cy = c.y - a.y;
  const d = 2 * (bx * cy - by * cx);
  if (Math.abs(d) < 1e-12) return undefined;
  const ux = (cy * (bx * bx + by * by) - by * (cx * cx + cy * cy)) / d;
  const uy = (bx * (cx * cx + cy * cy) - cx * (bx * bx + by * by)) / d;
  return { x: a.x + ux, y: a.y + uy, r: maths.hypot(ux, uy) };
}

const LARGEST_RADIUS = 5_000;
/** A chord longer than this share of its radius is a straight that happens to touch the circle, not part of an arc. */
const LONGEST_CHORD = 0.35;

/** Whether points i..j (indices into a circular list) lie on one arc within tolerance; returns its bulge. */
function arcThrough(at: (i: number) => Point, i: number, j: number, tolerance: number): number | undefined {
  const a = at(i);
  const b = at(j);
  const circle = through(a, at((i + j) >> 1), b);
  if (!circle || circle.r > LARGEST_RADIUS) return undefined;
  let sweep = 0;
  for (let k = i; k < j; k++) {
    const p = at(k);
    const q = at(k + 1);
    const chord = distance(p, q);
    if (chord > LONGEST_CHORD * circle.r) return undefined;
    if (Math.abs(distance(q, circle) - circle.r) > tolerance) return undefined;
    const sagitta = circle.r - Math.sqrt(Math.max(0, circle.r * circle.r - (chord * chord) / 4));
    if (sagitta > tolerance) return undefined;
    const turn = maths.atan2(
      (p.x - circle.x) * (q.y - circle.y) - (p.y - circle.y) * (q.x - circle.x),
      (p.x - circle.x) * (q.x - circle.x) + (p.y - circle.y) * (q.y - circle.y),
    );
    if (sweep !== 0 && Math.sign(turn) !== Math.sign(sweep)) return undefined;
    sweep += turn;
  }
  return Math.abs(sweep) < 1.9 * Math.PI ? maths.tan(sweep / 4) : undefined;
}

/** Where a ring turns sharply or a long straight begins: a good place to start, so that no arc is split. */
function sharpest(ring: Ring): number {
  let best = 0;
  let most = -1;
  for (let i = 0; i < ring.length; i++) {
    const a = ring[(i + ring.length - 1) % ring.length];
    const b = ring[i];
    const longest = distance(a, b);
    if (longest > most) {
      most = longest;
      best = i;
    }
  }
  return best;
}

/** Pieces from point 0 to point n, each arc grown as far as it stays within tolerance; at least four points make an arc. */
function piecesThrough(at: (i: number) => Point, n: number, tolerance: number): Vertex[] {
  const vertices: Vertex[] = [];
  let i = 0;
  while (i < n) {
    let end = i + 1;
    let bulge = 0;
    let reach = 3;
    let good = i;
    while (i + reach <= n) {
      const fit = arcThrough(at, i, i + reach, tolerance);
      if (fit === undefined) break;
      good = i + reach;
      bulge = fit;
      reach = Math.min(reach * 2, Math.max(reach + 1, n - i));
    }
    if (good > i) {
      let low = good;
      let high = Math.min(i + reach, n + 1);
      while (high - low > 1) {
        const middle = (low + high) >> 1;
        const fit = arcThrough(at, i, middle, tolerance);
        if (fit === undefined) high = middle;
        else {
          low = middle;
          bulge = fit;
        }
      }
      end = low;
    }
    const { x, y } = at(i);
    vertices.push({ x, y, bulge: end > i + 1 ? bulge : 0 });
    i = end;
  }
  return vertices;
}

/** Rebuilds a closed polygon as straights and true arcs, every given point within `tolerance` mm of the result. */
export function fitArcs(ring: Ring, tolerance = 0.002): Chain {
  const n = ring.length;
  if (n < 3) return { vertices: ring.map((p) => ({ ...p, bulge: 0 })), closed: true };
  const start = sharpest(ring);
  const vertices = piecesThrough((i) => ring[(start + i) % n], n, tolerance);
  return { vertices: dropStraights(vertices, tolerance / 4), closed: true };
}

/** Rebuilds an open run of points as straights and true arcs, every given point within `tolerance` mm of the result. */
export function fitOpenArcs(points: Point[], tolerance: number): Chain {
  const n = points.length - 1;
  const { x, y } = points[n];
  const vertices = [...piecesThrough((i) => points[i], n, tolerance), { x, y, bulge: 0 }];
  return { vertices: dropStraights(vertices, tolerance / 4), closed: false };
}

/** Removes points in the middle of straights. */
function dropStraights(vertices: Vertex[], tolerance: number): Vertex[] {
  const kept: Vertex[] = [];
  for (let i = 0; i < vertices.length; i++) {
    const v = vertices[i];
    const before = kept[kept.length - 1];
    const after = vertices[(i + 1) % vertices.length];
    if (before && before.bulge === 0 && v.bulge === 0 && i < vertices.length - 1) {
      const length = distance(before, after);
      const off =
        Math.abs((after.x - before.x) * (v.y - before.y) - (after.y - before.y) * (v.x - before.x)) / (length || 1);
      const between = (v.x - before.x) * (after.x - v.x) + (v.y - before.y) * (after.y - v.y) >= 0;
      if (off < tolerance && between) continue;
    }
    kept.push(v);
  }
  return kept;
}
