import { holderLength } from '../shop/holder';
import { HOLDERS, MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { powerAt, torqueAt } from '../shop/machine';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { jobWith, tool, withOperation } from '../../testing/jobs';
import { instancesOf } from '../part/shapes';
import { modelOf, solidAt } from '../part/model';
import { area } from '../geometry/clip';
import {
  newFeature,
  newJob,
  addOperation,
  changeTool,
  editOperation,
  freshId,
  isStale,
  refreshTool,
  takeLift,
  takeSuggested,
  proposeTool,
  tidyRack,
  withTool,
} from './edit';
import { estimateMinutes, insightOf, liftsOf, pathLengths } from './insight';
import { planFindings, planSetup, postSetup } from './pipeline';
import { joinPrograms } from './prove';
import { parseJob, readJob } from './read';
import { groundOf, viseJaws } from './setup';
import { SINGLE } from '../part/feature';
import { kindOf } from '../toolpath/registry';
import { thumbnailOf } from '../part/outline-path';

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

describe('the part', () => {
  test('patterns: the count is the total', () => {
    const hole = (pattern: Partial<typeof SINGLE>) =>
      instancesOf(
        newFeature(
          [],
          'hole',
          'H',
          { type: 'round', diameter: 4 },
          { x: 10, y: 0, pattern: { ...SINGLE, ...pattern } },
        ),
      );
    expect(hole({ type: 'line', count: 3, dx: 5 })).toHaveLength(3);
    expect(hole({ type: 'grid', count: 3, rows: 2, dx: 5, dy: 5 })).toHaveLength(6);
    const around = hole({ type: 'circle', count: 6 });
    expect(around).toHaveLength(6);
    expect(around[3].vertices[0]).toMatchObject({ x: expect.closeTo(-12, 6), y: expect.closeTo(0, 6) });
  });

  test.each([
    ['rectangle', { type: 'rectangle' as const, width: 20, height: 10, radius: 2 }, 200 - (4 - Math.PI) * 4],
    [
      'rectangle with full radius',
      { type: 'rectangle' as const, width: 20, height: 10, radius: 5 },
      100 + Math.PI * 25,
    ],
    ['slot', { type: 'slot' as const, length: 20, width: 10 }, 100 + Math.PI * 25],
    ['round', { type: 'round' as const, diameter: 10 }, Math.PI * 25],
    ['hexagon', { type: 'polygon' as const, sides: 6, across: 10 }, 50 * Math.sqrt(3)],
  ])('%s has its area', (_, shape, expected) => {
    const model = modelOf({ thickness: 10, features: [newFeature([], 'outline', 'P', shape)] });
    expect(area(model.outline)).toBeCloseTo(expected, 1);
  });

  test('a boss is taken out of its pocket; solid at a depth leaves open what is deeper', () => {
    const model = modelOf(JOB.part);
    const pocket = model.floors.find((f) => f.z === -7)!;
    expect(area(pocket.region)).toBeCloseTo(68 * 50 - (4 - Math.PI) * 36 - 2 * Math.PI * 36, 0);
    expect(area(solidAt(model, -7))).toBeLessThan(area(solidAt(model, -1)) + area(model.outline));
    expect(area(solidAt(model, -12))).toBeGreaterThan(area(solidAt(model, -5)));
  });

  test.each([
    [
      'self-crossing',
      {
        type: 'chain' as const,
        closed: true,
        vertices: [
          [0, 0],
          [10, 10],
          [10, 0],
          [0, 10],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
    [
      'open-chain',
      {
        type: 'chain' as const,
        closed: false,
        vertices: [
          [0, 0],
          [10, 10],
          [10, 0],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
    [
      'no-area',
      {
        type: 'chain' as const,
        closed: true,
        vertices: [
          [0, 0],
          [10, 0],
        ].map(([x, y]) => ({ x, y, bulge: 0 })),
      },
    ],
  ])('%s is told with its feature', (code, shape) => {
    const { findings } = modelOf({
      thickness: 5,
      features: [
        ...jobWith(undefined).part.features,
        newFeature(jobWith(undefined).part.features, 'pocket', 'Bad', shape),
      ],
    });
    expect(findings).toContainEqual(
      expect.objectContaining({ code, level: 'stop', place: expect.objectContaining({ feature: 'f2' }) }),
    );
  });

  test('depths that make no sense are told', () => {
    const codes = (more: object) =>
      modelOf(jobWith({ type: 'round', diameter: 10 }, more).part).findings.map((f) => f.code);
    expect(codes({ depth: 0 })).toEqual(['no-depth']);
    expect(codes({ depth: 50 })).toEqual(['deeper-than-part']);
    expect(codes({ meaning: 'hole', depth: 5 })).toEqual([]);
    expect(
      modelOf(jobWith({ type: 'rectangle', width: 5, height: 5, radius: 0 }, { meaning: 'hole' }).part).findings.map(
        (f) => f.code,
      ),
    ).toEqual(['hole-not-round']);
    expect(modelOf({ thickness: 5, features: [] }).findings.map((f) => f.code)).toEqual(['no-outline']);
  });

  test('a thumbnail draws outside and inside', () => {
    const t = thumbnailOf(JOB.part);
    expect(t.box.width).toBeCloseTo(120, 1);
    expect(t.outside).toMatch(/^M.*A6 6 .*Z$/);
    expect(thumbnailOf({ thickness: 1, features: [] }).outside).toBe('');
  });
});

describe('an older file', () => {
  const old = readFileSync(join(__dirname, '../../testing/version-1.json'), 'utf8');

  test('of version 1 is carried forward: its holder, spindle and material stand as they were', () => {
    const { job, findings } = parseJob(old);
    expect(findings).toEqual([]);
    const before = JSON.parse(old);
    expect(job).toMatchObject({ formatVersion: 3, boldness: 0.5 });
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

describe('setup', () => {
  test('zero on stock and part, every named point', () => {
    const job = jobWith(undefined);
    const setup = job.setups[0];
    const zero = (on: 'stock' | 'part', point: 'front left' | 'back right' | 'centre', height: 'top' | 'bottom') =>
      groundOf(job, { ...setup, zero: { on, point, height } }).zero;
    expect(zero('stock', 'front left', 'top')).toEqual({ x: -2, y: -2, z: 1 });
    expect(zero('part', 'back right', 'bottom')).toEqual({ x: 80, y: 50, z: -10 });
    expect(zero('part', 'centre', 'top')).toEqual({ x: 40, y: 25, z: 0 });
    expect(zero('stock', 'centre', 'bottom').z).toBe(-16);
  });

  test('jaws grip the stock from both sides, below what is cut', () => {
    const job = jobWith(undefined);
    const [fixed, moving] = viseJaws(groundOf(job, job.setups[0]).stock, 4);
    expect(fixed.y).toBe(52);
    expect(moving.y + moving.depth).toBe(-2);
    expect(fixed.z + fixed.height).toBe(-12);
  });

  test('round stock', () => {
    const job = jobWith(undefined);
    const setup = { ...job.setups[0], stock: { ...job.setups[0].stock, shape: 'round' as const, diameter: 100 } };
    expect(area(groundOf(job, setup).stock.region)).toBeCloseTo(Math.PI * 2500, 0);
  });
});

describe('editing', () => {
  test('ids are fresh, tools are copied in once, and unused ones leave', () => {
    expect(freshId('o', ['o1', 'o3'])).toBe('o2');
    const job = withTool(withTool(newJob('X', 'mm'), tool(4)), tool(4));
    expect(job.tools).toHaveLength(1);
    const clash = withTool(job, { ...tool(5), number: 4 });
    expect(clash.tools.map((t) => t.number)).toEqual([4, 5]);
    expect(tidyRack(clash).tools).toEqual([]);
  });

  test('a new operation gets a fitting tool, values and speeds', () => {
    const job = addOperation(
      jobWith({ type: 'round', diameter: 5 }, { meaning: 'hole', through: true }),
      's1',
      'drill',
      ['f2'],
    );
    expect(job.tools[0].name).toMatch(/5 mm drill/);
    expect(addOperation(job, 's1', 'nonsense', [])).toBe(job);
    expect(proposeTool(job, kindOf('face')!, [])!.kind).toBe('face');
  });

  test('a changed tool takes its own bite and speeds along', () => {
    const job = withOperation(
      jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
      'pocket',
      ['f2'],
      tool(4),
    );
    const smaller = changeTool(job, 'o1', tool(9));
    const [before, after] = [job.setups[0].operations[0], smaller.setups[0].operations[0]];
    expect(after.toolId).toBe('t9');
    expect(Number(after.params.stepover)).toBeLessThan(Number(before.params.stepover));
    expect(after.speeds).not.toEqual(before.speeds);
    expect(after.params.entryAngle).toBe(before.params.entryAngle);
  });

  test('a tool of the rack stands where the machine’s carousel has it', () => {
    const base = newJob('X', 'mm');
    const job = { ...base, machine: { ...base.machine, carousel: [{ pocket: 9, toolId: 't4' }] } };
    expect(withTool(job, tool(4)).tools[0].number).toBe(9);
  });

  test('a job’s copy of a tool is told apart from the rack’s, and replaced by it', () => {
    const job = withTool(newJob('X', 'mm'), tool(4));
    const racked = { ...tool(4), stickOut: 40, number: 12 };
    expect(isStale(job.tools[0], { ...tool(4), number: 12 })).toBe(false);
    expect(isStale(job.tools[0], racked)).toBe(true);
    expect(refreshTool(job, racked).tools[0]).toMatchObject({ stickOut: 40, number: 4 });
  });

  test('what lifts a limit is done to the job, and its speeds follow', () => {
    const shop = { tools: TOOLS, holders: HOLDERS };
    const long = { ...tool(7), stickOut: 60 };
    const job = withOperation(
      {
        ...jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
        machine: MACHINES[2],
        material: MATERIALS[3],
      },
      'pocket',
      ['f2'],
      long,
      { layer: 8, stepover: 3 },
    );
    const slow = takeSuggested(job, 'o1');
    const found = liftsOf(slow, slow.setups[0].operations[0], shop);
    expect(found.length).toBeGreaterThan(1);
    for (const lift of found) {
      const after = takeLift(slow, 'o1', lift, shop);
      const { operations } = after.setups[0];
      expect(operations[0].speeds).toEqual(takeSuggested(after, 'o1').setups[0].operations[0].speeds);
      if (lift.change.stickOut) expect(after.tools[0].stickOut).toBe(lift.change.stickOut);
      if (lift.change.holderId) expect(after.tools[0].holder.id).toBe(lift.change.holderId);
      if (lift.change.toolId) expect(operations[0].toolId).toBe(lift.change.toolId);
      if (!lift.change.toolId) expect(operations[0].speeds.feed).toBe(Math.max(0.1, lift.suggestion.feed));
    }
    const bite = { what: '', change: { ae: 1, ap: 2 }, suggestion: found[0].suggestion, gain: 2 };
    expect(takeLift(slow, 'o1', bite, shop).setups[0].operations[0].params).toMatchObject({ stepover: 1, layer: 2 });
    expect(takeLift(slow, 'gone', bite, shop)).toBe(slow);
  });

  test('boldness moves the suggestion, and the departure from it', () => {
    const job = withOperation(jobWith({ type: 'round', diameter: 40 }), 'pocket', ['f2'], tool(9));
    const at = (boldness: number) => insightOf({ ...job, boldness }, job.setups[0].operations[0])!;
    expect(at(0).suggestion.feed).toBeLessThan(at(0.5).suggestion.feed);
    expect(at(0).departure.feed).toBeGreaterThan(1);
    expect(at(0.5).departure.text).toBe('as suggested');
  });

  test('insight follows the feed at once', () => {
    const job = withOperation(
      jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
      'pocket',
      ['f2'],
      tool(4),
    );
    const chip = (feed: number) =>
      insightOf(job, { ...job.setups[0].operations[0], speeds: { rpm: 8000, feed, entryFeed: 100 } })!.gauges[0].value;
    expect(chip(800)).toBeCloseTo(2 * chip(400), 9);
    expect(insightOf({ ...job, tools: [] }, job.setups[0].operations[0])).toBeUndefined();
    const [{ plan, operation }] = planSetup(job, job.setups[0]).planned;
    const lengths = pathLengths(plan.path);
    expect(estimateMinutes(lengths, operation, 5000)).toBeGreaterThan(lengths.cut / operation.speeds.feed);
  });
});

describe('pipeline', () => {
  const job = withOperation(
    withOperation(jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }), 'face', [], tool(1)),
    'pocket',
    ['f2'],
    tool(4),
  );

  test('only what changed is planned again', () => {
    const cache = new Map();
    const before = planSetup(job, job.setups[0], cache);
    const edited = editOperation(job, 'o2', (o) => ({ ...o, params: { ...o.params, stepover: 2 } }));
    const after = planSetup(edited, edited.setups[0], cache);
    expect(after.planned[0].plan).toBe(before.planned[0].plan);
    expect(after.planned[1].plan).not.toBe(before.planned[1].plan);
  });

  test('an operation starts where facing left the stock', () => {
    const [, pocket] = planSetup(job, job.setups[0]).planned;
    expect(Math.min(...pocket.plan.path.z)).toBe(-5);
    expect(pocket.plan.path.z.some((z) => z > 0 && z <= 1)).toBe(true);
  });

  test.each([
    ['missing-toolId', (j: typeof job) => ({ ...j, tools: [] })],
    ['missing-feature', (j: typeof job) => editOperation(j, 'o2', (o) => ({ ...o, targets: ['gone', 'f2'] }))],
    ['no-target', (j: typeof job) => editOperation(j, 'o2', (o) => ({ ...o, targets: [] }))],
    [
      'spindle-range',
      (j: typeof job) => editOperation(j, 'o2', (o) => ({ ...o, speeds: { ...o.speeds, rpm: 90000 } })),
    ],
    ['feed-range', (j: typeof job) => editOperation(j, 'o2', (o) => ({ ...o, speeds: { ...o.speeds, feed: 90000 } }))],
    ['same-pocket', (j: typeof job) => ({ ...j, tools: j.tools.map((t) => ({ ...t, number: 1 })) })],
    ['lathe', (j: typeof job) => ({ ...j, machine: { ...j.machine, kind: 'lathe' as const } })],
    ['no-operations', (j: typeof job) => ({ ...j, setups: [{ ...j.setups[0], operations: [] }] })],
    ['missing-kind', (j: typeof job) => editOperation(j, 'o2', (o) => ({ ...o, kind: 'magic' }))],
  ])('%s is told and nothing is posted', (code, change) => {
    const bad = change(job);
    const plan = planSetup(bad, bad.setups[0]);
    expect(planFindings(plan).map((f) => f.code)).toContain(code);
    expect(postSetup(bad, bad.setups[0], plan).programs).toEqual([]);
  });

  test('an unknown controller is told', () => {
    expect(postSetup(job, job.setups[0], planSetup(job, job.setups[0]), 'nope').findings.map((f) => f.code)).toContain(
      'unknown-controller',
    );
  });

  test('programs of one setup join into one text, their sections with it', () => {
    const section = (operationId: string) => [{ line: 1, operationId }];
    const { text, sections } = joinPrograms([
      { text: 'A\nM30\n%\n', sections: section('a') },
      { text: 'B\nM2\n', sections: section('b') },
    ]);
    expect(text).toBe('A\n\n\nB\nM2\n');
    expect(sections.map((s) => s.line)).toEqual([1, 4]);
  });
});

describe('a file that holds too much', () => {
  const place = (value: unknown) => readJob(value).findings.map((f) => [f.code, f.level, f.place.field]);

  test('values in values without end are told by their place, not by a crash', () => {
    let deep: unknown = [];
    for (let i = 0; i < 50_000; i++) deep = [deep];
    const [[code, level, field]] = place({ ...newJob('Deep', 'mm'), note: deep });
    expect([code, level]).toEqual(['too-deep', 'stop']);
    expect(field).toMatch(/^note\.0\.0/);
  });

  test('more values than the budget', () => {
    const vertices = new Array(3_000_001).fill(0);
    expect(place({ ...newJob('Large', 'mm'), part: { thickness: 1, features: [{ shape: { vertices } }] } })).toEqual([
      ['too-many-values', 'stop', 'part.features.0.shape.vertices'],
    ]);
  });
});
