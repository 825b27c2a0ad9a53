import { Router } from 'express';
import {
  LogEntry,
  LogQuestion,
  LogRow,
  PHOTO,
  entryFault,
  isAsked,
  logCsv,
  logJson,
  noticesOf,
  photoFault,
  readAs,
} from '@tidypath/core';
import type { FileStore } from '../db/files';
import type { Events } from '../events/events';
import { authorOf, personOf } from '../guard/author';
import type { ReleaseStore } from '../releases/store';
import type { ShopStore } from '../shop/store';
import type { School } from './school';
import type { LogStore } from './store';

const ID = /^[0-9a-f-]{32,36}$/;
/** Entries on a page. */
const PAGE = 50;

interface Rooms {
  log: LogStore;
  school: School;
  releases: ReleaseStore;
  shop: ShopStore;
  files: FileStore;
  events: Events;
}

/** The log over HTTP: entries, looked for and taken elsewhere, and what they teach. */
export function logRoutes({ log, school, releases, shop, files, events }: Rooms): Router {
  const router = Router();
  /** Why a photo is not taken; undefined where it is. */
  function faultOf(sha256: string): string | undefined {
    const size = files.size(sha256);
    if (size === undefined) return 'A photo did not arrive: send it before the entry';
    if (size > PHOTO.bytes) return photoFault(new Uint8Array(size));
    return photoFault(Buffer.concat([...files.pieces(sha256)]));
  }
  const asked = (query: unknown): LogRow[] | undefined => {
    const { value } = readAs(LogQuestion, query);
    return (
      value &&
      log
        .all()
        .filter((row) => isAsked(row, value))
        .reverse()
    );
  };
  const NOT_ASKED = { error: 'Nothing can be looked for like that' };

  router.get('/', (req, res) => {
    const { page, ...question } = req.query;
    const rows = asked(question);
    if (!rows) return void res.status(422).json(NOT_ASKED);
    const from = PAGE * Math.max(0, Number(page) || 0);
    res.set('x-total-count', String(rows.length)).json(rows.slice(from, from + PAGE));
  });
  for (const [form, text] of [
    ['csv', logCsv],
    ['json', logJson],
  ] as const)
    router.get(`/entries.${form}`, (req, res) => {
      const rows = asked(req.query);
      if (!rows) return void res.status(422).json(NOT_ASKED);
      res.attachment(`log.${form}`).type(form).send(text(rows));
    });
  router.get('/notices', (_req, res) => {
    const tools = shop.list('tools').map((k) => k.item);
    res.json(noticesOf(log.all(), tools, Date.now()));
  });
  router.get('/photos/:sha256', (req, res) => {
    const { sha256 } = req.params;
    if (!log.hasPhoto(sha256)) return void res.status(404).json({ error: 'There is no such photo' });
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=31536000, immutable');
    res.send(Buffer.concat([...files.pieces(sha256)]));
  });

  router.param('release', (_req, res, next, id: string) => {
    if (ID.test(id) && releases.row(id)) next();
    else res.status(404).json({ error: 'There is no such release' });
  });
  router.get('/of/:release', (req, res) => void res.json(log.ofRelease(req.params.release)));
  router.post('/of/:release', (req, res) => {
    const { release } = req.params;
    const { value, findings } = readAs(LogEntry, req.body);
    if (!value) return void res.status(422).json({ error: 'This is no entry of the log', findings });
    const isThere = !value.replaces || log.has(release, value.replaces);
    const photo = value.photos?.map(faultOf).find(Boolean);
    const error =
      entryFault(value) ?? photo ?? (isThere ? undefined : 'What it corrects is not in the log of this release');
    if (error) return void res.status(422).json({ error });
    log.add(release, releases.view(release)!.body, value, { ...authorOf(res), person: personOf(res) });
    events.tell({ kind: 'runs' });
    res.status(204).end();
  });

  router.get('/lessons', (req, res) => {
    const { item } = req.query;
    res.json(school.lessons(typeof item === 'string' ? item : undefined));
  });
  for (const what of ['take', 'undo'] as const)
    router.post(`/lessons/:id/${what}`, (req, res) => {
      if (!school[what](req.params.id, authorOf(res).who))
        return void res
          .status(409)
          .json({ error: what === 'take' ? 'There is nothing to take over' : 'There is nothing to take back' });
      for (const shelf of ['machines', 'tools'] as const) events.tell({ kind: 'shelf', shelf });
      events.tell({ kind: 'runs' });
      res.status(204).end();
    });
  return router;
}
