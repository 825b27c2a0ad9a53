/**
 * Everything that must be true: lint, types, the golden set, unit tests, end-to-end tests; the last line counts them.
 * `--repeat N` runs the tests N times over, for a busy machine to try them on.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, install, prepare, root, run, say } from './lib.mjs';

await install();
const bin = (name) => join(root, 'node_modules/.bin', name);
const results = mkdtempSync(join(tmpdir(), 'tidypath-test-'));
let passed = 0;
let failed = 0;

function count(ok, what) {
  if (ok) passed++;
  else failed++;
  say(`${what}: ${ok ? 'ok' : 'failed'}`);
}

async function check(what, command, args) {
  const { code, output } = await run(command, args);
  if (code !== 0) process.stdout.write(output);
  count(code === 0, what);
}

/** Several threads that tidy memory at once get in each other's way where tests keep every core busy. */
const JEST = ['--single-threaded-gc', join(root, 'node_modules/jest/bin/jest.js')];

async function suite(what, args, env) {
  const file = join(results, `${what}.json`);
  const { code } = await run(process.execPath, [...JEST, ...args, '--json', `--outputFile=${file}`], {
    show: true,
    env,
  });
  try {
    const found = JSON.parse(readFileSync(file, 'utf8'));
    passed += found.numPassedTests;
    failed += found.numFailedTests + found.numRuntimeErrorTestSuites;
    say(`${what}: ${found.numPassedTests} passed, ${found.numFailedTests} failed`);
  } catch {
    count(code === 0, what);
  }
}

const [browser] = await Promise.all([
  chromium(),
  prepare(),
  check('lint', bin('eslint'), ['.', '--max-warnings', '0']),
  check('types', bin('tsc'), ['-p', 'tsconfig.json', '--noEmit']),
  check('golden', process.execPath, ['--import', './scripts/typescript.mjs', 'tests/golden/run.ts', '--check']),
  check('formatting', bin('prettier'), ['--check', '.', '--log-level', 'warn']),
]);
const asked = process.argv.indexOf('--repeat');
const times = asked < 0 ? 1 : Number(process.argv[asked + 1]);
for (let round = 1; round <= times; round++) {
  if (times > 1) say(`round ${round} of ${times}`);
  await suite('unit', ['--ci', '--silent=false', '--maxWorkers=2']);
  await suite('e2e', ['--ci', '--config', 'tests/e2e/jest.config.js', '--maxWorkers=2'], { CHROMIUM: browser });
}

rmSync(results, { recursive: true, force: true });
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
