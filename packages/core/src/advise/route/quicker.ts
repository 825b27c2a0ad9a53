/** A route made quicker: other tools and other kinds of passes for the bulk of its features, planned and timed. */
import type { Operation } from '../../document/operation';
import type { BenchWork } from '../../plan/bench';
import type { Planned } from '../../plan/pipeline';
import { sectionAt } from '../../program/write/step';
import { hashOf } from '../../quantity/hash';
import { wholeTime } from '../../simulate/clock';
import { Proposed } from './propose';
import { Chosen } from './step';
import { Begun, Tried, TryBench, begin, compared, cut } from './tried';

/** Features whose bulk is looked at, those that take longest; with less than this share of the time one is not. */
const MOST_FEATURES = 3;
const LEAST_SHARE = 0.1;
/** What saves less than this share of the time is not worth another tool or kind. */
const WORTH = 0.015;
/** Routes of several changes that are planned whole. */
const MOST_WHOLE = 4;

/** A change with what a route takes with it, minutes. */
interface Timed {
  chosen: Chosen[];
  minutes: number;
}

const minutesOf = ({ run }: Pick<Begun, 'run'>): number => (run ? wholeTime(run.prover.clock) : Infinity);

/** Minutes a route spends on each feature. */
function minutesByFeature({ run, sections, setup }: Tried): Map<string, number> {
  const by = new Map<string, number>();
  if (!run) return by;
  const { motions } = run.read;
  const starts = [...sections].sort((a, b) => a.line - b.line);
  const targets = new Map(setup.operations.map((o) => [o.id, o.targets]));
  for (let i = 0; i < motions.count; i++) {
    const its = targets.get(starts[sectionAt(starts, motions.line[i])]?.operationId) ?? [];
    for (const id of its) by.set(id, (by.get(id) ?? 0) + run.prover.clock.seconds[i] / 60 / its.length);
  }
  return by;
}

/**
 * Tries other tools and other kinds of passes for the features that take longest, one by one, then what saved time together; the quickest
 * that is cut as well as what there was takes its place.
 * @param propose the route with some choices made
 */
export function* quicker(
  best: Tried,
  bench: TryBench,
  propose: (chosen: Chosen[]) => Proposed,
): BenchWork<{ best: Tried; chosen: Chosen[] }> {
  const now = minutesOf(best);
  const single = yield* timedOnes(best, bench, propose);
  const saving = single.filter((t) => t.minutes < (1 - WORTH) * now).sort((a, b) => a.minutes - b.minutes);
  const whole: Timed[] = [...saving.slice(0, 1)];
  for (const chosen of together(saving)) {
    const begun = yield* begin(propose(chosen), bench, true);
    whole.push({ chosen, minutes: minutesOf(begun) });
  }
  whole.sort((a, b) => a.minutes - b.minutes);
  for (const { chosen, minutes } of whole) {
    if (minutes >= (1 - WORTH) * now) break;
    const tried = yield* cut(yield* begin(propose(chosen), bench, true), best);
    // Planned whole it may take longer than it promised.
    if (compared(tried, best) <= 0 && minutesOf(tried) < (1 - WORTH) * now) return { best: tried, chosen };
  }
  return { best, chosen: [] };
}

/** The work of an operation, by whatever name it goes. */
const workOf = (o: Operation) => hashOf({ ...o, id: '', name: '', reason: undefined });

/** The plans of what does not work on a feature, as they are: what a change there does to others is seen once it is worth planning whole. */
function besides(feature: string, { plan }: Tried): (operation: Operation) => Planned | undefined {
  const others = plan.planned.filter(({ operation }) => !operation.targets.includes(feature));
  const byWork = new Map(others.map((p) => [workOf(p.operation), p]));
  return (operation) => {
    const known = byWork.get(workOf(operation));
    return known && { ...known, operation };
  };
}

/** What a route takes with each change by itself. */
function* timedOnes(best: Tried, bench: TryBench, propose: (chosen: Chosen[]) => Proposed): BenchWork<Timed[]> {
  const by = minutesByFeature(best);
  const longest = [...by]
    .filter(([, minutes]) => minutes > LEAST_SHARE * minutesOf(best))
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_FEATURES);
  const timed: Timed[] = [];
  for (const [feature] of longest)
    for (const other of best.proposal.others.filter((o) => o.feature === feature)) {
      const begun = yield* begin(propose([other]), bench, true, besides(feature, best));
      timed.push({ chosen: [other], minutes: minutesOf(begun) });
    }
  return timed;
}

/** Changes that saved time together: the best of each feature, those without one of them, and for each tool the best with it alone, so that a change of tools may be saved too. */
function together(saving: Timed[]): Chosen[][] {
  const all = bestOfEach(saving);
  const butOne = all.length > 2 ? all.map((_, i) => all.filter((_c, k) => k !== all.length - 1 - i)) : [];
  const tools = [...new Set(saving.map((t) => t.chosen[0].tool))];
  const alone = tools.map((tool) => bestOfEach(saving.filter((t) => t.chosen[0].tool === tool)));
  const sets = [all, ...butOne, ...alone].filter((set) => set.length > 1);
  const keys = sets.map((set) => JSON.stringify(set));
  return sets.filter((_, i) => keys.indexOf(keys[i]) === i).slice(0, MOST_WHOLE);
}

/** The change that saves most of each feature; those that save most come first. */
const bestOfEach = (saving: Timed[]): Chosen[] =>
  saving.map((t) => t.chosen[0]).filter((c, i, all) => all.findIndex((o) => o.feature === c.feature) === i);
