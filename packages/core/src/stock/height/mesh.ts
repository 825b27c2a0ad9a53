import { Code, DataOf, Finding, finding } from '../../quantity/finding';
import { STL_HEAD, STL_NORMAL, STL_RECORD } from '../../geometry/space/stl';
import { HeightField, makeField, makePiles, setPile } from './field';

/** A closed surface: nine coordinates a triangle, mm. */
export interface Mesh {
  triangles: Float32Array;
  min: [number, number, number];
  max: [number, number, number];
}

/** More triangles than this no phone reads while somebody waits. */
const MOST_TRIANGLES = 250_000;

/** Makes a mesh of loose triangles; undefined where there is none, or where a coordinate is no number. */
export function meshOf(triangles: Float32Array): Mesh | undefined {
  const min: Mesh['min'] = [Infinity, Infinity, Infinity];
  const max: Mesh['max'] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < triangles.length; i++) {
    if (!Number.isFinite(triangles[i])) return undefined;
    min[i % 3] = Math.min(min[i % 3], triangles[i]);
    max[i % 3] = Math.max(max[i % 3], triangles[i]);
  }
  return triangles.length > 0 ? { triangles, min, max } : undefined;
}

function fromBinary(file: Uint8Array, count: number): Float32Array {
  const view = new DataView(file.buffer, file.byteOffset);
  const out = new Float32Array(count * 9);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 9; k++) out[t * 9 + k] = view.getFloat32(STL_HEAD + t * STL_RECORD + STL_NORMAL + k * 4, true);
  }
  return out;
}

function fromText(text: string): Float32Array {
  const numbers: number[] = [];
  for (const m of text.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/gi)) numbers.push(...m.slice(1, 4).map(Number));
  return Float32Array.from(numbers.slice(0, Math.floor(numbers.length / 9) * 9));
}

/** The line a text file stops at before its solid does; undefined where it is whole, or no solid at all. */
function cutShortAt(text: string): number | undefined {
  const count = (word: RegExp) => text.match(word)?.length ?? 0;
  const facets = count(/\bfacet\b/gi);
  const isWhole =
    count(/\bvertex\b/gi) === 3 * facets && count(/\bendfacet\b/gi) === facets && /\bendsolid\b/i.test(text);
  return facets === 0 || isWhole ? undefined : text.trimEnd().split('\n').length;
}

/**
 * Reads an STL file, binary or text, its lengths taken as mm.
 * Findings: `mesh-unreadable`, `mesh-cut-short`, `mesh-large`, `mesh-flat`, `mesh-tangled`, `mesh-open`.
 */
export function readStl(file: Uint8Array): { mesh?: Mesh; findings: Finding[] } {
  const refuse = <C extends Code>(code: C, data: DataOf<C>) => ({ findings: [finding(code, data)] });
  const count = file.length >= STL_HEAD ? new DataView(file.buffer, file.byteOffset).getUint32(STL_HEAD - 4, true) : 0;
  const isBinary = count > 0 && file.length >= STL_HEAD + STL_RECORD * count;
  const size = isBinary ? count : file.length / 200;
  if (size > MOST_TRIANGLES) return refuse('mesh-large', { most: MOST_TRIANGLES });
  const text = isBinary ? '' : new TextDecoder('latin1').decode(file);
  const line = cutShortAt(text);
  if (line !== undefined) return { findings: [finding('mesh-cut-short', { line }, { line })] };
  if (!isBinary && count > 0 && !/^\s*solid\b/i.test(text)) return refuse('mesh-cut-short', { line: 0 });
  const mesh = meshOf(isBinary ? fromBinary(file, count) : fromText(text));
  if (!mesh) return refuse('mesh-unreadable', {});
  if (mesh.max.some((m, k) => m - mesh.min[k] < 0.1)) return refuse('mesh-flat', {});
  if (layersOf(mesh) > MOST_LAYERS) return refuse('mesh-tangled', {});
  if (isClosed(mesh)) return { mesh, findings: [] };
  return {
    mesh,
    findings: [finding('mesh-open', {})],
  };
}

/** A vertical through a plain solid meets far fewer faces. */
const MOST_LAYERS = 300;

/** How often, by the boxes of its triangles, a mesh covers its own box seen from above. */
function layersOf({ triangles: t, min, max }: Mesh): number {
  let sum = 0;
  const side = (k: number) => Math.max(t[k], t[k + 3], t[k + 6]) - Math.min(t[k], t[k + 3], t[k + 6]);
  for (let k = 0; k < t.length; k += 9) sum += side(k) * side(k + 1);
  return sum / ((max[0] - min[0]) * (max[1] - min[1]));
}

/** Verticals tried on a side to see whether a mesh is closed. */
const TRIED = 80;

/** Whether every vertical that goes into the mesh comes out again. */
function isClosed(mesh: Mesh): boolean {
  const [minX, minY] = mesh.min;
  const [maxX, maxY] = mesh.max;
  const grid = makeField({ minX, maxX, minY, maxY }, Math.max(maxX - minX, maxY - minY) / TRIED);
  return crossings(mesh, [0, 0, 0], grid).every((heights = []) => heights.length % 2 === 0);
}

const READ = new WeakMap<Uint8Array, { mesh?: Mesh }>();

/** The mesh a file holds; undefined where it cannot be read. What was read once is remembered. */
export function meshIn(file: Uint8Array): Mesh | undefined {
  const known = READ.get(file) ?? readStl(file);
  READ.set(file, known);
  return known.mesh;
}

/** Away from corners and edges drawn on the grid, as a share of a cell. */
const ASIDE = [1.3e-4, 2.7e-4];

/** Heights at which the vertical through each cell's middle passes the mesh, cell by cell. */
function crossings({ triangles: t }: Mesh, by: [number, number, number], { x0, y0, cell, nx, ny }: HeightField) {
  const found: (number[] | undefined)[] = new Array(nx * ny);
  const column = (x: number) => (x - x0) / cell - 0.5 - ASIDE[0];
  const row = (y: number) => (y - y0) / cell - 0.5 - ASIDE[1];
  for (let k = 0; k < t.length; k += 9) {
    const [ax, bx, cx] = [column(t[k] + by[0]), column(t[k + 3] + by[0]), column(t[k + 6] + by[0])];
    const [ay, by_, cy] = [row(t[k + 1] + by[1]), row(t[k + 4] + by[1]), row(t[k + 7] + by[1])];
    const [az, bz, cz] = [t[k + 2] + by[2], t[k + 5] + by[2], t[k + 8] + by[2]];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by_ - ay);
    if (area === 0) continue;
    for (let j = Math.max(0, Math.ceil(Math.min(ay, by_, cy))); j <= Math.min(ny - 1, Math.max(ay, by_, cy)); j++) {
      for (let i = Math.max(0, Math.ceil(Math.min(ax, bx, cx))); i <= Math.min(nx - 1, Math.max(ax, bx, cx)); i++) {
        const u = ((bx - i) * (cy - j) - (cx - i) * (by_ - j)) / area;
        const v = ((cx - i) * (ay - j) - (ax - i) * (cy - j)) / area;
        if (u < 0 || v < 0 || u + v > 1) continue;
        (found[j * nx + i] ??= []).push(u * az + v * bz + (1 - u - v) * cz);
      }
    }
  }
  return found;
}

/**
 * A mesh as piles of metal on a grid; where it is open, the odd face is left out.
 * @param by how far it is moved, mm
 */
export function meshField(mesh: Mesh, by: [number, number, number], empty: HeightField): HeightField {
  const field = makePiles(empty);
  crossings(mesh, by, field).forEach((heights, i) => {
    if (!heights) return;
    heights.sort((a, b) => b - a);
    setPile(field, i, heights.slice(0, heights.length - (heights.length % 2)));
  });
  return field;
}
