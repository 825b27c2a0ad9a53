import { Chain, flatten, reversed, startDirection } from '../../geometry/plane/chain';
import { Point } from '../../geometry/plane/point';
import { radians } from '../../quantity/units';
import { PathBuilder } from '../../path/path';
import { maths } from '../../quantity/maths';

/** How a path comes onto a wall and leaves it. */
export interface LeadForm {
  /** An arc that touches the wall, a straight at an angle to it, or the wall's own line drawn longer. */
  form: 'arc' | 'line' | 'tangent';
  /** Radius of the arc or length of the straight, mm. */
  size: number;
  /** Sweep of the arc, or angle of the straight to the wall, degrees. */
  angle: number;
  /** Straight before the arc, mm: room for a control to take up its compensation. */
  straight?: number;
}

/** Open chains onto a path's first point and off its last. */
export interface Lead {
  on: Chain;
  off: Chain;
}

const LEAST = 0.1;
/** Straight before and after a lead on which the control takes up its compensation, mm. */
export const TAKE_UP = 2;

/** A quarter circle with a straight before it, for the wear to be taken up on. */
export const wearing = (size: number): LeadForm => ({ ...quarter(size), straight: TAKE_UP });

/** A quarter circle. */
export const quarter = (size: number): LeadForm => ({ form: 'arc', size, angle: 90 });

const turned = (d: Point, by: number): Point => ({
  x: d.x * maths.cos(by) - d.y * maths.sin(by),
  y: d.x * maths.sin(by) + d.y * maths.cos(by),
});

const back = (p: Point, d: Point, length: number): Point => ({ x: p.x - d.x * length, y: p.y - d.y * length });

/** The way onto `at`, arriving from the side of `turn` (1 left, −1 right) and, at the end of an arc, heading `d`. */
function approach(at: Point, d: Point, turn: number, { form, size, angle, straight }: LeadForm): Chain {
  const end = { x: at.x, y: at.y, bulge: 0 };
  const by = form === 'tangent' ? 0 : radians(angle) * turn;
  const heading = turned(d, -by);
  if (form !== 'arc') return { closed: false, vertices: [{ ...back(at, heading, size), bulge: 0 }, end] };
  const centre = { x: at.x - d.y * size * turn, y: at.y + d.x * size * turn };
  const out = turned({ x: at.x - centre.x, y: at.y - centre.y }, -by);
  const start = { x: centre.x + out.x, y: centre.y + out.y, bulge: maths.tan(by / 4) };
  const before = straight ? [{ ...back(start, heading, straight), bulge: 0 }] : [];
  return { closed: false, vertices: [...before, start, end] };
}

/**
 * The largest lead up to the asked size on the free side of a chain, every point of which passes `isFree`. Halved until it fits;
 * undefined when even 0.1 mm does not.
 */
export function leadFor(
  chain: Chain,
  form: LeadForm,
  side: 'left' | 'right',
  isFree: (p: Point) => boolean,
): Lead | undefined {
  const turn = side === 'left' ? 1 : -1;
  const { vertices, closed } = chain;
  const run: Chain = { closed: false, vertices: closed ? [...vertices, { ...vertices[0], bulge: 0 }] : vertices };
  const [first, last] = [vertices[0], run.vertices[run.vertices.length - 1]];
  const [d, e] = [startDirection(run), startDirection(reversed(run))];
  const free = (lead: Chain) => flatten(lead, 0.05).slice(0, -1).every(isFree);
  for (let size = form.size; size >= LEAST; size /= 2) {
    const on = approach(first, d, turn, { ...form, size });
    const off = approach(last, e, -turn, { ...form, size });
    if (free(on) && free(off)) return { on, off: reversed(off) };
  }
  return undefined;
}

/**
 * Along the lead onto a chain's first point, along the chain, and off again, all at height z.
 * @param wear side of the path on which the control takes up the wear of the cutter; the lead then begins and ends straight
 */
export function followWithLead(
  path: PathBuilder,
  chain: Chain,
  lead: Lead,
  z: number,
  feed: number,
  wear?: 'left' | 'right',
): void {
  if (wear) path.compensate(wear);
  path.follow(lead.on, z, feed, 'lead').follow(chain, z, feed, 'cut');
  if (wear) leaveCompensated(path, lead.off, z, feed);
  else path.follow(lead.off, z, feed, 'lead');
}

/** Off a wall, compensation switched off on the last piece, a straight. */
export function leaveCompensated(path: PathBuilder, { vertices }: Chain, z: number, feed: number): void {
  const last = vertices.length - 1;
  path.follow({ closed: false, vertices: vertices.slice(0, last) }, z, feed, 'lead');
  path.compensate('off').line(vertices[last].x, vertices[last].y, z, feed, 'lead');
}
