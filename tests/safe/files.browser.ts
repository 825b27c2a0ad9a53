import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Page } from 'puppeteer-core';
import { unzipSync } from 'fflate';
import {
  Harness,
  byLabel,
  byTest,
  choose,
  downloadsTo,
  proved,
  root,
  tap,
  tapText,
  textOf,
  until,
} from '../e2e/harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

const job = JSON.parse(readFileSync(join(root, 'packages/core/testing/formats/4-casting.json'), 'utf8')) as {
  setups: { stock: object }[];
};
const [setup] = job.setups;
const stock = { ...setup.stock, casting: undefined };

/** A block a little larger than the part, as a text file: two triangles a side. */
function block([x, y, z]: [number, number, number]): string {
  const corner = (i: string) => `vertex ${+i & 1 ? x : 0} ${+i & 2 ? y : 0} ${+i & 4 ? z : 0}`;
  const facets = ['023', '031', '457', '476', '015', '054', '137', '175', '326', '367', '204', '246'];
  const text = facets.map((f) => `facet normal 0 0 0\nouter loop\n${[...f].map(corner).join('\n')}\nendloop\nendfacet`);
  return `solid block\n${text.join('\n')}\nendsolid block\n`;
}
const STL = block([90, 60, 18]);
const key = createHash('sha256').update(STL).digest('hex');

const post = async (name: string, setups: object[]) => {
  const answer = await fetch(`${harness.base}/api/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ job: { ...job, name, setups } }),
  });
  return ((await answer.json()) as { id: string }).id;
};
const isKept = async () => (await fetch(`${harness.base}/api/files/${key}`, { method: 'HEAD' })).ok;
const state = (page: Page) => textOf(page, byTest('save-state'));
const onDisk = (name: string, data: string | Uint8Array) => {
  const path = join(harness.data, name);
  writeFileSync(path, data);
  return path;
};
const told = () => harness.problems.filter((p) => !/Failed to load resource|ERR_FAILED/.test(p));

test('a casting opened while the server does not answer outlives the tab, is sent with its job, and proves on another device', async () => {
  const id = await post('Cast housing', [{ ...setup, stock }]);
  const page = await harness.page();
  await page.setRequestInterception(true);
  page.on('request', (r) => void (r.url().includes('/api/files/') ? r.abort() : r.continue()));
  await harness.open(page, `/job/${id}/hold`);
  await choose(page, () => tap(page, byTest('open-casting')), onDisk('housing.stl', STL));
  await until('it is told', async () => /not sent/.test(await state(page)));
  expect(await isKept()).toBe(false);
  await page.close();

  const again = await harness.page();
  await harness.open(again, `/job/${id}/hold`);
  await until('it is sent', isKept);
  await until('the job is saved', async () => (await state(again)) === 'saved');
  await again.close();

  const other = await harness.page();
  await harness.open(other, `/job/${id}/prove`);
  await proved(other);
  expect(told()).toEqual([]);
  await other.close();
});

test('it is handed out as a ZIP, and taken in from one; a plain job file names what is missing', async () => {
  const page = await harness.page();
  const folder = join(harness.data, 'exports');
  await downloadsTo(page, folder);
  await harness.open(page, '/');
  await tap(page, byLabel('Export Cast housing'));
  const done = () => existsSync(folder) && readdirSync(folder).find((f) => f.endsWith('.zip'));
  await until('the ZIP', async () => !!done());
  const packed = new Uint8Array(readFileSync(join(folder, done() as string)));
  expect(Object.keys(unzipSync(packed))).toEqual(['job.json', `files/${key}`]);

  const away = { name: 'lost.stl', sha256: '7'.repeat(64) };
  const alone = { ...job, formatVersion: 5, name: 'Alone', setups: [{ ...setup, stock: { ...stock, casting: away } }] };
  await choose(page, () => tapText(page, 'Import'), onDisk('alone.json', JSON.stringify(alone)));
  expect(await textOf(page, byTest('finding-file-missing'))).toMatch(
    /“lost.stl” is not here \(SHA-256 777777777777…\)/,
  );
  expect(await page.evaluate(() => document.body.innerText)).toMatch(/Taken in, with this to know/);
  await page.waitForSelector(byTest('job-Alone'));
  await choose(page, () => tapText(page, 'Import'), onDisk('housing.zip', packed));
  await until('nothing is missing', async () => !(await page.$(byTest('finding-file-missing'))));

  await harness.open(page, `/job/${await harness.jobId('Alone')}/hold`);
  await page.waitForSelector(byTest('finding-file-missing'));
  await choose(page, () => tap(page, byTest('open-casting')), onDisk('housing.stl', STL));
  await until('it is here', async () => !(await page.$(byTest('finding-file-missing'))));
  await proved(page);
  expect(told()).toEqual([]);
  await page.close();
});

test('what the server did not take is not told as taken in', async () => {
  const page = await harness.page();
  await page.setRequestInterception(true);
  const body = JSON.stringify({ error: 'the disk of the server is full; nothing was saved' });
  page.on('request', (r) => {
    const isNew = r.method() === 'PUT' && /\/api\/jobs\/[0-9a-f]{32}$/.test(r.url());
    void (isNew ? r.respond({ status: 507, contentType: 'application/json', body }) : r.continue());
  });
  await harness.open(page, '/');
  const away = { name: 'lost.stl', sha256: '7'.repeat(64) };
  const refused = {
    ...job,
    formatVersion: 5,
    name: 'Refused',
    setups: [{ ...setup, stock: { ...stock, casting: away } }],
  };
  await choose(page, () => tapText(page, 'Import'), onDisk('refused.json', JSON.stringify(refused)));
  const words = () => page.evaluate(() => document.body.innerText);
  await until('the reason', async () => /the disk of the server is full/.test(await words()));
  expect(await words()).not.toMatch(/Taken in/);
  await page.close();
});
