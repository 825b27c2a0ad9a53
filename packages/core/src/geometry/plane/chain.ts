import { Bounds, Point, boundsOf, distance } from './point';
import { maths } from '../../quantity/maths';

/** A corner of a chain; `bulge` = tan(sweep / 4) of the piece that leaves it, 0 for a straight, positive counterclockwise. */
export interface Vertex extends Point {
  bulge: number;
}

/** Straights and true arcs joined end to end. */
export interface Chain {
  vertices: Vertex[];
  closed: boolean;
}

/** The circle behind an arc piece; `sweep` in radians, positive counterclockwise. */
export interface Arc {
  centre: Point;
  radius: number;
  start: number;
  sweep: number;
}

const TAU = 2 * Math.PI;

/** The arc from `a` to `b` with the given bulge (not 0). */
export function arcOf(a: Point, b: Point, bulge: number): Arc {
  const sweep = 4 * maths.atan(bulge);
  const half = distance(a, b) / 2;
  const radius = half / Math.abs(maths.sin(sweep / 2));
  const offset = (half * (1 - bulge * bulge)) / (2 * bulge);
  const chord = distance(a, b) || 1;
  const centre = {
    x: (a.x + b.x) / 2 - ((b.y - a.y) / chord) * offset,
    y: (a.y + b.y) / 2 + ((b.x - a.x) / chord) * offset,
  };
  return { centre, radius, start: maths.atan2(a.y - centre.y, a.x - centre.x), sweep };
}

/** The point an angle `along` (0..1) of the way round an arc. */
export function pointOnArc(arc: Arc, along: number): Point {
  const angle = arc.start + arc.sweep * along;
  return { x: arc.centre.x + arc.radius * maths.cos(angle), y: arc.centre.y + arc.radius * maths.sin(angle) };
}

/** A bulge this small is a straight: its arc would be flatter than any number here can tell. */
const FLAT = 1e-9;

/** The pieces of a chain as start, end and bulge. */
export function* pieces(chain: Chain): Generator<{ a: Vertex; b: Vertex; bulge: number }> {
  const { vertices, closed } = chain;
  const count = closed ? vertices.length : vertices.length - 1;
  for (let i = 0; i < count; i++) {
    const a = vertices[i];
    yield { a, b: vertices[(i + 1) % vertices.length], bulge: Math.abs(a.bulge) < FLAT ? 0 : a.bulge };
  }
}

/** Number of chords that keep a circular arc within `tolerance` of the true curve. */
export function chordCount(radius: number, sweep: number, tolerance: number): number {
  const step = 2 * maths.acos(Math.max(-1, 1 - Math.min(tolerance, radius) / radius));
  return Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3)));
}

/**
 * Points along a chain, arcs as chords within `tolerance` mm. A closed chain does not repeat its first point.
 */
export function flatten(chain: Chain, tolerance = 0.002): Point[] {
  const out: Point[] = [];
  for (const { a, b, bulge } of pieces(chain)) {
    out.push({ x: a.x, y: a.y });
    if (bulge === 0) continue;
    const arc = arcOf(a, b, bulge);
    const n = chordCount(arc.radius, arc.sweep, tolerance);
    for (let k = 1; k < n; k++) out.push(pointOnArc(arc, k / n));
  }
  if (!chain.closed && chain.vertices.length) {
    const last = chain.vertices[chain.vertices.length - 1];
    out.push({ x: last.x, y: last.y });
  }
  return out;
}

export function pieceLength(a: Point, b: Point, bulge: number): number {
  if (bulge === 0) return distance(a, b);
  const arc = arcOf(a, b, bulge);
  return arc.radius * Math.abs(arc.sweep);
}

/** Length of a chain, mm. */
export function chainLength(chain: Chain): number {
  let sum = 0;
  for (const { a, b, bulge } of pieces(chain)) sum += pieceLength(a, b, bulge);
  return sum;
}

/** Signed area of a closed chain, mm²; positive when it runs counterclockwise. Arcs counted exactly. */
export function signedArea(chain: Chain): number {
  let sum = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    sum += (a.x * b.y - b.x * a.y) / 2;
    if (bulge !== 0) {
      const { radius, sweep } = arcOf(a, b, bulge);
      sum += (radius * radius * (sweep - maths.sin(sweep))) / 2;
    }
  }
  return sum;
}

export function reversed(chain: Chain): Chain {
  const { vertices, closed } = chain;
  const n = vertices.length;
  const turned = vertices.map((_, i) => {
    const v = vertices[n - 1 - i];
    const before = vertices[(2 * n - 2 - i) % n];
    return { x: v.x, y: v.y, bulge: -before.bulge };
  });
  if (!closed && n) turned[n - 1].bulge = 0;
  return { vertices: turned, closed };
}

/** The box around a chain, mm; arcs reach as far as their circle does, not their chords. */
export function chainBounds(chain: Chain): Bounds {
  const reached: Point[] = chain.vertices.map(({ x, y }) => ({ x, y }));
  for (const { a, b, bulge } of pieces(chain)) {
    if (bulge === 0) continue;
    const { centre, radius, start, sweep } = arcOf(a, b, bulge);
    for (let quarter = 0; quarter < 4; quarter++) {
      const angle = (quarter * Math.PI) / 2;
      const along = ((((angle - start) * Math.sign(sweep)) % TAU) + TAU) % TAU;
      if (along <= Math.abs(sweep))
        reached.push({ x: centre.x + radius * maths.cos(angle), y: centre.y + radius * maths.sin(angle) });
    }
  }
  return boundsOf(reached);
}

/** A full circle as two half arcs, counterclockwise from the right. */
export function circle(x: number, y: number, radius: number): Chain {
  return {
    vertices: [
      { x: x + radius, y, bulge: 1 },
      { x: x - radius, y, bulge: 1 },
    ],
    closed: true,
  };
}

/** Moves, turns (degrees) and scales a chain; a negative `sy` mirrors it, arcs included. */
export function transform(
  chain: Chain,
  t: { dx?: number; dy?: number; turn?: number; scale?: number; mirror?: boolean },
): Chain {
  const angle = ((t.turn ?? 0) * Math.PI) / 180;
  const s = t.scale ?? 1;
  const c = maths.cos(angle) * s;
  const n = maths.sin(angle) * s;
  const flip = t.mirror ? -1 : 1;
  return {
    closed: chain.closed,
    vertices: chain.vertices.map((v) => ({
      x: c * v.x - n * v.y * flip + (t.dx ?? 0),
      y: n * v.x + c * v.y * flip + (t.dy ?? 0),
      bulge: v.bulge * flip,
    })),
  };
}

/** The circle a closed chain is, when all its pieces are arcs of one circle; otherwise undefined. */
export function asCircle(chain: Chain): { centre: Point; radius: number } | undefined {
  if (!chain.closed || chain.vertices.length < 1) return undefined;
  let found: { centre: Point; radius: number } | undefined;
  let sweep = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    if (bulge === 0) return undefined;
    const arc = arcOf(a, b, bulge);
    if (found && (distance(found.centre, arc.centre) > 1e-3 || Math.abs(found.radius - arc.radius) > 1e-3)) {
      return undefined;
    }
    found ??= { centre: arc.centre, radius: arc.radius };
    sweep += arc.sweep;
  }
  return Math.abs(Math.abs(sweep) - TAU) < 1e-3 ? found : undefined;
}

/** Rotates a closed chain so that it starts at the vertex or on the piece nearest to `near`. */
export function startedNear(chain: Chain, near: Point): Chain {
  let best = { i: 0, along: 0, d: Infinity };
  let i = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    const steps = bulge === 0 ? 1 : 16;
    const arc = bulge === 0 ? undefined : arcOf(a, b, bulge);
    for (let k = 0; k < steps; k++) {
      const along = arc ? k / steps : projectOnto(near, a, b);
      const p = arc ? pointOnArc(arc, along) : { x: a.x + (b.x - a.x) * along, y: a.y + (b.y - a.y) * along };
      const d = distance(p, near);
      if (d < best.d - 1e-9) best = { i, along, d };
    }
    i++;
  }
  return startedAt(chain, best.i, best.along);
}

function projectOnto(p: Point, a: Point, b: Point): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const l2 = dx * dx + dy * dy;
  return l2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / l2));
}

/** A closed chain restarted `along` (0..1) piece number `index`; the piece is split there when needed. */
export function startedAt(chain: Chain, index: number, along: number): Chain {
  const v = chain.vertices;
  const n = v.length;
  if (along <= 1e-9) return { closed: true, vertices: [...v.slice(index), ...v.slice(0, index)] };
  if (along >= 1 - 1e-9) return startedAt(chain, (index + 1) % n, 0);
  const a = v[index];
  const b = v[(index + 1) % n];
  const split = splitPiece(a, b, Math.abs(a.bulge) < FLAT ? 0 : a.bulge, along);
  return {
    closed: true,
    vertices: [
      { ...split.at, bulge: split.after },
      ...v.slice(index + 1),
      ...v.slice(0, index),
      { x: a.x, y: a.y, bulge: split.before },
    ],
  };
}

/** Splits one piece; bulges of both halves are returned. */
export function splitPiece(a: Point, b: Point, bulge: number, along: number) {
  if (bulge === 0) {
    return { at: { x: a.x + (b.x - a.x) * along, y: a.y + (b.y - a.y) * along }, before: 0, after: 0 };
  }
  const arc = arcOf(a, b, bulge);
  return {
    at: pointOnArc(arc, along),
    before: maths.tan((arc.sweep * along) / 4),
    after: maths.tan((arc.sweep * (1 - along)) / 4),
  };
}

/** Unit direction of travel at the start of a chain's first piece. */
export function startDirection(chain: Chain): Point {
  const first = pieces(chain).next().value;
  if (!first) return { x: 1, y: 0 };
  const { a, b, bulge } = first;
  const chord = maths.atan2(b.y - a.y, b.x - a.x);
  const angle = bulge === 0 ? chord : chord - 2 * maths.atan(bulge);
  return { x: maths.cos(angle), y: maths.sin(angle) };
}

/** A closed chain begun in the middle of its longest straight; as it is when it has none. */
export function startedOnLongest(chain: Chain): Chain {
  let best = -1;
  let most = 0;
  let i = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    const length = distance(a, b);
    if (bulge === 0 && length > most) [best, most] = [i, length];
    i++;
  }
  return best >= 0 ? startedAt(chain, best, 0.5) : chain;
}

/** A closed chain begun at a share (0..1) of its length from its first point. */
export function startedAtShare(chain: Chain, share: number): Chain {
  let left = chainLength(chain) * Math.min(1, Math.max(0, share));
  let i = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    const length = pieceLength(a, b, bulge);
    if (left <= length) return startedAt(chain, i, length > 0 ? left / length : 0);
    left -= length;
    i++;
  }
  return chain;
}

/** The share (0..1) of a chain's length at which it passes nearest to a point. */
export function shareNear(chain: Chain, p: Point): number {
  const steps = 400;
  let best = { share: 0, d: Infinity };
  for (let k = 0; k < steps; k++) {
    const d = distance(p, pointAtShare(chain, k / steps));
    if (d < best.d) best = { share: k / steps, d };
  }
  return best.share;
}

/** How far along an arc a point lies, 0..1; the nearer end of it where it lies beside. */
function alongArc({ centre, start, sweep }: Arc, p: Point): number {
  const turn = (maths.atan2(p.y - centre.y, p.x - centre.x) - start) * Math.sign(sweep);
  const round = turn - TAU * Math.floor(turn / TAU);
  const whole = Math.abs(sweep);
  return round <= whole ? round / whole : round - whole < TAU - round ? 1 : 0;
}

/** The share (0..1) of a chain's length of the place on it that is nearest to a point, exactly. */
export function shareAt(chain: Chain, p: Point): number {
  let best = { at: 0, d: Infinity };
  let gone = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    const length = pieceLength(a, b, bulge);
    const along = bulge === 0 ? projectOnto(p, a, b) : alongArc(arcOf(a, b, bulge), p);
    const d = distance(p, splitPiece(a, b, bulge, along).at);
    if (d < best.d - 1e-9) best = { at: gone + along * length, d };
    gone += length;
  }
  return gone > 0 ? best.at / gone : 0;
}

/** A closed chain from one share (0..1) of its length on to another, past its own start where that lies between. */
export function splitRound(chain: Chain, from: number, to: number): Chain {
  if (from < to) return splitAlong(chain, from, to);
  const [first, then] = [splitAlong(chain, from, 1), splitAlong(chain, 0, to)];
  if (first.vertices.length === 0) return then;
  return {
    closed: false,
    vertices: then.vertices.length ? [...first.vertices.slice(0, -1), ...then.vertices] : first.vertices,
  };
}

/** The stretch of a closed chain between two shares (0..1) of its length. */
export function splitAlong(chain: Chain, from: number, to: number): Chain {
  const whole = chainLength(chain);
  const vertices: Vertex[] = [];
  let gone = 0;
  let end: Point | undefined;
  for (const { a, b, bulge } of pieces(chain)) {
    const length = pieceLength(a, b, bulge);
    const [s, e] = [Math.max(0, (from * whole - gone) / length), Math.min(1, (to * whole - gone) / length)];
    gone += length;
    if (e - s <= 1e-9) continue;
    const at = (along: number): Point => (along <= 0 ? a : along >= 1 ? b : splitPiece(a, b, bulge, along).at);
    const start = at(s);
    vertices.push({ x: start.x, y: start.y, bulge: maths.tan(maths.atan(bulge) * (e - s)) });
    end = at(e);
  }
  return { closed: false, vertices: end ? [...vertices, { x: end.x, y: end.y, bulge: 0 }] : vertices };
}

/** The point at a share (0..1) of a chain's length. */
export function pointAtShare(chain: Chain, share: number): Point {
  let left = chainLength(chain) * Math.min(1, Math.max(0, share));
  for (const { a, b, bulge } of pieces(chain)) {
    const length = pieceLength(a, b, bulge);
    if (left <= length && length > 0) return splitPiece(a, b, bulge, left / length).at;
    left -= length;
  }
  return chain.vertices[chain.vertices.length - 1];
}
