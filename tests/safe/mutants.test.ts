/**
 * Files that were damaged on the way: never a crash, never past the reader's budget, and never read differently without a word.
 * `MUTANTS=10000 npx jest --selectProjects safe -- mutants` is the long run.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import {
  Finding,
  HOLDERS,
  TOOLS,
  hashOf,
  importDrawing,
  ownText,
  parseJob,
  previewTools,
  readProgram,
  readStl,
  toolsToCsv,
  toolsToJson,
} from '@tidypath/core';
import { root } from './server';

jest.setTimeout(3_600_000);

const RUNS = Number(process.env.MUTANTS ?? 300);
const SEED = 20261128;
const demo = (name: string) => readFileSync(join(root, 'demo', name), 'utf8');
const plate = parseJob(demo('jobs/vane-hub-plate.json')).job!;
const bracket = parseJob(demo('jobs/float-pulley-bracket.json')).job!;

interface Format {
  name: string;
  text: string;
  /** What is made of it, and what is said. */
  read: (text: string) => { made: unknown; findings: Finding[] };
  runs?: number;
  /** A digit that is part of a number, not of a name. */
  digit: RegExp;
  /** Whether a file that ends between two rows is no other than a shorter one. */
  endless?: boolean;
}

const facets = Array.from({ length: 40 }, (_, i) => {
  const corner = (k: number) => `vertex ${i} ${((i + k) % 7) + 0.5} ${(k * 3) % 5}`;
  return `facet normal 0 0 1\n outer loop\n  ${[0, 1, 2].map(corner).join('\n  ')}\n endloop\nendfacet\n`;
});

const FORMATS: Format[] = [
  {
    name: 'G-code',
    digit: /(?<=[XYZIJRFS]-?)\d/g,
    text: ownText(bracket, bracket.setups[0]),
    read: (text) => {
      const { motions, findings } = readProgram(text, { homeZ: 200, unit: 'mm' });
      const columns = Object.entries(motions).flatMap(([name, c]) =>
        name !== 'line' && ArrayBuffer.isView(c) ? [c] : [],
      );
      return { made: columns.map((column) => [...(column as Float64Array)].map(String)), findings };
    },
  },
  {
    name: 'DXF',
    digit: /(?<=\n\s*-?)\d(?=\d*\.\d+\s*\n)/g,
    text: demo('drawings/vane-hub-plate.dxf'),
    read: (text) => {
      const { features, findings } = importDrawing(text);
      return { made: features.map((f) => [f.meaning, f.shape, f.layer]), findings };
    },
  },
  {
    name: 'CSV',
    digit: /(?<=,)\d(?=[\d.]*,)/g,
    text: toolsToCsv(TOOLS.slice(0, 12)),
    read: (text) => {
      const { added, findings } = previewTools(text, [], HOLDERS);
      return { made: added, findings };
    },
    endless: true,
  },
  {
    name: 'tool list',
    digit: /(?<=: -?)\d/g,
    text: toolsToJson(TOOLS.slice(0, 12)),
    read: (text) => {
      const { added, findings } = previewTools(text, [], HOLDERS);
      return { made: added, findings };
    },
  },
  {
    name: 'job file',
    digit: /(?<=: -?)\d/g,
    text: JSON.stringify(plate, null, 1),
    read: (text) => {
      const { job, findings } = parseJob(text);
      return { made: job ?? null, findings };
    },
  },
  {
    name: 'STL',
    digit: /(?<=vertex )\d/g,
    text: `solid a\n${facets.join('')}endsolid a\n`,
    read: (text) => {
      const { mesh, findings } = readStl(new TextEncoder().encode(text));
      return { made: mesh ? [...mesh.triangles] : null, findings };
    },
    // A whole number: fast-check never comes to the end of a broken one.
    runs: Math.ceil(RUNS / 3),
  },
];

/** What can happen to a file on its way: each loses or spoils something that a reader can notice. */
const DAMAGE: Record<string, (text: string, at: number, n: number, digit: RegExp) => string> = {
  'cut short': (text, at) => text.slice(0, at),
  'a letter in a number': (text, at, _, digit) => {
    digit.lastIndex = at;
    const found = digit.exec(text);
    return found ? `${text.slice(0, found.index)}?${text.slice(found.index + 1)}` : text;
  },
  'noise in it': (text, at, n) => `${text.slice(0, at)}${'\u0001\u007f§{"'.slice(n % 5)}${text.slice(at)}`,
  'a piece lost': (text, at, n) => text.slice(0, at) + text.slice(at + 1 + (n % 200)),
  'a piece twice': (text, at, n) => text.slice(0, at + 1 + (n % 200)) + text.slice(at),
};
/** Damage after which a file that is read differently has to say so. */
const NOTICED = ['cut short', 'a letter in a number'];

/** Whether nothing but whole rows is missing at its end. */
const endsWithRow = (text: string) => /\n\s*$/.test(text);

describe.each(FORMATS)('mutants of a $name', ({ text, read, digit, runs = RUNS, endless }) => {
  const whole = read(text);
  const original = hashOf(whole.made);
  const known = new Set(whole.findings.map((f) => hashOf([f.code, f.message])));
  const mutant = fc.record({ at: fc.nat({ max: text.length - 1 }), n: fc.nat({ max: 100_000 }) });
  const each = (check: (made: { mutated: string; kind: string }) => void, kinds: string[]) =>
    fc.assert(
      fc.property(mutant, fc.constantFrom(...kinds), ({ at, n }, kind) =>
        check({ mutated: DAMAGE[kind](text, at, n, digit), kind }),
      ),
      { numRuns: runs, seed: SEED, endOnFailure: true },
    );

  test('never crash, nor go past the budget of counted steps', () =>
    each(({ mutated }) => void read(mutated), Object.keys(DAMAGE)));

  test('are not read differently without a word: every half-import is told', () =>
    each(({ mutated, kind }) => {
      if (endless && kind === 'cut short' && endsWithRow(mutated)) return;
      const { made, findings } = read(mutated);
      if (hashOf(made) === original) return;
      const isTold = findings.some((f) => !known.has(hashOf([f.code, f.message])));
      if (!isTold) throw new Error(`read differently, and not told: ${kind}`);
    }, NOTICED));
});
