/** The height-field kernel against the same loop in plain C at -O3. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lowerRow } from '../packages/core/src/simulate/sweep';

const SIZE = { n: 1000, radius: 50, step: 5, layers: 4, rounds: 7 };

function inTypeScript(): { seconds: number; volume: number } {
  const { n, radius, step, layers, rounds } = SIZE;
  const height = new Float32Array(n * n);
  const owner = new Int32Array(n * n);
  let best = Infinity;
  let volume = 0;
  for (let round = 0; round < rounds; round++) {
    height.fill(0);
    owner.fill(-1);
    const started = process.hrtime.bigint();
    const deepest = new Float64Array(1);
    let mark = 0;
    volume = 0;
    for (let layer = 1; layer <= layers; layer++) {
      for (let cy = radius; cy < n - radius; cy += radius) {
        for (let cx = radius; cx < n - radius; cx += step, mark++) {
          for (let dy = -radius; dy <= radius; dy++) {
            const half = Math.floor(Math.sqrt(radius * radius - dy * dy));
            const base = (cy + dy) * n;
            volume += lowerRow(height, owner, base + cx - half, base + cx + half, -0.5 * layer, mark, deepest);
          }
        }
      }
    }
    best = Math.min(best, Number(process.hrtime.bigint() - started) / 1e9);
  }
  return { seconds: best, volume };
}

function inC(): { seconds: number; volume: number } | undefined {
  const folder = mkdtempSync(join(tmpdir(), 'tidypath-bench-'));
  try {
    const program = join(folder, 'kernel');
    const built = spawnSync('cc', ['-O3', '-o', program, join(__dirname, 'native/kernel.c'), '-lm']);
    if (built.status !== 0) return undefined;
    const { n, radius, step, layers, rounds } = SIZE;
    const out = spawnSync(program, [n, radius, step, layers, rounds].map(String), { encoding: 'utf8' });
    const [seconds, volume] = out.stdout.trim().split(' ').map(Number);
    return { seconds, volume };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

export interface Row {
  what: string;
  figure: string;
  bar: string;
  met: boolean | undefined;
}

export function kernelRow(): Row {
  const here = inTypeScript();
  const native = inC();
  const bar = 'at most 1.5 × plain C';
  if (!native)
    return {
      what: 'height-field kernel',
      figure: `${(here.seconds * 1000).toFixed(0)} ms (no C compiler to compare with)`,
      bar,
      met: undefined,
    };
  if (Math.abs(native.volume - here.volume) > 1e-3 * native.volume)
    throw new Error(`the two kernels disagree: ${here.volume} and ${native.volume}`);
  const ratio = here.seconds / native.seconds;
  return {
    what: 'height-field kernel',
    figure: `${ratio.toFixed(2)} × (${(here.seconds * 1000).toFixed(0)} ms against ${(native.seconds * 1000).toFixed(0)} ms)`,
    bar,
    met: ratio <= 1.5,
  };
}
