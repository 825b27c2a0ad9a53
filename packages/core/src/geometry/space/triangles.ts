/** Surfaces of triangles that share their corners. */
import { Vec3 } from './vec3';

/** A surface of triangles, mm: three numbers a point, three points a triangle, counterclockwise seen from outside. */
export interface Triangles {
  points: Float64Array;
  corners: Uint32Array;
  /** The face each triangle belongs to, where that is known. */
  face?: Int32Array;
}

export const countOf = ({ corners }: Triangles): number => corners.length / 3;

/** The box round a surface. */
export interface Box3 {
  min: Vec3;
  max: Vec3;
}

/** The box round all corners. */
export function boxRound({ points }: Triangles): Box3 {
  const min = { x: Infinity, y: Infinity, z: Infinity };
  const max = { x: -Infinity, y: -Infinity, z: -Infinity };
  for (let i = 0; i < points.length; i += 3) {
    const [x, y, z] = [points[i], points[i + 1], points[i + 2]];
    if (x < min.x) min.x = x;
    if (y < min.y) min.y = y;
    if (z < min.z) min.z = z;
    if (x > max.x) max.x = x;
    if (y > max.y) max.y = y;
    if (z > max.z) max.z = z;
  }
  return { min, max };
}

/** Corners so near each other are one, mm. */
const SAME = 1e-4;

/** Cells corners are found by, mm. */
const CELL = 8 * SAME;

/** Slots of a table twice as large as what goes into it. */
function tableFor(entries: number): { table: Int32Array; mask: number } {
  let size = 16;
  while (size < 2 * entries) size *= 2;
  return { table: new Int32Array(size).fill(-1), mask: size - 1 };
}

const mixed = (a: number, b: number, c: number): number => {
  let h = Math.imul(a, 73856093) ^ Math.imul(b, 19349663) ^ Math.imul(c, 83492791);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  return (h ^ (h >>> 13)) >>> 0;
};

/** Joins corners that lie in the same place. */
class Joiner {
  private readonly cells: { table: Int32Array; mask: number };
  private readonly kept: Float64Array;
  private count = 0;

  constructor(most: number) {
    this.cells = tableFor(most);
    this.kept = new Float64Array(3 * most);
  }

  /** The corner kept in a cell that lies at a place; −1 where there is none. */
  private keptIn(i: number, j: number, k: number, x: number, y: number, z: number): number {
    const { table, mask } = this.cells;
    for (let slot = mixed(i, j, k) & mask; ; slot = (slot + 1) & mask) {
      const found = table[slot];
      if (found < 0) return -1;
      const dx = this.kept[3 * found] - x;
      const dy = this.kept[3 * found + 1] - y;
      const dz = this.kept[3 * found + 2] - z;
      if (dx * dx + dy * dy + dz * dz <= SAME * SAME) return found;
    }
  }

  /** The number of a corner. */
  add(x: number, y: number, z: number): number {
    const [low, high] = [-SAME / CELL, SAME / CELL];
    const [u, v, w] = [x / CELL, y / CELL, z / CELL];
    // One near the side of its cell may be kept in the next.
    for (let i = Math.floor(u + low); i <= u + high; i++)
      for (let j = Math.floor(v + low); j <= v + high; j++)
        for (let k = Math.floor(w + low); k <= w + high; k++) {
          const found = this.keptIn(i, j, k, x, y, z);
          if (found >= 0) return found;
        }
    const { table, mask } = this.cells;
    let slot = mixed(Math.floor(u), Math.floor(v), Math.floor(w)) & mask;
    while (table[slot] >= 0) slot = (slot + 1) & mask;
    table[slot] = this.count;
    const at = 3 * this.count;
    this.kept[at] = x;
    this.kept[at + 1] = y;
    this.kept[at + 2] = z;
    return this.count++;
  }

  points(): Float64Array {
    return this.kept.slice(0, 3 * this.count);
  }
}

/** A surface made from loose triangles. */
export interface Joined extends Triangles {
  /** Triangles left out because they have no area. */
  flat: number;
}

/**
 * Joins the corners of loose triangles that lie within a tenth of a micrometre; those whose corners fall together are left out.
 * @param loose nine numbers a triangle, or points where `index` says three a triangle
 * @param faceOf the face of each triangle
 */
export function joinedTriangles(
  loose: ArrayLike<number>,
  index?: ArrayLike<number>,
  faceOf?: (triangle: number) => number,
): Joined {
  const joiner = new Joiner(loose.length / 3);
  const name = new Uint32Array(loose.length / 3);
  for (let i = 0; i < name.length; i++) name[i] = joiner.add(loose[3 * i], loose[3 * i + 1], loose[3 * i + 2]);
  const count = Math.floor((index ? index.length : loose.length / 3) / 3);
  const corners = new Uint32Array(3 * count);
  const face = faceOf && new Int32Array(count);
  let kept = 0;
  for (let t = 0; t < count; t++) {
    const a = name[index ? index[3 * t] : 3 * t];
    const b = name[index ? index[3 * t + 1] : 3 * t + 1];
    const c = name[index ? index[3 * t + 2] : 3 * t + 2];
    if (a === b || b === c || c === a) continue;
    corners[3 * kept] = a;
    corners[3 * kept + 1] = b;
    corners[3 * kept + 2] = c;
    if (face) face[kept] = faceOf(t);
    kept++;
  }
  return {
    points: joiner.points(),
    corners: corners.slice(0, 3 * kept),
    ...(face && { face: face.slice(0, kept) }),
    flat: count - kept,
  };
}

/** No triangle beyond an edge: it is open there, or more than two meet. */
export const OPEN = -1;
export const CROWDED = -2;

/**
 * Which edge lies against which: for edge k of triangle t, from its corner k to the next, the number 3·t′ + k′ of the one that runs
 * the other way; `OPEN` or `CROWDED` where there is no such one.
 */
export function edgesAgainst({ corners }: Triangles): Int32Array {
  const against = new Int32Array(corners.length).fill(OPEN);
  const { table, mask } = tableFor(corners.length);
  const end = (e: number) => corners[e - (e % 3) + ((e + 1) % 3)];
  for (let e = 0; e < corners.length; e++) {
    const [a, b] = [corners[e], end(e)];
    let slot = mixed(Math.min(a, b), Math.max(a, b), 7) & mask;
    for (; table[slot] >= 0; slot = (slot + 1) & mask) {
      const other = table[slot];
      if (corners[other] === b && end(other) === a && against[other] === OPEN) {
        against[other] = e;
        against[e] = other;
        break;
      }
      if (
        Math.min(corners[other], end(other)) === Math.min(a, b) &&
        Math.max(corners[other], end(other)) === Math.max(a, b)
      ) {
        const partner = against[other];
        if (partner >= 0) against[partner] = CROWDED;
        against[other] = CROWDED;
        against[e] = CROWDED;
        break;
      }
    }
    if (table[slot] < 0) table[slot] = e;
  }
  return against;
}

/** Twice the area of each triangle along its normal: three numbers a triangle, mm². */
export function areaVectors({ points, corners }: Triangles): Float64Array {
  const out = new Float64Array(corners.length);
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [3 * corners[t], 3 * corners[t + 1], 3 * corners[t + 2]];
    const [ux, uy, uz] = [points[b] - points[a], points[b + 1] - points[a + 1], points[b + 2] - points[a + 2]];
    const [vx, vy, vz] = [points[c] - points[a], points[c + 1] - points[a + 1], points[c + 2] - points[a + 2]];
    out[t] = uy * vz - uz * vy;
    out[t + 1] = uz * vx - ux * vz;
    out[t + 2] = ux * vy - uy * vx;
  }
  return out;
}

/** What a closed surface encloses, mm³; below 0 where its triangles look inwards. Divergence theorem. */
export function volumeOf({ points, corners }: Triangles): number {
  let sum = 0;
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [3 * corners[t], 3 * corners[t + 1], 3 * corners[t + 2]];
    sum +=
      points[a] * (points[b + 1] * points[c + 2] - points[b + 2] * points[c + 1]) +
      points[a + 1] * (points[b + 2] * points[c] - points[b] * points[c + 2]) +
      points[a + 2] * (points[b] * points[c + 1] - points[b + 1] * points[c]);
  }
  return sum / 6;
}

/** The same surface with its triangles the other way round. */
export function turnedInsideOut(mesh: Triangles): Triangles {
  const corners = mesh.corners.slice();
  for (let t = 0; t < corners.length; t += 3) [corners[t + 1], corners[t + 2]] = [corners[t + 2], corners[t + 1]];
  return { ...mesh, corners };
}

/** The same surface with each point moved. */
export function movedPoints(mesh: Triangles, place: (p: Vec3) => Vec3): Triangles {
  const points = new Float64Array(mesh.points.length);
  const p = { x: 0, y: 0, z: 0 };
  for (let i = 0; i < points.length; i += 3) {
    [p.x, p.y, p.z] = [mesh.points[i], mesh.points[i + 1], mesh.points[i + 2]];
    const { x, y, z } = place(p);
    points[i] = x;
    points[i + 1] = y;
    points[i + 2] = z;
  }
  return { ...mesh, points };
}

/** The triangles of a surface that hang together, largest number of them first: the body of each triangle, and how many there are. */
export function bodiesOf(against: Int32Array): { body: Int32Array; count: number } {
  const body = new Int32Array(against.length / 3).fill(-1);
  let count = 0;
  const stack: number[] = [];
  for (let seed = 0; seed < body.length; seed++) {
    if (body[seed] >= 0) continue;
    body[seed] = count;
    stack.push(seed);
    while (stack.length > 0) {
      const t = stack.pop()!;
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const next = against[e] < 0 ? -1 : Math.floor(against[e] / 3);
        if (next < 0 || body[next] >= 0) continue;
        body[next] = count;
        stack.push(next);
      }
    }
    count++;
  }
  return { body, count };
}

/** Some of the triangles of a surface, with the points they need. */
export function pickedTriangles(mesh: Triangles, isPicked: (t: number) => boolean): Triangles {
  const name = new Int32Array(mesh.points.length / 3).fill(-1);
  const points: number[] = [];
  const corners: number[] = [];
  const face: number[] = [];
  for (let t = 0; t < countOf(mesh); t++) {
    if (!isPicked(t)) continue;
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const p = mesh.corners[e];
      if (name[p] < 0) {
        name[p] = points.length / 3;
        points.push(mesh.points[3 * p], mesh.points[3 * p + 1], mesh.points[3 * p + 2]);
      }
      corners.push(name[p]);
    }
    if (mesh.face) face.push(mesh.face[t]);
  }
  return {
    points: Float64Array.from(points),
    corners: Uint32Array.from(corners),
    ...(mesh.face && { face: Int32Array.from(face) }),
  };
}
