import { randomInt, randomUUID } from 'node:crypto';
import { Request, Response, Router } from 'express';
import { Press, seenOf } from '@tidypath/controller';
import { RunRow, checklistOf, isHandedOut, joinPrograms, readAs, stateWords } from '@tidypath/core';
import { filesFor } from '../compute/telling';
import type { FileStore } from '../db/files';
import type { Events } from '../events/events';
import { authorOf, personOf } from '../guard/author';
import type { LogStore } from '../log/store';
import type { ReleaseStore } from '../releases/store';
import type { Hall, Stand } from './hall';
import { Begin, PACES, Pace, Shown } from './operator';
import type { RunStore } from './store';

const ID = /^[0-9a-f-]{32,36}$/;
const MISSING = { error: 'There is no such run' };
const FULL = { error: 'All simulated machines are in use: end or reset one' };

interface Rooms {
  runs: RunStore;
  releases: ReleaseStore;
  files: FileStore;
  events: Events;
  log: LogStore;
  hall?: Hall;
}

/** Runs over HTTP: a released program on a simulated machine of this server, seen by every page. */
export function runRoutes({ runs, releases, files, events, log, hall }: Rooms): Router {
  const router = Router();
  router.param('id', (_req, res, next, id: string) => {
    if (ID.test(id) && runs.row(id)) next();
    else res.status(404).json(MISSING);
  });

  const begin = ({ id, releaseId, setupId, seed }: RunRow): Begin => {
    const { job } = releases.view(releaseId)!.body;
    const { text } = joinPrograms(
      releases.programs(releaseId).map((p) => ({ text: p.bytes.toString('utf8'), sections: [] })),
    );
    return { job, setupId, text, seed, files: filesFor(files, job), memory: runs.memory(id)?.memory };
  };
  /** What it shows is kept first, then told. */
  const hear = (id: string) => (shown: Shown) => {
    runs.show(id, shown);
    const { view, pace, isPreparing, events: happened } = shown;
    if (happened.some((e) => e.what === 'done')) logDone(id, shown);
    events.pass({ kind: 'machine', run: id, shown: { view, pace, isPreparing, isOn: true } });
    if (happened.length > 0) events.tell({ kind: 'runs' });
  };
  /** A whole program that ran as it was posted logs itself. */
  function logDone(id: string, { view, memory }: Shown): void {
    const { releaseId, who, seed } = runs.row(id)!;
    if (memory.turned || memory.past.length !== 1 || memory.past[0].from > 0) return;
    const remark = `Machine number ${seed}`;
    const seen = memory.steps.map(seenOf);
    const entry = {
      id: randomUUID(),
      kind: 'simulated' as const,
      parts: 1,
      scrapped: 0,
      seconds: view.ran,
      remark,
      seen,
    };
    log.add(releaseId, releases.view(releaseId)!.body, entry, { device: '', who }, id);
  }
  const standOf = (id: string): Stand | undefined => hall?.machine(id, () => begin(runs.row(id)!), hear(id));

  router.get('/', (req, res) => {
    const { job, setup } = req.query;
    if (typeof job !== 'string' || typeof setup !== 'string') return void res.status(404).json(MISSING);
    res.json({ canRun: !!hall, runs: runs.ofSetup(job, setup) });
  });

  router.post('/', (req, res) => {
    const { releaseId, seed } = (req.body ?? {}) as { releaseId?: unknown; seed?: unknown };
    const row = typeof releaseId === 'string' && ID.test(releaseId) ? releases.row(releaseId) : undefined;
    if (!row) return void res.status(404).json({ error: 'There is no such release' });
    if (!hall) return void res.status(501).json({ error: 'This server has no simulated machine' });
    if (!isHandedOut(row.state) || !releases.isIntact(row.id))
      return void res.status(403).json({ error: `It is not handed out: ${stateWords(row.state)}` });
    const chosen = Number.isInteger(seed) && (seed as number) >= 0 && (seed as number) < 2 ** 32;
    const { id: release, jobId, setupId, root, machine } = row;
    const id = runs.begin(
      {
        releaseId: release,
        jobId,
        setupId,
        root,
        machine,
        kind: 'simulated',
        seed: chosen ? (seed as number) : randomInt(2 ** 31),
      },
      { ...authorOf(res), person: personOf(res) },
    );
    if (!standOf(id)) return void res.status(409).json(FULL);
    events.tell({ kind: 'runs' });
    res.status(201).json({ id });
  });

  router.get('/:id', (req, res) => {
    const { id } = req.params;
    // What ran when the power went is switched on again: it says so.
    if (!hall?.shown(id) && runs.memory(id)?.memory.current) standOf(id);
    const shown = hall?.shown(id);
    const view = shown?.view ?? runs.memory(id)?.view;
    res.json({
      row: runs.row(id),
      events: runs.events(id),
      shown: view && { view, pace: shown?.pace ?? 1, isPreparing: shown?.isPreparing ?? false, isOn: !!shown },
    });
  });

  /** Asks something of its machine, which is switched on for it. */
  const asking =
    (ask: (stand: Stand, req: Request<{ id: string }>, res: Response) => Promise<unknown>) =>
    async (req: Request<{ id: string }>, res: Response): Promise<void> => {
      const stand = standOf(req.params.id);
      if (!stand) return void res.status(409).json(FULL);
      const answer = await ask(stand, req, res);
      if (!res.headersSent) res.json(answer ?? {});
    };

  router.post(
    '/:id/press',
    asking(async (stand, req, res) => {
      const { value, findings } = readAs(Press, req.body);
      if (!value) return void res.status(422).json({ error: 'This is nothing to press', findings });
      const refused = await stand.press(value);
      if (value.press === 'start' && !refused) noteUnchecked(req.params.id);
      return { refused };
    }),
  );
  router.post(
    '/:id/pace',
    asking(async (stand, req, res) => {
      const { pace } = (req.body ?? {}) as { pace?: Pace };
      if (!pace || !PACES.includes(pace))
        return void res.status(422).json({ error: `It goes ${PACES.join(', ')} times as fast` });
      await stand.pace(pace);
    }),
  );
  router.post(
    '/:id/onward',
    asking((stand) => stand.onward()),
  );
  router.get(
    '/:id/piece',
    asking(async (stand) => {
      const { surface, ...piece } = await stand.piece();
      // As text, no finer than anybody sees.
      const height = surface && Array.from(surface.height, (h) => Math.round(1000 * h) / 1000);
      return { ...piece, ...(surface && { surface: { ...surface, height } }) };
    }),
  );
  router.get('/:id/stream.csv', (req, res) => {
    res
      .attachment(`run-${req.params.id.slice(0, 8)}.csv`)
      .type('text/csv')
      .send(runs.stream(req.params.id));
  });

  /** What of its release's checklist is open when it starts is written down, once. */
  function noteUnchecked(id: string): void {
    const { releaseId } = runs.row(id)!;
    if (runs.events(id).some((e) => e.what === 'unchecked')) return;
    const { body, ticks, root } = releases.view(releaseId)!;
    const setup = body.job.setups.find((s) => s.id === body.setupId)!;
    const items = checklistOf({
      ...{ job: body.job, setup, root, accepted: body.accepted, plunges: body.plunges },
      called: body.proof.called.map((c) => c.number),
    });
    const seen = new Map(ticks.map((t) => [t.item, t.isSo]));
    const open = items.filter((i) => !seen.get(i.id));
    if (open.length === 0) return;
    const some = open.slice(0, NAMED).map((i) => i.text);
    const more = open.length > NAMED ? `, and ${open.length - NAMED} more` : '';
    runs.note(id, {
      seconds: 0,
      line: 0,
      what: 'unchecked',
      words: `${open.length} of ${items.length} points of the checklist were open: ${some.join('; ')}${more}`,
    });
  }
  return router;
}

/** Points that are named. */
const NAMED = 3;
