/** The form a solid is kept in: PLY, binary, with coordinates of double precision and the face each triangle belongs to. */
import { Triangles, countOf } from '../../../geometry/space/triangles';

const headOf = (points: number, triangles: number): string =>
  [
    'ply',
    'format binary_little_endian 1.0',
    'comment lengths in mm',
    `element vertex ${points}`,
    'property double x',
    'property double y',
    'property double z',
    `element face ${triangles}`,
    'property list uchar uint vertex_indices',
    'property int face',
    'end_header',
    '',
  ].join('\n');

const TRIANGLE = 1 + 3 * 4 + 4;
const POINT = 3 * 8;

/** A surface as the bytes it is kept as. */
export function surfaceFile(mesh: Triangles): Uint8Array {
  const { points, corners, face } = mesh;
  const head = new TextEncoder().encode(headOf(points.length / 3, countOf(mesh)));
  const out = new Uint8Array(head.length + 8 * points.length + TRIANGLE * countOf(mesh));
  out.set(head);
  const view = new DataView(out.buffer);
  let at = head.length;
  for (const v of points) {
    view.setFloat64(at, v, true);
    at += 8;
  }
  for (let t = 0; t < countOf(mesh); t++) {
    view.setUint8(at, 3);
    for (let k = 0; k < 3; k++) view.setUint32(at + 1 + 4 * k, corners[3 * t + k], true);
    view.setInt32(at + 13, face ? face[t] : -1, true);
    at += TRIANGLE;
  }
  return out;
}

/** The surface such bytes hold; undefined where they are nothing of the kind, or not whole. */
export function surfaceIn(file: Uint8Array): Triangles | undefined {
  const text = new TextDecoder('latin1').decode(file.subarray(0, 400));
  const [, points, triangles] = (/element vertex (\d+)\n[\s\S]*element face (\d+)\n/.exec(text) ?? []).map(Number);
  if (!(points > 0) || !(triangles > 0)) return undefined;
  const head = headOf(points, triangles);
  if (!text.startsWith(head) || file.length !== head.length + POINT * points + TRIANGLE * triangles) return undefined;
  const view = new DataView(file.buffer, file.byteOffset);
  const mesh = {
    points: new Float64Array(3 * points),
    corners: new Uint32Array(3 * triangles),
    face: new Int32Array(triangles),
  };
  let at = head.length;
  for (let i = 0; i < 3 * points; i++, at += 8) {
    mesh.points[i] = view.getFloat64(at, true);
    if (!Number.isFinite(mesh.points[i])) return undefined;
  }
  for (let t = 0; t < triangles; t++, at += TRIANGLE) {
    for (let k = 0; k < 3; k++) {
      const corner = view.getUint32(at + 1 + 4 * k, true);
      if (corner >= points) return undefined;
      mesh.corners[3 * t + k] = corner;
    }
    mesh.face[t] = view.getInt32(at + 13, true);
  }
  return mesh;
}
