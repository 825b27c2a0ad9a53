import { jobWith, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { withController } from '../../document/edit';
import { Job } from '../../document/job';
import { CONTROLLERS } from '../../shop/controllers';
import { planSetup, postSetup } from '../pipeline';
import { joinPrograms } from '../joined';
import { proveProgram } from '../prove';

/** A pocket in layers, drilled and cut out, at a control that holds so much of a program. */
function posted(mostKilobytes: number | undefined, id = 'iso-mill') {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 }, { depth: 6 });
  const job: Job = withController(drawn, { ...CONTROLLERS.find((c) => c.id === id)!, mostKilobytes });
  const pocket = withOperation(job, 'pocket', ['f2'], tool(7), { layer: 0.5 });
  const all = withOperation(pocket, 'contour', ['f1'], tool(4), { layer: 1 });
  const plan = planSetup(all, all.setups[0]);
  const { programs, findings } = postSetup(all, all.setups[0], plan);
  const { text, sections } = joinPrograms(programs);
  const proved = () => proveProgram(all, all.setups[0], text, 0.4, { sections });
  return { programs, codes: findings.map((f) => f.code), proved };
}

const whole = posted(undefined);

test.each([3, 6])('programs of %s kB at most, each whole in itself, that together make the piece', (most) => {
  const { programs, proved, codes } = posted(most);
  const proof = proved();
  expect(programs.length).toBeGreaterThan(1);
  expect(Math.max(...programs.map((p) => p.text.length))).toBeLessThanOrEqual(most * 1000);
  expect(codes).not.toContain('program-too-large');
  for (const { text } of programs)
    expect(text).toMatch(/^%\nO\d+[^]*G21[^]*T\d+ M6\n[^]*S\d+ M3\n[^]*G43 H[^]*M30\n%\n$/);
  expect(new Set(programs.map((p) => p.fileName)).size).toBe(programs.length);
  expect(proof.removed).toBeCloseTo(whole.proved().removed, 2);
  expect(proof.findings.filter((f) => f.level === 'stop')).toEqual([]);
  expect(proof.steps.map((s) => s.operationId)).toEqual(expect.arrayContaining(['o1', 'o2']));
});

test('what fits is one program, as before', () => {
  const text = whole.programs[0].text;
  expect(posted(text.length / 1000).programs).toEqual(whole.programs);
  expect(posted(0).programs).toEqual(whole.programs);
});

test('a piece that cannot be split is posted, and told', () => {
  const { programs, codes } = posted(0.4);
  expect(codes).toContain('program-too-large');
  expect(programs.some((p) => p.text.length > 400)).toBe(true);
});

test('one program a tool is split the same way', () => {
  const { programs } = posted(3, 'hobby');
  expect(programs.length).toBeGreaterThan(2);
  expect(new Set(programs.map((p) => p.fileName)).size).toBe(programs.length);
  expect(programs.every((p) => p.tools.length === 1)).toBe(true);
});
