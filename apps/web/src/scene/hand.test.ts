import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { Hand } from './hand';

const SIZE = { width: 400, height: 300, ratio: 1 };
const REST = { pointerId: 1, pointerType: 'mouse', button: 0, deltaY: 0, deltaMode: 0 };
const KEYS = { ctrlKey: false, metaKey: false, shiftKey: false };

/** A camera that looks at the origin from above the front, and what a hand does to it. */
function held() {
  const camera = new THREE.OrthographicCamera(-20, 20, 15, -15, -500, 500);
  camera.up.set(0, 0, 1);
  camera.position.set(0, -100, 100);
  const hand = new Hand(SIZE);
  const controls = new OrbitControls(camera, hand as unknown as HTMLElement);
  controls.update();
  const feel = (type: string, x: number, y: number, more: object = {}) =>
    hand.feel({ type, x, y, ...REST, ...KEYS, ...more });
  return { camera, controls, feel };
}

test('a drag across half the height turns the picture by half a turn about the upright', () => {
  const { camera, feel } = held();
  feel('pointerdown', 100, 100);
  feel('pointermove', 100 + SIZE.height / 2, 100);
  feel('pointerup', 100 + SIZE.height / 2, 100);
  expect(camera.position.y).toBeCloseTo(100, 3);
  expect(camera.position.z).toBeCloseTo(100, 3);
  feel('pointermove', 300, 200);
  expect(camera.position.y).toBeCloseTo(100, 3);
});

test('with Shift the picture is shifted by as much as the pointer went', () => {
  const { camera, controls, feel } = held();
  feel('pointerdown', 100, 100, { shiftKey: true });
  feel('pointermove', 200, 100, { shiftKey: true });
  feel('pointerup', 200, 100);
  expect(controls.target.x).toBeCloseTo((-100 / SIZE.width) * 40, 6);
  expect(camera.position.x).toBeCloseTo(controls.target.x, 6);
});

test('the wheel enlarges, and makes smaller the other way', () => {
  const { camera, feel } = held();
  feel('wheel', 200, 150, { deltaY: -100 });
  const larger = camera.zoom;
  expect(larger).toBeGreaterThan(1);
  feel('wheel', 200, 150, { deltaY: 200 });
  expect(camera.zoom).toBeLessThan(larger);
});
