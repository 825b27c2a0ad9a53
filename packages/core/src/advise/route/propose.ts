import { area, difference, offset } from '../../geometry/plane/clip';
import { Feature, isBeside } from '../../part/plate/feature';
import { isOnSide, turnsOver } from '../../part/plate/turn';
import { formatLength } from '../../quantity/units';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { editOperation, withSetup } from '../../document/edit';
import { abilities } from '../../machine/abilities';
import { proposeTool, addOperation, tidyRack } from '../edit';
import { adviseTools } from '../tools';
import type { Advised } from '../tools';
import { kindOf } from '../../operation/registry';
import { Operation } from '../../document/operation';
import { Job, Setup } from '../../document/job';
import { Ground, beforeOf, groundOf, isOtherHalfCut, turnOf } from '../../plan/ground';
import { StockModel } from '../../stock/height/stock';
import { holeSteps, sinkOf } from './holes';
import { Outside, outsideSteps } from './outside';
import { pocketSteps } from './pockets';
import { Chosen, Proposal, RouteAsked, RoutePart, RouteStep } from './step';
import { inRouteOrder, rankOf, stageOf } from './order';

/** Stock that reaches no further beyond the part is as wide as it, mm. */
const FLUSH = 0.005;

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
