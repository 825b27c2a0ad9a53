import { Router } from 'express';
import { readJob } from '@tidypath/core';
import type { JobStore } from '../services/jobs';

const ID = /^[0-9a-f-]{36}$/;

/** Jobs over HTTP. Bad input is answered with findings, never with a stack. */
export function jobRoutes(store: JobStore): Router {
  const router = Router();
  const missing = { error: 'There is no such job; it may have been deleted' };

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

  router.get('/:id', (req, res) => {
    const row = store.get(req.params.id);
    if (row) res.json(row);
    else res.status(404).json(missing);
  });

  router.put('/:id', (req, res) => {
    const version = req.body?.version;
    if (!Number.isInteger(version) || version < 1)
      return void res.status(400).json({ error: 'Say which version this save started from' });
    const { job, findings } = readJob(req.body?.job);
    if (!job) return void res.status(422).json({ error: 'This job cannot be saved', findings });
    const result = store.save(req.params.id, version, job);
    if (!result) return void res.status(404).json(missing);
    res.status(result.saved ? 200 : 409).json(result);
  });

  router.post('/:id/duplicate', (req, res) => {
    const row = store.duplicate(req.params.id);
    if (row) res.status(201).json(row);
    else res.status(404).json(missing);
  });

  router.delete('/:id', (req, res) => void res.status(store.remove(req.params.id) ? 204 : 404).end());
  router.post('/:id/restore', (req, res) => void res.status(store.restore(req.params.id) ? 204 : 404).end());
  router.get('/:id/refused', (req, res) => void res.json(store.refused(req.params.id)));
  return router;
}
