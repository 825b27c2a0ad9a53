/** Assembles the cutting kernel: kernel.wat becomes kernel-code.ts beside it. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import wabt from 'wabt';

const folder = join(__dirname, '../packages/core/src/stock/height');

/** The kernel's text assembled, in base 64. */
export async function assembled(): Promise<string> {
  const { parseWat } = await wabt();
  const module = parseWat('kernel.wat', readFileSync(join(folder, 'kernel.wat'), 'utf8'), { simd: true });
  return Buffer.from(module.toBinary({}).buffer).toString('base64');
}

async function main(): Promise<void> {
  const code = await assembled();
  writeFileSync(
    join(folder, 'kernel-code.ts'),
    `/** Made from kernel.wat by \`npm run kernel\`. */\nexport const KERNEL_CODE =\n  '${code}';\n`,
  );
}

if (require.main === module) void main();
