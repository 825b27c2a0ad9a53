import { newJob } from './new';
import { stockSize, withStockSize } from './stock';

const part = { minX: 10, maxX: 90, minY: 0, maxY: 50 };
const stock = { ...newJob('a', 'mm').setups[0].stock, left: 1, right: 3, front: 2, back: 2, top: 1, bottom: 4 };

test('a block is as long as the part with what is more on either side', () => {
  expect(stockSize(stock, 'X', part, 10)).toBe(84);
  expect(stockSize(stock, 'Y', part, 10)).toBe(54);
  expect(stockSize(stock, 'Z', part, 10)).toBe(15);
});

test('given over all it is spread alike, and above the part it stays as it was', () => {
  expect(withStockSize(stock, 'X', 90, part, 10)).toMatchObject({ left: 5, right: 5, front: 2 });
  expect(withStockSize(stock, 'Z', 20, part, 10)).toMatchObject({ top: 1, bottom: 9 });
  expect(withStockSize(stock, 'Z', 10.5, part, 10)).toMatchObject({ top: 0.5, bottom: 0 });
  expect(withStockSize(stock, 'Y', 40, part, 10)).toMatchObject({ front: 0, back: 0 });
  for (const axis of ['X', 'Y', 'Z'] as const)
    expect(stockSize(withStockSize(stock, axis, 123.4, part, 10), axis, part, 10)).toBeCloseTo(123.4, 9);
});
