import { Request, Response, Router } from 'express';
import { SHELVES, SHELF_NAMES, ShelfName, readItem } from '@tidypath/core';
import { readBeside } from '../reading/beside';
import { isVersion } from '../reading/read';
import type { ShopStore } from './store';

const MOST = 2000;

/** The shelves of the shop over HTTP. Bad input is answered with findings, never with a stack. */
export function shopRoutes(store: ShopStore): Router {
  const router = Router();
  router.param('shelf', (_req, res, next, shelf: string) => {
    if (SHELF_NAMES.includes(shelf as ShelfName)) next();
    else res.status(404).json({ error: 'The shop has no such shelf' });
  });
  const shelfOf = (req: Request) => req.params.shelf as ShelfName;
  const missing = (res: Response, shelf: ShelfName) =>
    void res.status(404).json({ error: `There is no such ${SHELVES[shelf].one}; it may have been deleted` });

  router.get('/:shelf', (req, res) => void res.json(store.list(shelfOf(req))));

  router.get('/:shelf/unread', (req, res) => void res.json(store.unread(shelfOf(req))));

  router.post('/:shelf', async (req, res) => {
    const shelf = shelfOf(req);
    const entries: unknown = req.body?.entries;
    if (!Array.isArray(entries) || entries.length > MOST)
      return void res.status(400).json({ error: `Send up to ${MOST} entries, each with its version and item` });
    const { good, findings } = await readBeside(req, 'items', { shelf, entries });
    if (good.length < entries.length) return void res.status(422).json({ error: 'Nothing was taken in', findings });
    const result = store.saveAll(shelf, good as never);
    res.status(result.saved ? 200 : 409).json(result);
  });

  router.put('/:shelf/:id', (req, res) => {
    const shelf = shelfOf(req);
    const version: unknown = req.body?.version;
    if (!isVersion(version)) return void res.status(400).json({ error: 'Say which version this save started from' });
    const { item, findings } = readItem(shelf, req.body?.item);
    if (!item) return void res.status(422).json({ error: `This ${SHELVES[shelf].one} cannot be saved`, findings });
    if (item.id !== req.params.id)
      return void res.status(400).json({ error: 'The address and the item name different ids' });
    const result = store.save(shelf, version, item);
    res.status(result.saved ? 200 : 409).json(result);
  });

  router.delete('/:shelf/:id', (req, res) => {
    if (store.remove(shelfOf(req), req.params.id)) res.status(204).end();
    else missing(res, shelfOf(req));
  });
  router.post('/:shelf/:id/restore', (req, res) => {
    if (store.restore(shelfOf(req), req.params.id)) res.status(204).end();
    else missing(res, shelfOf(req));
  });
  router.get('/:shelf/:id/jobs', (req, res) => void res.json(store.jobsUsing(shelfOf(req), req.params.id)));
  return router;
}
