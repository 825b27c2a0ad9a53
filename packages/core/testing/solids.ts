/** Solids for tests: those of the demo with their truth, and some made here. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import startStep from 'occt-import-js';
import { Joined, joinedTriangles } from '../src/geometry/space/triangles';
import { Lean } from '../src/part/plate/leaning';
import { Faces, facesOfSolid } from '../src/part/solid/faces/faces';
import { onPlace } from '../src/part/solid/lying';
import { readModel } from '../src/part/solid/read/read';

const SOLIDS = join(__dirname, '..', '..', '..', 'demo', 'solids');

export const solidFile = (name: string): Uint8Array => new Uint8Array(readFileSync(join(SOLIDS, name)));

/** One feature as it was built. Places count on its side as somebody sees it who stands before it, from its lower left corner; on the underside as from above. */
export interface True {
  kind: 'pocket' | 'boss' | 'hole' | 'slot' | 'step' | 'chamfer' | 'fillet' | 'taper' | 'free';
  side: 'top' | 'underside' | 'front' | 'back' | 'left' | 'right';
  x?: number;
  y?: number;
  /** Along X and Y, and the radius of its upright corners. */
  width?: number;
  height?: number;
  corner?: number;
  diameter?: number;
  /** Of its floor, from the side it is cut from. */
  depth?: number;
  through?: boolean;
  /** Where the mouth of a hole lies, and where one that goes through comes out, where that is not at the sides of the solid. */
  from?: number;
  ends?: number;
  /** How its axis leans; its place is where that meets the top. */
  lean?: Lean;
  /** Included angle of the drill’s point. */
  point?: number;
  counterbore?: { diameter: number; depth: number };
  countersink?: { diameter: number; angle: number };
  /** Radius at the foot of its walls, of a fillet, or width of a chamfer. */
  size?: number;
  /** Degrees its walls stand from upright. */
  taper?: number;
}

export const TRUTH = JSON.parse(readFileSync(join(SOLIDS, 'truth.json'), 'utf8')) as Record<
  string,
  { size: [number, number, number]; faces?: Record<string, number>; features: True[] }
>;

/** The largest body of a demo solid, its faces found, in its place. */
export async function solidOf(name: string, form: 'step' | 'stl'): Promise<Faces> {
  const step = form === 'step' ? await startStep() : undefined;
  const { bodies } = readModel(solidFile(`${name}.${form}`), { step });
  return onPlace(facesOfSolid(bodies[0].mesh));
}

/** Nine numbers a triangle of a box from 0 to its sizes. */
export function boxTriangles(x: number, y: number, z: number): number[] {
  const corner = (i: number) => [i & 1 ? x : 0, i & 2 ? y : 0, i & 4 ? z : 0];
  const sides = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  return sides.flatMap(([a, b, c, d]) => [a, b, c, a, c, d].flatMap(corner));
}

/**
 * A block 60 × 60 × 30 with a hollow of free form in its top.
 * @param n squares along each side: 4 n² + 8 n triangles
 * @param noise how far the corners of its top are off at most, mm
 */
export function bowl(n: number, noise = 0): Joined {
  const side = 60;
  let seed = 1;
  const off = () => {
    seed = (seed * 16807) % 2147483647;
    return (2 * seed) / 2147483647 - 1;
  };
  const hollow = (x: number, y: number) =>
    -14 * Math.exp(-((x - 30) ** 2 + 1.3 * (y - 30) ** 2) / 400) - 2 * Math.sin(x / 9) * Math.cos(y / 11) - 4;
  const at = (i: number) => (i * side) / n;
  const heights = Array.from({ length: (n + 1) * (n + 1) }, (_, k) => {
    return hollow(at(k % (n + 1)), at(Math.floor(k / (n + 1)))) + noise * off();
  });
  const top = (i: number, j: number) => [at(i), at(j), heights[j * (n + 1) + i]];
  const under = (i: number, j: number) => [at(i), at(j), -30];
  const loose: number[] = [];
  const quad = (a: number[], b: number[], c: number[], d: number[]) => loose.push(...a, ...b, ...c, ...a, ...c, ...d);
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      quad(top(i, j), top(i + 1, j), top(i + 1, j + 1), top(i, j + 1));
      quad(under(i, j), under(i, j + 1), under(i + 1, j + 1), under(i + 1, j));
    }
  for (let i = 0; i < n; i++) {
    quad(under(i, 0), under(i + 1, 0), top(i + 1, 0), top(i, 0));
    quad(under(i + 1, n), under(i, n), top(i, n), top(i + 1, n));
    quad(under(0, i + 1), under(0, i), top(0, i), top(0, i + 1));
    quad(under(n, i), under(n, i + 1), top(n, i + 1), top(n, i));
  }
  return joinedTriangles(loose);
}

/** What stands on a ring that runs counterclockwise, seen from a place within it. */
export function prism(ring: { x: number; y: number }[], height: number): Joined {
  const n = ring.length;
  const middle = ring.reduce((m, p) => ({ x: m.x + p.x / n, y: m.y + p.y / n }), { x: 0, y: 0 });
  const at = ({ x, y }: { x: number; y: number }, z: number) => [x, y, z];
  const loose = ring.flatMap((a, k) => {
    const b = ring[(k + 1) % n];
    const top = [...at(middle, height), ...at(a, height), ...at(b, height)];
    const under = [...at(middle, 0), ...at(b, 0), ...at(a, 0)];
    const wall = [...at(a, 0), ...at(b, 0), ...at(b, height), ...at(a, 0), ...at(b, height), ...at(a, height)];
    return [...top, ...under, ...wall];
  });
  return joinedTriangles(loose);
}

/** Loose triangles as a binary STL file. */
export function stlOf(loose: number[]): Uint8Array {
  const out = new DataView(new ArrayBuffer(84 + 50 * (loose.length / 9)));
  out.setUint32(80, loose.length / 9, true);
  for (let t = 0; t < loose.length / 9; t++)
    for (let k = 0; k < 9; k++) out.setFloat32(84 + 50 * t + 12 + 4 * k, loose[9 * t + k], true);
  return new Uint8Array(out.buffer);
}

/**
 * A block of square columns, each as high as asked, its underside at −20.
 * @param tops of columns, row by row from the front, mm
 */
export function terraces(tops: number[][], side = 10): Joined {
  const loose: number[] = [];
  const quad = (a: number[], b: number[], c: number[], d: number[]) => loose.push(...a, ...b, ...c, ...a, ...c, ...d);
  const at = (i: number, j: number) => tops[j]?.[i] ?? UNDER;
  // Every wall is cut at each height there is, so that corners meet corners.
  const heights = [...new Set([UNDER, ...tops.flat()])].sort((a, b) => a - b);
  const wall = (x0: number, y0: number, x1: number, y1: number, from: number, to: number) => {
    const cuts = heights.filter((z) => z >= from && z <= to);
    for (let k = 0; k + 1 < cuts.length; k++) {
      const [low, high] = [cuts[k], cuts[k + 1]];
      quad([x0, y0, low], [x1, y1, low], [x1, y1, high], [x0, y0, high]);
    }
  };
  tops.forEach((row, j) =>
    row.forEach((z, i) => {
      const [l, r, f, b] = [i * side, (i + 1) * side, j * side, (j + 1) * side];
      quad([l, f, z], [r, f, z], [r, b, z], [l, b, z]);
      quad([l, f, UNDER], [l, b, UNDER], [r, b, UNDER], [r, f, UNDER]);
      if (z > at(i, j - 1)) wall(l, f, r, f, at(i, j - 1), z);
      if (z > at(i + 1, j)) wall(r, f, r, b, at(i + 1, j), z);
      if (z > at(i, j + 1)) wall(r, b, l, b, at(i, j + 1), z);
      if (z > at(i - 1, j)) wall(l, b, l, f, at(i - 1, j), z);
    }),
  );
  return joinedTriangles(loose);
}

const UNDER = -20;
