import { evenLayer } from '../../layers';
import { Finding, finding } from '../../../quantity/finding';
import { suggestEntry } from '../../../cutting/entries';
import { suggestSteadyBite } from '../../../cutting/bite';
import { cutsWalls } from '../../../shop/tool';
import { reachFindings, targetFindings, toolFindings, wallBeside } from '../../checks';
import { finishBite, finishCompensates, finishDefaults, finishesAlone, leftFor } from '../finish';
import { Level, deepest, levelsOf } from '../../levels';
import { OperationKind, Plan, PlanContext } from '../../operation';
import { ClearParams } from './params';
import { ClearPlanner, OUT } from './planner';
import { boundsOf, growBounds } from '../../../geometry/plane/point';
import { regionOf } from '../../../part/plate/model';

export { ClearParams } from './params';

function plan(params: ClearParams, context: PlanContext): Plan {
  const findings = [...toolFindings(context, clear.suits), ...targetFindings(context, clear.works)];
  if (!finishesAlone(params) && params.stepover > context.tool.diameter * 0.9) {
    findings.push(
      finding(
        'bite-too-wide',
        { stepover: params.stepover, tool: context.tool.name, most: context.tool.diameter * 0.4 },
        { operation: context.operation.id, field: 'params.stepover' },
      ),
    );
  }
  const work = context.targets
    .filter((feature) => clear.works.includes(feature.meaning))
    .map((feature) => levelsOf(feature, params, context))
    .filter((levels) => levels.length > 0);
  const planner = new ClearPlanner(params, context, work.flatMap(deepest).length);
  if (findings.some((f) => f.level === 'stop')) return { path: planner.path.build(), findings };
  const cut: Level[][] = [];
  for (const levels of work) {
    const thickest = finishesAlone(params) ? 0 : Math.max(...levels.map((l) => l.from - l.z));
    const { feature, z } = levels[levels.length - 1];
    const depth = context.top - z;
    const reach = reachFindings(context, depth, thickest, wallBeside(context, feature.id, depth));
    findings.push(...reach);
    if (!reach.some((f) => f.level === 'stop')) cut.push(levels);
  }
  const together = params.order === 'by layer' ? [cut] : cut.map((levels) => [levels]);
  for (const some of together) {
    const levels = some.flat();
    if (params.order === 'by layer') levels.sort((a, b) => b.z - a.z);
    if (!finishesAlone(params)) {
      for (const level of levels) planner.clear(level);
      for (const own of some) planner.idle(own);
    }
    if (params.finish) for (const own of some) for (const level of deepest(own)) planner.finish(level);
  }
  return { path: planner.path.build(), findings: [...findings, ...unique(planner.findings)] };
}

/** The same thing is told once, though it holds for every layer. */
const unique = (findings: Finding[]) =>
  findings.filter((f, i) => findings.findIndex((g) => g.code === f.code && g.message === f.message) === i);

export const clear: OperationKind<ClearParams> = {
  kind: 'clear',
  title: 'Clear at a steady load',
  verb: (p) => (finishesAlone(p) ? 'Finish' : 'Clear'),
  process: 'milling',
  stage: ({ onOutside, finishesAfter }) => (onOutside || !finishesAfter ? 'rough' : 'finish'),
  works: ['pocket', 'outline'],
  compensates: finishCompensates,
  frees: (targets) => targets.some((f) => f.meaning === 'outline'),
  takesHeights: 'start and end',
  takesBegins: true,
  takesBounds: true,
  entry: 'entryAngle',
  suits: cutsWalls,
  Params: ClearParams,
  biting: 'steady',
  defaults: ({ tool, material, machine, boldness }) => {
    const bite = suggestSteadyBite(tool, material, machine, boldness);
    return {
      stepover: bite.ae,
      layer: bite.ap,
      from: 'what is left',
      wallAllowance: 0,
      ...finishDefaults(tool),
      floorAllowance: 0,
      breakthrough: 0.2,
      flats: true,
      direction: 'climb',
      entryAngle: suggestEntry(tool, material).angle,
      helix: 0.8,
      turn: Math.round(tool.diameter * 5) / 100,
      careful: false,
      firstBite: 0.5,
      firstFeed: 0.7,
      raise: true,
      linkFeed: Math.min(machine.maxFeed, 6000),
      lift: 0.05,
      keepDown: 1,
      longestBack: 200,
      feedOver: false,
    };
  },
  bite: (p, tool, deep) => {
    if (finishesAlone(p)) return finishBite(p, deep, tool.fluteLength);
    const ae = Math.min(p.stepover, tool.diameter);
    return { ae, ap: evenLayer(deep, p.layer), peakAe: ae, leaves: leftFor(p) };
  },
  usesEarlier: (p) => p.from === 'what is left',
  // Round a pocket it runs out by its radius and a little.
  looksOver: (targets, tool) =>
    targets.some((f) => f.meaning === 'outline')
      ? undefined
      : growBounds(boundsOf(targets.flatMap(regionOf).flat()), tool.diameter / 2 + 2 * OUT),
  plan,
};
