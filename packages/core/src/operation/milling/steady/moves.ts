import { fitOpenArcs } from '../../../geometry/plane/arcfit';
import { PathBuilder } from '../../../path/path';
import { Pass } from './walker';
import { maths } from '../../../quantity/maths';

/** Passes are rebuilt as arcs within this, mm. */
const FIT = 0.004;
/** Steps in which the feed is raised and lowered; few, so that the program does not change it at every block. */
const RAISES = [2, 1.6, 1.3, 1];
const SLOWS = [1, 0.8, 0.65, 0.5, 0.4, 0.3];
/** Metal that is so much wider than asked is cut at the full feed all the same. */
const WIDER = 1.2;
/** A stretch shorter than this share of the radius keeps the feed of what is around it. */
const SHORTEST = 0.5;

/** How feed follows the bite. */
export interface FeedRule {
  /** mm/min at the asked angle. */
  feed: number;
  /** Largest feed, mm/min. */
  most: number;
  /** Asked engaged angle, radians. */
  angle: number;
  /** Whether to raise it where the bite is lighter. */
  raise: boolean;
}

/** Share by which the feed may grow at an engaged angle so that the largest chip keeps its thickness: sin φ asked / sin φ. */
function raiseAt(engaged: number, rule: FeedRule): number {
  if (!rule.raise || engaged >= rule.angle) return 1;
  const asked = maths.sin(Math.min(rule.angle, Math.PI / 2));
  const most = Math.min(asked / Math.max(1e-6, maths.sin(engaged)), rule.most / rule.feed);
  return RAISES.find((r) => r <= most) ?? 1;
}

/**
 * Share of the feed where the metal before the cutter is wider than at the asked angle beside a wall of metal: at the end of a strip, or in
 * what stands amid the open, as much of the rim is engaged, but where teeth take most.
 */
function slowAt(across: number, radius: number, { angle }: FeedRule): number {
  const asked = WIDER * radius * (1 - maths.cos(angle));
  return across <= asked ? 1 : (SLOWS.find((s) => s * across <= asked) ?? SLOWS[SLOWS.length - 1]);
}

/** Lengths of a pass that share one feed; short ones take the lower feed of their neighbours. */
function feedRuns(
  { poses, engaged, across }: Pass,
  radius: number,
  rule: FeedRule,
): { from: number; to: number; raise: number }[] {
  const runs: { from: number; to: number; raise: number; length: number }[] = [];
  for (let i = 1; i < poses.length; i++) {
    const slow = slowAt(across[i], radius, rule);
    const raise = slow < 1 ? slow : raiseAt(engaged[i], rule);
    const length = maths.hypot(poses[i].x - poses[i - 1].x, poses[i].y - poses[i - 1].y);
    const last = runs[runs.length - 1];
    // A lower feed begins at once; a higher one only after the stretch before it is long enough to be worth it.
    if (last && (raise === last.raise || (raise > last.raise && last.length < SHORTEST * radius))) {
      last.to = i;
      last.length += length;
    } else if (last && raise < last.raise && last.length < SHORTEST * radius) {
      last.to = i;
      last.length += length;
      last.raise = raise;
    } else runs.push({ from: i - 1, to: i, raise, length });
  }
  return runs;
}

/** Follows a pass from its first pose, where the cutter must be, at height z. */
export function followPass(path: PathBuilder, pass: Pass, z: number, radius: number, rule: FeedRule): void {
  for (const { from, to, raise } of feedRuns(pass, radius, rule)) {
    const chain = fitOpenArcs(pass.poses.slice(from, to + 1), FIT);
    path.follow(chain, z, Math.min(rule.most, rule.feed * raise), 'cut');
  }
}
