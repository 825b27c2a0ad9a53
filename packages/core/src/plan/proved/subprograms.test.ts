import { newFeature } from '../../part/plate/new';
import { SINGLE } from '../../part/plate/feature';
import { readProgram } from '../../program/read/reader';
import { isoMill } from '../../shop/controllers/iso-mill';
import { plate, tool } from '../../../testing/parts';
import { jobWith, post, prove, withOperation } from '../../../testing/jobs';
import { planSetup, postSetup } from '../pipeline';
import { joinPrograms } from '../joined';
import { proveProgram } from '../prove';
import { Job } from '../../document/job';

const grid = { ...SINGLE, type: 'grid' as const, count: 3, rows: 2, dx: 24, dy: 22 };

/** Six pockets in a grid and a row of holes opened by helices. */
function gridJob(unit: 'mm' | 'inch' = 'mm'): Job {
  const outline = plate();
  const pocket = newFeature(
    [outline],
    'pocket',
    'Cell',
    { type: 'rectangle', width: 18, height: 15, radius: 3 },
    {
      ...{ x: 15, y: 13.37, depth: 4, through: false, pattern: grid },
    },
  );
  const job: Job = {
    ...jobWith(undefined),
    part: { kind: 'plate', thickness: 10, features: [outline, { ...pocket, id: 'f2' }] },
  };
  const cut = withOperation(job, 'pocket', ['f2'], tool(4));
  return { ...cut, output: { ...cut.output, unit, subprograms: true } };
}
const plain = (job: Job): Job => ({ ...job, output: { ...job.output, subprograms: false } });
const read = (text: string, unit: 'mm' | 'inch') => readProgram(text, { homeZ: 200, unit });

/** A unit of the last decimal, mm, and a hair. */
const LAST_PLACE = { mm: 0.0011, inch: 0.0026 };

test.each(['mm', 'inch'] as const)(
  'each layer of six pockets is one subprogram, called six times; the machine does the same (%s)',
  (unit) => {
    const job = gridJob(unit);
    const [called, written] = [post(job), post(plain(job))];
    expect(called.text.match(/M98 P\d+/g)).toHaveLength(12);
    expect(called.text.match(/^O\d+$/gm)).toHaveLength(2);
    expect(called.text.length).toBeLessThan(written.text.length / 3);
    const [a, b] = [read(called.text, unit), read(written.text, unit)];
    expect(a.findings).toEqual([]);
    // Where each copy begins a control that was told to forget is told what it knows: nothing moves.
    expect(a.motions.count).toBe(b.motions.count);
    for (const column of ['x', 'y', 'z', 'cx', 'cy'] as const)
      a.motions[column].forEach((v, i) => {
        if (Number.isFinite(b.motions[column][i]))
          expect(Math.abs(v - b.motions[column][i])).toBeLessThan(LAST_PLACE[unit]);
      });
    expect(a.motions.feed).toEqual(b.motions.feed);
  },
);

test('it is proved with every move of each copy told by its operation', () => {
  const job = gridJob();
  const setup = job.setups[0];
  const joined = joinPrograms(postSetup(job, setup, planSetup(job, setup)).programs);
  const proof = proveProgram(job, setup, joined.text, 0.2, { sections: joined.sections });
  const whole = prove(plain(job), 0.2);
  expect(proof.findings.filter((f) => f.level === 'stop')).toEqual([]);
  expect(proof.removed).toBeCloseTo(whole.removed, 2);
  expect(proof.steps.map((s) => s.operationId)).toEqual(setup.operations.map((o) => o.id));
  expect(proof.steps[0].removed).toBeCloseTo(proof.removed, 2);
});

test('no two programs of a job share the number of a subprogram', () => {
  const job = gridJob();
  const twice: Job = { ...job, setups: [...job.setups, { ...job.setups[0], id: 's2', name: 'Second' }] };
  const numbers = twice.setups.map(
    (s) => postSetup(twice, s, planSetup(twice, s)).programs[0].text.match(/M98 P(\d+)/)![1],
  );
  expect(new Set(numbers).size).toBe(2);
});

test('a control without subprograms is told of, and every copy written out', () => {
  const job = { ...gridJob(), controller: { ...isoMill, subprograms: false } };
  const { text, codes } = post(job);
  expect(codes).toContain('no-subprograms');
  expect(text).toBe(post(plain(gridJob())).text);
});

test('programs that are split by size, each with its subprograms, are proved one after the other', () => {
  const job = { ...gridJob(), controller: { ...isoMill, mostKilobytes: 2.5 } };
  const two = withOperation(job, 'pocket', ['f2'], tool(4), { layer: 2.5 });
  const setup = two.setups[0];
  const { programs } = postSetup(two, setup, planSetup(two, setup));
  expect(programs.length).toBeGreaterThan(1);
  expect(programs.filter((p) => /M98/.test(p.text)).length).toBeGreaterThan(1);
  const joined = joinPrograms(programs);
  const proof = proveProgram(two, setup, joined.text, 0.25, { sections: joined.sections });
  expect(proof.findings.filter((f) => f.level === 'stop')).toEqual([]);
  expect(proof.removed).toBeCloseTo(prove(plain({ ...two, controller: isoMill }), 0.25).removed, 2);
  expect(proof.steps.map((s) => s.operationId)).toEqual(['o1', 'o2']);
});

test('no subprogram has the number of a program of the job', () => {
  const job = gridJob();
  const called = (of: Job) => post(of).text.match(/M98 P(\d+)/)![1];
  const [setup] = job.setups;
  const other = { ...setup, id: 's2', name: 'Second', programNumber: Number(called(job)) };
  expect(called({ ...job, setups: [setup, other] })).not.toBe(called(job));
});
