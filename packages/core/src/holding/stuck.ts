import { area, intersection } from '../geometry/plane/clip';
import { formatNumber } from '../quantity/units';
import { Choice, Parameter } from '../quantity/parameter';
import { HoldingKind, Placed, SIZES, boundsOfWork } from './holding';
import { plateUnder } from './screws';

const BY = ['double-sided tape', 'glue', 'vacuum', 'magnet'] as const;

/** Side force and pull a square millimetre stands, N/mm². Workshop figures with clean, flat faces. */
const START: Record<(typeof BY)[number], { shear: number; pull: number }> = {
  'double-sided tape': { shear: 0.1, pull: 0.15 },
  glue: { shear: 2, pull: 2 },
  vacuum: { shear: 0.015, pull: 0.07 },
  magnet: { shear: 0.1, pull: 0.6 },
};

export class StuckParams {
  @Choice({ label: 'By', help: 'What holds the underside.', choices: BY })
  by!: (typeof BY)[number];
  @Parameter({
    label: 'Share of the underside',
    help: 'How much of it is held.',
    unit: 'share',
    min: 0.05,
    max: 1,
    step: 0.05,
  })
  share!: number;
  @Parameter({
    label: 'Side force',
    group: SIZES,
    help: 'That a square millimetre stands: tape 0.1, glue 2, vacuum 0.015, a magnet 0.1.',
    unit: 'pressure',
    min: 0.001,
    max: 30,
    step: 0.05,
  })
  shear!: number;
  @Parameter({
    label: 'Pull',
    group: SIZES,
    help: 'That a square millimetre stands: tape 0.15, glue 2, vacuum 0.07, a magnet 0.6.',
    unit: 'pressure',
    min: 0.001,
    max: 30,
    step: 0.05,
  })
  pull!: number;
  @Parameter({
    label: 'May be cut into',
    group: SIZES,
    help: 'How deep tools may cut into what it stands on: a spoil board.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
  })
  spoil!: number;
}

export const stuck: HoldingKind<StuckParams> = {
  kind: 'stuck',
  title: 'Tape, glue, vacuum or magnet',
  help: 'Holds the whole underside, and nothing stands in the way.',
  Params: StuckParams,
  starts: () => ({ by: 'double-sided tape', share: 0.9, ...START['double-sided tape'], spoil: 0.3 }),
  place({ by, share, shear, pull, spoil }, work, name): Placed {
    const plate = plateUnder(work, name, spoil);
    // What is cut free holds by its own underside alone.
    const held = (area(intersection(work.outline, work.model.outline)) * share) / work.parts;
    const { minX, maxX, minY, maxY } = boundsOfWork(work);
    const wide = Math.min(maxX - minX, maxY - minY);
    const [slip, lift] = [shear * held, pull * held];
    const tip = (lift * wide) / 6;
    return {
      bodies: [plate],
      fixed: plate,
      contacts: [],
      strength: {
        ...{ slip, lift, tip, about: work.stock.bottom },
        working: [
          `${by} on ${formatNumber(held / 100, 1)} cm²: slips at ${formatNumber(slip, 0)} N, the largest side force, and comes off at ${formatNumber(lift, 0)} N`,
          `Tips at p·A·w/6 = ${formatNumber(tip / 1000, 1)} N·m, w ${formatNumber(wide, 1)} mm`,
        ],
      },
      under: { what: 'the plate', height: 0 },
      findings: [],
    };
  },
};
