/** What is said of the grip and the zero of a setup: before anything is cut, and by its proof. */
import { withSetup } from '../document/edit';
import { Holding } from '../document/holding';
import { Job, Setup } from '../document/job';
import { offsetsOf } from '../document/stations';
import { holdingOf } from '../holding/registry';
import { kindOf } from '../operation/registry';
import { bodyAs } from '../part/plate/side';
import { partModel } from '../part/plate/model';
import { freshId } from '../quantity/ids';
import { Tool } from '../shop/tool';
import { heldFindings } from '../holding/held';
import { Bounds, Point } from '../geometry/plane/point';
import { Finding, finding } from '../quantity/finding';
import { stationBounds } from './everywhere';
import { Ground, chainBefore, groundOf } from './ground';
import { middleOfFeature } from './zero';

/** The last work offset a setup can be told. */
const LAST_OFFSET = 'G59';

/** A zero so near to a jaw is at it, mm. */
const AT_JAW = 0.01;

const isAt = ({ x, y }: Point, { minX, maxX, minY, maxY }: Bounds): boolean =>
  [minX - x, maxX - x, minY - y, maxY - y].some((away) => Math.abs(away) < AT_JAW);

/** What speaks against where the zero is. */
function zeroFindings({ setup, held, zero, model }: Ground): Finding[] {
  const { on, of = '', point } = setup.zero;
  const place = { field: 'zero' };
  if (on === 'feature') return middleOfFeature(model, of) ? [] : [finding('zero-nowhere', { of }, place)];
  if (on === 'holding') {
    const stands = held.some((h) => h.holding.id === of && h.placed.fixed);
    return stands ? [] : [finding('zero-nowhere', { of }, place)];
  }
  const shifting = point === 'centre' ? undefined : held.find(({ placed: { moves } }) => moves && isAt(zero, moves));
  return shifting ? [finding('zero-at-moving-jaw', { name: shifting.holding.name }, place)] : [];
}

/** Holes a grip needs that no setup before makes. */
function neededFirst(job: Job, { setup, held }: Ground): Finding[] {
  const made = new Set(chainBefore(job, setup).flatMap((s) => s.operations.flatMap((o) => (o.on ? o.targets : []))));
  return held.flatMap(({ holding, placed }) => {
    const holes = job.part.features.find((f) => f.id === placed.needs && !made.has(f.id));
    return holes
      ? [
          finding(
            'screws-undrilled',
            { name: holding.name, holes: holes.name },
            { field: `holding.${holding.id}.holes` },
          ),
        ]
      : [];
  });
}

/** The widest tool of a setup that cuts round the part. */
function cutsRound(job: Job, { operations }: Setup): Tool | undefined {
  const outlines = new Set(job.part.features.filter((f) => f.meaning === 'outline').map((f) => f.id));
  return operations
    .filter((o) => o.on && o.targets.some((id) => outlines.has(id)) && kindOf(o.kind)?.frees)
    .flatMap((o) => job.tools.find((t) => t.id === o.toolId) ?? [])
    .sort((a, b) => b.diameter - a.diameter)[0];
}

/** Names of what presses on walls that an earlier setup cut to size, with jaws that are not cut to them. */
export const pressesOnFinished = ({ model, work, held }: Ground): string[] =>
  work.outline === model.outline
    ? held
        .filter(({ holding, placed }) => placed.contacts.length > 0 && holding.kind !== 'soft jaws')
        .map((h) => h.holding.name)
    : [];

/** Room between parts of one blank to start with, mm: what cuts round them goes through, with a little more. */
export const facingGap = (job: Job, setup: Setup): number => (cutsRound(job, setup)?.diameter ?? 10) + 1;

/** Parts of one blank that lie too near to each other to be cut apart. */
function copiesFindings(job: Job, { setup }: Ground): Finding[] {
  const { copies, up = 'top' } = setup;
  if (!copies) return [];
  const { size } = bodyAs(job.part, up);
  const gaps = [
    ...(copies.columns > 1 ? [{ field: 'copies.dx', gap: copies.dx - size[0] }] : []),
    ...(copies.rows > 1 ? [{ field: 'copies.dy', gap: copies.dy - size[1] }] : []),
  ];
  const around = cutsRound(job, setup);
  return gaps.flatMap(({ field, gap }) => {
    if (gap < 0) return [finding('copies-overlap', { by: -gap }, { field })];
    if (!around || gap >= around.diameter) return [];
    return [
      finding('copies-too-close', { gap, tool: around.name, diameter: around.diameter }, { field, tool: around.id }),
    ];
  });
}

/** Room between stations to start with, mm: the widest tool comes down between them. */
const BETWEEN = 20;

/** How far apart stations stand to start with, mm: one’s stock and all that holds it, and room for the widest tool beside it. */
export function stationPitch(job: Job, ground: Ground): number {
  const { minX, maxX } = stationBounds(ground);
  const used = new Set(ground.setup.operations.map((o) => o.toolId));
  const widest = Math.max(0, ...job.tools.filter((t) => used.has(t.id)).map((t) => t.diameter));
  return Math.ceil(maxX - minX + widest + BETWEEN);
}

/** Stations that stand into each other, or whose zeros the control has no number for. */
function stationFindings({ setup, ...ground }: Ground): Finding[] {
  const { stations } = setup;
  if (!stations) return [];
  const last = offsetsOf(setup)[stations.count - 1];
  const { minX, maxX, minY, maxY } = stationBounds({ setup, ...ground });
  const [x, y] = [maxX - minX - Math.abs(stations.dx), maxY - minY - Math.abs(stations.dy)];
  const into = Math.min(x, y) > AT_JAW ? [finding('stations-overlap', { x, y }, { field: 'stations.dx' })] : [];
  if (LAST_OFFSET >= last) return into;
  return [...into, finding('stations-no-offset', { last, count: stations.count }, { field: 'stations.count' })];
}

/** What speaks against where the zero is and how the work is held, before anything is cut. */
export const holdFindings = (job: Job, ground: Ground): Finding[] => [
  ...copiesFindings(job, ground),
  ...stationFindings(ground),
  ...heldFindings(ground.held),
  ...zeroFindings(ground),
  ...neededFirst(job, ground),
];

/**
 * The job with one more thing that holds the work of a setup, as it would start there.
 * @param asked values that are known already
 */
export function addHolding(job: Job, setup: Setup, kind: string, asked: Record<string, unknown> = {}): Job {
  const found = holdingOf(kind);
  if (!found) return job;
  const { holding = [] } = setup;
  const id = freshId(
    'h',
    holding.map((h) => h.id),
  );
  const alike = holding.filter((h) => h.kind === kind).length;
  const name = alike ? `${found.title} ${alike + 1}` : found.title;
  const starts = found.starts(groundOf(job, setup, partModel).work);
  return withSetup(job, { ...setup, holding: [...holding, { id, kind, name, params: { ...starts, ...asked } }] });
}

/** A setup with one of the things that hold its work changed; without it where nothing is given. */
export const withHolding = (setup: Setup, id: string, next?: Holding): Setup => ({
  ...setup,
  holding: (setup.holding ?? []).flatMap((h) => (h.id !== id ? [h] : next ? [next] : [])),
});
