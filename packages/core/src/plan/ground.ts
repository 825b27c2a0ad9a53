import { circle, flatten } from '../geometry/plane/chain';
import { Bounds, Point, boundsOf, growBounds, isEmpty } from '../geometry/plane/point';
import { PartModel } from '../part/plate/model';
import { linesOf } from '../part/plate/shapes';
import { FixtureBox } from '../geometry/space/box';
import { atHand } from '../document/files';
import { meshIn } from '../stock/height/mesh';
import { StockModel } from '../stock/height/stock';
import { bodyAs, seenFrom } from '../part/plate/side';
import { Body, Turn, isFlat, turnBetween, turnPlace, turnPoint, turnsOver } from '../part/plate/turn';
import { modelOf, partModel } from '../part/plate/model';
import { repeatedPart, targetsOf } from '../document/repeats';
import { clampsAfter, handOf } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { freshId } from '../quantity/ids';
import { Fixture, Job, Setup } from '../document/job';

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
}

/** The job as somebody sees it who stands before a setup: the part lies as it does there. */
export function asSeen(job: Job, { up = 'top' }: Pick<Setup, 'up'>): Job {
  const part = seenFrom(job.part, up);
  return part === job.part ? job : { ...job, part };
}

/** The setup whose leavings a setup starts from, where it does. */
export function beforeOf(job: Job, setup: Setup): Setup | undefined {
  const index = job.setups.findIndex((s) => s.id === setup.id);
  return setup.stock.shape === 'as left' && index > 0 ? job.setups[index - 1] : undefined;
}

/** Clamps and jaws as they stand when an operation begins: those of the setup, or of the last grip before it. */
export const fixturesFor = (setup: Setup, operationId: string): FixtureBox[] =>
  clampsBefore(setup, operationId).map(boxOf);

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
  const seen = asSeen(job, setup);
  const drawn = model(seen.part);
  const before = beforeOf(job, setup);
  const stock = before ? leftStock(job, before, setup, model) : blankOf(setup, drawn);
  const repeated = repeatedPart(seen.part, setup);
  return {
    job: seen,
    setup,
    model: drawn,
    repeated,
    whole: repeated === seen.part ? drawn : model(repeated),
    stock,
    zero: zeroOf(setup, drawn, stock),
    clearance: stock.top + setup.clearance,
    fixtures: setup.fixtures.map(boxOf),
  };
}

/** The outside of what a setup leaves, as it lies in the next. What is exactly left, the proof knows. */
function leftStock(job: Job, from: Setup, to: Setup, model: (part: Job['part']) => PartModel): StockModel {
  const before = groundOf(job, from, model);
  const stock = isCutFree(job, from) ? { ...before.stock, region: before.model.outline } : before.stock;
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
const isCutRound = ({ part }: Job, { operations }: Setup): boolean =>
  operations.some((o) => o.on && kindOf(o.kind)?.frees?.(targetsOf(o, part)));

/** Whether a setup cuts the side of the part that is up. */
export const isFaced = ({ operations }: Setup): boolean => operations.some((o) => o.on && kindOf(o.kind)?.lowersTop);

/** Less stock below the part does not hold it, mm. */
const NONE_BELOW = 0.01;

/** Whether the part stands free of its stock after a setup: cut all round, with nothing below, or faced from there since. */
function isCutFree(job: Job, setup: Setup): boolean {
  const chain: Setup[] = [];
  for (let s: Setup | undefined = setup; s; s = beforeOf(job, s)) chain.unshift(s);
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

/** A fresh piece of stock in part coordinates. */
function blankOf({ stock }: Setup, model: PartModel): StockModel {
  const box = partBounds(model);
  const grown = {
    minX: box.minX - stock.left,
    minY: box.minY - stock.front,
    maxX: box.maxX + stock.right,
    maxY: box.maxY + stock.back,
  };
  const heights = { top: stock.top, bottom: -model.thickness - stock.bottom };
  const cast = stock.shape === 'casting' && stock.casting ? castingOf(stock.casting.sha256, box, stock.top) : undefined;
  if (cast) return cast;
  const isRound = stock.shape === 'round' || stock.shape === 'tube';
  if (stock.lies === 'along X' || stock.lies === 'along Y')
    return lyingBlank(stock, isRound ? box : grown, grown, { ...heights, thickness: model.thickness });
  if (!isRound) return { region: [roundedBox(grown, stock.corner ?? 0)], ...heights };
  const ring = (diameter: number) =>
    flatten(circle((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2, diameter / 2), 0.001);
  const bore = boreOf(stock);
  return { region: bore > 0 ? [ring(stock.diameter), ring(bore).reverse()] : [ring(stock.diameter)], ...heights };
}

/** A casting with its middle over the part's; undefined where its file is not at hand or cannot be read. */
function castingOf(sha256: string, part: Bounds, top: number): StockModel | undefined {
  const file = atHand(sha256);
  const mesh = file && meshIn(file);
  if (!mesh) return undefined;
  const { min, max } = mesh;
  const x = (part.minX + part.maxX - min[0] - max[0]) / 2;
  const y = (part.minY + part.maxY - min[1] - max[1]) / 2;
  const z = top - max[2];
  const bounds = { minX: min[0] + x, maxX: max[0] + x, minY: min[1] + y, maxY: max[1] + y };
  return { region: [rectangle(bounds)], top, bottom: min[2] + z, casting: { mesh, by: [x, y, z] } };
}

/** Thinnest wall of a tube, mm. */
const THINNEST = 0.1;
const boreOf = ({ shape, bore = 0, diameter }: Setup['stock']) =>
  shape === 'tube' ? Math.max(0, Math.min(bore, diameter - 2 * THINNEST)) : 0;

/** A bar that lies: along its axis as long as the piece is asked to be; round ones about the part's middle. */
function lyingBlank(
  stock: Setup['stock'],
  about: Bounds,
  long: Bounds,
  { top, bottom, thickness }: { top: number; bottom: number; thickness: number },
): StockModel {
  const axis = stock.lies === 'along X' ? ('x' as const) : ('y' as const);
  const [low, high] = axis === 'x' ? [about.minY, about.maxY] : [about.minX, about.maxX];
  const isRound = stock.shape !== 'box';
  const width = isRound ? stock.diameter : high - low;
  const height = isRound ? stock.diameter : top - bottom;
  const middle = { across: (low + high) / 2, z: isRound ? -thickness / 2 : (top + bottom) / 2 };
  const [from, to] = [middle.across - width / 2, middle.across + width / 2];
  return {
    region: [rectangle(axis === 'x' ? { ...long, minY: from, maxY: to } : { ...long, minX: from, maxX: to })],
    top: middle.z + height / 2,
    bottom: middle.z - height / 2,
    lying: {
      axis,
      middle,
      width,
      height,
      corner: isRound ? width / 2 : Math.min(stock.corner ?? 0, width / 2, height / 2),
      bore: boreOf(stock),
    },
  };
}

/** A box with rounded upright edges. */
function roundedBox(b: Bounds, corner: number): Point[] {
  const [width, height] = [b.maxX - b.minX, b.maxY - b.minY];
  const radius = Math.min(corner, width / 2, height / 2);
  if (radius <= 0) return rectangle(b);
  const shape = { type: 'rectangle' as const, width, height, radius };
  const [x, y] = [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2];
  return flatten(linesOf(shape)[0], 0.001).map((p) => ({ x: p.x + x, y: p.y + y }));
}

const rectangle = (b: Bounds) => [
  { x: b.minX, y: b.minY },
  { x: b.maxX, y: b.minY },
  { x: b.maxX, y: b.maxY },
  { x: b.minX, y: b.maxY },
];

/** Work zero of a setup in part coordinates. */
function zeroOf(setup: Setup, model: PartModel, stock: StockModel): { x: number; y: number; z: number } {
  const { on, point, height } = setup.zero;
  const points = on === 'stock' ? stock.region.flat() : undefined;
  const box = points
    ? {
        minX: Math.min(...points.map((p) => p.x)),
        maxX: Math.max(...points.map((p) => p.x)),
        minY: Math.min(...points.map((p) => p.y)),
        maxY: Math.max(...points.map((p) => p.y)),
      }
    : partBounds(model);
  const z = on === 'stock' ? (height === 'top' ? stock.top : stock.bottom) : height === 'top' ? 0 : -model.thickness;
  if (point === 'centre') return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2, z };
  return { x: point.endsWith('left') ? box.minX : box.maxX, y: point.startsWith('front') ? box.minY : box.maxY, z };
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

/** Reach of jaws up the work at most, mm; of the stock below the part, and of work that has none below, they take so much. */
const GRIP = 4;
const OF_BELOW = 0.7;
const OF_ALL = 1 / 3;

/** Vise jaws for a setup: on the stock below the part where there is some, on the part itself where it was cut free before. */
export function jawsFor(job: Job, setup: Setup): Fixture[] {
  const { stock, model } = groundOf(job, setup);
  const before = beforeOf(job, setup);
  const isFree = before && isCutRound(job, before);
  const below = -stock.bottom - model.thickness;
  const grip = below > 0.5 ? below * OF_BELOW : (stock.top - stock.bottom) * OF_ALL;
  return viseJaws(isFree ? { ...stock, region: model.outline } : stock, Math.min(GRIP, grip));
}

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

const JAW = { thickness: 18, overhang: 5, below: 25 };

/** Two vise jaws that grip the stock front and back, their tops `grip` mm above the underside of the stock. */
export function viseJaws(stock: StockModel, grip: number): Fixture[] {
  const xs = stock.region.flat().map((p) => p.x);
  const ys = stock.region.flat().map((p) => p.y);
  const b = growBounds(
    { minX: Math.min(...xs), maxX: Math.max(...xs), minY: Math.min(...ys), maxY: Math.max(...ys) },
    0,
  );
  const common = {
    x: b.minX - JAW.overhang,
    width: b.maxX - b.minX + 2 * JAW.overhang,
    z: stock.bottom + grip - JAW.below,
    depth: JAW.thickness,
    height: JAW.below,
  };
  return [
    { id: 'fixed-jaw', name: 'Fixed jaw', y: b.maxY, ...common },
    { id: 'moving-jaw', name: 'Moving jaw', y: b.minY - JAW.thickness, ...common },
  ];
}
