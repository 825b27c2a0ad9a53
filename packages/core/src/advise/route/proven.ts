import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { withSetup } from '../../document/edit';
import { Job, Setup } from '../../document/job';
import type { BenchWork } from '../../plan/bench';
import { leavings } from '../../plan/leavings';
import type { RunFigures } from '../../plan/cost';
import { leftBefore } from '../../plan/prove';
import type { Piece } from '../../stock/height/height-stock';
import { Barred, Proposed, Told, proposeRoute } from './propose';
import { quicker } from './quicker';
import { Chosen, Proposal } from './step';
import { Known, TryBench, compared, setupOf, speaksAgainst, stillStands, tryOut } from './tried';

/** Proposals tried at most. */
const MOST_TRIES = 6;

/** A route, with what it takes and leaves. */
export interface ProvenRoute extends Proposal {
  /** One run of it; undefined where it has no program. */
  figures?: RunFigures;
  /** What it leaves for another setup; undefined where it has no program. */
  leaves(to: Setup): Piece | undefined;
}

/**
 * A route as {@link proposeRoute} finds it, planned and cut before it is shown: where a finding stands, the next tool takes
 * the place of the one it speaks against, as long as that makes it better; then it is made quicker; the one that is left is proved, and the
 * search goes on where that shows more; what took nothing away is left out. What still stands then is told with it.
 * @param known what earlier setups were found to be
 */
export function* provenSetup(job: Job, setupId: string, rack: Tool[], known: Known): BenchWork<ProvenRoute> {
  const bench: TryBench = { setupId, ...known };
  const advised: Told['advised'] = new Map();
  const propose = (told: Told) => proposeRoute(job, setupId, rack, { ...told, advised });
  let best = yield* tryOut(propose({}), bench, true);
  let barred: Barred[] = [];
  let chosen: Chosen[] = [];
  let tries = MOST_TRIES;
  for (const glance of [true, false]) {
    if (!glance) best = yield* tryOut(best.proposal, bench, glance, best);
    for (const open = speaksAgainst(best); tries > 1 && open.length > 0; tries--) {
      const more = [...barred, ...open.splice(0, 1)];
      const next = yield* tryOut(propose({ barred: more, chosen }), bench, glance, best);
      if (compared(next, best) >= 0) continue;
      [best, barred] = [next, more];
      open.splice(0, Infinity, ...speaksAgainst(best));
    }
    if (glance) ({ best, chosen } = yield* quicker(best, bench, (some) => propose({ barred, chosen: some })));
  }
  if (best.idle?.length) {
    const without = yield* tryOut(leftOut(best.proposal, setupId, best.idle), bench, false, best);
    if (compared(without, best) <= 0) best = without;
  }
  const { proposal, run, ground, figures } = best;
  return {
    job: proposal.job,
    missing: [...proposal.missing, ...stillStands(best)],
    figures,
    leaves: (to) => run && ground && leavings(proposal.job, ground, to, run.piece),
  };
}

/** A proposal without some of its operations. */
function leftOut(proposal: Proposed, setupId: string, ids: string[]): Proposed {
  const setup = setupOf(proposal.job, setupId);
  const operations = setup.operations.filter((o) => !ids.includes(o.id));
  return { ...proposal, job: withSetup(proposal.job, { ...setup, operations }) };
}

/** The same for a setup by itself: what earlier ones leave is worked out first. */
export function* provenRoute(job: Job, setupId: string, rack: Tool[] = TOOLS): BenchWork<Proposal> {
  const { left } = leftBefore(job, setupOf(job, setupId));
  const proven = yield* provenSetup(job, setupId, rack, { plans: new Map(), left });
  return { job: proven.job, missing: proven.missing };
}
