import { newJob, newTool, HOLDERS, TOOLS, readJob, readItem } from '@tidypath/core';

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
