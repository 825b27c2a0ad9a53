import { segmentMeetsBox } from '../../geometry/space/box';
import { Point, distance } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Hole, wallOf } from '../../part/plate/model';
import { holderWidth } from '../../shop/holder';
import { formOf, profileTop } from '../../shop/tool';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { expandCycle } from '../cycle';
import { plungeFeedOf } from '../entry';
import { HOP, HoleParams } from './hole-params';
import { CycleHole, DrillCycle, OperationKind, Plan, PlanContext } from '../operation';
import { shortTour } from '../ordering';
import { PathBuilder } from '../../path/path';

/** Diameters this near are the same, mm. */
export const SAME_SIZE = 0.02;
/** How far the diameter a tool makes may be off that of a hole, mm: no less than sizes are told apart by. */
export const offBy = ({ within = 0 }: Hole): number => Math.max(SAME_SIZE, within);
/** Room for the lead of a tap below a through hole, in pitches. */
const LEAD_ROOM = 4;
/** Room kept beside clamps on the way between holes, mm. */
const BESIDE_CLAMPS = 2;

/** The holes an operation works on. */
export function targetHoles({ model, targets }: Pick<PlanContext, 'model' | 'targets'>): Hole[] {
  const ids = new Set(targets.map((t) => t.id));
  return model.holes.filter((h) => ids.has(h.feature));
}

/** Z a hole is made to in its full diameter: where it was asked to end, else its own bottom, or below the part where it goes through. */
export const holeBottom = (hole: Hole, breakthrough: number, { end }: Pick<PlanContext, 'end'>): number =>
  end?.(hole.feature) ?? -hole.depth - (hole.through ? breakthrough : 0);

type Bottom = Point & { z: number };

/** Whether the way from one hole to the next, feeding height high, is free of clamps. */
function wayIsFree(a: Bottom, b: Bottom, height: number, { tool, fixtures, approach }: PlanContext): boolean {
  return fixtures.every((box) => {
    if (box.maxZ <= height - approach) return true;
    const wide = box.maxZ > height + tool.stickOut ? holderWidth(tool.holder) / 2 : tool.diameter / 2;
    const [from, to] = [a, b].map((p) => ({ ...p, z: height }));
    return !segmentMeetsBox(from, to, box, wide + BESIDE_CLAMPS);
  });
}

/** Orders holes into a short tour; between them the tool is lifted only as high as the way asks, or always clear of everything. */
export function tourWithHops(bottoms: Bottom[], start: number, low: boolean, context: PlanContext): CycleHole[] {
  const tour = shortTour(bottoms);
  return tour.map((hole, i) => {
    const next = tour[i + 1];
    const free = low && next && wayIsFree(hole, next, start, context);
    return { x: hole.x, y: hole.y, z: hole.z, hop: free ? start : context.clearance };
  });
}

/** Whether what ran before already opened a hole to its full width down to `z`, or through all of the stock, from either side or both. */
export function isOpened(
  hole: Hole,
  z: number,
  { earlier, top, bottom }: Pick<PlanContext, 'earlier' | 'top' | 'bottom'>,
): boolean {
  // How far down it is open from above, by its width and by the point of what opened it, and how far up from below.
  let [down, pierced, up] = [top, top, bottom];
  for (const { tool, path, below } of earlier) {
    const point = profileTop(tool);
    for (let i = 0; i < path.count; i++) {
      if (distance(hole.centre, { x: path.x[i], y: path.y[i] }) > hole.diameter / 2) continue;
      if (below) up = Math.max(up, path.z[i] - point);
      else [down, pierced] = [Math.min(down, path.z[i] + point), Math.min(pierced, path.z[i])];
    }
  }
  const isThrough = hole.through && down <= -hole.depth + 1e-6 && pierced <= Math.max(z, bottom) + 1e-6;
  return isThrough || down <= Math.max(z, up) + 1e-6;
}

/** Break-through of a drill or mill that leaves room for a thread's lead where one follows, mm. */
export const breakthroughFor = (holes: Hole[]) =>
  Math.max(0.5, ...holes.map((h) => LEAD_ROOM * (h.thread?.pitch ?? 0)));

/** What a tool that only sizes, threads or widens needs: a hole there before it. */
export const notOpened = (hole: Hole, { operation, tool }: PlanContext): Finding =>
  finding(
    'hole-not-made',
    { tool: tool.name, at: hole.centre, operation: operation.name },
    { operation: operation.id, feature: hole.feature, at: hole.centre },
  );

/** Most findings of one sort told for one operation; a pattern of holes shares its faults. */
const MOST_TOLD = 3;

/** How an operation makes its holes. */
export interface CycleWork {
  /** What it makes, where that is more than the holes it works on. */
  holes?: Hole[];
  cycle: Pick<DrillCycle, 'kind'> & Partial<Pick<DrillCycle, 'peck' | 'lessen' | 'dwell' | 'stops'>>;
  hop: HoleParams['hop'];
  /** Z of the tip in a hole. */
  bottom(hole: Hole): number;
  /** What speaks against a hole; one with a stop is left out. */
  faults(hole: Hole, z: number): Finding[];
  /** Whether the chips have to come up the flutes the whole way. */
  chips?: boolean;
}

/** Plans a cycle over the target holes; holes with a fault are told and left out, the rest is made. */
export function planCycle<P extends object>(kind: OperationKind<P>, context: PlanContext, work: CycleWork): Plan {
  const empty = new PathBuilder().build();
  const findings = [...toolFindings(context, kind.suits), ...targetFindings(context, kind.works)];
  const { holes = targetHoles(context) } = work;
  if (findings.some((f) => f.level === 'stop') || holes.length === 0) return { path: empty, findings };
  const told = new Map<string, number>();
  const good = holes.filter((hole) => {
    const found = work.faults(hole, work.bottom(hole));
    for (const f of found) {
      told.set(f.code, (told.get(f.code) ?? 0) + 1);
      if (told.get(f.code)! <= MOST_TOLD) findings.push(f);
    }
    return !found.some((f) => f.level === 'stop');
  });
  if (good.length === 0) return { path: empty, findings };
  const bottoms = good.map((hole) => ({ ...hole.centre, z: work.bottom(hole) }));
  const depth = context.top - Math.min(...bottoms.map((b) => b.z));
  const chips = Math.max(
    ...good.map((hole) => context.top - work.bottom(hole) - hole.depth + wallOf(hole, context.model)),
  );
  const reach = reachFindings(context, depth, work.chips ? Math.min(depth, chips) : 0).filter(
    (f) => f.level === 'stop',
  );
  if (reach.length > 0) return { path: empty, findings: [...findings, ...reach] };
  const start = context.top + context.approach;
  const cycle: DrillCycle = {
    peck: 0,
    lessen: 0,
    dwell: 0,
    stops: 'none',
    ...work.cycle,
    holes: tourWithHops(bottoms, start, work.hop === HOP, context),
    start,
    clearance: context.clearance,
    // A mill goes straight down as it enters.
    feed: formOf(context.tool) === 'mill' ? plungeFeedOf(context) : context.operation.speeds.feed,
  };
  return { path: expandCycle(cycle), cycle, findings };
}
