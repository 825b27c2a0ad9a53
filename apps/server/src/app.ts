import { existsSync } from 'node:fs';
import { join, sep } from 'node:path';
import compression from 'compression';
import express, { ErrorRequestHandler, Express, Request, RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { backupRoutes } from './backup/routes';
import type { Db } from './db/open';
import { Served, knownAddresses } from './guard/addresses';
import { knowAuthor } from './guard/author';
import { Door } from './guard/door';
import { doorRoutes, onlyKnown } from './guard/door-routes';
import { People } from './guard/people';
import { peopleRoutes } from './guard/people-routes';
import type { Computing } from './compute/computing';
import { Results } from './compute/results';
import { resultRoutes } from './compute/routes';
import { Events } from './events/events';
import { hereRoutes } from './events/here';
import { eventRoutes, tellChanges } from './events/routes';
import { fileRoutes } from './files/routes';
import { FileStore } from './db/files';
import { Comments } from './jobs/comments';
import { jobRoutes } from './jobs/routes';
import { shopRoutes } from './shop/routes';
import { handingOutRoutes, releaseRoutes } from './releases/routes';
import { ReleaseStore } from './releases/store';
import type { Hall } from './runs/hall';
import { runRoutes } from './runs/routes';
import { RunStore } from './runs/store';
import { logRoutes } from './log/routes';
import { School } from './log/school';
import { LogStore } from './log/store';
import { foldWhenIdle } from './housekeeping';
import { JobStore } from './jobs/store';
import { ShopStore } from './shop/store';

const LARGEST_BODY = '16mb';

const headers = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      scriptSrcAttr: ["'none'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'", 'data:'],
      workerSrc: ["'self'", 'blob:'],
      connectSrc: ["'self'", 'blob:'],
      upgradeInsecureRequests: null,
    },
  },
  strictTransportSecurity: false,
  crossOriginEmbedderPolicy: { policy: 'require-corp' },
  crossOriginOpenerPolicy: { policy: 'same-origin' },
});

/** The kernels of solids, of which one reads STEP files and one sculpts plates, evaluate code: they alone may, each in a worker that can reach nothing but itself. */
const KERNELS = ['step', 'sculpt'].map((name) => `${sep}${name}${sep}`);
const KERNEL_POLICY = "default-src 'none'; script-src 'self' 'unsafe-eval' 'wasm-unsafe-eval'; connect-src 'self'";

const hasBody = (req: Request) => Number(req.get('content-length') ?? 0) > 0 || !!req.get('transfer-encoding');
/** What is taken: no form of another site can send either. */
const typeOf = ({ path, method }: Request) =>
  path.startsWith('/files/') || (path.startsWith('/results/') && method === 'PUT')
    ? 'application/octet-stream'
    : 'application/json';

/** Refuses writes that another site asks a browser to make. */
const sameSite: RequestHandler = (req, res, next) => {
  const writes = req.method !== 'GET' && req.method !== 'HEAD';
  const from = req.get('sec-fetch-site');
  if (writes && from && from !== 'same-origin' && from !== 'none')
    res.status(403).json({ error: 'Requests from other sites are refused' });
  else if (writes && hasBody(req) && !req.is(typeOf(req))) res.status(415).json({ error: `Send ${typeOf(req)}` });
  else next();
};

function errors(log: Logger): ErrorRequestHandler {
  return (error: { status?: number; code?: string }, req, res, _next) => {
    const isFull = /^(SQLITE_FULL|ENOSPC)/.test(error.code ?? '');
    const status = isFull ? 507 : error.status && error.status >= 400 && error.status < 500 ? error.status : 500;
    if (status >= 500) log.error({ err: error, path: req.path }, 'request failed');
    const told: Record<number, string> = {
      400: 'The request cannot be read',
      413: 'The request is larger than 16 MB',
      507: 'the disk of the server is full; nothing was saved',
    };
    res.status(status).json({
      error:
        told[status] ??
        (status === 500 ? 'something went wrong at the server; nothing was saved' : 'The request is refused'),
    });
  };
}

/** What the pages may ask of a device: nothing. */
const permissions: RequestHandler = (_req, res, next) => {
  res.setHeader('Permissions-Policy', 'camera=(), microphone=(), geolocation=(), usb=(), serial=(), payment=()');
  next();
};

/** Answers of the API are nobody's to keep. */
const notKept: RequestHandler = (_req, res, next) => {
  res.setHeader('Cache-Control', 'no-store');
  next();
};

/** How it is reached, and whether a phrase is asked for. */
export interface Entrance {
  served: Served;
  /** Who comes from beyond this machine has to pass it. */
  door?: Door;
}

const ON_THIS_MACHINE: Entrance = { served: { host: '127.0.0.1', names: [] } };

/** Everything that is kept, and the folder it is kept in. */
export interface Stores {
  db: Db;
  folder: string;
  jobs: JobStore;
  files: FileStore;
  shop: ShopStore;
  people: People;
  results: Results;
  releases: ReleaseStore;
  runs: RunStore;
  log: LogStore;
  school: School;
}

export function storesOf(db: Db, folder: string): Stores {
  const jobs = new JobStore(db);
  const shop = new ShopStore(db);
  const log = new LogStore(db);
  return {
    ...{ db, folder, jobs, shop },
    files: new FileStore(db),
    people: new People(db),
    results: new Results(folder),
    releases: new ReleaseStore(db, jobs),
    runs: new RunStore(db),
    log,
    school: new School(db, shop, log),
  };
}

/**
 * The whole server: the API under /api, the exported web app for everything else.
 * @param computing what plans and proves here; without it the pages do it alone
 * @param hall where simulated machines stand; without it none is offered
 */
export function createApp(
  { db, folder, jobs, files, shop, people, results, releases, runs, log, school }: Stores,
  webFolder: string,
  logger: Logger,
  { served, door }: Entrance = ON_THIS_MACHINE,
  computing?: Computing,
  hall?: Hall,
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(headers, permissions, knownAddresses(served), compression());
  app.use('/api', notKept, sameSite, express.json({ limit: LARGEST_BODY }));
  app.get('/api/health', (_req, res) => void res.json({ ok: true }));
  if (door) app.use('/api/door', doorRoutes(door)).use('/api', onlyKnown(door));
  else app.get('/api/door', (_req, res) => void res.json(null));
  const events = new Events();
  app.use('/api', knowAuthor(people, door), foldWhenIdle(db), tellChanges(events, jobs.versionOf));
  app.use('/api/events', eventRoutes(events));
  app.use('/api/here', hereRoutes(events));
  app.use('/api/backup', backupRoutes(db, folder));
  app.use('/api/people', peopleRoutes(people));
  app.use('/api/files', fileRoutes(files));
  app.use('/api/results', resultRoutes(results, events, files, computing));
  app.use('/api/releases', releaseRoutes({ jobs, files, releases, folder, computing }));
  app.use('/api/runs', runRoutes({ runs, releases, files, events, log, hall }));
  app.use('/api/log', logRoutes({ log, school, releases, shop, files, events }));
  app.use('/api/handing-out', handingOutRoutes(releases, jobs));
  app.use('/api/jobs', jobRoutes(jobs, files, new Comments(db)));
  app.use('/api/shop', shopRoutes(shop));
  app.use('/api', (_req, res) => void res.status(404).json({ error: 'There is nothing here' }));
  app.use(
    express.static(webFolder, {
      index: false,
      maxAge: '1h',
      setHeaders: (res, path) => {
        if (KERNELS.some((k) => path.includes(k))) res.setHeader('Content-Security-Policy', KERNEL_POLICY);
        if (path.includes('_expo')) res.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
        // Asked for anew each time: it says whether there is a newer version.
        else if (path.endsWith('sw.js')) res.setHeader('Cache-Control', 'no-cache');
      },
    }),
  );
  app.use((req, res, next) => {
    const page = join(webFolder, 'index.html');
    if (req.method !== 'GET' || !existsSync(page) || /\.[a-z0-9]+$/i.test(req.path))
      return void res.status(404).json({ error: 'There is nothing here' });
    res.setHeader('Cache-Control', 'no-cache');
    // By its root: the checkout may lie below a folder whose name begins with a dot.
    res.sendFile('index.html', { root: webFolder }, (error) => error && next(error));
  });
  app.use(errors(logger));
  return app;
}
