import { RequestHandler, Router } from 'express';
import type { ShelfName } from '@tidypath/core';
import { Events, Told } from './events';

/** A word now and then, so that nobody in between takes the line for dead, ms. */
const PULSE = 20_000;
/** A page asks again so long after the line broke, ms. */
const RETRY = 2000;

/** Events as they come, on one line that stays open; a page that comes back is told what it missed. */
export function eventRoutes(events: Events): Router {
  const router = Router();
  router.get('/', (req, res) => {
    // Packed they would be held back.
    res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform' });
    res.flushHeaders();
    const send = ({ id, event }: Told) => void res.write(`${id && `id: ${id}\n`}data: ${JSON.stringify(event)}\n\n`);
    const last = req.get('last-event-id') ?? (typeof req.query.after === 'string' ? req.query.after : undefined);
    const missed = last === undefined ? [] : events.after(last);
    res.write(`retry: ${RETRY}\n\n`);
    if (missed) missed.forEach(send);
    else send({ id: events.latest, event: { kind: 'missed' } });
    res.write(`id: ${events.latest}\n\n`);
    const stop = events.listen(send);
    const pulse = setInterval(() => res.write(':\n\n'), PULSE);
    res.on('close', () => {
      stop();
      clearInterval(pulse);
    });
  });
  return router;
}

const SHELF = /^\/shop\/([a-z]+)(\/|$)/;
const JOB = /^\/jobs\/([0-9a-f-]{32,36})(\/(restore|archive|standing))?$/;

/**
 * Tells what a request changed, once it was answered well.
 * @param versionOf the version a job has then
 */
export function tellChanges(events: Events, versionOf: (id: string) => number): RequestHandler {
  return (req, res, next) => {
    const { method, path } = req;
    // What is told after this answer was made is heard by whoever asks for it from here.
    res.set('X-Event', events.latest);
    if (method !== 'GET' && method !== 'HEAD')
      res.on('finish', () => {
        if (res.statusCode >= 300) return;
        const [, id = ''] = JOB.exec(path) ?? [];
        const [, shelf] = SHELF.exec(path) ?? [];
        if (shelf) events.tell({ kind: 'shelf', shelf: shelf as ShelfName });
        if (/^\/(releases|handing-out)/.test(path)) events.tell({ kind: 'releases' });
        if (path.startsWith('/jobs')) events.tell({ kind: 'job', id, version: id ? versionOf(id) : 0 });
      });
    next();
  };
}
