import { Situation } from '../cutting/suggestion';
import { Feature } from '../part/plate/feature';
import { Tool } from '../shop/tool';
import { BiteOf, OperationKind } from '../operation/operation';
import { kindOf } from '../operation/registry';
import { Operation } from '../document/operation';
import { Job, Setup } from '../document/job';
import { asSeen, heightsOf } from './ground';

/** What a tool's speeds in a job are worked out for. */
export const situationOf = (job: Job, tool: Tool, bite: BiteOf): Situation => ({
  tool,
  material: job.material,
  machine: job.machine,
  boldness: job.boldness,
  unit: job.unit,
  ...bite,
});

/** How far down from the part's top a feature is cut, mm; undefined where that is the operation's own affair. */
function depthOf({ meaning, through, depth }: Feature, thickness: number): number | undefined {
  if (meaning === 'outline') return thickness;
  return meaning === 'pocket' || meaning === 'hole' ? (through ? thickness : depth) : undefined;
}

/** How far an operation goes down in all, mm, the stock above the part included; undefined where that is not known beforehand. */
function deepOf(job: Job, setup: Setup, kind: OperationKind, targets: string[]): number | undefined {
  const above = heightsOf(job, setup).top;
  if (kind.works.length === 0) return above || undefined;
  const isFaced = setup.operations.some((o) => o.on && kindOf(o.kind)?.lowersTop);
  const { part } = asSeen(job, setup);
  const depths = part.features.filter((f) => targets.includes(f.id)).map((f) => depthOf(f, part.thickness));
  if (depths.length === 0 || depths.includes(undefined)) return undefined;
  return Math.max(...(depths as number[])) + (isFaced ? 0 : above);
}

/** The bite an operation really takes: layers that come out equal are thinner than the most they may be. */
export const biteIn = (
  job: Job,
  setup: Setup,
  kind: OperationKind,
  tool: Tool,
  { params, targets }: Pick<Operation, 'params' | 'targets'>,
): BiteOf => kind.bite(params, tool, deepOf(job, setup, kind, targets));
