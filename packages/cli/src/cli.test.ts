import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { tidypath as asked } from './tidypath';
import { pdfText } from '@tidypath/sheets/testing/pdf-text';

const root = resolve(__dirname, '../../..');
const out = mkdtempSync(join(tmpdir(), 'tidypath-cli-'));
afterAll(() => rmSync(out, { recursive: true, force: true }));

const JOB = join(root, 'demo/jobs/vane-hub-plate.json');
/** A demo job without steady load: the whole of it is planned and proved in a few seconds. */
const QUICK = join(root, 'demo/jobs/float-pulley-bracket.json');
/** The first again with two operations a setup, none of them long: planned at once, where the whole is not asked for. */
const SHORT = join(out, 'vane-hub-plate.json');
beforeAll(() => {
  const job = JSON.parse(readFileSync(JOB, 'utf8')) as { setups: { operations: { kind: string }[] }[] };
  for (const setup of job.setups)
    setup.operations = setup.operations.filter(({ kind }) => kind !== 'clear').slice(0, 2);
  writeFileSync(SHORT, JSON.stringify(job));
});
const MAIN = join(root, 'packages/cli/src/main.ts');
const BUNDLED = join(root, 'packages/cli/dist/main.cjs');

/** What a process answers. */
function run(command: string, args: string[]) {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd: root, encoding: 'utf8' });
  return { status, stdout, stderr };
}
const started = (...args: string[]) => run(process.execPath, [BUNDLED, ...args]);

/** The same without a process of its own. */
async function tidypath(...args: string[]) {
  const said = { stdout: '', stderr: '' };
  const kept = { stdout: process.stdout.write, stderr: process.stderr.write };
  for (const to of ['stdout', 'stderr'] as const) process[to].write = (text) => ((said[to] += text), true);
  try {
    return { status: await asked(args), ...said };
  } finally {
    for (const to of ['stdout', 'stderr'] as const) process[to].write = kept[to];
  }
}

test('as it is called, and from its sources, it runs as it does here', () => {
  const here = started();
  expect(here.stdout).toMatch(/^tidypath COMMAND/);
  expect(run('npm', ['run', '--silent', 'tidypath'])).toEqual(here);
  expect(run(join(root, 'node_modules/.bin/tsx'), [MAIN])).toEqual(here);
  expect([started('fly').status, started('features', join(root, 'README.md')).status]).toEqual([2, 1]);
});

test('check: nothing to report on a sound job, exit 1 on a broken one', async () => {
  expect(await tidypath('check', JOB)).toMatchObject({ status: 0, stdout: 'Nothing to report\n' });
  const broken = join(out, 'broken.json');
  writeFileSync(broken, readFileSync(SHORT, 'utf8').replace('"toolId":"t4"', '"toolId":"gone"'));
  const { status, stdout } = await tidypath('check', broken);
  expect(status).toBe(1);
  expect(stdout).toMatch(/stop: .* has no tool \[operation o3/);
});

test('post, then prove the posted file', async () => {
  expect((await tidypath('post', JOB, '--out', out)).status).toBe(0);
  const program = join(out, 'vane-hub-plate-top.nc');
  const below = join(out, 'vane-hub-plate-underside.nc');
  expect(JSON.parse(readFileSync(join(out, 'tools.json'), 'utf8')).programs).toEqual([
    { setup: 's1', file: 'vane-hub-plate-top.nc', tools: [1, 4, 13, 14, 37, 22] },
    { setup: 's2', file: 'vane-hub-plate-underside.nc', tools: [1, 22] },
  ]);
  const proof = await tidypath('prove', program, '--job', JOB, '--cell', '0.3', '--json');
  expect(proof.status).toBe(0);
  const figures = JSON.parse(proof.stdout);
  expect(figures.findings).toEqual([]);
  expect(figures.minutes.total).toBeGreaterThan(5);
  // The second setup starts from what the first left: 6 mm of 124 x 84, less what is open already.
  const turned = JSON.parse(
    (await tidypath('prove', below, '--job', JOB, '--setup', 's2', '--cell', '0.3', '--json')).stdout,
  );
  expect(turned.findings).toEqual([]);
  expect(turned.removedCm3).toBeGreaterThan(60);
  expect(turned.removedCm3).toBeLessThan((124 * 84 * 6) / 1000);
  writeFileSync(program, readFileSync(program, 'utf8').replace(/G1 Z-1\. F[\d.]+/, 'G0 Z-1.'));
  expect(await tidypath('prove', program, '--job', JOB, '--cell', '0.5')).toMatchObject({
    status: 1,
    stdout: expect.stringMatching(/stop: A rapid runs .* \[line 14\]/),
  });
});

test('kit: what is pulled and made ready for a batch, and how long it takes; bars that are too few are told', async () => {
  const bracket = join(root, 'demo/jobs/sounding-line-bracket.json');
  const { status, stdout } = await tidypath('kit', bracket, '--setup', 's2');
  expect(status).toBe(0);
  expect(stdout).toMatch(/^Front, in soft jaws: 40 runs of .* and 1.5 min to reload, 15 min to set up: /);
  expect(stdout).toMatch(/T19 #7 drill: .*; put into pocket 19; one edge lasts/);
  const job = JSON.parse(readFileSync(bracket, 'utf8'));
  Object.assign(job, { batch: 4000 });
  job.setups[0].stock.bar.pieces = 3;
  const many = join(out, 'many.json');
  writeFileSync(many, JSON.stringify(job));
  const [first] = JSON.parse((await tidypath('kit', many, '--setup', 's1', '--json')).stdout);
  expect(first).toMatchObject({
    setup: 's1',
    runs: 1000,
    pull: [expect.stringMatching(/^1.000 blanks of 11.3752 in from/), expect.anything()],
  });
  expect(first.findings[0]).toMatchObject({ code: 'bars-too-few' });
  expect((await tidypath('check', many)).stdout).toMatch(/care: 4.000 parts do not fit the bars at hand/);
});

test('edits: what was changed in a program that comes back, and the job with what it takes', async () => {
  await tidypath('post', SHORT, '--out', out);
  const program = join(out, 'vane-hub-plate-top.nc');
  const [edited, next] = [join(out, 'edited.nc'), join(out, 'next.json')];
  const lines = readFileSync(program, 'utf8').split('\n');
  const at = lines.findIndex((l) => / M3$/.test(l));
  lines[at] = lines[at].replace(/S\d+/, 'S4444');
  writeFileSync(edited, lines.join('\n'));
  const found = await tidypath('edits', edited, '--job', SHORT, '--out', next);
  expect(found).toMatchObject({
    status: 0,
    stdout: expect.stringMatching(/^taken line \d+, .*: 4444 rpm instead of \d+\n$/),
  });
  expect(await tidypath('edits', edited, '--job', next)).toMatchObject({ status: 0, stdout: 'Nothing was changed\n' });
  lines[at + 3] = 'X1. Y1.';
  writeFileSync(edited, lines.join('\n'));
  expect((await tidypath('edits', edited, '--job', next)).status).toBe(1);
  expect(await tidypath('edits', SHORT, '--job', SHORT)).toMatchObject({
    status: 2,
    stderr: expect.stringMatching(/was not made from/),
  });
});

test('post in another dialect: what it lacks is said, and nothing is written', async () => {
  const folder = join(out, 'router');
  const { status, stdout } = await tidypath('post', QUICK, '--controller', 'hobby', '--out', folder);
  expect(stdout).not.toMatch(/undefined/);
  expect(status).toBe(0);
  expect(existsSync(join(folder, 'float-pulley-bracket-1-t1.nc'))).toBe(true);
});

test('suggest takes the shop’s own things from files, a purpose and a grip', async () => {
  const file = join(out, 'mill.json');
  writeFileSync(file, JSON.stringify({ kind: 'flat', diameter: 10, flutes: 5, fluteLength: 22, stickOut: 30 }));
  const suggested = async (...more: string[]) => {
    const run = await tidypath(
      'suggest',
      '--tool-file',
      file,
      '--material',
      'steel-low',
      '--machine',
      'fulmar',
      '--ae',
      '1',
      '--ap',
      '20',
      '--json',
      ...more,
    );
    expect(run.status).toBe(0);
    return JSON.parse(run.stdout) as { feed: number };
  };
  expect((await suggested('--grip', 'firm')).feed).toBeGreaterThan((await suggested('--grip', 'poor')).feed);
  writeFileSync(file, '{"kind": "spoon"}');
  const refused = await tidypath('suggest', '--tool-file', file, '--material', 'steel-low', '--machine', 'fulmar');
  expect([refused.status, refused.stderr]).toEqual([2, expect.stringContaining('takes one of')]);
});

test('suggest and import explain themselves', async () => {
  const suggestion = await tidypath(
    'suggest',
    '--material',
    'steel-low',
    '--tool',
    't5',
    '--machine',
    'fulmar',
    '--ae',
    '2',
    '--ap',
    '8',
  );
  expect(suggestion.stdout).toMatch(/rpm.*mm\/min/);
  expect(suggestion.stdout).toMatch(/Textbook relation/);
  const drawing = await tidypath('import', join(root, 'demo/drawings/vane-hub-plate.dxf'));
  expect(drawing.stdout).toMatch(/unit mm, 10 chains, 0 gaps/);
});

test.each([
  [['fly'], 2, ''],
  [['post', JOB], 2, '--out'],
  [['prove', 'missing.nc', '--job', JOB], 2, 'cannot be read'],
  [['check', 'missing.json'], 2, 'cannot be read'],
  [['suggest', '--material', 'cheese'], 2, '--tool takes one of'],
  [['prove', JOB, '--job', JOB, '--cell', '99'], 2, '--cell takes'],
  [['check', JOB, '--loud'], 2, 'loud'],
])('%j is refused with a reason', async (args, status, text) => {
  const answer = await tidypath(...args);
  expect(answer.status).toBe(status);
  expect(answer.stderr).toContain(text);
  expect(answer.stderr).not.toMatch(/\n\s+at /);
});

test('features: what a solid has to be cut, for a script and for a reader', async () => {
  const solid = join(root, 'demo/solids/drain-step.stl');
  const { status, stdout } = await tidypath('features', solid, '--up', 'top', '--json');
  expect(status).toBe(0);
  const { features, up } = JSON.parse(stdout) as { up: string; features: Record<string, unknown>[] };
  expect(up).toBe('top');
  const holes = features.filter((f) => f.kind === 'hole');
  expect(holes).toEqual([
    expect.objectContaining({
      x: 12,
      y: 12,
      z: -20,
      depth: 20,
      diameter: 6.8,
      faces: [expect.any(Number), expect.any(Number)],
    }),
    expect.objectContaining({
      x: 12,
      y: 48,
      z: -20,
      depth: 20,
      diameter: 6.8,
      faces: [expect.any(Number), expect.any(Number)],
    }),
  ]);
  expect(new Set(holes.flatMap((h) => h.faces)).size).toBe(4);
  expect((await tidypath('features', solid)).stdout).toMatch(/^top up, 45 mm thick, 8 features/);
  const letter = join(out, 'letter.step');
  writeFileSync(letter, 'Please find the model attached.');
  expect(await tidypath('features', letter)).toMatchObject({
    status: 1,
    stdout: expect.stringMatching(/no solid that can be read/),
  });
  expect(await tidypath('features', solid, '--up', 'sideways')).toMatchObject({ status: 2 });
});

test('what goes through from beside is as deep as the part is there', async () => {
  const { stdout } = await tidypath('features', join(root, 'demo/solids/seat-angle.step'));
  expect(stdout).toMatch(/^top up, 40 mm thick, 9 features/);
  expect(stdout).toMatch(/Hole 6\.6 at X 15 Y 25, 12 deep, from the left/);
});

test('features reads STEP', async () => {
  const found = await tidypath('features', join(root, 'demo/solids/thin-tray.step'));
  expect(found).toMatchObject({ status: 0, stdout: expect.stringMatching(/^top up, 30 mm thick, 5 features/) });
});

test('plan: a whole job for a solid, with its files beside it', async () => {
  const model = join(out, 'block.obj');
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => `v ${i & 1 ? 40 : 0} ${i & 2 ? 30 : 0} ${i & 4 ? 12 : 0}`);
  const sides = ['f 1 3 4 2', 'f 5 6 8 7', 'f 1 2 6 5', 'f 3 7 8 4', 'f 1 5 7 3', 'f 2 4 8 6'];
  writeFileSync(model, [...corners, ...sides, ''].join('\n'));
  const job = join(out, 'block.json');
  const asked = ['--material', 'alu-6082', '--machine', 'fulmar', '--batch', '10', '--out', job];
  const planned = await tidypath('plan', model, ...asked);
  expect(planned.stdout).toMatch(/2 grips: top up, then underside up/);
  expect(planned.stdout).toMatch(/Top up: 2 operations/);
  expect((await tidypath('check', job)).stdout).not.toMatch(/stop:/);
});

test('compare: ways to clear a pocket, for a script and for a reader', async () => {
  const read = JSON.parse(readFileSync(QUICK, 'utf8')) as {
    setups: { operations: { kind: string; targets: string[] }[] }[];
  };
  const [feature] = read.setups.flatMap((s) => s.operations).find((o) => ['clear', 'pocket'].includes(o.kind))!.targets;
  const { status, stdout } = await tidypath('compare', QUICK, '--feature', feature, '--batch', '20', '--json');
  expect(status).toBe(0);
  const { candidates, verdict } = JSON.parse(stdout) as {
    candidates: { name: string; cost?: number; figures?: { minutes: { total: number } } }[];
    verdict: { cheapest: string; sure: string };
  };
  expect(candidates[0].name).toBe('As it is');
  expect(candidates.length).toBeGreaterThan(1);
  expect(candidates[0].figures!.minutes.total).toBeGreaterThan(0);
  expect(['wins', 'likely', 'a draw']).toContain(verdict.sure);
  expect(await tidypath('compare', QUICK, '--feature', 'f999')).toMatchObject({ status: 2 });
});

test('sheet: the setup sheet of each setup, as a page and as PDF; none for what has no program', async () => {
  const { status, stdout } = await tidypath('sheet', SHORT, '--paper', 'Letter', '--out', out);
  expect([status, stdout.trim().split('\n')]).toEqual([
    0,
    ['s1', 's2'].flatMap((s) => [join(out, `${s}.html`), join(out, `${s}.pdf`)]),
  ]);
  expect(readFileSync(join(out, 's1.html'), 'utf8')).toContain('<h1>Vane hub plate</h1>');
  const pages = await pdfText(readFileSync(join(out, 's2.pdf')));
  expect(pages[0]).toMatch(/Setup\s+Underside, 2 of 2/);
  expect(pages[0]).toContain(`page 1 of ${pages.length}`);
  expect(await tidypath('sheet', join(out, 'broken.json'), '--out', out)).toMatchObject({ status: 1 });
  expect(await tidypath('sheet', SHORT, '--paper', 'A5', '--out', out)).toMatchObject({
    status: 2,
    stderr: '--paper takes one of: A4, Letter\n',
  });
});

test('run: on the simulated machine to its end; with what is entered wrong to an alarm at its line', async () => {
  const folder = join(out, 'run');
  for (const job of [QUICK, SHORT]) expect((await tidypath('post', job, '--out', folder)).status).toBe(0);
  const at = (job: string, name: string, args: string[]) =>
    tidypath('run', join(folder, name), '--job', job, '--cell', '0.6', '--seed', '3', ...args);
  const ran = (...args: string[]) => at(SHORT, 'vane-hub-plate-top.nc', args);
  const whole = await at(QUICK, 'float-pulley-bracket.nc', ['--json', '--out', folder]);
  expect(whole.status).toBe(0);
  const [, ...json] = whole.stdout.split('\n');
  const told = JSON.parse(json.join('\n'));
  expect(told).toMatchObject({ state: 'done', piece: [] });
  expect(told.steps).toHaveLength(6);
  // A row each tenth of a second, from where it first moved.
  const rows = readFileSync(join(folder, 'stream.csv'), 'utf8').trim().split('\n');
  expect(rows[0]).toBe('t_s,x_mm,y_mm,z_mm,load_pct,vib_um');
  expect(rows.length - 1).toBe(Math.ceil(told.seconds * 10) - Math.round(Number(rows[1].split(',')[0]) * 10));
  const low = await ran('--zero', 'Z=-5');
  expect(low.status).toBe(1);
  expect(low.stdout).toMatch(/line 14: 21 The spindle stalled/);
  expect(JSON.parse((await ran('--length', 'T4=-10', '--json')).stdout).alarm).toMatchObject({
    number: 11,
    line: 32,
  });
  expect((await ran('--length', 'T4')).stderr).toMatch(/takes T4=-10/);
  expect((await ran('--length', 'T99=1')).stderr).toMatch(/no T99/);
});
