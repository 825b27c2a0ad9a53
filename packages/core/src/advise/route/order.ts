import { Operation } from '../../document/operation';
import { Job, Setup } from '../../document/job';
import { STAGES, Stage } from '../../operation/operation';
import { isByHand } from '../../operation/hand/by-hand';
import { kindOf } from '../../operation/registry';
import { area, intersection, offset } from '../../geometry/plane/clip';
import { Floor, partModel } from '../../part/plate/model';

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
  operations.filter((o) => o.on && !isByHand(o)).filter((o, i, all) => i === 0 || o.toolId !== all[i - 1].toolId)
    .length;

/** Stages that may run in either order where they work on other features: holes are stiff, whatever was finished around them. */
const HOLES: ReadonlySet<Stage> = new Set(['holes', 'mouths', 'threads']);
const BESIDE_HOLES: ReadonlySet<Stage> = new Set([...HOLES, 'finish', 'edges']);
const areFree = (a: Stage, b: Stage) => (HOLES.has(a) && BESIDE_HOLES.has(b)) || (HOLES.has(b) && BESIDE_HOLES.has(a));

/** An operation with its place as the trade works. */
interface Placed {
  operation: Operation;
  stage: Stage;
  rank: number;
  /** The floors it clears, where it roughs. */
  floors: Floor[];
}

const depthOf = ({ floors }: Placed) => Math.max(0, ...floors.map((f) => -f.z));

/** So near beside each other lie floors that meet, mm; less than this is none, mm². */
const BESIDE = 0.1;
const NONE = 0.05;

/** Whether a floor lies over one that begins where it ends: made first, the other has the lower walls. */
const liesOver = (a: Placed, b: Placed): boolean =>
  a.floors.some((over) =>
    b.floors.some((f) => over.z > f.z && area(intersection(offset(over.region, BESIDE), f.region)) > NONE),
  );

/** Of two operations, the first standing before the second: whether it has to stay there. On one feature it does, as do spots before drills, upper floors before those let into them, and walls before edges. */
function mustPrecede(a: Placed, b: Placed): boolean {
  if (a.operation.targets.some((t) => b.operation.targets.includes(t))) return true;
  return a.stage === b.stage ? a.rank < b.rank || liesOver(a, b) : !areFree(a.stage, b.stage);
}

/** States looked at for an order with fewer tool changes. */
const MOST_STATES = 3000;

/** A way begun: which operations have run, as bits, and in what order. */
interface Begun {
  ran: bigint;
  order: Placed[];
}

/** The order with the fewest tool changes; of several the one nearest to that in which they stand. */
function fewestChanges(placed: Placed[]): Placed[] {
  const bit = (i: number) => 1n << BigInt(i);
  const needs = placed.map((b, i) =>
    placed.reduce((bits, a, k) => (k < i && mustPrecede(a, b) ? bits | bit(k) : bits), 0n),
  );
  const isReady = (i: number, ran: bigint) => !(ran & bit(i)) && (needs[i] & ran) === needs[i];
  /** Runs all that a tool can do now, and what that makes ready for it. */
  const withTool = (tool: string, { ran, order }: Begun): Begun => {
    const next = [...order];
    for (let i = 0; i < placed.length; i++) {
      if (placed[i].operation.toolId !== tool || !isReady(i, ran)) continue;
      ran |= bit(i);
      next.push(placed[i]);
    }
    return { ran, order: next };
  };
  const seen = new Set<bigint>();
  let begun: Begun[] = [{ ran: 0n, order: [] }];
  while (begun.every(({ order }) => order.length < placed.length)) {
    // Too many ways: on with the one that stands as the trade works.
    if (seen.size > MOST_STATES) begun = begun.slice(0, 1);
    begun = begun.flatMap((way) => {
      const ready = placed.filter((_, i) => isReady(i, way.ran)).map(({ operation }) => operation.toolId);
      return [...new Set(ready)]
        .map((tool) => withTool(tool, way))
        .filter(({ ran }) => !seen.has(ran) && seen.add(ran));
    });
  }
  return begun.find(({ order }) => order.length === placed.length)!.order;
}

/**
 * The operations of a setup in the order the trade works: stage by stage, upper floors before deeper ones, larger before smaller, and with as
 * few tool changes as that allows; holes may run before or after walls that are finished. Operations on one feature keep their order.
 * @param job with the part as it is seen in the setup
 */
export function inRouteOrder(operations: Operation[], job: Job): Operation[] {
  const diameter = (o: Operation) => job.tools.find((t) => t.id === o.toolId)?.diameter ?? 0;
  const { floors } = partModel(job.part);
  const placed = operations.map((operation): Placed => {
    const stage = stageOf(operation, job, operations);
    const own = floors.filter((f) => stage === 'rough' && operation.targets.includes(f.feature));
    return { operation, stage, rank: rankOf(operation), floors: own };
  });
  const at = ({ stage }: Placed) => STAGES.indexOf(stage);
  placed.sort(
    (a, b) =>
      at(a) - at(b) || a.rank - b.rank || depthOf(a) - depthOf(b) || diameter(b.operation) - diameter(a.operation),
  );
  return fewestChanges(placed).map(({ operation }) => operation);
}

/** The setup's route in that order, and whether it differs from today's. */
export function suggestOrder(job: Job, setup: Setup): { operations: Operation[]; differs: boolean } {
  // What is done by hand stays between what stands before and after it.
  const stretches = setup.operations.reduce<Operation[][]>(
    (all, o) => (isByHand(o) ? [...all, [o], []] : [...all.slice(0, -1), [...all[all.length - 1], o]]),
    [[]],
  );
  const operations = stretches.flatMap((part) => (part.length > 1 ? inRouteOrder(part, job) : part));
  return { operations, differs: operations.some((o, i) => o !== setup.operations[i]) };
}
