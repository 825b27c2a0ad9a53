import { fitArcs, fitOpenArcs } from '../../geometry/plane/arcfit';
import {
  Chain,
  flatten,
  pointAtShare,
  reversed,
  shareAt,
  startDirection,
  startedAtShare,
} from '../../geometry/plane/chain';
import { Region, islands, offset, offsetOpen, offsetSharp } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';

/** Laps are rebuilt from chords as true arcs within this, mm. */
const FIT = 0.002;
/** Chords of open chains, mm. */
const FLATTEN = 0.001;
/** Corners that turn less than this are no corners, radians. */
const CORNER = 0.35;

/** How a path goes round outside corners: about the corner, out to a point, or past it and back in a loop. */
export type Corners = 'rolled' | 'sharp' | 'looped';

/** Laps along the rings of a region, `by` mm outside it (inside when negative), counterclockwise. */
export function closedLaps(region: Region, by: number, corners: Corners, loop: number): Chain[] {
  if (by <= 0 || corners === 'rolled') return islands(offset(region, by)).map((island) => fitArcs(island[0], FIT));
  const laps = islands(offsetSharp(region, by)).map((island) => fitArcs(island[0], FIT));
  return corners === 'sharp' ? laps : laps.map((lap) => looped(lap, loop));
}

/** A closed lap begun at the place on it that is nearest to the nearest of some spots. */
export function begunAt(lap: Chain, spots: Point[]): Chain {
  const places = spots.map((p) => {
    const share = shareAt(lap, p);
    return { share, off: distance(p, pointAtShare(lap, share)) };
  });
  return startedAtShare(lap, places.reduce((a, b) => (b.off < a.off ? b : a)).share);
}

const heading = (a: Point, b: Point) => maths.atan2(b.y - a.y, b.x - a.x);

/** A counterclockwise chain whose outside corners between straights are taken by a loop `reach` mm beyond them. */
function looped(chain: Chain, reach: number): Chain {
  const n = chain.vertices.length;
  const vertices = chain.vertices.flatMap((v, i) => {
    const before = chain.vertices[(i + n - 1) % n];
    const after = chain.vertices[(i + 1) % n];
    const turn = maths.atan2(
      maths.sin(heading(v, after) - heading(before, v)),
      maths.cos(heading(v, after) - heading(before, v)),
    );
    const room = Math.min(distance(before, v), distance(v, after)) / 2;
    if (before.bulge !== 0 || v.bulge !== 0 || turn < CORNER || reach > room) return [v];
    const [into, out] = [heading(before, v), heading(v, after)];
    return [
      {
        x: v.x + maths.cos(into) * reach,
        y: v.y + maths.sin(into) * reach,
        bulge: -maths.tan((2 * Math.PI - turn) / 4),
      },
      { x: v.x - maths.cos(out) * reach, y: v.y - maths.sin(out) * reach, bulge: 0 },
    ];
  });
  return { closed: true, vertices };
}

/** The line beside an open chain, on one side of it; on the chain itself when `by` is 0. */
export function openLap(chain: Chain, by: number, side: 'left' | 'right'): Chain | undefined {
  if (by <= 0) return chain;
  const run = offsetOpen(flatten(chain, FLATTEN), by, side);
  if (run.length < 2) return undefined;
  const squared = squaredStart(run, chain, side === 'left' ? by : -by);
  const whole = squaredStart(squared.reverse(), reversed(chain), side === 'left' ? -by : by).reverse();
  return whole.length > 1 ? fitOpenArcs(whole, FIT) : undefined;
}

/** A run beside a chain, begun square to the chain's start instead of square to its first chord. */
function squaredStart(run: Point[], chain: Chain, left: number): Point[] {
  const d = startDirection(chain);
  const start = { x: chain.vertices[0].x - d.y * left, y: chain.vertices[0].y + d.x * left };
  const after = run.findIndex((p) => (p.x - start.x) * d.x + (p.y - start.y) * d.y > 1e-4 && distance(p, start) > 1e-4);
  return after < 0 ? run : [start, ...run.slice(after)];
}

/** An open chain made longer at its ends in their own direction, or shorter where a length is below zero. */
export function extended(chain: Chain, start: number, end: number): Chain {
  return reversed(extendedStart(reversed(extendedStart(chain, start)), end));
}

function extendedStart(chain: Chain, by: number): Chain {
  if (by === 0) return chain;
  if (by > 0) {
    const d = startDirection(chain);
    const [first] = chain.vertices;
    return { closed: false, vertices: [{ x: first.x - d.x * by, y: first.y - d.y * by, bulge: 0 }, ...chain.vertices] };
  }
  const points = flatten(chain, FLATTEN);
  let left = -by;
  for (let i = 0; i + 1 < points.length; i++) {
    const length = distance(points[i], points[i + 1]);
    if (left < length) {
      const t = left / length;
      const cut = {
        x: points[i].x + (points[i + 1].x - points[i].x) * t,
        y: points[i].y + (points[i + 1].y - points[i].y) * t,
      };
      return fitOpenArcs([cut, ...points.slice(i + 1)], FIT);
    }
    left -= length;
  }
  return { closed: false, vertices: [] };
}
