/** Holes of a solid that are open above: with their mouths, sinks and the points they end in. */
import { Point } from '../../geometry/plane/point';
import { Triangles } from '../../geometry/space/triangles';
import { Vec3, dot, minus, plus, times, vec } from '../../geometry/space/vec3';
import { maths } from '../../quantity/maths';
import { Lean } from '../plate/leaning';
import { Found, NEAR } from './found';
import { Looked, UPRIGHT, onAxis } from './looked';
import { tidy } from './rings';

/** A blind round recess with a level floor that is wider than this is a pocket, mm. */
const WIDEST_DRILLED = 16;
/** A through one that is wider is one too, mm. */
const WIDEST_BORED = 40;
/** A cylinder that goes round so far is a hole, degrees. */
const ALL_ROUND = 300;
/** Places round a hole where it is looked into. */
const LOOKED_INTO = 8;
/** A drill goes through two walls in one where that is no deeper, in diameters. */
const IN_ONE = 5;
/** How far an axis may lean, as the cosine. */
const PLUMB = 1 - 4e-7;
/** What leans more, and less, is drilled leaning, degrees; straight to one side, as a sine. */
const [LEAST_LEAN, MOST_LEAN] = [0.05, 60];
const STRAIGHT = 1e-4;

/** Hollow faces on one upright axis. */
interface Axis extends Point {
  faces: number[];
}

const cornerOf = ({ points, corners }: Triangles, e: number): Vec3 => {
  const p = 3 * corners[e];
  return vec(points[p], points[p + 1], points[p + 2]);
};

/** Holes that are open above. */
export function holesOf(looked: Looked): Found[] {
  const { faces } = looked.solid;
  const axes: Axis[] = [];
  faces.forEach(({ fit, isHollow }, i) => {
    if (!isHollow || (fit.kind !== 'cylinder' && fit.kind !== 'cone') || Math.abs(fit.axis.z) < PLUMB) return;
    const { x, y } = onAxis(fit);
    const known = axes.find((a) => Math.abs(a.x - x) < NEAR && Math.abs(a.y - y) < NEAR);
    if (known) known.faces.push(i);
    else axes.push({ x, y, faces: [i] });
  });
  return axes.flatMap((axis) => holeAt(looked, axis));
}

/** How an axis leans from upright, where that is straight to one side. */
function leanOf({ x, y, z }: Vec3): Lean | undefined {
  const [most, least] = Math.abs(x) > Math.abs(y) ? [x, y] : [y, x];
  if (Math.abs(least) > STRAIGHT) return undefined;
  const degrees = tidy((maths.atan2(Math.abs(most), z) * 180) / Math.PI);
  if (degrees < LEAST_LEAN || degrees > MOST_LEAN) return undefined;
  const isUp = most > 0;
  return { to: most === x ? (isUp ? 'right' : 'left') : isUp ? 'back' : 'front', degrees };
}

/** Holes that are drilled on a sine plate: their place is where the axis meets the top, their depth along it. */
export function leaningHoles({ solid, tops, thickness }: Looked): Found[] {
  return solid.faces.flatMap(({ fit, isHollow, turn, triangles, meets }, face): Found[] => {
    if (fit.kind !== 'cylinder' || !isHollow || turn < ALL_ROUND) return [];
    const axis = fit.axis.z < 0 ? times(fit.axis, -1) : fit.axis;
    const lean = leanOf(axis);
    if (!lean) return [];
    const along = triangles.flatMap((t) =>
      [0, 1, 2].map((k) => dot(minus(cornerOf(solid.mesh, 3 * t + k), fit.at), axis)),
    );
    const at = minus(fit.at, times(axis, fit.at.z / axis.z));
    const [low, high] = [Math.min(...along), Math.max(...along)].map((l) => l - dot(minus(at, fit.at), axis));
    // What stands over its mouth keeps the drill out.
    const beyond = plus(at, times(axis, high + 2 * fit.radius));
    if (tops.at(beyond.x, beyond.y) > beyond.z) return [];
    // A floor across it, or the point of a drill.
    const ends = [...meets.keys()].filter((i) => {
      const end = solid.faces[i].fit;
      // Its mouth may lie square to it as well.
      return end.kind === 'plane'
        ? dot(end.normal, axis) > UPRIGHT && dot(minus(end.at, at), axis) < low + NEAR
        : end.kind === 'cone' && Math.abs(dot(end.axis, axis)) > UPRIGHT;
    });
    const end = plus(at, times(axis, low));
    const through = end.z < fit.radius * maths.hypot(axis.x, axis.y) - thickness + NEAR;
    return [
      {
        ...{ meaning: 'hole', shape: { type: 'round', diameter: tidy(2 * fit.radius) }, turn: 0 },
        ...{
          x: tidy(at.x),
          y: tidy(at.y),
          depth: through ? thickness : tidy(-low),
          through,
          lean,
          faces: [face, ...ends],
        },
      },
    ];
  });
}

/**
 * The cylinders of an axis from the top down, as far as the air between two of them is no longer than the metal above it: beyond it, the other
 * side begins. Both legs of a fork are drilled in one where a plain drill goes through them.
 */
function reachable(looked: Looked, on: number[]): { face: number; low: number; high: number }[] {
  const spans = on
    .flatMap((face) => {
      const { fit } = looked.solid.faces[face];
      const [low, high] = looked.span(face);
      return fit.kind === 'cylinder' ? [{ face, low, high, radius: fit.radius }] : [];
    })
    .sort((a, b) => b.high - a.high);
  const top = spans[0]?.high ?? 0;
  let [metal, low] = [0, top];
  const end = spans.findIndex((s) => {
    if (metal > 0 && low - s.high > metal && top - s.low > IN_ONE * 2 * s.radius) return true;
    metal += Math.max(0, Math.min(low, s.high) - s.low);
    low = Math.min(low, s.low);
    return false;
  });
  return end < 0 ? spans : spans.slice(0, end);
}

function holeAt(looked: Looked, { x, y, faces: on }: Axis): Found[] {
  const { faces } = looked.solid;
  const bores: { radius: number; low: number; high: number; turn: number; faces: number[] }[] = [];
  for (const { face: i, low, high } of reachable(looked, on)) {
    const { fit, turn } = faces[i];
    if (fit.kind !== 'cylinder') continue;
    const known = bores.find((b) => Math.abs(b.radius - fit.radius) < 1e-3);
    if (known) {
      known.turn = Math.max(known.turn, Math.min(360, known.low < high && low < known.high ? known.turn + turn : turn));
      known.low = Math.min(known.low, low);
      known.high = Math.max(known.high, high);
      known.faces.push(i);
    } else bores.push({ radius: fit.radius, low, high, turn, faces: [i] });
  }
  const whole = bores.filter((b) => b.turn > ALL_ROUND).sort((a, b) => b.high - a.high || b.radius - a.radius);
  // From the top down, each narrower than what is above it, and nothing over its mouth.
  const seen = whole.filter((b) => isFree(looked, { x, y }, b.radius, b.high));
  const narrow = seen.reduce<(typeof seen)[number] | undefined>(
    (best, b) => (!best || (b.radius < best.radius - 1e-3 && b.high <= best.high + 1e-6) ? b : best),
    undefined,
  );
  if (!narrow) return [];
  const through = looked.tops.at(x, y) === -Infinity;
  const cones = on.flatMap((i) => {
    const { fit } = faces[i];
    if (fit.kind !== 'cone') return [];
    const [low, high] = looked.span(i);
    return [{ face: i, low, high, half: Math.abs(fit.slope), isNarrowing: fit.slope * fit.axis.z > 0 }];
  });
  const point = cones.find((c) => Math.abs(c.high - narrow.low) < NEAR && c.isNarrowing);
  const sink = cones.find((c) => Math.abs(c.low - narrow.high) < NEAR && c.isNarrowing);
  if (!through && !point && 2 * narrow.radius > WIDEST_DRILLED) return [];
  if (through && 2 * narrow.radius > WIDEST_BORED) return [];
  const wider = seen
    .filter((b) => b.radius > narrow.radius + 1e-3 && b.low >= narrow.high - NEAR && b.low < narrow.high + NEAR)
    .find((b) => b.radius < 4 * narrow.radius);
  const from = Math.max(0, -(wider ?? sink ?? narrow).high);
  const found: Found = {
    ...{ meaning: 'hole', shape: { type: 'round', diameter: tidy(2 * narrow.radius) }, turn: 0 },
    ...{ x: tidy(x), y: tidy(y), depth: through ? looked.thickness : tidy(-narrow.low), through },
    faces: [
      ...narrow.faces,
      ...(wider?.faces ?? []),
      ...[point, sink].flatMap((c) => c?.face ?? []),
      ...looked.levelBeside(narrow.faces, narrow.low),
      ...(wider ? looked.levelBeside(wider.faces, wider.low) : []),
    ],
  };
  if (from > NEAR) found.from = tidy(from);
  if (through && narrow.low > NEAR - looked.thickness) found.ends = tidy(-narrow.low);
  if (point) found.point = tidy((2 * point.half * 180) / Math.PI);
  if (wider) found.counterbore = { diameter: tidy(2 * wider.radius), depth: tidy(-wider.low) };
  if (sink) {
    const size = tidy((sink.high - sink.low) * maths.tan(sink.half));
    found.edge = { form: 'chamfer', size, angle: tidy((2 * sink.half * 180) / Math.PI) };
  }
  return [found];
}

/** Whether nothing stands over a round opening. */
function isFree({ tops }: Looked, at: Point, radius: number, z: number): boolean {
  for (let k = 0; k < LOOKED_INTO; k++) {
    const angle = (2 * Math.PI * (k + 0.31)) / LOOKED_INTO;
    const r = 0.9 * radius;
    if (tops.at(at.x + r * maths.cos(angle), at.y + r * maths.sin(angle)) > z - 1e-3) return false;
  }
  return true;
}
