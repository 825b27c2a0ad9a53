import { unzipSync } from 'fflate';
import { joinedTriangles } from '../../../geometry/space/triangles';
import { finding } from '../../../quantity/finding';
import { MM_IN, MOST_TRIANGLES, ModelUnit, ReadBody, ReadModel } from './model';

const EMPTY: ReadModel = { form: '3MF', bodies: [], findings: [] };
const refused = (why: string): ReadModel => ({ ...EMPTY, findings: [finding('model-package-unreadable', { why })] });

/** Largest model within a package once unpacked, bytes. */
const LARGEST_UNPACKED = 400_000_000;
/** How deep objects may be made of others. */
const DEEPEST = 8;

/** Rows of a 3 × 4 matrix as the form writes them: each of X, Y, Z, and where zero goes. */
type Matrix = number[];
const SAME: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

/** One matrix after another. */
function after(first: Matrix, then: Matrix): Matrix {
  const out: Matrix = [];
  for (let row = 0; row < 4; row++)
    for (let k = 0; k < 3; k++) {
      const [x, y, z] = first.slice(3 * row, 3 * row + 3);
      out.push(x * then[k] + y * then[3 + k] + z * then[6 + k] + (row === 3 ? then[9 + k] : 0));
    }
  return out;
}

function matrixIn(tag: string): Matrix {
  const said = attribute(tag, 'transform')?.trim().split(/\s+/).map(Number);
  return said?.length === 12 && said.every(Number.isFinite) ? said : SAME;
}

/** An attribute of a tag, whatever order they stand in. */
function attribute(tag: string, name: string): string | undefined {
  return new RegExp(`(?:^|[\\s:])${name}\\s*=\\s*["']([^"']*)["']`).exec(tag)?.[1];
}

const UNITS: Record<string, { unit: ModelUnit; mm: number }> = {
  millimeter: { unit: 'mm', mm: 1 },
  centimeter: { unit: 'cm', mm: 10 },
  inch: { unit: 'inch', mm: 25.4 },
  meter: { unit: 'm', mm: 1000 },
  foot: { unit: 'inch', mm: 304.8 },
  micron: { unit: 'mm', mm: 0.001 },
};

interface Described {
  name: string;
  text: string;
  parts: { path?: string; id: string; by: Matrix }[];
}

/** The objects of one model file by their numbers. */
function objectsIn(text: string): Map<string, Described> {
  const objects = new Map<string, Described>();
  for (const [, tag, inner] of text.matchAll(/<object\b([^>]*)>([\s\S]*?)<\/object>/g)) {
    const parts = [...inner.matchAll(/<component\b([^>]*)>/g)].map(([, c]) => ({
      path: attribute(c, 'path'),
      id: attribute(c, 'objectid') ?? '',
      by: matrixIn(c),
    }));
    objects.set(attribute(tag, 'id') ?? '', { name: attribute(tag, 'name') ?? '', text: inner, parts });
  }
  return objects;
}

/** Triangles of an object and all it is made of, placed. */
class Gathered {
  readonly points: number[] = [];
  readonly index: number[] = [];

  constructor(
    private readonly files: Map<string, Map<string, Described>>,
    private readonly mm: number,
  ) {}

  add(path: string, id: string, by: Matrix, depth = 0): boolean {
    const object = this.files.get(path)?.get(id);
    if (!object || depth > DEEPEST || this.index.length > 3 * MOST_TRIANGLES) return false;
    this.mesh(object.text, by);
    return object.parts.every((p) => this.add(p.path ?? path, p.id, after(p.by, by), depth + 1));
  }

  private mesh(text: string, m: Matrix): void {
    const first = this.points.length / 3;
    for (const [tag] of text.matchAll(/<vertex\b[^>]*>/g)) {
      const [x, y, z] = ['x', 'y', 'z'].map((n) => Number(attribute(tag, n)));
      for (let k = 0; k < 3; k++) this.points.push(this.mm * (x * m[k] + y * m[3 + k] + z * m[6 + k] + m[9 + k]));
    }
    for (const [tag] of text.matchAll(/<triangle\b[^>]*>/g))
      this.index.push(...['v1', 'v2', 'v3'].map((n) => first + Number(attribute(tag, n))));
  }
}

/**
 * Reads 3MF: what its build lays out, with the parts of objects and their places.
 * Findings: `model-package-unreadable`, `mesh-large`.
 */
export function read3mf(file: Uint8Array): ReadModel {
  let size = 0;
  let unpacked: Record<string, Uint8Array>;
  try {
    unpacked = unzipSync(file, {
      filter: ({ name, originalSize }) => name.endsWith('.model') && (size += originalSize) <= LARGEST_UNPACKED,
    });
  } catch {
    return refused('it is no whole ZIP package');
  }
  const texts = Object.entries(unpacked).map(([name, bytes]) => [`/${name}`, new TextDecoder().decode(bytes)] as const);
  const files = new Map(texts.map(([name, text]) => [name, objectsIn(text)]));
  const root = texts.find(([, text]) => /<build\b[^>]*>[\s\S]*<item\b/.test(text));
  if (!root) return refused('nothing is laid out to be built in it');
  const [path, text] = root;
  const { unit, mm } = UNITS[attribute(/<model\b[^>]*>/.exec(text)?.[0] ?? '', 'unit') ?? 'millimeter'] ?? {
    unit: 'mm',
    mm: MM_IN.mm,
  };
  const bodies: ReadBody[] = [];
  for (const [, tag] of text.matchAll(/<item\b([^>]*)>/g)) {
    const gathered = new Gathered(files, mm);
    const id = attribute(tag, 'objectid') ?? '';
    if (!gathered.add(attribute(tag, 'path') ?? path, id, matrixIn(tag))) return refused(`object ${id} is not in it`);
    const corners = gathered.points.length / 3;
    if (!gathered.index.every((n) => n >= 0 && n < corners))
      return refused(`object ${id} names corners it does not have`);
    if (gathered.index.length > 3 * MOST_TRIANGLES)
      return { ...EMPTY, findings: [finding('mesh-large', { most: MOST_TRIANGLES })] };
    if (gathered.index.length > 0)
      bodies.push({
        name: files.get(path)?.get(id)?.name ?? '',
        mesh: joinedTriangles(gathered.points, gathered.index),
      });
  }
  return { ...EMPTY, bodies, unit };
}
