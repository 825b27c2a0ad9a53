import * as THREE from 'three';
import { FixtureBox, Tool, outlineOf, profileOutline, segmentStarts, type Vec3 } from '@tidypath/core';
import type { Palette } from '../theme/theme';

/** Height of a pin, mm. */
const PIN = 8;
/** Length of an arm of the zero, and of its notches to either side, mm. */
const [ARM, NOTCH] = [12, 2];
/** Sides of what is round. */
const ROUND = 32;

/** The work zero as lines: three short arms, X with one notch, Y with two. */
export function zeroArms({ x, y, z }: Vec3): Float32Array {
  const line = (...six: number[]) => six.map((v, i) => v + [x, y, z][i % 3]);
  const end = ARM - NOTCH;
  return Float32Array.from([
    ...line(0, 0, 0, ARM, 0, 0),
    ...line(0, 0, 0, 0, ARM, 0),
    ...line(0, 0, 0, 0, 0, ARM),
    ...line(end, -NOTCH, 0, end, NOTCH, 0),
    ...[end, end - NOTCH].flatMap((at) => line(-NOTCH, at, 0, NOTCH, at, 0)),
  ]);
}

/** Pins as lines where somebody probed, and the way between two of them. */
export function pins(points: Vec3[]): Float32Array {
  const up = points.flatMap(({ x, y, z }) => [x, y, z, x, y, z + PIN]);
  const [a, b] = points;
  return Float32Array.from(b ? [...up, a.x, a.y, a.z, b.x, b.y, b.z] : up);
}

/** Edges of what holds are drawn where its faces meet at more than so many degrees. */
const SHARP = 20;

/** Jaws and clamps as bodies one can see through. */
export function fixtureModels(boxes: FixtureBox[], { fixture, quiet }: Palette): THREE.Group {
  const group = new THREE.Group();
  for (const b of boxes) {
    const outline = new THREE.Shape(outlineOf(b).map(({ x, y }) => new THREE.Vector2(x, y)));
    const mesh = new THREE.Mesh(
      new THREE.ExtrudeGeometry(outline, { depth: b.maxZ - b.minZ, bevelEnabled: false }),
      new THREE.MeshStandardMaterial({ color: fixture, transparent: true, opacity: 0.55, roughness: 0.9 }),
    );
    mesh.position.z = b.minZ;
    const edges = new THREE.LineSegments(
      new THREE.EdgesGeometry(mesh.geometry, SHARP),
      new THREE.LineBasicMaterial({ color: quiet }),
    );
    edges.position.copy(mesh.position);
    group.add(mesh, edges);
  }
  return group;
}

/** A cone or cylinder that stands on the tool's axis from one height to another. */
function solid(from: number, to: number, lower: number, upper: number, colour: string, opacity: number): THREE.Mesh {
  const geometry = new THREE.CylinderGeometry(upper, lower, to - from, ROUND).rotateX(Math.PI / 2);
  const material = { color: colour, transparent: opacity < 1, opacity, roughness: 0.6 };
  const mesh = new THREE.Mesh(geometry, new THREE.MeshStandardMaterial(material));
  mesh.position.z = (from + to) / 2;
  return mesh;
}

/** A tool in its holder with its tip at the origin, each as it truly is. */
export function toolModel(tool: Tool, { accent, quiet, fixture }: Palette): THREE.Group {
  const group = new THREE.Group();
  const outline = profileOutline(tool).map(({ r, z }) => new THREE.Vector2(r, z));
  const edge = new THREE.LatheGeometry(outline, ROUND).rotateX(Math.PI / 2);
  group.add(new THREE.Mesh(edge, new THREE.MeshStandardMaterial({ color: accent, side: THREE.DoubleSide })));
  const shank = tool.shankDiameter / 2;
  if (tool.stickOut > tool.fluteLength) group.add(solid(tool.fluteLength, tool.stickOut, shank, shank, quiet, 0.8));
  const starts = segmentStarts(tool.holder);
  tool.holder.segments.forEach((s, i) => {
    const nose = tool.stickOut + starts[i];
    if (s.length > 0) group.add(solid(nose, nose + s.length, s.lower / 2, s.upper / 2, fixture, 0.35));
  });
  return group;
}

/** Flags where something is wrong. */
export function flags(points: Vec3[], { danger }: Palette): THREE.Group {
  const group = new THREE.Group();
  for (const p of points) {
    const cone = new THREE.Mesh(new THREE.ConeGeometry(1.8, 6, 4), new THREE.MeshBasicMaterial({ color: danger }));
    cone.rotation.x = -Math.PI / 2;
    cone.position.set(p.x, p.y, p.z + 3);
    group.add(cone);
  }
  return group;
}
