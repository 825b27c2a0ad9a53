import fc from 'fast-check';
import { Axes, Frame } from './frame';
import { MOVE } from '../../path/motions';
import { Controller } from '../../shop/controller';
import { hobby } from '../../shop/controllers/hobby';
import { isoMill } from '../../shop/controllers/iso-mill';
import { ReadOptions, readProgram } from './reader';

const HEAD = 'G21 G90 G17 G94 G54\nT3 M6\nS5000 M3\nG0 X0 Y0\nG43 H3 Z5\nF600\n';
const LINES = HEAD.split('\n').length - 1;

/** A body that does not end by itself is ended. */
const read = (body: string, more: Partial<ReadOptions> = {}) =>
  readProgram(HEAD + body + (/M30|M99/.test(body) ? '' : 'M30\n'), { homeZ: 100, unit: 'mm', ...more });
/** Code and line of every finding, lines counted from the body. */
const codes = (body: string, more: Partial<ReadOptions> = {}) =>
  read(body, more).findings.map((f) => `${f.code}@${(f.place.line ?? 0) - LINES}`);
/** Where the motions of the body end. */
function places(body: string, more: Partial<ReadOptions> = {}): number[][] {
  const { motions: m, findings } = read(body, more);
  expect(findings).toEqual([]);
  const first = m.line.findIndex((line) => line > LINES);
  return Array.from({ length: m.count - first }, (_, k) =>
    [m.x, m.y, m.z].map((axis) => Math.round(axis[first + k] * 1e6) / 1e6 + 0),
  );
}

describe('subprograms', () => {
  test('run where they are called, as often as asked, and tell their own lines', () => {
    const body = 'G91\nM98 P20 L3\nG90 G1 X0\nM30\nO20\nG1 X10\nM99\n';
    expect(places(body).map(([x]) => x)).toEqual([10, 20, 30, 0]);
    const { motions } = read(body);
    expect(Array.from(motions.line.slice(-4))).toEqual([6, 6, 6, 3].map((n) => n + LINES));
  });

  test('call each other; six digits say how often', () => {
    const body = 'G91\nM98 P20020\nM30\nO20\nM98 P30\nG1 Y1\nM99\nO30 (INNER)\nG1 X1\nM99\n';
    expect(places(body).slice(-1)[0].slice(0, 2)).toEqual([2, 2]);
  });

  test('what is missing, too deep or without end is told, and the rest is read', () => {
    expect(codes('M98 P77\nG1 X5\nM30\n')).toEqual(['subprogram-missing@1']);
    expect(codes('M98 P20\nM30\nO20\nM98 P20\nM99\n')).toEqual(['subprogram-deep@4']);
    const forever = 'M98 P20 L9999\nM30\nO20\nM98 P30 L9999\nM99\nO30\nM99\n';
    expect(codes(forever).map((c) => c.split('@')[0])).toEqual(['subprogram-long']);
    expect(read('M98 P77\nG1 X5\nM30\n').motions.x.slice(-1)[0]).toBe(5);
  });

  test('the end of a subprogram by M30 ends the program', () => {
    expect(places('M98 P20\nG1 X9\nM30\nO20\nG1 X5\nM30\n')).toEqual([[5, 0, 5]]);
  });
});

describe('where a program ends', () => {
  test.each([
    ['a subprogram returns that nobody called', 'G1 X5\nM99\nG1 X9\nM30\n', ['runs-into@2']],
    ['it runs on into its subprogram', 'M98 P20\nG1 X9\nO20\nG91 G1 X5\nG90 M99\n', ['runs-into@3', 'runs-into@5']],
    ['the next program of the file begins', 'G1 X5\nO77 (OTHER)\nG1 X9\nM30\n', ['runs-into@2']],
    ['the text is over', 'G1 X5\nX9 (M30)\n', ['no-end@3']],
    ['the text is over in a subprogram', 'M98 P20\nM30\nO20\nG1 X5\n', ['no-end@5']],
    ['as it should', 'M98 P20\nM30\nO20\nG1 X5\nM99\n', []],
  ])('%s', (_, body, expected) => {
    const named = `O1 (PART)\n${HEAD}${body}`;
    const found = readProgram(named, { homeZ: 100, unit: 'mm' }).findings;
    expect(found.map((f) => `${f.code}@${(f.place.line ?? 0) - LINES - 1}`)).toEqual(expected);
  });
  test('a colon numbers a program as O does', () => {
    expect(codes('M98 P20\nM30\n:20\nG1 X5\nM99\n')).toEqual([]);
    expect(readProgram(`%\n:1234\n${HEAD}G1 X5\nM30\n`, { homeZ: 100, unit: 'mm' }).findings).toEqual([]);
  });
});

describe('places that are written otherwise', () => {
  test('rotated: a square turned by 30 degrees about its corner', () => {
    const turned = places('G68 X10 Y5 R30\nG1 X10 Y5\nX20\nY15\nG69\nG1 X0 Y0\n');
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    expect(turned[1][0]).toBeCloseTo(10 + 10 * c, 5);
    expect(turned[1][1]).toBeCloseTo(5 + 10 * s, 5);
    expect(turned[2][0]).toBeCloseTo(10 + 10 * c - 10 * s, 5);
    expect(turned[3]).toEqual([0, 0, 5]);
  });

  test('rotated arcs keep their radius, and incremental moves turn too', () => {
    const { motions: m, findings } = read('G68 X0 Y0 R90\nG1 X10 Y0\nG3 X0 Y10 I-10 J0\nG91 G1 X5\n');
    expect(findings).toEqual([]);
    const k = m.count - 2;
    expect(m.type[k]).toBe(MOVE.arcCcw);
    expect([m.x[k], m.y[k], m.cx[k], m.cy[k]].map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual([-10, 0, 0, 0]);
    expect([m.x[k + 1], m.y[k + 1]].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-10, 5]);
  });

  test('polar: a circle of holes by radius and angle', () => {
    const holes = places('G16\nG98 G81 X20 Y0 Z-4 R1\nY90\nG91 Y90\nG90 G80\nG15\n');
    const bottoms = holes.filter(([, , z]) => z === -4);
    expect(bottoms).toEqual([
      [20, 0, -4],
      [0, 20, -4],
      [-20, 0, -4],
    ]);
  });

  test('a local zero, a shifted zero, and both taken back', () => {
    expect(places('G52 X100 Y50\nG1 X1 Y1\nG52 X0 Y0\nG1 X1 Y1\n')).toEqual([
      [101, 51, 5],
      [1, 1, 5],
    ]);
    expect(places('G1 X10\nG92 X0 Y0 Z5\nG1 X3 Y4\nG92.1\nG1 X3 Y4\n').slice(1)).toEqual([
      [13, 4, 5],
      [3, 4, 5],
    ]);
  });

  test('a second work offset lies where it is said to, or is told to be unknown', () => {
    const offsets = new Map<string, Axes>([
      ['G55', { x: 80, y: 0, z: -2 }],
      ['G54.1 P4', { x: 0, y: 60, z: 0 }],
    ]);
    expect(places('G55 G1 X1 Y1 Z0\nG54.1 P4 G1 X1 Y1\n', { offsets })).toEqual([
      [81, 1, -2],
      [1, 61, -2],
    ]);
    expect(codes('G55\nG1 X1\nG55 G1 X2\n')).toEqual(['offset-unknown@1']);
  });

  test('any frame: what is written and read back is the same place', () => {
    const far = fc.double({ min: -500, max: 500, noNaN: true });
    const axes = fc.record({ x: far, y: far, z: far });
    fc.assert(
      fc.property(axes, axes, axes, axes, axes, far, (p, offset, local, shift, centre, angle) => {
        const frame = new Frame();
        Object.assign(frame, { offset, local, shift });
        frame.rotate(centre, angle);
        const back = frame.fromWork(frame.toWork(p));
        for (const axis of ['x', 'y', 'z'] as const) expect(back[axis]).toBeCloseTo(p[axis], 8);
      }),
      { seed: 5 },
    );
  });
});

describe('feed by the time a move takes', () => {
  test('a line and an arc of the same length get the same feed', () => {
    const { motions: m, findings } = read('G93\nG1 X10 F5\nG3 X10 Y10 I0 J5 F5\n');
    expect(findings).toEqual([]);
    expect(m.feed[m.count - 2]).toBeCloseTo(50, 9);
    expect(m.feed[m.count - 1]).toBeCloseTo(5 * Math.PI * 5, 9);
  });

  test('every cutting line needs its own; back in G94 the old way holds', () => {
    expect(codes('G93\nG1 X10 F5\nX20\n')).toEqual(['no-feed-in-inverse-time@3']);
    const { motions: m } = read('G93\nG1 X10 F5\nG94\nG1 X20 F300\n');
    expect(m.feed[m.count - 1]).toBe(300);
  });

  test('a mode that is changed asks for a new F', () => {
    expect(codes('G95\nG1 X10\n')).toEqual(['feed-mode-alone@2']);
    expect(codes('G95 F0.1\nG1 X10\nG94\nG1 X20\n')).toEqual(['feed-mode-alone@4']);
    expect(codes('G95 F0.1\nG1 X10\nG94 F300\nG1 X20\nG94 X30\n')).toEqual([]);
  });

  test.each([
    ['mm a minute meant as mm a turn', 'G95 F300\nG1 X10\n', ['feed-odd@1']],
    ['mm a turn meant as mm a minute', 'G1 X10 F0.1\n', ['feed-odd@1']],
    ['a point left out', 'G1 X10 F60000\n', ['feed-odd@1']],
    ['milliseconds with a point', 'G4 P500.\n', ['wait-odd@1']],
    ['fine', 'G95 F0.12\nG1 X10\nG94 F60\nG1 X20\nG4 P500\nG4 P1.5\n', []],
  ])('a feed or a time that nobody could mean: %s', (_, body, expected) => expect(codes(body)).toEqual(expected));
});

describe('the length of the tool', () => {
  const second = (line: string) => `M5\nT7 M6\nS900 M3\nG0 X5 Y5\n${line}\nG1 Z-1 F90\n`;
  test('left out for one tool while others have it', () => {
    expect(codes(second('Z5'))).toEqual(['no-length-offset@6']);
    expect(codes(second('G43 H7 Z5'))).toEqual([]);
  });
  test('of another tool', () => expect(codes(second('G43 H3 Z5'))).toEqual(['other-length@5']));
  test('never: some controls add it by themselves; one that does not, is told for each tool', () => {
    const text = `${HEAD.replace('G43 H3 ', '')}G1 X1\n${second('Z5')}M30\n`;
    const found = (control: Controller) =>
      readProgram(text, { homeZ: 100, unit: 'mm', control }).findings.map((f) => `${f.code}@${f.place.line}`);
    expect(found(hobby)).toEqual([]);
    expect(found(isoMill)).toEqual(['no-length-offset@7', 'no-length-offset@13']);
    const alone = HEAD.replace('G43 H3 ', '') + 'G1 X1\nM30\n';
    const { findings } = readProgram(alone, { homeZ: 100, unit: 'mm', control: isoMill });
    expect(findings.map((f) => `${f.code}@${f.place.line}`)).toEqual(['length-left-out@7']);
  });
});

describe('the way home', () => {
  const places = (body: string) => {
    const { motions: m } = read(body);
    return Array.from({ length: m.count }, (_, i) => [m.x[i], m.y[i], m.z[i]]).slice(-2);
  };
  test('goes by the place that is written: with G90 that is a place in the work', () => {
    expect(places('G0 X5 Y5 Z20\nG90 G28 Z-3\n')).toEqual([
      [5, 5, -3],
      [5, 5, 100],
    ]);
    expect(places('G0 X5 Y5 Z20\nG91 G28 Z0\n')).toEqual([
      [5, 5, 20],
      [5, 5, 100],
    ]);
  });
  test('all axes go where none is named', () => expect(places('G0 X5 Y5 Z20\nG28\n')[1]).toEqual([5, 5, 100]));
  test('in X and Y alone below home it is told, at home not', () => {
    expect(codes('G0 X5 Y5 Z20\nG91 G28 X0 Y0\n')).toEqual(['way-unknown@2']);
    expect(codes('G0 X5 Y5 Z20\nG53 G0 X-200\n')).toEqual(['way-unknown@2']);
    expect(codes('G0 X5 Y5 Z20\nG91 G28 Z0\nG28 X0 Y0\n')).toEqual([]);
    expect(codes('G0 X5 Y5 Z20\nG53 G0 Z0\nG53 X-200\n')).toEqual([]);
  });
});

describe('a cycle so many times over', () => {
  const holes = (body: string) => {
    const { motions: m } = read(`G0 X0 Y0 Z5\n${body}`);
    return Array.from({ length: m.count }, (_, i) => i)
      .filter((i) => m.type[i] === MOVE.line && m.z[i] === -3)
      .map((i) => [m.x[i], m.y[i]]);
  };
  const CYCLE = 'G81 X10 Y5 Z-3 R1 F80';
  test('is a row of holes where places are increments', () => {
    expect(holes('G91 G81 X10 Y5 Z-4 R-4 F80 L3\n')).toEqual([
      [10, 5],
      [20, 10],
      [30, 15],
    ]);
    expect(holes('G91 G81 X10 Z-4 R-4 F80 K2\nY7\n')).toEqual([
      [10, 0],
      [20, 0],
      [20, 7],
    ]);
  });
  test('none at all: it is only remembered', () => expect(holes(`${CYCLE} L0\nX20 Y9\n`)).toEqual([[20, 9]]));
  test('over and over is told and ends', () => {
    expect(codes(`G0 Z5\n${CYCLE} L999999999\n`)).toEqual(['cycle-too-often@2']);
  });
});

describe('figures of a cycle', () => {
  test.each([
    ['its depth above its start', 'G81 X5 Y5 Z3 R1 F80', ['cycle-upside-down@1']],
    ['pecks without their depth', 'G83 X5 Y5 Z-9 R1 F80', ['cycle-without-peck@1']],
    ['chips broken nowhere', 'G73 X5 Y5 Z-9 R1 F80', ['cycle-without-peck@1']],
    ['as they should be', 'G83 X5 Y5 Z-9 R1 Q2 F80\nX9\nG80', []],
  ])('%s', (_, body, expected) => expect(codes(`${body}\n`)).toEqual(expected));
});

describe('blocks that would be read wrongly', () => {
  test.each([
    ['G1 X5 A90 F100', 'turned-axis@1'],
    ['G1 X5 X6 F100', 'word-twice@1'],
    ['G0 G1 X5 F100', 'codes-clash@1'],
    ['G1 X5 R2 F100', 'word-idle@1'],
    ['G1 W5 F100', 'not-understood@1'],
    ['G3 X0 Y0 I-4 J0 Z-2 P3 F100', 'word-idle@1'],
    ['M99 P20', 'not-followed@1'],
    ['G1 X5 O20 F100', 'word-misplaced@1'],
    ['G1 X5 Q2 F100', 'word-misplaced@1'],
    ['X5 P500', 'word-misplaced@1'],
    ['G1 X5 H3 F100', 'word-misplaced@1'],
  ])('%s is told at its line', (block, code) => expect(codes(`${block}\n`)).toEqual([code]));
  test('radii of cycles, turned places and offsets say something', () =>
    expect(codes('G81 X5 Y5 Z-3 R1 F80\nG80\nG68 X1 Y2 R15\nG69\nG2 X5 Y9 R4 F100\n')).toEqual([]));
});

describe('whatever the text', () => {
  const BODY =
    'G68 X1 Y2 R15\nG1 X10 Y-3.5 F200\nG2 X20 Y0 R15\nG69\nM98 P9 L2\nG81 X5 Y5 Z-3 R1 F80\nG80\nG52 X3\nG93 G1 X1 F4\nG94\nG16\nG1 X10 Y30 F100\nG15\nG41 D3 X9\nG40\nM30\nO9\nG91 G1 X2 (SUB)\nG90\nM99\n';
  const SCRAPS = [
    'G68',
    'M98 P9',
    'M99',
    'X',
    '-',
    '.',
    '#',
    '(',
    '\n',
    'G16',
    'R',
    'F0',
    'G92 X1',
    '/',
    '9e9',
    'P99999',
    '\0',
    'É',
  ];
  const mutation = fc.record({
    at: fc.nat(HEAD.length + BODY.length),
    drop: fc.nat(12),
    put: fc.oneof(fc.constantFrom(...SCRAPS), fc.string({ maxLength: 6 })),
  });

  test('every finding has its line, and every motion a height', () => {
    fc.assert(
      fc.property(fc.array(mutation, { minLength: 1, maxLength: 6 }), (mutations) => {
        const text = mutations.reduce((t, m) => t.slice(0, m.at) + m.put + t.slice(m.at + m.drop), HEAD + BODY);
        const { findings, motions } = readProgram(text, { homeZ: 100, unit: 'mm' });
        for (const f of findings) expect(f.place.line).toBeGreaterThanOrEqual(1);
        for (let i = 0; i < motions.count; i++) expect(motions.z[i]).not.toBeNaN();
      }),
      { seed: 3, numRuns: Number(process.env.LONG_RUN ?? 300) },
    );
  });
});

describe('a program that runs on and on meets its budget, and is told so at its line', () => {
  const found = (text: string) => {
    const { findings, motions } = readProgram(text, { homeZ: 100, unit: 'mm' });
    const [one] = findings.filter((f) => f.code === 'program-too-long');
    return { level: one?.level, line: one?.place.line, motions: motions.count };
  };

  test('cycles repeated as often as can be, block after block', () => {
    const holes = 'X1 L9999\n'.repeat(2000);
    const { level, line, motions } = found(`${HEAD}G91 G81 X1 Z-1 R-1 F100\n${holes}M30\n`);
    expect(level).toBe('stop');
    expect(line).toBeGreaterThan(10);
    expect(motions).toBeLessThan(6_000_000);
  });

  test('one block of ten thousand words is refused, not searched word by word', () => {
    const { findings } = readProgram(`${HEAD}${'G54 '.repeat(10_000)}\nM30\n`, { homeZ: 100, unit: 'mm' });
    expect(findings.map((f) => [f.code, f.place.line])).toContainEqual(['block-too-long', HEAD.split('\n').length]);
  });
});
