/** Blanks sawn off the bars and plates the shop keeps. */
import { Bounds, Point } from '../geometry/plane/point';
import { maths } from '../quantity/maths';
import { Bar, sectionArea } from '../shop/bar';
import { densityOf } from '../shop/library/origin';
import { Material } from '../shop/material';
import { LIES, StockSpec } from './job';
import { STOCK_AXES, StockAxis, partSize, stockSize, withStockSize } from './stock';

/** What is to come out of a blank: the part as it lies, with all that are cut from the same blank. */
export interface Wanted {
  bounds: Bounds;
  thickness: number;
  outline: Point[][];
}

/** Sizes that agree so far are the same, mm. */
const SAME = 0.01;
const isSame = (a: number, b: number) => Math.abs(a - b) < SAME;

const AXIS_OF: Record<(typeof LIES)[number], StockAxis> = { upright: 'Z', 'along X': 'X', 'along Y': 'Y' };
const LYING = { X: 'along X', Y: 'along Y', Z: 'upright' } as const;
const othersOf = (axis: StockAxis) => STOCK_AXES.filter((a) => a !== axis);

/** The axis a bar runs along as its blank stands; undefined for plate. */
export const barPlaceOf = ({ bar, lies = 'upright' }: StockSpec): StockAxis | undefined =>
  bar && bar.section !== 'plate' ? AXIS_OF[lies] : undefined;

/** The axis a blank's bar runs along; of a plate the one its thickness stands in. */
function barAxis(stock: StockSpec, bar: Bar, part: Wanted): StockAxis | undefined {
  const size = (axis: StockAxis) => stockSize(stock, axis, part.bounds, part.thickness);
  if (bar.section === 'plate')
    return stock.shape === 'box' ? [...STOCK_AXES].reverse().find((a) => isSame(size(a), bar.thickness)) : undefined;
  const axis = AXIS_OF[stock.lies ?? 'upright'];
  if (bar.section === 'flat') {
    const [a, b] = othersOf(axis).map(size);
    const isAcross = (w: number, t: number) => isSame(w, bar.width) && isSame(t, bar.thickness);
    return stock.shape === 'box' && (isAcross(a, b) || isAcross(b, a)) ? axis : undefined;
  }
  const bore = stock.shape === 'tube' ? (stock.bore ?? 0) : 0;
  const isIt = stock.shape === bar.section && isSame(stock.diameter, bar.diameter);
  return isIt && (bar.section === 'round' || isSame(bore, bar.bore)) ? axis : undefined;
}

/** How blanks are sawn off a bar, lengths in mm. */
export interface Sawn {
  /** How long each is; of a plate how long and how wide. */
  lengths: number[];
  /** How many a bar gives, 0 where it is too short for one. */
  perBar: number;
  /** What a blank takes of the bar, the saw's kerf with it, mm³. */
  volume: number;
}

/** How many pieces of a length a bar gives, a kerf between them. */
const piecesOf = (length: number, long: number, kerf: number) =>
  Math.max(0, Math.floor((long + kerf + SAME) / (length + kerf)));

function sawnOff(bar: Bar, lengths: number[]): Sawn {
  const { kerf, length, width, thickness } = bar;
  const [a, b] = lengths;
  if (bar.section !== 'plate')
    return { lengths, perBar: piecesOf(a, length, kerf), volume: (a + kerf) * sectionArea(bar) };
  const laid = (x: number, y: number) => piecesOf(x, length, kerf) * piecesOf(y, width, kerf);
  return { lengths, perBar: Math.max(laid(a, b), laid(b, a)), volume: (a + kerf) * (b + kerf) * thickness };
}

/** How the blank of a setup is sawn off its bar; undefined where it has none, or is not what the bar gives. */
export function sawnFrom(stock: StockSpec, part: Wanted): Sawn | undefined {
  const { bar } = stock;
  const axis = bar && barAxis(stock, bar, part);
  if (!axis) return undefined;
  const size = (a: StockAxis) => stockSize(stock, a, part.bounds, part.thickness);
  return sawnOff(bar, (bar.section === 'plate' ? othersOf(axis) : [axis]).map(size));
}

/** What a blank weighs with its share of the saw's kerf, kg, and costs; either left out where it is not known. */
export function priceOf({ volume }: Pick<Sawn, 'volume'>, bar: Bar, material: Material) {
  const density = densityOf(material);
  const kg = density ? (volume * density) / 1e6 : undefined;
  return { kg, price: kg !== undefined && bar.pricePerKg ? kg * bar.pricePerKg : undefined };
}

/** A way to cut a blank from a bar. */
export interface BarWay extends Sawn {
  bar: Bar;
  /** The stock as it is then. */
  stock: StockSpec;
  /** Less than was asked round the part, mm, at the worst side; 0 where there is enough. */
  less: number;
  kg?: number;
  price?: number;
}

/** How far the part reaches from its middle, upright, mm: its outline, not the box round it. */
function reachOf({ bounds, outline }: Wanted): number {
  const [x, y] = [(bounds.minX + bounds.maxX) / 2, (bounds.minY + bounds.maxY) / 2];
  return Math.max(0, ...outline.flat().map((p) => maths.hypot(p.x - x, p.y - y)));
}

const SIDES = { X: ['left', 'right'], Y: ['front', 'back'], Z: ['top', 'bottom'] } as const;

/** Stock sawn to length along an axis: as much more at each end as was asked, or as a sawn end needs. */
function sawnLong(stock: StockSpec, axis: StockAxis, { sawnMore }: Bar): StockSpec {
  const [a, b] = SIDES[axis];
  return { ...stock, [a]: Math.max(stock[a], sawnMore), [b]: Math.max(stock[b], sawnMore) };
}

/** Flat bar along an axis, or plate across it, with the sizes it then has on other axes. */
function flatStock(asked: StockSpec, bar: Bar, part: Wanted, axis: StockAxis, sizes: [StockAxis, number][]) {
  const { bounds, thickness } = part;
  if (sizes.some(([a, size]) => size < partSize(a, bounds, thickness) - SAME)) return undefined;
  const less = Math.max(0, ...sizes.map(([a, size]) => stockSize(asked, a, bounds, thickness) - size));
  const isPlate = bar.section === 'plate';
  const start: StockSpec = {
    ...asked,
    shape: 'box',
    corner: isPlate ? 0 : (bar.corner ?? 0),
    lies: isPlate ? undefined : LYING[axis],
    bar,
  };
  const sawn = (isPlate ? othersOf(axis) : [axis]).reduce((s, a) => sawnLong(s, a, bar), start);
  return {
    less: less < SAME ? 0 : less,
    stock: sizes.reduce((s, [a, size]) => withStockSize(s, a, size, bounds, thickness), sawn),
  };
}

/** A round bar or tube along an axis. */
function roundStock(asked: StockSpec, bar: Bar, part: Wanted, axis: StockAxis) {
  const [a, b] = othersOf(axis).map((o) => partSize(o, part.bounds, part.thickness));
  const least = axis === 'Z' ? 2 * reachOf(part) : maths.hypot(a, b);
  if (bar.diameter < least - SAME) return undefined;
  const shape = bar.section === 'tube' ? ('tube' as const) : ('round' as const);
  const { diameter, bore } = bar;
  const stock = { ...asked, shape, diameter, ...(shape === 'tube' && { bore }), lies: LYING[axis], bar };
  return { less: 0, stock: sawnLong(stock, axis, bar) };
}

/** All ways to lay one bar round the part. */
function waysOf(asked: StockSpec, bar: Bar, part: Wanted): Pick<BarWay, 'stock' | 'less'>[] {
  const { width, thickness, section } = bar;
  const laidAlong = (axis: StockAxis) => {
    if (section === 'plate') return [flatStock(asked, bar, part, axis, [[axis, thickness]])];
    if (section !== 'flat') return [roundStock(asked, bar, part, axis)];
    const [a, b] = othersOf(axis);
    const laid = [[width, thickness], ...(isSame(width, thickness) ? [] : [[thickness, width]])];
    return laid.map(([x, y]) =>
      flatStock(asked, bar, part, axis, [
        [a, x],
        [b, y],
      ]),
    );
  };
  return STOCK_AXES.flatMap(laidAlong).flatMap((way) => way ?? []);
}

/** Dearest last; what has no price by how much metal it takes. */
const byPrice = (a: BarWay, b: BarWay) =>
  (a.less > 0 ? 1 : 0) - (b.less > 0 ? 1 : 0) || (a.price ?? Infinity) - (b.price ?? Infinity) || a.volume - b.volume;

/**
 * Every way to cut a blank from bars of a material: what gives all that was asked round the part first, cheapest first.
 * @param asked the stock as it is asked for: how much more than the part on each side
 */
export function barWays(asked: StockSpec, part: Wanted, bars: Bar[], material: Material): BarWay[] {
  return bars
    .filter((b) => b.materialId === material.id)
    .flatMap((bar) =>
      waysOf(asked, bar, part).flatMap(({ stock, less }) => {
        const sawn = sawnFrom(stock, part);
        return sawn && sawn.perBar > 0 ? [{ bar, stock, less, ...sawn, ...priceOf(sawn, bar, material) }] : [];
      }),
    )
    .sort(byPrice);
}
