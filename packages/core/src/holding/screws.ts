import { roundPost, standing } from '../geometry/space/box';
import { finding } from '../quantity/finding';
import { FeatureChoice, Parameter } from '../quantity/parameter';
import { downStrength } from './friction';
import { HoldingKind, Placed, Work, SIZES, boundsOfWork, startAt } from './holding';
import { growBounds } from '../geometry/plane/point';
import { surfaceAt } from '../part/plate/model';
import { towards } from './towards';

export class ScrewParams {
  @FeatureChoice({
    label: 'Through',
    help: 'The holes of the part the screws go through. Drill these first, in another grip.',
    features: ['hole'],
  })
  holes!: string;
  @Parameter({
    label: 'Head',
    group: SIZES,
    help: 'Diameter of each head, washer included.',
    unit: 'length',
    min: 1,
    max: 100,
    step: 0.5,
  })
  head!: number;
  @Parameter({
    label: 'Head height',
    group: SIZES,
    help: 'How far a head stands over what it presses on.',
    unit: 'length',
    min: 0.2,
    max: 100,
    step: 0.5,
  })
  height!: number;
  @Parameter({
    label: 'Force each',
    help: 'An M5 screw well tightened 4 kN, an M6 6, an M8 10.',
    unit: 'force',
    min: 0.1,
    max: 100,
    step: 0.5,
  })
  force!: number;
  @Parameter({ label: 'Friction', help: '0.15 on a ground plate.', unit: 'number', min: 0.02, max: 0.8, step: 0.05 })
  friction!: number;
  @Parameter({
    label: 'May be cut into',
    group: SIZES,
    help: 'How deep tools may cut into the plate: a spoil board.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
  })
  spoil!: number;
}

/** How far a plate reaches beyond the work, and how thick it is drawn, mm. */
const PLATE = { beyond: 20, thick: 15 };

/** The plate under the work, as deep down as tools may cut into it. */
export function plateUnder(work: Work, name: string, spoil: number) {
  const { minX, maxX, minY, maxY } = growBounds(boundsOfWork(work), PLATE.beyond);
  const seen = towards('back', { minX, maxX, minY, maxY });
  const { bottom } = work.stock;
  return standing(
    `Plate of ${name}`,
    seen.rect(0, seen.wide, 0, seen.deep),
    bottom - PLATE.thick - spoil,
    bottom - spoil,
  );
}

export const screws: HoldingKind<ScrewParams> = {
  kind: 'screws',
  title: 'Screws through its holes',
  help: 'Low screws hold the work on a plate through holes it has already.',
  Params: ScrewParams,
  starts: ({ features }) => {
    const holes = features.filter((f) => f.meaning === 'hole' && f.through);
    const best = holes.find((f) => f.counterbore) ?? holes[0];
    const head = best?.counterbore ? startAt(best.counterbore.diameter - 0.5, 1) : 10;
    return { holes: best?.id ?? '', head, height: 5, force: 4, friction: 0.15, spoil: 0 };
  },
  place(params, work, name): Placed {
    const { head, height, force, friction, spoil } = params;
    const holes = work.model.holes.filter((h) => h.feature === params.holes && h.through);
    const plate = plateUnder(work, name, spoil);
    const heads = holes.map(({ centre, counterbore }, i) => {
      const on = counterbore ? -counterbore.depth : surfaceAt(work.model, centre);
      return roundPost(`Screw ${i + 1} of ${name}`, centre, head, on, on + height);
    });
    const { minX, maxX, minY, maxY } = boundsOfWork(work);
    return {
      bodies: [plate, ...heads],
      fixed: plate,
      contacts: [],
      strength: downStrength(
        holes.length * force * 1000,
        friction,
        Math.min(maxX - minX, maxY - minY),
        work.stock.bottom,
      ),
      under: { what: 'the plate', height: 0 },
      needs: params.holes,
      findings: holes.length ? [] : [finding('no-screw-holes', { name }, { field: 'holes' })],
    };
  },
};
