import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import {
  Job,
  LOOKED_AT,
  LogEntry,
  Person,
  Proven,
  acceptedKey,
  openJob,
  released,
  sha256Of,
  toAccept,
} from '@tidypath/core';
import type { Stores } from './app';
import { LogStore } from './log/store';
import { ReleaseStore } from './releases/store';

/** Those of the demo shop who released and approved; they stand in no list of people. */
const DEMO: Record<'learner' | 'approver', Person> = {
  learner: { id: 'demo-learner', name: 'Lio', roles: ['learner'], hasPin: false },
  approver: { id: 'demo-approver', name: 'Ines', roles: ['approver'], hasPin: false },
};

/** A setup that was released in the demo shop: proved beforehand, kept and approved as any other. */
type DemoRelease = Proven & { job: string; setup: string };

/** Something of the log of the demo shop: whole days before it was set up. */
interface DemoEntry extends Omit<LogEntry, 'id'> {
  daysAgo: number;
  who: string;
  /** As it was measured, part after part, by the size. */
  sizes?: Record<string, number[]>;
}

/** The shop was set up so many days ago. */
const DAYS = 12;
const DAY = 24 * 3600_000;
const daysAgo = (days: number) => () => new Date(Date.now() - days * DAY);

/** What was logged of a release, as if it had been on its day. */
function keepLog({ db, jobs }: Stores, releaseId: string, entries: DemoEntry[]): void {
  let part = 0;
  for (const { daysAgo: days, who, sizes = {}, ...entry } of entries) {
    const releases = new ReleaseStore(db, jobs, daysAgo(days));
    const by = { device: '', who };
    for (const [size, all] of Object.entries(sizes))
      for (const measured of all)
        releases.atMachine.measure(releaseId, { id: randomUUID(), size, measured, part: ++part }, by);
    new LogStore(db, daysAgo(days)).add(releaseId, releases.body(releaseId)!, { id: randomUUID(), ...entry }, by);
  }
}

function keepReleases(stores: Stores, folder: string, kept: Map<string, { id: string; job: Job }>): void {
  if (!existsSync(folder)) return;
  const releases = new ReleaseStore(stores.db, stores.jobs, daysAgo(DAYS));
  for (const file of readdirSync(folder).filter((f) => f.endsWith('.json'))) {
    const made = JSON.parse(readFileSync(join(folder, file), 'utf8')) as DemoRelease;
    const of = kept.get(made.job);
    const setup = of?.job.setups.find((s) => s.id === made.setup);
    if (!of || !setup) continue;
    const keys = toAccept(made.checks).map(acceptedKey);
    const { learner, approver } = DEMO;
    const whole = released(of.job, setup, made, keys);
    const id = releases.keep(of.id, 1, whole, { device: '', who: learner.name, person: learner });
    const remark = 'Watch the first tap.';
    if (!id) continue;
    const checks = [...LOOKED_AT].slice(0, 4);
    releases.answer(id, { answer: 'approve', root: whole.body.root, remark, checks }, approver);
    const log = join(folder, '../log', file);
    if (existsSync(log)) keepLog(stores, id, JSON.parse(readFileSync(log, 'utf8')) as DemoEntry[]);
  }
}

/**
 * The demo shop's jobs, put in when there are none at all; those of solids come with their files, one with an approved release.
 * @param folder with `jobs`, `releases` and `log`
 */
export async function seedDemo(stores: Stores, folder: string): Promise<number> {
  const { jobs, files } = stores;
  if (!jobs.isEmpty) return 0;
  const names = readdirSync(join(folder, 'jobs'))
    .filter((f) => /\.(json|zip)$/.test(f))
    .sort();
  const read: [string, Job][] = [];
  for (const name of names) {
    const { job, findings, files: own = [] } = openJob(new Uint8Array(readFileSync(join(folder, 'jobs', name))));
    if (!job) throw new Error(`Demo job ${name}: ${findings.map((f) => f.message).join('; ')}`);
    for (const bytes of own) await files.keep(sha256Of(bytes), Readable.from([bytes]));
    read.push([name.replace(/\.\w+$/, ''), job]);
  }
  const kept = new Map(read.map(([name, job]) => [name, { id: jobs.create(job).id, job }]));
  keepReleases(stores, join(folder, 'releases'), kept);
  return names.length;
}
