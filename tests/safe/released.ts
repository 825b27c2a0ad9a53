/** A released program with a run of it, in a folder of its own; machines stand in this process. */
import { Bench, Job, acceptedKey, proven, released, toAccept } from '@tidypath/core';
import { tightPocket } from '@tidypath/core/testing/jobs';
import { storesOf } from '../../apps/server/src/app';
import { openDb } from '../../apps/server/src/db/open';
import { Stand, SwitchOn } from '../../apps/server/src/runs/hall';
import { Begin, Operator, Shown } from '../../apps/server/src/runs/operator';

/** Machines of this process, on a coarse grid. */
export const here: SwitchOn = (begin, say) => standing(new Operator({ ...begin, cell: 0.5 }, say));

export const standing = (operator: Operator): Stand => ({
  press: async (one) => operator.press(one),
  pace: async (pace) => operator.setPace(pace),
  onward: async () => operator.onward(),
  piece: async () => operator.piece(),
  close: async () => operator.close(),
});

const bench = new Bench();
export function made(job: Job) {
  const work = proven(bench, job, job.setups[0]);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value!;
  }
}

/** Opens what is kept in a folder; makes it where there is nothing yet. */
export function releaseOn(place: string) {
  const db = openDb(place);
  const stores = storesOf(db, place);
  const { jobs, releases, runs } = stores;
  const job = tightPocket();
  if (jobs.isEmpty) {
    const { id } = jobs.create(job);
    const proof = made(job);
    const by = { device: '', who: 'Lio', person: { id: 'lio', name: 'Lio', roles: [], hasPin: false } };
    releases.keep(id, 1, released(job, job.setups[0], proof, toAccept(proof.checks).map(acceptedKey)), by);
    const [row] = releases.ofJob(id);
    const { id: releaseId, setupId, root, machine } = row;
    runs.begin({ releaseId, jobId: id, setupId, root, machine, kind: 'simulated', seed: 1 }, by);
  }
  const [{ id: jobId }] = db.prepare<[], { id: string }>('SELECT id FROM jobs').all();
  const [run] = runs.ofSetup(jobId, job.setups[0].id);
  const begin = (): Begin => {
    const text = releases.programs(run.releaseId)[0].bytes.toString('utf8');
    return { job, setupId: run.setupId, text, seed: run.seed, files: [], memory: runs.memory(run.id)?.memory };
  };
  /** Switches its machine on: what it shows is kept, then heard. */
  const open = (of: typeof run, hear: (shown: Shown) => void): Stand =>
    here(
      begin(),
      (shown) => (runs.show(of.id, shown), hear(shown)),
      () => undefined,
    );
  return { db, stores, jobId, run, open };
}
