import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Copies, laidOperations, placesOfCopies } from '../document/copies';
import { Job, Setup } from '../document/job';
import { editOperation } from '../document/edit';
import { pileOf, volumeOf } from '../stock/height/field';
import { readJob } from './documents';
import { groundOf } from './ground';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { leavings } from './leavings';
import { leftBefore, proveProgram } from './prove';

const CELL = 0.3;
const FOUR: Copies = { columns: 2, rows: 2, dx: 95, dy: 65, order: 'by tool' };

/** A plate of 80 x 50 x 10 with a pocket off its middle and a hole, cut out of 6 mm more below. */
function one(): Job {
  const pocket = { type: 'rectangle', width: 24, height: 16, radius: 5 } as const;
  const drawn = withStock(jobWith(pocket, { x: 22, y: 20, depth: 4 }), {
    left: 8,
    right: 8,
    front: 8,
    back: 8,
    top: 0,
    bottom: 6,
  });
  const pocketed = withOperation(drawn, 'pocket', ['f2'], tool(7));
  return withOperation(pocketed, 'contour', ['f1'], tool(4), { breakthrough: 0.2 });
}

const laid = (copies: Partial<Copies> = {}, job = one()): Job => ({
  ...job,
  setups: [{ ...job.setups[0], copies: { ...FOUR, ...copies } }, ...job.setups.slice(1)],
});

function proved(job: Job, index = 0) {
  const setup = job.setups[index];
  const plan = planSetup(job, setup);
  const { programs, findings } = postSetup(job, setup, plan);
  const { left } = leftBefore(job, setup, CELL);
  const text = programs.length ? joinPrograms(programs).text : '';
  const proof = proveProgram(job, setup, text, CELL, { left, sections: programs[0]?.sections });
  const codes = [...new Set([...planFindings(plan), ...findings, ...proof.findings].map((f) => f.code))];
  return { proof, codes, text, plan };
}

test('four parts from one blank come out as four times the one, each where it lies, in one program', () => {
  const job = laid();
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  const [alone, four] = [proved(one()), proved(job)];
  expect(four.codes).toEqual([]);
  const { region } = groundOf(job, job.setups[0]).stock;
  expect(region[0].map((p) => [p.x, p.y])).toContainEqual([80 + 95 + 8, 50 + 65 + 8]);
  const { field } = four.proof;
  const height = (x: number, y: number) =>
    pileOf(
      field,
      Math.floor((y - field.y0) / field.cell) * field.nx + Math.floor((x - field.x0) / field.cell),
      -100,
    )[0];
  for (const { x, y } of placesOfCopies(job.setups[0])) {
    expect(height(22 + x, 20 + y)).toBeCloseTo(-4, 3);
    expect(height(58 + x, 20 + y)).toBeCloseTo(0, 3);
    expect(height(x - 5, 20 + y)).toBeLessThan(-10);
  }
  expect(four.proof.removed / alone.proof.removed).toBeGreaterThan(3.8);
  expect(four.proof.removed / alone.proof.removed).toBeLessThan(4.1);
  // Where their gaps meet they share metal. A tool is changed as often as for one.
  const changes = (text: string) => text.match(/ M6\b/g)!.length;
  expect(changes(four.text)).toBe(changes(alone.text));
});

test('part by part all is done on one before the next; what is placed on a line is placed on each', () => {
  const job = laid({ rows: 1, order: 'part by part' });
  expect(laidOperations(job.setups[0]).map((o) => o.targets.join())).toEqual(['f2', 'f1', 'f2~2', 'f1~2']);
  expect(proved(job).codes).toEqual([]);
  const [, contour] = job.setups[0].operations;
  const begun = editOperation(laid({ rows: 1 }), contour.id, (o) => ({ ...o, begins: [{ x: 80, y: 25 }] }));
  const all = laidOperations(begun.setups[0]);
  expect(all.map((o) => o.targets.join())).toEqual(['f2,f2~2', 'f1', 'f1~2']);
  expect(all[2].begins).toEqual([{ x: 175, y: 25 }]);
});

test('the first of them goes on into the next setup, or all again where that has as many', () => {
  const base = laid();
  const [first] = base.setups;
  const second: Setup = {
    ...{ ...first, id: 's2', name: 'Below', up: 'underside, turned sideways', operations: [], copies: undefined },
    stock: { ...first.stock, shape: 'as left' },
  };
  const single: Job = { ...base, setups: [first, second] };
  const { left } = leftBefore(single, second, CELL);
  const wanted = 80 * 50 * 16 - 4 * (24 * 16 - (4 - Math.PI) * 25);
  const volume = volumeOf(left!.field, -100);
  // The flange below it, sawn half way to the next, hangs on to it.
  expect(volume).toBeGreaterThan(wanted);
  expect(volume).toBeLessThan(wanted + (95.5 * 65.5 - 80 * 50) * 6);
  const again = { ...second, copies: { ...FOUR, dx: 110, dy: 80 } };
  const four = leavings(base, groundOf(base, first), again, proved(base).proof);
  expect(Math.abs(volumeOf(four.field, -100) / (4 * volume) - 1)).toBeLessThan(0.01);
});

test('parts that lie into each other, or nearer than the tool that cuts round them, are refused', () => {
  expect(proved(laid({ dx: 79 })).codes).toContain('copies-overlap');
  const near = proved(laid({ dx: 86 }));
  expect(near.codes).toContain('copies-too-close');
  expect(near.text).toBe('');
  const { findings } = readJob(JSON.parse(JSON.stringify(laid({ columns: 1000 }))));
  expect(findings.map((f) => f.place.field)).toEqual(['setups.0.copies.columns']);
});

test('part by part, as subprograms too, each part is cut where it lies', () => {
  const job = laid({ rows: 1, order: 'part by part' });
  const called = { ...job, output: { ...job.output, subprograms: true } };
  const [long, short] = [proved(job), proved(called)];
  expect(short.codes).toEqual([]);
  expect(short.proof.removed).toBeCloseTo(long.proof.removed, 6);
});
