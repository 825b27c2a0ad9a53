/** Ways to do the same work: what a comparison begins with, and what stands in the route once one is taken over. */
import { editOperation, withSetup } from '../../document/edit';
import { Candidate, Comparison } from '../../document/comparison';
import { Job, Setup } from '../../document/job';
import { Operation } from '../../document/operation';
import { kindOf } from '../../operation/registry';
import type { Shape } from '../../part/plate/feature';
import { freshId } from '../../quantity/ids';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { addOperation, takeSuggested, withTool } from '../edit';
import { withEntryHole } from '../entry-hole';
import { setupOf } from '../route/tried';
import { adviseTools } from '../tools';

/** A kind of passes a feature may be cleared with, by the operation that makes them and the values that make it so. */
interface Way {
  name: string;
  kind: string;
  params: (tool: Tool) => Record<string, unknown>;
  /** Only where somebody asks for it. */
  isRare?: boolean;
  /** Whether a drill opens the way down first. */
  isDrilled?: boolean;
  /** Shapes of features it is for; any where left out. */
  shapes?: Shape['type'][];
}

/** Share of the diameter a wide bite takes, and of it how deep a layer is then. */
const WIDE = { bite: 0.45, layer: 0.1 };

/** Ways to clear: those that differ most (a narrow bite over the flutes, plain passes, a wide bite in thin layers), and others. */
export const WAYS: Way[] = [
  { name: 'Steady load', kind: 'clear', params: () => ({}) },
  { name: 'Plain passes', kind: 'pocket', params: () => ({ pattern: 'inside out' }) },
  {
    name: 'Wide and shallow',
    kind: 'pocket',
    params: ({ diameter }) => ({
      ...{ pattern: 'inside out', stepover: WIDE.bite * diameter },
      layer: Math.max(0.05, Math.round(WIDE.layer * diameter * 20) / 20),
    }),
  },
  { name: 'Spiral', kind: 'pocket', params: () => ({ pattern: 'spiral' }), isRare: true },
  { name: 'Rows to and fro', kind: 'pocket', params: () => ({ pattern: 'zigzag' }), isRare: true },
  { name: 'Drilled first, then steady load', kind: 'clear', params: () => ({}), isRare: true, isDrilled: true },
  {
    name: 'Drilled first, then plain passes',
    ...{ kind: 'pocket', params: () => ({ pattern: 'inside out' }), isRare: true, isDrilled: true },
  },
  { name: 'Full slot', kind: 'slot', params: () => ({ method: 'layers' }), isRare: true, shapes: ['slot'] },
  { name: 'Loops along the slot', kind: 'slot', params: () => ({ method: 'looping' }), isRare: true, shapes: ['slot'] },
];

/** The operations candidates stand in for. */
export const comparedIn = (job: Job, { setup, operations, route }: Comparison): Operation[] =>
  setupOf(job, setup).operations.filter((o) => route || operations.includes(o.id));

/** The ways that are for what is compared. */
export function waysFor(job: Job, comparison: Comparison): Way[] {
  const targets = comparedIn(job, comparison).flatMap((o) => o.targets);
  const shapes = job.part.features.filter((f) => targets.includes(f.id)).map((f) => f.shape.type);
  return WAYS.filter((way) => !way.shapes || shapes.every((s) => way.shapes!.includes(s)));
}

/** A comparison of some operations with nothing but themselves. */
export function newComparison(job: Job, setup: Setup, operations: string[]): Comparison {
  const id = freshId('v', job.comparisons?.map((c) => c.id) ?? []);
  return { id, setup: setup.id, operations, candidates: [{ id: 'c1', name: 'As it is' }] };
}

/** Operations that may be compared: clearing is done in many ways. */
export const canCompare = ({ kind, on, targets }: Operation): boolean =>
  on && targets.length > 0 && ['clear', 'pocket', 'slot'].includes(kind);

/** Values that say how much is left, which any way takes over from what it stands in for. */
const LEAVES = [
  'wallAllowance',
  'floorAllowance',
  'breakthrough',
  'finish',
  'finishStock',
  'finishFeed',
  'springPasses',
];

/** A way to do the same, or why it is none. */
export type Offer = { ok: true; candidate: Candidate } | { ok: false; why: string };

/** What a way is asked to be otherwise than it comes. */
export interface AskedOf {
  /** Values that are not as the way has them: its bite, its layer. */
  own?: { stepover?: number; layer?: number };
  /** Boldness of its speeds, where that is not the job’s. */
  boldness?: number;
  /** Where a drill comes from that opens the way down. */
  rack?: Tool[];
}

/** A way to do what the operations of a comparison do, with one tool, at the speeds that are suggested for it. */
export function candidateFor(
  job: Job,
  comparison: Comparison,
  way: Way,
  tool: Tool,
  { own = {}, boldness, rack = TOOLS }: AskedOf = {},
): Offer {
  const cannot: Offer = { ok: false, why: `${tool.name} cannot make such passes.` };
  const [first, ...rest] = comparedIn(job, comparison);
  if (!first || !kindOf(way.kind)?.suits(tool)) return cannot;
  const targets = [...new Set([first, ...rest].flatMap((o) => o.targets))];
  if (!waysFor(job, comparison).includes(way)) return { ok: false, why: `It is for ${way.shapes!.join(' and ')}s.` };
  const made = addOperation(job, comparison.setup, way.kind, targets, tool);
  const added = setupOf(made, comparison.setup).operations.at(-1);
  if (!added || made === job) return cannot;
  const left = Object.fromEntries(
    LEAVES.flatMap((key) => (key in first.params && key in added.params ? [[key, first.params[key]]] : [])),
  );
  const params = { ...added.params, ...way.params(tool), ...left, ...own };
  const bold = boldness === undefined ? made : { ...made, boldness };
  const asked = editOperation(bold, added.id, (o) => ({ ...o, params, reason: undefined }));
  const opened = way.isDrilled ? withEntryHole(asked, added.id, rack) : { ok: true as const, job: asked };
  if (!opened.ok) return opened;
  const known = job.setups.flatMap((s) => s.operations.map((o) => o.id));
  const fresh = setupOf(opened.job, comparison.setup).operations.flatMap(({ id }) => (known.includes(id) ? [] : [id]));
  const done = fresh.reduce(takeSuggested, opened.job);
  const candidate = {
    id: nextIn(comparison),
    name: `${way.name}, ${tool.name}`.slice(0, 80),
    operations: setupOf(done, comparison.setup).operations.filter((o) => fresh.includes(o.id)),
    ...(boldness !== undefined && { boldness }),
    ...broughtTo(job, done),
  };
  return { ok: true, candidate };
}

const nextIn = ({ candidates }: Comparison): string =>
  freshId(
    'c',
    candidates.map((c) => c.id),
  );

/** Tools of another job that a job does not have. */
function broughtTo({ tools }: Job, { tools: others }: Job): Pick<Candidate, 'tools'> {
  const brought = others.filter((t) => !tools.some((own) => own.id === t.id));
  return brought.length > 0 ? { tools: brought } : {};
}

/** The job with the whole route of a setup held against another one, as it was proposed. */
export function withRoutesCompared(job: Job, setupId: string, proposed: Job): Job {
  const setup = setupOf(job, setupId);
  const ids = setup.operations.map((o) => o.id);
  const whole: Comparison = { ...newComparison(job, setup, ids), route: true };
  const { operations } = setupOf(proposed, setupId);
  const other = { id: nextIn(whole), name: 'As it is proposed', operations, ...broughtTo(job, proposed) };
  const others = (job.comparisons ?? []).filter((c) => !(c.route && c.setup === setupId));
  return { ...job, comparisons: [...others, { ...whole, candidates: [...whole.candidates, other] }] };
}

/** The comparison with the ways that differ most from how it is, each with the quickest tool of the rack that clears all of it. */
export function withOffered(job: Job, comparison: Comparison, rack: Tool[] = TOOLS): Comparison {
  const compared = comparedIn(job, comparison);
  const [present] = compared;
  if (!present) return comparison;
  const able = roughersFor(job, [...new Set(compared.flatMap((o) => o.targets))], rack);
  return WAYS.filter((w) => !w.isRare).reduce((all, way) => {
    const tools = able.filter((t) => kindOf(way.kind)!.suits(t));
    const tool = tools.find((t) => t.id === present.toolId) ?? tools[0];
    const isPresent =
      compared.length === 1 &&
      tool?.id === present.toolId &&
      way.kind === present.kind &&
      way.name !== 'Wide and shallow';
    const offer = tool && !isPresent ? candidateFor(job, all, way, tool) : undefined;
    return offer?.ok ? { ...all, candidates: [...all.candidates, offer.candidate] } : all;
  }, comparison);
}

/** Mills that clear all of some features, the quickest first. */
export function roughersFor(job: Job, targets: string[], rack: Tool[] = TOOLS): Tool[] {
  const all = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
  const ranks = targets.map((t) => adviseTools(job, t, all).ranked.filter((a) => a.minutes !== undefined));
  const [first = []] = ranks;
  const minutes = (tool: Tool) =>
    ranks.reduce((sum, list) => sum + (list.find((a) => a.tool.id === tool.id)?.minutes ?? Infinity), 0);
  return first
    .map((a) => a.tool)
    .filter((t) => Number.isFinite(minutes(t)))
    .sort((a, b) => minutes(a) - minutes(b));
}

/** The job with a candidate in place of what it stands in for, and which operations are its own then. */
export function takenOver(
  job: Job,
  comparison: Comparison,
  { operations, tools = [] }: Candidate,
): { job: Job; own: string[] } {
  const replaced = comparedIn(job, comparison).map((o) => o.id);
  if (!operations) return { job, own: replaced };
  const racked = tools.reduce(withTool, job);
  const setup = setupOf(racked, comparison.setup);
  const at = setup.operations.findIndex((o) => replaced.includes(o.id));
  const taken = job.setups.flatMap((s) => s.operations.map((o) => o.id));
  const own = operations.reduce<Operation[]>(
    (all, o) => [...all, { ...o, id: freshId('o', [...taken, ...all.map((x) => x.id)]) }],
    [],
  );
  const rest = setup.operations.filter((o) => !replaced.includes(o.id));
  const before = setup.operations.slice(0, Math.max(0, at)).filter((o) => rest.includes(o)).length;
  const route = [...rest.slice(0, before), ...own, ...rest.slice(before)];
  return { job: withSetup(racked, { ...setup, operations: route }), own: own.map((o) => o.id) };
}
