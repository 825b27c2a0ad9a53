import { join, resolve } from 'node:path';
import { pino } from 'pino';
import { createApp } from './app';
import { openDb } from './db/open';
import { seedDemo } from './jobs/demo';
import { JobStore } from './jobs/store';
import { ShopStore } from './shop/store';

const root = resolve(__dirname, '../../..');
const port = Number(process.env.PORT ?? 4380);
const host = process.env.HOST ?? '127.0.0.1';
const data = resolve(process.env.TIDYPATH_DATA ?? join(root, 'data'));
const web = resolve(process.env.TIDYPATH_WEB ?? join(root, 'apps/web/dist'));
const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });

const db = openDb(data);
const jobs = new JobStore(db);
const shop = new ShopStore(db);
shop.seed();
const seeded = seedDemo(jobs, join(root, 'demo/jobs'));
const server = createApp({ jobs, shop }, web, log).listen(port, host, () => {
  process.stdout.write(`Tidy Path is at http://${host}:${port}${seeded ? ` with ${seeded} demo jobs` : ''}\n`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  process.stderr.write(
    error.code === 'EADDRINUSE' ? `Port ${port} is taken; choose another with PORT=…\n` : `${error.message}\n`,
  );
  process.exit(1);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    server.close(() => {
      db.close();
      process.exit(0);
    });
    server.closeAllConnections();
  });
}
