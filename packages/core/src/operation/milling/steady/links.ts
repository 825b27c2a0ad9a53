import { Chain, Vertex, flatten } from '../../../geometry/plane/chain';
import { Point } from '../../../geometry/plane/point';
import { Pose } from './walker';
import { maths } from '../../../quantity/maths';

const TAU = 2 * Math.PI;
const turned = (angle: number) => ((angle % TAU) + TAU) % TAU;

/** An arc turns this much at most a piece, so that its bulge stays tame. */
const MOST_SWEEP = Math.PI;

function arcVertices(c: Point, from: number, sweep: number, r: number): Vertex[] {
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / MOST_SWEEP - 1e-9));
  return Array.from({ length: n }, (_, i) => {
    const a = from + (sweep * i) / n;
    return { x: c.x + r * maths.cos(a), y: c.y + r * maths.sin(a), bulge: maths.tan(sweep / n / 4) };
  });
}

/** One way from pose to pose: an arc, a straight, an arc; `first` and `second` are 1 to turn left, −1 to turn right. */
function arcLineArc(a: Pose, b: Pose, r: number, first: 1 | -1, second: 1 | -1): Chain | undefined {
  const c0 = { x: a.x - first * r * maths.sin(a.heading), y: a.y + first * r * maths.cos(a.heading) };
  const c1 = { x: b.x - second * r * maths.sin(b.heading), y: b.y + second * r * maths.cos(b.heading) };
  const d = maths.hypot(c1.x - c0.x, c1.y - c0.y);
  const towards = maths.atan2(c1.y - c0.y, c1.x - c0.x);
  if (first !== second && d < 2 * r) return undefined;
  // Heading of the straight between both circles: along their centres, or crossing between them.
  const heading = first === second ? towards : towards + first * maths.asin((2 * r) / d);
  const sweep0 = turned(first * (heading - a.heading)) * first;
  const sweep1 = turned(second * (b.heading - heading)) * second;
  const start0 = a.heading - (first * Math.PI) / 2;
  const start1 = heading - (second * Math.PI) / 2;
  const leaves = {
    x: c0.x + r * maths.cos(start0 + sweep0),
    y: c0.y + r * maths.sin(start0 + sweep0),
    bulge: 0,
  };
  return {
    closed: false,
    vertices: [
      ...arcVertices(c0, start0, sweep0, r),
      leaves,
      ...arcVertices(c1, start1, sweep1, r),
      { x: b.x, y: b.y, bulge: 0 },
    ],
  };
}

const lengthOf = (points: Point[]) =>
  points.slice(1).reduce((sum, p, i) => sum + maths.hypot(p.x - points[i].x, p.y - points[i].y), 0);

/**
 * The shortest way from one pose to another without a corner, by arcs and a straight, that stays where `isFree` holds.
 * @param radii radii of the arcs to try, mm
 * @param longest length nobody would take any more, mm
 */
export function smoothLink(
  from: Pose,
  to: Pose,
  radii: number[],
  longest: number,
  isFree: (x: number, y: number) => boolean,
): { chain: Chain; length: number } | undefined {
  const ways: { chain: Chain; points: Point[]; length: number }[] = [];
  for (const r of radii) {
    for (const first of [1, -1] as const) {
      for (const second of [1, -1] as const) {
        const chain = arcLineArc(from, to, r, first, second);
        if (!chain) continue;
        const points = flatten(chain, 0.004);
        const length = lengthOf(points);
        if (length <= longest) ways.push({ chain, points, length });
      }
    }
  }
  ways.sort((a, b) => a.length - b.length);
  const step = Math.min(...radii) / 2;
  return ways.find(({ points }) => isFreeAlong(points, step, isFree));
}

function isFreeAlong(points: Point[], step: number, isFree: (x: number, y: number) => boolean): boolean {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const n = Math.max(1, Math.ceil(maths.hypot(b.x - a.x, b.y - a.y) / step));
    for (let k = 1; k <= n; k++) if (!isFree(a.x + ((b.x - a.x) * k) / n, a.y + ((b.y - a.y) * k) / n)) return false;
  }
  return true;
}
