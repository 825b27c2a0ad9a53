/** Ways to do the same work held against each other. */
import {
  COMPARED_AT,
  Compared,
  ComparedAt,
  Comparison,
  Job,
  Outcome,
  Setup,
  canCompare,
  compare,
  costInBatch,
  countedIn,
  formatTime,
  leftOutBy,
  newComparison,
  verdictText,
  withOffered,
} from '@tidypath/core';
import { UsageError, loadJob, numberOption, oneOf, parse, pickSetup, print } from './files';

/** What `--at` takes. */
const AT: Record<string, ComparedAt> = { 'as-set': COMPARED_AT[0], same: COMPARED_AT[1], best: COMPARED_AT[2] };

/** The first operation that clears a feature, and in which setup. */
function clearing(job: Job, feature: string, asked: string | undefined): { setup: Setup; operation: string } {
  const setups = asked ? [pickSetup(job, asked)] : job.setups;
  for (const setup of setups) {
    const found = setup.operations.find((o) => canCompare(o) && o.targets.includes(feature));
    if (found) return { setup, operation: found.id };
  }
  const known = job.part.features.some((f) => f.id === feature);
  throw new UsageError(known ? `No operation clears ${feature}` : `The part has no feature “${feature}”`);
}

function done<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

const ways = ({ candidates }: Comparison) => new Map(candidates.map((c) => [c.id, c.name]));

/** A candidate as a script reads it. */
const listed = (
  name: string | undefined,
  { machine, batch = 1 }: Job,
  { id, figures, whole, priced, findings, watched }: Outcome,
) => ({
  ...{ id, name, figures, whole },
  cost: priced && costInBatch(priced, machine.hourlyRate, batch),
  ...{ findings, watched },
});

function told({ outcomes, verdict, missing }: Compared, comparison: Comparison, job: Job): void {
  const names = ways(comparison);
  const rate = job.machine.hourlyRate;
  const { batch = 1 } = job;
  for (const o of outcomes) {
    const { figures, priced } = o;
    const against = o.findings.find((f) => f.level === 'stop');
    const why = against?.message ?? leftOutBy(o, comparison);
    print(
      figures && priced
        ? `${names.get(o.id)}: ${formatTime(figures.minutes.total)}, ${costInBatch(priced, rate, batch).toFixed(2)} a part, load ${Math.round(100 * figures.load.peak)} %, ${figures.spikes.count} spikes${why ? `; ${why}` : ''}`
        : `${names.get(o.id)}: cannot be cut; ${why ?? 'it has no program'}`,
    );
  }
  const priced = countedIn(outcomes, comparison);
  if (verdict) verdictText(verdict, priced, rate, (id) => names.get(id) ?? id, batch).forEach(print);
  if (missing.length > 0) print(`Not counted, as it is not known: ${missing.join(', ')}.`);
}

/** `compare JOB`: ways to clear a feature. */
export function compareCommand(args: string[]): number {
  const { positionals, values } = parse(args, {
    ...{ feature: { type: 'string' }, setup: { type: 'string' }, batch: { type: 'string' } },
    ...{ at: { type: 'string' }, json: { type: 'boolean' } },
  });
  if (!values.feature) throw new UsageError('Name the feature with --feature');
  const at = AT[oneOf(values.at, 'at', Object.keys(AT)) ?? 'best'];
  const batch = numberOption(values.batch, 'batch', 1, 1_000_000);
  const read = loadJob(positionals[0]);
  if (!read) return 1;
  const job = batch ? { ...read, batch: Math.round(batch) } : read;
  const { setup, operation } = clearing(job, values.feature, values.setup);
  const comparison = withOffered(job, newComparison(job, setup, [operation]));
  const found = done(compare(job, comparison, at));
  if (values.json) {
    const names = ways(comparison);
    const { outcomes, verdict, missing } = found;
    const candidates = outcomes.map((o) => listed(names.get(o.id), job, o));
    print(JSON.stringify({ at, candidates, verdict, missing }, null, 2));
  } else told(found, comparison, job);
  return found.verdict ? 0 : 1;
}
