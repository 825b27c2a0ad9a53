import { Request, Response, Router } from 'express';
import { CommentEntry, JOB_ORDERS, JOB_PLACES, JOB_STATES, Job, JobQuestion, Standing, readAs } from '@tidypath/core';
import type { FileStore } from '../db/files';
import { authorOf } from '../guard/author';
import { lookBefore, readBeside } from '../reading/beside';
import type { Comments } from './comments';
import { BIN_DAYS, DeletedJob, JobStore, UnreadJob } from './store';

const UNREAD =
  'It was stored by another version and cannot be read. It stays as it is: take it away, mend what is named here, and import it again';
const DELETED = `It was deleted, and lies in the bin for ${BIN_DAYS} days`;
const MISSING = { error: 'There is no such job; its days in the bin may be over' };
const ID = /^[0-9a-f-]{32,36}$/;

const oneOf = <T extends string>(all: readonly T[], value: unknown): T | undefined => all.find((v) => v === value);
const text = (value: unknown) => (typeof value === 'string' && value !== '' ? value.slice(0, 200) : undefined);

/** A question as it stands in an address; what cannot be read is not asked. */
const questionOf = (query: Record<string, unknown>): JobQuestion => ({
  words: text(query.words),
  material: text(query.material),
  machine: text(query.machine),
  tag: text(query.tag),
  state: oneOf(JOB_STATES, query.state),
  place: oneOf(JOB_PLACES, query.place),
  order: oneOf(JOB_ORDERS, query.order),
  page: /^\d{1,6}$/.test(String(query.page)) ? Number(query.page) : 0,
});

/** Answers with what was found, or why there is nothing. */
function answer<T extends object>(
  res: Response,
  found: T | UnreadJob | DeletedJob | undefined,
  status: (found: T) => number = () => 200,
): void {
  if (!found) res.status(404).json(MISSING);
  else if ('deletedAt' in found) res.status(410).json({ error: DELETED, ...found });
  else if ('findings' in found) res.status(422).json({ error: UNREAD, ...found });
  else res.status(status(found)).json(found);
}

function download(res: Response, document: string | undefined): void {
  if (document === undefined) res.status(404).json(MISSING);
  else res.type('application/json').attachment('job.json').send(document);
}

/** Jobs over HTTP. Bad input is answered with findings, never with a stack. */
export function jobRoutes(store: JobStore, files: FileStore, comments: Comments): Router {
  const router = Router();
  for (const param of ['id', 'version'])
    router.param(param, (_req, res, next, id: string) => {
      if (ID.test(id)) next();
      else res.status(404).json(MISSING);
    });
  /** What an older format held of files is put in their place. */
  const jobIn = async (req: Request) => {
    const read = await readBeside(req, 'job', req.body?.job);
    read.files?.forEach((bytes) => files.put(bytes));
    return read;
  };
  const done = (res: Response, wasDone: boolean) => void res.status(wasDone ? 204 : 404).end();

  router.get('/', (req, res) => {
    const { jobs, total } = store.list(questionOf(req.query));
    res.set('X-Total-Count', String(total)).json(jobs);
  });
  router.get('/choices', (_req, res) => void res.json(store.choices()));

  router.post('/', async (req, res) => {
    const { job, findings } = await jobIn(req);
    if (!job) return void res.status(422).json({ error: 'This is not a job', findings });
    res.status(201).json(store.create(job, authorOf(res)));
  });

  router.get('/:id', async (req, res) => {
    await lookBefore(store.document(req.params.id));
    answer(res, store.get(req.params.id));
  });
  router.get('/:id/document', (req, res) => download(res, store.document(req.params.id)));

  router.put('/:id', async (req, res) => {
    const version = req.body?.version;
    if (!Number.isInteger(version) || version < 0)
      return void res.status(400).json({ error: 'Say which version this save started from' });
    const { job, findings } = await jobIn(req);
    if (!job) return void res.status(422).json({ error: 'This job cannot be saved', findings });
    const saved = store.save(req.params.id, version, job, authorOf(res));
    answer(res, saved, ({ saved: isSaved }) => (isSaved ? 200 : 409));
  });

  router.post('/:id/duplicate', (req, res) => answer(res, store.duplicate(req.params.id, authorOf(res)), () => 201));
  router.delete('/:id', (req, res) => done(res, store.remove(req.params.id)));
  router.post('/:id/restore', (req, res) => done(res, store.restore(req.params.id)));
  router.put('/:id/archive', (req, res) => done(res, store.archive(req.params.id, true)));
  router.delete('/:id/archive', (req, res) => done(res, store.archive(req.params.id, false)));

  router.put('/:id/standing', (req, res) => {
    const { value, findings } = readAs(Standing, req.body);
    if (!value) return void res.status(422).json({ error: 'This says nothing about a job', findings });
    done(res, store.stand(req.params.id, value));
  });
  router.get('/:id/comments', (req, res) => void res.json(comments.of(req.params.id)));
  router.post('/:id/comments', (req, res) => {
    const { value, findings } = readAs(CommentEntry, req.body);
    if (!value) return void res.status(422).json({ error: 'This says nothing about an operation', findings });
    done(res, comments.add(req.params.id, value, authorOf(res)));
  });

  router.get('/:id/versions', (req, res) => void res.json(store.versions(req.params.id)));
  router.get('/:id/versions/:version', async (req, res) => {
    await lookBefore(store.versionDocument(req.params.id, req.params.version));
    answer<{ job: Job }>(res, store.version(req.params.id, req.params.version));
  });
  router.get('/:id/versions/:version/document', (req, res) =>
    download(res, store.versionDocument(req.params.id, req.params.version)),
  );
  return router;
}
