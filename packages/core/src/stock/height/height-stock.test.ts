import { circle, flatten } from '../../geometry/plane/chain';
import { area, difference } from '../../geometry/plane/clip';
import { boundsOf } from '../../geometry/plane/point';
import { tool } from '../../../testing/parts';
import { HeightStock } from './height-stock';
import { StockModel } from './stock';
import { cutterOf } from './sweep';

const BLOCK = [
  { x: 0, y: 0 },
  { x: 40, y: 0 },
  { x: 40, y: 30 },
  { x: 0, y: 30 },
];
const block: StockModel = { region: [BLOCK], top: 0, bottom: -20 };
const CELL = 0.1;
/** A block with a slot 10 wide and 5 deep along its middle. */
function slotted(): HeightStock {
  const stock = HeightStock.of(block, CELL);
  stock.cut(cutterOf(tool(4)), { x: -10, y: 15, z: -5 }, { x: 50, y: 15, z: -5 }, 3);
  return stock;
}

test('faces along an upright line, from above', () => {
  const stock = slotted();
  expect(stock.facesAt(20, 2)).toEqual([0, -20]);
  expect(stock.facesAt(20, 15)).toEqual([-5, -20]);
  expect(stock.facesAt(-1, 15)).toEqual([]);
  const lying = { axis: 'x', middle: { across: 15, z: -10 }, width: 20, height: 20, corner: 10, bore: 10 } as const;
  const tube = HeightStock.of({ ...block, lying }, CELL);
  const [top, roof, floor, low] = tube.facesAt(20, 15);
  expect([top, roof, floor, low].map((z) => Math.round(-z))).toEqual([0, 5, 15, 20]);
});

test('a section shows the metal at a height', () => {
  const stock = slotted();
  expect(Math.abs(area(stock.section(-10)) - 40 * 30)).toBeLessThan(0.1);
  expect(Math.abs(area(stock.section(-2)) - 40 * 20)).toBeLessThan(40 * CELL);
  expect(boundsOf(stock.section(-2).flat()).minX).toBeCloseTo(0, 1);
  expect(stock.section(1)).toEqual([]);
  expect(stock.section(-21)).toEqual([]);
});

test('a section of a lying tube has its bore cut out', () => {
  const lying = { axis: 'x', middle: { across: 15, z: -10 }, width: 20, height: 20, corner: 10, bore: 10 } as const;
  const across = HeightStock.of({ ...block, lying }, CELL).section(-10);
  expect(Math.abs(area(across) - 40 * 10)).toBeLessThan(40 * 2 * CELL);
});

test('what stands in the way of a body round an upright axis', () => {
  const stock = slotted();
  const at = { x: 20, y: 15, z: -5 };
  expect(stock.into(at, 4.8, -4, 0.02)).toBe(0);
  expect(stock.into(at, 8, -4, 0.02)).toBeCloseTo(4, 5);
  // A cone that rises away from its axis clears the walls.
  expect(stock.into(at, 8, -4, 0.02, (r) => r)).toBe(0);
});

test('volume and mesh agree with what was cut', () => {
  const stock = slotted();
  const slot = 40 * 10 * 5;
  expect(Math.abs(stock.volume() - (40 * 30 * 20 - slot)) / slot).toBeLessThan(0.005);
  expect(new DataView(stock.mesh().buffer).getUint32(80, true)).toBeGreaterThan(12);
});

test('a snapshot brings everything back, and parts of a stock are as the whole', () => {
  const stock = slotted();
  const then = stock.snapshot();
  const volume = stock.volume();
  stock.cut(cutterOf(tool(4)), { x: 20, y: 5, z: -8 }, { x: 20, y: 25, z: -8 }, 4);
  expect(stock.volume()).toBeLessThan(volume);
  stock.restore(then);
  expect(stock.volume()).toBe(volume);
  const part = HeightStock.on({ x0: 10, y0: 10, cell: CELL / 2, nx: 40, ny: 40 }, block);
  expect(part.bounds).toEqual({ minX: 10, minY: 10, maxX: 12, maxY: 12 });
  expect(part.volume()).toBeCloseTo(2 * 2 * 20, 6);
  const ring = difference([BLOCK], [flatten(circle(20, 15, 5), 0.001)]);
  const bored = HeightStock.of({ ...block, region: ring }, CELL);
  expect(bored.facesAt(20, 15)).toEqual([]);
});

test('what is cut through after a snapshot is whole in it', () => {
  const lying = { axis: 'x', middle: { across: 15, z: -10 }, width: 20, height: 20, corner: 10, bore: 10 } as const;
  const tube = HeightStock.of({ ...block, lying }, CELL);
  const before = tube.snapshot();
  const [faces, volume] = [tube.facesAt(20, 15), tube.volume()];
  expect(faces).toHaveLength(4);
  tube.cut(cutterOf(tool(4)), { x: 20, y: 15, z: 1 }, { x: 20, y: 15, z: -7 }, 1);
  expect(tube.facesAt(20, 15)).toHaveLength(2);
  tube.restore(before);
  expect(tube.facesAt(20, 15)).toEqual(faces);
  expect(tube.volume()).toBe(volume);
});
