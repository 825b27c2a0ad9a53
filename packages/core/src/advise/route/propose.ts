import { Region, area, difference, offset } from '../../geometry/plane/clip';
import { boundsOf } from '../../geometry/plane/point';
import { Feature, isBeside } from '../../part/plate/feature';
import { isOnSide, turnsOver } from '../../part/plate/turn';
import { formatLength } from '../../quantity/units';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { FULL_WIDTH_LAYER, suggestFinish } from '../../cutting/entries';
import { editOperation, withSetup } from '../../document/edit';
import { abilities } from '../../machine/abilities';
import { proposeTool, addOperation, tidyRack } from '../edit';
import { adviseTools } from '../tools';
import type { Advice, Advised } from '../tools';
import { kindOf } from '../../operation/registry';
import { Operation } from '../../document/operation';
import { Job, Setup } from '../../document/job';
import { Ground, beforeOf, groundOf, isOtherHalfCut, turnOf } from '../../plan/ground';
import { Heights } from '../../document/heights';
import { StockModel } from '../../stock/height/stock';
import { holeSteps, sinkOf } from './holes';
import { Chosen, MOST_TRIED, Proposal, RouteAsked, RoutePart, RouteStep, would } from './step';
import { inRouteOrder, rankOf, stageOf } from './order';

/** A pocket shallower than this share of the cutter's diameter is not worth a steady load. */
const SHALLOW = 0.4;
/** A tool that is in the route already may take this much longer than the quickest. */
const WILLING = 1.3;
/** The least turn of a steady load, as a share of the diameter of its cutter. */
const TURN = 0.1;
/** Stock that reaches no further beyond the part is as wide as it, mm. */
const FLUSH = 0.005;
/** What a square corner has to stay off wall and floor not to cut into a round foot, as a share of its radius. */
const SQUARE = 0.3;
/** And this much worse for a wall, rather than a change of tools. */
const FAMILIAR = 2;

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

const byRank = (a: Advice, b: Advice) => a.rank - b.rank;

/** Of the tools that do all of it the best, or one that is in the route already where it is nearly as good. */
function bestOf(ranked: Advice[], used: Set<string>): Advice | undefined {
  const able = ranked.filter((r) => r.role === 'does it').sort(byRank);
  return able.find((r) => used.has(r.tool.id) && r.rank <= FAMILIAR * able[0].rank) ?? able[0] ?? ranked[0];
}

function pocketSteps(feature: Feature, asked: RouteAsked, used: Set<string>): RoutePart {
  const { shape } = feature;
  const { ranked, buy } = asked.advise(feature);
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
  const leave = Math.max(suggestFinish(tool).allowance, SQUARE * ((feature.foot ?? 0) - tool.cornerRadius));
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

/** Edges the part shows, one operation for each form and angle. */
function edgeSteps(asked: RouteAsked): RoutePart {
  const steps: RouteStep[] = [];
  const missing: Proposal['missing'] = [];
  const isSunk = (f: Feature) =>
    asked.model.holes.some((h) => h.feature === f.id && sinkOf(f, h, asked.rackFor(f)) !== undefined);
  const wanted = asked.job.part.features.filter((f) => f.edge && f.meaning !== 'ignore' && !isSunk(f));
  for (const feature of wanted) {
    const { form, size, angle } = feature.edge!;
    const kind = form === 'round' ? 'round-edge' : 'chamfer';
    const fits = (t: Tool) =>
      form === 'round' ? Math.abs(t.cornerRadius - size) < 1e-3 : Math.abs(t.pointAngle - angle) < 0.5;
    const tool = asked.rackFor(feature).find((t) => kindOf(kind)!.suits(t) && fits(t));
    const known = steps.find((s) => s.tool.id === tool?.id);
    if (!tool)
      missing.push({
        feature: feature.name,
        why: form === 'round' ? `no corner-rounding mill of ${asked.long(size)}` : `no tool with a flank of ${angle}°`,
      });
    else if (known) known.targets.push(feature);
    else
      steps.push({
        kind,
        targets: [feature],
        tool,
        reason: 'Edges are broken when their walls are finished, so that no burr comes back.',
      });
  }
  return { steps, missing };
}

function faceStep({ job, rack }: RouteAsked, top: number, long: RouteAsked['long']): RouteStep[] {
  const tool = top > 0 ? proposeTool(job, kindOf('face')!, [], rack) : undefined;
  return tool
    ? [
        {
          kind: 'face',
          targets: [],
          tool,
          reason: `The stock stands ${long(top)} above the part: a flat top first, and every depth is measured from it.`,
        },
      ]
    : [];
}

/** Stock further from the part than so much of the cutter that runs round it is wide is cleared first: it would be left. */
const FRAME = 0.9;

/** Round the outside: all the stock beyond it where the piece is gripped again, else one cut that lets the part go. */
function outsideSteps(feature: Feature, asked: RouteAsked, from: Outside, used: Set<string>): RoutePart {
  const { below, stock, goesOn } = from;
  const through = asked.advise(feature).ranked;
  const deep = asked.model.thickness + BELOW;
  const isShort = !through.some((r) => reaches(r.tool, deep));
  const half = from.isHalfCut || (from.isTurned && isShort) ? deep / 2 : undefined;
  const fitting = half ? asked.advise(feature, half).ranked.filter((r) => reaches(r.tool, half)) : through;
  const chosen = asked.chosenFor(feature)?.tool;
  const best = fitting.find((r) => r.tool.id === chosen) ?? bestOf(fitting, used);
  const heights: Heights | undefined = half ? { end: { at: 'part top', offset: -half } } : undefined;
  if (!best)
    return { steps: [], missing: [{ feature: feature.name, why: 'no cutter of the rack reaches down its wall' }] };
  const loose = below < 0.1 && !from.isHeld && !half;
  const whyHalf = from.isHalfCut
    ? 'Half way down: the rest was cut from the other side'
    : `Half way down, the rest from the other side: no cutter of the rack reaches ${asked.long(deep)}`;
  const held = `Last, so that the part is held by all of its stock until then${loose ? '; tabs keep it from coming loose' : ''}`;
  const step: RouteStep = {
    kind: 'contour',
    targets: [feature],
    tool: best.tool,
    params: {
      ...(loose && { tabs: 'ramped' }),
      ...(best.tool.fluteLength < (half ?? deep) && { finishAt: 'each layer' }),
    },
    heights,
    reason: `${[...(half ? [whyHalf] : []), held, ...best.cautions].join('; ')}.`,
  };
  const { outline } = asked.model;
  const isFrame = area(difference(stock, offset(outline, FRAME * best.tool.diameter))) > 0;
  const others = fitting
    .filter((r) => r.role === 'does it' && r !== best)
    .sort(byRank)
    .slice(0, MOST_TRIED)
    .map((r): Chosen => ({ feature: feature.id, tool: r.tool.id }));
  if (loose || !(goesOn || half) || !isFrame) return { steps: [step], missing: [], others };
  const leave = suggestFinish(best.tool).allowance;
  const frame: RouteStep = {
    kind: 'clear',
    targets: [feature],
    tool: best.tool,
    params: { finish: false, wallAllowance: leave },
    heights,
    reason: `The stock reaches ${asked.long(beyondOf(stock, outline))} beyond the part: gone all round, so that jaws find the part itself when it is turned.`,
  };
  return { steps: [frame, step], missing: [], others };
}

/** What an outside is cut from. */
interface Outside {
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

function markSteps({ job, rack }: RouteAsked): RouteStep[] {
  const lines = job.part.features.filter((f) => f.meaning === 'line');
  const tool = rack.find((t) => t.kind === 'engraving') ?? rack.find((t) => kindOf('engrave')!.suits(t));
  return lines.length && tool
    ? [{ kind: 'engrave', targets: lines, tool, reason: 'On finished faces, where nothing runs over it any more.' }]
    : [];
}

function beamSteps({ job, rack }: RouteAsked): RouteStep[] {
  const kind = kindOf('cut-out')!;
  const targets = job.part.features.filter((f) => kind.works.includes(f.meaning));
  const tool = rack.find((t) => kind.suits(t));
  return tool && targets.length
    ? [{ kind: 'cut-out', targets, tool, reason: 'One sheet, one beam: openings first, then the outside lets go.' }]
    : [];
}

function addStep(job: Job, setupId: string, step: RouteStep, rack: Tool[]): Job {
  const before = new Set(job.setups.flatMap((s) => s.operations.map((o) => o.id)));
  const ids = step.targets.map((t) => t.id);
  const next = addOperation(job, setupId, step.kind, ids, step.tool, rack);
  const added = next.setups.flatMap((s) => s.operations).find((o) => !before.has(o.id));
  if (!added) return next;
  const verb = step.params?.from === 'what is left' ? 'Finish' : undefined;
  return editOperation(next, added.id, (o) => ({
    ...o,
    name: verb ? o.name.replace(/^\S+/, verb) : o.name,
    params: { ...o.params, ...step.params },
    ...(step.heights && { heights: step.heights }),
    reason: step.reason,
  }));
}

/** What ran in the setups a setup starts from: each operation with the route it stood in. */
function doneBefore(job: Job, setup: Setup): { operation: Operation; route: Operation[] }[] {
  const before = beforeOf(job, setup);
  if (!before) return [];
  const route = before.operations.filter((o) => o.on);
  return [...doneBefore(job, before), ...route.map((operation) => ({ operation, route }))];
}

/** The route without what earlier setups did to the same features: the same stage of work, or walls that were finished with the rest. */
function withoutDone(route: Operation[], job: Job, setup: Setup): Operation[] {
  const done = doneBefore(job, setup);
  const isDone = (o: Operation, id: string) =>
    done.some(({ operation: d, route: itsRoute }) => {
      // What ends half way is cut from both sides.
      if (!d.targets.includes(id) || d.heights?.end) return false;
      const stage = stageOf(o, job, route);
      if (stage === 'finish' && d.params.finish === true) return true;
      // A hole that is drilled needs no spot any more.
      const [had, asks] = [rankOf(d), rankOf(o)];
      return stageOf(d, job, itsRoute) === stage && (had === asks || (stage === 'holes' && had > asks));
    });
  return route.flatMap((o) => {
    const targets = o.targets.filter((id) => !isDone(o, id));
    return o.targets.length > 0 && targets.length === 0 ? [] : [{ ...o, targets }];
  });
}

/** What was tried of a route, for the next one. */
export interface Told {
  /** Tools that are not to work on a feature. */
  barred?: Barred[];
  /** What is to take the bulk of a feature, other than the advice has it. */
  chosen?: Chosen[];
  /** Advice that was asked for before, for the same setup from the same rack. */
  advised?: Map<string, Advised>;
}

/** A proposal, and what could take the bulk of its features instead. */
export interface Proposed extends Proposal {
  others: Chosen[];
}

/** A tool that was tried on a feature and found wanting. */
export interface Barred {
  feature: string;
  tool: string;
}

/**
 * A route for a setup, read from the part's features, its stock, the rack and the machine: rough all, then finish all, holes between,
 * the outside last; each operation with its reason. What stood in the setup's route before is replaced.
 * @param told what was tried
 */
export function proposeRoute(
  job: Job,
  setupId: string,
  rack: Tool[] = TOOLS,
  { barred = [], chosen = [], advised = new Map() }: Told = {},
): Proposed {
  const setup = job.setups.find((s) => s.id === setupId) ?? job.setups[0];
  const empty = withSetup(job, { ...setup, operations: [] });
  const all = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
  const ground = groundOf(job, setup);
  const { job: seen, model, stock } = ground;
  const rackFor = ({ id }: Feature) => all.filter((t) => !barred.some((b) => b.feature === id && b.tool === t.id));
  const asked: RouteAsked = {
    job: seen,
    model,
    rack: all,
    rackFor,
    chosenFor: ({ id }) => chosen.find((c) => c.feature === id),
    advise: (f, depth) => {
      const key = [f.id, depth ?? '', ...barred.flatMap((b) => (b.feature === f.id ? [b.tool] : []))].join();
      const known = advised.get(key) ?? adviseTools(seen, f.id, rackFor(f), model, depth);
      advised.set(key, known);
      return known;
    },
    long: (mm) => formatLength(mm, job.unit),
  };
  const after = job.setups[job.setups.indexOf(setup) + 1];
  const goesOn = after !== undefined && beforeOf(job, after) === setup;
  const isTurned = job.setups.some((s) => turnsOver(turnOf(s, setup)));
  const isHalfCut = isOtherHalfCut(job, setup);
  const isHeld = ground.work.outline === model.outline;
  const from = { ...(setup.lean ? { ...stock, top: 0 } : stock), goesOn, isTurned, isHalfCut, isHeld };
  const { steps, missing, others = [] } = stepsFor(asked, from, outsidesOf(job, setup, ground));
  const routed = steps.reduce((j, step) => addStep(j, setup.id, step, all), empty);
  const own = routed.setups.find((s) => s.id === setup.id)!;
  const operations = inRouteOrder(withoutDone(own.operations, routed, own), { ...routed, part: seen.part });
  return { job: tidyRack(withSetup(routed, { ...own, operations })), missing, others };
}

/** The outsides a setup is to cut where the stock reaches beyond them: from beside the part those alone that are drawn there, not the box round it; none where it leans. */
const outsidesOf = (job: Job, { up = 'top', lean }: Setup, { job: seen, stock, model }: Ground): Feature[] =>
  lean || area(difference(stock.region, offset(model.outline, FLUSH))) === 0
    ? []
    : seen.part.features.filter(
        (f) =>
          f.meaning === 'outline' &&
          (!isOnSide(up) || job.part.features.some((drawn) => drawn.id === f.id && isBeside(drawn))),
      );

/** What each of the features asks for, not in order yet. */
function stepsFor(
  asked: RouteAsked,
  stock: StockModel & Omit<Outside, 'below' | 'stock'>,
  outsides: Feature[],
): RoutePart {
  const { machine, part } = asked.job;
  if (abilities(machine).processes.includes('beam')) return { steps: beamSteps(asked), missing: [] };
  const used = new Set<string>();
  const those = (meaning: Feature['meaning']) => part.features.filter((f) => f.meaning === meaning);
  const pockets = those('pocket').map((f) => pocketSteps(f, asked, used));
  const [holes, edges] = [holeSteps(asked), edgeSteps(asked)];
  const round = { ...stock, below: -stock.bottom - part.thickness, stock: stock.region };
  const outside = outsides.map((f) => outsideSteps(f, asked, round, used));
  const parts: RoutePart[] = [...pockets, holes, edges, { steps: markSteps(asked), missing: [] }, ...outside];
  return {
    steps: [...faceStep(asked, stock.top, asked.long), ...parts.flatMap((p) => p.steps)],
    missing: parts.flatMap((p) => p.missing),
    others: parts.flatMap((p) => p.others ?? []),
  };
}
