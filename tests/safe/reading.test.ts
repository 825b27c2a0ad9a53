import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  Finding,
  HOLDERS,
  TOOLS,
  importDrawing,
  newJob,
  newTool,
  parseJob,
  previewTools,
  proveProgram,
  readItem,
  readJob,
  readProgram,
  readStl,
} from '@tidypath/core';

type Plain = Record<string, unknown> & { setups: Record<string, unknown>[]; part: Record<string, unknown> };
const job = (change: (j: Plain) => void): unknown => {
  const plain = JSON.parse(JSON.stringify(newJob('Tide plate', 'mm'))) as Plain;
  change(plain);
  return plain;
};
const codes = (value: unknown) => readJob(value).findings.map((f) => f.code);
const operation = {
  id: 'o1',
  kind: 'face',
  name: 'Face',
  on: true,
  toolId: 't1',
  targets: [],
  coolant: 'off',
  params: {},
};

test.each([
  ['tools', (j: Plain) => (j.tools = [[]])],
  ['setups', (j: Plain) => (j.setups = [[]] as never)],
  ['part.features', (j: Plain) => (j.part.features = [[]])],
  ['setups.0.fixtures', (j: Plain) => (j.setups[0].fixtures = [[]])],
  ['setups.0.operations', (j: Plain) => (j.setups[0].operations = [[]])],
])('a list inside a list passes as valid no more: %s', (field, change) => {
  const { job: read, findings } = readJob(job(change));
  expect(read).toBeUndefined();
  expect(findings).toMatchObject([{ code: 'list-in-list', data: { field } }]);
});

test('duplicate ids are refused, by name', () => {
  const tool = newTool('flat', 6, TOOLS, HOLDERS);
  const { findings } = readJob(job((j) => (j.tools = [tool, { ...tool, name: 'Another' }])));
  expect(findings).toMatchObject([{ code: 'id-twice', data: { field: 'tools', id: tool.id } }]);
  expect(codes(job((j) => j.setups.push({ ...j.setups[0] })))).toEqual(['id-twice']);
});

test.each(['__proto__', 'constructor', 'prototype'])(
  '%s and its kin are refused by name, wherever they stand',
  (name) => {
    const text = JSON.stringify(newJob('a', 'mm'));
    const with_ = (where: string) => JSON.parse(text.replace(where, `${where}"${name}":{"x":1},`)) as unknown;
    for (const where of ['{', '"part":{', '"zero":{'])
      expect(readJob(with_(where)).findings).toMatchObject([{ code: 'reserved-field', data: { field: name } }]);
    expect(readItem('tools', JSON.parse(`{"${name}":{"x":1}}`)).findings[0].code).toBe('reserved-field');
  },
);

test('sizes of lists are checked before their members', () => {
  const empty = (n: number) => Array.from({ length: n }, () => ({}));
  expect(readJob(job((j) => (j.part.features = empty(25_000)))).findings).toMatchObject([
    { code: 'list-too-long', data: { field: 'part.features', count: 25_000, most: 2000 } },
  ]);
  expect(codes(job((j) => (j.setups[0].operations = empty(30_000))))).toEqual(['list-too-long']);
  const unknown = Object.fromEntries(Array.from({ length: 40_000 }, (_, i) => [`k${i}`, 1]));
  expect(codes({ ...(job(() => {}) as object), ...unknown })).toEqual(['too-many-fields']);
});

test('the core does not throw, though a job file is deep', () => {
  const deep: Record<string, unknown> = {};
  for (let i = 0, at = deep; i < 100_000; i++) at = at.a = {};
  expect(codes(job((j) => (j.setups[0].operations = [{ ...operation, params: deep }])))).toEqual(['too-deep']);
  expect(codes(job((j) => (j.material = deep)))).toEqual(['too-deep']);
  expect(codes({ ...(job(() => {}) as object), formatVersion: 1, setups: deep })).toEqual(['too-deep']);
});

describe('half-imports: everything left out is named with its place', () => {
  const told = (findings: Finding[]) => findings.map((f) => [f.code, f.place.line]);

  test('G-code without an end', () => {
    const { findings } = readProgram('G21 G90 G54\nG0 X1 Y1\nG1 Z-1 F100\n', { homeZ: 100, unit: 'mm' });
    expect(told(findings)).toContainEqual(['no-end', 4]);
  });

  const facet = (i: number) =>
    `facet normal 0 0 1\nouter loop\nvertex ${i} 0 0\nvertex ${i + 1} 0 0\nvertex ${i} 1 5\nendloop\nendfacet\n`;
  const solid = `solid a\n${facet(0)}${facet(1)}`;
  test.each([
    ['between two triangles', solid, 15],
    ['within a triangle', solid.slice(0, -10), 14],
    ['within a number', `${solid}facet normal 0 0 1\nouter loop\nvertex 1`, 18],
  ])('text STL cut short %s', (_, text, line) => {
    const { mesh, findings } = readStl(new TextEncoder().encode(text));
    expect([mesh, told(findings)]).toEqual([undefined, [['mesh-cut-short', line]]]);
  });
  test('binary STL cut short', () => {
    const file = new Uint8Array(84 + 50 * 3);
    new DataView(file.buffer).setUint32(80, 4, true);
    expect(told(readStl(file).findings)).toEqual([['mesh-cut-short', undefined]]);
  });

  test('CSV with a cell too many (12,5 is not 12 mm and 5 flutes) or too few', () => {
    const list = 'kind,name,diameter,flutes\n\nflat,Half inch,12,5,4\nflat,Whole,12,4\nflat,Short,12\n';
    const { added, findings } = previewTools(list, [], HOLDERS);
    expect(added.map((t) => t.name)).toEqual(['Whole']);
    expect(told(findings)).toEqual([
      ['row-cells', 3],
      ['row-cells', 5],
    ]);
  });

  test('tool lists beyond 2 000', () => {
    const csv = 'kind,name,diameter\n' + 'flat,Mill,12\n'.repeat(2001);
    const json = JSON.stringify({ format: 'tidypath-tools', version: 1, tools: Array(2001).fill(TOOLS[0]) });
    for (const list of [csv, json]) {
      const { added, findings } = previewTools(list, [], HOLDERS);
      expect([added.length, findings.map((f) => f.code)]).toEqual([0, ['too-many-rows']]);
    }
  });

  const drawing = (entities: string, blocks = '') =>
    importDrawing(`0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`);
  const block = (name: string, inner: string) => `0\nBLOCK\n2\n${name}\n10\n0\n20\n0\n${inner}0\nENDBLK\n`;
  const insert = (name: string, more = '10\n0\n20\n0\n') => `0\nINSERT\n8\nA\n2\n${name}\n${more}`;
  const circle = '0\nCIRCLE\n8\nA\n10\n5\n20\n5\n40\n2\n';

  test.each([
    ['INSERT at no number', insert('B', '10\nx\n20\n0\n'), 'dxf-block-place'],
    ['POINT', '0\nPOINT\n8\nA\n10\n1\n20\n1\n', 'dxf-skipped'],
    ['CIRCLE without radius', '0\nCIRCLE\n8\nA\n10\n1\n20\n1\n', 'dxf-curve'],
    ['CIRCLE without centre', '0\nCIRCLE\n8\nA\n40\n1\n', 'dxf-curve'],
  ])('DXF %s', (_, entity, code) => {
    const { features, findings } = drawing(circle + entity, block('B', circle));
    expect([features.length, findings.map((f) => f.code)]).toEqual([1, [code]]);
    expect(findings[0].place.line).toBeGreaterThan(30);
  });
  test('DXF INSERT in rows and columns', () => {
    const grid = insert('B', '10\n0\n20\n0\n70\n3\n71\n2\n44\n10\n45\n10\n');
    expect(drawing(grid, block('B', circle)).features).toHaveLength(6);
  });

  test('a chain of more corners than a job holds', () => {
    const lines = Array.from({ length: 60_000 }, (_, i) => `0\nLINE\n8\nA\n10\n${i}\n20\n0\n11\n${i + 1}\n21\n0\n`);
    const { features, findings } = drawing(circle + lines.join(''));
    expect([features.length, findings.map((f) => f.code)]).toEqual([1, ['chain-too-long', 'gap']]);
  });

  describe('hangs: budgets of counted steps, met or not met as a finding', () => {
    test('a DXF block that inserts itself', () => {
      const { findings } = drawing(insert('B'), block('B', insert('B').repeat(30)));
      expect(findings.map((f) => f.code)).toEqual(['dxf-blocks-nested', 'dxf-too-many']);
    });
    test('a DXF block that nests emptily', () => {
      const grid = '10\n0\n20\n0\n70\n40\n71\n40\n';
      const inner = Array.from({ length: 12 }, (_, k) => block(`B${k}`, insert(`B${k + 1}`, grid).repeat(9)));
      expect(drawing(insert('B0'), inner.join('') + block('B12', '')).findings.map((f) => f.code)).toContain(
        'dxf-too-many',
      );
    });
  });

  test('the core does not throw on a block of 130 000 lines', () => {
    const lines = Array.from({ length: 130_000 }, (_, i) => `0\nLINE\n8\nA\n10\n${i}\n20\n0\n11\n${i}\n21\n9\n`);
    expect(drawing(insert('B'), block('B', lines.join(''))).features).toHaveLength(130_000);
  });

  test('the core does not throw on deep tool lists', () => {
    const deep = '['.repeat(100_000) + ']'.repeat(100_000);
    const nested = `${'{"a":'.repeat(100_000)}1${'}'.repeat(100_000)}`;
    const list = (tools: string) =>
      previewTools(`{"format":"tidypath-tools","version":1,"tools":${tools}}`, TOOLS, HOLDERS);
    expect(list(deep).findings.map((f) => f.code)).toEqual(['not-an-item']);
    expect(list(`[{"ownData":${deep}}]`).findings.map((f) => f.code)).toEqual(['list-in-list']);
    expect(list(`[{"id":"t1","holder":${nested}}]`).findings.map((f) => f.code)).toEqual(['too-deep']);
    expect(parseJob(deep).findings.map((f) => f.code)).toEqual(['not-a-job']);
  });
});

describe('hangs: programs are proved within a budget of counted steps, met or not met as a finding', () => {
  const bracket = parseJob(readFileSync(join(__dirname, '../../demo/jobs/float-pulley-bracket.json'), 'utf8')).job!;
  const proved = (body: string, cell?: number) => {
    const [setup] = bracket.setups;
    const [{ number }] = bracket.tools;
    const text = `G21 G90 G17 G54\nT${number} M6\nS3000 M3\nG43 H${number} G0 Z50\nX10 Y10 Z5\n${body}\nG0 Z50\nM30\n`;
    return proveProgram(bracket, setup, text, cell).findings.map((f) => f.code);
  };

  test.each<[string, string, boolean, number | undefined]>([
    ['pecks of 0.0001 mm', 'G99 G83 X10 Y10 Z-1 R2 Q0.0001 F100\nG80', false, 2],
    ['9 999 pecked holes', 'G91 G99 G83 X0.01 Z-4 R2 Q0.5 K9999 F100\nG90 G80', false, 2],
    ['a 400-digit number', `G1 X${'9'.repeat(400)} F100`, true, undefined],
    ['a helix to Z −100 000', 'G1 Z0 F100\nG2 X10 Y10 I5 J0 Z-100000 F100', false, undefined],
    ['an arc of 500 m radius', 'G1 Z-1 F100\nG2 X20 Y10 R500000 F100', false, undefined],
    ['a circle of 500 m radius', 'G1 Z-1 F100\nG2 X10 Y10 I500000 J0 F100', true, undefined],
  ])('%s', (_, body, isShort, cell) => expect(proved(body, cell).includes('proof-too-long')).toBe(isShort));
});
