import { SurfaceView } from '@tidypath/core';
import * as THREE from 'three';
import { LEFT_STEPS } from '../theme/theme';

/** Shares of a cell that keep the sides of the stock from falling into one line. */
const EDGE = 0.001;

/** Where column i of the grid stands, in cells: the rim and the outermost cells at the stock's edge, so that its sides are upright. */
function cellAt(i: number, n: number): number {
  if (i <= 1) return i * EDGE;
  if (i >= n) return n - (n + 1 - i) * EDGE;
  return i - 0.5;
}

/** A grid of cell centres with a skirt down to the underside all round. */
export function surfaceGeometry(view: SurfaceView): THREE.BufferGeometry {
  const nx = view.nx + 2;
  const ny = view.ny + 2;
  const positions = new Float32Array(nx * ny * 3);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const k = (j * nx + i) * 3;
      positions[k] = view.x0 + cellAt(i, view.nx) * view.cell;
      positions[k + 1] = view.y0 + cellAt(j, view.ny) * view.cell;
    }
  }
  fillHeights(positions, view, view.height);
  const index = new Uint32Array((nx - 1) * (ny - 1) * 6);
  let n = 0;
  for (let j = 0; j < ny - 1; j++) {
    for (let i = 0; i < nx - 1; i++) {
      const a = j * nx + i;
      index[n++] = a;
      index[n++] = a + 1;
      index[n++] = a + nx + 1;
      index[n++] = a;
      index[n++] = a + nx + 1;
      index[n++] = a + nx;
    }
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(positions.length), 3));
  geometry.setIndex(new THREE.BufferAttribute(index, 1));
  geometry.computeBoundingSphere();
  return geometry;
}

/** Which shade a deviation takes. */
export function shadeOf(by: number): number {
  if (by === 0) return 0;
  return by < 0 ? 1 : 1 + LEFT_STEPS.filter((step) => by >= step).length;
}

export function fillColours(colours: Float32Array, view: SurfaceView, of: (cell: number) => number[]): void {
  const nx = view.nx + 2;
  const ny = view.ny + 2;
  const within = (i: number, n: number) => Math.min(n - 1, Math.max(0, i - 1));
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) colours.set(of(within(j, view.ny) * view.nx + within(i, view.nx)), (j * nx + i) * 3);
  }
}

export function fillHeights(positions: Float32Array, view: SurfaceView, height: Float32Array): void {
  const nx = view.nx + 2;
  const ny = view.ny + 2;
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const rim = i === 0 || j === 0 || i === nx - 1 || j === ny - 1;
      positions[(j * nx + i) * 3 + 2] = rim ? view.bottom : height[(j - 1) * view.nx + i - 1];
    }
  }
}
