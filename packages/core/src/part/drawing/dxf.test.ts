import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import * as draw from '../../../../../demo/dxf';
import { Chain, asCircle, chainLength, signedArea } from '../../geometry/plane/chain';
import { IMPORT_DEFAULTS, importDrawing } from './drawing';
import { readDxf } from './dxf';

const tags = (...pairs: [number, string | number][]) => pairs.map(([c, v]) => `${c}\n${v}`).join('\n');
const DEMO = readFileSync(join(__dirname, '../../../../../demo/drawings/vane-hub-plate.dxf'), 'utf8');

describe('entities', () => {
  test('lines, arcs and circles keep their numbers', () => {
    const { curves, findings } = readDxf(
      draw.dxf([draw.line('A', 0, 0, 3, 4), draw.arc('A', 0, 0, 5, 270, 90), draw.circle('B', 1, 2, 3)], 4),
    );
    expect(findings).toEqual([]);
    expect(curves.map((c) => chainLength(c.chain))).toEqual([
      5,
      expect.closeTo(Math.PI * 5, 6),
      expect.closeTo(Math.PI * 6, 6),
    ]);
    expect(curves.map((c) => c.layer)).toEqual(['A', 'A', 'B']);
    expect(asCircle(curves[2].chain)!.centre).toEqual({ x: expect.closeTo(1, 9), y: expect.closeTo(2, 9) });
  });

  test('units come from the header, or are asked for', () => {
    const file = (unit?: number) => draw.dxf([draw.line('0', 0, 0, 1, 0)], unit);
    expect(readDxf(file(1)).unit).toBe('inch');
    expect(chainLength(readDxf(file(1)).curves[0].chain)).toBeCloseTo(25.4, 9);
    expect(readDxf(file()).unit).toBeUndefined();
    expect(chainLength(readDxf(file(), 'inch').curves[0].chain)).toBeCloseTo(25.4, 9);
  });

  test('polylines with bulges, light and heavy', () => {
    const light = draw.polyline('0', true, [
      [0, 0, 1],
      [10, 0, 1],
    ]);
    const heavy = [
      tags([0, 'POLYLINE'], [8, '0'], [66, 1], [70, 1]),
      tags([0, 'VERTEX'], [10, 0], [20, 0], [42, 1]),
      tags([0, 'VERTEX'], [10, 10], [20, 0], [42, 1]),
      tags([0, 'SEQEND']),
    ].join('\n');
    const { curves } = readDxf(draw.dxf([light, heavy], 4));
    expect(curves).toHaveLength(2);
    for (const c of curves) expect(signedArea(c.chain)).toBeCloseTo(Math.PI * 25, 6);
  });

  test('ellipses and splines follow their curve', () => {
    const ellipse = tags(
      [0, 'ELLIPSE'],
      [8, '0'],
      [10, 0],
      [20, 0],
      [11, 10],
      [21, 0],
      [40, 0.5],
      [41, 0],
      [42, 2 * Math.PI],
    );
    const spline = tags(
      [0, 'SPLINE'],
      [8, '0'],
      [70, 8],
      [71, 3],
      ...[0, 0, 0, 0, 1, 1, 1, 1].map((k): [number, number] => [40, k]),
      ...[
        [0, 0],
        [0, 10],
        [10, 10],
        [10, 0],
      ].flatMap(([x, y]): [number, number][] => [
        [10, x],
        [20, y],
      ]),
    );
    const { curves } = readDxf(draw.dxf([ellipse, spline], 4));
    expect(signedArea(curves[0].chain)).toBeCloseTo(Math.PI * 50, 0);
    const middle = curves[1].chain.vertices[Math.floor(curves[1].chain.vertices.length / 2)];
    expect(middle).toMatchObject({ x: expect.closeTo(5, 1), y: expect.closeTo(7.5, 1) });
  });

  test('blocks are placed with scale and rotation, within blocks too', () => {
    const blocks = [
      tags([0, 'SECTION'], [2, 'BLOCKS'], [0, 'BLOCK'], [2, 'DOT'], [10, 1], [20, 0]),
      draw.circle('0', 1, 0, 1),
      tags([0, 'ENDBLK'], [0, 'BLOCK'], [2, 'PAIR'], [10, 0], [20, 0]),
      tags([0, 'INSERT'], [8, '0'], [2, 'DOT'], [10, 5], [20, 0]),
      tags([0, 'ENDBLK'], [0, 'ENDSEC']),
      tags(
        [0, 'SECTION'],
        [2, 'ENTITIES'],
        [0, 'INSERT'],
        [8, 'HOLES'],
        [2, 'PAIR'],
        [10, 100],
        [20, 0],
        [41, 2],
        [42, 2],
        [50, 90],
      ),
      tags([0, 'ENDSEC'], [0, 'EOF']),
    ].join('\n');
    const { curves } = readDxf(blocks);
    expect(curves).toHaveLength(1);
    expect(curves[0].layer).toBe('HOLES');
    expect(asCircle(curves[0].chain)).toEqual({
      centre: { x: expect.closeTo(100, 6), y: expect.closeTo(10, 6) },
      radius: expect.closeTo(2, 6),
    });
  });
});

describe('bad files', () => {
  test.each([
    ['', 'dxf-empty'],
    ['hello\nworld\n', 'dxf-broken'],
    [DEMO.slice(0, 400), 'dxf-cut-short'],
    ['\u0000\u0001binary', 'dxf-binary'],
    [draw.dxf([tags([0, 'INSERT'], [2, 'GONE'], [10, 0], [20, 0])]), 'dxf-block-missing'],
    [draw.dxf([tags([0, 'SPLINE'], [71, 3], [10, 0], [20, 0])]), 'dxf-curve'],
    [draw.dxf([tags([0, 'LINE'], [10, 'x'], [20, 0], [11, 1], [21, 1])]), 'dxf-curve'],
    [draw.dxf([tags([0, '3DSOLID'], [8, '0'])]), 'dxf-skipped'],
  ])('%#: a finding says what is wrong', (text, code) => {
    const { findings } = readDxf(text);
    expect(findings.map((f) => f.code)).toContain(code);
    for (const f of findings) expect(f.remedy.length).toBeGreaterThan(5);
  });

  test('a block within itself ends', () => {
    const text = [
      tags(
        [0, 'SECTION'],
        [2, 'BLOCKS'],
        [0, 'BLOCK'],
        [2, 'A'],
        [0, 'INSERT'],
        [2, 'A'],
        [0, 'ENDBLK'],
        [0, 'ENDSEC'],
        [0, 'SECTION'],
        [2, 'ENTITIES'],
        [0, 'INSERT'],
        [2, 'A'],
        [0, 'ENDSEC'],
        [0, 'EOF'],
      ),
    ].join('\n');
    expect(readDxf(text).findings.map((f) => f.code)).toContain('dxf-blocks-nested');
  });

  test('blocks that repeat blocks without end meet the budget: said at the line, nothing half taken', () => {
    const nest = Array.from({ length: 11 }, (_, i) => [
      '0',
      'BLOCK',
      '2',
      `B${i}`,
      '10',
      '0',
      '20',
      '0',
      ...Array.from({ length: 10 }, () => ['0', 'INSERT', '2', `B${i + 1}`, '10', '0', '20', '0']).flat(),
      '0',
      'ENDBLK',
    ]);
    const text = [
      '0',
      'SECTION',
      '2',
      'BLOCKS',
      ...nest.flat(),
      '0',
      'ENDSEC',
      '0',
      'SECTION',
      '2',
      'ENTITIES',
      '0',
      'CIRCLE',
      '10',
      '0',
      '20',
      '0',
      '40',
      '5',
      '0',
      'INSERT',
      '2',
      'B0',
      '10',
      '0',
      '20',
      '0',
      '0',
      'ENDSEC',
      '0',
      'EOF',
      '',
    ].join('\n');
    const { curves, findings } = readDxf(text);
    expect(curves).toEqual([]);
    const last = findings[findings.length - 1];
    expect([last.code, last.level]).toEqual(['dxf-too-many', 'stop']);
    expect(text.split('\n')[last.place.line! - 1]).toBe('INSERT');
  });

  test('mutated drawings never crash or lose a fault silently', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ at: fc.nat(DEMO.length - 1), cut: fc.nat(30), put: fc.string({ maxLength: 12 }) }), {
          minLength: 1,
          maxLength: 6,
        }),
        (cuts) => {
          let text = DEMO;
          for (const { at, cut, put } of cuts) text = text.slice(0, at) + put + text.slice(at + cut);
          const { features, findings } = importDrawing(text);
          for (const f of features)
            expect(
              f.shape.type === 'chain' && f.shape.vertices.every((v) => Number.isFinite(v.x + v.y + v.bulge)),
            ).toBe(true);
          expect(features.length > 0 || findings.length > 0).toBe(true);
        },
      ),
      { numRuns: 300, seed: 6 },
    );
  });
});

describe('nesting', () => {
  test('rings in rings are counted, however many there are beside them', () => {
    const circles = Array.from({ length: 900 }, (_, i) => draw.circle('A', (i % 30) * 12, Math.floor(i / 30) * 12, 2));
    const rings = [5, 4, 3].map((r) => draw.circle('A', 0, 0, r));
    const around = draw.circle('A', 174, 174, 400);
    const { features } = importDrawing(draw.dxf([...circles, ...rings, around], 4));
    const meanings = features.map((f) => f.meaning);
    expect([meanings.length, meanings.filter((m) => m === 'outline').length]).toEqual([904, 1]);
    expect(meanings.filter((m) => m === 'hole').length).toBe(903);
  });
});

describe('meaning', () => {
  test('the demo drawing: outside, pocket, bosses, bore and holes are proposed', () => {
    const { features, gaps, unit } = importDrawing(DEMO);
    const count = (meaning: string) => features.filter((f) => f.meaning === meaning).length;
    expect(unit).toBe('mm');
    expect(gaps).toEqual([]);
    expect([count('outline'), count('hole')]).toEqual([1, 6]);
    expect(features.find((f) => f.layer === 'FLOAT POCKET')!.meaning).toBe('pocket');
  });

  test('an open chain is listed with its place and closed only when told', () => {
    const open = draw.dxf(
      [
        draw.line('0', 0, 0, 50, 0),
        draw.line('0', 50, 0, 50, 30),
        draw.line('0', 50, 30, 0, 30),
        draw.line('0', 0, 30, 0, 0.4),
      ],
      4,
    );
    const told = importDrawing(open);
    expect(told.gaps[0].width).toBeCloseTo(0.4, 6);
    expect(told.findings[0]).toMatchObject({ code: 'gap', place: { at: expect.anything() } });
    expect(told.features[0].meaning).toBe('ignore');
    expect(importDrawing(open, { ...IMPORT_DEFAULTS, bridge: 0.5 }).features[0].meaning).toBe('outline');
  });
});

describe('nothing is left out in silence', () => {
  const entities = (...all: string[]) => `0\nSECTION\n2\nENTITIES\n${all.join('\n')}\n0\nENDSEC\n0\nEOF\n`;
  const square = [
    draw.line('A', 0, 0, 30, 0),
    draw.line('A', 30, 0, 30, 20),
    draw.line('A', 30, 20, 0, 20),
    draw.line('A', 0, 20, 0, 0),
  ];
  const told = (text: string) => importDrawing(text).findings.map((f) => f.code);

  test('curves that lie twice in one place are taken once, whichever way round they are drawn', () => {
    const twice = [...square, draw.line('A', 30, 0, 0, 0), draw.line('A', 30, 0, 30, 20)];
    const { features, findings } = importDrawing(draw.dxf(twice, 4));
    expect(features.map((f) => f.meaning)).toEqual(['outline']);
    expect(findings.map((f) => f.message)).toEqual([expect.stringContaining('2 curves lie twice')]);
    const round = (x: number) => draw.circle('A', x, 10, 3);
    expect(importDrawing(draw.dxf([...square, round(9), round(9), round(20)], 4)).features).toHaveLength(3);
    const open = draw.arc('A', 0, 0, 5, 0, 90);
    expect(importDrawing(draw.dxf([open, open], 4)).features).toHaveLength(1);
    expect(told(draw.dxf([...square, draw.line('B', 0, 0, 30, 0)], 4))).not.toContain('drawn-twice');
  });

  test('closed curves are the same from whichever corner and in whichever direction', () => {
    const corners: [number, number, number][] = [
      [0, 0, 0.3],
      [30, 0, 0],
      [30, 20, 0],
      [0, 20, 0],
    ];
    const turned = [...corners.slice(2), ...corners.slice(0, 2)];
    const back: [number, number, number][] = [
      [0, 20, 0],
      [30, 20, 0],
      [30, 0, -0.3],
      [0, 0, 0],
    ];
    const all = [corners, turned, back].map((c) => draw.polyline('A', true, c));
    expect(importDrawing(draw.dxf(all, 4)).features).toHaveLength(1);
    const other = corners.map(([x, y, b], i): [number, number, number] => [x, y, i === 0 ? -b : b]);
    expect(importDrawing(draw.dxf([all[0], draw.polyline('A', true, other)], 4)).features).toHaveLength(2);
  });

  test('where more than two ends meet, the way on was guessed, and that is told', () => {
    const { findings } = importDrawing(draw.dxf([...square, draw.line('A', 0, 0, -9, -9)], 4));
    expect(findings.map((f) => f.code)).toContain('curves-branch');
    expect(told(draw.dxf(square, 4))).toEqual([]);
  });

  test('a file that is cut short is a fault; one that lacks only its end mark is not', () => {
    const whole = draw.dxf(square, 4);
    const half = importDrawing(whole.slice(0, whole.lastIndexOf('LINE')));
    expect(half.findings.map((f) => [f.code, f.level])).toContainEqual(['dxf-cut-short', 'stop']);
    const unended = whole.slice(0, whole.lastIndexOf('0\nEOF'));
    expect(importDrawing(unended).findings.map((f) => [f.code, f.level])).toEqual([['dxf-no-end', 'care']]);
  });

  test('words, hatches, points and sizes are counted, each sort told once at its first line', () => {
    const word = tags([0, 'TEXT'], [8, 'A'], [10, 1], [20, 1], [40, 3], [1, 'HOLE 5 H7']);
    const sorts = ['MTEXT', 'HATCH', 'POINT', 'DIMENSION'].map((t) => tags([0, t], [8, 'A'], [10, 1], [20, 1]));
    const { findings } = importDrawing(entities(...square, word, ...sorts, word, word));
    const left = findings.filter((f) => f.code === 'dxf-skipped');
    expect(left.map((f) => f.message.split(' were')[0].split(' was')[0])).toEqual([
      '3 x TEXT',
      'A MTEXT',
      'A HATCH',
      'A POINT',
      'A DIMENSION',
    ]);
    expect(left[0].place.line).toBeGreaterThan(10);
  });

  test.each([
    ['a circle without a radius', tags([0, 'CIRCLE'], [8, 'A'], [10, 1], [20, 1])],
    ['a circle without a middle', tags([0, 'CIRCLE'], [8, 'A'], [40, 1])],
    ['a line with one end', tags([0, 'LINE'], [8, 'A'], [10, 1], [20, 1])],
    ['an arc without its angles', tags([0, 'ARC'], [8, 'A'], [10, 1], [20, 1], [40, 5])],
    [
      'a polyline without a height',
      tags([0, 'LWPOLYLINE'], [8, 'A'], [70, 1], [10, 1], [10, 5], [20, 5], [10, 9], [20, 0]),
    ],
  ])('%s is told, not guessed', (_, bad) => expect(told(entities(...square, bad))).toEqual(['dxf-curve']));

  describe('blocks', () => {
    const block = `0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nB\n10\n0\n20\n0\n${draw.circle('0', 0, 0, 2)}\n0\nENDBLK\n0\nENDSEC\n`;
    const insert = (...more: [number, number | string][]) => tags([0, 'INSERT'], [8, 'A'], [2, 'B'], ...more);

    test('in rows and columns, turned with their block', () => {
      const text = block + entities(insert([10, 5], [20, 0], [50, 90], [70, 3], [71, 2], [44, 10], [45, 20]));
      const { features, findings } = importDrawing(text);
      expect(findings).toEqual([]);
      const centres = features.map((f) => f.shape.type === 'chain' && asCircle({ ...f.shape })!.centre);
      const said = centres.map((c) => c && `${Math.round(c.x)} ${Math.round(c.y)}`).sort();
      expect(said).toEqual(['-15 0', '-15 10', '-15 20', '5 0', '5 10', '5 20']);
    });

    test('at no place, or far too often, are told once', () => {
      expect(told(block + entities(insert([10, 'x'], [20, 0])))).toContain('dxf-block-place');
      expect(told(block + entities(insert([10, 0], [20, 0], [70, 5000], [71, 5000])))).toContain('dxf-block-place');
    });

    test('that hold themselves over and over are told once', () => {
      const self = insert([10, 0], [20, 0]);
      const own = block.replace('0\nENDBLK', `${self}\n${self}\n0\nENDBLK`);
      expect(told(own + entities(self)).filter((c) => c === 'dxf-blocks-nested')).toHaveLength(1);
    });
  });

  test('rings within rings know how deep they lie', () => {
    const rings = Array.from({ length: 6 }, (_, i) => draw.circle('A', 50, 50, 40 - 5 * i));
    const beside = draw.circle('A', 200, 50, 10);
    const { features } = importDrawing(draw.dxf([...rings.reverse(), beside], 4));
    const meanings = features.map(
      (f) => `${f.meaning} ${Math.round(2 * asCircle(f.shape as unknown as Chain)!.radius)}`,
    );
    expect(meanings.sort()).toEqual(
      ['boss 40', 'boss 60', 'ignore 20', 'outline 80', 'pocket 30', 'pocket 50', 'pocket 70'].sort(),
    );
  });
});
