import { Router } from 'express';
import { LogEntry, readAs } from '@tidypath/core';
import type { Events } from '../events/events';
import { authorOf, personOf } from '../guard/author';
import type { ReleaseStore } from '../releases/store';
import type { LogStore } from './store';

const ID = /^[0-9a-f-]{32,36}$/;

/** The log over HTTP: entries of a release, and what a machine's log says of its time. */
export function logRoutes(log: LogStore, releases: ReleaseStore, events: Events): Router {
  const router = Router();
  router.param('release', (_req, res, next, id: string) => {
    if (ID.test(id) && releases.row(id)) next();
    else res.status(404).json({ error: 'There is no such release' });
  });
  router.get('/of/:release', (req, res) => void res.json(log.ofRelease(req.params.release)));
  router.post('/of/:release', (req, res) => {
    const { release } = req.params;
    const { value, findings } = readAs(LogEntry, req.body);
    if (!value) return void res.status(422).json({ error: 'This is no entry of the log', findings });
    if (value.scrapped > value.parts) return void res.status(422).json({ error: 'More are scrapped than were made' });
    if (value.replaces && !log.has(release, value.replaces))
      return void res.status(422).json({ error: 'What it corrects is not in the log of this release' });
    log.add(release, releases.view(release)!.body, value, { ...authorOf(res), person: personOf(res) });
    events.tell({ kind: 'runs' });
    res.status(204).end();
  });

  router.param('machine', (_req, res, next, id: string) => {
    if (log.knows(id)) next();
    else res.status(404).json({ error: 'There is no such machine' });
  });
  router.get('/time/:machine', (req, res) => void res.json(log.time(req.params.machine)));
  for (const what of ['take', 'undo'] as const)
    router.post(`/time/:machine/${what}`, (req, res) => {
      if (!log[what](req.params.machine, authorOf(res).who))
        return void res
          .status(409)
          .json({ error: what === 'take' ? 'There is nothing to take over' : 'There is nothing to take back' });
      events.tell({ kind: 'shelf', shelf: 'machines' });
      events.tell({ kind: 'runs' });
      res.json(log.time(req.params.machine));
    });
  return router;
}
