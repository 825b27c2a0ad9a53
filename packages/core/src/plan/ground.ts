import { union } from '../geometry/plane/clip';
import { Bounds, boundsOf, isEmpty } from '../geometry/plane/point';
import { PartModel } from '../part/plate/model';
import { FixtureBox } from '../geometry/space/box';
import { StockModel } from '../stock/height/stock';
import { partIn } from '../document/edit';
import { flatten } from '../geometry/plane/chain';
import { Feature } from '../part/plate/feature';
import { leaningFaces } from '../part/plate/leaning';
import { instancesOf } from '../part/plate/shapes';
import { bodyAs, bodyOf } from '../part/plate/side';
import { Body, Turn, isFlat, turnBetween, turnPlace, turnPoint, turnsOver } from '../part/plate/turn';
import { modelOf, partModel } from '../part/plate/model';
import { laidOperations, laidOut, placesOfCopies } from '../document/copies';
import { repeatedPart, targetsOf } from '../document/repeats';
import { clampsAfter, handOf } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { freshId } from '../quantity/ids';
import { HeldBy, heldBy } from '../holding/held';
import { Work } from '../holding/holding';
import { Fixture, Job, Setup } from '../document/job';
import { blankOf, leaningBlank, rectangle } from './blank';
import { leaningZero, zeroOf } from './zero';

/** Stand-in for a part that has no outside yet, so that everything can still be drawn. */
const NO_PART: Bounds = { minX: 0, minY: 0, maxX: 100, maxY: 60 };

const partBounds = (model: PartModel): Bounds => (isEmpty(model.bounds) ? NO_PART : model.bounds);

/** A setup as it stands on the machine: its job with the part as it lies, what is drawn, the stock and the zero. */
export interface Ground {
  job: Job;
  setup: Setup;
  model: PartModel;
  /** The part with the copies that repeated operations make. */
  repeated: Job['part'];
  /** Its model. */
  whole: PartModel;
  stock: StockModel;
  zero: { x: number; y: number; z: number };
  /** Height at which rapids are free of everything. */
  clearance: number;
  fixtures: FixtureBox[];
  /** What is there to be held, and what holds it, put to it. */
  work: Work;
  held: HeldBy[];
  /** The same before it was made to lean, where it is. */
  flat?: Ground;
}

/** The job as somebody sees it who stands before a setup: the part lies as it does there. */
export function asSeen(job: Job, setup: Pick<Setup, 'up' | 'lean'>): Job {
  const part = partIn(job.part, setup);
  return part === job.part ? job : { ...job, part };
}

/** How high the stock stands over what an operation opens, where it leans: there its layers begin, not at the highest edge. */
export function topOver({ work: { leaning } }: Ground, targets: Feature[]): number | undefined {
  const opens = targets.length > 0 && targets.every((f) => f.meaning === 'pocket' || f.meaning === 'hole');
  if (!leaning || !opens) return undefined;
  const { lean, body, flat } = leaning;
  const block = { ...boundsOf(flat.region.flat()), top: flat.top, bottom: flat.bottom };
  const faces = leaningFaces(lean, body, block);
  const over = targets.flatMap(instancesOf).flatMap((chain) => flatten(chain, FINE));
  const tops = over.flatMap((p) => faces(p)?.top ?? []);
  return tops.length > 0 ? Math.max(...tops) : undefined;
}

/** Chords of outlines under which the slope is looked up, mm. */
const FINE = 0.05;

/** The job with the part as it lies, and all others of its blank. */
function withAll(seen: Job, setup: Setup): Job {
  const part = laidOut(seen.part, setup);
  return part === seen.part ? seen : { ...seen, part };
}

/** The setup whose leavings a setup starts from, where it does. */
export function beforeOf(job: Job, setup: Setup): Setup | undefined {
  const before = job.setups[job.setups.findIndex((s) => s.id === setup.id) - 1];
  // What leans goes on from nothing, and nothing from it.
  return setup.stock.shape === 'as left' && before && !before.lean && !setup.lean ? before : undefined;
}

/** What stands in the way of tools when an operation begins: what holds the work, and boxes of the setup or of the last grip before it. */
export const fixturesFor = ({ setup, held }: Ground, operationId: string): FixtureBox[] => [
  ...clampsBefore(setup, operationId).map(boxOf),
  ...bodiesOf(held),
];

/** All bodies of what holds the work. */
export const bodiesOf = (held: HeldBy[]): FixtureBox[] => held.flatMap((h) => h.placed.bodies);

/**
 * The same as they are kept.
 * @param operationId undefined for the start
 * @param isAfter whether they are asked for as the operation leaves them
 */
export function clampsBefore(
  { fixtures, operations }: Setup,
  operationId: string | undefined,
  isAfter = false,
): Fixture[] {
  const at = operations.findIndex((o) => o.id === operationId);
  const ran = at < 0 ? [] : operations.slice(0, at + (isAfter ? 1 : 0));
  return (
    ran
      .map(clampsAfter)
      .filter((c) => c !== undefined)
      .pop() ?? fixtures
  );
}

/** The steps of a route that grip the work anew. */
export const gripsOf = ({ operations }: Setup) => operations.filter((o) => handOf(o)?.what === 'grip anew');

/** How the work is turned from one setup to another. */
export const turnOf = (from: Setup, to: Setup): Turn => turnBetween(from.up ?? 'top', to.up ?? 'top');

/**
 * What a setup works on.
 * @param model makes a part's model; pass one that remembers
 */
export function groundOf(job: Job, setup: Setup, model: (part: Job['part']) => PartModel = modelOf): Ground {
  const seen = withAll(asSeen(job, setup), setup);
  const laid = { ...setup, operations: laidOperations(setup) };
  const drawn = model(seen.part);
  const before = beforeOf(job, setup);
  const flat = setup.lean && groundOf(job, { ...setup, lean: undefined, holding: [] }, model);
  const body = bodyOf(job.part);
  const stock = before
    ? leftStock(job, before, setup, model)
    : setup.lean && flat
      ? leaningBlank(flat.stock, setup.lean, body)
      : blankOf(setup, drawn, partBounds(drawn));
  const repeated = repeatedPart(seen.part, laid);
  const leaning = setup.lean && flat && { lean: setup.lean, body, flat: flat.stock };
  const work = { ...workOf(job, setup, { model: drawn, features: seen.part.features, stock }), leaning };
  const held = heldBy(setup.holding ?? [], work);
  return {
    job: seen,
    setup: laid,
    model: drawn,
    repeated,
    whole: repeated === seen.part ? drawn : model(repeated),
    stock,
    zero: leaning
      ? leaningZero(setup, drawn, flat!.zero, leaning)
      : zeroOf(setup, drawn, partBounds(drawn), stock, held),
    clearance: stock.top + setup.clearance,
    fixtures: [...setup.fixtures.map(boxOf), ...bodiesOf(held)],
    work,
    held,
    flat,
  };
}

/** What is there to be gripped in a setup: the part where it was cut round before, else its stock. */
function workOf(job: Job, setup: Setup, { model, features, stock }: Omit<Work, 'outline' | 'parts'>): Work {
  const isPart = chainBefore(job, setup).some((s) => isCutRound(job, s)) || isOtherHalfCut(job, setup);
  return {
    model,
    features,
    stock,
    outline: isPart ? model.outline : stock.region,
    parts: placesOfCopies(setup).length,
  };
}

/** The setups that one starts from, the first first. */
export function chainBefore(job: Job, setup: Setup): Setup[] {
  const before = beforeOf(job, setup);
  return before ? [...chainBefore(job, before), before] : [];
}

/** The outside of what a setup leaves, as it lies in the next. What is exactly left, the proof knows. */
function leftStock(job: Job, from: Setup, to: Setup, model: (part: Job['part']) => PartModel): StockModel {
  const before = groundOf(job, firstOnly(job, from), model);
  const stock = isCutFree(job, from) ? { ...before.stock, region: before.model.outline } : before.stock;
  const one = turnedStock(job, from, to, stock);
  const places = placesOfCopies(to);
  if (places.length === 1) return one;
  return {
    ...one,
    region: union(
      places.flatMap(({ x, y }) => one.region.map((ring) => ring.map((p) => ({ x: p.x + x, y: p.y + y })))),
    ),
  };
}

/** A setup with the first of its parts alone, sawn off half way to the next. */
function firstOnly(job: Job, setup: Setup): Setup {
  const { copies, stock } = setup;
  if (!copies) return setup;
  const { size } = bodyAs(job.part, setup.up ?? 'top');
  const half = (pitch: number, wide: number, most: number) => Math.max(0, Math.min(most, (pitch - wide) / 2));
  const right = copies.columns > 1 ? half(copies.dx, size[0], stock.right) : stock.right;
  const back = copies.rows > 1 ? half(copies.dy, size[1], stock.back) : stock.back;
  return { ...setup, copies: undefined, stock: { ...stock, right, back } };
}

/** Stock as it lies in the next setup. */
function turnedStock(job: Job, from: Setup, to: Setup, stock: StockModel): StockModel {
  const turn = turnOf(from, to);
  const body = bodyAs(job.part, from.up ?? 'top');
  if (!isFlat(turn))
    return uprightStock({ ...stock, ...(isFaced(from) && { top: Math.min(0, stock.top) }) }, turn, body);
  return {
    region: stock.region.map((ring) => {
      const turned = ring.map((p) => turnPoint(turn, p, body));
      return turnsOver(turn) ? turned.reverse() : turned;
    }),
    ...leftHeights(job, from, to, stock),
  };
}

/** Whether a setup cuts all the way round the part. */
function isCutRound(job: Job, setup: Setup): boolean {
  const far = cutsRound(job, setup);
  return far === 'all' || (far === 'half' && isOtherHalfCut(job, setup));
}

/** Whether the part was cut round half way before, from its other side. */
export const isOtherHalfCut = (job: Job, setup: Setup): boolean =>
  chainBefore(job, setup).some((s) => cutsRound(job, s) === 'half' && turnsOver(turnOf(s, setup)));

/** How far down a setup cuts round the part: nowhere, to where an operation was told to end, or all of it. */
function cutsRound({ part }: Job, { operations }: Setup): 'all' | 'half' | undefined {
  const round = operations.filter((o) => o.on && kindOf(o.kind)?.frees?.(targetsOf(o, part)));
  if (round.length === 0) return undefined;
  return round.some((o) => !o.heights?.end) ? 'all' : 'half';
}

/** Whether a setup cuts the side of the part that is up. */
export const isFaced = ({ operations }: Setup): boolean => operations.some((o) => o.on && kindOf(o.kind)?.lowersTop);

/** Less stock below the part does not hold it, mm. */
const NONE_BELOW = 0.01;

/** Whether the part stands free of its stock after a setup: cut all round, with nothing below, or faced from there since. */
function isCutFree(job: Job, setup: Setup): boolean {
  const chain = [...chainBefore(job, setup), setup];
  return chain.some((cut, i) => {
    if (!isCutRound(job, cut)) return false;
    const below = -heightsOf(job, cut).bottom - asSeen(job, cut).part.thickness;
    return below < NONE_BELOW || chain.slice(i + 1).some((s) => turnsOver(turnOf(cut, s)) && isFaced(s));
  });
}

/** The box round a piece once another side is up. */
function uprightStock({ region, top, bottom }: StockModel, turn: Turn, body: Body): StockModel {
  const { minX, maxX, minY, maxY } = boundsOf(region.flat());
  const corners = [
    { x: minX, y: minY, z: bottom },
    { x: maxX, y: maxY, z: top },
  ].map((p) => turnPlace(turn, p, body));
  const zs = corners.map((p) => p.z);
  return { region: [rectangle(boundsOf(corners))], top: Math.max(...zs), bottom: Math.min(...zs) };
}

/** Top and underside of a setup's stock, Z 0 at the part's top. */
type Heights = Pick<StockModel, 'top' | 'bottom'>;

/** The heights of what a setup leaves of its stock, as it lies in the next. */
function leftHeights(job: Job, from: Setup, to: Setup, { top, bottom }: Heights): Heights {
  const left = { top: isFaced(from) ? Math.min(top, 0) : top, bottom };
  if (!turnsOver(turnOf(from, to))) return left;
  const [, , thickness] = bodyAs(job.part, from.up ?? 'top').size;
  return { top: -thickness - left.bottom, bottom: -thickness - left.top };
}

/** Heights of a setup's stock as far as its figures tell them at once; what a casting or a lying bar is like, its ground knows. */
export function heightsOf(job: Job, setup: Setup): Heights {
  const before = beforeOf(job, setup);
  if (before && !isFlat(turnOf(before, setup))) {
    const { stock } = groundOf(job, setup, partModel);
    return { top: stock.top, bottom: stock.bottom };
  }
  if (before) return leftHeights(job, before, setup, heightsOf(job, before));
  const { shape, top, bottom } = setup.stock;
  return { top: shape === 'casting' ? 0 : top, bottom: -asSeen(job, setup).part.thickness - bottom };
}

export const boxOf = (f: Fixture): FixtureBox => ({
  name: f.name,
  minX: f.x,
  minY: f.y,
  minZ: f.z,
  maxX: f.x + f.width,
  maxY: f.y + f.depth,
  maxZ: f.z + f.height,
});

/** A clamp to begin with: how wide and deep it is, and how far it stands above the stock, mm. */
const CLAMP = { width: 25, depth: 20, above: 8 };

/** A clamp at the middle of the stock's left side, as high as the stock and a little more. */
export function clampBeside(stock: StockModel, taken: Fixture[]): Fixture {
  const { minX, minY, maxY } = boundsOf(stock.region.flat());
  return {
    id: freshId(
      'clamp',
      taken.map((f) => f.id),
    ),
    name: 'Clamp',
    x: minX - CLAMP.width,
    y: (minY + maxY) / 2 - CLAMP.depth / 2,
    z: stock.bottom,
    width: CLAMP.width,
    depth: CLAMP.depth,
    height: stock.top - stock.bottom + CLAMP.above,
  };
}
