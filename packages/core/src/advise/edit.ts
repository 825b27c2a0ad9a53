import { Departure } from '../cutting/departure';
import { insightOf } from '../plan/insight';
import { copy } from '../document/new';
import { adviseCoolant } from '../cutting/conditions';
import { suggest } from '../cutting/suggest';
import { Feature } from '../part/plate/feature';
import { adviseTools, rankedFor } from './tools';
import { coolantsOf } from '../plan/pipeline';
import { Work, cutIn, situationOf } from '../plan/situation';
import { modelOf } from '../part/plate/model';
import { hashOf } from '../quantity/hash';
import { TOOLS } from '../shop/library';
import { pocketOf } from '../machine/machine';
import { Tool, isBeam } from '../shop/tool';
import type { Holder } from '../shop/holder';
import type { Lift } from '../cutting/lift';
import { Operation, Speeds } from '../document/operation';
import { OperationKind } from '../operation/operation';
import { FIRST, NO_TOOL, byHand } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { freshId } from '../quantity/ids';
import { editOperation, withSetup } from '../document/edit';
import { Job, Setup } from '../document/job';
import { asSeen, groundOf } from '../plan/ground';

const setupOf = (job: Job, setupId: string): Setup => job.setups.find((s) => s.id === setupId) ?? job.setups[0];

/** The job with a tool of the library on its own rack; the tool is copied in, so the job stays whole by itself. */
export function withTool(job: Job, tool: Tool): Job {
  if (job.tools.some((t) => t.id === tool.id)) return job;
  const pocket = pocketOf(job.machine, tool);
  const number = job.tools.some((t) => t.number === pocket) ? Math.max(...job.tools.map((t) => t.number)) + 1 : pocket;
  return { ...job, tools: [...job.tools, { ...copy(tool), number }] };
}

/** The job with its tools numbered by pockets of its machine: those that fit stay, the others take the lowest free ones. As it is where they are too many. */
export function numberedByPockets(job: Job): Job {
  const { machine, tools } = job;
  if (tools.length > machine.toolPockets) return job;
  const fits = ({ number }: Tool) => number <= machine.toolPockets;
  const taken = new Set(tools.filter(fits).map((t) => t.number));
  const free = Array.from({ length: machine.toolPockets }, (_, i) => i + 1).filter((n) => !taken.has(n));
  return { ...job, tools: tools.map((t) => (fits(t) ? t : { ...t, number: free.shift()! })) };
}

/** The job with a tool that a program calls by a number: what it is, for this job. */
export function withCalledTool(job: Job, number: number, tool: Tool): Job {
  const ids = job.tools.map((t) => t.id);
  const own = { ...copy(tool), number, id: ids.includes(tool.id) ? freshId(`${tool.id}-`.slice(0, 30), ids) : tool.id };
  return { ...job, tools: [...job.tools.filter((t) => t.number !== number), own] };
}

/** Slowest feed a program can carry, mm/min. */
const LEAST_FEED = 0.1;

/** Cutting speed to start from where nobody has given the one of the machine's cut chart, mm/min. */
const BEAM_FEED = 1000;
const FULL_POWER = 1000;

/** Of a beam: full power, at the shop's own speed for the material where it has one. */
function beamSpeeds({ machine, material }: Job, tool: Tool): Speeds {
  const own = tool.ownData.find((d) => d.materialId === material.id);
  const feed = Math.min(machine.maxFeed, own ? own.surfaceSpeed * 1000 : BEAM_FEED);
  return { rpm: Math.min(FULL_POWER, machine.maxRpm), feed, entryFeed: feed };
}

/** Speeds for an operation as suggested, within the machine's range. */
export function suggestedSpeeds(job: Job, setup: Setup, kind: OperationKind, tool: Tool, work: Work): Speeds {
  if (isBeam(tool)) return beamSpeeds(job, tool);
  return speedsFrom(suggest(situationOf(job, tool, cutIn(job, setup, kind, tool, work))));
}

const speedsFrom = ({ rpm, feed, entryFeed }: Speeds): Speeds => ({
  rpm,
  feed: Math.max(LEAST_FEED, feed),
  entryFeed: Math.max(LEAST_FEED, entryFeed),
});

/** The tool the advice ranks first for what is chosen; facing takes the widest that suits. */
export function proposeTool(job: Job, kind: OperationKind, targets: Feature[], rack: Tool[] = TOOLS): Tool | undefined {
  const all = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
  const suiting = all.filter((t) => kind.suits(t));
  if (kind.works.length === 0) return suiting.sort((a, b) => b.diameter - a.diameter).find((t) => t.flutes > 1);
  const advised = targets.flatMap((t) => rankedFor(kind.kind, adviseTools(job, t.id, suiting)));
  return advised[0]?.tool ?? suiting[0];
}

/**
 * The values an operation would start from with this tool on these features.
 * @param modelFor makes a part's model; pass one that remembers
 */
export function proposedParams(
  job: Job,
  setup: Setup,
  kind: OperationKind,
  tool: Tool,
  targetIds: string[],
  modelFor = modelOf,
): Record<string, unknown> {
  const { job: seen, model, stock } = groundOf(job, setup, modelFor);
  const targets = seen.part.features.filter((f) => targetIds.includes(f.id));
  const { material, machine, boldness } = job;
  const { top, bottom } = stock;
  const work = { model, targets, stock: stock.region, top, bottom, clearance: top + setup.clearance };
  return { ...kind.defaults({ tool, material, machine, boldness, ...work }) };
}

/** What a new operation of a kind starts with: the first feature it can work on that no operation of its kind works on yet. */
export function startingTargets(kind: OperationKind, features: Feature[], route: Operation[]): string[] {
  const fitting = features.filter((f) => kind.works.includes(f.meaning));
  const used = new Set(route.filter((o) => o.kind === kind.kind).flatMap((o) => o.targets));
  const asked = kind.startsWith?.(fitting) ?? [];
  const wanted = asked.length ? asked : fitting.filter((f) => !used.has(f.id)).slice(0, 1);
  return (wanted.length ? wanted : fitting.slice(0, 1)).map((f) => f.id);
}

/** The job with a new operation at the end of the route: tool, values and speeds proposed from what it works on. */
export function addOperation(
  job: Job,
  setupId: string,
  kindName: string,
  targetIds: string[],
  tool?: Tool,
  rack: Tool[] = TOOLS,
): Job {
  const kind = kindOf(kindName);
  if (!kind) return job;
  if (kind.process === 'hand') return addByHand(job, setupId);
  const setup = setupOf(job, setupId);
  const seen = asSeen(job, setup);
  const targets = seen.part.features.filter((f) => targetIds.includes(f.id));
  const chosen = tool ?? proposeTool(seen, kind, targets, rack);
  if (!chosen) return job;
  const withRack = withTool(job, chosen);
  const own = withRack.tools.find((t) => t.id === chosen.id)!;
  const params = proposedParams(job, setup, kind, own, targetIds);
  const { coolant } = adviseCoolant(own, job.material, coolantsOf(job));
  const operation: Operation = {
    id: freshOperationId(job),
    kind: kindName,
    name: nameFor(kind, targets, params),
    on: true,
    toolId: own.id,
    targets: targetIds,
    speeds: suggestedSpeeds(job, setup, kind, own, { params, targets: targetIds, coolant }),
    coolant,
    params,
  };
  return withSetup(withRack, { ...setup, operations: [...setup.operations, operation] });
}

const freshOperationId = ({ setups }: Job) =>
  freshId(
    'o',
    setups.flatMap((s) => s.operations.map((o) => o.id)),
  );

/** The job with an operation once more, right behind it. */
export function duplicateOperation(job: Job, operationId: string): Job {
  const again = (o: Operation): Operation => ({
    ...copy(o),
    id: freshOperationId(job),
    name: `${o.name} again`.slice(0, 80),
  });
  const twice = (o: Operation) => (o.id === operationId ? [o, again(o)] : [o]);
  return { ...job, setups: job.setups.map((s) => ({ ...s, operations: s.operations.flatMap(twice) })) };
}

/** The job with something done by hand at the end of the route. */
function addByHand(job: Job, setupId: string): Job {
  const setup = setupOf(job, setupId);
  const params = { ...FIRST };
  const operation: Operation = {
    id: freshOperationId(job),
    kind: byHand.kind,
    name: nameFor(byHand as unknown as OperationKind, [], params),
    on: true,
    toolId: NO_TOOL,
    targets: [],
    speeds: { rpm: 1, feed: 1, entryFeed: 1 },
    coolant: 'off',
    params,
  };
  return withSetup(job, { ...setup, operations: [...setup.operations, operation] });
}

/** A name in the middle of a sentence: words begin small, abbreviations stay. */
const inSentence = (name: string) =>
  /^\p{Lu}\p{Ll}/u.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name;

function nameFor(kind: OperationKind, targets: Feature[], params: object): string {
  const verb = typeof kind.verb === 'string' ? kind.verb : kind.verb(params);
  if (kind.process === 'hand') return verb.charAt(0).toUpperCase() + verb.slice(1);
  if (targets.length === 0) return kind.title;
  const first = targets[0].name;
  return `${verb} ${inSentence(first)}${targets.length > 1 ? ` and ${targets.length - 1} more` : ''}`;
}

/** The job with one value of an operation changed; a name that was proposed from the values goes with them. */
export function changeParam(job: Job, operationId: string, key: string, value: unknown): Job {
  return editOperation(job, operationId, (o) => {
    const kind = kindOf(o.kind);
    const params = { ...o.params, [key]: value };
    const targets = job.part.features.filter((f) => o.targets.includes(f.id));
    const isProposed = kind && o.name === nameFor(kind, targets, o.params);
    return { ...o, params, name: isProposed ? nameFor(kind, targets, params).slice(0, 80) : o.name };
  });
}

/** Whether an operation clears and finishes in one, and what it finishes could be left to another. */
export const splitsFinish = ({ params }: Pick<Operation, 'params'>): boolean =>
  params.finish === true && params.finishAlone !== true && typeof params.wallAllowance === 'number';

/** The job with an operation that clears and finishes as two: the first leaves what the second finishes, which may take another tool. */
export function splitFinish(job: Job, operationId: string): Job {
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operationId));
  const index = setup?.operations.findIndex((o) => o.id === operationId) ?? -1;
  const both = setup?.operations[index];
  const kind = both && kindOf(both.kind);
  if (!setup || !kind || !splitsFinish(both)) return job;
  const left = Number(both.params.wallAllowance) + Number(both.params.finishStock);
  const inControl = 'compensation' in both.params ? { compensation: 'worked out' } : {};
  const first = { ...both, params: { ...both.params, ...inControl, finish: false, wallAllowance: left } };
  const params = { ...both.params, finishAlone: true };
  const targets = job.part.features.filter((f) => both.targets.includes(f.id));
  const isNamed = both.name !== nameFor(kind, targets, both.params);
  const name = (isNamed ? `${both.name}, finish` : nameFor(kind, targets, params)).slice(0, 80);
  const second: Operation = { ...copy(both), id: freshOperationId(job), name, before: undefined, params };
  const operations = [...setup.operations];
  operations.splice(index, 1, first, second);
  return takeSuggested(withSetup(job, { ...setup, operations }), second.id);
}

/** The job with an operation's tool changed: bite and speeds follow the new tool, all other values stay. */
export function changeTool(job: Job, operationId: string, tool: Tool): Job {
  const racked = withTool(job, tool);
  const own = racked.tools.find((t) => t.id === tool.id)!;
  return editOperation(racked, operationId, (o) => {
    const kind = kindOf(o.kind);
    if (!kind) return { ...o, toolId: own.id };
    const setup = job.setups.find((x) => x.operations.some((y) => y.id === operationId))!;
    const proposed = proposedParams(job, setup, kind, own, o.targets);
    const params = { ...o.params };
    for (const key of ['stepover', 'layer']) if (key in params && key in proposed) params[key] = proposed[key];
    return { ...o, toolId: own.id, params, speeds: suggestedSpeeds(racked, setup, kind, own, { ...o, params }) };
  });
}

/** Whether a job's copy of a tool differs from the one in the rack; its pocket in the job is the job's own. */
export const isStale = (own: Tool, racked: Tool) => hashOf({ ...own, number: 0 }) !== hashOf({ ...racked, number: 0 });

/** The job with its copy of a tool replaced by another state of it; the pocket it has in the job stays. */
export const refreshTool = (job: Job, tool: Tool): Job => ({
  ...job,
  tools: job.tools.map((t) => (t.id === tool.id ? { ...copy(tool), number: t.number } : t)),
});

/** The job with an operation at the suggested speeds for what it is now. */
export function takeSuggested(job: Job, operationId: string): Job {
  return editOperation(job, operationId, (o) => {
    const kind = kindOf(o.kind);
    const tool = job.tools.find((t) => t.id === o.toolId);
    const setup = job.setups.find((x) => x.operations.some((y) => y.id === operationId))!;
    return kind && tool ? { ...o, speeds: suggestedSpeeds(job, setup, kind, tool, o) } : o;
  });
}

/** An operation whose speeds are not the suggested ones. */
export interface Departing {
  operation: Operation;
  suggested: Speeds;
  departure: Departure;
}

/** The operations of a setup that run at other speeds than would be suggested today, as after another material, machine or holder. */
export function departingIn(job: Job, setup: Setup): Departing[] {
  return setup.operations.flatMap((operation) => {
    const insight = operation.on ? insightOf(job, operation) : undefined;
    if (!insight?.departure.brief) return [];
    return [{ operation, suggested: speedsFrom(insight.suggestion), departure: insight.departure }];
  });
}

/** The job with what would lift an operation's limit done to it: tool, stick-out, holder, bite or layer, and its speeds. */
export function takeLift(
  job: Job,
  operationId: string,
  { change }: Lift,
  shop: { tools: Tool[]; holders: Holder[] },
): Job {
  const operation = job.setups.flatMap((s) => s.operations).find((o) => o.id === operationId);
  const tool = job.tools.find((t) => t.id === operation?.toolId);
  if (!tool) return job;
  const other = shop.tools.find((t) => t.id === change.toolId);
  if (other) return changeTool(job, operationId, other);
  const holder = shop.holders.find((h) => h.id === change.holderId);
  const changed = refreshTool(job, {
    ...tool,
    ...(change.stickOut !== undefined && { stickOut: change.stickOut }),
    ...(holder && { holder }),
  });
  const bitten = editOperation(changed, operationId, (o) => ({
    ...o,
    params: {
      ...o.params,
      ...(change.ae !== undefined && 'stepover' in o.params && { stepover: change.ae }),
      ...(change.ap !== undefined && 'layer' in o.params && { layer: change.ap }),
    },
  }));
  return takeSuggested(bitten, operationId);
}

/** The job without tools no operation uses. */
export function tidyRack(job: Job): Job {
  const used = new Set(job.setups.flatMap((s) => s.operations.map((o) => o.toolId)));
  const tools = job.tools.filter((t) => used.has(t.id));
  return tools.length === job.tools.length ? job : { ...job, tools };
}
