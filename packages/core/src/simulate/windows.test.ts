import fc from 'fast-check';
import { tool } from '../../testing/parts';
import { MACHINES, MATERIALS } from '../shop/library';
import { finding } from '../quantity/finding';
import { readProgram } from '../program/read/reader';
import { Course } from './course';
import { volumeOf } from '../stock/height/field';
import { Prover } from './prover';
import { Told } from './told';
import { Windows } from './windows';

const BLOCK = [
  { x: 0, y: 0 },
  { x: 60, y: 0 },
  { x: 60, y: 40 },
  { x: 0, y: 40 },
];
const RACK = [4, 9, 11, 12, 22].map(tool);
const HEAD = 'G21 G90 G17 G54\nS4000 M3\nG0 X-30 Y-30 Z20\n';

function proverOf(body: string, cell: number) {
  const { motions } = readProgram(HEAD + body + 'G0 Z20\nM30\n', { homeZ: 200, unit: 'mm' });
  return new Prover({
    motions,
    tools: new Map(RACK.map((t) => [t.number, t])),
    machine: MACHINES[2],
    material: MATERIALS[0],
    stock: { region: [BLOCK], top: 0, bottom: -25 },
    zero: { x: 0, y: 0, z: 0 },
    fixtures: [],
    zeroAboveTable: 60,
    cell,
  });
}

/** Any motions: lines, arcs and helices with any tool of the rack. */
const place = (low: number, high: number) => fc.integer({ min: low * 100, max: high * 100 }).map((v) => v / 100);
const motion = fc.oneof(
  fc.tuple(place(-5, 65), place(-5, 45), place(-6, 2)).map(([x, y, z]) => `G1 X${x} Y${y} Z${z} F500`),
  fc.tuple(place(-5, 65), place(-5, 45)).map(([x, y]) => `G1 X${x} Y${y} F500`),
  fc
    .tuple(place(1, 9), place(0, 3), fc.constantFrom(2, 3))
    .map(([r, drop, g]) => `G91\nG${g} X0 Y0 I${r} J0 Z-${drop} F500\nG90`),
  fc.constantFrom(...RACK.map((t) => `G0 Z20\nT${t.number} M6`)),
);
const program = fc.array(motion, { minLength: 3, maxLength: 25 }).map((lines) => `T4 M6\n${lines.join('\n')}\n`);

describe('a closer look', () => {
  test('shows the same as a proof on that grid: bit for bit, whoever cut it', () => {
    fc.assert(
      fc.property(program, (body) => {
        const [coarse, fine] = [proverOf(body, 1.2), proverOf(body, 0.3)];
        coarse.advance();
        fine.advance();
        const { field, owner } = new Windows(coarse).on(fine.field);
        const worst = field.height.reduce((most, h, i) => Math.max(most, Math.abs(h - fine.field.height[i])), 0);
        // Arcs are cut in other chords, each within a thousandth of a millimetre of the arc: steep tools show that most.
        expect(volumeOf(field, -25)).toBeCloseTo(volumeOf(fine.field, -25), -1);
        if (!/G[23]/.test(body)) {
          expect(worst).toBeLessThan(2e-5);
          const others = owner.filter((o, i) => o !== fine.stock.owner[i]).length;
          expect(others / owner.length).toBeLessThan(0.001);
        }
      }),
      { seed: 21, numRuns: 25 },
    );
  });

  test('in windows, each once, which join to the whole', () => {
    const prover = proverOf('T4 M6\nG1 Z-2 F500\nX10 Y10\nX50\nG3 X50 Y30 I0 J10 F500\nG1 X10\nG0 Z20\n', 0.5);
    prover.advance();
    const windows = new Windows(prover);
    windows.want(new Uint8Array(prover.field.height.length).fill(1));
    const seen = new Uint8Array(prover.field.height.length);
    let volume = 0;
    for (let steps = 0; !windows.done && steps < 1000; steps++) {
      const window = windows.advance(3);
      if (!window) continue;
      expect(window.times).toBe(5);
      volume += volumeOf(window.field, -25);
      for (let j = 0; j < window.rows; j++)
        for (let i = 0; i < window.columns; i++) seen[(window.row + j) * prover.field.nx + window.column + i]++;
    }
    expect(windows.done).toBe(true);
    expect(windows.progress).toBe(1);
    expect(seen.every((n) => n === 1)).toBe(true);
    expect(windows.cell).toBeCloseTo(0.1, 9);
    expect(Math.abs(volume / volumeOf(prover.field, -25) - 1)).toBeLessThan(0.002);
  });

  test('only where it matters: round a narrow cut, not in the middle of a wide one', () => {
    const looked = (body: string) => {
      const prover = proverOf(body, 0.5);
      prover.advance();
      const windows = new Windows(prover);
      const places: number[] = [];
      while (!windows.done) {
        const window = windows.advance(100);
        if (window) places.push(window.field.x0 + 4, window.field.y0 + 4);
      }
      return places;
    };
    expect(looked('T4 M6\nG0 X-20 Y20\nG1 Z-2 F500\nX80\n')).toEqual([]);
    const round = looked('T22 M6\nG0 X-20 Y20\nG1 Z-0.5 F500\nX80\n');
    expect(round.length).toBeGreaterThan(0);
    expect(round.filter((_, i) => i % 2).every((y) => Math.abs(y - 20) < 12)).toBe(true);
  });

  test('none where the grid is fine enough', () => {
    const prover = proverOf('T22 M6\nG0 X-20 Y20\nG1 Z-0.5 F500\nX80\n', 0.14);
    const windows = new Windows(prover);
    expect([windows.isFine, windows.done]).toEqual([true, true]);
    expect(windows.cell).toBe(0.14);
  });
});

describe('the course of a motion', () => {
  const coursesOf = (body: string) => {
    const { input } = proverOf(body, 2);
    return Array.from({ length: input.motions.count }, (_, i) => Course.of(input.motions, i, input.zero)).filter(
      (c) => !!c,
    );
  };

  test('never leaves its room, starts and ends where it should, and is as long as its parts', () => {
    fc.assert(
      fc.property(program, (body) => {
        for (const course of coursesOf(body)) {
          const box = course.bounds(0);
          let [length, last, isInside] = [0, course.at(0), true];
          for (let k = 1; k <= 64; k++) {
            const p = course.at(k / 64);
            length += Math.hypot(p.x - last.x, p.y - last.y, p.z - last.z);
            last = p;
            isInside &&=
              p.x > box.minX - 1e-9 && p.x < box.maxX + 1e-9 && p.y > box.minY - 1e-9 && p.y < box.maxY + 1e-9;
          }
          expect(isInside).toBe(true);
          expect(last).toEqual(course.to);
          expect(length).toBeLessThanOrEqual(course.length + 1e-6);
          expect(length).toBeGreaterThan(course.length * 0.99 - 1e-6);
        }
      }),
      { seed: 22, numRuns: 25 },
    );
  });

  test('its chords stay as near to an arc as asked', () => {
    const [arc] = coursesOf('T4 M6\nG0 X10 Y0\nG3 X-10 Y0 I-10 J0 F500\n').filter((c) => c.isArc);
    for (const tolerance of [0.1, 0.01, 0.001]) {
      const n = arc.chords(tolerance);
      const sagitta = 10 * (1 - Math.cos(Math.PI / n / 2));
      expect(sagitta).toBeLessThanOrEqual(tolerance * 1.0001);
      expect(10 * (1 - Math.cos(Math.PI / Math.max(1, n - 1) / 2))).toBeGreaterThan(tolerance * 0.9);
    }
  });
});

describe('what is told', () => {
  const { motions } = proverOf('T4 M6\nG1 Z-1 F500\nX10\nX20\nX30\n', 2).input;
  const told = (...faults: [motion: number, key: string, by: number][]) => {
    const all = new Told(motions);
    for (const [i, key, by] of faults)
      all.tell(i, key, by, () => finding('bad-cell', { column: key, why: `by ${by}` }));
    return all;
  };

  test('once, at its worst, at its first line, with how often', () => {
    const [one, ...more] = told([3, 'rub', 1], [4, 'rub', 5], [5, 'rub', 2], [5, 'rub', 1]).findings();
    expect(more).toEqual([]);
    expect(one.message).toBe('rub: by 5 (3 moves)');
    expect(one.place).toMatchObject({ line: motions.line[3], motion: 3 });
  });

  test('what a part shows is added where it is new, and never counted', () => {
    const whole = told([3, 'rub', 1], [4, 'rub', 2]);
    whole.add(told([5, 'rub', 9], [5, 'graze', 3]));
    whole.add(told([4, 'graze', 1]));
    const [rub, graze] = whole.findings().sort((a, b) => b.message.localeCompare(a.message));
    expect(rub.message).toBe('rub: by 2 (2 moves)');
    expect(graze.message).toBe('graze: by 3');
    expect(graze.place).toMatchObject({ line: motions.line[4], motion: 4 });
  });
});
