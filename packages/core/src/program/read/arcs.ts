import { Finding, finding } from '../../quantity/finding';
import { chordCount } from '../../geometry/plane/chain';
import { maths } from '../../quantity/maths';

/** Start and end of an arc may lie this far off its circle before it is reported, mm. */
const ARC_SLACK = 0.01;
/** And this share of its radius besides. */
const ARC_SHARE = 0.001;
const FLAT_TOLERANCE = 0.001;

/** Start and end in the two axes of the plane, mm. */
export type ArcEnds = [u0: number, v0: number, u1: number, v1: number];

/** One of the two centres a radius leaves; a negative one means the longer way round. */
function byRadius([u0, v0, u1, v1]: ArcEnds, r: number, clockwise: boolean): [number, number] | Finding {
  const radius = Math.abs(r);
  const chord = maths.hypot(u1 - u0, v1 - v0);
  if (chord < 1e-9 || chord > 2 * radius + ARC_SLACK) return finding('arc-radius-too-small', { radius, chord });
  const h = Math.sqrt(Math.max(0, radius * radius - (chord * chord) / 4));
  const side = (clockwise ? -1 : 1) * (r < 0 ? -1 : 1);
  return [(u0 + u1) / 2 - ((v1 - v0) / chord) * h * side, (v0 + v1) / 2 + ((u1 - u0) / chord) * h * side];
}

/**
 * Centre of an arc in its plane, mm.
 * @param given I and J from the start, or R where neither is there, mm
 * @returns the centre, or why there is none: ends too far apart for R, or not on one circle about I and J
 */
export function centreOf(
  ends: ArcEnds,
  { i, j, r }: { i?: number; j?: number; r?: number },
  clockwise: boolean,
): [number, number] | Finding {
  if (r !== undefined && i === undefined && j === undefined) return byRadius(ends, r, clockwise);
  const [u0, v0, u1, v1] = ends;
  const centre: [number, number] = [u0 + (i ?? 0), v0 + (j ?? 0)];
  const radius = maths.hypot(i ?? 0, j ?? 0);
  const off = Math.abs(maths.hypot(u1 - centre[0], v1 - centre[1]) - radius);
  if (radius >= 1e-6 && off <= ARC_SLACK + ARC_SHARE * radius) return centre;
  return finding('arc-impossible', { off });
}

/** An arc as chords within a micrometre: where each ends, mm, and its share of the way. */
export function chords(
  [u0, v0, u1, v1]: ArcEnds,
  [cu, cv]: [number, number],
  sweep: number,
): [number, number, number][] {
  const radius = maths.hypot(u0 - cu, v0 - cv);
  const start = maths.atan2(v0 - cv, u0 - cu);
  const n = chordCount(radius, sweep, FLAT_TOLERANCE);
  return Array.from({ length: n }, (_, k) => {
    const share = (k + 1) / n;
    const angle = start + sweep * share;
    return k + 1 === n ? [u1, v1, 1] : [cu + radius * maths.cos(angle), cv + radius * maths.sin(angle), share];
  });
}
