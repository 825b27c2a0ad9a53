/** Rings of a section as lines and arcs: arcs are those of the cylinders they run along, so that radii are the model's own. */
import { Chain, Vertex, circle, signedArea, transform } from '../../geometry/plane/chain';
import { fitArcs } from '../../geometry/plane/arcfit';
import { Ring, ringArea } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { Shape } from '../plate/feature';
import { linesOf } from '../plate/shapes';

/** A cylinder that stands upright, seen from above. */
export interface Upright {
  x: number;
  y: number;
  radius: number;
}

/** Corners of a ring lie so near the cylinder they are on, mm. */
const NEAR = 6e-4;
/** A longer piece of a circle is a straight whose ends lie on it, rad. */
const LONGEST_CHORD = 0.9;

/** A figure without the dust of sums: thousandths where it is one, else ten thousandths. */
export function tidy(v: number): number {
  const plain = Math.round(v * 1000) / 1000;
  return (Math.abs(v - plain) < 2.5e-4 ? plain : Math.round(v * 1e4) / 1e4) + 0;
}

/** The cylinder each piece of a ring runs along; −1 for none. */
function alongWhich(ring: Ring, uprights: Upright[]): number[] {
  return ring.map((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const chord = distance(a, b);
    return uprights.findIndex(
      (c) =>
        Math.abs(distance(a, c) - c.radius) < NEAR &&
        Math.abs(distance(b, c) - c.radius) < NEAR &&
        chord < LONGEST_CHORD * c.radius,
    );
  });
}

/** How far within its circle a ring of chords may lie: as a share of its radius, and at most, mm. */
const CHORDS = { share: 0.02, most: 0.15 };

/** Whether a ring of chords is one circle: where chords of two facetings cross, its corners lie a little within. */
function isRoundOn(ring: Ring, c: Upright): boolean {
  const least = c.radius - Math.min(CHORDS.most, CHORDS.share * c.radius) - NEAR;
  const isOn = ring.length > 6 && ring.every((p) => distance(p, c) < c.radius + NEAR && distance(p, c) > least);
  return isOn && Math.abs(ringArea(ring)) > 0.95 * Math.PI * c.radius * c.radius;
}

const sweepOf = (a: Point, b: Point, c: Point): number =>
  maths.atan2(
    (a.x - c.x) * (b.y - c.y) - (a.y - c.y) * (b.x - c.x),
    (a.x - c.x) * (b.x - c.x) + (a.y - c.y) * (b.y - c.y),
  );

/** A ring as straights and arcs. */
export function chainOf(ring: Ring, uprights: Upright[]): Chain {
  const n = ring.length;
  const whole = uprights.find((c) => isRoundOn(ring, c));
  if (whole) return circle(whole.x, whole.y, whole.radius);
  const along = alongWhich(ring, uprights);
  if (along[0] >= 0 && along.every((k) => k === along[0])) {
    const { x, y, radius } = uprights[along[0]];
    return circle(x, y, radius);
  }
  if (along.every((k) => k < 0)) return straightened(fitArcs(ring).vertices);
  const start = along.findIndex((k, i) => k !== along[(i + n - 1) % n]);
  const vertices: Vertex[] = [];
  for (let i = 0; i < n;) {
    const which = along[(start + i) % n];
    const from = ring[(start + i) % n];
    if (which < 0) {
      vertices.push({ ...from, bulge: 0 });
      i++;
      continue;
    }
    let sweep = 0;
    const c = uprights[which];
    while (i < n && along[(start + i) % n] === which) {
      sweep += sweepOf(ring[(start + i) % n], ring[(start + i + 1) % n], c);
      i++;
    }
    vertices.push({ ...from, bulge: maths.tan(sweep / 4) });
  }
  return straightened(vertices);
}

/** Corners between straights that run on are left out. */
function straightened(vertices: Vertex[]): Chain {
  const n = vertices.length;
  const kept = vertices.filter((v, i) => {
    const [before, after] = [vertices[(i + n - 1) % n], vertices[(i + 1) % n]];
    if (before.bulge !== 0 || v.bulge !== 0) return true;
    const length = distance(before, after) || 1;
    const off = (after.x - before.x) * (v.y - before.y) - (after.y - before.y) * (v.x - before.x);
    return Math.abs(off) / length > 5e-4 || (v.x - before.x) * (after.x - v.x) + (v.y - before.y) * (after.y - v.y) < 0;
  });
  return {
    closed: true,
    vertices: (kept.length > 1 ? kept : vertices).map((v) => ({ x: tidy(v.x), y: tidy(v.y), bulge: v.bulge })),
  };
}

/** A shape and where it stands. */
export interface Standing {
  shape: Shape;
  x: number;
  y: number;
  turn: number;
}

const degrees = (rad: number) => tidy((rad * 180) / Math.PI);
const QUARTER = maths.tan(Math.PI / 8);
const alike = (a: number, b: number, within = 2e-3) => Math.abs(a - b) < within;

/** The plainest shape a closed chain has: round, a slot, a rectangle; itself where it is none. */
export function shapeOf(chain: Chain, uprights: Upright[] = []): Standing {
  const round = roundOf(chain, uprights);
  if (round)
    return { shape: { type: 'round', diameter: tidy(2 * round.radius) }, x: tidy(round.x), y: tidy(round.y), turn: 0 };
  const v = signedArea(chain) < 0 ? [] : chain.vertices;
  const plain = [slotOf(v), rectangleOf(v)].find((standing) => standing && isDrawnBy(standing, v));
  return plain ?? { shape: { type: 'chain', ...chain }, x: 0, y: 0, turn: 0 };
}

/** Whether a shape where it stands has these corners: ends of two widths, or corners of two radii, make another. */
function isDrawnBy({ shape, x, y, turn }: Standing, v: Vertex[]): boolean {
  const drawn = linesOf(shape).flatMap((line) => transform(line, { turn, dx: x, dy: y }).vertices);
  return v.length > 0 && v.every((p) => drawn.some((q) => distance(p, q) < 2e-3));
}

function roundOf({ vertices: [a, b, ...more], closed }: Chain, uprights: Upright[]): Upright | undefined {
  if (!closed || !b || more.length > 0 || !alike(Math.abs(a.bulge), 1, 1e-6) || !alike(a.bulge, b.bulge, 1e-6))
    return undefined;
  const found = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, radius: distance(a, b) / 2 };
  return uprights.find((c) => alike(c.radius, found.radius) && distance(c, found) < 2e-3) ?? found;
}

function slotOf(v: Vertex[]): Standing | undefined {
  if (v.length !== 4) return undefined;
  const first = alike(v[0].bulge, 1, 1e-3) ? 0 : 1;
  const at = (k: number) => v[(first + k) % 4];
  if (!alike(at(0).bulge, 1, 1e-3) || !alike(at(2).bulge, 1, 1e-3) || at(1).bulge !== 0 || at(3).bulge !== 0)
    return undefined;
  const width = distance(at(0), at(1));
  const [a, b] = [middle(at(0), at(1)), middle(at(2), at(3))];
  const { x, y } = middle(a, b);
  const turn = directionOf(a, b);
  return {
    shape: { type: 'slot', length: tidy(distance(a, b) + width), width: tidy(width) },
    x: tidy(x),
    y: tidy(y),
    turn,
  };
}

const middle = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

/** Degrees from −90 to 90 between the X axis and a line. */
function directionOf(a: Point, b: Point): number {
  const turn = degrees(maths.atan2(b.y - a.y, b.x - a.x));
  return turn > 90 ? turn - 180 : turn <= -90 ? turn + 180 : turn;
}

function rectangleOf(v: Vertex[]): Standing | undefined {
  const rounded = v.length === 8;
  if (!rounded && v.length !== 4) return undefined;
  const first = v.findIndex((p) => p.bulge === 0);
  if (first < 0) return undefined;
  const at = (k: number) => v[(first + k) % v.length];
  const step = rounded ? 2 : 1;
  const sides = [0, 1, 2, 3].map((k) => [at(step * k), at(step * k + 1)]);
  if (!sides.every(([p]) => p.bulge === 0)) return undefined;
  if (rounded && !sides.every(([, q]) => alike(q.bulge, QUARTER, 1e-3))) return undefined;
  const along = sides.map(([a, b]) => ({ x: b.x - a.x, y: b.y - a.y, length: distance(a, b) }));
  const square = along.every((d, k) => {
    const e = along[(k + 1) % 4];
    return Math.abs(d.x * e.x + d.y * e.y) < 1e-4 * d.length * e.length;
  });
  if (!square) return undefined;
  const radius = rounded ? distance(sides[0][1], sides[1][0]) / Math.SQRT2 : 0;
  const [w, h] = [along[0].length + 2 * radius, along[1].length + 2 * radius];
  const centre = middle(middle(sides[0][0], sides[0][1]), middle(sides[2][0], sides[2][1]));
  const turn = directionOf(sides[0][0], sides[0][1]);
  const isAcross = alike(Math.abs(turn), 90, 0.01);
  return {
    shape: {
      type: 'rectangle',
      width: tidy(isAcross ? h : w),
      height: tidy(isAcross ? w : h),
      radius: tidy(radius),
    },
    x: tidy(centre.x),
    y: tidy(centre.y),
    turn: isAcross ? 0 : turn,
  };
}
