import { Response, Router } from 'express';
import { readJob } from '@tidypath/core';
import type { JobStore, UnreadJob } from './store';

const UNREAD =
  'It was stored by another version and cannot be read. It stays as it is: take it away, mend what is named here, and import it again';
const ID = /^[0-9a-f-]{36}$/;

/** Jobs over HTTP. Bad input is answered with findings, never with a stack. */
export function jobRoutes(store: JobStore): Router {
  const router = Router();
  const missing = { error: 'There is no such job; it may have been deleted' };
  /** Answers with what was found, or why there is nothing. */
  const answer = <T extends object>(res: Response, found: T | UnreadJob | undefined, status: (found: T) => number) => {
    if (!found) res.status(404).json(missing);
    else if ('findings' in found) res.status(422).json({ error: UNREAD, ...found });
    else res.status(status(found)).json(found);
  };

  router.param('id', (_req, res, next, id: string) => {
    if (ID.test(id)) next();
    else res.status(404).json(missing);
  });

  router.get('/', (_req, res) => void res.json(store.list()));

  router.post('/', (req, res) => {
    const { job, findings } = readJob(req.body?.job);
    if (!job) return void res.status(422).json({ error: 'This is not a job', findings });
    res.status(201).json(store.create(job));
  });

  router.get('/:id', (req, res) => answer(res, store.get(req.params.id), () => 200));

  router.get('/:id/document', (req, res) => {
    const document = store.document(req.params.id);
    if (document === undefined) res.status(404).json(missing);
    else res.type('application/json').attachment('job.json').send(document);
  });

  router.put('/:id', (req, res) => {
    const version = req.body?.version;
    if (!Number.isInteger(version) || version < 1)
      return void res.status(400).json({ error: 'Say which version this save started from' });
    const { job, findings } = readJob(req.body?.job);
    if (!job) return void res.status(422).json({ error: 'This job cannot be saved', findings });
    answer(res, store.save(req.params.id, version, job), ({ saved }) => (saved ? 200 : 409));
  });

  router.post('/:id/duplicate', (req, res) => answer(res, store.duplicate(req.params.id), () => 201));

  router.delete('/:id', (req, res) => void res.status(store.remove(req.params.id) ? 204 : 404).end());
  router.post('/:id/restore', (req, res) => void res.status(store.restore(req.params.id) ? 204 : 404).end());
  router.get('/:id/refused', (req, res) => void res.json(store.refused(req.params.id)));
  return router;
}
