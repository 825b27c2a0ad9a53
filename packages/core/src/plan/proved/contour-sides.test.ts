import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { planSetup } from '../pipeline';
import { LINE, TAGS } from '../../path/path';

describe('contour', () => {
  const round = (meaning: 'boss' | 'pocket', more = {}) =>
    jobWith({ type: 'round', diameter: 30 }, { meaning, depth: meaning === 'boss' ? 0 : 5, ...more });

  test.each(['climb', 'conventional'])('%s round the outside, through, within the bar', (direction) => {
    const proof = prove(
      withOperation(
        withStock(jobWith(undefined), { left: 1, right: 1, front: 1, back: 1, top: 0 }),
        'contour',
        ['f1'],
        tool(4),
        { direction },
      ),
    );
    expect(proof.codes).toEqual([]);
  });

  test('inside and outside are the right way round, and climb keeps the wall at the right', () => {
    const run = (job: ReturnType<typeof round>, side: string) => {
      const { path } = planSetup(job, job.setups[0]).planned[0].plan;
      const cut = Array.from({ length: path.count }, (_, i) => i).filter(
        (i) => TAGS[path.tag[i]] === 'cut' && path.kind[i] > LINE,
      );
      return { radius: Math.hypot(path.x[cut[0]] - 40, path.y[cut[0]] - 25), ccw: path.kind[cut[0]] === 3, side };
    };
    expect(
      run(withOperation(round('pocket'), 'contour', ['f2'], tool(7), { side: 'inside', finish: false }), 'in'),
    ).toEqual({ radius: expect.closeTo(12, 2), ccw: true, side: 'in' });
    expect(
      run(withOperation(round('boss'), 'contour', ['f2'], tool(7), { side: 'outside', finish: false }), 'out'),
    ).toEqual({ radius: expect.closeTo(18, 2), ccw: false, side: 'out' });
  });

  test('the finish lap lies within 5 micrometres of the wall', () => {
    const job = withOperation(round('pocket'), 'contour', ['f2'], tool(7), { side: 'inside' });
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    const last = Array.from({ length: path.count }, (_, i) => i)
      .filter((i) => TAGS[path.tag[i]] === 'cut')
      .slice(-1);
    for (const i of last) expect(Math.abs(Math.hypot(path.x[i] - 40, path.y[i] - 25) + 3 - 15)).toBeLessThan(0.005);
  });

  test('a chosen start is where the lap begins', () => {
    const at = (start: number) => {
      const job = withOperation(jobWith(undefined), 'contour', ['f1'], tool(7), {
        startAt: 'chosen',
        start,
        descent: 'plunge',
        finish: false,
      });
      const { path } = planSetup(job, job.setups[0]).planned[0].plan;
      return { x: path.x[0], y: path.y[0] };
    };
    expect(Math.hypot(at(0).x - at(0.5).x, at(0).y - at(0.5).y)).toBeGreaterThan(40);
  });

  test('a tool that does not fit inside is told', () => {
    const job = withOperation(jobWith({ type: 'round', diameter: 8 }), 'contour', ['f2'], tool(4), { side: 'inside' });
    expect(post(job).codes).toContain('contour-too-small');
  });
});
