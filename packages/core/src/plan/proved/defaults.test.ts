import { TOOLS } from '../../shop/library';
import { jobWith, post, withOperation, withStock } from '../../../testing/jobs';
import { plate, tool } from '../../../testing/parts';
import { planSetup } from '../pipeline';
import { newFeature } from '../../part/plate/new';
import { Shape } from '../../part/plate/feature';
import { validateSync } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { ARC_CCW, ARC_CW, RAPID, TAGS } from '../../path/path';
import { KINDS } from '../../operation/registry';

const POCKET: Shape = { type: 'rectangle', width: 50, height: 30, radius: 6 };
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

describe('every kind', () => {
  test('its defaults pass its own checks, for every tool it takes', () => {
    for (const kind of KINDS) {
      const features = [
        plate(),
        newFeature(
          [plate()],
          (kind.works.find((w) => w !== 'outline') ?? 'pocket') as 'pocket',
          'F',
          { type: 'round', diameter: 30 },
          { x: 40, y: 25 },
        ),
      ];
      const job = { ...jobWith(undefined), part: { kind: 'plate' as const, thickness: 10, features } };
      for (let n = 1; n <= TOOLS.length; n++) {
        if (!kind.suits(tool(n))) continue;
        const { params } = withOperation(job, kind.kind, ['f2'], tool(n)).setups[0].operations[0];
        expect([
          kind.kind,
          tool(n).name,
          validateSync(plainToInstance(kind.Params, params), { whitelist: true, forbidNonWhitelisted: true }),
        ]).toEqual([kind.kind, tool(n).name, []]);
      }
    }
  });

  test('a switched-off value has no effect on the path', () => {
    const off = (finishStock: number) =>
      post(withOperation(withStock(jobWith(POCKET), flush), 'pocket', ['f2'], tool(4), { finish: false, finishStock }))
        .text;
    expect(off(0.1)).toBe(off(3));
  });

  test('first move is a rapid, feeds are the ones asked for, entries at the entry feed', () => {
    const job = withOperation(withStock(jobWith(POCKET), flush), 'pocket', ['f2'], tool(4));
    const { operation, plan } = planSetup(job, job.setups[0]).planned[0];
    const { path } = plan;
    expect(path.kind[0]).toBe(RAPID);
    for (let i = 0; i < path.count; i++) {
      if (TAGS[path.tag[i]] === 'entry') expect(path.feed[i]).toBe(operation.speeds.entryFeed);
      // The lap along the walls goes slower round their corners.
      const isRound = path.kind[i] === ARC_CW || path.kind[i] === ARC_CCW;
      if (TAGS[path.tag[i]] === 'cut' && !isRound) expect(path.feed[i]).toBe(operation.speeds.feed);
    }
  });
});
