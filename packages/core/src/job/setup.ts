import { circle, flatten } from '../geometry/chain';
import { Bounds, growBounds, isEmpty } from '../geometry/point';
import { PartModel } from '../part/model';
import { FixtureBox } from '../geometry/box';
import { StockModel } from '../simulate/stock';
import { Fixture, Setup } from './job';

/** Stand-in for a part that has no outside yet, so that everything can still be drawn. */
const NO_PART: Bounds = { minX: 0, minY: 0, maxX: 100, maxY: 60 };

export const partBounds = (model: PartModel): Bounds => (isEmpty(model.bounds) ? NO_PART : model.bounds);

/** The stock of a setup in part coordinates. */
export function stockOf(setup: Setup, model: PartModel): StockModel {
  const { stock } = setup;
  const box = partBounds(model);
  const heights = { top: stock.top, bottom: -model.thickness - stock.bottom };
  if (stock.shape === 'round') {
    const c = circle((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2, stock.diameter / 2);
    return { region: [flatten(c, 0.001)], ...heights };
  }
  const b = {
    minX: box.minX - stock.left,
    minY: box.minY - stock.front,
    maxX: box.maxX + stock.right,
    maxY: box.maxY + stock.back,
  };
  return { region: [rectangle(b)], ...heights };
}

const rectangle = (b: Bounds) => [
  { x: b.minX, y: b.minY },
  { x: b.maxX, y: b.minY },
  { x: b.maxX, y: b.maxY },
  { x: b.minX, y: b.maxY },
];

/** Work zero of a setup in part coordinates. */
export function zeroOf(setup: Setup, model: PartModel, stock: StockModel): { x: number; y: number; z: number } {
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
