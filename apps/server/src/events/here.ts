/** Who is where: told by each page, passed on to the others, and kept nowhere. */
import { Router } from 'express';
import { Place, readAs } from '@tidypath/core';
import { authorOf } from '../guard/author';
import type { Events } from './events';

const PAGE = /^[0-9a-f]{32}$/;

export function hereRoutes(events: Events): Router {
  const router = Router();
  router.param('page', (_req, res, next, page: string) => {
    if (PAGE.test(page)) next();
    else res.status(404).json({ error: 'A page is named by 32 hexadecimal digits' });
  });
  router.put('/:page', (req, res) => {
    const { value: place, findings } = readAs(Place, req.body);
    if (!place) return void res.status(422).json({ error: 'This is no place in a job', findings });
    events.pass({ kind: 'here', page: req.params.page, who: authorOf(res).who, place });
    res.status(204).end();
  });
  router.delete('/:page', (req, res) => {
    events.pass({ kind: 'here', page: req.params.page, who: authorOf(res).who });
    res.status(204).end();
  });
  return router;
}
