import { editOperation, withController } from '../../document/edit';

import { parseJob, readJob } from '../documents';
import fc from 'fast-check';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { planSetup, postSetup } from '../pipeline';
import { MOVE } from '../../path/motions';
import { readProgram } from '../../program/read/reader';
import { PathBuilder } from '../../path/path';
import { CONTROLLERS } from '../../shop/controllers';
import { writePrograms } from '../../program/write/writer';

const read = (text: string) => readProgram(text, { homeZ: 100, unit: 'mm' });
const START = 'G21 G90 G94 G17\nT1 M6\nS1000 M3\nG54 G0 X0 Y0 Z10\nF100\n';
const codes = (text: string) => read(text).findings.map((f) => `${f.code}@${f.place.line}`);
const ends = (text: string) => {
  const { motions: m } = read(text);
  return Array.from({ length: m.count }, (_, i) => [m.x[i], m.y[i], m.z[i]]);
};

describe('reading', () => {
  test('absolute and incremental, inch and millimetre', () => {
    expect(ends(START + 'G1 X10 Y5\nG91 X1 Z-2\nG90 G20 X1.\n').slice(-3)).toEqual([
      [10, 5, 10],
      [11, 5, 8],
      [25.4, 5, 8],
    ]);
  });

  test('arcs by centre and by radius agree', () => {
    const a = read(START + 'G1 X0 Y0\nG3 X10 Y10 I0 J10\n').motions;
    const b = read(START + 'G1 X0 Y0\nG3 X10 Y10 R10\n').motions;
    const last = a.count - 1;
    expect([b.cx[last], b.cy[last]]).toEqual([expect.closeTo(a.cx[last], 9), expect.closeTo(a.cy[last], 9)]);
    const long = read(START + 'G1 X0 Y0\nG3 X10 Y10 R-10\n').motions;
    expect([long.cx[last], long.cy[last]]).toEqual([expect.closeTo(10, 9), expect.closeTo(0, 9)]);
  });

  test('arcs in the XZ plane become fine chords', () => {
    const m = read(START + 'G1 X0 Z0\nG18 G2 X10 Z0 I5 K0\n').motions;
    expect(m.count).toBeGreaterThan(60);
    const highest = Math.max(...m.z.slice(6));
    expect(Math.abs(Math.abs(highest) - 5) < 0.01 || Math.abs(Math.min(...m.z) + 5) < 0.01).toBe(true);
  });

  test.each([
    ['G81', 'G98 G81 X5 Y5 Z-4 R1 F50\nX15\nG80', 2],
    ['G83', 'G99 G83 X5 Y5 Z-4 R1 Q2 F50\nG80', 1],
    ['G73', 'G98 G73 X5 Y5 Z-4 R1 Q2 F50\nG80', 1],
  ])('canned cycle %s goes to its depth at every hole', (_, text, holes) => {
    const { motions: m, findings } = read(`${START}${text}\nM30\n`);
    expect(findings).toEqual([]);
    expect(Array.from(m.z).filter((z, i) => z === -4 && m.type[i] === MOVE.line)).toHaveLength(holes);
  });

  test('dwells: with a point seconds, without milliseconds', () => {
    const m = read(START + 'G4 P500\nG4 P2.5\n').motions;
    expect(Array.from(m.seconds).filter((s) => s > 0)).toEqual([0.5, 2.5]);
  });

  test('remarks, block skip, line numbers and a second program word are taken in stride', () => {
    const { comments, findings } = read('%\nO100 (PLATE)\n' + START + '/N10 G1 X5 ; tail\n(another)\nM30\n%\nG1 X99\n');
    expect(comments.map((c) => c.text)).toEqual(['PLATE', 'tail', 'another']);
    expect(findings.map((f) => f.level)).toEqual(['note']);
  });

  test.each([
    ['#100 = 5', 'not-understood@6'],
    ['G1 X[#1+2]', 'not-understood@6'],
    ['G41 D1 X5', 'not-followed@6'],
    ['M98 P1000', 'subprogram-missing@6'],
    ['G51 X0 Y0 P2', 'not-followed@6'],
    ['G93 G1 X5', 'no-feed-in-inverse-time@6'],
    ['G65 P9010 A1', 'not-followed@6'],
    ['G2 X10 Y0 I1 J0', 'arc-impossible@6'],
    ['G2 X100 Y0 R1', 'arc-radius-too-small@6'],
    ['G1 X5 F0', 'feed-zero@6'],
    ['G81 X5 Y5', 'cycle-incomplete@6'],
    ['M5\nG1 X5', 'spindle-off@7'],
    ['G777 X1', 'not-understood@6'],
  ])('%s is reported at its line', (text, expected) => expect(codes(START + text + '\n')).toContain(expected));

  test('missing work offset, feed and tool are told', () => {
    const found = read('G21 G90\nG0 X0 Y0 Z5\nG1 Z-1\n').findings.map((f) => f.code);
    expect(found).toEqual(expect.arrayContaining(['no-feed', 'spindle-off', 'no-offset', 'no-tool']));
  });

  test('an empty file moves nothing, and says so', () => expect(codes('')).toEqual(['no-motion@1']));

  test('mutated programs never crash or hang, and what is not understood is told', () => {
    const { text } = post(
      withOperation(
        withStock(jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }), {}),
        'pocket',
        ['f2'],
        tool(4),
      ),
    );
    fc.assert(
      fc.property(
        fc.array(fc.record({ at: fc.nat(text.length - 1), cut: fc.nat(6), put: fc.string({ maxLength: 6 }) }), {
          minLength: 1,
          maxLength: 5,
        }),
        (cuts) => {
          let bad = text;
          for (const { at, cut, put } of cuts) bad = bad.slice(0, at) + put + bad.slice(at + cut);
          const { motions, findings } = read(bad);
          expect(findings.every((f) => f.place.line! >= 1)).toBe(true);
          for (let i = 0; i < motions.count; i++)
            if (motions.type[i] < MOVE.dwell) expect(Number.isFinite(motions.z[i])).toBe(true);
        },
      ),
      { numRuns: 300, seed: 9 },
    );
  });
});

describe('writing', () => {
  const base = withOperation(
    withStock(jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }), {}),
    'pocket',
    ['f2'],
    tool(4),
  );
  const drilled = withOperation(
    jobWith({ type: 'round', diameter: 5 }, { meaning: 'hole', through: true }),
    'drill',
    ['f2'],
    tool(15),
    { method: 'peck', peck: 3 },
  );

  test('same job, same bytes', () => expect(post(base).text).toBe(post(JSON.parse(JSON.stringify(base))).text));

  test.each(['mm', 'inch'] as const)('a path reads back within two micrometres, arcs as arcs, in %s', (unit) => {
    const job = { ...base, output: { ...base.output, unit } };
    const plan = planSetup(job, job.setups[0]);
    const { path } = plan.planned[0].plan;
    const { motions: m, findings } = read(post(job).text);
    expect(findings).toEqual([]);
    const cuts = Array.from({ length: m.count }, (_, i) => i).filter(
      (i) => m.type[i] === MOVE.arcCcw || m.type[i] === MOVE.arcCw,
    );
    const arcs = Array.from({ length: path.count }, (_, i) => i).filter((i) => path.kind[i] > 1);
    expect(cuts.length / arcs.length).toBeGreaterThan(0.95);
    const slack = unit === 'mm' ? 0.002 : 0.003;
    for (const i of cuts) {
      const start = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
      expect(Math.abs(start - Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]))).toBeLessThan(slack);
    }
    const deepest = Math.min(...m.z) + plan.ground.zero.z;
    expect(Math.abs(deepest + 5)).toBeLessThan(slack);
  });

  test('a tiny arc never turns into a full circle', () => {
    const path = new PathBuilder().rapid(0, 0, 5).line(0, 0, 0, 100, 'entry').line(10, 0, 0, 100, 'cut');
    path.arc(10, 5, 10.0004, 0.0000001, 0, false, 100, 'cut').line(20, 0, 0, 100, 'cut');
    const step = { operationId: 'o', name: 'x', tool: tool(4), rpm: 1000, coolant: 'off' as const, path: path.build() };
    const { programs } = writePrograms(CONTROLLERS[0], [step], {
      file: 'x',
      name: 'x',
      number: 1,
      unit: 'mm',
      workOffset: 'G54',
      free: 10,
      lineNumbers: false,
    });
    expect(programs[0].text).not.toMatch(/G[23] /);
  });

  test('the industrial dialect uses its cycles, offsets and tool changes', () => {
    const { text } = post(drilled);
    expect(text).toMatch(/T15 M6/);
    expect(text).toMatch(/G43 H15 Z/);
    expect(text).toMatch(/G98 G83 X.* Q3\. F/);
    expect(text).toMatch(/G53 G0 Z0\.\n.*M30\n%\n$/s);
  });

  test('the hobby dialect writes cycles out, one program a tool, no length offsets', () => {
    const two = withOperation(drilled, 'contour', ['f1'], tool(7));
    const { programs } = postSetup(two, two.setups[0], planSetup(two, two.setups[0]), 'hobby');
    expect(programs.map((p) => p.tools)).toEqual([[15], [7]]);
    const all = programs.map((p) => p.text).join('');
    expect(all).not.toMatch(/G8[1-9]|G73|G43|M6/);
    expect(all).toMatch(/G4 P3\./);
    expect(read(programs[0].text).findings).toEqual([]);
    expect(read(programs[0].text).tools).toEqual([15]);
  });

  test('written-out and canned pecks drill the same', () => {
    const depths = (controller: string) => {
      const { programs } = postSetup(drilled, drilled.setups[0], planSetup(drilled, drilled.setups[0]), controller);
      const { motions: m } = read(programs[0].text);
      return Array.from(m.z)
        .filter((_, i) => m.type[i] === MOVE.line)
        .map((z) => z.toFixed(2));
    };
    expect(depths('hobby')).toEqual(depths('iso-mill'));
  });

  test('the length offset is the pocket’s, or the one the tool names', () => {
    const heads = (lengthOffset: number) =>
      post({ ...base, tools: base.tools.map((t) => ({ ...t, lengthOffset })) }).text.match(/G43 H\d+/g);
    expect(heads(0)).toEqual(base.tools.map((t) => `G43 H${t.number}`));
    expect(new Set(heads(77))).toEqual(new Set(['G43 H77']));
  });

  test('a shop’s own dialect travels with the job; a shipped one by its id alone', () => {
    const [iso] = CONTROLLERS;
    expect(withController(base, iso).controller).toBeUndefined();
    const own = withController(base, { ...iso, coolant: { flood: 'M108' }, lineNumbers: { step: 5 } });
    const read = parseJob(JSON.stringify(own));
    expect(read.findings).toEqual([]);
    expect(post(read.job!).text).toMatch(/^N5 /m);
    expect(post(read.job!).text).not.toMatch(/M8$/m);
    expect(withController(own, iso)).toEqual(base);
    const cooled = editOperation(own, own.setups[0].operations[0].id, (o) => ({ ...o, coolant: 'flood' as const }));
    expect(prove(cooled, 0.5).codes).toEqual(prove(base, 0.5).codes);
    const bad = { ...own, controller: { ...own.controller, coolant: { flood: 'on please' } } };
    expect(readJob(bad).findings[0].place.field).toBe('controller.coolant.flood');
  });

  test('a coolant the control lacks is named before posting', () => {
    const misted = {
      ...base,
      setups: [{ ...base.setups[0], operations: [{ ...base.setups[0].operations[0], coolant: 'mist' as const }] }],
    };
    const { programs, findings } = postSetup(misted, misted.setups[0], planSetup(misted, misted.setups[0]), 'hobby');
    expect(programs).toEqual([]);
    expect(findings).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ code: 'no-coolant', place: { operation: 'o1', field: 'coolant' } }),
      ]),
    );
  });

  test('line numbers on or off; nothing that is not plain text in remarks', () => {
    const off = post({ ...base, name: 'Nabe (für) 5°;%', output: { ...base.output, lineNumbers: false } }).text;
    expect(off).not.toMatch(/^N\d/m);
    expect(off).toMatch(/^[\x0a\x20-\x7e]+$/);
    expect(post(base).text).toMatch(/^N10 G21$/m);
  });

  test('climb and conventional, every shape: posted text is understood by the reader', () => {
    for (const controller of CONTROLLERS) {
      const { programs } = postSetup(base, base.setups[0], planSetup(base, base.setups[0]), controller.id);
      for (const p of programs) expect(read(p.text).findings).toEqual([]);
    }
  });
});
