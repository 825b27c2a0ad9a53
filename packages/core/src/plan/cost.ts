/** What a part costs: metal, the machine, edges, energy, and its share of setting up; what is not known is said, and never counted as nothing. */
import { placesOfCopies } from '../document/copies';
import { Job, Setup } from '../document/job';
import { Wear } from '../judge/wear';
import { blanksOf, partsARun } from './batch';
import { beforeOf } from './ground';

/** One run of a setup’s program as its proof found it. */
export interface RunFigures {
  /** What is done by hand included. */
  minutes: number;
  wear: Wear[];
  kWh: number;
}

export const COST_LINES = ['metal', 'machining', 'reloading', 'edges', 'energy', 'setting up', 'scrap'] as const;
export type CostLine = (typeof COST_LINES)[number];

/** What one part of a batch costs. */
export interface Cost {
  batch: number;
  /** By what it is spent on, in money a part; left out where nothing of it is known. */
  lines: Partial<Record<CostLine, number>>;
  /** What is known of it together. */
  known: number;
  /** What is not known, in words; with nothing here the sum is the whole. */
  missing: string[];
}

/** Batches a price is told for, beside the one that is wanted. */
export const BREAKS = [1, 10, 100];

/** Minutes it takes to change an edge, where nothing else is said. */
export const EDGE_MINUTES = 3;

/** What a part costs in a setup alone, with what is missing. */
interface Share {
  lines: Partial<Record<CostLine, number>>;
  missing: string[];
}

function metalShare(job: Job, setup: Setup): Share {
  if (beforeOf(job, setup)) return { lines: {}, missing: [] };
  const price = blanksOf(job, setup)?.price;
  if (price === undefined) return { lines: {}, missing: [`the price of the metal of ${setup.name}`] };
  return { lines: { metal: price / placesOfCopies(setup).length }, missing: [] };
}

function runShare(job: Job, setup: Setup, run: RunFigures | undefined, batch: number): Share {
  const { machine, tools, prices = {} } = job;
  const { setUpMinutes, reloadMinutes } = setup;
  const parts = partsARun(setup);
  const perMinute = machine.hourlyRate / 60;
  const lines: Share['lines'] = {};
  const missing: string[] = [];
  // As everywhere in the shop, 0 is what nobody has said.
  if (!setUpMinutes) missing.push('the minutes to set up');
  else if (perMinute > 0) lines['setting up'] = (setUpMinutes * perMinute) / batch;
  if (!reloadMinutes) missing.push('the minutes to reload');
  else if (perMinute > 0) lines.reloading = (reloadMinutes * perMinute) / parts;
  if (!run) return { lines, missing: [...missing, `a proof of ${setup.name}`] };
  if (perMinute > 0) lines.machining = (run.minutes * perMinute) / parts;
  const change = (prices.edgeMinutes ?? EDGE_MINUTES) * perMinute;
  for (const { tool: number, share } of run.wear) {
    const tool = tools.find((t) => t.number === number);
    if (tool && tool.edgePrice > 0) lines.edges = (lines.edges ?? 0) + (share * (tool.edgePrice + change)) / parts;
    else missing.push(`the price of an edge of ${tool?.name ?? `T${number}`}`);
  }
  if (prices.energy) lines.energy = (run.kWh * prices.energy) / parts;
  return { lines, missing };
}

/**
 * What a part costs in a batch.
 * @param runs of each setup that is proved, by its id
 * @param batch how many parts are made, 1 or more
 * @param setups those that are counted
 */
export function costOf(
  job: Job,
  runs: ReadonlyMap<string, RunFigures>,
  batch = job.batch ?? 1,
  setups = job.setups,
): Cost {
  const { machine, prices = {} } = job;
  const shares = setups.flatMap((s) => [metalShare(job, s), runShare(job, s, runs.get(s.id), batch)]);
  const missing = new Set([
    ...(machine.hourlyRate > 0 ? [] : [`the hourly rate of ${machine.name}`]),
    ...shares.flatMap((s) => s.missing),
    ...(prices.energy ? [] : ['the price of energy']),
  ]);
  const lines: Cost['lines'] = {};
  for (const share of shares)
    for (const [line, amount] of Object.entries(share.lines) as [CostLine, number][])
      lines[line] = (lines[line] ?? 0) + amount;
  const sum = () => Object.values(lines).reduce((a, b) => a + b, 0);
  // Of those that are spoiled each good part pays its share.
  if (prices.scrap) lines.scrap = (sum() * prices.scrap) / (1 - prices.scrap);
  return { batch, lines, known: sum(), missing: [...missing] };
}

/** The same for each of the usual batches, and the one that is wanted. */
export const priceBreaks = (job: Job, runs: ReadonlyMap<string, RunFigures>, setups = job.setups): Cost[] =>
  [...new Set([...BREAKS, job.batch ?? 1])].sort((a, b) => a - b).map((batch) => costOf(job, runs, batch, setups));
