import { jobWith } from '../../testing/jobs';
import { area } from '../geometry/plane/clip';
import { clampBeside, groundOf } from './ground';

describe('setup', () => {
  test('zero on stock and part, every named point', () => {
    const job = jobWith(undefined);
    const setup = job.setups[0];
    const zero = (on: 'stock' | 'part', point: 'front left' | 'back right' | 'centre', height: 'top' | 'bottom') =>
      groundOf(job, { ...setup, zero: { on, point, height } }).zero;
    expect(zero('stock', 'front left', 'top')).toEqual({ x: -2, y: -2, z: 1 });
    expect(zero('part', 'back right', 'bottom')).toEqual({ x: 80, y: 50, z: -10 });
    expect(zero('part', 'centre', 'top')).toEqual({ x: 40, y: 25, z: 0 });
    expect(zero('stock', 'centre', 'bottom').z).toBe(-16);
  });

  test('round stock', () => {
    const job = jobWith(undefined);
    const setup = { ...job.setups[0], stock: { ...job.setups[0].stock, shape: 'round' as const, diameter: 100 } };
    expect(area(groundOf(job, setup).stock.region)).toBeCloseTo(Math.PI * 2500, 0);
  });

  test('a new clamp stands beside the stock, higher than it, under a name of its own', () => {
    const job = jobWith(undefined);
    const { stock } = groundOf(job, job.setups[0]);
    const first = clampBeside(stock, []);
    expect(first).toMatchObject({ x: -27, y: 15, z: stock.bottom, width: 25 });
    expect(first.z + first.height).toBeGreaterThan(stock.top);
    expect(clampBeside(stock, [first]).id).not.toBe(first.id);
  });
});
