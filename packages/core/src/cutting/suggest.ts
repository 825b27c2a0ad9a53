import { formatNumber } from '../quantity/units';
import { Machine } from '../shop/machine';
import { Material } from '../shop/material';
import { Tool, isDrill } from '../shop/tool';
import { CutInput, RUBBING, atPeak, cutState, cuttingDiameter } from './cut';
import { DEFLECTION_LIMIT, POWER_SHARE } from './gauges';
import { chipLoadFor, engagement, feedRate, spindleSpeed } from './milling';

/** One step of the arithmetic behind a suggested number. */
export interface Working {
  what: string;
  formula: string;
  result: string;
  source: string;
}

export type Limit = 'range' | 'spindle speed' | 'machine feed' | 'spindle power' | 'deflection' | 'rubbing';

export interface Suggestion {
  rpm: number;
  /** mm/min. */
  feed: number;
  /** mm/min for plunges, ramps and helices. */
  entryFeed: number;
  limit: Limit;
  /** The limit in a sentence, with the way out. */
  limitText: string;
  working: Working[];
}

/** Where in a range a first cut starts: 0 careful, 1 bold. */
const START_AT = 0.3;
/** Chip load is raised for thin bites by no more than this. */
const MOST_THINNING = 2.5;
/** Share of the feed used to enter. */
const ENTRY_SHARE = { plunge: 0.3, ramp: 0.5 };

const between = (r: { from: number; to: number }, share: number) => r.from + (r.to - r.from) * share;
const round = (value: number, step: number) => Math.max(step, Math.floor(value / step + 1e-9) * step);
const n0 = (v: number) => formatNumber(v, 0);
const n3 = (v: number) => formatNumber(v, 3);

function speed(tool: Tool, D: number, material: Material, machine: Machine, working: Working[]) {
  const ranges = isDrill(tool) ? material.drillingSpeed : material.millingSpeed;
  const range = ranges[tool.material];
  const vc = between(range, START_AT);
  const wanted = spindleSpeed(vc, D);
  const rpm = Math.min(machine.maxRpm, Math.max(machine.minRpm, wanted));
  working.push({
    what: 'Surface speed',
    formula: `${n0(range.from)} to ${n0(range.to)} m/min for ${tool.material} in ${material.group}, started at ${n0(START_AT * 100)} % of the range`,
    result: `${n0(vc)} m/min`,
    source: material.origin,
  });
  working.push({
    what: 'Spindle speed',
    formula: `n = 1000·vc / (π·D) = 1000·${n0(vc)} / (π·${n3(D)})`,
    result: `${n0(wanted)} rpm`,
    source: 'Textbook relation',
  });
  if (rpm !== wanted)
    working.push({
      what: 'Spindle range',
      formula: `${machine.name}: ${n0(machine.minRpm)} to ${n0(machine.maxRpm)} rpm`,
      result: `${n0(rpm)} rpm`,
      source: 'Machine profile',
    });
  return { rpm: round(rpm, rpm >= 1000 ? 10 : 1), capped: rpm < wanted };
}

function chipLoad(tool: Tool, material: Material, D: number, ae: number, working: Working[]): number {
  const share = between(material.chipShare, START_AT);
  const hex = (share / 100) * tool.diameter;
  working.push({
    what: 'Chip load at half width',
    formula: `${formatNumber(share, 2)} % of the diameter, ${n3(tool.diameter)} mm`,
    result: `${n3(hex)} mm`,
    source: material.origin,
  });
  const phi = engagement(Math.min(ae, D), D);
  const fz = Math.min(chipLoadFor(hex, phi), hex * MOST_THINNING);
  if (fz > hex * 1.001)
    working.push({
      what: 'Chip thinning',
      formula: `fz = hex / sin φ, φ = acos(1 − 2·ae/D), at most ${MOST_THINNING} ×`,
      result: `${n3(fz)} mm a tooth`,
      source: 'Textbook relation',
    });
  return fz;
}

interface Governed {
  feed: number;
  limit: Limit;
}

/** Lowers the feed until power and deflection are within limits; both fall steadily with the feed. */
function withinLoad(input: CutInput, governed: Governed, working: Working[]): Governed {
  const over = (feed: number): Limit | undefined => {
    const s = cutState(atPeak({ ...input, feed }));
    if (s.power > s.powerAvailable * POWER_SHARE) return 'spindle power';
    if (s.deflection > DEFLECTION_LIMIT) return 'deflection';
    return undefined;
  };
  const limit = over(governed.feed);
  if (!limit) return governed;
  let low = 0;
  let high = governed.feed;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (over(middle)) high = middle;
    else low = middle;
  }
  working.push({
    what: limit === 'deflection' ? 'Tool bending' : 'Spindle power',
    formula:
      limit === 'deflection'
        ? `δ = F·L³ / (3·E·I), at most ${DEFLECTION_LIMIT} mm`
        : `P = ap·ae·vf·kc / 60e6, at most ${POWER_SHARE * 100} % of what the spindle gives`,
    result: `${n0(low)} mm/min`,
    source: 'Textbook relation',
  });
  return { feed: low, limit };
}

function limitText(limit: Limit, tool: Tool, machine: Machine): string {
  switch (limit) {
    case 'spindle speed':
      return `Speed limited by the machine: ${n0(machine.maxRpm)} rpm. A larger cutter would reach its surface speed.`;
    case 'machine feed':
      return `Feed limited by the machine: ${n0(machine.maxFeed)} mm/min. Fewer flutes or a deeper layer would use the spindle better.`;
    case 'spindle power':
      return `Feed limited by the spindle: ${formatNumber(machine.power, 2)} kW. A lighter bite or a shallower layer would let it run faster.`;
    case 'deflection':
      return `Feed limited by bending of ${tool.name}: at most ${DEFLECTION_LIMIT} mm. A shorter stick-out, a thicker tool or a shallower layer would help.`;
    case 'rubbing':
      return `Chip near the rubbing limit, ${RUBBING} mm. Fewer flutes or less spindle speed would thicken it.`;
    case 'range':
      return 'Limited by the starting range of the material; work up from here.';
  }
}

/**
 * Starting speed and feeds for a tool in a material on a machine, with the limit that governs and the working.
 * Starts at 30 % of the material's range, corrects for chip thinning, then holds machine, power and bending limits.
 * @param cut sideways bite, its worst place and layer depth, mm (ignored for drills); power and bending are held at the worst
 */
export function suggest(
  tool: Tool,
  material: Material,
  machine: Machine,
  cut: { ae: number; ap: number; peakAe?: number },
): Suggestion {
  const working: Working[] = [];
  if (isDrill(tool)) return suggestDrill(tool, material, machine, working);
  const D = cuttingDiameter(tool, cut.ap);
  const { rpm, capped } = speed(tool, D, material, machine, working);
  const fz = chipLoad(tool, material, D, cut.ae, working);
  const wanted = feedRate(rpm, tool.flutes, fz);
  working.push({
    what: 'Feed',
    formula: `vf = n·z·fz = ${n0(rpm)}·${tool.flutes}·${n3(fz)}`,
    result: `${n0(wanted)} mm/min`,
    source: 'Textbook relation',
  });
  let governed: Governed = { feed: wanted, limit: capped ? 'spindle speed' : 'range' };
  if (wanted > machine.maxFeed) governed = { feed: machine.maxFeed, limit: 'machine feed' };
  governed = withinLoad({ tool, material, machine, rpm, feed: governed.feed, ...cut }, governed, working);
  const feed = round(governed.feed, 10);
  const thin = cutState({ tool, material, machine, rpm, feed, ...cut }).largestChip < RUBBING;
  const limit = thin ? 'rubbing' : governed.limit;
  return {
    rpm,
    feed,
    entryFeed: round(feed * (tool.centreCutting ? ENTRY_SHARE.ramp : ENTRY_SHARE.plunge), 10),
    limit,
    limitText: limitText(limit, tool, machine),
    working,
  };
}

function suggestDrill(tool: Tool, material: Material, machine: Machine, working: Working[]): Suggestion {
  const { rpm, capped } = speed(tool, tool.diameter, material, machine, working);
  const share = between(material.drillShare, START_AT);
  const perTurn = (share / 100) * tool.diameter;
  working.push({
    what: 'Feed per turn',
    formula: `${formatNumber(share, 2)} % of ${n3(tool.diameter)} mm`,
    result: `${n3(perTurn)} mm`,
    source: material.origin,
  });
  let governed: Governed = { feed: rpm * perTurn, limit: capped ? 'spindle speed' : 'range' };
  working.push({
    what: 'Feed',
    formula: `vf = n·fn = ${n0(rpm)}·${n3(perTurn)}`,
    result: `${n0(governed.feed)} mm/min`,
    source: 'Textbook relation',
  });
  if (governed.feed > machine.maxFeed) governed = { feed: machine.maxFeed, limit: 'machine feed' };
  governed = withinLoad(
    { tool, material, machine, rpm, feed: governed.feed, ae: tool.diameter, ap: 1 },
    governed,
    working,
  );
  const feed = round(governed.feed, 1);
  return {
    rpm,
    feed,
    entryFeed: feed,
    limit: governed.limit,
    limitText: limitText(governed.limit, tool, machine),
    working,
  };
}

/** A first sideways bite and layer depth, mm, for a tool in a material on a machine; rigidity scales both. */
export function suggestBite(tool: Tool, material: Material, machine: Machine): { ae: number; ap: number } {
  const widthShare = tool.kind === 'face' ? 0.7 : 0.2 + 0.25 * machine.rigidity;
  const ap = Math.min(tool.fluteLength * 0.9, tool.diameter * material.depthShare * machine.rigidity);
  const shallow = tool.kind === 'face' ? Math.min(1, ap) : ap;
  return { ae: Math.round(tool.diameter * widthShare * 100) / 100, ap: Math.round(shallow * 20) / 20 };
}
