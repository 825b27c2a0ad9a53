import { standing } from '../geometry/space/box';
import { Choice, Parameter } from '../quantity/parameter';
import { formatNumber } from '../quantity/units';
import { downStrength } from './friction';
import { Contact, HoldingKind, Placed, SIZES, boundsOfWork } from './holding';
import { WorkSide, towards } from './towards';

const WHERE = ['left and right', 'front and back', 'all round'] as const;
const SIDES_OF: Record<(typeof WHERE)[number], WorkSide[]> = {
  'left and right': ['left', 'right'],
  'front and back': ['front', 'back'],
  'all round': ['left', 'right', 'front', 'back'],
};

export class StrapParams {
  @Choice({ label: 'At its', help: 'Which sides they stand at.', choices: WHERE })
  where!: (typeof WHERE)[number];
  @Parameter({ label: 'On each side', help: 'How many, evenly spread.', unit: 'count', min: 1, max: 6, step: 1 })
  count!: number;
  @Parameter({ label: 'Width', group: SIZES, help: 'Of each clamp.', unit: 'length', min: 3, max: 200, step: 1 })
  width!: number;
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

/** Length of a clamp beside the work, mm. */
const BESIDE = 40;

/** Evenly spread middles along a side. */
const spread = (wide: number, count: number) =>
  Array.from({ length: count }, (_, i) => (wide * (2 * i + 1)) / (2 * count));

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

export class ToeParams {
  @Choice({ label: 'At its', help: 'Which sides they stand at.', choices: WHERE })
  where!: (typeof WHERE)[number];
  @Parameter({ label: 'On each side', help: 'How many, evenly spread.', unit: 'count', min: 1, max: 6, step: 1 })
  count!: number;
  @Parameter({ label: 'Width', group: SIZES, help: 'Of each clamp.', unit: 'length', min: 3, max: 200, step: 1 })
  width!: number;
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
    grip: Math.min(5, Math.round((stock.top - stock.bottom) * 3) / 10),
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
