import { slenderness } from '../cutting/bite';
import { perTurnForRoughness, wallRoughness } from '../cutting/milling';
import { Budget, withinBudget } from '../quantity/budget';
import { Finding, finding, hasStop } from '../quantity/finding';
import { hashOf } from '../quantity/hash';
import { Added, NOTHING_ADDED, joinAdded } from '../part/plate/added';
import { cutsWalls, Tool } from '../shop/tool';
import type { Coolant } from '../machine/machine';
import { Part, sideOf } from '../part/plate/feature';
import { PartModel } from '../part/plate/model';
import { HandStep, Program, Step, Written, isHand, safeName, shortName } from '../program/write/step';
import { writePrograms } from '../program/write/writer';
import { Controller } from '../shop/controller';
import { controllerById } from '../shop/controllers';
import { handOf } from '../operation/hand/by-hand';
import { boundFindings } from '../operation/bounds';
import { withFeeds } from '../operation/feeds';
import { heightsFor } from '../operation/heights';
import { Operation } from '../document/operation';
import { DrillCycle, Plan, Means, OperationKind, PlanContext, Waiting } from '../operation/operation';
import { Path, PathBuilder } from '../path/path';
import { kindOf } from '../operation/registry';
import { upText } from '../document/edit';
import { Job, Setup } from '../document/job';
import { offsetsOf } from '../document/stations';
import { copyFindings, targetsOf } from '../document/repeats';
import { cutBy, keyOfRan, metIn, turnedEarlier } from './earlier';
import { Earlier } from '../operation/earlier';
import { finishOf } from './situation';
import { fixturesFor, Ground, beforeOf, groundOf, topOver } from './ground';
import { setupFindings } from './setup-findings';

/** A planned operation and the key of everything it depends on. */
export interface Planned {
  operation: Operation;
  key: string;
  plan: Plan;
}

export interface SetupPlan {
  /** What was planned on; whoever proves the plan goes on with it. */
  ground: Ground;
  planned: Planned[];
  findings: Finding[];
  /** Every plan it stands on, those of earlier setups included, by key: with them at hand nothing of it is planned again. */
  plans: KnownPlan[];
}

export type KnownPlan = [key: string, plan: Plan];

/** Remembers plans by key, so that only what changed is planned again. */
export type PlanCache = Map<string, Plan>;

const MOST_CACHED = 200;
const EMPTY = new PathBuilder().build();

const missing = (operation: Operation, field: 'toolId' | 'kind'): Plan => ({
  path: EMPTY,
  findings: [finding(`missing-${field}`, { operation: operation.name }, { operation: operation.id, field })],
});

/** A layer up to so many times the suggested one follows it. */
const SUGGESTED = 1.2;

/** Moves, and laps counted as many, that one operation may take. */
const MOST_STEPS = 1_000_000;

const tooLong = (operation: Operation): Plan => ({
  path: EMPTY,
  findings: [
    finding(
      'plan-too-long',
      { operation: operation.name, millions: MOST_STEPS / 1e6 },
      { operation: operation.id, field: 'params' },
    ),
  ],
});

/** Plans with the heights that were asked for, where they can be had. */
function planAt(kind: OperationKind, context: Omit<PlanContext, 'approach'>): Plan {
  const { id: operation, heights: asked, params, feeds } = context.operation;
  const { findings, ...heights } = heightsFor(kind, { ...context, heights: asked, fine: context.tool.diameter / 2 });
  if (kind.takesBounds) findings.push(...boundFindings(context));
  if (hasStop(findings))
    return { path: EMPTY, findings: findings.map((f) => ({ ...f, place: { ...f.place, operation } })) };
  const plan = kind.plan(params, { ...context, ...heights });
  return feeds && kind.process === 'milling' && plan.path.count > 0
    ? { ...plan, path: withFeeds(plan.path, feeds) }
    : plan;
}

/** Whether its plan depends on what was cut before. */
const looksBack = ({ kind, params, heights = {} }: Operation): boolean =>
  kindOf(kind)?.usesEarlier?.(params) ||
  [heights.start, heights.end, heights.retract].some((h) => h?.at === 'what is left');

/** Whether what is told of a plan names another tool of the rack. */
const namesATool = ({ findings }: Plan): boolean => findings.some((f) => f.code === 'pocket-too-small');

/** Of what ran before what an operation may meet. */
function metBy(operation: Operation, { tools, part }: Job, ran: Earlier[], stockTop: number): Earlier[] {
  const tool = tools.find((t) => t.id === operation.toolId);
  const area = tool && kindOf(operation.kind)?.looksOver?.(targetsOf(operation, part), tool);
  return area ? ran.filter((one) => metIn(one, area, stockTop)) : ran;
}

function planOne(
  job: Job,
  operation: Operation,
  ground: Omit<PlanContext, 'operation' | 'targets' | 'budget' | 'approach' | 'end' | keyof Means> & {
    partKey: string;
    /** The part as it is drawn. */
    drawn: Part;
  },
  cache: PlanCache,
): Planned {
  const kind = kindOf(operation.kind);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const targets = targetsOf(operation, job.part);
  const key = hashOf({
    // Where it waits first and why it is there is nothing to its path.
    operation: { ...operation, before: undefined, reason: undefined },
    tool,
    material: job.material,
    machine: job.machine,
    part: ground.partKey,
    stock: [ground.stock, ground.bottom],
    clearance: ground.clearance,
    top: ground.top,
    fixtures: kind?.usesFixtures ? ground.fixtures : undefined,
    earlier: looksBack(operation) ? ground.earlier.map(keyOfRan) : undefined,
  });
  const withRack = hashOf([key, job.tools.map((t) => [t.number, t.name, t.diameter])]);
  const cached = cache.get(key) ?? cache.get(withRack);
  if (cached) return { operation, key, plan: cached };
  let plan: Plan;
  if (!kind) plan = missing(operation, 'kind');
  else if (kind.process === 'hand') plan = { path: EMPTY, findings: [] };
  else if (!tool) plan = missing(operation, 'toolId');
  else {
    const means = { tool, material: job.material, machine: job.machine };
    const context = { ...ground, ...means, operation, targets, budget: new Budget(MOST_STEPS) };
    plan = withinBudget(
      () => planAt(kind, context),
      () => tooLong(operation),
    );
    if (plan.path.count === 0 && plan.findings.length === 0)
      plan.findings.push(finding('nothing-to-cut', { operation: operation.name }, { operation: operation.id }));
    plan.findings.push(...lostFindings(operation, job.part, ground.drawn));
    plan.findings.push(...copyFindings(operation, targets, ground.stock), ...rangeFindings(job, operation));
    plan.findings.push(...finishFindings(job, kind, tool, operation), ...slenderFindings(job, kind, tool, operation));
  }
  if (!ground.stopped?.()) {
    if (cache.size > MOST_CACHED) cache.clear();
    cache.set(namesATool(plan) ? withRack : key, plan);
  }
  return { operation, key, plan };
}

/** A tool so slender that it takes thin layers only, and what that costs. */
function slenderFindings(job: Job, { biting }: OperationKind, tool: Tool, operation: Operation): Finding[] {
  const { material, machine, boldness } = job;
  const found = biting && slenderness(biting, tool, material, machine, boldness);
  const layer = Number(operation.params.layer);
  if (!found || layer > SUGGESTED * found.layer) return [];
  const place = { operation: operation.id, tool: tool.id, field: 'toolId' };
  return [finding('slender', { ...found, tool: tool.name, out: tool.stickOut, diameter: tool.diameter }, place)];
}

/** A feed whose marks are rougher than the walls may be. */
function finishFindings(job: Job, kind: OperationKind, tool: Tool, operation: Operation): Finding[] {
  const asked = finishOf(job, operation);
  const { rpm, feed } = operation.speeds;
  if (!asked || kind.process === 'beam' || !cutsWalls(tool)) return [];
  const ra = wallRoughness((feed * asked.share) / rpm, tool.diameter);
  if (ra <= asked.ra * (1 + 1e-9)) return [];
  const keeps = (rpm * perTurnForRoughness(asked.ra, tool.diameter)) / asked.share;
  const place = { operation: operation.id, field: 'speeds.feed' };
  return [finding('wall-rough', { operation: operation.name, ra, asked: asked.ra, feed: keeps }, place)];
}

/** Features an operation works on that are gone, or not seen as the part lies. */
const lostFindings = ({ id: operation, name, targets }: Operation, seen: Part, drawn: Part): Finding[] =>
  targets
    .filter((id) => !seen.features.some((f) => f.id === id))
    .map((id) => {
      const place = { operation, field: 'targets' };
      const feature = drawn.features.find((f) => f.id === id);
      return feature
        ? finding(
            'feature-unseen',
            { operation: name, feature: feature.name, side: upText({ face: sideOf(feature), lean: feature.lean }) },
            place,
          )
        : finding('missing-feature', { operation: name, id }, place);
    });

/** Speeds the machine cannot run. */
function rangeFindings(job: Job, operation: Operation): Finding[] {
  const { machine } = job;
  const beam = kindOf(operation.kind)?.process === 'beam';
  const { rpm, feed } = operation.speeds;
  const place = { operation: operation.id };
  const findings: Finding[] = [];
  if (!beam && (rpm > machine.maxRpm || rpm < machine.minRpm)) {
    findings.push(
      finding(
        'spindle-range',
        { operation: operation.name, rpm, machine: machine.name, minRpm: machine.minRpm, maxRpm: machine.maxRpm },
        { ...place, field: 'speeds.rpm' },
      ),
    );
  }
  const fed: [string, number][] = [
    ['speeds.feed', feed],
    ...Object.entries(operation.feeds ?? {}).map(([k, v]): [string, number] => [`feeds.${k}`, v as number]),
  ];
  for (const [field, asked] of fed.filter(([, v]) => v > machine.maxFeed))
    findings.push(
      finding(
        'feed-range',
        { operation: operation.name, feed: asked, machine: machine.name, maxFeed: machine.maxFeed },
        { ...place, field },
      ),
    );
  return findings;
}

/** The operation about to be planned: which of how many. */
export interface PlanStep {
  name: string;
  index: number;
  of: number;
  /** How much of it is done, where that is known, 0 to 1. */
  share?: number;
}

/**
 * Plans every operation of a setup that is switched on. Faults are findings; what can be planned is planned.
 * @param cache plans of earlier calls, reused where nothing they depend on changed
 */
export function planSetup(job: Job, setup: Setup, cache?: PlanCache): SetupPlan {
  const steps = planSteps(job, setup, cache);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/**
 * The same in steps, each operation one of them, for whoever has to breathe in between.
 * @param waiting whom each operation asks whether to go on, and tells how far it is; a plan that was stopped is not remembered
 * @param taken plans that are taken as they are, whatever else has changed
 */
export function* planSteps(
  job: Job,
  setup: Setup,
  cache: PlanCache = new Map(),
  waiting: Waiting = {},
  taken: (operation: Operation) => Planned | undefined = () => undefined,
): Generator<PlanStep, SetupPlan> {
  const made = groundOf(job, setup);
  const { job: seen, whole: model, stock, clearance } = made;
  const findings = [...model.findings, ...setupFindings(job, setup, made)];
  const planned: Planned[] = [];
  const partKey = hashOf(made.repeated);
  let top = stock.top;
  if (model.outline.length === 0) return { ground: made, planned, findings, plans: [] };
  const on = made.setup.operations.filter((o) => o.on);
  const before = on.some(looksBack) ? yield* ranBefore(job, setup, cache, waiting) : NOTHING_RAN;
  const groundFor = (operation: Operation) => ({
    model,
    stock: stock.region,
    top: topOver(made, targetsOf(operation, seen.part)) ?? top,
    stockTop: stock.top,
    bottom: stock.bottom,
    clearance,
    partKey,
    drawn: job.part,
    earlier: metBy(operation, seen, [...before.earlier, ...cutBy(job, planned)], stock.top),
    fixtures: fixturesFor(made, operation.id),
    features: seen.part.features,
    rack: job.tools,
    ...waiting,
  });
  for (const [index, operation] of on.entries()) {
    yield { name: operation.name, index, of: on.length };
    const one = taken(operation) ?? planOne(seen, operation, groundFor(operation), cache);
    planned.push(one);
    if (one.plan.lowersTo !== undefined) top = Math.min(top, one.plan.lowersTo);
  }
  return { ground: made, planned, findings, plans: [...before.plans, ...known(planned)] };
}

const known = (planned: Planned[]): KnownPlan[] =>
  planned.flatMap(({ key, plan }): KnownPlan[] => (namesATool(plan) ? [] : [[key, plan]]));

/** What ran in earlier setups, and the plans of it. */
interface Before {
  earlier: Earlier[];
  plans: KnownPlan[];
}
const NOTHING_RAN: Before = { earlier: [], plans: [] };

/** What ran in the setups a setup starts from, as the work lies in it. */
function* ranBefore(job: Job, setup: Setup, cache: PlanCache, waiting: Waiting): Generator<PlanStep, Before> {
  const from = beforeOf(job, setup);
  if (!from) return NOTHING_RAN;
  const { planned, plans } = yield* planSteps(job, from, cache, waiting);
  const first = yield* ranBefore(job, from, cache, waiting);
  const earlier = turnedEarlier(job, from, setup, [...first.earlier, ...cutBy(job, planned)]);
  return { earlier, plans };
}

/**
 * What the operations of a setup shape that the part itself does not say.
 * @param job with the part as it lies in the setup
 */
export function addedOf(job: Job, setup: Setup, model: PartModel): Added {
  return joinAdded(
    setup.operations.flatMap((operation) => {
      const { on, kind, toolId, params } = operation;
      const tool = job.tools.find((t) => t.id === toolId);
      const adds = on ? kindOf(kind)?.adds : undefined;
      const targets = targetsOf(operation, job.part);
      return adds && tool ? [{ ...NOTHING_ADDED, ...adds(params, { model, targets, tool }) }] : [];
    }),
  );
}

/** All findings of a plan, in route order. */
export const planFindings = (plan: SetupPlan): Finding[] => [
  ...plan.findings,
  ...plan.planned.flatMap((p) => p.plan.findings),
];

function moved(path: Path, zero: { x: number; y: number; z: number }): Path {
  const shift = (values: Float64Array, by: number) => values.map((v) => v - by);
  return {
    ...path,
    x: shift(path.x, zero.x),
    y: shift(path.y, zero.y),
    z: shift(path.z, zero.z),
    cx: shift(path.cx, zero.x),
    cy: shift(path.cy, zero.y),
  };
}

function movedCycle(cycle: DrillCycle, zero: { x: number; y: number; z: number }): DrillCycle {
  return {
    ...cycle,
    holes: cycle.holes.map((h) => ({ x: h.x - zero.x, y: h.y - zero.y, z: h.z - zero.z, hop: h.hop - zero.z })),
    start: cycle.start - zero.z,
    clearance: cycle.clearance - zero.z,
  };
}

/** Steps as they are done in every station: each in all before the next, stopping once before it, or all in one before the next. */
function inStations(setup: Setup, steps: (Step | HandStep)[]): (Step | HandStep)[] {
  const { stations } = setup;
  if (!stations) return steps;
  const at = (workOffset: string) => (step: Step | HandStep) => (isHand(step) ? step : { ...step, workOffset });
  const offsets = offsetsOf(setup);
  if (stations.order === 'part by part') return offsets.flatMap((o) => steps.map(at(o)));
  const inAll = (step: Step | HandStep): (Step | HandStep)[] =>
    isHand(step)
      ? [step]
      : offsets.map((workOffset, k) => ({ ...step, workOffset, before: k > 0 ? undefined : step.before }));
  return steps.flatMap(inAll);
}

export type Posted = Written & { programs: Program[] };

/** The dialect of a job, or another of the shipped ones. */
export const controllerOf = (job: Job, id = job.controllerId): Controller | undefined =>
  job.controller?.id === id ? job.controller : controllerById(id);

/** What a job's machine has and its control can switch. */
export function coolantsOf(job: Job): Coolant[] {
  const words = controllerOf(job)?.coolant ?? {};
  return job.machine.coolants.filter((c) => c === 'off' || words[c]);
}

/** Number and title of a setup's program. */
function namesOf(job: Job, setup: Setup): { number: number; name: string } {
  const own = job.setups.length > 1 ? `${job.name} ${setup.name}` : job.name;
  const index = job.setups.findIndex((s) => s.id === setup.id);
  return { number: setup.programNumber ?? 1001 + Math.max(0, index), name: setup.programTitle ?? own };
}

/** What a setup's program is called, and its file, which is that of no other setup; with what speaks against its number. */
export function programOf(job: Job, setup: Setup) {
  const own = namesOf(job, setup);
  const others = job.setups.filter((s) => s.id !== setup.id);
  const most = controllerOf(job)?.longestFileName ?? 0;
  const nameOf = (name: string) => shortName(safeName(name), most);
  const base = nameOf(own.name);
  const isTwin = others.some((s) => nameOf(namesOf(job, s).name) === base);
  const findings = others
    .filter((s) => namesOf(job, s).number === own.number)
    .map((s) =>
      finding(
        'program-number-twice',
        { setup: setup.name, other: s.name, number: own.number },
        { field: 'programNumber' },
      ),
    );
  return { ...own, file: isTwin ? shortName(base, most, `-${own.number}`) : base, findings };
}

/** Names of operations that are switched off: the program says in its head that it is without them. */
export const leftOut = (setup: Setup): string[] => setup.operations.filter((o) => !o.on).map((o) => o.name);

/**
 * Writes a planned setup in the job's dialect, or another. A plan with a stop-level finding is not written.
 * @param mark said in the head of each program
 */
export function postSetup(
  job: Job,
  setup: Setup,
  plan: SetupPlan,
  controllerId = job.controllerId,
  mark?: string,
): Posted {
  const { findings: twins, ...program } = programOf(job, setup);
  const found = [...planFindings(plan), ...twins];
  const controller = controllerOf(job, controllerId);
  if (!controller) {
    return {
      programs: [],
      findings: [
        ...found,
        finding(
          'unknown-controller',
          { controllerId },
          {
            field: 'controllerId',
          },
        ),
      ],
    };
  }
  if (hasStop(found)) return { programs: [], findings: found };
  const each = plan.planned.map(({ operation, plan: { path, cycle, pierce } }): Step | HandStep => {
    const { id: operationId, name, speeds, coolant, before } = operation;
    const hand = handOf(operation);
    if (hand) return { operationId, name, hand };
    return {
      ...{ operationId, name, coolant, pierce, before },
      tool: job.tools.find((t) => t.id === operation.toolId)!,
      rpm: speeds.rpm,
      path: moved(path, plan.ground.zero),
      cycle: cycle && movedCycle(cycle, plan.ground.zero),
    };
  });
  const written = writePrograms(controller, inStations(setup, each), {
    ...program,
    unit: job.output.unit,
    workOffset: setup.workOffset,
    free: plan.ground.clearance - plan.ground.zero.z,
    lineNumbers: job.output.lineNumbers,
    restarts: job.output.restarts,
    subprograms: job.output.subprograms,
    taken: job.setups.map((s) => namesOf(job, s).number),
    without: leftOut(setup),
    mark,
  });
  return { programs: written.programs, findings: [...found, ...written.findings] };
}
