import { DrillCycle } from './operation';
import { Path, PathBuilder } from './path';

/** Gap above the last peck where rapid gives way to feed again, mm. */
const PECK_GAP = 0.5;
/** How far a chip-breaking peck backs off, mm. */
export const CHIP_BREAK = 0.3;

/** Depths of the pecks from `start` down to `z`, the last exactly z. */
export function peckDepths(start: number, z: number, peck: number): number[] {
  if (peck <= 0) return [z];
  const count = Math.max(1, Math.ceil((start - z) / peck - 1e-9));
  return Array.from({ length: count }, (_, i) => (i === count - 1 ? z : start - peck * (i + 1)));
}

/** A drilling cycle written out as moves, for the picture and for controls without canned cycles. */
export function expandCycle(cycle: DrillCycle): Path {
  const path = new PathBuilder();
  for (const hole of cycle.holes) {
    path.rapid(hole.x, hole.y, cycle.clearance).rapid(hole.x, hole.y, cycle.start);
    const pecks =
      cycle.kind === 'peck' || cycle.kind === 'chip-break' ? peckDepths(cycle.start, hole.z, cycle.peck) : [hole.z];
    pecks.forEach((z, i) => {
      path.line(hole.x, hole.y, z, cycle.feed, 'cut');
      if (i === pecks.length - 1) return;
      if (cycle.kind === 'peck') path.rapid(hole.x, hole.y, cycle.start).rapid(hole.x, hole.y, z + PECK_GAP);
      else path.rapid(hole.x, hole.y, z + CHIP_BREAK);
    });
    path.rapid(hole.x, hole.y, cycle.clearance);
  }
  return path.build();
}
