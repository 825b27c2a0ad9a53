import { standing } from '../geometry/space/box';
import { Parameter } from '../quantity/parameter';
import { formatNumber } from '../quantity/units';
import { AroundParams, BESIDE, SIDES_OF, spread } from './around';
import { downStrength } from './friction';
import { Contact, HoldingKind, Placed, boundsOfWork, startAt } from './holding';
import { towards } from './towards';

export class ToeParams extends AroundParams {
  @Parameter({
    label: 'Reaches up',
    help: 'How far up the work it presses: its top stays below the work’s.',
    unit: 'length',
    min: 0.5,
    max: 200,
    step: 0.5,
  })
  grip!: number;
  @Parameter({
    label: 'Force each',
    help: 'A toe clamp 8 kN sideways, a third of it down.',
    unit: 'force',
    min: 0.1,
    max: 100,
    step: 0.5,
  })
  force!: number;
  @Parameter({ label: 'Friction', help: '0.3 with serrated edges.', unit: 'number', min: 0.02, max: 0.8, step: 0.05 })
  friction!: number;
}

/** Share of its force a toe clamp presses down with. */
const DOWN = 1 / 3;

export const toes: HoldingKind<ToeParams> = {
  kind: 'toes',
  title: 'Toe clamps',
  help: 'They press sideways and down low at its sides, and leave the whole top free.',
  Params: ToeParams,
  starts: ({ stock }) => ({
    where: 'front and back',
    count: 2,
    width: 20,
    grip: startAt(Math.min(5, (stock.top - stock.bottom) * 0.3)),
    force: 8,
    friction: 0.3,
  }),
  place(params, work, name): Placed {
    const { count, width, grip, force, friction } = params;
    const { bottom } = work.stock;
    const box = boundsOfWork(work);
    const sides = SIDES_OF[params.where];
    const placed = sides.flatMap((side) => {
      const { wide, deep, rect, at, ahead } = towards(side, box);
      return spread(wide, count).map((u, i) => {
        const clamp = `${side} toe ${count > 1 ? `${i + 1} ` : ''}of ${name}`;
        const contact: Contact = {
          ...{ name: clamp, low: bottom, high: bottom + grip },
          ...{ from: at(u - width / 2, deep), to: at(u + width / 2, deep), into: { x: -ahead.x, y: -ahead.y } },
        };
        return {
          body: standing(clamp, rect(u - width / 2, u + width / 2, deep, deep + BESIDE), bottom, bottom + grip),
          contact,
        };
      });
    });
    const pressed = (sides.length / 2) * count * force * 1000;
    const narrow = Math.min(box.maxX - box.minX, box.maxY - box.minY);
    const down = downStrength(2 * pressed * DOWN, friction, narrow, bottom);
    const slip = 2 * friction * pressed + down.slip / 2;
    return {
      bodies: placed.map((p) => p.body),
      contacts: placed.map((p) => p.contact),
      strength: {
        ...down,
        slip,
        working: [`Slips at 2·μ·F sideways and μ·F/3 below = ${formatNumber(slip / 1000, 2)} kN`, down.working[1]],
      },
      under: { what: 'the table', height: 0 },
      findings: [],
    };
  },
};
