import { care, note } from './words';

const CURES: Record<string, string> = {
  size: 'Measure the first part of each run, and follow its size on the page of the release',
  finish: 'Look at what was seen of its cuts; less bite or another speed may be quiet',
  'broken tool': 'Look at the load where it broke, and check the tool at a stop before the next one needs its hole',
  'wrong zero or length': 'Go through the checklist before the first part of each run',
  'came loose': 'Look at the clamping force on the Hold page',
  material: 'Keep apart what came from the same bar, and ask where it is from',
  other: 'Say in the log what it was',
};

/** What the log of runs has to tell. */
export const LOG = {
  'log-slow': care<{ job: string; setup: string; runs: number; least: number; computed: number }>(
    (d, say) =>
      `“${d.job}, ${d.setup}” took ${say.number(d.least / 60, 1)} min and more in the last ${d.runs} runs, for ${say.number(d.computed / 60, 1)} min computed`,
    'Look what holds it up: an override, waiting at stops, or moves that take longer than the page of the machine says',
  ),
  'log-scrap': care<{ job: string; setup: string; cause: string; scrapped: number; parts: number; days: number }>(
    (d) =>
      `Of ${d.parts} parts of “${d.job}, ${d.setup}” in ${d.days} days ${d.scrapped} were scrapped for one cause: ${d.cause}`,
    (d) => CURES[d.cause] ?? CURES.other,
  ),
  'log-edge-ends': care<{ tool: string; share: number }>(
    (d, say) => `The edge of ${d.tool} has used ${say.number(100 * d.share, 0)} % of its life (estimate)`,
    'Look at it before the next part; where it is changed, log that with the run',
  ),
  'log-edges-used': note<{ tool: string; edges: number; days: number }>(
    (d, say) => `In ${d.days} days ${say.number(d.edges, 1)} edges of ${d.tool} were used (estimate)`,
    (d) => `See that ${Math.ceil(d.edges)} are there for the next ${d.days}, or order them`,
  ),
};
