/** The command line, bundled first where its sources changed. */
import { bundleCli } from './lib.mjs';

await bundleCli();
await import('../packages/cli/dist/main.cjs');
