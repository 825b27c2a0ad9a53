/** One closed line trimmed by another, and its corners rounded: straights and true arcs stay what they are. */
import {
  Chain,
  Vertex,
  arcOf,
  flatten,
  pieceLength,
  pieces,
  pointAtShare,
  reversed,
  shareAt,
  signedArea,
  splitPiece,
  splitRound,
} from './chain';
import { contains } from './clip';
import { Point, distance } from './point';
import { maths } from '../../quantity/maths';

const HAIR = 1e-6;
const TAU = 2 * Math.PI;

interface Piece {
  a: Point;
  b: Point;
  bulge: number;
}

/** A whole line or a whole circle. */
type Curve = { from: Point; way: Point } | { centre: Point; radius: number };

const isCircle = (curve: Curve): curve is { centre: Point; radius: number } => 'radius' in curve;

function unit(a: Point, b: Point): Point {
  const length = distance(a, b) || 1;
  return { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
}

/** The curve behind a piece, moved to its left by `by` mm; a circle that would have no radius is left out. */
function curveOf({ a, b, bulge }: Piece, by = 0): Curve | undefined {
  if (bulge === 0) {
    const way = unit(a, b);
    return { from: { x: a.x - way.y * by, y: a.y + way.x * by }, way };
  }
  const { centre, radius, sweep } = arcOf(a, b, bulge);
  const moved = radius - Math.sign(sweep) * by;
  return moved > HAIR ? { centre, radius: moved } : undefined;
}

function lineWithCircle(
  { from, way }: { from: Point; way: Point },
  circle: { centre: Point; radius: number },
): Point[] {
  const [dx, dy] = [circle.centre.x - from.x, circle.centre.y - from.y];
  const along = dx * way.x + dy * way.y;
  const beside = dx * way.y - dy * way.x;
  const left = circle.radius * circle.radius - beside * beside;
  if (left < 0) return [];
  const half = Math.sqrt(left);
  return [along - half, along + half].map((t) => ({ x: from.x + way.x * t, y: from.y + way.y * t }));
}

/** Where two curves meet: none, one or two places. */
function meetings(one: Curve, other: Curve): Point[] {
  if (isCircle(one) && isCircle(other)) {
    const away = distance(one.centre, other.centre);
    if (away < HAIR) return [];
    const along = (one.radius * one.radius - other.radius * other.radius + away * away) / (2 * away);
    const way = unit(one.centre, other.centre);
    const foot = { x: one.centre.x + way.x * along, y: one.centre.y + way.y * along };
    return lineWithCircle({ from: foot, way: { x: -way.y, y: way.x } }, one);
  }
  if (isCircle(one)) return lineWithCircle(other as { from: Point; way: Point }, one);
  if (isCircle(other)) return lineWithCircle(one, other);
  const cross = one.way.x * other.way.y - one.way.y * other.way.x;
  if (Math.abs(cross) < 1e-12) return [];
  const t = ((other.from.x - one.from.x) * other.way.y - (other.from.y - one.from.y) * other.way.x) / cross;
  return [{ x: one.from.x + one.way.x * t, y: one.from.y + one.way.y * t }];
}

/** How far along a piece a point on its curve lies: 0 at its start, 1 at its end, beyond these outside it. */
function alongOf({ a, b, bulge }: Piece, p: Point): number {
  if (bulge === 0) {
    const way = unit(a, b);
    return ((p.x - a.x) * way.x + (p.y - a.y) * way.y) / (distance(a, b) || 1);
  }
  const { centre, start, sweep } = arcOf(a, b, bulge);
  const turn = (maths.atan2(p.y - centre.y, p.x - centre.x) - start) * Math.sign(sweep);
  const round = turn - TAU * Math.floor(turn / TAU);
  const whole = Math.abs(sweep);
  // Beyond the end up to half of what is left of the circle; from there it lies before the start.
  return round - whole > (TAU - whole) / 2 ? (round - TAU) / whole : round / whole;
}

const within = (along: number, length: number) => along > -HAIR / length && along < 1 + HAIR / length;

/** Where two closed lines cross or touch, each place once. */
export function crossingsOf(one: Chain, other: Chain): Point[] {
  const found: Point[] = [];
  for (const p of pieces(one))
    for (const q of pieces(other)) {
      const [a, b] = [curveOf(p)!, curveOf(q)!];
      for (const at of meetings(a, b)) {
        const lies =
          within(alongOf(p, at), pieceLength(p.a, p.b, p.bulge)) &&
          within(alongOf(q, at), pieceLength(q.a, q.b, q.bulge));
        if (lies && !found.some((f) => distance(f, at) < 10 * HAIR)) found.push(at);
      }
    }
  return found;
}

const isInside = (chain: Chain, p: Point) => contains([flatten(chain, 1e-4)], p);
const counterclockwise = (chain: Chain) => (signedArea(chain) < 0 ? reversed(chain) : chain);

/** A closed line with a piece trimmed off, and the corners where that begins and ends. */
export interface Trimmed {
  chain: Chain;
  corners: [Point, Point];
}

/**
 * What is left of the area within `outer` where `cutter` is taken out of it, counterclockwise.
 * @returns undefined where they do not cross in just two places: then it would be whole, gone or in pieces
 */
export function trimmed(outer: Chain, cutter: Chain): Trimmed | undefined {
  const [round, taken] = [counterclockwise(outer), reversed(counterclockwise(cutter))];
  const crossings = crossingsOf(round, taken);
  if (crossings.length !== 2) return undefined;
  const between = (chain: Chain, from: Point, to: Point) => splitRound(chain, shareAt(chain, from), shareAt(chain, to));
  for (const [from, to] of [crossings, [crossings[1], crossings[0]]]) {
    const kept = between(round, from, to);
    const along = between(taken, to, from);
    if (isInside(cutter, pointAtShare(kept, 0.5)) || !isInside(outer, pointAtShare(along, 0.5))) continue;
    const vertices = [...kept.vertices.slice(0, -1), ...along.vertices.slice(0, -1)];
    return { chain: { closed: true, vertices }, corners: [to, from] };
  }
  return undefined;
}

/** Where a circle of a radius touches a curve that it rolls along. */
function touching(curve: Curve, centre: Point): Point {
  if (isCircle(curve)) {
    const way = unit(curve.centre, centre);
    return { x: curve.centre.x + way.x * curve.radius, y: curve.centre.y + way.y * curve.radius };
  }
  const along = (centre.x - curve.from.x) * curve.way.x + (centre.y - curve.from.y) * curve.way.y;
  return { x: curve.from.x + curve.way.x * along, y: curve.from.y + curve.way.y * along };
}

/** A corner rounded: where the arc begins and ends, and the bulges of what is before, of the arc, and of what comes after. */
interface Rounded {
  from: Point;
  to: Point;
  before: number;
  arc: number;
  after: number;
}

/** A corner that turns less than this is none, radians. */
const CORNER = 0.05;

function directionAt({ a, b, bulge }: Piece, isEnd: boolean): number {
  const chord = maths.atan2(b.y - a.y, b.x - a.x);
  return chord + (isEnd ? 2 : -2) * maths.atan(bulge);
}

/** How far the corner between two pieces turns, to the left where positive, radians. */
function turnAt(p: Piece, q: Piece): number {
  const turn = directionAt(q, false) - directionAt(p, true);
  return turn - TAU * Math.round(turn / TAU);
}

/** The corner between two pieces rounded, whichever way it turns; undefined where it does not, or there is no room on both sides. */
function rounded(p: Piece, q: Piece, radius: number): Rounded | undefined {
  const sign = Math.sign(turnAt(p, q));
  if (Math.abs(turnAt(p, q)) < CORNER) return undefined;
  const [a, b] = [curveOf(p, sign * radius), curveOf(q, sign * radius)];
  if (!a || !b) return undefined;
  const centres = meetings(a, b).sort((u, v) => distance(u, p.b) - distance(v, p.b));
  for (const centre of centres) {
    const [from, to] = [touching(curveOf(p)!, centre), touching(curveOf(q)!, centre)];
    const [s, e] = [alongOf(p, from), alongOf(q, to)];
    if (s <= 0 || s > 1 || e < 0 || e >= 1) continue;
    const turn = maths.atan2(
      (from.x - centre.x) * (to.y - centre.y) - (from.y - centre.y) * (to.x - centre.x),
      (from.x - centre.x) * (to.x - centre.x) + (from.y - centre.y) * (to.y - centre.y),
    );
    if (turn * sign <= 0) continue;
    const [first, then] = [splitPiece(p.a, p.b, p.bulge, s), splitPiece(q.a, q.b, q.bulge, e)];
    return { from, to, before: first.before, arc: maths.tan(turn / 4), after: then.after };
  }
  return undefined;
}

/**
 * A counterclockwise line with the outside corner nearest to a place rounded.
 * @param radius mm
 * @returns undefined where it is no outside corner, or there is no room for it on both sides
 */
export function filleted({ vertices }: Chain, corner: Point, radius: number): Chain | undefined {
  const n = vertices.length;
  const i = vertices.reduce((best, v, k) => (distance(v, corner) < distance(vertices[best], corner) ? k : best), 0);
  const [before, at, after] = [vertices[(i + n - 1) % n], vertices[i], vertices[(i + 1) % n]];
  const [p, q] = [
    { a: before, b: at, bulge: before.bulge },
    { a: at, b: after, bulge: at.bulge },
  ];
  const found = turnAt(p, q) > 0 ? rounded(p, q, radius) : undefined;
  if (!found) return undefined;
  const others = Array.from({ length: n - 2 }, (_, k) => vertices[(i + 1 + k) % n]);
  return {
    closed: true,
    vertices: [
      { ...before, bulge: found.before },
      { ...found.from, bulge: found.arc },
      { ...found.to, bulge: found.after },
      ...others,
    ],
  };
}

/** Shares of a radius that are tried where there is no room for all of it. */
const SMALLER = [1, 0.5, 0.25, 0.125];

/** A line whose corners are rounded, by less where there is no room: each takes half of the pieces it lies between at most. */
export function withRoundCorners(chain: Chain, radius: number): Chain {
  const n = chain.vertices.length;
  const all = [...pieces(chain)];
  const corners = all.map((p, i): Rounded | undefined => {
    const q = all[(i + 1) % all.length];
    if (!q || (!chain.closed && i === all.length - 1)) return undefined;
    const half = (piece: Piece, isEnd: boolean): Piece => {
      const { at, before, after } = splitPiece(piece.a, piece.b, piece.bulge, 0.5);
      return isEnd ? { a: at, b: piece.b, bulge: after } : { a: piece.a, b: at, bulge: before };
    };
    for (const share of SMALLER) {
      const found = rounded(half(p, true), half(q, false), share * radius);
      if (found) return found;
    }
    return undefined;
  });
  const vertices = all.flatMap(({ a, b, bulge }, i): Vertex[] => {
    const [start, end] = [corners[(i + all.length - 1) % all.length], corners[i]];
    const from = chain.closed || i > 0 ? start : undefined;
    const [u, v] = [from?.to ?? a, end?.from ?? b];
    const share = (p: Point) => alongOf({ a, b, bulge }, p);
    const kept = bulge === 0 ? 0 : maths.tan(maths.atan(bulge) * (share(v) - share(u)));
    return [{ x: u.x, y: u.y, bulge: kept }, ...(end ? [{ x: end.from.x, y: end.from.y, bulge: end.arc }] : [])];
  });
  return { closed: chain.closed, vertices: chain.closed ? vertices : [...vertices, chain.vertices[n - 1]] };
}
