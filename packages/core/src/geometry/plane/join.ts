import Flatbush from 'flatbush';
import { Chain, Vertex, reversed } from './chain';
import { Point, distance } from './point';

/** An opening between two ends that nearly meet, mm. */
export interface Gap {
  from: Point;
  to: Point;
  width: number;
}

export interface Joined {
  chains: Chain[];
  /** Ends that stayed apart, nearest neighbour named; they are closed only when the caller says so. */
  gaps: Gap[];
  /** Places where more than two ends meet. */
  branches: Point[];
}

const endOf = (c: Chain): Vertex => c.vertices[c.vertices.length - 1];

/** Lets `a`, which nobody else holds, go on along `b`; the doubled point is dropped. */
function append(a: Vertex[], b: Chain): void {
  a[a.length - 1] = { ...a[a.length - 1], bulge: b.vertices[0].bulge };
  for (let i = 1; i < b.vertices.length; i++) a.push(b.vertices[i]);
}

function close(chain: Chain, tolerance: number): Chain {
  const first = chain.vertices[0];
  const last = endOf(chain);
  if (chain.vertices.length < 2) return chain;
  if (distance(first, last) <= tolerance) return { closed: true, vertices: chain.vertices.slice(0, -1) };
  return chain;
}

/** Index of open ends: two entries a chain, start and end. */
function indexEnds(open: Chain[]): Flatbush {
  const index = new Flatbush(open.length * 2);
  for (const chain of open) for (const p of [chain.vertices[0], endOf(chain)]) index.add(p.x, p.y, p.x, p.y);
  index.finish();
  return index;
}

/**
 * Joins pieces whose ends meet within `tolerance` mm into chains, closing those that return to their start.
 * @param pieces open and closed chains in any order and direction
 * @param tolerance ends this near are taken as one point
 * @param bridge gaps up to this width are closed by a straight; 0 closes none
 */
export function joinChains(pieces: Chain[], tolerance: number, bridge = 0): Joined {
  const chains = pieces.filter((c) => c.closed);
  const open = pieces.filter((c) => !c.closed && c.vertices.length > 1);
  if (open.length === 0) return { chains, gaps: [], branches: [] };
  const used = new Uint8Array(open.length);
  const index = indexEnds(open);
  const reach = Math.max(tolerance, bridge);

  const nextAt = (p: Point): Chain | undefined => {
    const [hit] = index.neighbors(p.x, p.y, 1, reach, (i) => !used[i >> 1]);
    if (hit === undefined) return undefined;
    used[hit >> 1] = 1;
    const piece = open[hit >> 1];
    return hit % 2 === 0 ? piece : reversed(piece);
  };

  const loose: Chain[] = [];
  open.forEach((piece, i) => {
    if (used[i]) return;
    used[i] = 1;
    let chain: Chain = { closed: false, vertices: [...piece.vertices] };
    for (let side = 0; side < 2; side++) {
      const { vertices } = chain;
      while (vertices.length < 2 || distance(vertices[0], endOf(chain)) > tolerance) {
        const from = endOf(chain);
        const next = nextAt(from);
        if (!next) break;
        const to = next.vertices[0];
        if (distance(from, to) > tolerance) append(vertices, straight(from, to));
        append(vertices, next);
      }
      chain = reversed(chain);
    }
    const ended = close(chain, tolerance);
    if (ended.closed) chains.push(ended);
    else if (distance(chain.vertices[0], endOf(chain)) <= bridge) chains.push({ ...chain, closed: true });
    else loose.push(chain);
  });
  return { chains: [...chains, ...loose], gaps: gapsOf(loose), branches: branchesOf(open, index, tolerance) };
}

const straight = (a: Point, b: Point): Chain => ({
  closed: false,
  vertices: [
    { x: a.x, y: a.y, bulge: 0 },
    { x: b.x, y: b.y, bulge: 0 },
  ],
});

/** Places where more than two ends meet, each once. */
function branchesOf(open: Chain[], index: Flatbush, tolerance: number): Point[] {
  const found: Point[] = [];
  const seen = new Uint8Array(2 * open.length);
  open.forEach((chain, c) => {
    [chain.vertices[0], endOf(chain)].forEach(({ x, y }, side) => {
      if (seen[2 * c + side]) return;
      const ends = index.search(x - tolerance, y - tolerance, x + tolerance, y + tolerance);
      for (const end of ends) seen[end] = 1;
      if (ends.length > 2) found.push({ x, y });
    });
  });
  return found;
}

/** For every loose end the nearest other loose end. */
function gapsOf(loose: Chain[]): Gap[] {
  if (loose.length === 0) return [];
  const index = indexEnds(loose);
  const gaps: Gap[] = [];
  const told = new Set<string>();
  loose.forEach((chain, c) => {
    [chain.vertices[0], endOf(chain)].forEach((from, side) => {
      const self = c * 2 + side;
      const [other] = index.neighbors(from.x, from.y, 1, Infinity, (i) => i !== self);
      if (other === undefined) return;
      const key = [Math.min(self, other), Math.max(self, other)].join();
      if (told.has(key)) return;
      told.add(key);
      const target = loose[other >> 1];
      const to = other % 2 === 0 ? target.vertices[0] : endOf(target);
      gaps.push({ from: { x: from.x, y: from.y }, to: { x: to.x, y: to.y }, width: distance(from, to) });
    });
  });
  return gaps.sort((a, b) => a.width - b.width);
}
