import { arcOf, Chain, chainLength, pieceLength, pieces } from '../geometry/plane/chain';
import { helixDrop } from '../cutting/holes';
import { plungeFeed } from '../cutting/limits';
import { PathBuilder, Tag } from '../path/path';
import type { Means, PlanContext } from './operation';
import { maths } from '../quantity/maths';

/** Feed straight down into metal: the entry feed, and no more than the spindle bears with the whole end cutting, mm/min. */
export function plungeFeedOf({ operation, tool, material, machine }: Means & Pick<PlanContext, 'operation'>): number {
  const { rpm, entryFeed } = operation.speeds;
  return Math.min(entryFeed, Math.max(1, Math.floor(plungeFeed(tool, material, machine, rpm))));
}

/** Down a helix about (x, y), counterclockwise for climb, then one level turn; ends at the angle it started, at `z`. */
export function helixDown(
  path: PathBuilder,
  at: { x: number; y: number; radius: number },
  from: number,
  z: number,
  angle: number,
  clockwise: boolean,
  feed: number,
  tag: Tag = 'entry',
): void {
  const drop = helixDrop(2 * at.radius, angle);
  const turns = Math.max(1, Math.ceil((from - z) / drop));
  const right = at.x + at.radius;
  const left = at.x - at.radius;
  for (let i = 0; i < turns * 2; i++) {
    const level = from - ((from - z) * (i + 1)) / (turns * 2);
    path.arc(at.x, at.y, i % 2 === 0 ? left : right, at.y, i === turns * 2 - 1 ? z : level, clockwise, feed, tag);
  }
  path.arc(at.x, at.y, left, at.y, z, clockwise, feed, tag);
  path.arc(at.x, at.y, right, at.y, z, clockwise, feed, tag);
}

/**
 * Down along a closed chain from its first point, no steeper than `angle` (radians); ends at its first point at `z`.
 * @param most how deep it may cut in a lap, mm: the longer the chain, the deeper it would, and at full width
 */
export function rampDown(
  path: PathBuilder,
  chain: Chain,
  from: number,
  z: number,
  angle: number,
  feed: number,
  most = Infinity,
): void {
  const length = chainLength(chain);
  const drop = Math.min(most, length * maths.tan(angle));
  const laps = Math.max(1, Math.ceil((from - z) / drop - 1e-9));
  const total = laps * length;
  let gone = 0;
  for (let lap = 0; lap < laps; lap++) {
    for (const { a, b, bulge } of pieces(chain)) {
      gone += pieceLength(a, b, bulge);
      const level = gone >= total - 1e-9 ? z : from - ((from - z) * gone) / total;
      if (bulge === 0) path.line(b.x, b.y, level, feed, 'entry');
      else {
        const { centre } = arcOf(a, b, bulge);
        path.arc(centre.x, centre.y, b.x, b.y, level, bulge < 0, feed, 'entry');
      }
    }
  }
}
