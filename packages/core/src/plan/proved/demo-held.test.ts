import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { leavings } from '../leavings';
import { proveProgram } from '../prove';
import { Piece } from '../../stock/height/height-stock';
import { groundOf } from '../ground';
import { joinPrograms } from '../joined';
import { parseJob } from '../documents';
import { planFindings, planSetup, postSetup } from '../pipeline';
import { placesOfCopies } from '../../document/copies';

const demo = (name: string) =>
  parseJob(readFileSync(join(__dirname, `../../../../../demo/jobs/${name}.json`), 'utf8')).job!;

test.each(['sounding-line-bracket', 'sounding-line-jaws'])('%s proves clean, setup by setup', (name) => {
  const job = demo(name);
  let left: Piece | undefined;
  job.setups.forEach((setup, i) => {
    const plan = planSetup(job, setup);
    const { programs, findings } = postSetup(job, setup, plan);
    const { text, sections } = joinPrograms(programs);
    const proof = proveProgram(job, setup, text, i ? undefined : 0.3, { left, sections });
    const said = [...planFindings(plan), ...findings, ...proof.findings].filter((f) => f.level !== 'note');
    expect(said.map((f) => f.message)).toEqual([]);
    for (const { margin } of proof.grip) expect(margin).toBeGreaterThan(2);
    const next = job.setups[i + 1];
    if (next) left = leavings(job, groundOf(job, setup), next, proof);
  });
});

test('the bracket is four from a bar, its second zero on the corner of the fixed jaw that the jaws are cut from', () => {
  const [bracket, jaws] = [demo('sounding-line-bracket'), demo('sounding-line-jaws')];
  const [bar, front] = bracket.setups;
  expect(placesOfCopies(bar)).toHaveLength(4);
  const { zero, held } = groundOf(bracket, front);
  const [first] = held[0].placed.bodies;
  expect([zero.x, zero.y]).toEqual([first.minX, first.maxY]);
  expect(groundOf(jaws, jaws.setups[0]).zero).toMatchObject({ x: 0 });
  expect(bracket.unit).toBe('inch');
});
