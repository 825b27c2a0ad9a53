/** What is computed of a run when it is logged: it stays with its entry, whatever becomes of tools and machines. */
import { cutState } from '../cutting/cut';
import { edgesLast } from '../cutting/edge-life';
import type { Job, Setup } from '../document/job';
import type { Machine } from '../machine/machine';
import { partsARun } from '../plan/batch';
import { Tool, formOf, isAxial } from '../shop/tool';
import type { ProofSummary } from '../release/release';
import type { Clock } from '../simulate/clock';
import { recipeOf } from './recipe';
import type { TimedRun } from './time';

/** What one part takes of the edge of a tool. */
export interface Use {
  tool: string;
  name: string;
  /** Share of a life as the tool's card says it, whatever was learnt since. */
  share: number;
  /** Ids of the operations it runs. */
  operations: string[];
}

/** Speed and chip of an operation as it was released. */
export interface RanCut {
  operation: string;
  tool: string;
  /** m/min. */
  speed: number;
  /** Largest chip, of a drill the feed a tooth, mm. */
  chip: number;
  /** Whether it is so narrow that it stands more speed than others: it says nothing of them. */
  light: boolean;
}

/** What is computed of a run. */
export interface Facts extends Omit<TimedRun, 'seconds'> {
  materialId: string;
  material: string;
  /** Names of the operations by their ids. */
  names: Record<string, string>;
  uses: Use[];
  cuts: RanCut[];
}

/** What of a run's time was computed, without what was learnt of its machine before. */
export function computedTime(
  { extraTime = 0, toolChangeSeconds }: Pick<Machine, 'extraTime' | 'toolChangeSeconds'>,
  { cut, rapid, dwell, toolChange }: Pick<Clock, 'cut' | 'rapid' | 'dwell' | 'toolChange'>,
): Omit<TimedRun, 'seconds'> {
  return {
    dwell: 60 * dwell,
    moves: (60 * (cut + rapid)) / (1 + extraTime),
    changes: toolChangeSeconds > 0 ? Math.round((60 * toolChange) / toolChangeSeconds) : 0,
  };
}

/** Bites of less than a quarter of the diameter are light. */
const LIGHT = 0.25;

function usesOf({ job, setup, wear }: Logged): Use[] {
  const parts = partsARun(setup);
  return wear.flatMap(({ tool: number, share }): Use[] => {
    const tool = job.tools.find((t) => t.number === number);
    if (!tool) return [];
    const operations = setup.operations.filter((o) => o.on && o.toolId === tool.id).map((o) => o.id);
    const whole = (share * edgesLast(tool, job.material)) / parts;
    return [{ tool: tool.id, name: tool.name, share: whole, operations }];
  });
}

const speedOf = (tool: Tool, rpm: number) => (Math.PI * tool.diameter * rpm) / 1000;

function cutsOf({ job, setup }: Logged): RanCut[] {
  return setup.operations.flatMap((operation): RanCut[] => {
    const tool = job.tools.find((t) => t.id === operation.toolId);
    const { rpm, feed } = operation.speeds;
    if (!operation.on || !tool || formOf(tool) === 'tap' || !(rpm > 0)) return [];
    const of = { operation: operation.id, tool: tool.id };
    if (isAxial(tool)) return [{ ...of, speed: speedOf(tool, rpm), chip: feed / rpm / tool.flutes, light: false }];
    const cut = recipeOf(job, setup, operation);
    if (!cut) return [];
    const { surfaceSpeed: speed, largestChip: chip } = cutState({ ...cut, tool });
    return [{ ...of, speed, chip, light: cut.ae < LIGHT * tool.diameter }];
  });
}

/** What was released and ran. */
export interface Logged {
  job: Job;
  setup: Setup;
  clock: Pick<Clock, 'cut' | 'rapid' | 'dwell' | 'toolChange'>;
  wear: ProofSummary['wear'];
}

/** What is computed of a run of a release. */
export const factsOfRun = (logged: Logged): Facts => ({
  ...computedTime(logged.job.machine, logged.clock),
  materialId: logged.job.material.id,
  material: logged.job.material.name,
  names: Object.fromEntries(logged.setup.operations.map((o) => [o.id, o.name])),
  uses: usesOf(logged),
  cuts: cutsOf(logged),
});
