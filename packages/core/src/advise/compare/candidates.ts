/** Ways to do the same work: what a comparison begins with, and what stands in the route once one is taken over. */
import { editOperation, withSetup } from '../../document/edit';
import { Candidate, Comparison } from '../../document/comparison';
import { Job, Setup } from '../../document/job';
import { Operation } from '../../document/operation';
import { kindOf } from '../../operation/registry';
import { freshId } from '../../quantity/ids';
import { TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { addOperation, takeSuggested, withTool } from '../edit';
import { setupOf } from '../route/tried';
import { adviseTools } from '../tools';

/** A kind of passes a feature may be cleared with, by the operation that makes them and the values that make it so. */
interface Way {
  name: string;
  kind: string;
  params: (tool: Tool) => Record<string, unknown>;
  /** Only where somebody asks for it. */
  isRare?: boolean;
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
];

/** The operations candidates stand in for. */
export const comparedIn = (job: Job, { setup, operations }: Comparison): Operation[] =>
  setupOf(job, setup).operations.filter((o) => operations.includes(o.id));

/** A comparison of some operations with nothing but themselves. */
export function newComparison(job: Job, setup: Setup, operations: string[]): Comparison {
  const id = freshId('v', job.comparisons?.map((c) => c.id) ?? []);
  return { id, setup: setup.id, operations, candidates: [{ id: 'c1', name: 'As it is' }] };
}

/** Operations that may be compared: clearing is done in many ways. */
export const canCompare = ({ kind, on, targets }: Operation): boolean =>
  on && targets.length > 0 && ['clear', 'pocket'].includes(kind);

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

/**
 * A way to do what the operations of a comparison do, with one tool, at the speeds that are suggested for it.
 * @param own values that are not as the way has them: its bite, its layer
 * @param boldness of its speeds, where that is not the job’s
 */
export function candidateFor(
  job: Job,
  comparison: Comparison,
  way: Way,
  tool: Tool,
  own: { stepover?: number; layer?: number } = {},
  boldness?: number,
): Candidate | undefined {
  const [first, ...rest] = comparedIn(job, comparison);
  if (!first || !kindOf(way.kind)?.suits(tool)) return undefined;
  const targets = [...new Set([first, ...rest].flatMap((o) => o.targets))];
  const made = addOperation(job, comparison.setup, way.kind, targets, tool);
  const added = setupOf(made, comparison.setup).operations.at(-1);
  if (!added || made === job) return undefined;
  const left = Object.fromEntries(
    LEAVES.flatMap((key) => (key in first.params && key in added.params ? [[key, first.params[key]]] : [])),
  );
  const params = { ...added.params, ...way.params(tool), ...left, ...own };
  const bold = boldness === undefined ? made : { ...made, boldness };
  const asked = editOperation(bold, added.id, (o) => ({ ...o, params, reason: undefined }));
  const operation = setupOf(takeSuggested(asked, added.id), comparison.setup).operations.at(-1)!;
  const isNew = !job.tools.some((t) => t.id === tool.id);
  return {
    id: freshId(
      'c',
      comparison.candidates.map((c) => c.id),
    ),
    name: `${way.name}, ${tool.name}`.slice(0, 80),
    operations: [operation],
    ...(boldness !== undefined && { boldness }),
    ...(isNew && { tools: made.tools.filter((t) => t.id === tool.id) }),
  };
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
    const found = tool && !isPresent ? candidateFor(job, all, way, tool) : undefined;
    return found ? { ...all, candidates: [...all.candidates, found] } : all;
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
  if (!operations) return { job, own: comparison.operations };
  const racked = tools.reduce(withTool, job);
  const setup = setupOf(racked, comparison.setup);
  const at = setup.operations.findIndex((o) => comparison.operations.includes(o.id));
  const taken = job.setups.flatMap((s) => s.operations.map((o) => o.id));
  const own = operations.reduce<Operation[]>(
    (all, o) => [...all, { ...o, id: freshId('o', [...taken, ...all.map((x) => x.id)]) }],
    [],
  );
  const rest = setup.operations.filter((o) => !comparison.operations.includes(o.id));
  const before = setup.operations.slice(0, Math.max(0, at)).filter((o) => rest.includes(o)).length;
  const route = [...rest.slice(0, before), ...own, ...rest.slice(before)];
  return { job: withSetup(racked, { ...setup, operations: route }), own: own.map((o) => o.id) };
}
