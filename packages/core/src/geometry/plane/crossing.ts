import Flatbush from 'flatbush';
import { Point } from './point';
import { Ring } from './clip';

/** Where the straights a-b and c-d cross in their insides, if they do. */
function crossingOf(a: Point, b: Point, c: Point, d: Point): Point | undefined {
  const rx = b.x - a.x;
  const ry = b.y - a.y;
  const sx = d.x - c.x;
  const sy = d.y - c.y;
  const det = rx * sy - ry * sx;
  if (Math.abs(det) < 1e-12) return undefined;
  const t = ((c.x - a.x) * sy - (c.y - a.y) * sx) / det;
  const u = ((c.x - a.x) * ry - (c.y - a.y) * rx) / det;
  const inside = 1e-9;
  return t > inside && t < 1 - inside && u > inside && u < 1 - inside
    ? { x: a.x + t * rx, y: a.y + t * ry }
    : undefined;
}

/** The first place where a closed polygon crosses itself, or undefined. */
export function selfCrossing(ring: Ring): Point | undefined {
  const n = ring.length;
  if (n < 4) return undefined;
  const index = new Flatbush(n);
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % n];
    index.add(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y));
  });
  index.finish();
  for (let i = 0; i < n; i++) {
    const a = ring[i];
    const b = ring[(i + 1) % n];
    const near = index.search(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y));
    for (const j of near) {
      if (j <= i) continue;
      const p = crossingOf(a, b, ring[j], ring[(j + 1) % n]);
      if (p) return p;
    }
  }
  return undefined;
}
