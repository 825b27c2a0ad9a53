import fc from 'fast-check';
import { readProgram } from '../../program/read/reader';
import { Region, distanceToBoundary } from '../../geometry/plane/clip';
import { flatten } from '../../geometry/plane/chain';
import { instancesOf } from '../../part/plate/shapes';
import { MOVE } from '../../path/motions';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';

const read = (body: string, radius = 5) =>
  readProgram(`T1 M6\nS1000 M3\nG54 G0 X0 Y0\n${body}`, {
    homeZ: 100,
    unit: 'mm',
    registers: new Map([[1, { register: 1, radius }]]),
  });

const points = (body: string, radius = 5) => {
  const { motions: m, findings } = read(body, radius);
  const at = Array.from({ length: m.count }, (_, i) =>
    [m.type[i], m.x[i], m.y[i]].map((v) => Math.round(v * 1e4) / 1e4),
  );
  return { at, codes: findings.map((f) => f.code) };
};

describe('compensation in the control, followed', () => {
  test('a square from outside: straights moved out, corners rolled, the way off back on what is programmed', () => {
    const { at } = points('G1 G41 D1 X10 Y10 F500\nY30\nX30\nY10\nX0\nG40 X0 Y0');
    expect(at.slice(-9)).toEqual([
      [MOVE.line, 5, 10],
      [MOVE.line, 5, 30],
      [MOVE.arcCw, 10, 35],
      [MOVE.line, 30, 35],
      [MOVE.arcCw, 35, 30],
      [MOVE.line, 35, 10],
      [MOVE.arcCw, 30, 5],
      [MOVE.line, 0, 5],
      [MOVE.line, 0, 0],
    ]);
  });

  test('an inside corner is cut short where the pieces meet; an arc keeps its centre', () => {
    const inside = points('G1 G41 D1 X20 Y20 F500\nX40\nY60\nG3 X20 Y60 I-10 J0\nG1 Y20\nG40 X30 Y30', 3);
    expect(inside.codes).not.toContain('compensation-does-not-fit');
    expect(inside.at.slice(-6)).toEqual([
      [MOVE.line, 20, 23],
      [MOVE.line, 37, 23],
      [MOVE.line, 37, 60],
      [MOVE.arcCcw, 23, 60],
      [MOVE.line, 23, 20],
      [MOVE.line, 30, 30],
    ]);
  });

  test('what the cutter does not fit into is told at its line', () => {
    const { findings } = read('G1 G41 D1 X20 Y20 F500\nX30\nG3 X30 Y24 I0 J2\nG1 X20\nG40 X0 Y0', 5);
    expect(findings.find((f) => f.code === 'compensation-does-not-fit')?.place.line).toBe(6);
  });

  test('pockets turned any way and written to three or four decimals are followed as they were meant', () => {
    const written = (v: number, decimals: number) => v.toFixed(decimals).replace(/\.?0+$/, '') || '0';
    for (let k = 0; k < 180; k++) {
      const [turn, long, wide, corner] = [(k * 2 * Math.PI) / 180, 24 + (k % 7), 16 + (k % 5), 5 + (k % 4) / 2];
      const decimals = k % 3 === 0 ? 4 : 3;
      const at = (x: number, y: number) => ({
        x: 40 + x * Math.cos(turn) - y * Math.sin(turn),
        y: 40 + x * Math.sin(turn) + y * Math.cos(turn),
      });
      const [a, b] = [long / 2, wide / 2];
      const say = (p: { x: number; y: number }, letters = 'XY') =>
        `${letters[0]}${written(p.x, decimals)} ${letters[1]}${written(p.y, decimals)}`;
      const round = (from: [number, number], to: [number, number], centre: [number, number]) => {
        const [f, c] = [at(...from), at(...centre)];
        return `G3 ${say(at(...to))} ${say({ x: c.x - f.x, y: c.y - f.y }, 'IJ')}`;
      };
      const body = [
        `G1 G41 D1 ${say(at(0, -b))} F500`,
        say(at(a - corner, -b)),
        round([a - corner, -b], [a, -b + corner], [a - corner, -b + corner]),
        `G1 ${say(at(a, b - corner))}`,
        round([a, b - corner], [a - corner, b], [a - corner, b - corner]),
        `G1 ${say(at(-a + corner, b))}`,
        round([-a + corner, b], [-a, b - corner], [-a + corner, b - corner]),
        `G1 ${say(at(-a, -b + corner))}`,
        round([-a, -b + corner], [-a + corner, -b], [-a + corner, -b + corner]),
        `G1 ${say(at(0, -b))}`,
        `G1 G40 ${say(at(0, 0))}`,
      ].join('\n');
      const text = `T1 M6\nS1000 M3\nG54 G0 ${say(at(0, 0))}\n${body}\nM30`;
      const registers = new Map([[1, { register: 1, radius: 5 }]]);
      const { motions: m, findings } = readProgram(text, { homeZ: 100, unit: 'mm', registers });
      expect(findings.filter((f) => f.code.startsWith('compensation')).map((f) => [k, f.place.line])).toEqual([]);
      for (let i = 0; i < m.count; i++) {
        if (m.line[i] < 4 || m.line[i] > 13) continue;
        const [x, y] = [m.x[i] - 40, m.y[i] - 40];
        const [u, v] = [x * Math.cos(turn) + y * Math.sin(turn), y * Math.cos(turn) - x * Math.sin(turn)];
        // Beside the wall by the cutter's radius: on the rounded rectangle that lies so far within.
        const [du, dv] = [Math.abs(u) - (a - corner), Math.abs(v) - (b - corner)];
        const off = Math.hypot(Math.max(0, du), Math.max(0, dv)) + Math.min(0, Math.max(du, dv)) - (corner - 5);
        expect(Math.abs(off)).toBeLessThan(0.02);
      }
    }
  });

  test('a register nobody knows is not guessed', () => {
    expect(points('G1 G41 D7 X20 Y20 F500\nX30\nG40 X0 Y0').codes).toContain('not-followed');
  });
});

describe('contours left to the control whole', () => {
  const around = { left: 20, right: 20, front: 20, back: 20, top: 0, bottom: 0 };
  const bare = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };
  const outside = (params: Record<string, unknown>, stock = around) =>
    withOperation(withStock(jobWith(undefined, {}, 6), stock), 'contour', ['f1'], tool(4), {
      layer: 6,
      breakthrough: 0.2,
      ...params,
    });

  test('the program carries the wall itself, and the cutter runs where it would without', () => {
    const own = prove(outside({}), 0.1);
    const left = prove(outside({ compensation: 'all in the control' }), 0.1);
    expect(left.codes).toEqual(own.codes);
    expect(left.removed).toBeCloseTo(own.removed, 1);
    expect(left.text).toMatch(/G41 D4 X/);
    const programmed = left.text.split('G41')[1].split('G40')[0];
    for (const wall of ['X20.', 'X100.', 'Y20.', 'Y70.']) expect(programmed).toContain(`${wall}\n`);
    expect(left.text).toContain('D4 HOLDS 5. = RADIUS OF THE CUTTER');
  });

  test('a pocket with rounded corners, in both directions', () => {
    for (const direction of ['climb', 'conventional']) {
      const job = withStock(jobWith({ type: 'rectangle', width: 40, height: 26, radius: 8 }, { depth: 4 }), around);
      const cleared = withOperation(job, 'pocket', ['f2'], tool(6), {
        finishStock: 0.2,
        finish: false,
        wallAllowance: 0.2,
      });
      const cut = withOperation(cleared, 'contour', ['f2'], tool(6), {
        side: 'inside',
        direction,
        finish: false,
        layer: 4,
        lead: 2,
        compensation: 'all in the control',
      });
      const { codes, text } = prove(cut, 0.1);
      expect(codes).toEqual([]);
      expect(text).toMatch(direction === 'climb' ? /G41 D6/ : /G42 D6/);
    }
  });

  test('reading back what was programmed gives the cutter its way again, for any rectangle, radius and cutter', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 12, max: 60 }),
        fc.integer({ min: 12, max: 40 }),
        fc.integer({ min: 0, max: 5 }),
        fc.constantFrom(4, 6, 7),
        (width, height, radius, number) => {
          const base = withStock(
            jobWith({ type: 'rectangle', width, height, radius }, { meaning: 'boss', depth: 0 }, 6),
            around,
          );
          const job = (compensation: string) =>
            withOperation(base, 'contour', ['f2'], tool(number), {
              side: 'outside',
              layer: 5,
              compensation,
            });
          const ways = ['worked out', 'all in the control'].map((c) => {
            const { motions: m } = readProgram(post(job(c)).text, {
              homeZ: 100,
              unit: 'mm',
              registers: new Map([[number, { register: number, radius: tool(number).diameter / 2 }]]),
            });
            return Array.from({ length: m.count }, (_, i) => ({ x: m.x[i] - 20, y: m.y[i] - 20, z: m.z[i] })).filter(
              (p) => Number.isFinite(p.x),
            );
          });
          const R = tool(number).diameter / 2;
          const wall: Region = [flatten(instancesOf(base.part.features[1])[0], 0.001)];
          for (const way of ways) {
            const away = way.filter((p) => p.z < 0).map((p) => distanceToBoundary(wall, p) - R);
            expect(Math.min(...away)).toBeGreaterThan(-0.005);
            expect(away.filter((d) => Math.abs(d) < 0.005).length).toBeGreaterThan(4);
          }
        },
      ),
      { numRuns: 10, seed: 5 },
    );
  });

  test('a lead without a straight long enough, and both ways with one tool: told', () => {
    expect(
      post(outside({ compensation: 'all in the control', leadForm: 'line', lead: 3, finish: false }, bare)).codes,
    ).toContain('lead-too-short');
    const both = withOperation(outside({ compensation: 'all in the control' }), 'contour', ['f1'], tool(4), {
      compensation: 'wear in the control',
    });
    expect(post(both).codes).toContain('compensation-mixed');
  });
});
