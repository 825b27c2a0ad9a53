import * as THREE from 'three';
import { TOOLS, holderLength, isBeam } from '@tidypath/core';
import { paletteOf } from '../theme/theme';
import { fixtureModels, flags, pins, toolModel, zeroArms } from './models';

const palette = paletteOf(false);
const boxOf = (object: THREE.Object3D) => {
  object.updateMatrixWorld(true);
  return new THREE.Box3().setFromObject(object);
};

test.each(TOOLS.filter((t) => !isBeam(t)).map((t) => [t.name, t] as const))(
  '%s is drawn as wide and long as it is, its tip at the origin',
  (_, tool) => {
    const box = boxOf(toolModel(tool, palette));
    expect(box.min.z).toBeCloseTo(0, 6);
    expect(box.max.z).toBeCloseTo(tool.stickOut + holderLength(tool.holder), 6);
    const widest = Math.max(
      tool.diameter,
      tool.shankDiameter,
      ...tool.holder.segments.flatMap((s) => [s.upper, s.lower]),
    );
    expect(box.max.x - box.min.x).toBeCloseTo(widest, 1);
    expect(box.max.x).toBeCloseTo(-box.min.x, 6);
  },
);

test('a cone of a holder has its wider end where it is wider', () => {
  const tool = TOOLS.find((t) => t.holder.segments.some((s) => s.upper > s.lower))!;
  const at = tool.holder.segments.findIndex((s) => s.upper > s.lower);
  const { upper, lower, length } = tool.holder.segments[at];
  const meshes = toolModel(tool, palette).children as THREE.Mesh<THREE.BufferGeometry>[];
  const cone = meshes[meshes.length - tool.holder.segments.filter((s) => s.length > 0).length + at];
  const position = cone.geometry.getAttribute('position');
  const reach = (end: number) => {
    let most = 0;
    for (let i = 0; i < position.count; i++)
      if (Math.abs(position.getZ(i) - end) < 1e-6)
        most = Math.max(most, Math.hypot(position.getX(i), position.getY(i)));
    return most;
  };
  expect(reach(length / 2)).toBeCloseTo(upper / 2, 4);
  expect(reach(-length / 2)).toBeCloseTo(lower / 2, 4);
});

test('fixtures fill their boxes', () => {
  const boxes = [
    { name: 'Jaw', minX: -5, minY: 0, minZ: -10, maxX: 5, maxY: 80, maxZ: 4 },
    { name: 'Clamp', minX: 90, minY: 10, minZ: 0, maxX: 110, maxY: 30, maxZ: 12 },
  ];
  const { min, max } = boxOf(fixtureModels(boxes, palette));
  expect([...min, ...max]).toEqual([-5, 0, -10, 110, 80, 12]);
  expect(fixtureModels([], palette).children).toHaveLength(0);
});

test('the zero has three arms, one notch on X and two on Y', () => {
  const lines = zeroArms({ x: 10, y: 20, z: 30 });
  expect(lines).toHaveLength(6 * 6);
  const runs = Array.from({ length: 6 }, (_, i) => [0, 1, 2].map((k) => lines[6 * i + 3 + k] - lines[6 * i + k]));
  const along = (axis: number) => runs.filter((r) => r[axis] !== 0);
  expect(along(2)).toEqual([[0, 0, 12]]);
  // An arm along X and two notches across Y; an arm along Y and one notch across X.
  expect(along(0)).toHaveLength(3);
  expect(along(1)).toHaveLength(2);
  expect([...lines.slice(0, 3)]).toEqual([10, 20, 30]);
});

test('pins stand where somebody probed; two of them are joined', () => {
  const [a, b] = [
    { x: 1, y: 2, z: 3 },
    { x: 4, y: 5, z: 6 },
  ];
  expect([...pins([a])]).toEqual([1, 2, 3, 1, 2, 11]);
  expect([...pins([a, b]).slice(12)]).toEqual([1, 2, 3, 4, 5, 6]);
  expect(pins([])).toHaveLength(0);
});

test('flags stand on their places', () => {
  const { min } = boxOf(flags([{ x: 10, y: 20, z: -4 }], palette));
  expect(min.z).toBeCloseTo(-4, 6);
});
