/** One command from nothing to the demo shop in the browser. */
import { spawn } from 'node:child_process';
import { prepare, root, say } from './lib.mjs';

await prepare();
say('Starting …');
const server = spawn(process.execPath, ['apps/server/dist/main.cjs'], { cwd: root, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
