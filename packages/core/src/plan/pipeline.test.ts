import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { editOperation, withController } from '../document/edit';
import { Job, Setup } from '../document/job';
import { CONTROLLERS } from '../shop/controllers';
import { readJob } from './documents';
import { planFindings, planSetup, postSetup, programOf } from './pipeline';
import { joinPrograms } from './joined';
import { proveProgram } from './prove';

const SMALL = { type: 'rectangle', width: 24, height: 24, radius: 5 } as const;

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

  test('what was cut elsewhere is nothing to a pocket, what was cut in it is', () => {
    const pocketAt = (x: number, id: string) => ({ ...job.part.features[1], id, x, shape: SMALL });
    const part = { ...job.part, features: [job.part.features[0], pocketAt(20, 'a'), pocketAt(60, 'b')] };
    const two = ['a', 'b'].reduce<Job>((j, id) => withOperation(j, 'clear', [id], tool(7), { from: 'what is left' }), {
      ...job,
      part,
      setups: [{ ...job.setups[0], operations: [] }],
    });
    const cache = new Map();
    const before = planSetup(two, two.setups[0], cache).planned;
    const planned = (j: Job) => planSetup(j, j.setups[0], cache).planned.map((p) => p.plan);
    const elsewhere = editOperation(two, before[0].operation.id, (o) => ({
      ...o,
      params: { ...o.params, stepover: 0.7 },
    }));
    expect(planned(elsewhere)[0]).not.toBe(before[0].plan);
    expect(planned(elsewhere)[1]).toBe(before[1].plan);
    // The same way of the tool is the same, whatever it was planned from.
    const named = editOperation(two, before[0].operation.id, (o) => ({ ...o, name: 'Other', reason: 'Why not' }));
    expect(planned(named)[1]).toBe(before[1].plan);
    const within = editOperation(two, before[0].operation.id, (o) => ({ ...o, targets: ['b'] }));
    expect(planned(within)[1]).not.toBe(before[1].plan);
  });

  test('what names another tool of the rack is told anew where the rack changed', () => {
    const wide = withOperation(
      jobWith({ type: 'rectangle', width: 20, height: 5, radius: 1 }),
      'clear',
      ['f2'],
      tool(2),
    );
    const cache = new Map();
    const remedy = (j: Job) =>
      planFindings(planSetup(j, j.setups[0], cache)).find((f) => f.code === 'pocket-too-small')!.remedy;
    expect(remedy(wide)).toMatch(/^Choose a tool under/);
    expect(remedy({ ...wide, tools: [...wide.tools, { ...tool(9), number: 77 }] })).toMatch(/^T77, /);
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
    ['same-number', (j: typeof job) => ({ ...j, tools: j.tools.map((t) => ({ ...t, number: 1 })) })],
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

describe('what a program is called', () => {
  const job = withOperation(jobWith(undefined), 'face', [], tool(1));
  const two: Job = { ...job, setups: [job.setups[0], { ...job.setups[0], id: 's2', name: 'Underside' }] };
  const asked = (j: Job, more: Partial<Setup>, at = 1): Job => ({
    ...j,
    setups: j.setups.map((s, i) => (i === at ? { ...s, ...more } : s)),
  });
  const written = (j: Job, at = 1) => postSetup(j, j.setups[at], planSetup(j, j.setups[at]));

  test('by the place of its setup and the names of job and setup, or as asked', () => {
    expect(programOf(two, two.setups[1])).toMatchObject({
      number: 1002,
      name: 'Test Underside',
      file: 'test-underside',
    });
    const own = asked(two, { programNumber: 77, programTitle: 'Bracket, flip side' });
    const [program] = written(own).programs;
    expect(program.text).toMatch(/^%\nO0077 \(BRACKET, FLIP SIDE\)\n/);
    expect(program.fileName).toBe('bracket-flip-side.nc');
  });

  test('two of one number are not written, two of one title have different files', () => {
    const found = written(asked(two, { programNumber: 1001 }));
    expect(found.programs).toEqual([]);
    expect(found.findings).toMatchObject([{ code: 'program-number-twice', place: { field: 'programNumber' } }]);
    const [top, underside] = [0, 1].map(
      (at) => asked(asked(two, { programTitle: 'Кронштейн' }), { programTitle: 'Ось' }, 0).setups[at],
    );
    const named = { ...two, setups: [top, underside] };
    expect(named.setups.map((s) => programOf(named, s).file)).toEqual(['program-1001', 'program-1002']);
  });

  test('as short as its control takes them, and still apart', () => {
    const iso = CONTROLLERS.find((c) => c.id === job.controllerId)!;
    const short = withController({ ...two, name: 'A plate with a long name' }, { ...iso, longestFileName: 12 });
    expect(short.setups.map((s) => programOf(short, s).file)).toEqual(['a-plate-1001', 'a-plate-1002']);
    const alone = { ...short, setups: [{ ...short.setups[0], programTitle: 'Top side of it all' }] };
    expect(programOf(alone, alone.setups[0]).file).toBe('top-side-of');
    const plan = planSetup(alone, alone.setups[0]);
    const one = { ...short.controller!, toolChange: 'one program a tool' as const };
    const names = postSetup({ ...alone, controller: one }, alone.setups[0], plan).programs.map((p) => p.fileName);
    expect(names.every((n) => n.length <= 12 + 1 + iso.fileExtension.length)).toBe(true);
    expect(new Set(names).size).toBe(names.length);
  });

  test('one program a tool: each has a number of its own', () => {
    const numbered = {
      ...CONTROLLERS.find((c) => c.toolChange !== 'automatic' && !c.beam)!,
      frame: CONTROLLERS[0].frame,
    };
    const both = withOperation(job, 'contour', [job.part.features[0].id], tool(4));
    const { programs } = written(withController(both, numbered), 0);
    expect(programs.map((p) => /O(\d+)/.exec(p.text)![1])).toEqual(['1001', '1002']);
  });

  test.each([0, 10_000, 1.5])('%p is no number of a program', (programNumber) => {
    const bad = readJob(JSON.parse(JSON.stringify(asked(two, { programNumber }))));
    expect(bad.findings[0].place.field).toBe('setups.1.programNumber');
  });

  test('where it is to be begun at each tool, all that holds is stated there', () => {
    const both = withOperation(job, 'contour', [job.part.features[0].id], tool(4));
    const restarting = { ...both, output: { ...both.output, restarts: true } };
    const text = (j: Job) => written(j, 0).programs[0].text.replace(/^N\d+ /gm, '');
    const again = 'G21\nG17 G40 G49 G80 G90 G94\n(T4';
    expect(text(both)).not.toContain(again);
    expect(text(restarting)).toMatch(
      /G21\nG17 G40 G49 G80 G90 G94\n\(T4 [^]*\nT4 M6\nS\d+ M3\nG54 G0 X[^]*\nG43 H4 Z[^]*\nM8\n/,
    );
    // Only that: nothing else is another program.
    const own = text(restarting).replace('G21\nG17 G40 G49 G80 G90 G94\n(T4', '(T4');
    expect(own).toBe(text(both));
    expect(proveProgram(restarting, restarting.setups[0], text(restarting), 0.5).findings.map((f) => f.code)).toEqual(
      proveProgram(both, both.setups[0], text(both), 0.5).findings.map((f) => f.code),
    );
  });

  test('what is switched off is named in the head', () => {
    const both = withOperation(job, 'contour', [job.part.features[0].id], tool(4));
    const off = editOperation(both, both.setups[0].operations[1].id, (o) => ({ ...o, on: false, name: 'Wall, last' }));
    expect(written(off, 0).programs[0].text).toMatch(/^%\nO1001 \(TEST\)\n\(WITHOUT: WALL, LAST\)\n(N10 )?G21\n/);
    expect(written(both, 0).programs[0].text).not.toMatch(/WITHOUT/);
  });
});
