import { jobWith, prove, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { withController } from '../../document/edit';
import { CONTROLLERS } from '../../shop/controllers';
import { ARCS, Controller } from '../../shop/controller';

/** A pocket entered by helices, and the outside around rounded corners, at a control that runs only some arcs. */
function proofAt(more: Partial<Controller>) {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 });
  const job = withController(drawn, { ...CONTROLLERS[0], ...more });
  const pocket = withOperation(job, 'pocket', ['f2'], tool(4));
  return prove(withOperation(pocket, 'contour', ['f1'], tool(4)), 0.25);
}
const lines = (text: string) => text.split('\n').map((l) => l.replace(/^N\d+ /, ''));
const arcsOf = (text: string) => lines(text).filter((l) => /I\S+ J/.test(l));

const all = proofAt({});

test.each(ARCS)('a control that runs %s arcs gets only those, and the same piece', (arcs) => {
  const proof = proofAt({ arcs });
  const written = arcsOf(proof.text);
  expect(written.length > 0).toBe(arcs !== 'none');
  expect(written.some((l) => / Z/.test(l))).toBe(arcs === 'all');
  expect(proof.codes.sort()).toEqual([...all.codes].sort());
  expect(proof.removed).toBeCloseTo(all.removed, 1);
  expect(Math.abs(proof.clock.cut / all.clock.cut - 1)).toBeLessThan(0.1);
});

test('straights lie as near their arc as they are asked to, and are as few as that allows', () => {
  const count = (chord: number) => lines(proofAt({ arcs: 'none', chord }).text).length;
  const [coarse, fine] = [count(0.02), count(0.005)];
  // A quarter of the error takes twice the straights; what was straight before stays.
  expect(fine).toBeGreaterThan(1.5 * coarse);
  expect(fine).toBeLessThan(2.2 * coarse);
});
