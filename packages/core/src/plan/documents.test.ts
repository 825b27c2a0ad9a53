import { holderLength } from '../shop/holder';
import { powerAt, torqueAt } from '../machine/machine';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { putAtHand } from '../quantity/files';
import { missingFiles } from '../document/files';
import { FORMAT_VERSION, Job } from '../document/job';
import { newJob } from '../document/new';
import { readStored } from '../document/read';
import { planFindings, planSetup, postSetup } from './pipeline';
import { parseJob, readJob } from './documents';

const TEXT = readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8');
const JOB = parseJob(TEXT).job!;
const plain = () =>
  JSON.parse(TEXT) as Record<string, never> & {
    part: { features: Record<string, unknown>[] };
    setups: { operations: Record<string, unknown>[] }[];
  };

describe('job files', () => {
  test('written and read again they are the same, and give the same program', () => {
    const again = parseJob(JSON.stringify(JOB)).job!;
    expect(again).toEqual(JOB);
    const post = (j: typeof JOB) => postSetup(j, j.setups[0], planSetup(j, j.setups[0])).programs[0].text;
    expect(post(again)).toBe(post(JOB));
  });

  test.each([
    ['broken text', '{"a": \n oops', 'not-json'],
    ['not an object', '[1]', 'not-a-job'],
    ['no version', '{}', 'no-version'],
    ['a newer version', '{"formatVersion": 99}', 'newer-version'],
    ['a version that never was', '{"formatVersion": 0}', 'old-version'],
  ])('%s is refused with a reason', (_, text, code) => {
    const { job, findings } = parseJob(text);
    expect(job).toBeUndefined();
    expect(findings[0]).toMatchObject({ code, level: 'stop', remedy: expect.stringMatching(/.+/) });
  });

  test('unknown fields are refused by name, bad values by path', () => {
    const codes = (change: (j: ReturnType<typeof plain>) => void) => {
      const data = plain();
      change(data);
      return readJob(data).findings.map((f) => `${f.code} ${f.place.field}`);
    };
    expect(codes((j) => Object.assign(j, { colour: 'red' }))).toEqual(['unknown-field colour']);
    expect(codes((j) => Object.assign(j.part.features[0], { depth: -3 }))).toEqual(['bad-field part.features.0.depth']);
    expect(codes((j) => Object.assign(j.part.features[0], { shape: { type: 'blob' } }))[0]).toMatch(
      /part.features.0.shape/,
    );
    expect(codes((j) => Object.assign(j.setups[0].operations[1], { kind: 'magic' }))).toEqual([
      'unknown-operation setups.0.operations.1.kind',
    ]);
    expect(codes((j) => Object.assign(j.setups[0].operations[1].params as object, { stepover: 1e9 }))).toEqual([
      'bad-field setups.0.operations.1.params.stepover',
    ]);
    expect(codes((j) => Object.assign(j.setups[0].operations[1].params as object, { zigzag: 1 }))).toEqual([
      'unknown-field setups.0.operations.1.params.zigzag',
    ]);
    expect(codes((j) => delete (j as Record<string, unknown>).machine)[0]).toMatch(/machine/);
  });

  test('mutated files are read or refused, never half taken in', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ at: fc.nat(TEXT.length - 1), cut: fc.nat(8), put: fc.string({ maxLength: 8 }) }), {
          minLength: 1,
          maxLength: 4,
        }),
        (cuts) => {
          let text = TEXT;
          for (const { at, cut, put } of cuts) text = text.slice(0, at) + put + text.slice(at + cut);
          const { job, findings } = parseJob(text);
          expect((job === undefined) === findings.length > 0).toBe(true);
        },
      ),
      { numRuns: 300, seed: 12 },
    );
  });
});

describe('an older file', () => {
  const old = readFileSync(join(__dirname, '../../testing/formats/1-first.json'), 'utf8');

  test('of version 1 is carried forward: its holder, spindle and material stand as they were', () => {
    const { job, findings } = parseJob(old);
    expect(findings).toEqual([]);
    const before = JSON.parse(old);
    expect(job).toMatchObject({ formatVersion: FORMAT_VERSION, boldness: 0.5 });
    const [tool] = job!.tools;
    expect(holderLength(tool.holder)).toBe(before.tools[0].holderLength);
    expect(powerAt(job!.machine, 20000)).toBe(before.machine.power);
    expect(torqueAt(job!.machine, 10)).toBeCloseTo(before.machine.torque, 1);
    expect(planFindings(planSetup(job!, job!.setups[0])).filter((f) => f.level === 'stop')).toEqual([]);
  });

  test.each(['tools', 'machine', 'material'])('with a broken %s is refused, not filled up', (field) => {
    expect(parseJob(JSON.stringify({ ...JSON.parse(old), [field]: 'none' })).job).toBeUndefined();
    expect(parseJob(JSON.stringify({ ...JSON.parse(old), [field]: null })).job).toBeUndefined();
  });
});

const FORMATS = join(__dirname, '../../testing/formats');

describe.each(readdirSync(FORMATS))('a file as it was written then, %s', (file) => {
  const text = readFileSync(join(FORMATS, file), 'utf8');

  test('is carried forward whole: nothing is refused, every operation plans moves', () => {
    const { job, findings, files } = parseJob(text);
    expect(findings).toEqual([]);
    expect(job!.formatVersion).toBe(FORMAT_VERSION);
    files?.forEach(putAtHand);
    expect(missingFiles(job!)).toEqual([]);
    expect(job!.material.brinell).toBeGreaterThan(0);
    for (const setup of job!.setups) {
      const plan = planSetup(job!, setup);
      expect(planFindings(plan).filter((f) => f.level === 'stop')).toEqual([]);
      for (const { operation, plan: planned } of plan.planned)
        expect([operation.name, planned.path.count > 0]).toEqual([operation.name, true]);
    }
  });

  test('its tool, machine and material are read from a shelf alike, by their shape', () => {
    const old = JSON.parse(text) as Record<'tools' | 'machine' | 'material', never>;
    const { job } = parseJob(text);
    expect(readStored('tools', old.tools[0])).toEqual({ item: job!.tools[0], findings: expect.any(Array) });
    expect(readStored('machines', old.machine).item).toEqual(job!.machine);
    expect(readStored('materials', old.material).item).toEqual(job!.material);
    const recipe = { id: 'r', name: 'A cut', tool: old.tools[0], machine: old.machine, material: old.material };
    const values = { ae: 1, ap: 2, rpm: 3000, feed: 400, boldness: 0.5, note: '', keptAt: '2026-01-01T00:00:00.000Z' };
    expect(readStored('recipes', { ...recipe, ...values }).item?.machine).toEqual(job!.machine);
  });
});

test('a contour of version 2 runs all of its layers and laps, which it cannot as it was stored', () => {
  const { job } = parseJob(readFileSync(join(FORMATS, '2-first.json'), 'utf8'));
  const { plan } = planSetup(job!, job!.setups[0]).planned.find((p) => p.operation.kind === 'contour')!;
  expect(plan.path.count).toBe(90);
});

test('tabs that were moved on together stand where they stood', () => {
  const file = JSON.parse(readFileSync(join(FORMATS, '3-tabs-moved-together.json'), 'utf8')) as Job;
  const tabbed = { tabs: 'rectangular', tabCount: 4, tabShift: 0.5 };
  const setups = file.setups.map((s) => ({
    ...s,
    operations: s.operations.map((o) => (o.kind === 'contour' ? { ...o, params: { ...o.params, ...tabbed } } : o)),
  }));
  const { job, findings } = readJob({ ...file, setups });
  expect(findings).toEqual([]);
  const contours = job!.setups.flatMap((s) => s.operations).filter((o) => o.kind === 'contour');
  expect(contours.map((o) => o.params.tabPlaces)).toEqual(contours.map(() => '0 25 50 75'));
});

test.each([
  ['of half a triangle', 'AAAAAAAA'],
  ['that is no such text', 'Ä§'],
  ['that is a list', []],
])('a casting of version 4 %s is refused by its name, one without any has still to be chosen', (_, triangles) => {
  const file = JSON.parse(readFileSync(join(FORMATS, '4-casting.json'), 'utf8')) as Job;
  const holding = (triangles: unknown) => {
    const [{ stock, ...setup }, ...rest] = file.setups;
    return { ...file, setups: [{ ...setup, stock: { ...stock, casting: { name: 'a.stl', triangles } } }, ...rest] };
  };
  const { job, findings } = readJob(holding(triangles));
  expect([job, findings.map((f) => f.place.field)]).toEqual([
    undefined,
    expect.arrayContaining(['setups.0.stock.casting.triangles']),
  ]);
  expect(readJob(holding('')).job!.setups[0].stock.casting).toBeUndefined();
});

describe('a file that holds too much', () => {
  const place = (value: unknown) => readJob(value).findings.map((f) => [f.code, f.level, f.place.field]);

  test('values in values without end are told by their place, not by a crash', () => {
    let deep: unknown = {};
    for (let i = 0; i < 50_000; i++) deep = { inner: deep };
    const [[code, level, field]] = place({ ...newJob('Deep', 'mm'), note: deep });
    expect([code, level]).toEqual(['too-deep', 'stop']);
    expect(field).toMatch(/^note\.inner\.inner/);
  });

  test('more values than the budget', () => {
    const vertices = new Array(3_000_001).fill(0);
    expect(place({ ...newJob('Large', 'mm'), part: { thickness: 1, features: [{ shape: { vertices } }] } })).toEqual([
      ['too-many-values', 'stop', 'part.features.0.shape.vertices'],
    ]);
  });
});
