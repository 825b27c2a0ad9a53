import { STL_HEAD, STL_NORMAL, STL_RECORD } from '../../../geometry/space/stl';
import { joinedTriangles } from '../../../geometry/space/triangles';
import { finding } from '../../../quantity/finding';
import { MOST_TRIANGLES, ReadModel } from './model';

const EMPTY: ReadModel = { form: 'STL', bodies: [], findings: [] };

const countIn = (file: Uint8Array): number =>
  file.length >= STL_HEAD ? new DataView(file.buffer, file.byteOffset).getUint32(STL_HEAD - 4, true) : 0;

/** Whether a file is binary STL by its length, whatever word it begins with. */
export const isBinaryStl = (file: Uint8Array): boolean => {
  const count = countIn(file);
  return count > 0 && file.length >= STL_HEAD + STL_RECORD * count && file.length < STL_HEAD + STL_RECORD * (count + 1);
};

/** Whether a file begins as text STL does. */
export const isTextStl = (head: string): boolean => /^\s*solid\b/i.test(head) && /\bfacet\b/i.test(head);

/** Reads binary STL. Findings: `mesh-large`. */
export function readBinaryStl(file: Uint8Array): ReadModel {
  const count = countIn(file);
  if (count > MOST_TRIANGLES) return { ...EMPTY, findings: [finding('mesh-large', { most: MOST_TRIANGLES })] };
  const view = new DataView(file.buffer, file.byteOffset);
  const loose = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    const at = STL_HEAD + t * STL_RECORD + STL_NORMAL;
    for (let k = 0; k < 9; k++) loose[9 * t + k] = view.getFloat32(at + 4 * k, true);
  }
  return { ...EMPTY, bodies: [{ name: '', mesh: joinedTriangles(loose) }] };
}

/** The three numbers after each `vertex`. */
const VERTEX = /\bvertex\s+(\S+)\s+(\S+)\s+(\S+)|\b(endfacet)\b/gi;

/** Reads text STL. Findings: `mesh-large`, `mesh-cut-short`, `mesh-not-a-number`. */
export function readTextStl(text: string): ReadModel {
  const loose: number[] = [];
  let facets = 0;
  for (const [, x, y, z, end] of text.matchAll(VERTEX)) {
    if (end) facets++;
    else loose.push(Number(x), Number(y), Number(z));
    if (facets > MOST_TRIANGLES) return { ...EMPTY, findings: [finding('mesh-large', { most: MOST_TRIANGLES })] };
    if (end && loose.length !== 9 * facets) break;
  }
  if (loose.length !== 9 * facets || !/\bendsolid\b/i.test(text.slice(-1000))) {
    const line = text.trimEnd().split('\n').length;
    return { ...EMPTY, findings: [finding('mesh-cut-short', { line }, { line })] };
  }
  return { ...EMPTY, bodies: [{ name: '', mesh: joinedTriangles(loose) }] };
}
