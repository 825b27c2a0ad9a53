import { Region, area, difference, offset } from '../../geometry/plane/clip';
import { boundsOf } from '../../geometry/plane/point';
import { suggestFinish } from '../../cutting/entries';
import { Heights } from '../../document/heights';
import { WORTH_TELLING } from '../../operation/milling/room';
import { Feature } from '../../part/plate/feature';
import { Tool, finishesWalls } from '../../shop/tool';
import type { Advice, Advised } from '../tools';
import { Chosen, MOST_TRIED, RouteAsked, RoutePart, RouteStep, bestOf, byRank, would } from './step';

/** Stock further from the part than so much of the cutter that runs round it is wide is cleared first: it would be left. */
const FRAME = 0.9;

/** The cutter for the wall: one that does all of it; where none does, of those that leave a smooth wall one that gets farthest into its corners. */
function finisherOf(fitting: Advice[], used: Set<string>): Advice | undefined {
  if (fitting.some((r) => r.role === 'does it')) return bestOf(fitting, used);
  const smooth = fitting.filter((r) => finishesWalls(r.tool));
  const able = smooth.length > 0 ? smooth : fitting;
  const least = able.reduce((low, r) => Math.min(low, restOf(r)), Infinity);
  return able.filter((r) => restOf(r) < least + WORTH_TELLING).sort(byRank)[0];
}

const restOf = ({ rest = 0 }: Advice): number => rest;

/** Half of an outside that is cut from both sides, mm deep; undefined where it is cut in one. */
function halfOf({ ranked }: Advised, deep: number, from: Outside): number | undefined {
  const isShort = !ranked.some((r) => reaches(r.tool, deep));
  return from.isHalfCut || (from.isTurned && isShort) ? deep / 2 : undefined;
}

/** Round the outside: all the stock beyond it where the piece is gripped again, else one cut that lets the part go. */
export function outsideSteps(feature: Feature, asked: RouteAsked, from: Outside, used: Set<string>): RoutePart {
  const whole = asked.advise(feature);
  const deep = asked.model.thickness + BELOW;
  const half = halfOf(whole, deep, from);
  const { ranked, buy } = half ? asked.advise(feature, half) : whole;
  const fitting = half ? ranked.filter((r) => reaches(r.tool, half)) : ranked;
  const chosen = asked.chosenFor(feature)?.tool;
  const best = fitting.find((r) => r.tool.id === chosen) ?? finisherOf(fitting, used);
  if (!best)
    return { steps: [], missing: [{ feature: feature.name, why: 'no cutter of the rack reaches down its wall' }] };
  const corners = `no cutter of the rack that reaches its foot gets into its inside corners${would(buy)}`;
  const missing = restOf(best) < WORTH_TELLING ? [] : [{ feature: feature.name, why: corners }];
  const others = fitting
    .filter((r) => r.role === 'does it' && r !== best)
    .sort(byRank)
    .slice(0, MOST_TRIED)
    .map((r): Chosen => ({ feature: feature.id, tool: r.tool.id }));
  const heights: Heights | undefined = half ? { end: { at: 'part top', offset: -half } } : undefined;
  const steps = cutsRound(asked, from, { best, fitting, half }).map((step) => ({
    ...step,
    targets: [feature],
    heights,
  }));
  return { steps, missing, others };
}

/** What goes round: all that stands beyond it, where it is cleared, then the wall. */
function cutsRound(
  asked: RouteAsked,
  from: Outside,
  { best, fitting, half }: { best: Advice; fitting: Advice[]; half?: number },
): Omit<RouteStep, 'targets'>[] {
  const { below, stock, goesOn } = from;
  const deep = asked.model.thickness + BELOW;
  const { outline } = asked.model;
  const loose = below < 0.1 && !from.isHeld && !half;
  const whyHalf = from.isHalfCut
    ? 'Half way down: the rest was cut from the other side'
    : `Half way down, the rest from the other side: no cutter of the rack reaches ${asked.long(deep)}`;
  const held = `Last, so that the part is held by all of its stock until then${loose ? '; tabs keep it from coming loose' : ''}`;
  const isStepped = best.tool.fluteLength < (half ?? deep);
  const contour = {
    kind: 'contour',
    tool: best.tool,
    params: {
      ...(loose && { tabs: 'ramped' }),
      ...(isStepped && { finishAt: 'each layer' }),
    },
    reason: `${[...(half ? [whyHalf] : []), held, ...best.cautions].join('; ')}.`,
  };
  if (loose || !(goesOn || half)) return [contour];
  const quick = [...fitting].sort(byRank)[0];
  const isTight = restOf(quick) > restOf(best) + WORTH_TELLING;
  const rough = isTight ? quick.tool : best.tool;
  const isFrame = area(difference(stock, offset(outline, FRAME * rough.diameter))) > 0;
  if (!isTight && !isFrame) return [contour];
  const leave = suggestFinish(rough).allowance;
  const frame = {
    kind: 'clear',
    tool: rough,
    params: { finish: false, wallAllowance: leave },
    reason: `The stock reaches ${asked.long(beyondOf(stock, outline))} beyond the part: gone all round, so that jaws find the part itself when it is turned.`,
  };
  if (!isTight || isStepped) return [frame, contour];
  const corners = {
    kind: 'clear',
    tool: best.tool,
    params: { from: 'what is left', finish: true, finishStock: leave },
    reason: `${[...(half ? [whyHalf] : []), `What ${rough.name} could not reach, then the walls: ${best.tool.name} gets closer into the inside corners`, ...best.cautions].join('; ')}.`,
  };
  return [frame, corners];
}

/** What an outside is cut from. */
export interface Outside {
  /** Stock below the part, mm. */
  below: number;
  stock: Region;
  /** Whether another setup takes up what this one leaves. */
  goesOn: boolean;
  /** Whether there is a setup with the other side up. */
  isTurned: boolean;
  /** Whether that one cut its half already. */
  isHalfCut: boolean;
  /** Whether the part itself is held, not the stock round it. */
  isHeld: boolean;
}

/** What an outside is cut below the part, mm. */
const BELOW = 0.5;

/** Whether a mill gets so deep along a wall with all of it flutes or a thinner shank. */
const reaches = (tool: Tool, deep: number) =>
  tool.stickOut >= deep && (tool.fluteLength >= deep || tool.shankDiameter < tool.diameter);

/** How far stock reaches beyond a part, mm, on the side where it is most. */
function beyondOf(stock: Region, outline: Region): number {
  const [s, p] = [boundsOf(stock.flat()), boundsOf(outline.flat())];
  return Math.max(p.minX - s.minX, s.maxX - p.maxX, p.minY - s.minY, s.maxY - p.maxY);
}
