import { FULL_WIDTH_LAYER, suggestFinish } from '../../cutting/entries';
import { Feature } from '../../part/plate/feature';
import { Tool } from '../../shop/tool';
import type { Advice } from '../tools';
import { Chosen, MOST_TRIED, RouteAsked, RoutePart, RouteStep, bestOf, byRank, would } from './step';

/** A pocket shallower than this share of the cutter's diameter is not worth a steady load. */
const SHALLOW = 0.4;
/** A tool that is in the route already may take this much longer than the quickest. */
const WILLING = 1.3;
/** The least turn of a steady load, as a share of the diameter of its cutter. */
const TURN = 0.1;
/** What a square corner has to stay off wall and floor not to cut into a round foot, as a share of its radius. */
const SQUARE = 0.3;

/** A cutter with less room beside itself fills what it works in, mm. */
const LEAST_ROOM = 0.1;

/** Room a cutter needs beside itself to rough, mm: what it leaves on both walls, and a turn. */
const roomToRough = (tool: Tool) => 2 * suggestFinish(tool).allowance + TURN * tool.diameter;

/** Whether a cutter has room to turn: where it has none it goes round in plain passes. */
const isRoomy = ({ room, tool }: Advice) => room === undefined || room > roomToRough(tool);

/** Cutters for the bulk of a pocket, the quickest first by what they take away a minute. */
function roughersOf(ranked: Advice[]): Advice[] {
  const timed = ranked.filter((r) => r.minutes !== undefined).sort((a, b) => a.minutes! - b.minutes!);
  const roomy = timed.filter(isRoomy);
  return roomy.length ? roomy : timed;
}

/** The quickest cutter for the bulk of a pocket; one that is in the route already, or does all of it, where it is nearly as quick. */
function rougher(able: Advice[], used: Set<string>): Advice | undefined {
  const quick = able.filter((r) => r.minutes! <= WILLING * able[0].minutes!);
  return quick.find((r) => used.has(r.tool.id)) ?? quick.filter((r) => r.role === 'does it').sort(byRank)[0] ?? able[0];
}

/** Rough a pocket, then its walls. */
export function pocketSteps(feature: Feature, asked: RouteAsked, used: Set<string>): RoutePart {
  const { shape } = feature;
  const { ranked: all, buy } = asked.advise(feature);
  // As wide as the room it is to work in, a cutter makes a slot and nothing else.
  const isLoose = ({ minutes, room = 0 }: Advice) => minutes === undefined || room > LEAST_ROOM;
  const ranked = shape.type === 'slot' ? all : all.filter(isLoose);
  const depth = feature.through ? asked.model.thickness : feature.depth;
  const able = roughersOf(ranked);
  const chosen = asked.chosenFor(feature);
  const rough = able.find((r) => r.tool.id === chosen?.tool) ?? rougher(able, used);
  if (!rough)
    return {
      steps: [],
      missing: [{ feature: feature.name, why: `no cutter of the rack fits it and reaches its floor${would(buy)}` }],
    };
  const { tool } = rough;
  used.add(tool.id);
  if (shape.type === 'slot' && tool.diameter > shape.width / 2) {
    const reason = `A slot ${asked.long(shape.width)} wide: ${tool.name} runs down its middle, then along its walls.`;
    return { steps: [{ kind: 'slot', targets: [feature], tool, reason }], missing: [] };
  }
  const most = (rough.room ?? Infinity) / 3;
  const leave = Math.min(
    most,
    Math.max(suggestFinish(tool).allowance, SQUARE * ((feature.foot ?? 0) - tool.cornerRadius)),
  );
  const steady = isRoomy(rough) && (chosen?.kind ? chosen.kind === 'clear' : depth > SHALLOW * tool.diameter);
  const along = ranked.filter((r) => r.role !== 'opens' && !r.isStepped);
  const finisher = bestOf(along, used) ?? rough;
  used.add(finisher.tool.id);
  const same = finisher.tool.id === tool.id;
  const foot = feature.foot ? ` round ${asked.long(feature.foot)} at its foot` : '';
  const corners = `no cutter of the rack turns in its corners, reaches its floor and leaves a smooth wall${foot}${would(buy)}`;
  const missing = finisher.role === 'does it' ? [] : [{ feature: feature.name, why: corners }];
  const steps = [
    {
      kind: steady ? 'clear' : 'pocket',
      targets: [feature],
      tool,
      params: { finish: false, wallAllowance: leave, ...(feature.foot && { floorAllowance: leave }) },
      reason: `${roughReason(steady, chosen !== undefined, rough)}. It leaves ${asked.long(leave)} so that all is roughed before anything is finished.`,
    },
    ...neckSteps(feature, finisher, depth, leave, asked),
    {
      kind: 'clear',
      targets: [feature],
      tool: finisher.tool,
      params: { from: 'what is left', finish: true, finishStock: leave },
      reason: same
        ? `The walls, once everything is roughed and the part has moved where it wants to.`
        : `What ${tool.name} could not reach, then the walls: ${finisher.tool.name} gets closer into the corners.`,
    },
  ];
  // A square corner would cut into a round foot, a shank would rub along a wall: better metal is left.
  const isLeft = finisher.isStepped || (feature.foot && finisher.role !== 'does it');
  const next = able.filter((r) => r !== rough).slice(0, MOST_TRIED);
  const others: Chosen[] = [
    { feature: feature.id, tool: tool.id, kind: steady ? 'pocket' : 'clear' },
    ...next.map((r) => ({ feature: feature.id, tool: r.tool.id, kind: 'pocket' as const })),
    ...next.slice(0, 1).map((r) => ({ feature: feature.id, tool: r.tool.id, kind: 'clear' as const })),
  ];
  return { steps: isLeft ? steps.slice(0, 1) : steps, missing, others };
}

/** Opens a neck the finisher fills, where it is deeper than a cutter goes at full width. */
function neckSteps(pocket: Feature, finisher: Advice, depth: number, leave: number, asked: RouteAsked): RouteStep[] {
  const { tool, opensNeck } = finisher;
  const layer = FULL_WIDTH_LAYER * tool.diameter;
  if (!opensNeck || depth <= layer) return [];
  const reason = `${tool.name} fills its neck: opened in layers of ${asked.long(layer)}, as a lap over all the depth would cut there on both sides at once.`;
  const params = { finishAlone: true, finishAt: 'each layer', layer, finishStock: leave };
  return [{ kind: 'contour', targets: [pocket], tool, params, reason }];
}

function roughReason(steady: boolean, isTried: boolean, rough: Advice): string {
  const { name } = rough.tool;
  const how = steady ? 'a steady load over the whole flute' : 'plain passes';
  if (isTried) return `${name} at ${how}: of what was tried the quickest in this route`;
  const plain = isRoomy(rough) ? 'Shallow: plain passes are quickest' : 'Too narrow to turn in: plain passes';
  return `${steady ? `Deep enough for ${how}` : plain}; ${name} is the quickest that fits`;
}
