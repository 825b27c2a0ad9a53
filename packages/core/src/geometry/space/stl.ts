/** The binary STL form. */
import { Triangles, areaVectors, countOf } from './triangles';

export type Corner = [number, number, number];

/** Bytes before the first triangle (80 of remarks, the count) and of each. */
export const STL_HEAD = 84;
export const STL_RECORD = 50;
/** Bytes of a record before its corners. */
export const STL_NORMAL = 12;

/** Builds such a file triangle by triangle; lengths in mm. */
export class StlBuilder {
  private data = new DataView(new ArrayBuffer(STL_HEAD + STL_RECORD * 4096));
  private count = 0;

  /** A rectangle by its corners, counterclockwise seen from outside, with its normal. */
  rectangle(a: Corner, b: Corner, c: Corner, d: Corner, normal: Corner): void {
    this.triangle(a, b, c, normal);
    this.triangle(a, c, d, normal);
  }

  triangle(a: Corner, b: Corner, c: Corner, normal: Corner): void {
    const at = STL_HEAD + STL_RECORD * this.count++;
    if (at + STL_RECORD > this.data.byteLength) {
      const next = new Uint8Array(this.data.byteLength * 2);
      next.set(new Uint8Array(this.data.buffer));
      this.data = new DataView(next.buffer);
    }
    [normal, a, b, c].flat().forEach((v, k) => this.data.setFloat32(at + 4 * k, v, true));
  }

  build(): Uint8Array {
    this.data.setUint32(STL_HEAD - 4, this.count, true);
    return new Uint8Array(this.data.buffer, 0, STL_HEAD + STL_RECORD * this.count);
  }
}

/** A surface as such a file. */
export function stlOf(mesh: Triangles): Uint8Array {
  const file = new StlBuilder();
  const { points, corners } = mesh;
  const areas = areaVectors(mesh);
  const corner = (k: number): Corner => [
    points[3 * corners[k]],
    points[3 * corners[k] + 1],
    points[3 * corners[k] + 2],
  ];
  for (let t = 0; t < countOf(mesh); t++) {
    const normal: Corner = [areas[3 * t], areas[3 * t + 1], areas[3 * t + 2]];
    const long = Math.sqrt(normal.reduce((sum, v) => sum + v * v, 0)) || 1;
    file.triangle(corner(3 * t), corner(3 * t + 1), corner(3 * t + 2), normal.map((v) => v / long) as Corner);
  }
  return file.build();
}
