import { existsSync, readFileSync } from 'node:fs';
import { Server, createServer as createPlain } from 'node:http';
import { createServer as createSecure } from 'node:https';
import { join, resolve } from 'node:path';
import type { Express } from 'express';
import { pino } from 'pino';
import { createApp, storesOf } from './app';
import { BUNDLE, Computing } from './compute/computing';
import { Db, occupy, openDb } from './db/open';
import { isLoopback, linkTo } from './guard/addresses';
import { askPhrase } from './guard/ask-phrase';
import { Door, SHORTEST_PHRASE } from './guard/door';
import { Hall, MACHINE_BUNDLE, inThread } from './runs/hall';
import { keepHouse } from './housekeeping';
import { seedDemo } from './demo';
import { SERVER } from './places';

const root = resolve(SERVER, '../..');
const port = Number(process.env.PORT ?? 4380);
const host = process.env.HOST ?? '127.0.0.1';
const data = resolve(process.env.TIDYPATH_DATA ?? join(root, 'data'));
const web = resolve(process.env.TIDYPATH_WEB ?? join(root, 'apps/web/dist'));
const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });

/** Says why it does not start, in one sentence, and ends. */
function giveUp(error: unknown): never {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
}

/** The database of a folder, or one sentence about it. */
function dbIn(folder: string): Db {
  try {
    occupy(folder);
    return openDb(folder);
  } catch (error) {
    return giveUp(error);
  }
}

/** A certificate or key, or one sentence about it. */
function fileOf(path: string): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    return giveUp(error);
  }
}

const isOpen = !isLoopback(host);

/** The door with its phrase: by environment, as it was, or asked for at the first start that lets others in. */
async function doorOf(db: Db): Promise<Door> {
  const door = new Door(db);
  const phrase = process.env.TIDYPATH_PHRASE;
  if (phrase !== undefined && phrase.length < SHORTEST_PHRASE)
    giveUp(new Error(`A pass phrase needs at least ${SHORTEST_PHRASE} letters`));
  const isAsked = isOpen && !door.hasPhrase && process.stdin.isTTY;
  const chosen = phrase ?? (isAsked ? await askPhrase(process.stdin, process.stdout, host) : undefined);
  if (chosen) door.setPhrase(chosen);
  if (isOpen && !door.hasPhrase)
    giveUp(
      new Error(
        `It does not listen on ${host}, where others on the network reach it, without a pass phrase: start it once with TIDYPATH_PHRASE="…"`,
      ),
    );
  return door;
}

function listen(app: Express, listening: (link: string) => void): Server {
  const { TIDYPATH_CERT: cert, TIDYPATH_KEY: key } = process.env;
  const certified = cert && key ? { cert: fileOf(cert), key: fileOf(key) } : undefined;
  const server = certified ? createSecure(certified, app) : createPlain(app);
  server.on('error', (error: NodeJS.ErrnoException) =>
    giveUp(error.code === 'EADDRINUSE' ? new Error(`Port ${port} is taken; choose another with PORT=…`) : error),
  );
  return server.listen(port, host, () => {
    listening(linkTo(host, port, !!certified));
    if (isOpen && !certified)
      process.stdout.write(
        'It speaks plain http: what devices send can be read on the way, and phones keep no copy for later\n',
      );
  });
}

async function start(): Promise<void> {
  const db = dbIn(data);
  const door = await doorOf(db);
  const stores = storesOf(db, data);
  const { jobs, files, shop, people } = stores;
  if (process.env.TIDYPATH_FORGET_PINS) people.forgetPins();
  files.dropUnfinished();
  jobs.describe();
  shop.seed();
  const seeded = await seedDemo(stores, join(root, 'demo'));
  const names = (process.env.TIDYPATH_NAMES ?? '').split(/[\s,]+/).filter(Boolean);
  const computing = existsSync(BUNDLE) ? new Computing(BUNDLE, stores.results) : undefined;
  const hall = existsSync(MACHINE_BUNDLE) ? new Hall(inThread(MACHINE_BUNDLE)) : undefined;
  const entrance = { served: { host, names }, door: isOpen ? door : undefined };
  const app = createApp(stores, web, log, entrance, computing, hall);
  const server = listen(app, (link) => {
    keepHouse(stores, log);
    process.stdout.write(`Tidy Path is at ${link}${seeded ? ` with ${seeded} demo jobs` : ''}\n`);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => {
      server.close(() => {
        db.close();
        process.exit(0);
      });
      server.closeAllConnections();
    });
}

start().catch(giveUp);
