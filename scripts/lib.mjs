/** What the demo and the tests share: install what is missing, build the web app, say what is going on. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const started = Date.now();

/** Says what is being done and how long it has taken so far. */
export function say(text) {
  process.stdout.write(`[${String(Math.round((Date.now() - started) / 1000)).padStart(4)} s] ${text}\n`);
}

/** Runs a command; resolves with its exit code, its output shown only when asked for or when it fails. */
export function run(command, args, { cwd = root, env = {}, show = false } = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: show ? 'inherit' : ['ignore', 'pipe', 'pipe'],
    });
    const output = [];
    child.stdout?.on('data', (d) => output.push(d));
    child.stderr?.on('data', (d) => output.push(d));
    child.on('error', (error) => done({ code: 1, output: String(error) }));
    child.on('close', (code) => done({ code: code ?? 1, output: Buffer.concat(output).toString() }));
  });
}

async function must(what, command, args, options) {
  say(`${what} …`);
  const { code, output } = await run(command, args, options);
  if (code !== 0) {
    process.stderr.write(output);
    say(`${what}: failed`);
    process.exit(1);
  }
}

function hashOfFiles(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (name !== 'node_modules' && name !== 'dist' && !name.startsWith('.')) visit(join(path, name));
    } else if (!/\.test\.tsx?$/.test(path)) hash.update(path.slice(root.length)).update(readFileSync(path));
  };
  paths.forEach((p) => visit(join(root, p)));
  return hash.digest('hex');
}

const stampIs = (file, value) => existsSync(file) && readFileSync(file, 'utf8') === value;

function stamp(file, value) {
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, value);
}

/** Native modules that must be compiled here; everything else installs without scripts. */
const NATIVE = 'better-sqlite3';

/** Installs packages, unless they are the current ones. */
export async function install() {
  const installed = join(root, 'node_modules/.tidypath-installed');
  const lock = hashOfFiles(['package-lock.json']);
  if (stampIs(installed, lock)) return;
  await must('Installing packages (a minute or two)', 'npm', [
    'ci',
    '--ignore-scripts',
    '--no-audit',
    '--no-fund',
    '--loglevel=error',
  ]);
  stamp(installed, lock);
}

/** Installs packages, then compiles the native module and exports the web app side by side; skips what is current. */
export async function prepare() {
  await install();
  const isCompiled = existsSync(join(root, 'node_modules', NATIVE, 'build/Release/better_sqlite3.node'));
  await Promise.all([
    isCompiled ||
      must('Compiling the database module (about three minutes)', 'npm', [
        'rebuild',
        NATIVE,
        '--foreground-scripts',
        '--loglevel=error',
      ]),
    build(),
  ]);
}

/** What results are made by: they are kept under it, and made anew once it is another. */
const COMPUTES = ['packages/core/src', 'package-lock.json'];

const DIST = join(root, 'apps/web/dist');

/** Writes into the page what its results are made by, and how it is installed. */
function finishPage(source) {
  const page = join(DIST, 'index.html');
  const added = [
    `<meta name="source" content="${source}">`,
    '<link rel="manifest" href="/app.webmanifest">',
    '<link rel="apple-touch-icon" href="/icon-192.png">',
  ];
  writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `${added.join('\n')}\n</head>`));
}

/** Every file of the export by its path, with the SHA-256 of what it holds. */
function exported(folder = DIST, path = '') {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const [at, name] = [join(folder, entry.name), `${path}/${entry.name}`];
    if (entry.isDirectory()) return exported(at, name);
    return entry.name.startsWith('.') ? [] : [[name, createHash('sha256').update(readFileSync(at)).digest('hex')]];
  });
}

/** Writes the service worker: plain, with the list of all it keeps. */
function writeServiceWorker() {
  const files = exported().filter(([path]) => path !== '/sw.js' && path !== '/metadata.json');
  const list = JSON.stringify(Object.fromEntries(files), null, 1);
  const version = createHash('sha256').update(list).digest('hex');
  const worker = readFileSync(join(root, 'apps/web/offline/service-worker.js'), 'utf8');
  writeFileSync(join(DIST, 'sw.js'), `const FILES = ${list};\nconst VERSION = '${version}';\n${worker}`);
}

/** Bundles entries for Node when their sources changed since the last time: as one file each they start at once. */
async function bundled(folder, entryPoints, sources, define = {}) {
  const outdir = join(root, folder);
  const file = join(outdir, '.stamp');
  const hash = hashOfFiles([...sources, 'packages', 'package-lock.json', 'scripts/lib.mjs']);
  if (stampIs(file, hash)) return;
  // Loaded when asked for: what is not installed yet cannot be.
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    entryPoints,
    outdir,
    outExtension: { '.js': '.cjs' },
    bundle: true,
    write: false,
    platform: 'node',
    target: 'node20',
    // What is compiled, and what finds its own files by where it lies.
    external: ['better-sqlite3', 'piscina', 'tsx', 'occt-import-js'],
    define,
    logLevel: 'error',
  });
  // Whole or not at all: others may start it meanwhile.
  for (const { path, contents } of outputFiles) {
    stamp(`${path}.${process.pid}`, contents);
    renameSync(`${path}.${process.pid}`, path);
  }
  stamp(file, hash);
}

/** Bundles the server and its threads. */
export function bundleServer() {
  const from = (path) => join(root, 'apps/server/src', path);
  const entries = {
    main: from('main.ts'),
    compute: from('compute/worker.ts'),
    machine: from('runs/worker.ts'),
    read: from('reading/read.ts'),
  };
  const source = JSON.stringify(hashOfFiles(COMPUTES));
  return bundled('apps/server/dist', entries, ['apps/server/src'], { SOURCE: source });
}

/** Bundles the command line. */
export const bundleCli = () => bundled('packages/cli/dist', { main: join(root, 'packages/cli/src/main.ts') }, []);

/** Puts the reader of STEP files beside the app: files of their own that can be replaced, with their licences. */
function placeStepReader() {
  const from = join(root, 'node_modules/occt-import-js/dist');
  const to = join(root, 'apps/web/public/step');
  mkdirSync(to, { recursive: true });
  copyFileSync(join(root, 'apps/web/step/reader.js'), join(to, 'reader.js'));
  for (const name of readdirSync(from).filter((n) => !n.includes('worker')))
    copyFileSync(join(from, name), join(to, name));
}

/** Puts what sculpts plates beside the app, with its kernel and its licence. */
function placeSculptor() {
  const from = join(root, 'node_modules/manifold-3d');
  const to = join(root, 'apps/web/public/sculpt');
  mkdirSync(to, { recursive: true });
  copyFileSync(join(root, 'apps/web/sculpt/sculptor.js'), join(to, 'sculptor.js'));
  for (const name of ['manifold.js', 'manifold.wasm', 'LICENSE']) copyFileSync(join(from, name), join(to, name));
}

const WORKERS = ['compute/job', 'compute/model', 'scene/scene'];

/**
 * Bundles the page's workers anew, under the names the export gave them: it looks each function of another module up in a table whenever
 * it is called, and planning calls a great many. As one scope they plan and prove in two thirds of the time, from half the bytes.
 */
async function bundleWorkers() {
  const { build } = await import('esbuild');
  const folder = join(DIST, '_expo/static/js/web');
  const exportedAs = (name) => readdirSync(folder).find((file) => file.startsWith(`${name}-`));
  await Promise.all(
    WORKERS.map((path) =>
      build({
        entryPoints: [join(root, `apps/web/src/${path}.worker.ts`)],
        outfile: join(folder, exportedAs(path.split('/')[1])),
        allowOverwrite: true,
        bundle: true,
        minify: true,
        platform: 'browser',
        target: 'es2022',
        tsconfig: join(root, 'tsconfig.json'),
        logLevel: 'error',
      }),
    ),
  );
}

/** Exports the web app and bundles the server. */
export const build = () => Promise.all([bundleServer(), buildWeb()]);

/** Exports the web app when its sources changed since the last time. */
async function buildWeb() {
  placeStepReader();
  placeSculptor();
  const file = join(DIST, '.stamp');
  const sources = hashOfFiles([
    'apps/web',
    'packages/core',
    'packages/controller',
    'packages/sheets',
    'package-lock.json',
    'scripts/lib.mjs',
  ]);
  if (stampIs(file, sources)) return;
  const env = { CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1' };
  const expo = join(root, 'node_modules/.bin/expo');
  await must(
    'Bundling the web app (a minute or two when nothing is cached)',
    expo,
    ['export', '-p', 'web', '--max-workers', '2'],
    { cwd: join(root, 'apps/web'), env },
  );
  await bundleWorkers();
  finishPage(hashOfFiles(COMPUTES));
  writeServiceWorker();
  stamp(file, sources);
}

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** Path of Chromium, installed by apt when it is missing. */
export async function chromium() {
  const found = process.env.CHROMIUM ?? CHROMIUM.find(existsSync);
  if (found) return found;
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => [...sudo, 'apt-get', ...args];
  const [c1, ...a1] = apt('update');
  await must('Looking up packages for Chromium', c1, a1);
  const [c2, ...a2] = apt('install', '-y', '--no-install-recommends', 'chromium');
  await must('Installing Chromium', c2, a2, { env: { DEBIAN_FRONTEND: 'noninteractive' } });
  return CHROMIUM.find(existsSync) ?? CHROMIUM[0];
}
