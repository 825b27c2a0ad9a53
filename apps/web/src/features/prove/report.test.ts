import { MEASURES, Samples, ProofView, addHolding } from '@tidypath/core';
import { sampleJob } from '../../../testing/show';
import { reportPage } from './report';
import { stepStretches, wholeOf } from './stretches';

const f = (...values: number[]) => Float32Array.from(values);
const samples: Samples = {
  count: 4,
  motion: Uint32Array.from([1, 2, 3, 4]),
  time: f(1, 2, 4, 9),
  rate: f(100, 300, 50, 80),
  depth: f(1, 2, 1, 1),
  engagement: f(30, 120, 180, 60),
  load: f(0.2, 0.5, 0.1, 0.3),
  chip: f(0.02, 0.05, 0.05, 0.04),
  force: f(10, 40, 50, 30),
  bend: f(0.01, 0.04, 0.05, 0.02),
  stress: f(100, 400, 500, 200),
  grip: f(0.1, 0.1, 0.1, 0.1),
  seconds: f(1, 1, 2, 5),
  length: f(1, 1, 1, 1),
  x: f(0, 1, 2, 3),
  y: f(0, 0, 0, 0),
  z: f(0, 0, 0, 0),
};
const job = { ...sampleJob(), name: 'Plate <script>alert(1)</script>' };
const [setup] = job.setups;
const [first, second] = ['a', 'b'];
const operations = [
  { ...setup.operations[0], id: first, name: 'Face & more' },
  { ...setup.operations[0], id: second, name: 'Pocket' },
];
const peak = { sample: 1, motion: 2, time: 2, value: 300, cause: 'slot' as const };
const proof = {
  findings: [{ code: 'gouge', level: 'stop', message: 'Cuts "in"', remedy: 'Lift it', place: { line: 12 } }],
  clock: { cut: 0.1, rapid: 0.03, toolChange: 0.02, dwell: 0, total: 0.15 },
  samples,
  peaks: Object.fromEntries(MEASURES.map((m) => [m, [peak]])),
  steps: [
    { operationId: first, motion: 1, minutes: 0.05, removed: 2, load: 0.5 },
    { operationId: second, motion: 3, minutes: 0.1, removed: 1, load: 0.3 },
  ],
  lines: Uint32Array.from([1, 10, 12, 14, 15]),
  ends: f(0, 1, 3, 5, 9),
  wear: [{ tool: 4, share: 0.5, minutes: 3 }],
  called: [{ number: 4, remark: '', line: 2, isNamed: false }],
  places: [{ kind: 'cut', x: 12, y: 8, z: -1, by: -0.5, volume: 3 }],
  removed: 3,
  grip: [],
  grid: { cell: 0.59, finest: 0.15, cells: 1000, memory: 1e6 },
} as unknown as ProofView;

const reported = {
  job,
  setup: { ...setup, operations },
  proof,
  program: 'plate.nc',
  zero: { x: 2, y: 3 },
  date: new Date('2031-05-04T03:02:00Z'),
};

test('a report stands by itself, says what the proof says, and runs nothing', () => {
  const page = reportPage({ ...reported, picture: Uint8Array.from({ length: 20_000 }, (_, i) => i % 256) });
  expect(page).toContain('<img alt="The piece on the machine" src="data:image/png;base64,AAEC');
  expect(page).not.toMatch(/<script|https?:/);
  for (const words of [
    '1 thing stops this program',
    '<td>12</td><td>Cuts &quot;in&quot;</td><td>Lift it</td>',
    'Face &amp; more',
    '0.5 mm cut into the part',
    'X 10 Y 5',
    '2031-05-04 03:02 UTC',
    'slot',
    'on a grid of 0.59 mm, 0.15 mm at walls and narrow cuts',
  ])
    expect(page).toContain(words);
  expect(page.match(/<table>/g)).toHaveLength(6);
  expect(page).toMatch(/<td>100<\/td><td>at least [\d.]+<\/td>/);
  expect(page).toContain('Not counted, as it is not known: ');
  expect(page).toContain('<h1>Plate &lt;script&gt;');
});

test('the report of a job in inches speaks no millimetres', () => {
  const page = reportPage({ ...reported, job: { ...job, unit: 'inch' } });
  for (const words of ['0.122 in³', '0.183 in³ removed', '0.02 in cut into the part', 'a grid of 0.0232 in'])
    expect(page).toContain(words);
  // A tool keeps its name.
  expect(page.replace(/\d+ mm end mill/g, '')).not.toMatch(/\d mm\b|cm³|mm³/);
});

test('it says how the work is held, where the zero is, and whether the grip holds', () => {
  const held = addHolding(job, { ...setup, operations }, 'vise', { grip: 4 });
  const [own] = held.setups;
  const zero = { on: 'holding' as const, of: 'h1', point: 'front left' as const, height: 'top' as const };
  const grip = [{ operation: first, way: 'slip' as const, force: 400, may: 6000, margin: 15, arm: 3, sample: 0 }];
  const page = reportPage({ ...reported, job: held, setup: { ...own, zero }, proof: { ...proof, grip } });
  for (const words of [
    'Zero G54 on Fixed jaw of Vise, front left, at its top.',
    '<td>Vise</td><td>fixed jaw at the back, grips 4 mm, force 20 kN, friction 0.15</td>',
    'Holds: “Face &amp; more” pushes hardest, 400 N',
  ])
    expect(page).toContain(words);
});

test('without a picture the report is whole all the same', () => {
  const page = reportPage(reported);
  expect(page).not.toContain('<img');
  expect(page).toContain('1 thing stops this program');
});

test('a step is a stretch of its own, with its time from its start', () => {
  const [a, b] = stepStretches(proof, operations);
  expect([a.name, a.seconds, a.samples.count]).toEqual(['Face & more', 3, 2]);
  expect([b.name, b.seconds, b.samples.count]).toEqual(['Pocket', 6, 2]);
  expect(Array.from(b.samples.time)).toEqual([1, 6]);
  expect(Array.from(b.samples.rate)).toEqual([50, 80]);
  expect(Array.from(samples.time)).toEqual([1, 2, 4, 9]);
  expect(wholeOf('whole', proof).seconds).toBeCloseTo(9, 9);
});
