import { standing } from '../geometry/space/box';
import { Parameter } from '../quantity/parameter';
import { AroundParams, BESIDE, SIDES_OF, spread } from './around';
import { downStrength } from './friction';
import { HoldingKind, Placed, SIZES, boundsOfWork } from './holding';
import { towards } from './towards';

export class StrapParams extends AroundParams {
  @Parameter({
    label: 'Reaches over',
    help: 'How far it lies on the work.',
    unit: 'length',
    min: 0.5,
    max: 200,
    step: 1,
  })
  over!: number;
  @Parameter({
    label: 'Stands above',
    group: SIZES,
    help: 'How far it stands over the top of the work, its nut included.',
    unit: 'length',
    min: 1,
    max: 200,
    step: 1,
  })
  above!: number;
  @Parameter({ label: 'Force each', help: 'A strap clamp 5 kN.', unit: 'force', min: 0.1, max: 100, step: 0.5 })
  force!: number;
  @Parameter({
    label: 'Friction',
    help: '0.15 smooth, 0.3 on paper or a rough sawn face.',
    unit: 'number',
    min: 0.02,
    max: 0.8,
    step: 0.05,
  })
  friction!: number;
}

export const straps: HoldingKind<StrapParams> = {
  kind: 'straps',
  title: 'Strap clamps',
  help: 'They press the work down on the table from above, and cover what they lie on.',
  Params: StrapParams,
  starts: () => ({ where: 'left and right', count: 1, width: 25, over: 10, above: 15, force: 5, friction: 0.15 }),
  place(params, work, name): Placed {
    const { count, width, over, above, force, friction } = params;
    const { top, bottom } = work.stock;
    const box = boundsOfWork(work);
    const sides = SIDES_OF[params.where];
    const bodies = sides.flatMap((side) => {
      const { wide, deep, rect } = towards(side, box);
      return spread(wide, count).flatMap((u, i) => {
        const clamp = `${side} clamp ${count > 1 ? `${i + 1} ` : ''}of ${name}`;
        const post = standing(clamp, rect(u - width / 2, u + width / 2, deep, deep + BESIDE), bottom, top + above);
        return [post, standing(clamp, rect(u - width / 2, u + width / 2, deep - over, deep), top, top + above)];
      });
    });
    const total = sides.length * count * force * 1000;
    const narrow = Math.min(box.maxX - box.minX, box.maxY - box.minY);
    return {
      bodies,
      contacts: [],
      strength: downStrength(total, friction, narrow, bottom),
      under: { what: 'the table', height: 0 },
      findings: [],
    };
  },
};
