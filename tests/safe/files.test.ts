/** Files that jobs name: kept beside them by their hash, streamed, backed up, carried along as one ZIP. */
import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync, zipSync } from 'fflate';
import {
  FORMAT_VERSION,
  Job,
  JobRow,
  LARGEST_FILE,
  newJob,
  openJob,
  packJob,
  parseJob,
  putAtHand,
  sha256Of,
} from '@tidypath/core';
import { backUp, restore } from '../../apps/server/src/backup/backup';
import { openDb } from '../../apps/server/src/db/open';
import { FileStore } from '../../apps/server/src/db/files';
import { JobStore } from '../../apps/server/src/jobs/store';
import { Server, ask, folder, root } from './server';

jest.setTimeout(120_000);
const DAY = 24 * 3600_000;

const OLD = readFileSync(join(root, 'packages/core/testing/formats/4-casting.json'), 'utf8');
const { job: carried, files: within } = parseJob(OLD);
const [STL] = within!;

/** A job that names files, each as the casting of a setup. */
const naming = (...files: Uint8Array[]): Job => ({
  ...carried!,
  setups: files.map((bytes, i) => ({
    ...carried!.setups[0],
    id: `s${i}`,
    operations: [],
    stock: { ...carried!.setups[0].stock, casting: { name: `file ${i}`, sha256: sha256Of(bytes) } },
  })),
});

describe('a server', () => {
  const server = new Server(folder());
  beforeAll(() => server.start());
  afterAll(() => server.clear());
  const url = (key: string) => `http://127.0.0.1:${server.port}/api/files/${key}`;
  const put = (key: string, body: Uint8Array, type = 'application/octet-stream') =>
    fetch(url(key), { method: 'PUT', headers: { 'content-type': type }, body: body as BodyInit });

  test('PUT /api/files/:sha256 takes a file of any kind, larger than any body of JSON, and hands out the same bytes', async () => {
    const bytes = new Uint8Array(randomBytes(40_000_003));
    const key = sha256Of(bytes);
    expect((await fetch(url(key), { method: 'HEAD' })).status).toBe(404);
    expect((await put(key, bytes)).status).toBe(201);
    const head = await fetch(url(key), { method: 'HEAD' });
    expect([head.status, head.headers.get('content-length')]).toEqual([200, String(bytes.length)]);
    const back = await fetch(url(key));
    expect(back.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(sha256Of(new Uint8Array(await back.arrayBuffer()))).toBe(key);
    expect((await put(key, bytes)).status).toBe(204);
  });

  test('checked by hash: what is not the file that was announced is refused and not kept', async () => {
    const key = sha256Of(new Uint8Array([1]));
    const refused = await put(key, new Uint8Array([2]));
    expect([refused.status, (await refused.json()).error]).toEqual([422, expect.stringMatching(/send it again/)]);
    expect((await fetch(url(key))).status).toBe(404);
    expect((await put('no-hash', new Uint8Array([2]))).status).toBe(404);
    expect((await put(key, new Uint8Array([1]), 'text/plain')).status).toBe(415);
  });

  test('up to 100 MB: a larger one is refused', async () => {
    const refused = await put('a'.repeat(64), new Uint8Array(LARGEST_FILE + 1));
    expect([refused.status, (await refused.json()).error]).toEqual([413, 'The file is larger than 100 MB']);
  });

  test('a job of the format that held its casting itself is taken, and the casting stands beside it', async () => {
    const headers = { 'content-type': 'application/json' };
    const sent = await ask(server.port, '/api/jobs', { method: 'POST', headers, body: `{"job":${OLD}}` });
    expect(sent.status).toBe(201);
    const { job } = JSON.parse(sent.body) as JobRow;
    const { casting } = job.setups[0].stock;
    expect(casting).toEqual({ name: 'housing.stl', sha256: sha256Of(STL) });
    expect(sent.body).not.toContain('triangles');
    const bytes = await (await fetch(url(casting!.sha256))).arrayBuffer();
    expect(Buffer.from(bytes).equals(Buffer.from(STL))).toBe(true);
  });
});

describe('the file store', () => {
  const data = folder();
  const db = openDb(data);
  let at = Date.parse('2026-05-04T08:00:00Z');
  const now = () => new Date(at);
  const [files, jobs] = [new FileStore(db, now), new JobStore(db, now)];
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });
  const text = (of: FileStore, key: string) => Buffer.concat([...of.pieces(key)]).toString();
  const later = (days: number) => {
    at += days * DAY;
    files.tidy();
  };

  test('unreferenced ones are removed after 30 days; named by any version of any job they stay', () => {
    const [first, second, nobodys] = ['first', 'second', 'nobody’s'].map((t) => Buffer.from(t));
    const keys = [first, second, nobodys].map((bytes) => files.put(bytes));
    const { id } = jobs.create(naming(first));
    at += DAY / 24;
    jobs.save(id, 1, naming(first, second));
    later(29);
    expect(keys.map((k) => files.size(k))).toEqual([5, 6, nobodys.length]);
    later(2);
    expect(keys.map((k) => files.size(k))).toEqual([5, 6, undefined]);
    // The versions within ten minutes are one: the file the last of them does not name is let go in time.
    jobs.save(id, 2, naming(first));
    later(0);
    later(31);
    expect(keys.map((k) => files.size(k))).toEqual([5, 6, undefined]);
    jobs.remove(id);
    at += 31 * DAY;
    jobs.emptyBin();
    later(0);
    expect(text(files, keys[0])).toBe('first');
    later(31);
    expect(keys.map((k) => files.size(k))).toEqual([undefined, undefined, undefined]);
  });

  test('one sent again has its days anew', () => {
    const key = files.put(Buffer.from('again'));
    later(29);
    expect(files.touch(key)).toBe(true);
    later(29);
    expect(files.size(key)).toBe(5);
  });

  test('what was still arriving when the server ended is dropped at its next start, and nothing else', async () => {
    const key = files.put(Buffer.from('whole'));
    async function* broken() {
      yield new Uint8Array(1_500_000);
      throw new Error('the line was cut');
    }
    await expect(files.keep('b'.repeat(64), broken())).rejects.toThrow('cut');
    const pieces = db.prepare<[], number>('SELECT count(*) FROM file_pieces').pluck();
    const before = pieces.get();
    db.exec(`INSERT INTO files (id, size) VALUES (999, 0); INSERT INTO file_pieces VALUES (999, 0, x'00')`);
    files.dropUnfinished();
    expect([pieces.get(), files.size(key)]).toEqual([before, 5]);
  });

  test('backups cover it', async () => {
    const key = files.put(Buffer.from('in the backup'));
    const copy = join(data, 'copy.db');
    await backUp(db, copy);
    const elsewhere = folder();
    restore(elsewhere, copy);
    const again = openDb(elsewhere);
    expect(text(new FileStore(again), key)).toBe('in the backup');
    again.close();
    rmSync(elsewhere, { recursive: true, force: true });
  });
});

test('castings move into it with a migration: of the job as it stands and of its history', () => {
  const data = folder();
  const before = openDb(data);
  const id = '00000000-0000-0000-0000-000000000001';
  before.exec('PRAGMA user_version');
  before
    .prepare(
      `INSERT INTO jobs (id, name, version, created_at, updated_at, format, thumbnail, document)
       VALUES (?, 'Housing', 2, '2026-05-01', '2026-05-02', 4, '{}', ?)`,
    )
    .run(id, OLD);
  for (const version of [1, 2])
    before
      .prepare(
        `INSERT INTO versions (id, job_id, version, device, who, began_at, saved_at, format, document)
         VALUES (?, ?, ?, '', '', '2026-05-01', ?, 4, ?)`,
      )
      .run(`v${version}`, id, version, `2026-05-0${version}`, OLD);
  before.close();
  const db = openDb(data);
  const [jobs, files] = [new JobStore(db), new FileStore(db)];
  const key = sha256Of(STL);
  expect(jobs.get(id)).toMatchObject({ job: { setups: [{ stock: { casting: { sha256: key } } }] } });
  expect(files.size(key)).toBe(STL.length);
  expect(jobs.document(id)).not.toContain('triangles');
  expect(db.prepare('SELECT * FROM file_uses').all()).toEqual([{ version_id: 'v2', sha256: key }]);
  db.exec('DELETE FROM files');
  expect(jobs.version(id, 'v1')).toMatchObject({ job: { formatVersion: FORMAT_VERSION } });
  expect(files.size(key)).toBe(STL.length);
  db.close();
  rmSync(data, { recursive: true, force: true });
});

describe('a job with files exports as one ZIP', () => {
  const out = folder();
  afterAll(() => rmSync(out, { recursive: true, force: true }));
  const other = new TextEncoder().encode('no mesh at all');
  const codes = (file: Uint8Array) => openJob(file).findings.map((f) => f.code);
  const check = (path: string) => {
    const { status, stdout } = spawnSync(process.execPath, ['packages/cli/dist/main.cjs', 'check', path], {
      cwd: root,
      encoding: 'utf8',
    });
    return { status, stdout };
  };

  test('of job.json and files/SHA256, and comes back whole', () => {
    [STL, other].forEach(putAtHand);
    const job = naming(STL, other);
    const parts = unzipSync(packJob(job));
    expect(Object.keys(parts)).toEqual(['job.json', `files/${sha256Of(STL)}`, `files/${sha256Of(other)}`]);
    const read = openJob(packJob(job));
    expect([read.job, read.findings]).toEqual([job, []]);
    expect(read.files?.map(sha256Of)).toEqual([STL, other].map(sha256Of));
  });

  test('what is broken, damaged, too large or not of it is told', () => {
    const packed = packJob(naming(STL));
    const { 'job.json': text } = unzipSync(packed);
    const key = `files/${sha256Of(STL)}`;
    expect(codes(packed.slice(0, 200))).toEqual(['package-unreadable']);
    expect(codes(zipSync({ [key]: STL }))).toEqual(['package-without-job']);
    expect(codes(zipSync({ 'job.json': text, [key]: other }))).toEqual(['package-damaged']);
    expect(codes(zipSync({ 'job.json': text, [key]: STL, 'notes.txt': other, '../../up.json': other }))).toEqual([
      'package-extra',
      'package-extra',
    ]);
    expect(codes(zipSync({ 'job.json': new TextEncoder().encode('{"cut') }))).toEqual(['not-json']);
    // A small file that says it unfolds to more than is taken.
    const bomb = zipSync({
      'job.json': text,
      ...Object.fromEntries(['1', '2', '3', '4', '5', '6'].map((c) => [`files/${c.repeat(64)}`, other])),
    });
    const view = new DataView(bomb.buffer, bomb.byteOffset, bomb.byteLength);
    for (let i = 0; i + 46 < bomb.length; i++)
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 99_000_000, true);
    expect(codes(bomb)).toEqual(['package-large']);
    const one = zipSync({ 'job.json': text });
    new DataView(one.buffer, one.byteOffset).setUint32(
      one.length - 22 - 'job.json'.length - 46 + 24,
      100_000_001,
      true,
    );
    expect(codes(one)).toEqual(['package-large']);
  });

  test('job.json alone names what is missing; beside its files, or as the ZIP, nothing is', () => {
    putAtHand(STL);
    const job = { ...carried!, name: 'Housing' };
    const packed = packJob(job);
    writeFileSync(join(out, 'job.zip'), packed);
    writeFileSync(join(out, 'job.json'), unzipSync(packed)['job.json']);
    const alone = check(join(out, 'job.json'));
    expect(alone.status).toBe(1);
    expect(alone.stdout).toContain(`stop: The file “housing.stl” is not here (SHA-256 ${sha256Of(STL).slice(0, 12)}…)`);
    expect(check(join(out, 'job.zip'))).toEqual({ status: 0, stdout: 'Nothing to report\n' });
    mkdirSync(join(out, 'files'));
    writeFileSync(join(out, 'files', sha256Of(STL)), STL);
    expect(check(join(out, 'job.json'))).toEqual({ status: 0, stdout: 'Nothing to report\n' });
  });

  test('a job without files stays a plain file', () => {
    const plain = newJob('Plain', 'mm');
    expect(openJob(new TextEncoder().encode(JSON.stringify(plain)))).toEqual({ job: plain, findings: [] });
  });
});
