import { Gauge, gaugesOf } from '../cutting/gauges';
import { Departure, departure } from '../cutting/departure';
import { Alternatives, Lift, lifts } from '../cutting/lift';
import type { Bend } from '../cutting/cut';
import { bendLimit } from '../cutting/limits';
import { suggest } from '../cutting/suggest';
import { Suggestion } from '../cutting/suggestion';
import { Machine } from '../machine/machine';
import { motionsOf } from '../path/motions';
import { Path, RAPID, TAGS } from '../path/path';
import { clock, clockSettings } from '../simulate/clock';
import { Operation } from '../document/operation';
import { isBeam } from '../shop/tool';
import { kindOf } from '../operation/registry';
import { cutIn, deepOf, situationOf } from './situation';
import { Job } from '../document/job';

/** What an operation's values mean for the cut, worked out at once while someone types. */
export interface Insight {
  gauges: Gauge[];
  suggestion: Suggestion;
  departure: Departure;
  /** How far its tool may bend. */
  bend: Bend;
  /** How far it goes down in all, mm, where that is known beforehand. */
  deep: number | undefined;
}

/** The setup an operation stands in. */
export const setupWith = (job: Job, { id }: Operation) =>
  job.setups.find((s) => s.operations.some((o) => o.id === id)) ?? job.setups[0];

/** Gauges and suggestion of an operation; undefined where its tool or kind is missing. */
export function insightOf(job: Job, operation: Operation): Insight | undefined {
  const kind = kindOf(operation.kind);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  if (!kind || !tool || isBeam(tool)) return undefined;
  const setup = setupWith(job, operation);
  const bite = cutIn(job, setup, kind, tool, operation);
  const { rpm, feed } = operation.speeds;
  const situation = situationOf(job, tool, bite);
  const suggestion = suggest(situation);
  return {
    gauges: gaugesOf({ tool, material: job.material, machine: job.machine, rpm, feed, ...bite }, job.unit),
    suggestion,
    departure: departure(situation, suggestion, operation.speeds),
    bend: bendLimit(situation),
    deep: deepOf(job, setup, kind, operation),
  };
}

/** What would let an operation run faster, with what the shop has. */
export function liftsOf(job: Job, operation: Operation, shop: Alternatives): Lift[] {
  const kind = kindOf(operation.kind);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  if (!kind || !tool || isBeam(tool)) return [];
  return lifts(situationOf(job, tool, cutIn(job, setupWith(job, operation), kind, tool, operation)), shop);
}

/** How long an operation runs as it was planned, minutes by what limits them: its feed, its entry feed, the machine; and those feeds. */
export interface PathMinutes {
  cut: number;
  entry: number;
  rapid: number;
  feed: number;
  entryFeed: number;
}

/** Minutes of a planned path by the clock of the proof, acceleration included, a change of tools before it where there is one. */
export function pathMinutes(path: Path, { speeds }: Operation, machine: Machine, changesTool: boolean): PathMinutes {
  const { seconds } = clock(motionsOf(path), clockSettings(machine));
  const { feed, entryFeed } = speeds;
  const minutes = { cut: 0, entry: 0, rapid: changesTool ? machine.toolChangeSeconds / 60 : 0, feed, entryFeed };
  for (let i = 1; i < path.count; i++) {
    const isRapid = path.kind[i] === RAPID;
    minutes[isRapid ? 'rapid' : TAGS[path.tag[i]] === 'entry' ? 'entry' : 'cut'] += seconds[i] / 60;
  }
  return minutes;
}

/** The same at other feeds, at once: what a feed limits goes with it; exact again when it is planned anew. */
export const estimateMinutes = (planned: PathMinutes, { speeds }: Operation): number =>
  (planned.cut * planned.feed) / speeds.feed + (planned.entry * planned.entryFeed) / speeds.entryFeed + planned.rapid;
