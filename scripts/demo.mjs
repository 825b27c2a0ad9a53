/** One command from nothing to the demo shop in the browser. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { prepare, root, say } from './lib.mjs';

await prepare();
say('Starting …');
const server = spawn(join(root, 'node_modules/.bin/tsx'), ['apps/server/src/main.ts'], { cwd: root, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
