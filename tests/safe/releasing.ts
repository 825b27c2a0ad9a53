/** Releases one after the other until it is killed, and says which are kept. */
import 'reflect-metadata';
import { Bench, acceptedKey, proven, released, toAccept } from '@tidypath/core';
import { tightPocket } from '@tidypath/core/testing/jobs';
import { storesOf } from '../../apps/server/src/app';
import { openDb } from '../../apps/server/src/db/open';

const folder = process.argv[2];
const stores = storesOf(openDb(folder), folder);
const job = tightPocket();
const work = proven(new Bench(), job, job.setups[0]);
let made = work.next();
while (!made.done) made = work.next();
const found = made.value!;
const keys = toAccept(found.checks).map(acceptedKey);
const { id } = stores.jobs.create(job);
for (let n = 0; ; n++) {
  // Another machine each time, so that each is a release of its own.
  const other = { ...job, machine: { ...job.machine, noseToTable: 300 + n } };
  const kept = stores.releases.keep(id, 1, released(other, other.setups[0], found, keys), { device: '', who: '' });
  process.stdout.write(`${kept}\n`);
}
