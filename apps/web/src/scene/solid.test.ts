import * as THREE from 'three';
import type { Triangles } from '@tidypath/core';
import { paletteOf } from '../theme/theme';
import { SolidModel } from './solid';

/** A sheet with waves on it, n × n squares; its right half is another face. */
function waves(n: number): Triangles {
  const points = new Float64Array(3 * (n + 1) * (n + 1));
  for (let i = 0; i <= n; i++)
    for (let j = 0; j <= n; j++) points.set([i, j, Math.sin(i / 20) * Math.cos(j / 30)], 3 * (i * (n + 1) + j));
  const [corners, face] = [new Uint32Array(6 * n * n), new Int32Array(2 * n * n)];
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const [a, b] = [i * (n + 1) + j, (i + 1) * (n + 1) + j];
      corners.set([a, b, b + 1, a, b + 1, a + 1], 6 * (i * n + j));
      face.fill(i < n / 2 ? 0 : 1, 2 * (i * n + j), 2 * (i * n + j) + 2);
    }
  return { points, corners, face };
}

/** Triangles of each mesh that is drawn. */
const drawn = (model: SolidModel) =>
  model.shown.children.flatMap((child) => {
    const { geometry, visible } = child as THREE.Mesh;
    const count = Math.min(geometry.index!.count, geometry.drawRange.count) / 3;
    return visible && count > 0 ? [count] : [];
  });

test('a large solid is leaner while it is in hand, and whole again when it rests', async () => {
  const model = new SolidModel(waves(300), paletteOf(false));
  model.move(true);
  expect(drawn(model)).toEqual([180_000]);
  await model.prepare();
  expect(drawn(model)).toEqual([180_000]);
  model.move(true);
  const [lean, ...more] = drawn(model);
  expect(more).toEqual([]);
  expect(lean).toBeGreaterThan(1000);
  expect(lean).toBeLessThanOrEqual(12_000);
  const size = new THREE.Box3().setFromObject(model.shown.children[2]).getSize(new THREE.Vector3());
  expect([size.x, size.y]).toEqual([300, 300].map((v) => expect.closeTo(v, -1)));
  model.move(false);
  expect(drawn(model)).toEqual([180_000]);
});

test.each([20, 300])('of %i × %i squares the chosen face is lit, and it is met where a ray meets it', (n) => {
  const model = new SolidModel(waves(n), paletteOf(false));
  expect(drawn(model)).toEqual([2 * n * n]);
  model.choose([1]);
  expect(drawn(model)).toEqual([2 * n * n, n * n]);
  const down = new THREE.Raycaster(new THREE.Vector3(0.7 * n, 0.3 * n, 50), new THREE.Vector3(0, 0, -1));
  model.shown.updateMatrixWorld(true);
  expect(model.met(down).map((f) => f.face)).toEqual([1]);
  model.choose([]);
  expect(drawn(model)).toEqual([2 * n * n]);
});

test('what a plane cuts is filled where it lies, and not while nothing is cut or a large solid is in hand', async () => {
  const model = new SolidModel(waves(300), paletteOf(false));
  const caps = () => model.shown.children.filter((child) => child instanceof THREE.Group && child.visible);
  expect(caps()).toEqual([]);
  model.section({ axis: 'x', at: 100 });
  model.section({ axis: 'x', at: 120 });
  const [cap, ...more] = caps();
  expect(more).toEqual([]);
  expect(cap.children[2].position.x).toBeCloseTo(120, 6);
  await model.prepare();
  model.move(true);
  expect(caps()).toEqual([]);
  model.move(false);
  expect(caps()).toEqual([cap]);
  model.section(undefined);
  model.move(true);
  model.move(false);
  expect(caps()).toEqual([]);
});
