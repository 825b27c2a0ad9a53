import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import * as core from './index';

const root = join(__dirname, '../../..');

const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((f) => {
    const path = join(folder, f.name);
    if (f.isDirectory()) return ['node_modules', 'dist', '.expo'].includes(f.name) ? [] : sources(path);
    return /\.tsx?$/.test(f.name) ? [readFileSync(path, 'utf8')] : [];
  });

test('a floor offers only what is used outside the core', () => {
  const used = new Set(
    ['apps', 'packages/cli', 'packages/controller', 'packages/sheets', 'demo', 'tests', 'bench', 'scripts']
      .flatMap((folder) => sources(join(root, folder)))
      .flatMap((text) => text.match(/\w+/g) ?? []),
  );
  expect(Object.keys(core).filter((name) => !used.has(name))).toEqual([]);
});
