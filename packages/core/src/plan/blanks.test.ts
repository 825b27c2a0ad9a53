import fc from 'fast-check';
import { jobWith } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { cellFor, pileOf, volumeOf } from '../stock/height/field';
import { readStl } from '../stock/height/mesh';
import { stockStl } from '../stock/height/stl';
import { stockField } from '../stock/height/stock';
import { boundsOf } from '../geometry/plane/point';
import { putAtHand } from '../quantity/files';
import { Job, Setup } from '../document/job';
import { planSetup } from './pipeline';
import { proveProgram } from './prove';
import { readJob } from './documents';
import { groundOf } from './ground';

/** A plate 80 x 50 x 10 cut from some blank. */
function blank(stock: Partial<Setup['stock']>): Job {
  const job = jobWith(undefined);
  const plain = { ...job.setups[0].stock, left: 5, right: 5, front: 0, back: 0, top: 1, bottom: 4, ...stock };
  return { ...job, setups: [{ ...job.setups[0], stock: plain }] };
}

const fieldOf = (job: Job, cell?: number) => {
  const { stock } = groundOf(job, job.setups[0]);
  return stockField(stock, cell ?? cellFor(boundsOf(stock.region.flat()), 300_000, 0.05));
};
const volume = (job: Job) => volumeOf(fieldOf(job), groundOf(job, job.setups[0]).stock.bottom);
const disc = (d: number) => (Math.PI * d * d) / 4;

describe('blanks have the volume that closed forms give', () => {
  const rounded = (w: number, h: number, r: number) => w * h - (4 - Math.PI) * r * r;
  test.each<[string, Partial<Setup['stock']>, number]>([
    ['a tube upright', { shape: 'tube', diameter: 110, bore: 40 }, (disc(110) - disc(40)) * 15],
    ['a bar with rounded edges upright', { shape: 'box', corner: 6 }, rounded(90, 50, 6) * 15],
    ['a round bar along X', { shape: 'round', diameter: 60, lies: 'along X' }, disc(60) * 90],
    ['a tube along Y', { shape: 'tube', diameter: 100, bore: 30, lies: 'along Y' }, (disc(100) - disc(30)) * 50],
    ['a bar with rounded edges along X', { shape: 'box', corner: 4, lies: 'along X' }, rounded(50, 15, 4) * 90],
  ])('%s', (_, stock, exact) => {
    expect(Math.abs(volume(blank(stock)) / exact - 1)).toBeLessThan(0.003);
  });

  test('job files say them, and refuse what is none', () => {
    const job = blank({ shape: 'tube', bore: 20, lies: 'along X' });
    expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
    const odd = blank({ lies: 'askew' as never });
    expect(readJob(JSON.parse(JSON.stringify(odd))).findings[0].place.field).toBe('setups.0.stock.lies');
  });

  test('a bore as wide as its tube leaves a wall, and edges rounder than the bar a round bar', () => {
    const solid = blank({ shape: 'tube', diameter: 110, bore: 500 });
    expect(volume(solid)).toBeGreaterThan(0);
    expect(planSetup(solid, solid.setups[0]).findings.map((f) => f.code)).toContain('tube-bore');
    const full = blank({ shape: 'box', corner: 900, lies: 'along X', front: 0, back: 0, top: 20, bottom: 20 });
    expect(Math.abs(volume(full) / (disc(50) * 90) - 1)).toBeLessThan(0.003);
  });
});

test('a flat milled on a lying round bar takes the segment of its circle', () => {
  const job = { ...blank({ shape: 'round', diameter: 60, lies: 'along X' }), tools: [tool(1)] };
  // The bar stands 25 above the part's top; five of it are taken.
  const rows = [-25, 0, 25].map((y) => `G0 Y${25 + y}\nG1 Z20 F120\nX120\nG0 Z60\nX-40`).join('\n');
  const text = `G21 G90 G54\nT1 M6\nS900 M3\nG0 X-40 Y0\nZ60\n${rows}\nM30\n`;
  const setups = [
    { ...job.setups[0], zero: { on: 'part' as const, point: 'front left' as const, height: 'top' as const } },
  ];
  const proof = proveProgram({ ...job, setups }, setups[0], text, 0.2);
  const [r, depth] = [30, 5];
  const segment = r * r * Math.acos(1 - depth / r) - (r - depth) * Math.sqrt(2 * r * depth - depth * depth);
  expect(Math.abs((proof.removed * 1000) / (segment * 90) - 1)).toBeLessThan(0.005);
  expect(proof.findings.filter((f) => f.level === 'stop' && f.code !== 'gouge')).toEqual([]);
});

/** A ball of triangles. */
function ball(radius: number, steps: number): Float32Array {
  const at = (i: number, j: number) => {
    const [a, b] = [(Math.PI * i) / steps, (2 * Math.PI * (j % (2 * steps))) / (2 * steps)];
    const flat = i === 0 || i === steps ? 0 : radius * Math.sin(a);
    return [flat * Math.cos(b), flat * Math.sin(b), radius * Math.cos(a)];
  };
  const out: number[] = [];
  for (let i = 0; i < steps; i++) {
    for (let j = 0; j < 2 * steps; j++) {
      if (i > 0) out.push(...at(i, j), ...at(i + 1, j), ...at(i, j + 1));
      if (i < steps - 1) out.push(...at(i, j + 1), ...at(i + 1, j), ...at(i + 1, j + 1));
    }
  }
  return Float32Array.from(out);
}

/** A mesh as a text file. */
function textFile(triangles: Float32Array): Uint8Array {
  const facets: string[] = [];
  for (let t = 0; t < triangles.length; t += 9) {
    const corner = (k: number) => `vertex ${triangles[t + k]} ${triangles[t + k + 1]} ${triangles[t + k + 2]}`;
    facets.push(`facet normal 0 0 0\nouter loop\n${[0, 3, 6].map(corner).join('\n')}\nendloop\nendfacet`);
  }
  return new TextEncoder().encode(`solid ball\n${facets.join('\n')}\nendsolid ball\n`);
}

describe('castings', () => {
  const cast = (file: Uint8Array) =>
    blank({ shape: 'casting', casting: { name: 'ball.stl', sha256: putAtHand(file) } });

  test('a ball read from a text file has its volume, stands over the part and as high as asked', () => {
    const file = textFile(ball(30, 40));
    expect(readStl(file).findings).toEqual([]);
    const job = cast(file);
    const { stock } = groundOf(job, job.setups[0]);
    expect([stock.top, stock.bottom]).toEqual([1, -59]);
    expect(boundsOf(stock.region.flat())).toEqual({ minX: 10, maxX: 70, minY: -5, maxY: 55 });
    expect(Math.abs(volume(job) / ((4 / 3) * Math.PI * 30 ** 3) - 1)).toBeLessThan(0.005);
    expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  });

  test('stock saved as a binary file comes back the same, its void too', () => {
    const tube = blank({ shape: 'tube', diameter: 40, bore: 20, lies: 'along X' });
    const floor = groundOf(tube, tube.setups[0]).stock.bottom;
    const field = fieldOf(tube, 2);
    const file = stockStl(field, floor);
    expect(readStl(file).findings).toEqual([]);
    const again = cast(file);
    const back = fieldOf(again, 2);
    expect(volumeOf(back, -1e6)).toBeCloseTo(volumeOf(field, floor), -1);
    const middle = Math.floor(back.ny / 2) * back.nx + Math.floor(back.nx / 2);
    expect(pileOf(back, middle, NaN)).toHaveLength(4);
  });

  test('what is no solid is refused or told', () => {
    const code = (file: Uint8Array) => readStl(file).findings.map((f) => f.code);
    expect(code(new TextEncoder().encode('solid nothing\nendsolid'))).toEqual(['mesh-unreadable']);
    expect(code(new Uint8Array(0))).toEqual(['mesh-unreadable']);
    const open = ball(10, 6);
    expect(code(textFile(open.slice(9)))).toEqual(['mesh-open']);
    const flat = Float32Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0]);
    expect(code(textFile(flat))).toEqual(['mesh-flat']);
    const many = new Uint8Array(84 + 50 * 250_001);
    new DataView(many.buffer).setUint32(80, 250_001, true);
    expect(code(many)).toEqual(['mesh-large']);
    const heap = new Float32Array(9 * 900).map((_, i) => ((i * 7919) % 100) + (i % 3) * 0.1);
    expect(code(textFile(heap))).toEqual(['mesh-tangled']);
    const away = blank({ shape: 'casting', casting: { name: 'x', sha256: '0'.repeat(64) } });
    for (const [job, told] of [
      [blank({ shape: 'casting' }), 'casting-missing'],
      [cast(textFile(flat)), 'casting-unreadable'],
      [away, 'file-missing'],
    ] as const)
      expect(planSetup(job, job.setups[0]).findings).toContainEqual(
        expect.objectContaining({ code: told, level: 'stop', place: { field: 'stock.casting' } }),
      );
  });

  test('mangled files never throw and never hang', () => {
    const good = [textFile(ball(20, 6)), stockStl(fieldOf(blank({ shape: 'round', diameter: 100 }), 4), -14)];
    const runs = Number(process.env.LONG_RUN ?? 300);
    fc.assert(
      fc.property(
        fc.constantFrom(...good),
        fc.array(fc.tuple(fc.double({ min: 0, max: 0.999, noNaN: true }), fc.integer({ min: 0, max: 255 })), {
          minLength: 1,
          maxLength: 12,
        }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (file, changes, kept) => {
          const mangled = file.slice(0, Math.ceil(file.length * kept));
          for (const [share, byte] of changes) mangled[Math.floor(share * mangled.length)] = byte;
          const { mesh, findings } = readStl(mangled);
          expect(mesh !== undefined || findings.some((f) => f.level === 'stop')).toBe(true);
          if (mesh && mesh.max.every((m, k) => m - mesh.min[k] < 1000)) {
            const job = cast(mangled);
            expect(Number.isFinite(volumeOf(fieldOf(job, 20), -1e6))).toBe(true);
          }
        },
      ),
      { seed: 8, numRuns: runs },
    );
  });
});
