/** What is known of a stored job without reading its document: for the list, for searching it, and for how far it is. */
import { createHash } from 'node:crypto';
import {
  FORMAT_VERSION,
  JOBS_PER_PAGE,
  Job,
  JobOrder,
  JobPlace,
  JobQuestion,
  JobState,
  JobSummary,
  Thumbnail,
  thumbnailOf,
} from '@tidypath/core';
import type { Db } from '../db/open';

/** Everything a program depends on: what only helps people to find a job is left out. */
export function contentOf({ note: _, tags: __, customerNumber: ___, ...job }: Job): string {
  return createHash('sha256').update(JSON.stringify(job)).digest('base64url');
}

/** The columns of a job that follow from its document. */
export const columnsOf = (job: Job) => ({
  name: job.name,
  words: [job.name, job.customerNumber, ...(job.tags ?? [])].filter(Boolean).join('\n').toLowerCase(),
  material: job.material.name,
  machine: job.machine.name,
  customer_number: job.customerNumber ?? '',
  tags: JSON.stringify(job.tags ?? []),
  content: contentOf(job),
  setups: job.setups.filter((s) => s.operations.some((o) => o.on)).length,
  thumbnail: JSON.stringify(thumbnailOf(job.part)),
  document: JSON.stringify(job),
  format: FORMAT_VERSION,
});

const STATE = `CASE
  WHEN setups = 0 THEN 'empty'
  WHEN released_content = content AND json_array_length(released) >= setups THEN 'released'
  WHEN standing_content IS NULL THEN 'not proved'
  WHEN standing_content <> content THEN 'out of date'
  WHEN stops > 0 THEN 'to cure'
  WHEN proved >= setups THEN 'proved'
  ELSE 'not proved' END`;

const PLACES: Record<JobPlace, string> = {
  list: 'deleted_at IS NULL AND archived_at IS NULL',
  archive: 'deleted_at IS NULL AND archived_at IS NOT NULL',
  bin: 'deleted_at IS NOT NULL',
};
const ORDERS: Record<JobOrder, string> = {
  changed: 'updated_at DESC',
  name: 'name COLLATE NOCASE',
  state: 'state, updated_at DESC',
  time: 'seconds DESC, updated_at DESC',
};
/** Words that are looked for at once. */
const MOST_WORDS = 8;

interface Listed {
  id: string;
  name: string;
  version: number;
  updated_at: string;
  deleted_at: string | null;
  archived_at: string | null;
  material: string;
  machine: string;
  customer_number: string;
  tags: string;
  state: JobState;
  stops: number;
  seconds: number;
  thumbnail: string;
}

const summaryOf = (r: Listed): JobSummary => ({
  id: r.id,
  name: r.name,
  version: r.version,
  updatedAt: r.updated_at,
  thumbnail: JSON.parse(r.thumbnail) as Thumbnail,
  material: r.material,
  machine: r.machine,
  customerNumber: r.customer_number,
  tags: JSON.parse(r.tags) as string[],
  state: r.state,
  stops: r.stops,
  seconds: r.state === 'proved' || r.state === 'released' ? r.seconds : 0,
  archived: r.archived_at !== null,
  ...(r.deleted_at ? { deletedAt: r.deleted_at } : {}),
});

/** What a question asks of each row, and the values it asks with. */
function conditions({ words = '', material, machine, tag, state, place = 'list' }: JobQuestion) {
  const asked: [string, string][] = words
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, MOST_WORDS)
    .map((word) => ['instr(coalesce(words, lower(name)), ?) > 0', word]);
  if (material) asked.push(['material = ?', material]);
  if (machine) asked.push(['machine = ?', machine]);
  if (tag) asked.push(['EXISTS (SELECT 1 FROM json_each(tags) AS t WHERE t.value = ?)', tag]);
  if (state) asked.push([`${STATE} = ?`, state]);
  return { where: [PLACES[place], ...asked.map(([sql]) => sql)].join(' AND '), values: asked.map(([, v]) => v) };
}

/** One page of the jobs a question asks for, and how many there are in all. */
export function listJobs(db: Db, question: JobQuestion): { jobs: JobSummary[]; total: number } {
  const { where, values } = conditions(question);
  const total = db
    .prepare<string[], number>(`SELECT count(*) FROM jobs WHERE ${where}`)
    .pluck()
    .get(...values)!;
  const order = `${ORDERS[question.order ?? 'changed']}, name, id`;
  const page = `SELECT id, ${STATE} AS state FROM jobs WHERE ${where} ORDER BY ${order} LIMIT ? OFFSET ?`;
  const rows = db
    .prepare<unknown[], Listed>(
      `SELECT jobs.id, name, version, updated_at, deleted_at, archived_at, material, machine, customer_number, tags, state, stops,
         seconds, thumbnail
       FROM (${page}) AS page JOIN jobs ON jobs.id = page.id ORDER BY ${order.replace(/\bid\b/, 'jobs.id')}`,
    )
    .all(...values, JOBS_PER_PAGE, (question.page ?? 0) * JOBS_PER_PAGE);
  return { jobs: rows.map(summaryOf), total };
}

/** What the jobs in the list can be told apart by. */
export function choicesOf(db: Db): { materials: string[]; machines: string[]; tags: string[] } {
  const all = (sql: string) => db.prepare<[], string>(`${sql} ORDER BY 1 COLLATE NOCASE`).pluck().all();
  return {
    materials: all(`SELECT DISTINCT material FROM jobs WHERE ${PLACES.list} AND material <> ''`),
    machines: all(`SELECT DISTINCT machine FROM jobs WHERE ${PLACES.list} AND machine <> ''`),
    tags: all(`SELECT DISTINCT t.value FROM jobs, json_each(tags) AS t WHERE ${PLACES.list}`),
  };
}
