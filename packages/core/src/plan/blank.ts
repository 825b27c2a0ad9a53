import { circle, flatten } from '../geometry/plane/chain';
import { Bounds, Point, boundsOf } from '../geometry/plane/point';
import { Lean, leaningPlace } from '../part/plate/leaning';
import type { Body } from '../part/plate/turn';
import { PartModel } from '../part/plate/model';
import { linesOf } from '../part/plate/shapes';
import { atHand } from '../quantity/files';
import { Setup } from '../document/job';
import { meshIn, meshOf } from '../stock/height/mesh';
import { StockModel } from '../stock/height/stock';

/** A fresh piece of stock in part coordinates. */
export function blankOf({ stock }: Setup, model: PartModel, box: Bounds): StockModel {
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

/** Corners of a box by its low and high ends, and its six faces of them, seen from outside. */
const CORNERS = Array.from({ length: 8 }, (_, i) => [i & 1, (i >> 1) & 1, i >> 2]);
const FACES_OF_BOX = [
  [0, 2, 3, 1],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 4, 6, 2],
  [1, 3, 7, 5],
];

/** A block set to lean: its metal as a mesh. */
export function leaningBlank(flat: StockModel, lean: Lean, body: Body): StockModel {
  const { minX, maxX, minY, maxY } = boundsOf(flat.region.flat());
  const ends = [
    [minX, maxX],
    [minY, maxY],
    [flat.bottom, flat.top],
  ];
  const corners = CORNERS.map((at) => {
    const [x, y, z] = at.map((end, k) => ends[k][end]);
    return leaningPlace(lean, { x, y, z }, body);
  });
  const triangles = FACES_OF_BOX.flatMap(([a, b, c, d]) => [a, b, c, a, c, d])
    .map((i) => corners[i])
    .flatMap(({ x, y, z }) => [x, y, z]);
  const mesh = meshOf(Float32Array.from(triangles))!;
  const zs = corners.map((p) => p.z);
  return {
    region: [rectangle(boundsOf(corners))],
    top: Math.max(...zs),
    bottom: Math.min(...zs),
    casting: { mesh, by: [0, 0, 0] },
  };
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

export const rectangle = (b: Bounds) => [
  { x: b.minX, y: b.minY },
  { x: b.maxX, y: b.minY },
  { x: b.maxX, y: b.maxY },
  { x: b.minX, y: b.maxY },
];
