import fc from 'fast-check';
import { makePiles, setPile, volumeOf } from './field';
import { stockStl } from './stl';

/** Triangles of a file: normal and three corners each. */
function read(bytes: Uint8Array): number[][] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(80, true);
  expect(bytes.length).toBe(84 + 50 * count);
  return Array.from({ length: count }, (_, t) =>
    Array.from({ length: 12 }, (_value, k) => view.getFloat32(84 + 50 * t + 4 * k, true)),
  );
}

/** Volume inside a closed surface: the sum of the signed pyramids over its triangles. */
const inside = (triangles: number[][]) =>
  triangles.reduce((sum, [, , , ax, ay, az, bx, by, bz, cx, cy, cz]) => {
    return sum + (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
  }, 0);

const piles = fc.array(
  fc.array(fc.integer({ min: -20, max: 0 }), { minLength: 0, maxLength: 6 }).map((zs) => {
    const sorted = [...new Set(zs)].sort((a, b) => b - a);
    return sorted.length % 2 ? sorted.slice(1) : sorted;
  }),
  { minLength: 12, maxLength: 12 },
);

test('the surface encloses just the volume of the piles, normals outwards', () => {
  fc.assert(
    fc.property(piles, (list) => {
      const field = makePiles({ x0: 3, y0: -7, cell: 0.5, nx: 4, ny: 3 });
      list.forEach((pile, i) => setPile(field, i, pile));
      const triangles = read(stockStl(field, -20));
      expect(inside(triangles)).toBeCloseTo(volumeOf(field, -20), 4);
      for (const [nx, ny, nz, ax, ay, az, bx, by, bz, cx, cy, cz] of triangles) {
        const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
        expect((uy * vz - uz * vy) * nx + (uz * vx - ux * vz) * ny + (ux * vy - uy * vx) * nz).toBeGreaterThan(0);
      }
    }),
    { seed: 6 },
  );
});

test('areas of opposite sides are the same: nothing is left open', () => {
  const field = makePiles({ x0: 0, y0: 0, cell: 1, nx: 2, ny: 2 });
  setPile(field, 0, [0, -4]);
  setPile(field, 1, [-1, -2, -3, -4]);
  const sum = [0, 0, 0];
  for (const [nx, ny, nz, ax, ay, az, bx, by, bz, cx, cy, cz] of read(stockStl(field, -4))) {
    const cross = Math.hypot(
      (by - ay) * (cz - az) - (bz - az) * (cy - ay),
      (bz - az) * (cx - ax) - (bx - ax) * (cz - az),
      (bx - ax) * (cy - ay) - (by - ay) * (cx - ax),
    );
    [nx, ny, nz].forEach((n, k) => (sum[k] += (n * cross) / 2));
  }
  expect(sum).toEqual([0, 0, 0]);
});
