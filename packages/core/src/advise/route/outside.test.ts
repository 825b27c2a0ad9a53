import { jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { addSetup } from '../../document/edit';
import { Job } from '../../document/job';
import { planFindings, planSetup } from '../../plan/pipeline';
import { MACHINES } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { proposeRoute } from './propose';
import { Proposal } from './step';

describe('an outside with an inside corner', () => {
  const bulge = -Math.tan(Math.PI / 8);
  const angled = (r: number): Job => {
    const inner =
      r > 0
        ? [
            { x: 40 + r, y: 25, bulge },
            { x: 40, y: 25 + r, bulge: 0 },
          ]
        : [{ x: 40, y: 25, bulge: 0 }];
    const corners = [
      [0, 0],
      [80, 0],
      [80, 25],
    ].map(([x, y]) => ({ x, y, bulge: 0 }));
    const vertices = [...corners, ...inner, { x: 40, y: 50, bulge: 0 }, { x: 0, y: 50, bulge: 0 }];
    const base = withStock(jobWith(undefined, {}, 12), { left: 3, right: 3, front: 3, back: 3, bottom: 4 });
    const features = base.part.features.map((f) => ({
      ...f,
      x: 0,
      y: 0,
      shape: { type: 'chain' as const, closed: true, vertices },
    }));
    return addSetup({ ...base, machine: MACHINES[2], part: { ...base.part, features } });
  };
  const round = ({ job }: Proposal) =>
    job.setups[0].operations
      .filter((o) => o.targets.includes('f1'))
      .map((o) => [o.kind, job.tools.find((t) => t.id === o.toolId)!.diameter]);

  test('that is tight: a quick cutter round it, then one that gets into the corner', () => {
    const mill = (diameter: number): Tool => ({
      ...{ ...tool(4), id: `m${diameter}`, number: diameter, diameter, shankDiameter: diameter },
      ...{ fluteLength: 26, stickOut: 30 },
    });
    const tight = proposeRoute({ ...angled(4.2), tools: [] }, 's1', [tool(1), mill(8), mill(16)]);
    expect(tight.missing).toEqual([]);
    expect(round(tight)).toEqual([
      ['clear', 16],
      ['clear', 8],
    ]);
    expect(prove(tight.job, 0.2).codes.filter((c) => c !== 'below-stock')).toEqual([]);
  });

  test('that no cutter gets into is told, also by the contour itself', () => {
    const sharp = proposeRoute(angled(0), 's1');
    expect(sharp.missing).toEqual([
      { feature: 'Plate', why: expect.stringMatching(/into its inside corners; end mill 3 mm/) },
    ]);
    const cut = withOperation(angled(0), 'contour', ['f1'], tool(4));
    const told = (job: Job) => planFindings(planSetup(job, job.setups[0])).filter((f) => f.code === 'corner-left');
    const [{ data }] = told(cut);
    expect((data as { area: number }).area).toBeCloseTo((1 - Math.PI / 4) * 25, 0);
    expect(told(withOperation(angled(5.1), 'contour', ['f1'], tool(4)))).toEqual([]);
  });
});
