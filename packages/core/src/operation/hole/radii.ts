import { Tool } from '../../shop/tool';
import { helixDown } from '../entry';
import { BiteOf, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { maths } from '../../quantity/maths';

/** A helix this wide, as a share of the cutter's radius, leaves no post in its middle. */
const NO_POST = 0.9;
/** Share of the flutes a finishing turn may drop. */
const FLUTE_SHARE = 0.8;
/** Slower than this share of the feed the centre is never fed. */
const LEAST_SHARE = 0.1;

/** How a round hole is milled out. */
export interface BoreWork {
  /** Slope of the helix, radians. */
  angle: number;
  /** How much wider each helix is than the one before, mm. */
  stepover: number;
  conventional: boolean;
  /** Metal left for the last, steep turns, mm, and how often they run. */
  finish?: { stock: number; turns: number };
}

/** Radii of the helices, mm: the first leaves no post, each further one bites at most `stepover`. */
export function boreRadii(final: number, cutter: number, stepover: number): number[] {
  const first = Math.min(final, cutter * NO_POST);
  const count = Math.ceil((final - first) / stepover - 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => (i === count ? final : first + ((final - first) * i) / count));
}

/** The bite of a helix into solid metal: as deep as it drops in a turn. */
export function helixBite(tool: Tool, angle: number): BiteOf {
  const drop = Math.PI * tool.diameter * NO_POST * maths.tan(angle);
  return { ae: tool.diameter, ap: Math.min(tool.fluteLength, drop), peakAe: tool.diameter };
}

/** Share of the feed at the centre of a path inside a wall, so that the edge at the wall moves at the asked feed: path / wall. */
export const centreShare = (radius: number, cutter: number) => Math.max(LEAST_SHARE, radius / (radius + cutter));

/**
 * Mills a round hole from the stock's top down to `bottom`: helices from the middle outwards, each with a level turn, then finish turns.
 * @param at centre of the hole and radius of the widest path, mm
 */
export function boreOut(
  path: PathBuilder,
  context: PlanContext,
  at: { x: number; y: number; radius: number },
  bottom: number,
  work: BoreWork,
): void {
  const { tool, top, operation, approach, clearance } = context;
  const { feed } = operation.speeds;
  const from = top + approach / 2;
  const turn = (radius: number, angle: number) => {
    if (path.z >= clearance || Number.isNaN(path.z)) path.rapid(at.x, at.y, clearance);
    path.rapid(at.x, at.y, from + approach / 2);
    path.line(at.x, at.y, from, feed, 'lead').line(at.x + radius, at.y, from, feed, 'lead');
    const centreFeed = feed * centreShare(radius, tool.diameter / 2);
    helixDown(path, { ...at, radius }, from, bottom, angle, work.conventional, centreFeed, 'cut');
    path.line(at.x, at.y, bottom, feed, 'lead').rapid(at.x, at.y, from + approach / 2);
  };
  const rough = work.finish ? Math.max(0.01, at.radius - work.finish.stock) : at.radius;
  for (const radius of boreRadii(rough, tool.diameter / 2, work.stepover)) turn(radius, work.angle);
  const drop = Math.min(top - bottom, tool.fluteLength * FLUTE_SHARE);
  for (let n = work.finish?.turns ?? 0; n > 0; n--) turn(at.radius, maths.atan(drop / (2 * Math.PI * at.radius)));
  path.rapid(path.x, path.y, clearance);
}
