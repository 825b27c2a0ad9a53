import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { addSetup, withSetup } from '../../document/edit';
import { Job } from '../../document/job';
import { FACE_UPS } from '../../part/plate/turn';
import { parseJob } from '../documents';
import { planFindings, planSetup, postSetup } from '../pipeline';
import { joinPrograms } from '../joined';
import { proveProgram } from '../prove';
import { hasStop } from '../../quantity/finding';

const demo = (name: string) =>
  parseJob(readFileSync(join(__dirname, `../../../../../demo/jobs/${name}.json`), 'utf8')).job!;
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };
const job = withOperation(
  withStock(jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }, { depth: 4 }), flush),
  'pocket',
  ['f2'],
  tool(4),
);
const posted = post(job).text;
const proveText = (text: string) => proveProgram(job, job.setups[0], text, 0.14).findings;

/** The program with one line changed, and that line's number. */
function seeded(find: RegExp, change: (line: string) => string): { text: string; line: number } {
  const lines = posted.split('\n');
  const i = lines.findIndex((l) => find.test(l));
  lines[i] = change(lines[i]);
  return { text: lines.join('\n'), line: i + 1 };
}

describe.each(['vane-hub-plate', 'float-pulley-bracket', 'lens-cell-ring'])('demo job %s', (name) => {
  const given = demo(name);
  const setup = given.setups[0];
  const plan = planSetup(given, setup);
  test.each(['iso-mill', 'hobby'])('plans, posts and proves on %s without a false alarm', (controller) => {
    // The hobby control has neither mist nor a cycle that taps in step.
    const able =
      controller === 'hobby'
        ? {
            ...plan,
            planned: plan.planned
              .filter((p) => p.operation.kind !== 'tap')
              .map((p) => ({ ...p, operation: { ...p.operation, coolant: 'off' as const } })),
          }
        : plan;
    const { programs, findings } = postSetup(given, setup, able, controller);
    expect([...planFindings(plan), ...findings]).toEqual([]);
    const { text, sections } = joinPrograms(programs);
    const proof = proveProgram({ ...given, controllerId: controller }, setup, text, 0.14, { sections });
    expect(proof.findings).toEqual([]);
    expect(proof.steps.map((s) => s.operationId)).toEqual(able.planned.map((p) => p.operation.id));
    expect(proof.steps.reduce((sum, s) => sum + s.removed, 0)).toBeCloseTo(proof.removed, 3);
    expect(proof.steps.reduce((sum, s) => sum + s.minutes, 0)).toBeLessThanOrEqual(proof.clock.total + 1e-9);
    expect(proof.removed).toBeGreaterThan(10);
  });
});

describe('seeded faults', () => {
  test('the program itself is clean', () => expect(proveText(posted)).toEqual([]));

  test('a cut too deep is a gouge at its line', () => {
    const { text, line } = seeded(/X.* I.* J.* F/, (l) => l);
    const lines = text.split('\n');
    const cut = lines.findIndex((l, i) => i > line && /^N\d+ (G1 )?X[\d.-]+( Y[\d.-]+)?( F[\d.]+)?$/.test(l));
    lines[cut] += ' Z-6.';
    const found = proveText(lines.join('\n')).filter((f) => f.code === 'gouge');
    expect(found[0]).toMatchObject({ level: 'stop', place: { line: expect.any(Number) } });
    expect(Math.abs(found[0].place.line! - (cut + 1))).toBeLessThanOrEqual(1);
  });

  test('a wall cut away sideways is a gouge', () => {
    const lines = posted.split('\n');
    const cut = lines.findIndex((l, i) => i > 30 && /^N\d+ G1 X/.test(l));
    lines.splice(cut, 0, 'G91 G1 X20. F500', 'X-20.', 'G90');
    expect(proveText(lines.join('\n')).some((f) => f.code === 'gouge' && f.place.line === cut + 1)).toBe(true);
  });

  test('one line is one gouge though its arc is many motions, and another one each time a subprogram runs it', () => {
    const head = 'G21 G90 G54\nT4 M6\nS5000 M3\nG0 X40 Y25 Z5\n';
    const lines = (body: string) =>
      proveText(head + body)
        .filter((f) => f.code === 'gouge')
        .map((f) => f.place.line);
    expect(lines('G1 Z0 F200\nG18 G3 X30 Z0 I-5 K0\nG17 G0 Z30\nM30\n')).toEqual([6]);
    expect(lines('M98 P7 L2\nG0 Z30\nM30\no7\nG91 G1 X-15 F200\nZ-11\nZ11\nG90\nM99\n')).toEqual([10, 10]);
  });

  test('a feed turned into a rapid is found', () => {
    const lines = posted.split('\n');
    const entry = lines.findIndex((l) => /^N\d+ G3/.test(l));
    lines.splice(entry, 0, 'G0 Z-4.');
    expect(proveText(lines.join('\n')).find((f) => f.code === 'rapid-through-stock')!.place.line).toBe(entry + 1);
  });

  test('what was not cut is told as left', () => {
    const found = proveText('G21 G90 G54\nT4 M6\nS5000 M3\nG0 X0 Y0 Z20\nG1 X1 F100\nM30\n');
    expect(found).toContainEqual(
      expect.objectContaining({ code: 'metal-left', level: 'care', place: expect.objectContaining({ feature: 'f2' }) }),
    );
  });

  test('another tool than the one here is told at its call', () => {
    const text = posted.replace(/\(T4 [^)]*\)/, '(T4 12 MM END MILL)');
    const call = text.split('\n').findIndex((l) => /T4 M6/.test(l)) + 1;
    expect(proveText(text)).toEqual([
      expect.objectContaining({ code: 'tool-differs', place: expect.objectContaining({ line: call }) }),
    ]);
  });

  test('a tool changed in the rack meanwhile cuts into the walls: a gouge at a line of its own', () => {
    const thick = { ...job, tools: job.tools.map((t) => (t.number === 4 ? { ...t, diameter: 10.4 } : t)) };
    const found = proveProgram(thick, thick.setups[0], posted, 0.1).findings;
    const gouges = found.filter((f) => f.code === 'gouge');
    expect(gouges.length).toBeGreaterThan(0);
    expect(gouges.every((f) => /[XYZ]/.test(posted.split('\n')[f.place.line! - 1]))).toBe(true);
  });

  test.each([
    ['terse', 'G90G21G54\nT4M6\nM3S5000\nG0X0Y0Z5\nG0X40Y25\nG1Z-4.5F200\nG0Z30\nM30\n', 6],
    ['incremental', 'G21 G90 G54\nT4 M6\nS5000 M3\nG0 X40 Y25 Z5\nG91\nG1 Z-9.5 F200\nG1 X5\nG90 G0 Z30\nM30\n', 6],
    ['inches', 'G20 G90 G54\nT4 M6\nS5000 M3\nG0 X1.5 Y1 Z.2\nG1 Z-.1 F8\nG1 Z-.18\nG0 Z1\nM30\n', 6],
    ['subprogram', 'G21 G90 G54\nT4 M6\nS5000 M3\nG0 X40 Y25 Z5\nM98 P7\nG0 Z30\nM30\nO7\nG1 Z-4.5 F200\nM99\n', 9],
    [
      'turned',
      'G21 G90 G54\nT4 M6\nS5000 M3\nG0 X40 Y25 Z5\nG68 X40 Y25 R30\nG1 Z-4 F200\nG1 X80 Y25\nG69 G0 Z30\nM30\n',
      7,
    ],
  ])('a cut into the part by a program of another hand, %s, is a gouge at its line', (_, text, line) => {
    const found = proveText(text).filter((f) => f.code === 'gouge');
    expect(found.map((f) => f.place.line)).toContain(line);
  });

  test.each([
    ['a speed the machine has not got', /^(.*)S\d+ M3/m, '$1S90000 M3', 'speed-beyond', 'stop'],
    ['no speed at all', /S\d+ M3/, 'M3', 'no-speed', 'stop'],
    ['the wrong turn', /M3\b/, 'M4', 'wrong-turn', 'stop'],
    ['a feed the machine cannot run', / F\d+\.?/, ' F90000', 'feed-beyond', 'care'],
  ])('%s is told', (_, find, put, code, level) => {
    const found = proveText(posted.replace(find, put)).filter((f) => f.code === code);
    expect(found).toEqual([
      expect.objectContaining({ level, place: expect.objectContaining({ line: expect.any(Number) }) }),
    ]);
  });

  test('a shifted zero is a gouge and metal left at once', () => {
    const shifted = {
      ...job,
      setups: [{ ...job.setups[0], zero: { ...job.setups[0].zero, point: 'centre' as const } }],
    };
    expect(hasStop(proveProgram(shifted, shifted.setups[0], posted, 0.14).findings)).toBe(true);
  });
});

test('what goes through and another setup cuts is asked of that one', () => {
  const holed = jobWith({ type: 'round', diameter: 8 }, { meaning: 'hole', through: true });
  const two = addSetup(withOperation(holed, 'face', [], tool(1)));
  const turned = { ...two.setups[1], up: FACE_UPS.underside };
  const left = (asked: Job) =>
    prove(asked, 0.4).findings.filter((f) => f.code === 'metal-left' && f.place.feature === 'f2').length;
  const drills = withOperation(two, 'drill', ['f2'], tool(7));
  const drilled = withSetup(
    { ...drills, setups: two.setups },
    { ...turned, operations: drills.setups[0].operations.slice(-1) },
  );
  expect([left(two), left(drilled)]).toEqual([1, 0]);
});
