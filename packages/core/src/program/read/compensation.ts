import { Point, distance } from '../../geometry/plane/point';
import { ARC_CCW, ARC_CW, Path } from '../../path/path';
import { MOVE, Motion } from '../../path/motions';
import { maths } from '../../quantity/maths';

/** 1 with the cutter to the left of what is programmed, −1 to the right. */
type Hand = 1 | -1;

const NEAR = 1e-6;
/** An arc smaller than this is a corner the control rolls round by itself, mm. */
const CORNER = 0.05;
const add = (p: Point, d: Point, by: number): Point => ({ x: p.x + d.x * by, y: p.y + d.y * by });
const dot = (a: Point, b: Point) => a.x * b.x + a.y * b.y;
const cross = (a: Point, b: Point) => a.x * b.y - a.y * b.x;
const leftOf = (d: Point): Point => ({ x: -d.y, y: d.x });
const unit = (d: Point): Point => {
  const length = Math.sqrt(dot(d, d)) || 1;
  return { x: d.x / length, y: d.y / length };
};

/** Direction of travel at a point of a straight or, about its centre, of an arc; `turn` 0 for a straight. */
const heading = (at: Point, from: Point, to: Point, centre: Point, turn: number): Point =>
  turn === 0
    ? unit({ x: to.x - from.x, y: to.y - from.y })
    : unit({ x: -(at.y - centre.y) * turn, y: (at.x - centre.x) * turn });

/**
 * The path as programmed for a control that moves the cutter by its whole radius: the wall itself instead of the cutter's way. Moves
 * on which compensation is switched keep their free end.
 */
export function programmedPath(path: Path): Path {
  const [x, y] = [path.x.slice(), path.y.slice()];
  const turnOf = (i: number) => (path.kind[i] === ARC_CCW ? 1 : path.kind[i] === ARC_CW ? -1 : 0);
  const place = (i: number): Point => ({ x: path.x[i], y: path.y[i] });
  const directionAt = (i: number, end: boolean) =>
    heading(place(end ? i : i - 1), place(i - 1), place(i), { x: path.cx[i], y: path.cy[i] }, turnOf(i));
  for (const [k, on] of path.compensation.entries()) {
    const off = path.compensation[k + 1];
    if (on.to === 'off' || !off || !on.radius) continue;
    const hand = on.to === 'left' ? -1 : 1;
    for (let i = on.move; i < off.move; i++) {
      const next = leftOf(directionAt(i + 1, false));
      const before = i === on.move ? next : leftOf(directionAt(i, true));
      const last = i === off.move - 1 ? before : next;
      const first = i === on.move ? last : before;
      const share = (on.radius * hand) / (1 + dot(first, last));
      x[i] += (first.x + last.x) * share;
      y[i] += (first.y + last.y) * share;
    }
    // What rolls round a corner shrinks to the corner.
    for (let i = on.move + 1; i < off.move; i++) {
      if (turnOf(i) === 0 || distance({ x: x[i], y: y[i] }, { x: path.cx[i], y: path.cy[i] }) > CORNER) continue;
      x[i - 1] = x[i] = path.cx[i];
      y[i - 1] = y[i] = path.cy[i];
    }
  }
  return { ...path, x, y };
}

/** A programmed piece moved aside: where it starts and ends now, and the directions there. */
interface Moved {
  motion: Motion;
  from: Point;
  to: Point;
  /** Where it was programmed to begin and to end. */
  begin: Point;
  corner: Point;
  start: Point;
  end: Point;
}

const turnOf = (m: Motion) => (m.type === MOVE.arcCcw ? 1 : m.type === MOVE.arcCw ? -1 : 0);

/** Where two offset pieces meet, nearest to `near`: straights as lines, arcs as circles. */
function meeting(a: Moved, b: Moved, near: Point): Point | undefined {
  const carrier = ({ motion: m, from, start }: Moved) => {
    const centre = { x: m.cx, y: m.cy };
    return turnOf(m) === 0 ? { from, d: start } : { centre, r: distance(from, centre) };
  };
  const [p, q] = [carrier(a), carrier(b)];
  const found = p.d ? (q.d ? lines(p, q) : lineCircle(p, q)) : q.d ? lineCircle(q, p) : circles(p, q);
  return found.sort((s, t) => distance(s, near) - distance(t, near))[0];
}

type Line = { from: Point; d: Point };
type Circle = { centre: Point; r: number; d?: undefined };

function lines(a: Line, b: Line): Point[] {
  const k = cross(a.d, b.d);
  if (Math.abs(k) < 1e-9) return [];
  return [add(a.from, a.d, cross({ x: b.from.x - a.from.x, y: b.from.y - a.from.y }, b.d) / k)];
}

function lineCircle(a: Line, { centre, r }: Circle): Point[] {
  const along = dot({ x: centre.x - a.from.x, y: centre.y - a.from.y }, a.d);
  const foot = add(a.from, a.d, along);
  const h2 = r * r - maths.pow(distance(foot, centre), 2);
  if (h2 < -NEAR) return [];
  const h = Math.sqrt(Math.max(0, h2));
  return [add(foot, a.d, h), add(foot, a.d, -h)];
}

function circles(a: Circle, b: Circle): Point[] {
  const d = distance(a.centre, b.centre);
  if (d < NEAR || d > a.r + b.r + NEAR || d < Math.abs(a.r - b.r) - NEAR) return [];
  const along = (d * d + a.r * a.r - b.r * b.r) / (2 * d);
  const e = unit({ x: b.centre.x - a.centre.x, y: b.centre.y - a.centre.y });
  const h = Math.sqrt(Math.max(0, a.r * a.r - along * along));
  const foot = add(a.centre, e, along);
  return [add(foot, leftOf(e), h), add(foot, leftOf(e), -h)];
}

/** A piece moved aside; what is left of an arc's radius where the cutter does not fit into it, mm. */
function movedAside(motion: Motion, at: Point, radius: number, hand: Hand): Moved | number {
  const to = { x: motion.x, y: motion.y };
  const centre = { x: motion.cx, y: motion.cy };
  const turn = turnOf(motion);
  const room = distance(at, centre) - radius;
  if (turn !== 0 && hand === turn && room < NEAR) return room;
  const start = heading(at, at, to, centre, turn);
  const end = heading(to, at, to, centre, turn);
  const side = radius * hand;
  return {
    motion,
    from: add(at, leftOf(start), side),
    to: add(to, leftOf(end), side),
    begin: at,
    corner: to,
    start,
    end,
  };
}

/** Roundings of a place add up to so many of the program's smallest steps. */
const ROUNDED = 3;

/** How far the ends of two pieces may lie apart that were tangent before their places were rounded, mm. */
function mayMiss(a: Moved, b: Moved, radius: number, grain: number): number {
  const length = (m: Moved) => Math.max(grain, distance(m.corner, m.begin));
  return NEAR + ROUNDED * grain * (1 + radius / length(a) + radius / length(b));
}

/**
 * The way the cutter really takes between the move that switches compensation on and the one that switches it off, as a control with a
 * look-ahead takes it: corners away from the cutter are rolled round, corners towards it are cut short where the pieces meet.
 * @param moves the programmed moves, the first and last of them those that switch
 * @param from where the cutter stands before the first
 * @param grain smallest step the program writes, mm: its places are no better than that
 * @returns the moves, and the first one that cannot be followed, where there is one
 */
export function compensated(
  moves: Motion[],
  from: Point,
  radius: number,
  hand: Hand,
  grain: number,
): { moves: Motion[]; fault?: Motion } {
  let fault: Motion | undefined;
  const inner = moves.slice(1, -1);
  const pieces: Moved[] = [];
  let at: Point = { x: moves[0].x, y: moves[0].y };
  for (const motion of inner) {
    if (distance(at, motion) < NEAR && turnOf(motion) === 0) continue;
    const moved = movedAside(motion, at, radius, hand);
    if (typeof moved !== 'number') pieces.push(moved);
    else if (moved < -ROUNDED * grain) fault ??= motion;
    at = { x: motion.x, y: motion.y };
  }
  const [first] = pieces;
  if (!first) return { moves, fault: fault ?? moves[0] };
  const out: Motion[] = [{ ...moves[0], x: first.from.x, y: first.from.y }];
  pieces.forEach((piece, i) => {
    const next = pieces[i + 1];
    if (next && distance(piece.to, next.from) <= mayMiss(piece, next, radius, grain)) {
      piece.to = next.from = { x: (piece.to.x + next.from.x) / 2, y: (piece.to.y + next.from.y) / 2 };
    } else if (next) {
      const towards = cross(piece.end, next.start) * hand > 0;
      const meet = towards ? meeting(piece, next, piece.corner) : undefined;
      if (meet) piece.to = next.from = meet;
      else if (towards) fault ??= next.motion;
    }
    if (
      turnOf(piece.motion) === 0 &&
      dot({ x: piece.to.x - piece.from.x, y: piece.to.y - piece.from.y }, piece.start) < -ROUNDED * grain
    )
      fault ??= piece.motion;
    out.push({ ...piece.motion, x: piece.to.x, y: piece.to.y });
    if (next && distance(piece.to, next.from) > NEAR)
      out.push({
        ...next.motion,
        type: hand > 0 ? MOVE.arcCw : MOVE.arcCcw,
        x: next.from.x,
        y: next.from.y,
        z: piece.motion.z,
        cx: piece.corner.x,
        cy: piece.corner.y,
      });
  });
  return { moves: [...out, moves[moves.length - 1]], fault: fault && { ...fault, x: from.x, y: from.y } };
}
