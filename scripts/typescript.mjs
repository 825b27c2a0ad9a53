/**
 * Lets tests that run in bare Node require TypeScript, and packages that are written as modules only. A loader that keeps the names of
 * functions, as the usual one does, makes each closure anew with its name: a third of the time of tests that call many.
 */
import { readFileSync } from 'node:fs';
import Module, { createRequire, register } from 'node:module';
import { transformSync } from 'esbuild';

const { transformed, compiled } = createRequire(import.meta.url)('./jest-node.cjs');

function compile(module, path) {
  const { code } = transformSync(readFileSync(path, 'utf8'), { ...compiled(path), sourcemap: 'inline' });
  module._compile(code, path);
}

const asModule = new RegExp(`/node_modules/(${transformed})/`);
const plain = Module._extensions['.js'];
Module._extensions['.js'] = (module, path) => (asModule.test(path) ? compile : plain)(module, path);
for (const ending of ['.ts', '.tsx', '.mjs']) Module._extensions[ending] = compile;
process.setSourceMapsEnabled(true);

/** What is imported is required, so that each module is there once. */
const hooks = `export const load = (url, context, next) =>
  /\\.tsx?(\\?|$)/.test(url) ? { format: 'commonjs', shortCircuit: true } : next(url, context);`;
register(`data:text/javascript,${encodeURIComponent(hooks)}`);
