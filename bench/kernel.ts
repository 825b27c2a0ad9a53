/** The height-field kernel against the same loop in plain C at -O3. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Kernel } from '../packages/core/src/stock/height/kernel';

const SIZE = { n: 1000, radius: 50, step: 5, layers: 4, rounds: 7 };

function here(): { seconds: number; volume: number } {
  const { n, radius, step, layers, rounds } = SIZE;
  const kernel = new Kernel(new Float32Array(n * n));
  let best = Infinity;
  let volume = 0;
  for (let round = 0; round < rounds; round++) {
    kernel.height.fill(0);
    kernel.owner.fill(-1);
    const started = process.hrtime.bigint();
    let mark = 0;
    volume = 0;
    for (let layer = 1; layer <= layers; layer++) {
      for (let cy = radius; cy < n - radius; cy += radius) {
        for (let cx = radius; cx < n - radius; cx += step, mark++) {
          for (let dy = -radius; dy <= radius; dy++) {
            const half = Math.floor(Math.sqrt(radius * radius - dy * dy));
            const base = (cy + dy) * n;
            volume += kernel.lowerRow(base + cx - half, base + cx + half, -0.5 * layer, mark);
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
  const own = here();
  const native = inC();
  const bar = 'at most 1.5 × plain C';
  if (!native)
    return {
      what: 'height-field kernel',
      figure: `${(own.seconds * 1000).toFixed(0)} ms (no C compiler to compare with)`,
      bar,
      met: undefined,
    };
  if (Math.abs(native.volume - own.volume) > 1e-3 * native.volume)
    throw new Error(`the two kernels disagree: ${own.volume} and ${native.volume}`);
  const ratio = own.seconds / native.seconds;
  return {
    what: 'height-field kernel',
    figure: `${ratio.toFixed(2)} × (${(own.seconds * 1000).toFixed(0)} ms against ${(native.seconds * 1000).toFixed(0)} ms)`,
    bar,
    met: ratio <= 1.5,
  };
}
