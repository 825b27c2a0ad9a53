import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import * as THREE from 'three';
import { FaceFacts, Triangles, factsOf, solidEdges, surfaceIn } from '@tidypath/core';
import type { Palette } from '../theme/theme';
import { Cap } from './cap';
import type { MetFace, SectionPlane } from './terms';

/** Corners of one face whose triangles bend less than this are shaded as one, cosine. */
const SMOOTH = 0.8;
/** A solid of more triangles has each shaded by itself, and something leaner in its place while a hand moves it. */
const LARGE = 150_000;
/** Triangles of what stands in its place, and how far it may depart, as a share of its size. */
const LEAN = { triangles: 12_000, off: 0.01 };
/** Faces met under one tap, at most. */
const MOST_MET = 12;

/** Normals at the corners of each triangle: where its face runs on the mean, else its own. */
function normalsOf({ points, corners, face }: Triangles): Float32Array {
  const count = corners.length / 3;
  const out = new Float32Array(9 * count);
  const own = new Float32Array(3 * count);
  const sums = new Map<number, Float64Array>();
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
    const [ux, uy, uz] = [points[b] - points[a], points[b + 1] - points[a + 1], points[b + 2] - points[a + 2]];
    const [vx, vy, vz] = [points[c] - points[a], points[c + 1] - points[a + 1], points[c + 2] - points[a + 2]];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) own[3 * t + k] = n[k] / length;
    if (!face) continue;
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const key = face[t] * (points.length / 3) + corners[e];
      const sum = sums.get(key) ?? new Float64Array(3);
      for (let k = 0; k < 3; k++) sum[k] += n[k];
      sums.set(key, sum);
    }
  }
  for (let t = 0; t < count; t++)
    for (let e = 0; e < 3; e++) {
      const sum = face ? sums.get(face[t] * (points.length / 3) + corners[3 * t + e]) : undefined;
      const length = sum ? Math.hypot(...sum) || 1 : 1;
      const along = sum ? (sum[0] * own[3 * t] + sum[1] * own[3 * t + 1] + sum[2] * own[3 * t + 2]) / length : 0;
      for (let k = 0; k < 3; k++) out[9 * t + 3 * e + k] = sum && along > SMOOTH ? sum[k] / length : own[3 * t + k];
    }
  return out;
}

/** Triangles with corners of their own, so that each face is shaded smoothly up to its edge. */
function shadedSmoothly(surface: Triangles): THREE.BufferGeometry {
  const { points, corners } = surface;
  const positions = new Float32Array(3 * corners.length);
  for (let e = 0; e < corners.length; e++)
    for (let k = 0; k < 3; k++) positions[3 * e + k] = points[3 * corners[e] + k];
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(normalsOf(surface), 3));
  geometry.setIndex(new THREE.BufferAttribute(Uint32Array.from(corners.keys()), 1));
  return geometry;
}

/** Triangles that share their corners. */
function shadedEach({ points, corners }: Triangles): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(points), 3));
  geometry.setIndex(new THREE.BufferAttribute(corners, 1));
  return geometry;
}

/** Other triangles on the same corners. */
function sharing({ attributes }: THREE.BufferGeometry, index: Uint32Array): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  for (const [name, attribute] of Object.entries(attributes)) geometry.setAttribute(name, attribute);
  geometry.setIndex(new THREE.BufferAttribute(index, 1));
  return geometry;
}

/** Few triangles with no more corners than theirs. */
function compact(index: Uint32Array, points: Float32Array): THREE.BufferGeometry {
  const [places, count] = MeshoptSimplifier.compactMesh(index);
  const kept = new Float64Array(3 * count);
  places.forEach((to, from) => {
    if (to < count) kept.set(points.subarray(3 * from, 3 * from + 3), 3 * to);
  });
  return shadedEach({ points: kept, corners: index });
}

/** A solid in the picture: its faces shaded, those that are chosen in the accent, its edges apart. */
export class SolidModel {
  readonly shown = new THREE.Group();
  readonly edges: Float32Array;
  private readonly whole: THREE.Mesh;
  private readonly chosen: THREE.Mesh;
  private lean?: THREE.Mesh;
  private cap?: Cap;
  private isPrepared = false;
  private readonly facts = new Map<number, FaceFacts>();
  private readonly plane = new THREE.Plane(new THREE.Vector3(0, 0, -1), 0);
  private readonly materials: THREE.MeshStandardMaterial[];

  constructor(
    private readonly surface: Triangles,
    private readonly palette: Palette,
  ) {
    const geometry = this.isLarge ? shadedEach(surface) : shadedSmoothly(surface);
    // What is chosen lies on the rest, a hair in front of it.
    this.materials = [palette.solid, palette.chosen].map(
      (color, i) =>
        new THREE.MeshStandardMaterial({
          color,
          roughness: 0.8,
          metalness: 0,
          flatShading: this.isLarge,
          clippingPlanes: [],
          side: THREE.DoubleSide,
          polygonOffset: true,
          polygonOffsetFactor: 2 - i,
          polygonOffsetUnits: 4 - 2 * i,
        }),
    );
    this.whole = new THREE.Mesh(geometry, this.materials[0]);
    this.chosen = new THREE.Mesh(sharing(geometry, new Uint32Array(surface.corners.length)), this.materials[1]);
    this.shown.add(this.whole, this.chosen);
    this.edges = solidEdges(surface);
    this.choose([]);
  }

  /** Makes it from the file a solid is kept as; undefined where that is none. */
  static from(file: Uint8Array, palette: Palette): SolidModel | undefined {
    const surface = surfaceIn(file);
    return surface && new SolidModel(surface, palette);
  }

  private get isLarge(): boolean {
    return this.surface.corners.length > 3 * LARGE;
  }

  choose(faces: number[]): void {
    const chosen = new Set(faces);
    const [all, index] = [this.whole, this.chosen].map(({ geometry }) => geometry.index!);
    let n = 0;
    for (let t = 0; chosen.size > 0 && 3 * t < all.count; t++)
      if (chosen.has(this.surface.face?.[t] ?? -1))
        for (let e = 3 * t; e < 3 * t + 3; e++) index.array[n++] = all.array[e];
    index.needsUpdate = true;
    this.chosen.geometry.setDrawRange(0, n);
  }

  /** Makes ready what stands in the place of a large solid while it is moved. */
  async prepare(): Promise<void> {
    if (!this.isLarge || this.isPrepared) return;
    this.isPrepared = true;
    await MeshoptSimplifier.ready;
    const { geometry } = this.whole;
    const [index, points] = [geometry.index!.array as Uint32Array, geometry.getAttribute('position').array];
    const [lean] = MeshoptSimplifier.simplify(index, points as Float32Array, 3, 3 * LEAN.triangles, LEAN.off);
    this.lean = new THREE.Mesh(compact(lean, points as Float32Array), this.materials[0]);
    this.shown.add(this.lean);
    this.move(false);
  }

  /** Begins or ends to be moved by a hand; whether it is leaner now. */
  move(isMoved: boolean): boolean {
    if (!this.lean) return false;
    this.lean.visible = isMoved;
    this.whole.visible = this.chosen.visible = !isMoved;
    if (this.cap) this.cap.shown.visible = !isMoved && this.isCut;
    return isMoved;
  }

  /** Cuts it open; whole without a plane. */
  section(plane: SectionPlane | undefined): THREE.Plane[] {
    if (plane) {
      // What lies before it is taken away, as it is seen from the corner.
      this.plane.normal.set(Number(plane.axis === 'x'), Number(plane.axis === 'y'), -Number(plane.axis === 'z'));
      this.plane.constant = plane.axis === 'z' ? plane.at : -plane.at;
    }
    if (plane && !this.cap) {
      this.cap = new Cap(this.whole.geometry, this.plane, this.palette.stock);
      this.shown.add(this.cap.shown);
    }
    const planes = plane ? [this.plane] : [];
    for (const material of this.materials) {
      material.clippingPlanes = planes;
      material.needsUpdate = true;
    }
    this.cap?.lie();
    if (this.cap) this.cap.shown.visible = this.isCut;
    return planes;
  }

  private get isCut(): boolean {
    return this.materials[0].clippingPlanes!.length > 0;
  }

  private factsOf(face: number): FaceFacts {
    if (!this.facts.has(face)) this.facts.set(face, factsOf(this.surface, face));
    return this.facts.get(face)!;
  }

  /** The faces a ray meets, each once, the nearest first; what a section took away is not met. */
  met(ray: THREE.Raycaster): MetFace[] {
    const found: MetFace[] = [];
    for (const { point, faceIndex } of ray.intersectObject(this.whole)) {
      const face = this.surface.face?.[faceIndex ?? 0] ?? -1;
      if (this.materials[0].clippingPlanes?.some((p) => p.distanceToPoint(point) < 0)) continue;
      if (found.some((f) => f.face === face)) continue;
      found.push({ ...this.factsOf(face), at: { x: point.x, y: point.y, z: point.z } });
      if (found.length === MOST_MET) break;
    }
    return found;
  }

  get box(): THREE.Box3 {
    this.whole.geometry.computeBoundingBox();
    return this.whole.geometry.boundingBox!.clone();
  }
}
