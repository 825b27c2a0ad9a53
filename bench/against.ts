/** `npm run bench -- --against COMMIT`: what is here beside an earlier state, in pairs: processor time, memory, size of the web app. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { buildSync } from 'esbuild';

const here = resolve(__dirname, '..');
/** No row may be above it; of several runs the least counts, since other work on the machine only ever adds. */
const MOST = 1.05;
const PAIRS = 7;

interface Usage {
  seconds: number;
  megabytes: number;
}

/** One of the two states: where it is checked out, and its command line as one file. */
class Side {
  private readonly cli: string;
  readonly out: string;

  constructor(
    private readonly root: string,
    scratch: string,
  ) {
    mkdirSync(scratch, { recursive: true });
    this.out = scratch;
    this.cli = join(scratch, 'cli.cjs');
    const entry = join(root, 'packages/cli/src/main.ts');
    const tsconfig = join(root, 'tsconfig.json');
    buildSync({ entryPoints: [entry], outfile: this.cli, tsconfig, bundle: true, platform: 'node', target: 'node20' });
  }

  run(args: string[]): Usage {
    const node = ['--require', join(here, 'bench/usage.cjs'), this.cli, ...args];
    const { output, status } = spawnSync(process.execPath, node, { stdio: ['ignore', 'ignore', 'inherit', 'pipe'] });
    if (status === null || status > 1) throw new Error(`${args.join(' ')} ended with ${status}`);
    return JSON.parse(output[3]!.toString()) as Usage;
  }

  /** Bytes, gzip, of the scripts of the exported web app. */
  webSize(): number {
    execFileSync(process.execPath, ['scripts/build.mjs'], { cwd: this.root, stdio: 'inherit' });
    const folder = join(this.root, 'apps/web/dist/_expo/static/js/web');
    return readdirSync(folder).reduce((sum, f) => sum + gzipSync(readFileSync(join(folder, f))).length, 0);
  }
}

const least = (values: number[]) => Math.min(...values);

function tell(what: string, was: number, is: number, unit: string): boolean {
  const ratio = is / was;
  const figures = `${ratio.toFixed(3)}  (${was.toFixed(2)} -> ${is.toFixed(2)} ${unit})`;
  process.stdout.write(`${what.padEnd(44)} ${figures.padEnd(36)} ${ratio <= MOST ? 'met' : 'NOT MET'}\n`);
  return ratio <= MOST;
}

/** What is measured: command lines, by name; programs are those the side itself posts. */
function commands({ out }: Side): Record<string, string[]> {
  const job = (name: string) => join(here, 'demo/jobs', `${name}.json`);
  const demos = ['vane-hub-plate', 'float-pulley-bracket', 'lens-cell-ring'];
  return {
    ...Object.fromEntries(demos.map((d) => [`plan and post, ${d}`, ['post', job(d), '--out', join(out, d)]])),
    ...Object.fromEntries(
      demos.map((d) => {
        const [program] = readdirSync(join(out, d)).filter((f) => !f.endsWith('.json'));
        return [`prove, ${d}`, ['prove', join(out, d, program), '--job', job(d), '--json']];
      }),
    ),
    'read a drawing': ['import', join(here, 'demo/drawings/vane-hub-plate.dxf')],
    'one suggestion': ['suggest', '--tool', 't4', '--material', 'alu-6082', '--machine', 'whimbrel'],
  };
}

/** Runs both states in pairs; whether every row is met. */
export function against(commit: string): boolean {
  const scratch = mkdtempSync(join(tmpdir(), 'tidypath-against-'));
  const tree = join(scratch, 'tree');
  const git = (...args: string[]) => execFileSync('git', args, { cwd: here });
  try {
    git('worktree', 'add', '--detach', tree, commit);
    execFileSync('cp', ['-al', join(here, 'node_modules'), tree]);
    const sides = [new Side(tree, join(scratch, 'was')), new Side(here, join(scratch, 'is'))];
    for (const side of sides)
      for (const name of ['vane-hub-plate', 'float-pulley-bracket', 'lens-cell-ring'])
        side.run(['post', join(here, 'demo/jobs', `${name}.json`), '--out', join(side.out, name)]);
    const [was, is] = sides.map(commands);
    const met = Object.keys(was).flatMap((what) => {
      const pairs = Array.from({ length: PAIRS }, () => [sides[0].run(was[what]), sides[1].run(is[what])]);
      const of = (side: number, key: keyof Usage) => least(pairs.map((p) => p[side][key]));
      return [
        tell(`${what}, time`, of(0, 'seconds'), of(1, 'seconds'), 's'),
        tell(`${what}, memory`, of(0, 'megabytes'), of(1, 'megabytes'), 'MB'),
      ];
    });
    const [before, now] = sides.map((side) => side.webSize() / 2 ** 20);
    met.push(tell('scripts of the web app, gzip', before, now, 'MB'));
    return met.every(Boolean);
  } finally {
    git('worktree', 'remove', '--force', tree);
    rmSync(scratch, { recursive: true, force: true });
  }
}
