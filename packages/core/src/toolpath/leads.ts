import { Chain, startDirection } from '../geometry/chain';
import { Point } from '../geometry/point';
import { PathBuilder } from './path';

/** Quarter circles that meet a closed chain at its first point without a mark: one onto it, one off it. */
export interface Lead {
  centre: Point;
  from: Point;
  to: Point;
  clockwise: boolean;
}

const LEAST_RADIUS = 0.1;

function quarterArcs(chain: Chain, radius: number, side: 'left' | 'right'): Lead {
  const d = startDirection(chain);
  const turn = side === 'left' ? 1 : -1;
  const start = chain.vertices[0];
  const centre = { x: start.x - d.y * radius * turn, y: start.y + d.x * radius * turn };
  return {
    centre,
    from: { x: centre.x - d.x * radius, y: centre.y - d.y * radius },
    to: { x: centre.x + d.x * radius, y: centre.y + d.y * radius },
    clockwise: side === 'right',
  };
}

/** Ends and middles of both quarter circles, which meet at `touch`. */
const pointsOf = ({ centre, from, to }: Lead, touch: Point): Point[] => [
  from,
  to,
  middle(centre, from, touch),
  middle(centre, to, touch),
];

/** The point of a circle half way between two of its points a quarter apart. */
const middle = (c: Point, p: Point, q: Point): Point => ({
  x: c.x + (p.x + q.x - 2 * c.x) * Math.SQRT1_2,
  y: c.y + (p.y + q.y - 2 * c.y) * Math.SQRT1_2,
});

/**
 * The largest lead up to `radius` mm, on the free side of the chain, all of whose points pass `isFree`.
 * Halved until it fits; undefined when even 0.1 mm does not.
 */
export function leadFor(
  chain: Chain,
  radius: number,
  side: 'left' | 'right',
  isFree: (p: Point) => boolean,
): Lead | undefined {
  for (let r = radius; r >= LEAST_RADIUS; r /= 2) {
    const lead = quarterArcs(chain, r, side);
    if (pointsOf(lead, chain.vertices[0]).every(isFree)) return lead;
  }
  return undefined;
}

/** Along the lead onto the chain's first point, round the chain, and off again, all at height z. */
export function followWithLead(path: PathBuilder, chain: Chain, lead: Lead, z: number, feed: number): void {
  const start = chain.vertices[0];
  path.arc(lead.centre.x, lead.centre.y, start.x, start.y, z, lead.clockwise, feed, 'lead');
  path.follow(chain, z, feed, 'cut');
  path.arc(lead.centre.x, lead.centre.y, lead.to.x, lead.to.y, z, lead.clockwise, feed, 'lead');
}
