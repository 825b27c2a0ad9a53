import { Router, raw } from 'express';
import { unpackMade } from '@tidypath/core';
import type { Events } from '../events/events';
import type { FileStore } from '../db/files';
import { authorOf } from '../guard/author';
import { readBeside } from '../reading/beside';
import type { Computing } from './computing';
import { LARGEST_RESULT, Results } from './results';
import { filesFor, leaving, telling } from './telling';

const KEY = /^[0-9a-f]{64}$/;

/**
 * Results over HTTP, by their keys: fetched, brought by a page, or made here.
 * @param computing undefined where this server computes nothing
 */
export function resultRoutes(results: Results, events: Events, files: FileStore, computing?: Computing): Router {
  const router = Router();
  router.param('key', (_req, res, next, key: string) => {
    if (KEY.test(key)) next();
    else res.status(404).json({ error: 'A result is named by a SHA-256, 64 hexadecimal digits' });
  });

  /** Whether this server computes. */
  router.get('/', (_req, res) => void res.json({ computes: !!computing }));

  // No result is no error: most are asked for before they are made.
  router.get('/:key', (req, res) => {
    const found = results.get(req.params.key);
    if (!found) return void res.status(204).end();
    res.set({ 'X-Maker': found.maker, 'X-Seconds': String(found.seconds) });
    res.type('application/octet-stream').send(Buffer.from(found.made));
  });

  router.put('/:key', raw({ type: 'application/octet-stream', limit: LARGEST_RESULT }), (req, res) => {
    const made = req.body as Buffer;
    if (!Buffer.isBuffer(made) || !unpackMade(made))
      return void res.status(422).json({ error: 'What arrived is no result: send it again' });
    results.keep(req.params.key, { maker: 'page', seconds: 0, made });
    events.tell({ kind: 'result', key: req.params.key });
    res.status(204).end();
  });

  /** Makes a result and tells how far it is, a line of JSON for each word; who goes away does not want it any more. */
  router.post('/:key', async (req, res) => {
    const { key } = req.params;
    if (!computing) return void res.status(501).json({ error: 'This server computes nothing' });
    const left = leaving(res);
    const { job: sent, setupId } = (req.body ?? {}) as { job?: unknown; setupId?: unknown };
    const { job, findings } = await readBeside(req, 'job', sent);
    if (!job || typeof setupId !== 'string')
      return void res.status(422).json({ error: 'This is no job of Tidy Path', findings });
    const say = telling(res);
    if (!results.get(key)) {
      const question = { key, job, setupId, files: filesFor(files, job) };
      const failure = await computing.make(question, authorOf(res).device, say, left);
      if (left.aborted) return;
      if (failure) return void (say(failure), res.end());
      events.tell({ kind: 'result', key });
    }
    say({ made: true });
    res.end();
  });
  return router;
}
