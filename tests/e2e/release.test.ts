/** From a learner who is refused to an approved program, and what makes it void; what a setup sheet says to a phone. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import jsQR from 'jsqr';
import type { Page } from 'puppeteer-core';
import type { Job, JobRow, ReleaseRow } from '@tidypath/core';
import { Harness, WIDE, bodyHas, byLabel, byTest, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
let id = '';
let [learner, teacher]: Page[] = [];
beforeAll(async () => {
  await harness.start();
  id = await harness.jobId('Sounding-line bracket');
  learner = await harness.device();
  teacher = await harness.device(WIDE);
});
afterAll(() => harness.stop());

/** Asks as a page would, with what its device shows. */
const ask = (page: Page, method: string, path: string, body?: unknown) =>
  page.evaluate(
    async (how, at, sent) => {
      const answer = await fetch(`/api${at}`, {
        method: how,
        headers: sent ? { 'content-type': 'application/json' } : {},
        body: sent,
      });
      const text = await answer.text();
      return { status: answer.status, text };
    },
    method,
    path,
    body === undefined ? undefined : JSON.stringify(body),
  );

async function person(page: Page, name: string, roles: string[]): Promise<void> {
  const { text } = await ask(page, 'POST', '/people', { name, roles });
  await ask(page, 'POST', `/people/${(JSON.parse(text) as { id: string }).id}/here`, {});
}

const newest = async (): Promise<ReleaseRow> =>
  (JSON.parse((await ask(teacher, 'GET', `/releases?job=${id}`)).text) as { releases: ReleaseRow[] }).releases[0];

/** Accepts whatever wants it, as it comes. */
async function acceptAll(page: Page): Promise<void> {
  await until('what to accept', async () => (await page.$(byTest('preflight'))) !== null, 180_000);
  const open = `${byTest('preflight')} [role=checkbox]:not([aria-checked=true])`;
  while (await page.$(open)) await tap(page, open);
}

const canTake = (page: Page) =>
  until('it to be handed out', async () => (await page.$(byTest('take-release'))) !== null);

test('an approver has programs approved first', async () => {
  await harness.open(learner, '/');
  await person(learner, 'Lio', ['learner']);
  await harness.open(teacher, '/shop');
  await person(teacher, 'Ines', ['approver']);
  await harness.open(teacher, '/shop');
  await tap(teacher, byTest('needs-approval'));
  await until('it to be so', async () => /"needsApproval":true/.test((await ask(teacher, 'GET', '/handing-out')).text));
});

test('a learner’s program is proved and kept by the server, and handed out to nobody yet', async () => {
  await harness.open(learner, `/job/${id}/release`);
  await acceptAll(learner);
  expect(await learner.$(byTest('download'))).toBeNull();
  await tap(learner, byTest('release'));
  await until('the release', async () => (await learner.$(byTest('release-1'))) !== null, 300_000);
  expect(await textOf(learner, byTest('release-1'))).toContain('Nobody has approved it yet');
  expect(await learner.$(byTest('take-release'))).toBeNull();
  const { status, text } = await ask(learner, 'GET', `/releases/${(await newest()).id}/programs`);
  expect([status, text]).toEqual([403, expect.stringContaining('nobody has approved it yet')]);
}, 600_000);

test('the approver finds it in the work list, looks at it and approves it', async () => {
  await harness.open(teacher, '/releases');
  await tap(teacher, byTest(`work-${(await newest()).id}`));
  await tap(teacher, byLabel('how it is held'));
  await tap(teacher, byTest('approve'));
  await until('it to stand', async () => /Approved by Ines/.test(await textOf(teacher, byTest('release-standing'))));
});

test('the learner sees it without asking, and is handed what the server proved, byte for byte', async () => {
  await canTake(learner);
  const { id: release, files, root } = await newest();
  const { text } = await ask(learner, 'GET', `/releases/${release}/programs`);
  const downloads = join(harness.data, 'downloads');
  const client = await learner.createCDPSession();
  await client.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
    browserContextId: learner.browserContext().id,
  });
  await tap(learner, byTest('take-release'));
  const file = join(downloads, files[0]);
  await until('the download', async () => {
    try {
      return readFileSync(file, 'utf8') === text;
    } catch {
      return false;
    }
  });
  expect(text.toUpperCase()).toContain(`RELEASE ${root.slice(0, 8).toUpperCase()}`);
});

test('the checklist is ticked on the phone, with who did it', async () => {
  await tap(learner, byTest('open-1'));
  const guard = '[role=checkbox][aria-label^="Guard shut"]';
  await tap(learner, guard);
  await until('it to be kept', () => bodyHas(learner, /✓ Lio, /));
  await tap(learner, '[aria-label^="Not so: Guard shut"]');
  await until('what to do', () => bodyHas(learner, /▲ Not so: Do not start/));
});

test('another feed makes the approval void: it is handed out no more, and the page says why', async () => {
  const row = (await (await fetch(`${harness.base}/api/jobs/${id}`)).json()) as JobRow;
  const slower = (job: Job): Job => ({
    ...job,
    setups: job.setups.map((s) => ({
      ...s,
      operations: s.operations.map((o, i) =>
        i === 0 ? { ...o, speeds: { ...o.speeds, feed: o.speeds.feed - 10 } } : o,
      ),
    })),
  });
  await ask(teacher, 'PUT', `/jobs/${id}`, { version: row.version, job: slower(row.job) });
  const { id: release } = await newest();
  await harness.open(learner, `/release/${release}`);
  await until('it to be void', async () =>
    /Its approval is void/.test(await textOf(learner, byTest('release-standing'))),
  );
  expect(await textOf(learner, byTest('release-standing'))).toContain('the work itself changed since');
  expect((await ask(learner, 'GET', `/releases/${release}/programs`)).status).toBe(403);
  await ask(teacher, 'PUT', `/jobs/${id}`, { version: row.version + 1, job: row.job });
  await until('it to stand again', async () =>
    /Approved by Ines/.test(await textOf(learner, byTest('release-standing'))),
  );
});

/** The first page of a PDF as grey levels, drawn by the browser. */
async function drawn(page: Page, pdf: string, scale: number) {
  for (const file of ['pdf.min.js', 'pdf.worker.min.js'])
    await page.addScriptTag({ content: readFileSync(require.resolve(`pdfjs-dist/build/${file}`), 'utf8') });
  return page.evaluate(
    async (data, size) => {
      type Reader = typeof import('pdfjs-dist');
      const { pdfjsLib } = window as unknown as { pdfjsLib: Reader };
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
      const sheet = await (await pdfjsLib.getDocument({ data: bytes, isEvalSupported: false }).promise).getPage(1);
      const viewport = sheet.getViewport({ scale: size });
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [viewport.width, viewport.height];
      const context = canvas.getContext('2d')!;
      await sheet.render({ canvasContext: context, viewport }).promise;
      const { width, height, data: all } = context.getImageData(0, 0, canvas.width, canvas.height);
      return { width, height, grey: Array.from({ length: width * height }, (_, i) => all[4 * i]) };
    },
    pdf,
    scale,
  );
}

test('the code on the paper leads a phone to the release', async () => {
  const address = 'http://192.168.1.20:4380';
  await ask(teacher, 'PUT', '/handing-out', { needsApproval: true, address });
  const { id: release, root } = await newest();
  const paper = await fetch(`${harness.base}/api/releases/${release}/papers/sheet-A4.pdf`);
  const pdf = Buffer.from(await paper.arrayBuffer()).toString('base64');
  const blank = await harness.page(WIDE);
  await blank.goto('about:blank');
  const { width, height, grey } = await drawn(blank, pdf, 3);
  const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
  grey.forEach((v, i) => pixels.fill(v, 4 * i, 4 * i + 3));
  expect(jsQR(pixels, width, height)?.data).toBe(`${address}/r/${root.slice(0, 8).toUpperCase()}`);
  await harness.open(blank, `/r/${root.slice(0, 8).toUpperCase()}`);
  await until('the release', async () => (await blank.$(byTest('checklist'))) !== null);
  await blank.close();
  expect(harness.problems).toEqual([]);
});

test('who may not approve sees how it stands, and no way round it', async () => {
  await harness.open(learner, `/job/${id}/prove`);
  await harness.open(learner, `/job/${id}/release`);
  await canTake(learner);
  expect(await learner.$(byTest('download'))).toBeNull();
  expect(await learner.$(byLabel('This job needs approval'))).toBeNull();
  await tapText(learner, 'Checklist and approval');
  await until('the page', async () => (await learner.$(byTest('approval'))) !== null);
  expect(await learner.$(byTest('approve'))).toBeNull();
});
