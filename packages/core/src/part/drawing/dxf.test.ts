import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import * as draw from '../../../../../demo/dxf';
import { asCircle, chainLength, signedArea } from '../../geometry/plane/chain';
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
