/** A server with its own data, and a browser that fails the test on any error of the page. */
import { ChildProcess, spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Job } from '@tidypath/core';
import puppeteer, { Browser, ElementHandle, Page } from 'puppeteer-core';

export const root = resolve(__dirname, '../..');
export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

/** Milliseconds somebody waits for a state before giving it up: far more than the slowest machine takes, for it is no figure. */
const PATIENCE = 120_000;
/** And between two looks. */
const LOOK = 100;

/** A name in a shop's network: no browser trusts what comes from it over plain http. */
export const PLAIN_NAME = 'shop.test';

const ARGS = [
  '--no-sandbox',
  '--disable-gpu-compositing',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  `--host-resolver-rules=MAP ${PLAIN_NAME} 127.0.0.1`,
];

function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

export class Harness {
  readonly data = mkdtempSync(join(tmpdir(), 'tidypath-e2e-'));
  private server: ChildProcess | undefined;
  private browser: Browser | undefined;
  private port = 0;
  base = '';
  /** Everything that went wrong on any page. */
  readonly problems: string[] = [];

  /** @param env more of the server’s environment */
  constructor(private readonly env: Record<string, string> = {}) {}

  async start(): Promise<void> {
    this.port = await freePort();
    this.base = `http://127.0.0.1:${this.port}`;
    await this.startServer();
    this.browser = await puppeteer.launch({
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      headless: true,
      args: ARGS,
      userDataDir: join(this.data, 'chromium'),
    });
  }

  /** Starts the server, again where it was killed: on the same port, with the same data. */
  async startServer(): Promise<void> {
    this.server = spawn(process.execPath, ['apps/server/dist/main.cjs'], {
      cwd: root,
      env: { ...process.env, PORT: String(this.port), TIDYPATH_DATA: join(this.data, 'db'), ...this.env },
      stdio: 'ignore',
      detached: true,
    });
    await until('the server', () => fetch(`http://127.0.0.1:${this.port}/api/health`).then((r) => r.ok));
  }

  /** What went wrong but for requests that met nobody, while the server was killed. */
  get faults(): string[] {
    return this.problems.filter(
      (p) => !/Failed to load resource|ERR_CONNECTION_REFUSED|when fetching the script/.test(p),
    );
  }

  killServer(): void {
    if (this.server?.pid) process.kill(-this.server.pid, 'SIGKILL');
    this.server = undefined;
  }

  async stop(): Promise<void> {
    await this.browser?.close();
    this.killServer();
    rmSync(this.data, { recursive: true, force: true });
  }

  /** A page of another device: nothing is shared with the others. */
  async device(viewport = PHONE): Promise<Page> {
    return this.prepared(await (await this.browser!.createBrowserContext()).newPage(), viewport, false);
  }

  /** @param isKept whether the copy of the app on the device answers; else each request meets the server, or whoever stands in for it */
  async page(viewport = PHONE, isKept = false): Promise<Page> {
    return this.prepared(await this.browser!.newPage(), viewport, isKept);
  }

  private async prepared(page: Page, viewport: typeof PHONE, isKept: boolean): Promise<Page> {
    await page.setViewport(viewport);
    await page.setBypassServiceWorker(!isKept);
    page.setDefaultTimeout(PATIENCE);
    open.add(page);
    for (const end of ['close', 'error'] as const) page.once(end, () => open.delete(page));
    page.on('pageerror', (error) => this.problems.push(`pageerror: ${(error as Error).message}`));
    page.on('console', (m) => {
      if (m.type() === 'error' && !/status of 4\d\d/.test(m.text())) this.problems.push(`console: ${m.text()}`);
    });
    return page;
  }

  /** Id of a job by its name. */
  async jobId(name: string): Promise<string> {
    const jobs = (await (await fetch(`${this.base}/api/jobs`)).json()) as { id: string; name: string }[];
    return jobs.find((j) => j.name === name)!.id;
  }

  /** Leaves a job its first two operations, for tests of what asks nothing of paths: they are planned and proved at once. */
  async shortened(name: string): Promise<string> {
    const id = await this.jobId(name);
    const at = `${this.base}/api/jobs/${id}`;
    const { version, job } = (await (await fetch(at)).json()) as { version: number; job: Job };
    for (const setup of job.setups) setup.operations.splice(2);
    const headers = { 'content-type': 'application/json' };
    const { ok } = await fetch(at, { method: 'PUT', headers, body: JSON.stringify({ version, job }) });
    if (!ok) throw new Error(`${name} was not saved`);
    return id;
  }

  /** Waits until the server has a plate of this thickness: what a page says of its saves may be read too late or too early. */
  async hasThickness(id: string, mm: number): Promise<void> {
    await until('the save', async () => {
      const { job } = (await (await fetch(`${this.base}/api/jobs/${id}`)).json()) as { job: Job };
      return Math.abs(job.part.thickness - mm) < 1e-6;
    });
  }

  async open(page: Page, path: string): Promise<void> {
    await page.goto(this.base + path, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('[role=main]');
  }
}

export const byTest = (id: string) => `[data-testid="${id}"]`;
export const byLabel = (label: string) => `[aria-label="${label}"]`;

/** What is to be tapped, looked for anew each time: a page that is still filling replaces what it showed. */
type Find = () => Promise<ElementHandle<Element> | null>;

/** Where an element is, as text; null while it answers nobody, has no place or something else, like a sheet that still closes, lies over its middle: then it is brought to where it can be seen. */
const placeOf = (element: ElementHandle<Element>): Promise<string | null> =>
  element.evaluate((e) => {
    const { x, y, width, height } = e.getBoundingClientRect();
    const top = document.elementFromPoint(x + width / 2, y + height / 2);
    if (e.closest('[disabled], [aria-disabled=true]')) return null;
    if (top && (e.contains(top) || top.contains(e))) return [x, y, width, height].join();
    e.scrollIntoView({ block: 'center' });
    return null;
  });

/**
 * Clicks once what was found stands still and lies open: a page that is still settling would move it from under the pointer, or catch
 * the click. A tap that meets nothing is made again, as anybody would; one that meets something else fails here, not later.
 */
async function clickStill(what: string, find: Find): Promise<void> {
  for (let i = 0; i < TAPS; i++) if (await clickOnce(what, find)) return;
  throw new Missed(`${TAPS} taps of ${what} met nothing`);
}

/** Whether the tap met it. */
async function clickOnce(what: string, find: Find): Promise<boolean> {
  let before: string | null = null;
  const element = await until(`${what} to lie open and still`, async () => {
    const found = await find();
    const now = found && (await placeOf(found));
    const isStill = now !== null && now === before;
    before = now;
    return isStill && found;
  });
  await element.evaluate((e, pressed) => {
    window.addEventListener(
      'click',
      ({ target }) => {
        const on = target as Element;
        const met = on.closest(pressed);
        const isIt = met === e.closest(pressed) || e.contains(on);
        (e as Tapped).tapped = isIt ? 'it' : !met || met.contains(e) ? 'nothing' : met.outerHTML.slice(0, 200);
      },
      { capture: true, once: true },
    );
  }, PRESSED);
  const isGone = await element.click().then(
    () => false,
    (error: Error) => {
      // Replaced between the look and the tap: nothing was met.
      if (/detached/.test(error.message)) return true;
      throw error;
    },
  );
  if (isGone) return false;
  // What is gone was met.
  const tapped = await element.evaluate((e) => (e as Tapped).tapped ?? 'it').catch(() => 'it');
  if (tapped !== 'it' && tapped !== 'nothing') throw new Missed(`The tap landed on ${tapped}`);
  return tapped === 'it';
}

/** Taps that may meet nothing before it is given up. */
const TAPS = 5;
/** What a finger means when it meets something within. */
const PRESSED = 'button, a, input, textarea, label, [role]';
type Tapped = Element & { tapped?: string };
/** A tap that met something else: nothing to try again in silence. */
class Missed extends Error {}

/** Taps the first that fits and can be seen. */
export const tap = (page: Page, selector: string) =>
  clickStill(
    selector,
    async () =>
      (
        await page.evaluateHandle(
          (wanted) => [...document.querySelectorAll(wanted)].find((e) => e.checkVisibility()) ?? null,
          selector,
        )
      ).asElement() as ElementHandle<Element> | null,
  );

/** Taps what reads exactly so, in the open sheet where there is one. */
export const tapText = (page: Page, text: string) =>
  clickStill(
    `“${text}”`,
    async () =>
      (
        await page.evaluateHandle((wanted) => {
          const scope = document.querySelector('[data-testid=sheet]') ?? document.body;
          const all = [
            ...scope.querySelectorAll('button, [role=button], [role=radio], [role=menuitem], [role=checkbox]'),
          ];
          return all.find((e) => e.textContent?.replace(/\p{Co}/gu, '').trim() === wanted) ?? null;
        }, text)
      ).asElement() as ElementHandle<Element> | null,
  );

/** Types over the value of the field that has the focus, once all of it is selected, and waits until it stands there. */
export async function typeOver(page: Page, text: string): Promise<void> {
  const isWhole = () => {
    const field = document.activeElement;
    if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return false;
    return field.selectionStart === 0 && field.selectionEnd === field.value.length;
  };
  await page.waitForFunction(isWhole);
  await page.keyboard.type(text);
  const stands = (wanted: string) => (document.activeElement as HTMLInputElement | null)?.value === wanted;
  await page.waitForFunction(stands, {}, text);
}

/** Taps a field and types over what stands there. */
export async function fill(page: Page, selector: string, text: string): Promise<void> {
  await tap(page, selector);
  await page.waitForFunction((wanted) => document.activeElement?.matches(wanted), {}, selector);
  // A field selects what stands in it a turn after it was tapped: not while it is typed.
  await page.evaluate(() => new Promise((done) => setTimeout(done)));
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await typeOver(page, text);
}

export const textOf = async (page: Page, selector: string): Promise<string> => {
  const found = (await page.waitForSelector(selector))!;
  return found.evaluate((e) => e.textContent ?? '');
};

/** @returns what the check found, once it is more than nothing */
export async function until<T>(
  what: string,
  check: () => Promise<T | null | undefined | false>,
  timeout = PATIENCE,
): Promise<T> {
  const end = Date.now() + timeout;
  while (Date.now() < end) {
    const found = await check().catch((error) => {
      if (error instanceof Missed) throw error;
      return null;
    });
    if (found) return found;
    await new Promise((r) => setTimeout(r, LOOK));
  }
  const seen = await Promise.all([...open].map((page) => seenOn(page).catch(() => 'a page that does not answer')));
  throw new Error([`waited in vain: ${what}`, ...seen].join('\n\n'));
}

/** Pages that are open now. */
const open = new Set<Page>();
/** What somebody would see there, for whoever reads why it was waited in vain. */
const seenOn = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const field = document.activeElement as HTMLInputElement | null;
    const typing = field?.value === undefined ? '' : `typing “${field.value}” in ${field.getAttribute('aria-label')}\n`;
    return `${location.pathname}\n${typing}${document.body.innerText.replace(/\s*\n\s*/g, ' | ').slice(0, 1500)}`;
  });

export const bodyHas = (page: Page, text: RegExp): Promise<boolean> =>
  page.evaluate(() => document.body.innerText).then((all) => text.test(all));

/** Waits until the page has drawn what it was told so far. */
export const nextFrame = (page: Page) => page.evaluate(() => new Promise((done) => requestAnimationFrame(done)));

/** Opens a program from elsewhere on the Prove page. */
export async function openProgram(page: Page, file: string): Promise<void> {
  const chooser = page.waitForFileChooser();
  await tap(page, byTest('open-program'));
  await (await chooser).accept([file]);
}

/** A program of so many short cuts. */
export function shortCuts(count: number): string {
  const lines = ['G21 G90 G17 G54', 'T77 M6 (D6 END MILL)', 'S6000 M3', 'G0 X0 Y0', 'Z30', 'G1 Z12 F900'];
  for (let i = 0; i < count; i++) {
    const row = Math.floor(i / 2000);
    const k = row % 2 ? 2000 - (i % 2000) : i % 2000;
    lines.push(`X${(k * 0.03).toFixed(3)} Y${(row * 0.12).toFixed(3)}`);
  }
  return lines.join('\n') + '\nG0 Z30\nM30\n';
}

/** Goes to a stage of the job. */
export const stage = (page: Page, name: string) => tap(page, byTest(`stage-${name}`));

/** Waits until the job is proved as it stands. */
export const proved = (page: Page) =>
  until('the proof', async () => /✓/.test(await textOf(page, byTest('stage-prove'))), 120_000);

/** The operations of the route, as they are numbered and named. */
export const routeNames = (page: Page) =>
  page.$$eval('[data-testid^=operation-] [aria-expanded][aria-label]', (all) =>
    all.map((e) => e.getAttribute('aria-label')!).filter((l) => /^\d/.test(l)),
  );

/** Waits until the picture shows all it was told. */
export const drawn = (page: Page) =>
  until('the picture', () => page.$eval(byTest('scene'), (e) => e.getAttribute('aria-busy') === 'false'));

/** Answers the question for a file that something asks. */
export async function choose(page: Page, opener: () => Promise<void>, path: string): Promise<void> {
  const [chooser] = await Promise.all([page.waitForFileChooser(), opener()]);
  await chooser.accept([path]);
}

/** Where a page's downloads go from now on. */
export async function downloadsTo(page: Page, folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  const client = await page.createCDPSession();
  await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
}

/** A downloaded file, once there is something in it. */
export async function downloaded(file: string): Promise<Buffer> {
  await until(file, async () => existsSync(file) && readFileSync(file).length > 0);
  return readFileSync(file);
}
