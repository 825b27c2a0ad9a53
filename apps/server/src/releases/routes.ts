import { createHash } from 'node:crypto';
import { Response, Router } from 'express';
import { zipSync } from 'fflate';
import {
  AnswerEntry,
  CorrectionEntry,
  HandingOut,
  Job,
  ReleaseAsk,
  ReleaseRow,
  SizeEntry,
  TaskStep,
  TickEntry,
  heldBack,
  isHandedOut,
  readAs,
  released,
  stateWords,
} from '@tidypath/core';
import { PAPERS, Paper } from '@tidypath/sheets';
import type { Computing } from '../compute/computing';
import { filesFor, leaving, telling } from '../compute/telling';
import type { FileStore } from '../db/files';
import { authorOf, personOf } from '../guard/author';
import type { JobStore } from '../jobs/store';
import { sendTo } from './machines';
import { PAPER_KINDS, PaperKind, paperOf } from './papers';
import type { By, ReleaseStore } from './store';

const MISSING = { error: 'There is no such release' };
const GONE_ON = 'The job has gone on since: release what stands there now';
const ID = /^[0-9a-f-]{32,36}$/;
const ROOT = /^[0-9A-Fa-f]{8,64}$/;
/** `sheet.html`, `first-piece-A4.pdf`. */
const PAPER = new RegExp(`^(${PAPER_KINDS.join('|')})(?:\\.html|-(${Object.keys(PAPERS).join('|')})\\.pdf)$`);

const byOf = (res: Response): By => ({ ...authorOf(res), person: personOf(res) });
const notThis = (res: Response, error: string, findings: unknown) => void res.status(422).json({ error, findings });

interface Rooms {
  jobs: JobStore;
  files: FileStore;
  releases: ReleaseStore;
  /** Where the folders of the machines lie. */
  folder: string;
  computing?: Computing;
}

/** Releases over HTTP: made from the saved job by this server, kept as they were proved, handed out where they may be. */
export function releaseRoutes({ jobs, files, releases, folder, computing }: Rooms): Router {
  const router = Router();
  router.param('id', (_req, res, next, id: string) => {
    if (ID.test(id) && releases.row(id)) next();
    else res.status(404).json(MISSING);
  });

  router.get('/', (req, res) => {
    const { job } = req.query;
    if (typeof job !== 'string') return void res.json(releases.workList());
    res.json({ needsApproval: releases.needsApproval(job), releases: releases.ofJob(job) });
  });

  /** The job as it is stored, in the version that was looked at. */
  const jobAt = (id: unknown, version: number): Job | undefined => {
    const row = typeof id === 'string' && ID.test(id) ? jobs.get(id) : undefined;
    return row && 'job' in row && row.version === version ? row.job : undefined;
  };

  router.post('/', async (req, res) => {
    const { jobId, setupId, ...asked } = (req.body ?? {}) as { jobId?: string; setupId?: string };
    const { value: ask, findings } = readAs(ReleaseAsk, asked);
    if (!ask) return notThis(res, 'Say which version is released, and what of it is accepted', findings);
    const job = jobAt(jobId, ask.version);
    const setup = job?.setups.find((s) => s.id === setupId);
    if (!job || !setup || !jobId) return void res.status(409).json({ error: GONE_ON });
    const by = byOf(res);
    if (releases.needsApproval(jobId) && !by.person)
      return void res.status(403).json({ error: 'Choose yourself on this device first: who releases is named' });
    if (!computing) return void res.status(501).json({ error: 'This server computes nothing, so it releases nothing' });
    const left = leaving(res);
    const say = telling(res);
    const key = createHash('sha256')
      .update(JSON.stringify([job, setup.id]))
      .digest('hex');
    const question = { key, job, setupId: setup.id, files: filesFor(files, job) };
    const proven = await computing.prove(question, by.device, (step: TaskStep) => say(step), left);
    if (!proven || left.aborted) return void res.end();
    const end = (word: object) => void (say(word), res.end());
    if ('error' in proven) return end(proven);
    const { stops, open } = heldBack(proven.checks, ask.accepted);
    if (stops.length + open.length > 0) return end({ held: { stops, open } });
    const id = releases.keep(jobId, ask.version, released(job, setup, proven, ask.accepted), by);
    end(id ? { release: id } : { error: GONE_ON });
  });

  router.get('/by-root/:root', (req, res) => {
    const id = ROOT.test(req.params.root) ? releases.byRoot(req.params.root) : undefined;
    if (id) res.json({ id });
    else res.status(404).json(MISSING);
  });

  router.get('/:id', (req, res) => void res.json(releases.view(req.params.id)));

  router.get('/:id/against/:other', (req, res) => {
    if (!ID.test(req.params.other) || !releases.row(req.params.other)) return void res.status(404).json(MISSING);
    res.json({ lines: releases.between(req.params.other, req.params.id) });
  });

  /** Its programs where they are handed out; else why not has been said. */
  const handedOut = (id: string, res: Response) => {
    const row = releases.row(id)!;
    if (!releases.isIntact(id))
      return void res.status(403).json({ error: 'What is kept is not what was released: it is not handed out' });
    if (!isHandedOut(row.state)) return void res.status(403).json({ error: refusal(row) });
    return { row, programs: releases.programs(id) };
  };

  router.get('/:id/programs', (req, res) => {
    const found = handedOut(req.params.id, res);
    if (!found) return;
    const { row, programs } = found;
    if (programs.length === 1)
      return void res.attachment(programs[0].fileName).type('text/plain').send(programs[0].bytes);
    const all = Object.fromEntries(programs.map((p) => [p.fileName, new Uint8Array(p.bytes)]));
    res
      .attachment(`release-${row.number}.zip`)
      .type('application/zip')
      .send(Buffer.from(zipSync(all)));
  });

  router.post('/:id/send', (req, res) => {
    const found = handedOut(req.params.id, res);
    if (found) res.json({ folder: sendTo(folder, found.row.machine, found.programs) });
  });

  router.get('/:id/papers/:name', (req, res) => {
    const [, kind, paper] = PAPER.exec(req.params.name) ?? [];
    if (!kind) return void res.status(404).json(MISSING);
    const form = (paper as Paper | undefined) ?? 'html';
    const made = paperOf(releases.view(req.params.id)!, kind as PaperKind, form, releases.address, files);
    if (typeof made === 'string') res.type('html').send(made);
    else res.type('application/pdf').send(Buffer.from(made));
  });

  router.post('/:id/answers', (req, res) => {
    const { value, findings } = readAs(AnswerEntry, req.body);
    if (!value) return notThis(res, 'This is no answer to a release', findings);
    const refused = releases.answer(req.params.id, value, personOf(res));
    if (refused) res.status(403).json({ error: refused });
    else res.status(204).end();
  });

  router.post('/:id/ticks', (req, res) => {
    const { value, findings } = readAs(TickEntry, req.body);
    if (!value) return notThis(res, 'This ticks nothing', findings);
    releases.atMachine.tick(req.params.id, value, authorOf(res));
    res.status(204).end();
  });

  router.post('/:id/sizes', (req, res) => {
    const { value, findings } = readAs(SizeEntry, req.body);
    if (!value) return notThis(res, 'This is no size', findings);
    releases.atMachine.measure(req.params.id, value, authorOf(res));
    res.status(204).end();
  });

  router.post('/:id/corrections', (req, res) => {
    const { value, findings } = readAs(CorrectionEntry, req.body);
    if (!value) return notThis(res, 'This corrects nothing', findings);
    releases.atMachine.correct(req.params.id, value, authorOf(res));
    res.status(204).end();
  });
  return router;
}

const refusal = ({ state }: ReleaseRow): string => `It is not handed out: ${stateWords(state)}`;

/** How programs are handed out, for the shop and for single jobs: only an approver says so. */
export function handingOutRoutes(releases: ReleaseStore, jobs: JobStore): Router {
  const router = Router();
  const now = (): HandingOut => ({ needsApproval: releases.shopNeedsApproval, address: releases.address });
  const mayNot = (res: Response) =>
    void res.status(403).json({ error: 'An approver decides this; choose yourself on this device first' });
  const isApprover = (res: Response) => !!personOf(res)?.roles.includes('approver');

  router.get('/', (_req, res) => void res.json(now()));

  router.put('/', (req, res) => {
    const { value, findings } = readAs(HandingOut, req.body);
    if (!value) return notThis(res, 'An address begins with http:// or https://, and ends with its port', findings);
    if (value.needsApproval !== releases.shopNeedsApproval && !isApprover(res)) return mayNot(res);
    releases.shopNeedsApproval = value.needsApproval;
    releases.address = value.address;
    res.status(204).end();
  });

  router.put('/jobs/:job', (req, res) => {
    const on: unknown = req.body?.needsApproval;
    if (typeof on !== 'boolean') return void res.status(400).json({ error: 'Say whether it needs approval' });
    if (!isApprover(res)) return mayNot(res);
    res.status(jobs.setNeedsApproval(req.params.job, on) ? 204 : 404).end();
  });
  return router;
}
