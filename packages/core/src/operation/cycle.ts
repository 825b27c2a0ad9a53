import { CycleKind } from '../shop/controller';
import { DrillCycle } from './operation';
import { Path, PathBuilder } from '../path/path';

/** Gap above the last peck where rapid gives way to feed again, mm. */
const PECK_GAP = 0.5;
/** How far a chip-breaking peck backs off, mm. */
export const CHIP_BREAK = 0.3;
/** No peck gets shorter than this share of the first. */
const LEAST_PECK = 0.3;

/** Cycles that leave the hole at the feed they went in with. */
const FEEDS_OUT: CycleKind[] = ['ream', 'tap', 'tap-left'];

export const isTapping = (kind: CycleKind) => kind === 'tap' || kind === 'tap-left';

/**
 * Depths of the pecks from `start` down to `z`, the last exactly z. Equal, or each a share `lessen` less deep than the one before,
 * though never under 0.3 of the first.
 */
export function peckDepths(start: number, z: number, peck: number, lessen = 0): number[] {
  if (peck <= 0) return [z];
  const depths: number[] = [];
  let [at, step] = [start, peck];
  while (at - step > z + 1e-9) {
    depths.push((at -= step));
    step = Math.max(peck * LEAST_PECK, step * (1 - lessen));
  }
  return [...depths, z];
}

/** A cycle written out as moves, for the picture and for controls that lack it. */
export function expandCycle(cycle: DrillCycle): Path {
  const path = new PathBuilder();
  let level = cycle.clearance;
  for (const hole of cycle.holes) {
    path.rapid(hole.x, hole.y, level).rapid(hole.x, hole.y, cycle.start);
    const pecking = cycle.kind === 'peck' || cycle.kind === 'chip-break';
    const pecks = pecking ? peckDepths(cycle.start, hole.z, cycle.peck, cycle.lessen) : [hole.z];
    pecks.forEach((z, i) => {
      path.line(hole.x, hole.y, z, cycle.feed, 'cut');
      if (i === pecks.length - 1) return;
      if (cycle.kind === 'peck') path.rapid(hole.x, hole.y, cycle.start).rapid(hole.x, hole.y, z + PECK_GAP);
      else path.rapid(hole.x, hole.y, z + CHIP_BREAK);
    });
    if (FEEDS_OUT.includes(cycle.kind)) path.line(hole.x, hole.y, cycle.start, cycle.feed, 'cut');
    path.rapid(hole.x, hole.y, hole.hop);
    level = hole.hop;
  }
  return path.build();
}
