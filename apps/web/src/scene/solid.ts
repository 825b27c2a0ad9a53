import * as THREE from 'three';
import { Triangles, factsOf, solidEdges, surfaceIn } from '@tidypath/core';
import type { Palette } from '../theme/theme';
import type { MetFace, SectionPlane } from './terms';

/** Corners of one face whose triangles bend less than this are shaded as one, cosine. */
const SMOOTH = 0.8;
/** More triangles than this are shaded each by itself. */
const MOST_SMOOTH = 400_000;
/** Faces met under one tap, at most. */
const MOST_MET = 12;
/** Share of the colour of what is chosen. */
const [RED, GREEN, BLUE] = [0, 1, 2];

/** Normals at the corners of each triangle: where its face runs on the mean, else its own. */
function normalsOf({ points, corners, face }: Triangles): Float32Array {
  const count = corners.length / 3;
  const out = new Float32Array(9 * count);
  const own = new Float32Array(3 * count);
  const sums = new Map<number, Float64Array>();
  const isSmooth = face && count <= MOST_SMOOTH;
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
    const [ux, uy, uz] = [points[b] - points[a], points[b + 1] - points[a + 1], points[b + 2] - points[a + 2]];
    const [vx, vy, vz] = [points[c] - points[a], points[c + 1] - points[a + 1], points[c + 2] - points[a + 2]];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) own[3 * t + k] = n[k] / length;
    if (!isSmooth) continue;
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const key = face[t] * (points.length / 3) + corners[e];
      const sum = sums.get(key) ?? new Float64Array(3);
      for (let k = 0; k < 3; k++) sum[k] += n[k];
      sums.set(key, sum);
    }
  }
  for (let t = 0; t < count; t++)
    for (let e = 0; e < 3; e++) {
      const sum = isSmooth ? sums.get(face[t] * (points.length / 3) + corners[3 * t + e]) : undefined;
      const length = sum ? Math.hypot(...sum) || 1 : 1;
      const along = sum ? (sum[0] * own[3 * t] + sum[1] * own[3 * t + 1] + sum[2] * own[3 * t + 2]) / length : 0;
      for (let k = 0; k < 3; k++) out[9 * t + 3 * e + k] = sum && along > SMOOTH ? sum[k] / length : own[3 * t + k];
    }
  return out;
}

/** A solid in the picture: its faces shaded, those that are chosen in the accent, its edges apart. */
export class SolidModel {
  readonly mesh: THREE.Mesh;
  readonly edges: Float32Array;
  private readonly surface: Triangles;
  private readonly colours: Uint8Array;
  private readonly plane = new THREE.Plane(new THREE.Vector3(0, 0, -1), 0);
  private readonly material: THREE.MeshStandardMaterial;

  private constructor(
    surface: Triangles,
    private readonly palette: Palette,
  ) {
    this.surface = surface;
    const { points, corners } = surface;
    const positions = new Float32Array(3 * corners.length);
    for (let e = 0; e < corners.length; e++)
      for (let k = 0; k < 3; k++) positions[3 * e + k] = points[3 * corners[e] + k];
    this.colours = new Uint8Array(3 * corners.length);
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(normalsOf(surface), 3));
    geometry.setAttribute('color', new THREE.BufferAttribute(this.colours, 3, true));
    this.material = new THREE.MeshStandardMaterial({
      vertexColors: true,
      roughness: 0.8,
      metalness: 0,
      side: THREE.DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 2,
      polygonOffsetUnits: 4,
    });
    this.mesh = new THREE.Mesh(geometry, this.material);
    this.edges = solidEdges(surface);
    this.choose([]);
  }

  /** Makes it from the file a solid is kept as; undefined where that is none. */
  static from(file: Uint8Array, palette: Palette): SolidModel | undefined {
    const surface = surfaceIn(file);
    return surface && new SolidModel(surface, palette);
  }

  choose(faces: number[]): void {
    const chosen = new Set(faces);
    const of = (colour: string) => new THREE.Color(colour).toArray().map((v) => Math.round(255 * v));
    const [plain, lit] = [of(this.palette.solid), of(this.palette.chosen)];
    for (let t = 0; t < this.colours.length / 9; t++) {
      const colour = chosen.has(this.surface.face?.[t] ?? -1) ? lit : plain;
      for (let e = 9 * t; e < 9 * t + 9; e += 3) {
        this.colours[e] = colour[RED];
        this.colours[e + 1] = colour[GREEN];
        this.colours[e + 2] = colour[BLUE];
      }
    }
    this.mesh.geometry.getAttribute('color').needsUpdate = true;
  }

  /** Cuts it open; whole without a plane. */
  section(plane: SectionPlane | undefined): THREE.Plane[] {
    if (plane) {
      this.plane.normal.set(-Number(plane.axis === 'x'), -Number(plane.axis === 'y'), -Number(plane.axis === 'z'));
      this.plane.constant = plane.at;
    }
    this.material.clippingPlanes = plane ? [this.plane] : [];
    this.material.needsUpdate = true;
    return this.material.clippingPlanes;
  }

  /** The faces a ray meets, each once, the nearest first; what a section took away is not met. */
  met(ray: THREE.Raycaster): MetFace[] {
    const found: MetFace[] = [];
    for (const { point, faceIndex } of ray.intersectObject(this.mesh)) {
      const face = this.surface.face?.[faceIndex ?? 0] ?? -1;
      if (this.material.clippingPlanes?.some((p) => p.distanceToPoint(point) < 0)) continue;
      if (found.some((f) => f.face === face)) continue;
      found.push({ ...factsOf(this.surface, face), at: { x: point.x, y: point.y, z: point.z } });
      if (found.length === MOST_MET) break;
    }
    return found;
  }

  get box(): THREE.Box3 {
    this.mesh.geometry.computeBoundingBox();
    return this.mesh.geometry.boundingBox!.clone();
  }
}
