import type { Bend } from '../cutting/cut';
import { GENERAL_TOLERANCE, HOLD_SAFETY, bendOfTolerance } from '../cutting/limits';
import { Finish, Situation } from '../cutting/suggestion';
import { Feature, endsAt } from '../part/plate/feature';
import { partModel } from '../part/plate/model';
import { Tool } from '../shop/tool';
import { BiteOf, OperationKind } from '../operation/operation';
import { floorOf, heightsFor } from '../operation/heights';
import { kindOf } from '../operation/registry';
import { Operation } from '../document/operation';
import { Job, Setup } from '../document/job';
import { sideForce, strengthOf } from '../holding/held';
import { Strength } from '../holding/holding';
import { asSeen, groundOf, heightsOf } from './ground';

/** What a tool's speeds in a job are worked out for. */
export const situationOf = (job: Job, tool: Tool, cut: CutOf): Situation => ({
  tool,
  material: job.material,
  machine: job.machine,
  boldness: job.boldness,
  unit: job.unit,
  ...cut,
});

/** A bite with what it is taken under. */
export type CutOf = BiteOf & Pick<Situation, 'bend' | 'finish' | 'grip' | 'hold' | 'coolant'>;

/** From limit to limit of the tightest size an operation works on, mm. */
export function toleranceOf(job: Job, targets: string[]): number {
  const general = 2 * (job.tolerance ?? GENERAL_TOLERANCE);
  const sizes = job.part.features.filter((f) => targets.includes(f.id)).flatMap((f) => f.limits ?? []);
  return Math.min(general, ...sizes.filter((l) => l.size !== 'depth').map((l) => l.upper - l.lower));
}

/** How far the tool of an operation may bend; undefined where that is half of what it leaves. */
function bendOf(job: Job, { bend, targets }: Work, { leaves }: BiteOf): Bend | undefined {
  if (bend) return { most: bend, why: 'as it was set' };
  return leaves ? undefined : bendOfTolerance(toleranceOf(job, targets));
}

/** The finest finish its features ask for, µm Ra, where it leaves their walls as they stay. */
export function finishOf(job: Job, { params, targets }: Work): Finish | undefined {
  if (Number(params.wallAllowance) > 0) return undefined;
  const asked = job.part.features.filter((f) => targets.includes(f.id)).flatMap((f) => f.finish ?? []);
  const share = params.finish === true ? Number(params.finishFeed ?? 1) : 1;
  return asked.length ? { ra: Math.min(...asked), share } : undefined;
}

/** What of an operation its cut depends on. */
export type Work = Pick<Operation, 'params' | 'targets'> & Partial<Pick<Operation, 'bend' | 'coolant' | 'heights'>>;

/** How far down from the part's top a feature is cut, mm; undefined where that is the operation's own affair. */
function depthOf(feature: Feature, thickness: number): number | undefined {
  const { meaning } = feature;
  if (meaning === 'outline') return thickness;
  return meaning === 'pocket' || meaning === 'hole' ? endsAt(feature, thickness) : undefined;
}

/** Where an operation is asked to begin and to end, as far as that is known before anything is cut; Z. */
export function askedHeights(job: Job, setup: Setup, kind: OperationKind, work: Pick<Work, 'targets' | 'heights'>) {
  const { part } = asSeen(job, setup);
  const { top } = heightsOf(job, setup);
  const targets = part.features.filter((f) => work.targets.includes(f.id));
  const found = heightsFor(kind, {
    ...{ targets, features: part.features, model: partModel(part), fine: 1, heights: work.heights },
    ...{ top, stockTop: top, stock: [], earlier: [], clearance: Infinity },
  });
  const ends = targets.map((t) => found.end?.(t.id) ?? floorOf(t, partModel(part)));
  return { start: found.top, end: Math.min(...ends) };
}

/** How far an operation goes down in all, mm, the stock above the part included; undefined where that is not known beforehand. */
export function deepOf(job: Job, setup: Setup, kind: OperationKind, work: Work): number | undefined {
  const { targets, heights } = work;
  if (kind.takesHeights && targets.length && (heights?.start || heights?.end)) {
    const { start, end } = askedHeights(job, setup, kind, work);
    return start > end ? start - end : undefined;
  }
  const above = heightsOf(job, setup).top;
  if (kind.works.length === 0) return above || undefined;
  const isFaced = setup.operations.some((o) => o.on && kindOf(o.kind)?.lowersTop);
  const { part } = asSeen(job, setup);
  const depths = part.features.filter((f) => targets.includes(f.id)).map((f) => depthOf(f, part.thickness));
  if (depths.length === 0 || depths.includes(undefined)) return undefined;
  return Math.max(...(depths as number[])) + (isFaced ? 0 : above);
}

/** What the grips of a job's setups come to: many cuts ask, few jobs change. */
const known = new WeakMap<Job, Map<Setup, Strength | undefined>>();

function strengthIn(job: Job, setup: Setup): Strength | undefined {
  const setups = known.get(job) ?? new Map<Setup, Strength | undefined>();
  known.set(job, setups);
  if (!setups.has(setup)) setups.set(setup, strengthOf(groundOf(job, setup, partModel).held));
  return setups.get(setup);
}

/** Side force the work may be pushed with in the uppermost layer, N; undefined where nothing is said to hold it. */
function holdFor(job: Job, setup: Setup, { ap }: BiteOf): number | undefined {
  const strength = setup.holding?.length ? strengthIn(job, setup) : undefined;
  return strength && sideForce(strength, -ap / 2) / HOLD_SAFETY;
}

/** The cut an operation really takes: layers that come out equal are thinner than the most they may be. */
export function cutIn(job: Job, setup: Setup, kind: OperationKind, tool: Tool, work: Work): CutOf {
  const bite = kind.bite(work.params, tool, deepOf(job, setup, kind, work));
  return {
    ...bite,
    bend: bendOf(job, work, bite),
    finish: finishOf(job, work),
    grip: setup.grip,
    hold: holdFor(job, setup, bite),
    coolant: work.coolant,
  };
}
