import { fitArcs } from '../geometry/arcfit';
import { reversed, startedOnLongest } from '../geometry/chain';
import { Region, Ring, contains } from '../geometry/clip';
import { Point } from '../geometry/point';
import { Finding, note } from '../quantity/finding';
import { followWithLead, leadFor, quarter } from './leads';
import { PlanContext } from './operation';
import { PathBuilder } from './path';

const GAP = 1;
/** Laps are rebuilt from chords as true arcs within this, mm. */
const FIT = 0.002;

/**
 * One lap along each ring of the centre's free region, at height z, led on and off by arcs where there is room.
 * @param free where the centre may go
 * @param rings those of its rings that run along walls; the metal lies on their right
 */
export function finishLaps(
  path: PathBuilder,
  { tool, operation, top, clearance }: PlanContext,
  feature: { id: string },
  free: Region,
  rings: Ring[],
  z: number,
  conventional: boolean,
): Finding[] {
  const { feed, entryFeed } = operation.speeds;
  const findings: Finding[] = [];
  const isFree = (p: Point) => contains(free, p);
  const retract = () => path.z < clearance && path.rapid(path.x, path.y, clearance);
  for (const ring of rings) {
    const fitted = fitArcs(ring, FIT);
    const chain = startedOnLongest(conventional ? reversed(fitted) : fitted);
    const lead = leadFor(chain, quarter(tool.diameter / 4), conventional ? 'right' : 'left', isFree);
    const at = lead?.on.vertices[0] ?? chain.vertices[0];
    retract();
    path.rapid(at.x, at.y, clearance).rapid(at.x, at.y, top + GAP);
    path.line(at.x, at.y, z, lead ? feed : entryFeed, lead ? 'lead' : 'entry');
    if (lead) followWithLead(path, chain, lead, z, feed);
    else {
      path.follow(chain, z, feed, 'cut');
      findings.push(
        note(
          'no-lead',
          'There is no room to lead onto a wall; the finish lap starts on it',
          'A smaller tool leaves room',
          { operation: operation.id, feature: feature.id, at: { x: at.x, y: at.y } },
        ),
      );
    }
  }
  retract();
  return findings;
}
