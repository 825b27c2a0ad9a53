import { Operation } from '../../document/operation';
import { Job, Setup } from '../../document/job';
import { STAGES, Stage } from '../../operation/operation';
import { kindOf } from '../../operation/registry';

/** Whether another operation leaves the walls of the same feature to this one. */
const finishesAfter = (operation: Operation, others: Operation[]) =>
  operation.params.finish === true &&
  others.some((o) => o.params.finish === false && o.targets.some((t) => operation.targets.includes(t)));

/** Where an operation of a route belongs: as its kind says, by what it works on, and whether others leave their walls to it. */
export function stageOf(operation: Operation, { part }: Pick<Job, 'part'>, route: Operation[]): Stage {
  const { stage = 'finish' } = kindOf(operation.kind) ?? {};
  if (typeof stage === 'string') return stage;
  const onOutside = part.features.some((f) => f.meaning === 'outline' && operation.targets.includes(f.id));
  return stage({ onOutside, finishesAfter: finishesAfter(operation, route) });
}

/** Its place within its stage. */
export const rankOf = (o: Operation) => kindOf(o.kind)?.rank?.(o.params) ?? 1;

/** How often the tool is changed on the way through a route. */
export const toolChanges = (operations: Operation[]): number =>
  operations.filter((o) => o.on).filter((o, i, all) => i === 0 || o.toolId !== all[i - 1].toolId).length;

/**
 * The operations of a setup in the order the trade works: stage by stage, within a stage tool by tool, the one in the spindle first,
 * then larger before smaller. Operations of one stage on one feature keep their order.
 */
export function inRouteOrder(operations: Operation[], job: Job): Operation[] {
  const diameter = (o: Operation) => job.tools.find((t) => t.id === o.toolId)?.diameter ?? 0;
  const ordered: Operation[] = [];
  for (const stage of STAGES) {
    const left = operations.filter((o) => stageOf(o, job, operations) === stage);
    left.sort((a, b) => rankOf(a) - rankOf(b) || diameter(b) - diameter(a));
    while (left.length) {
      const inSpindle = ordered[ordered.length - 1]?.toolId;
      const ready = left.filter((o, i) => left.slice(0, i).every((p) => !mustPrecede(p, o)));
      const next = ready.find((o) => o.toolId === inSpindle) ?? ready[0];
      ordered.push(...left.splice(left.indexOf(next), 1));
    }
  }
  return ordered;
}

/** Of two operations of one stage on one feature the one that stands first stays first, as do spots before drills and walls before edges. */
const mustPrecede = (a: Operation, b: Operation) =>
  a.targets.some((t) => b.targets.includes(t)) || rankOf(a) < rankOf(b);

/** The setup's route in that order, and whether it differs from today's. */
export function suggestOrder(job: Job, setup: Setup): { operations: Operation[]; differs: boolean } {
  const operations = inRouteOrder(setup.operations, job);
  return { operations, differs: operations.some((o, i) => o !== setup.operations[i]) };
}
