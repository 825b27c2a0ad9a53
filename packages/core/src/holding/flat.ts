import { Region } from '../geometry/plane/clip';
import { Point, distance } from '../geometry/plane/point';

/** A straight piece of an outline. */
export interface Flat {
  from: Point;
  to: Point;
  /** Into the metal, of length 1. */
  into: Point;
  long: number;
}

/** A straight piece is a flat where it is so many times longer than the next longest of its kind, and longer than this, mm. */
const LONGEST = { times: 3, mm: 3 };

/** The one flat of an outline that is round otherwise; undefined where it has none, or several. */
export function longestFlat(outline: Region): Flat | undefined {
  const pieces = outline
    .flatMap((ring) => ring.map((from, i) => ({ from, to: ring[(i + 1) % ring.length] })))
    .map((p) => ({ ...p, long: distance(p.from, p.to) }))
    .sort((a, b) => b.long - a.long);
  const [longest, next] = pieces;
  if (!longest || longest.long < LONGEST.mm || (next && longest.long < LONGEST.times * next.long)) return undefined;
  const { from, to, long } = longest;
  return { ...longest, into: { x: -(to.y - from.y) / long, y: (to.x - from.x) / long } };
}
