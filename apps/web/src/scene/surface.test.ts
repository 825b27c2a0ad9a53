import * as THREE from 'three';
import { LEFT_STEPS } from '../theme/theme';
import { fillColours, fillHeights, shadeOf, surfaceGeometry } from './surface';

const view = (nx: number, ny: number, height: number[]) => ({
  x0: 10,
  y0: 20,
  cell: 2,
  nx,
  ny,
  bottom: -5,
  top: 0,
  height: Float32Array.from(height),
});

/** Volume a mesh would hold if it were closed below, by its triangles over the underside. */
function volumeOver(geometry: THREE.BufferGeometry, bottom: number): number {
  const p = geometry.getAttribute('position');
  const index = geometry.getIndex()!;
  let sum = 0;
  for (let k = 0; k < index.count; k += 3) {
    const [a, b, c] = [0, 1, 2].map((i) => index.getX(k + i));
    const area =
      ((p.getX(b) - p.getX(a)) * (p.getY(c) - p.getY(a)) - (p.getX(c) - p.getX(a)) * (p.getY(b) - p.getY(a))) / 2;
    sum += area * ((p.getZ(a) + p.getZ(b) + p.getZ(c)) / 3 - bottom);
  }
  return sum;
}

test('a level piece is drawn as the block it is, with upright sides', () => {
  const geometry = surfaceGeometry(view(4, 3, new Array(12).fill(0)));
  geometry.computeBoundingBox();
  const { min, max } = geometry.boundingBox!;
  expect([min.x, min.y, min.z, max.x, max.y, max.z].map((v) => Number(v.toFixed(3)))).toEqual([10, 20, -5, 18, 26, 0]);
  expect(volumeOver(geometry, -5) / (8 * 6 * 5)).toBeCloseTo(1, 2);
});

test('new heights move the surface, the rim stays at the underside', () => {
  const piece = view(3, 3, new Array(9).fill(0));
  const positions = surfaceGeometry(piece).getAttribute('position').array as Float32Array;
  fillHeights(
    positions,
    piece,
    Float32Array.from({ length: 9 }, (_, i) => -i / 10),
  );
  const at = (i: number, j: number) => positions[(j * 5 + i) * 3 + 2];
  expect(at(2, 2)).toBeCloseTo(-0.4, 6);
  expect(at(3, 3)).toBeCloseTo(-0.8, 6);
  expect([at(0, 2), at(4, 2), at(2, 0), at(2, 4)]).toEqual([-5, -5, -5, -5]);
});

test('every cell takes its colour, the rim that of the cell beside it', () => {
  const colours = new Float32Array(4 * 4 * 3);
  fillColours(colours, view(2, 2, [0, 0, 0, 0]), (cell) => [cell, 0, 0]);
  const at = (i: number, j: number) => colours[(j * 4 + i) * 3];
  expect([at(1, 1), at(2, 1), at(1, 2), at(2, 2)]).toEqual([0, 1, 2, 3]);
  expect([at(0, 0), at(3, 0), at(0, 3), at(3, 3)]).toEqual([0, 1, 2, 3]);
});

test('shades: as wanted, cut into, then one more for each step of metal left', () => {
  expect(shadeOf(0)).toBe(0);
  expect(shadeOf(-0.02)).toBe(1);
  expect(LEFT_STEPS.map((step) => shadeOf(step))).toEqual([2, 3, 4, 5, 6, 7]);
  expect(shadeOf(100)).toBe(7);
});
