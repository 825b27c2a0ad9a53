import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { FINDINGS, finding, timesOver, worded } from './finding';
import { findingsPage } from './findings/page';

const root = join(__dirname, '../../../..');
const TABLES = join(__dirname, 'findings');

const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((f) => {
    const path = join(folder, f.name);
    if (f.isDirectory()) return path === TABLES || f.name === 'node_modules' ? [] : sources(path);
    return /(?<!\.test)\.tsx?$/.test(f.name) ? [readFileSync(path, 'utf8')] : [];
  });

test('a finding speaks the unit it is asked for, places too', () => {
  const cut = finding('gouge', { by: 0.254, where: { x: 25.4, y: -50.8 }, volume: 16387.064 }, { line: 7 });
  expect(cut).toMatchObject({ level: 'stop', place: { line: 7 } });
  expect(cut.message).toBe('Cuts 0.25 mm into the part at X 25.4 Y -50.8, 16\u202f387.1 mm³ in all');
  const inch = worded(timesOver(cut, 3), 'inch');
  expect(inch.message).toBe('Cuts 0.01 in into the part at X 1 Y -2, 1 in³ in all (3 moves)');
  expect(inch.remedy).toBe(cut.remedy);
  expect(worded(cut, 'mm')).toBe(cut);
});

test('every code is told somewhere', () => {
  const text = [...sources(join(root, 'packages/core/src')), ...sources(join(root, 'apps'))].join('\n');
  const made = /^(missing|subprogram)-/;
  const idle = Object.keys(FINDINGS).filter((code) => !made.test(code) && !text.includes(`'${code}'`));
  expect(idle).toEqual([]);
});

test('no two codes say the same', () => {
  const said = new Map<string, string>();
  for (const line of findingsPage()
    .split('\n')
    .filter((l) => l.startsWith('| `'))) {
    const [, code, message] = line.split('|').map((c) => c.trim());
    expect([code, said.get(message)]).toEqual([code, undefined]);
    said.set(message, code);
  }
  expect(said.size).toBe(Object.keys(FINDINGS).length);
});

test('the page in the documentation is made from the table in force', () => {
  expect(readFileSync(join(root, 'docs/findings.md'), 'utf8')).toBe(findingsPage());
});
