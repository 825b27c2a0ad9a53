/** The log from the phone at the machine: by taps, with a photo, while the server is away; what it teaches is taken over and taken back. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import type { Page } from 'puppeteer-core';
import { KeptEntry, Lesson, photoFault, randomFrom } from '@tidypath/core';
import { Harness, WIDE, bodyHas, byLabel, byTest, choose, fill, tap, tapText, textOf, until } from './harness';

const harness = new Harness();
const folder = mkdtempSync(join(tmpdir(), 'tidypath-photo-'));
let phone: Page;
let release = '';
beforeAll(async () => {
  await harness.start();
  phone = await harness.device();
  [{ id: release }] = await get<{ id: string }[]>('/releases');
});
afterAll(async () => {
  await harness.stop();
  rmSync(folder, { recursive: true, force: true });
});

const get = async <T>(path: string) => (await (await fetch(`${harness.base}/api${path}`)).json()) as T;
const log = () => textOf(phone, byTest('log'));
const entries = () => get<KeptEntry[]>(`/log/of/${release}`);

/** A picture nobody compresses well, larger than the log keeps any. */
function noisyPng(wide: number, high: number): Buffer {
  const random = randomFrom(1);
  const rows = Buffer.alloc(high * (wide * 3 + 1));
  for (let i = 0; i < rows.length; i++) rows[i] = i % (wide * 3 + 1) === 0 ? 0 : Math.floor(256 * random());
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(wide, 0);
  head.writeUInt32BE(high, 4);
  head.set([8, 2], 8);
  const parts = [chunk('IHDR', head), chunk('IDAT', deflateSync(rows, { level: 1 })), chunk('IEND', Buffer.alloc(0))];
  return Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), ...parts]);
}

test('a part is logged by taps with a photo while the server is away; it arrives once it is back', async () => {
  const photo = join(folder, 'part.png');
  writeFileSync(photo, noisyPng(2400, 1200));
  await harness.open(phone, `/release/${release}`);
  await tapText(phone, 'What was seen, heard, changed');
  await tap(phone, byTest('all-well'));
  await tapText(phone, 'What was seen of “Clear float pocket”');
  await tapText(phone, 'worn');
  await choose(phone, () => tapText(phone, 'Add a photo'), photo);
  await phone.waitForSelector(byLabel('Photo 1'));
  harness.killServer();
  await tap(phone, byTest('log-it'));
  await until('it waits', async () => /waits here to be sent/.test(await log()));
  await harness.startServer();
  await until('it is sent', async () => !/waits here to be sent/.test(await log()));
  const [last] = (await entries()).slice(-1);
  expect(last).toMatchObject({ kind: 'production', parts: 1, scrapped: 0 });
  expect(last.seen!.filter((s) => s.sound === 'quiet' && s.finish === 'clean').length).toBeGreaterThan(5);
  expect(last.seen!.filter((s) => s.edge).map((s) => s.edge)).toEqual(['worn']);
  const kept = new Uint8Array(await (await fetch(`${harness.base}/api/log/photos/${last.photos![0]}`)).arrayBuffer());
  expect(photoFault(kept)).toBeUndefined();
  const shown = () =>
    phone.$eval(`${byTest('log')} ${byLabel('Photo 1')} img`, (e) => (e as HTMLImageElement).naturalWidth);
  const wide = await until('it is seen', shown);
  expect(wide).toBeLessThanOrEqual(1600);
});

test('a size that runs off is measured again, and corrected at the register that does it', async () => {
  const sizes = () => textOf(phone, byTest('sizes'));
  const measure = async (mm: string, how: string) => {
    await fill(phone, `${byTest('sizes')} input[aria-label^="Float pocket, depth"]`, mm);
    await phone.keyboard.press('Tab');
    await tapText(phone, how);
  };
  await measure('7.019', 'Measured');
  await until('it asks', async () => /Measure the same part again/.test(await sizes()));
  await fill(phone, `${byTest('sizes')} ${byLabel('Part')}`, '14');
  await phone.keyboard.press('Tab');
  await measure('7.0192', 'Measured again');
  await until('it says', async () => /to the wear of length register 4 .*measured twice/.test(await sizes()));
  await tapText(phone, 'It is entered');
  await measure('7.001', 'Measured again');
  await until('it begins anew', async () => /Leave the offset/.test(await sizes()));
});

test('the log is searched; what it teaches of edges is taken over, said at the tool, and taken back', async () => {
  const desk = await harness.device(WIDE);
  await harness.open(desk, '/log');
  await fill(desk, byLabel('Search the log'), 'third hole');
  await until('it is found', async () => /^1 entry$/.test(await textOf(desk, byTest('log-count'))));
  expect(await bodyHas(desk, /Tap broke in the third hole/)).toBe(true);
  const life = async () => (await get<Lesson[]>('/log/lessons')).find((l) => l.what === 'life')!;
  const { proposed, item, now } = await life();
  await tap(desk, byTest('life-take'));
  await until('it is taken over', async () => (await life()).isSo);
  expect((await life()).now).toBe(proposed);
  await harness.open(phone, `/tools/${item}`);
  expect(await textOf(phone, byTest('lasts'))).toMatch(/from the log: 4 edges/);
  await tap(phone, byTest('life-undo'));
  await until('it is taken back', async () => (await life()).now === now);
  expect(harness.faults).toEqual([]);
});
